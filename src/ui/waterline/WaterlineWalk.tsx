'use client';

import { useEffect, useId, useRef, type KeyboardEvent } from 'react';
import { rockStretches, type BedProfile } from '@/core/bed/profile';
import type { Grade } from '@/core/model/seamSchema';
import type { SeamEdge } from '@/core/seams/seamEdge';
import { formatMeasure } from '@/core/units/formatMeasure';
import { useUnits } from '../measure/UnitsContext';
import { useWidth } from '../useWidth';
import styles from './WaterlineWalk.module.css';

/** One piece as one walks past it: its cut from left to right, what it stands on, and its water at either end. */
export interface WalkPiece {
  key: string;
  name: string;
  cut: BedProfile;
  /** Strips under its left and its right end. */
  liftMm: readonly [number, number];
  /** Its water at the left and the right end, shims included. */
  levelMm: readonly [number, number];
  landColour: string;
  /** What its rocks are painted with, where that is not the bed's colour. */
  rockColour?: string | undefined;
  look: SeamEdge['look'];
}

/** The joint between a piece and the next. */
export interface WalkJoint {
  grade: Grade;
  /** What is amiss, short enough to stand over the joint, and in full. */
  figure: string;
  reason: string;
}

interface WaterlineWalkProps {
  label: string;
  pieces: readonly WalkPiece[];
  joints: readonly WalkJoint[];
  levelMm: number;
  /** The joint one stands in front of. */
  at: number;
  onAt: (joint: number) => void;
}

const HEIGHT = 230;
const HEAD = 46;
const FOOT = 30;
const LEAST_PIECE_PX = 190;

/**
 * An arrangement at eye level, to walk along: every step marked to scale; a mark leads to what mends it. Arrow keys go
 * from joint to joint.
 */
export function WaterlineWalk({ label, pieces, joints, levelMm, at, onAt }: WaterlineWalkProps) {
  const units = useUnits();
  const [box, widthPx] = useWidth(1200, 'waterlineWalk');
  const scroll = useRef<HTMLDivElement>(null);
  const gradient = useId();
  const total = pieces.reduce((sum, { cut }) => sum + cut.lengthMm, 0);
  const shortest = pieces.reduce((least, { cut }) => Math.min(least, cut.lengthMm), Infinity);
  const scale = Math.max(Math.min((widthPx - 4) / total, 2.2), LEAST_PIECE_PX / shortest);
  const tallest = pieces.reduce(
    (most, { cut, liftMm }) => Math.max(most, cut.heightMm.reduce((a, b) => Math.max(a, b), 0) + Math.max(...liftMm)),
    levelMm + 2,
  );
  const table = HEIGHT - FOOT;
  const up = (table - HEAD) / tallest;
  const y = (mm: number): number => table - mm * up;
  const placed = pieces.map((piece, i) => ({
    piece,
    left: scale * pieces.slice(0, i).reduce((sum, { cut }) => sum + cut.lengthMm, 0),
    width: piece.cut.lengthMm * scale,
  }));
  const whole = total * scale;
  const inFront = placed[Math.min(at, joints.length - 1)];
  const jointX = inFront ? inFront.left + inFront.width : 0;
  useEffect(() => {
    const element = scroll.current;
    if (!element) return;
    const calm = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    element.scrollTo({ left: jointX - element.clientWidth / 2, behavior: calm ? 'auto' : 'smooth' });
  }, [jointX]);
  const onKeyDown = (event: KeyboardEvent): void => {
    const go = { ArrowLeft: at - 1, ArrowRight: at + 1, Home: 0, End: joints.length - 1 }[event.key];
    if (go === undefined || go < 0 || go >= joints.length) return;
    event.preventDefault();
    onAt(go);
  };
  return (
    <figure className={styles.walk} ref={box}>
      <div
        className={styles.scroll}
        ref={scroll}
        tabIndex={0}
        role="group"
        aria-label={`${label}; left and right arrow keys walk from joint to joint`}
        onKeyDown={onKeyDown}
      >
        <svg width={Math.max(widthPx - 2, whole + 2)} height={HEIGHT} className={styles.drawing}>
          {placed.map(({ piece, left, width }, i) => (
            <Standing
              key={piece.key}
              piece={piece}
              left={left}
              width={width}
              table={table}
              up={up}
              gradient={`${gradient}${i}`}
            />
          ))}
          <line className={styles.level} x1="0" x2={whole} y1={y(levelMm)} y2={y(levelMm)} />
          {joints.map((joint, i) => (
            <Joint
              key={placed[i]!.piece.key}
              joint={joint}
              x={placed[i]!.left + placed[i]!.width}
              left={y(placed[i]!.piece.levelMm[1])}
              right={y(placed[i + 1]!.piece.levelMm[0])}
              table={table}
              here={i === at}
              names={`${placed[i]!.piece.name} and ${placed[i + 1]!.piece.name}`}
              onPick={() => onAt(i)}
            />
          ))}
        </svg>
      </div>
      <figcaption>
        <span>
          {joints.length > 0 ? `joint ${Math.min(at, joints.length - 1) + 1} of ${joints.length}` : 'no joints'}
        </span>
        <span>{`dotted: the set’s level, ${formatMeasure(levelMm, 'length', units)}`}</span>
        <span>{`heights drawn ×${(up / scale).toFixed(1)}`}</span>
      </figcaption>
    </figure>
  );
}

interface StandingProps {
  piece: WalkPiece;
  left: number;
  width: number;
  table: number;
  up: number;
  gradient: string;
}

function Standing({
  piece: { cut, liftMm, levelMm, landColour, rockColour, look, name },
  left,
  width,
  table,
  up,
  gradient,
}: StandingProps) {
  const last = cut.heightMm.length - 1;
  const between = ([a, b]: readonly [number, number], i: number): number => a + ((b - a) * i) / last;
  const x = (i: number): string => (left + (width * i) / last).toFixed(1);
  const y = (mm: number): string => (table - mm * up).toFixed(1);
  const bed = Array.from(cut.heightMm, (height, i) => `${x(i)} ${y(height + between(liftMm, i))}`);
  const wet = cut.heightMm.map((height, i) => (height + between(liftMm, i) < between(levelMm, i) ? 1 : 0));
  const lowest = cut.heightMm.reduce((a, b) => Math.min(a, b), Infinity);
  const deepest = Math.max(0.1, levelMm[0] - lowest);
  /** Runs under water between two samples: from and to. */
  const wetRuns = (first: number, end: number): [number, number][] => {
    const runs: [number, number][] = [];
    for (let i = first; i <= end; i++) {
      if (!wet[i]) continue;
      const run = runs.at(-1);
      if (run && run[1] === i - 1) run[1] = i;
      else runs.push([i, i]);
    }
    return runs;
  };
  const waterOf = ([from, to]: readonly [number, number]): string =>
    `M${bed.slice(from, to + 1).join('L')}L${x(to)} ${y(between(levelMm, to))}L${x(from)} ${y(between(levelMm, from))}Z`;
  const runs = wetRuns(0, last);
  const water = runs.map(waterOf);
  const surface = runs.map(
    ([from, to]) => `M${x(from)} ${y(between(levelMm, from))}L${x(to)} ${y(between(levelMm, to))}`,
  );
  const stoneStops = look.rock?.filter((_, i) => i * look.stepMm <= deepest + look.stepMm) ?? [];
  const stones = rockStretches(cut).map(([fromMm, toMm]) => {
    const [from, to] = [fromMm, toMm].map((mm) => Math.min(last, Math.round((mm / cut.lengthMm) * last)));
    return { face: `M${bed.slice(from, to! + 1).join('L')}`, over: wetRuns(from!, to!).map(waterOf).join('') };
  });
  return (
    <g>
      {stoneStops.length > 0 && (
        <linearGradient
          id={`${gradient}r`}
          gradientUnits="userSpaceOnUse"
          x1="0"
          x2="0"
          y1={y(levelMm[0])}
          y2={y(levelMm[0] - deepest)}
        >
          {stoneStops.map((colour, i, all) => (
            <stop key={i} offset={i / Math.max(1, all.length - 1)} stopColor={colour} />
          ))}
        </linearGradient>
      )}
      <linearGradient
        id={gradient}
        gradientUnits="userSpaceOnUse"
        x1="0"
        x2="0"
        y1={y(levelMm[0])}
        y2={y(levelMm[0] - deepest)}
      >
        {look.colours
          .filter((_, i) => i * look.stepMm <= deepest + look.stepMm)
          .map((colour, i, all) => (
            <stop key={i} offset={i / Math.max(1, all.length - 1)} stopColor={colour} />
          ))}
      </linearGradient>
      <path
        className={styles.body}
        style={{ fill: landColour }}
        d={`M${x(0)} ${y(liftMm[0])}L${bed.join('L')}L${x(last)} ${y(liftMm[1])}Z`}
      />
      <path d={water.join('')} fill={`url(#${gradient})`} />
      {stoneStops.length > 0 && <path d={stones.map(({ over }) => over).join('')} fill={`url(#${gradient}r)`} />}
      <path d={surface.join('')} className={styles.surface} />
      {(liftMm[0] > 0 || liftMm[1] > 0) && (
        <path className={styles.shim} d={`M${x(0)} ${table}V${y(liftMm[0])}L${x(last)} ${y(liftMm[1])}V${table}Z`} />
      )}
      <path className={styles.outline} d={`M${x(0)} ${y(liftMm[0])}L${bed.join('L')}L${x(last)} ${y(liftMm[1])}Z`} />
      {stones.length > 0 && (
        <path className={styles.rock} stroke={rockColour} d={stones.map(({ face }) => face).join('')} />
      )}
      <text className={styles.name} x={left + width / 2} y={table + 19} textAnchor="middle">
        {name}
      </text>
    </g>
  );
}

interface JointProps {
  joint: WalkJoint;
  x: number;
  left: number;
  right: number;
  table: number;
  here: boolean;
  names: string;
  onPick: () => void;
}

/** How far the two waters of a joint stand apart, to scale, with the figure over it. */
function Joint({ joint: { grade, figure, reason }, x, left, right, table, here, names, onPick }: JointProps) {
  return (
    <g
      className={styles.joint}
      data-grade={grade}
      data-here={here || undefined}
      role="button"
      tabIndex={-1}
      aria-label={`${names}: ${reason}`}
      aria-pressed={here}
      onClick={onPick}
    >
      <rect x={x - 34} y="2" width="68" height={table} className={styles.hit} />
      <path className={styles.seam} d={`M${x} ${HEAD - 18}V${table}`} />
      <path className={styles.step} d={`M${x - 17} ${left}H${x}V${right}H${x + 17}`} />
      <text className={styles.figure} x={x} y={HEAD - 24} textAnchor="middle">
        {figure}
      </text>
      {here && <path className={styles.feet} d={`M${x - 6} ${table + 6}l6 -5l6 5`} />}
    </g>
  );
}
