'use client';

import { useId, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { formatMeasure } from '@/core/units/formatMeasure';
import { useUnits } from '../measure/UnitsContext';
import { useWidth } from '../useWidth';
import type { StripPiece } from '@/core/picture/strip';
import {
  bodyPath,
  layoutStrip,
  px,
  rockPath,
  rockWaterPath,
  surfacePath,
  waterPath,
  type StripSlot,
} from './layoutStrip';
import styles from './WaterlineStrip.module.css';

const GAUGE_PX = 84;
const HEAD_PX = 30;
const FOOT_PX = 24;

interface WaterlineStripProps {
  pieces: readonly StripPiece[];
  levelMm: number;
  everyPiece?: boolean;
  heightPx?: number;
  selectedId?: string | null;
  onSelect?: ((id: string) => void) | undefined;
  /** With it the level can be moved on the gauge: `done` is false while it is on the way. */
  onLevel?: ((levelMm: number, done: boolean) => void) | undefined;
  /** What stands at the right above the pieces. */
  caption?: ReactNode;
  /** Where pieces lead to on a strip that is not the desk's own. */
  label: string;
  /** How wide it is drawn before its room is known. */
  firstWidthPx?: number;
  /** Copies on which something was found that is to be mended, and what. */
  found?: readonly { designId: string; copy: number; words: string }[] | undefined;
  /** Without the words above it: one of many. */
  plain?: boolean;
}

/** The set's pieces in a row at eye level: beds cut open, water in its predicted colour, one level across all of them. */
export function WaterlineStrip({
  pieces,
  levelMm,
  everyPiece = false,
  heightPx = 176,
  selectedId = null,
  onSelect,
  onLevel,
  caption,
  label,
  firstWidthPx = 1200,
  found = [],
  plain = false,
}: WaterlineStripProps) {
  const units = useUnits();
  const [box, widthPx] = useWidth(firstWidthPx, 'waterlineStrip');
  const layout = useMemo(
    () => layoutStrip(pieces, Math.max(200, widthPx - GAUGE_PX), everyPiece),
    [pieces, widthPx, everyPiece],
  );
  const tallest = Math.max(
    levelMm + 4,
    ...pieces.map((piece) => piece.profile.heightMm.reduce((a, b) => Math.max(a, b), 0)),
  );
  const tablePx = heightPx - FOOT_PX;
  const drawnPx = Math.max(widthPx, layout.widthPx + GAUGE_PX);
  const up = (tablePx - HEAD_PX) / tallest;
  const levelPx = px(tablePx - levelMm * up);
  const waters = useWaters(pieces, levelMm);
  return (
    <div className={styles.strip} ref={box}>
      {!plain && (
        <div className={styles.caption}>
          {caption}
          <span>heights drawn ×{(up / layout.pxPerMm).toFixed(1)}</span>
        </div>
      )}
      <div className={styles.scroll} tabIndex={!plain && drawnPx > widthPx ? 0 : -1} role="group" aria-label={label}>
        <svg
          width={plain ? '100%' : drawnPx}
          height={heightPx}
          className={styles.drawing}
          {...(plain && { viewBox: `0 0 ${drawnPx} ${heightPx}`, preserveAspectRatio: 'xMinYMax meet' })}
        >
          <Gauge
            levelMm={levelMm}
            tallestMm={tallest}
            tablePx={tablePx}
            up={up}
            onLevel={onLevel}
            text={formatMeasure(levelMm, 'length', units)}
          />
          <defs>
            {waters.all.map(({ waterId, deepestMm, colours }) => (
              <linearGradient
                key={waterId}
                id={waterId}
                gradientUnits="userSpaceOnUse"
                x1="0"
                x2="0"
                y1={px(levelPx)}
                y2={px(levelPx + deepestMm * up)}
              >
                {colours.map((colour, i) => (
                  <stop key={i} offset={px(i / Math.max(1, colours.length - 1), 3)} stopColor={colour} />
                ))}
              </linearGradient>
            ))}
          </defs>
          <g transform={`translate(${GAUGE_PX} 0)`}>
            {layout.slots.map((slot) => (
              <Piece
                key={`${slot.piece.id}-${slot.copy}`}
                slot={slot}
                waterId={waters.idOf(slot.piece)}
                rockWaterId={waters.rockIdOf(slot.piece)}
                tablePx={tablePx}
                up={up}
                selected={slot.piece.id === selectedId}
                numbered={everyPiece}
                found={found}
                onSelect={onSelect}
              />
            ))}
          </g>
          <line className={styles.level} x1={GAUGE_PX - 12} x2={GAUGE_PX + layout.widthPx} y1={levelPx} y2={levelPx} />
        </svg>
      </div>
    </div>
  );
}

/** A way that water is coloured from its surface down to the deepest. */
interface Water {
  waterId: string;
  deepestMm: number;
  colours: string[];
}

/** The waters of a strip: pieces whose water looks the same share one. */
function useWaters(
  pieces: readonly StripPiece[],
  levelMm: number,
): { all: Water[]; idOf: (piece: StripPiece) => string; rockIdOf: (piece: StripPiece) => string } {
  const base = useId();
  return useMemo(() => {
    const byLook = new Map<string, Water>();
    const ofPiece = new Map<string, string>();
    const ofRocks = new Map<string, string>();
    for (const { id, profile, look, rocks } of pieces) {
      const lowestMm = profile.heightMm.reduce((a, b) => Math.min(a, b), Infinity);
      const deepestMm = Math.max(0.1, levelMm - lowestMm);
      const idFor = (all: readonly string[]): string => {
        const colours = all.filter((_, i) => i * look.stepMm <= deepestMm + look.stepMm);
        const key = `${deepestMm.toFixed(2)} ${colours.join(' ')}`;
        const water = byLook.get(key) ?? { waterId: `${base}${byLook.size}`, deepestMm, colours };
        byLook.set(key, water);
        return water.waterId;
      };
      ofPiece.set(id, idFor(look.colours));
      if (look.rock && rocks.length > 0) ofRocks.set(id, idFor(look.rock));
    }
    return {
      all: [...byLook.values()],
      idOf: ({ id }) => ofPiece.get(id) ?? '',
      rockIdOf: ({ id }) => ofRocks.get(id) ?? '',
    };
  }, [pieces, levelMm, base]);
}

interface PieceProps {
  slot: StripSlot;
  /** Of the gradient that colours its water. */
  waterId: string;
  /** The same over its rocks; empty where they have no paint of their own. */
  rockWaterId: string;
  tablePx: number;
  up: number;
  selected: boolean;
  numbered: boolean;
  found: NonNullable<WaterlineStripProps['found']>;
  onSelect?: ((id: string) => void) | undefined;
}

function Piece({ slot, waterId, rockWaterId, tablePx, up, selected, numbered, found, onSelect }: PieceProps) {
  const { piece, leftPx, widthPx, copy } = slot;
  const own = found.filter((one) => one.designId === piece.id && (!numbered || one.copy === copy));
  const toMend = own.map((one) => `#${one.copy} to mend: ${one.words}`).join('; ');
  const press = onSelect && {
    role: 'button',
    tabIndex: 0,
    onClick: () => onSelect(piece.id),
    onKeyDown: (event: KeyboardEvent) =>
      (event.key === 'Enter' || event.key === ' ') && (event.preventDefault(), onSelect(piece.id)),
  };
  const tag = numbered && piece.copies > 1 ? `${piece.tag} #${copy}` : piece.tag;
  return (
    <g
      className={styles.piece}
      data-selected={selected || undefined}
      aria-label={`${piece.name}, ${piece.tag}, ${piece.copies} ${piece.copies === 1 ? 'copy' : 'copies'}${piece.problem ? `: ${piece.problem.message}` : ''}${toMend && `; ${toMend}`}`}
      {...(onSelect && { 'aria-pressed': selected })}
      {...press}
    >
      <rect
        className={styles.hit}
        x={px(leftPx - 3)}
        width={px(widthPx + 6)}
        y={HEAD_PX - 12}
        height={tablePx - HEAD_PX + 12 + FOOT_PX}
      />
      <path d={waterPath(slot, tablePx, up)} fill={`url(#${waterId})`} className={styles.water} />
      {rockWaterId && <path d={rockWaterPath(slot, tablePx, up)} fill={`url(#${rockWaterId})`} />}
      <path className={styles.body} d={bodyPath(slot, tablePx, up)} />
      {rockWaterId && (
        <path className={styles.rock} d={rockPath(slot, tablePx, up)} stroke={piece.rockColour ?? undefined} />
      )}
      <path className={styles.surface} d={surfacePath(slot, tablePx, up)} />
      {piece.dams.map((dam) => (
        <path key={dam.fromMm} className={styles.dam} d={damPath(slot, dam, tablePx, up)}>
          <title>{`${dam.method}, ${formatMeasure(dam.stripMm, 'length')} × ${formatMeasure(dam.topMm, 'length')}`}</title>
        </path>
      ))}
      {piece.problem && <ProblemFlag severity={piece.problem.severity} x={leftPx + widthPx / 2} y={tablePx - 13} />}
      <text className={styles.tag} x={px(leftPx + widthPx / 2)} y={tablePx + 17} textAnchor="middle">
        {tag}
        {!numbered && piece.copies > 1 && <tspan className={styles.copies}>{` ×${piece.copies}`}</tspan>}
        {toMend && (
          <tspan className={styles.found}>
            {' !'}
            <title>{toMend}</title>
          </tspan>
        )}
      </text>
    </g>
  );
}

/** The top of a dam, with short feet at both ends of the opening. */
function damPath(
  { leftPx, widthPx, piece }: StripSlot,
  dam: StripPiece['dams'][number],
  tablePx: number,
  up: number,
): string {
  const x = (mm: number): number => px(leftPx + (mm / piece.profile.lengthMm) * widthPx);
  const top = px(tablePx - dam.topMm * up);
  return `M${x(dam.fromMm)} ${top}v5v-5H${x(dam.toMm)}v5`;
}

function ProblemFlag({ severity, x, y }: { severity: 'stop' | 'warn' | 'hint'; x: number; y: number }) {
  if (severity === 'hint') return null;
  return severity === 'stop' ? (
    <path className={styles.stop} d={`M${x - 5} ${y - 5}l10 10m0 -10l-10 10`} />
  ) : (
    <path className={styles.warn} d={`M${x} ${y - 6}l6.5 11h-13Z`} />
  );
}

interface GaugeProps {
  levelMm: number;
  tallestMm: number;
  tablePx: number;
  up: number;
  text: string;
  onLevel?: ((levelMm: number, done: boolean) => void) | undefined;
}

/** The ruler at the left with the level on it: drag it, or use the arrow keys. */
function Gauge({ levelMm, tallestMm, tablePx, up, text, onLevel }: GaugeProps) {
  const grip = useRef<{ y: number; levelMm: number } | null>(null);
  const [held, setHeld] = useState(false);
  const y = px(tablePx - levelMm * up);
  const tenth = (mm: number): number => Math.max(0.1, Math.round(mm * 10) / 10);
  const move = (event: PointerEvent, done: boolean): void => {
    if (grip.current) onLevel?.(tenth(grip.current.levelMm - (event.clientY - grip.current.y) / up), done);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const step = { ArrowUp: 0.1, ArrowDown: -0.1, PageUp: 1, PageDown: -1 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    onLevel?.(tenth(levelMm + step * (event.shiftKey ? 5 : 1)), true);
  };
  const ticks = Array.from({ length: Math.floor(tallestMm / 5) + 1 }, (_, i) => i * 5);
  return (
    <g>
      {ticks.map((mm) => (
        <line
          key={mm}
          className={styles.tick}
          x1={mm % 10 === 0 ? 62 : 67}
          x2={74}
          y1={px(tablePx - mm * up)}
          y2={px(tablePx - mm * up)}
        />
      ))}
      <g
        className={styles.grip}
        data-held={held || undefined}
        {...(onLevel && {
          role: 'slider',
          tabIndex: 0,
          'aria-label': 'Level above the underside',
          'aria-valuenow': levelMm,
          'aria-valuemin': 0.1,
          'aria-valuemax': Math.round(tallestMm),
          'aria-valuetext': text,
          'aria-orientation': 'vertical' as const,
          onKeyDown,
          onPointerDown: (event: PointerEvent<SVGGElement>) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            grip.current = { y: event.clientY, levelMm };
            setHeld(true);
          },
          onPointerMove: (event: PointerEvent) => move(event, false),
          onPointerUp: (event: PointerEvent) => {
            move(event, true);
            grip.current = null;
            setHeld(false);
          },
        })}
      >
        <rect x="0" y={y - 15} width="78" height="30" className={styles.gripArea} />
        <text className={styles.levelText} x="0" y={y - 2}>
          {text}
        </text>
        <text className={styles.levelWord} x="0" y={y + 12}>
          level
        </text>
        {onLevel && <path className={styles.gripMark} d={`M66 ${y - 4}l4 -5l4 5M66 ${y + 4}l4 5l4 -5`} />}
      </g>
    </g>
  );
}
