'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { useRef, useState, type KeyboardEvent } from 'react';
import type { LearntDot, LearntFigure } from '@/core/learn/learntFigure';
import type { LearntView } from '@/core/records/learnt';
import { dayWithYear } from '@/core/time/dayNames';
import { useFigureWords } from './figureWords';
import styles from './LearntScreen.module.css';

const HIGH = 96;
/** Dots stand over the line and under the figures' names. */
const TOP = 26;
const GROUND = HIGH - 16;
/** Room at either side, in shares of the width. */
const MARGIN = 0.06;

interface DotStripProps {
  figure: LearntFigure;
  batches: LearntView['batches'];
  busy: boolean;
  onTurn: (dot: string) => void;
}

/**
 * Dots that settle: each observation at its value, the older the lower; the figure as it stands a thin line, what the record makes of it
 * a firm one with its standard error. What is far off stands hollow at the edge.
 */
export function DotStrip({ figure, batches, busy, onTurn }: DotStripProps) {
  const words = useFigureWords();
  const row = useRef<HTMLDivElement>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const { unit, was, now, dots: drawn, observed } = figure;
  const near = drawn.filter(({ far }) => !far).map(({ value }) => value);
  const [least, most] = [
    Math.min(was, now.value - now.plusMinus, ...near),
    Math.max(was, now.value + now.plusMinus, ...near),
  ];
  const span = Math.max(most - least, Math.abs(was) * 0.1, 1e-9);
  const x = (value: number): number =>
    100 * Math.min(1, Math.max(0, MARGIN + ((1 - 2 * MARGIN) * (value - least + (span - (most - least)) / 2)) / span));
  const open = drawn.find(({ key }) => key === chosen);
  const first = chosen ?? drawn.at(-1)?.key;
  const walk = (event: KeyboardEvent, at: number): void => {
    const by = { ArrowLeft: -1, ArrowUp: -1, ArrowRight: 1, ArrowDown: 1, Home: -drawn.length, End: drawn.length }[
      event.key
    ];
    if (by === undefined) return;
    event.preventDefault();
    const next = Math.min(drawn.length - 1, Math.max(0, at + by));
    setChosen(drawn[next]!.key);
    (row.current?.children[next] as HTMLElement | undefined)?.focus();
  };
  return (
    <div className={styles.strip}>
      <svg className={styles.lines} height={HIGH} width="100%" aria-hidden>
        <line className={styles.ground} x1="0" x2="100%" y1={GROUND + 8} y2={GROUND + 8} />
        <rect
          className={styles.band}
          x={`${x(now.value - now.plusMinus)}%`}
          width={`${x(now.value + now.plusMinus) - x(now.value - now.plusMinus)}%`}
          y={TOP - 8}
          height={GROUND + 16 - TOP}
        />
        <line className={styles.was} x1={`${x(was)}%`} x2={`${x(was)}%`} y1={TOP - 8} y2={HIGH - 4} />
        <line className={styles.now} x1={`${x(now.value)}%`} x2={`${x(now.value)}%`} y1={TOP - 8} y2={HIGH - 4} />
      </svg>
      <span
        className={styles.wasName}
        style={nameAt(x(was), now.value < was)}
      >{`as it stands ${words.value(was, unit)}`}</span>
      <span className={styles.nowName} style={nameAt(x(now.value), now.value >= was)}>
        {`${words.value(now.value, unit)} on record`}
      </span>
      <div ref={row} role="group" aria-label={`What ${figure.name} is learnt from`}>
        {drawn.map((dot, i) => (
          <button
            key={dot.key}
            type="button"
            className={styles.dot}
            data-counted={dot.counted}
            aria-pressed={dot.key === chosen}
            aria-label={`${words.value(dot.value, unit)}, ${dayWithYear(dot.at.slice(0, 10))}${dot.counted ? '' : ', not counted'}`}
            title={words.value(dot.value, unit)}
            tabIndex={dot.key === first ? 0 : -1}
            style={{ left: `${x(dot.value)}%`, top: heightOf(i, drawn.length) }}
            onClick={() => setChosen(dot.key === chosen ? null : dot.key)}
            onKeyDown={(event) => walk(event, i)}
          />
        ))}
      </div>
      <div className={styles.about} aria-live="polite">
        {open ? (
          <About
            dot={open}
            unit={unit}
            of={open.batchId ? batches[open.batchId] : undefined}
            busy={busy}
            onTurn={onTurn}
          />
        ) : observed > drawn.length ? (
          <p>{`The newest ${drawn.length} of ${observed} are drawn; all are counted.`}</p>
        ) : (
          <p>Press a dot to see where it comes from.</p>
        )}
      </div>
    </div>
  );
}

/** A name beside its line, to the side on which the other line is not; at an edge towards the middle. */
function nameAt(x: number, right: boolean): { left: string; transform: string } {
  const toRight = x < 34 ? true : x > 66 ? false : right;
  return { left: `${x}%`, transform: toRight ? 'translateX(6px)' : 'translateX(calc(-100% - 6px))' };
}

/** The older a dot is, the lower it has settled. */
const heightOf = (i: number, of: number): number => GROUND - ((GROUND - TOP) * i) / Math.max(1, of - 1);

function About({
  dot,
  unit,
  of,
  busy,
  onTurn,
}: { dot: LearntDot; unit: LearntFigure['unit']; of: LearntView['batches'][string] | undefined } & Pick<
  DotStripProps,
  'busy' | 'onTurn'
>) {
  const words = useFigureWords();
  return (
    <p>
      <b>{words.value(dot.value, unit)}</b>
      {`, ${dayWithYear(dot.at.slice(0, 10))}`}
      {of && (
        <>
          {', '}
          <Link href={`/sets/${of.setId}/log?batch=${dot.batchId}`}>{`${of.set}, ${of.name}`}</Link>
        </>
      )}
      {dot.far && ': far off the others'}
      {'. '}
      <Button variant="text" size="small" disabled={busy} onClick={() => onTurn(dot.key)}>
        {dot.counted ? 'Leave it out' : 'Count it'}
      </Button>
    </p>
  );
}
