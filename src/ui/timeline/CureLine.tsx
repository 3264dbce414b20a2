'use client';

import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { benchSpans, WEEKDAYS } from '@/core/time/benchWindows';
import { shortTime } from '@/core/time/dayNames';
import { toWallTime, wallMinutes, weekdayOf } from '@/core/time/wallTime';
import type { LayerPlan, PlanRequest } from '@/core/plan';
import { useWidth } from '../useWidth';
import styles from './CureLine.module.css';

interface CureLineProps {
  layers: readonly LayerPlan[];
  bench: Pick<PlanRequest['bench'], 'windows' | 'exceptions'>;
  /** With it the first pour can be moved along the line. */
  onPourAt?: ((pourAt: string, done: boolean) => void) | undefined;
}

const LEFT = 74;
const HEAD = 34;
const ROW = 76;
const SNAP_MINUTES = 15;

/** When each layer is poured, can take the next, comes out of its dams and is cured, against the maker's bench windows. */
export function CureLine({ layers, bench, onPourAt }: CureLineProps) {
  const [box, width] = useWidth(800, 'cureLine');
  // While the first pour is dragged the scale must stand still under the finger.
  const [heldScale, setHeldScale] = useState<{ from: number; to: number } | null>(null);
  const times = layers.flatMap(({ cure }) => [cure.pouredAt, cure.fullCureAt].map(wallMinutes));
  const from = heldScale?.from ?? Math.floor((Math.min(...times) - 240) / 60) * 60;
  const to = heldScale?.to ?? Math.max(...times) + 300;
  const x = (minutes: number): number => LEFT + ((minutes - from) / (to - from)) * (width - LEFT - 6);
  const height = HEAD + layers.length * ROW + 6;
  const days = Array.from(
    { length: Math.ceil((to - from) / 1440) + 1 },
    (_, i) => Math.floor(from / 1440) * 1440 + i * 1440,
  ).filter((day) => day < to);
  const dayPx = x(from + 1440) - x(from);
  return (
    <div ref={box} className={styles.box}>
      <svg
        width={width}
        height={height}
        className={styles.line}
        role="group"
        aria-label="Cure line of the layers; the table below has the same times"
      >
        {benchSpans(bench.windows, from, to, bench.exceptions).map((span) => (
          <rect
            key={span.from}
            className={styles.window}
            x={x(span.from)}
            width={Math.max(1.5, x(span.to) - x(span.from))}
            y={HEAD - 8}
            height={height - HEAD + 8}
          />
        ))}
        {days.map((day) => (
          <g key={day}>
            {day > from && <line className={styles.midnight} x1={x(day)} x2={x(day)} y1={HEAD - 20} y2={height} />}
            {(dayPx > 46 || weekdayOf(day) === 0) && (
              <text className={styles.day} x={Math.max(x(day), LEFT) + 5} y={HEAD - 15}>
                {`${WEEKDAYS[weekdayOf(day)]!.slice(0, 3)} ${Number(toWallTime(day).slice(8, 10))}`}
              </text>
            )}
          </g>
        ))}
        {layers.map((layer, i) => (
          <Row key={layer.number} layer={layer} y={HEAD + i * ROW} x={x} width={width} />
        ))}
        {onPourAt && layers[0] && !layers[0].cure.poured && (
          <PourGrip
            at={wallMinutes(layers[0].cure.pouredAt)}
            y={HEAD + 33}
            x={x}
            minutesPerPx={(to - from) / (width - LEFT - 6)}
            onHold={(held) => setHeldScale(held ? { from, to } : null)}
            onPourAt={onPourAt}
          />
        )}
      </svg>
    </div>
  );
}

function Row({ layer, y, x, width }: { layer: LayerPlan; y: number; x: (minutes: number) => number; width: number }) {
  const { cure } = layer;
  const [poured, opens, demould, full] = [cure.pouredAt, cure.recoatOpensAt, cure.demouldAt, cure.fullCureAt].map(
    wallMinutes,
  ) as [number, number, number, number];
  const closes = cure.recoatClosesAt === null ? null : wallMinutes(cure.recoatClosesAt);
  const mid = y + 33;
  return (
    <g>
      <text x="0" y={mid + 5} className={styles.layer}>
        Layer {layer.number}
      </text>
      <line className={styles.base} x1={x(poured)} x2={x(full)} y1={mid} y2={mid} />
      <rect
        className={styles.setting}
        x={x(poured)}
        width={Math.max(2, x(opens) - x(poured))}
        y={mid - 7}
        height="14"
      />
      <rect
        className={styles.recoat}
        x={x(opens)}
        width={Math.max(2, (closes === null ? x(full) : x(closes)) - x(opens))}
        y={mid - 7}
        height="14"
      />
      <circle className={cure.poured ? styles.done : styles.pour} cx={x(poured)} cy={mid} r="8" />
      <path className={styles.demould} d={`M${x(demould)} ${mid - 12}v24`} />
      <path className={styles.full} d={`M${x(full)} ${mid - 9}l8 9l-8 9l-8 -9Z`} />
      <text className={styles.note} x={x(poured)} y={mid + 26} textAnchor="start">
        {cure.poured ? 'poured' : 'pour'}
      </text>
      <text className={styles.note} x={x((opens + (closes ?? full)) / 2)} y={mid - 13} textAnchor="middle">
        recoat
      </text>
      <text className={styles.note} x={x(demould)} y={mid + 26} textAnchor="middle">
        {x(demould) - x(poured) > 70 ? 'dams off' : ''}
      </text>
      <text className={styles.note} x={Math.min(width - 4, x(full) + 20)} y={mid + 26} textAnchor="end">
        full cure
      </text>
    </g>
  );
}

interface PourGripProps {
  at: number;
  y: number;
  x: (minutes: number) => number;
  minutesPerPx: number;
  onHold: (held: boolean) => void;
  onPourAt: (pourAt: string, done: boolean) => void;
}

/** The first pour's mark as something to take hold of: drag it, or step with the arrow keys. */
function PourGrip({ at, y, x, minutesPerPx, onHold, onPourAt }: PourGripProps) {
  const grip = useRef<{ clientX: number; at: number } | null>(null);
  const snap = (minutes: number): string => toWallTime(Math.round(minutes / SNAP_MINUTES) * SNAP_MINUTES);
  const move = (event: PointerEvent, done: boolean): void => {
    if (grip.current) onPourAt(snap(grip.current.at + (event.clientX - grip.current.clientX) * minutesPerPx), done);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const step = { ArrowLeft: -SNAP_MINUTES, ArrowRight: SNAP_MINUTES, PageUp: 1440, PageDown: -1440 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    onPourAt(snap(at + step * (event.shiftKey ? 4 : 1)), true);
  };
  return (
    <g
      className={styles.grip}
      role="slider"
      tabIndex={0}
      aria-label="First pour"
      aria-valuenow={at}
      aria-valuetext={shortTime(toWallTime(at))}
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        grip.current = { clientX: event.clientX, at };
        onHold(true);
      }}
      onPointerMove={(event) => move(event, false)}
      onPointerUp={(event) => {
        move(event, true);
        grip.current = null;
        onHold(false);
      }}
    >
      <title>Drag to pour at another time, or use the arrow keys</title>
      <circle cx={x(at)} cy={y} r="18" fill="transparent" />
      <circle className={styles.ring} cx={x(at)} cy={y} r="12" />
    </g>
  );
}
