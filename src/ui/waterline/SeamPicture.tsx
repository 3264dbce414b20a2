'use client';

import { SEAM_STEP_MM, type SeamEdge } from '@/core/seams/seamEdge';
import type { Seam } from '@/core/seams/seam';
import { formatMeasure } from '@/core/units/formatMeasure';
import { useUnits } from '../measure/UnitsContext';
import styles from './SeamPicture.module.css';

const WIDTH = 520;
const HEIGHT = 190;
const EXAGGERATIONS = [1, 2, 3, 4, 5, 6, 8, 10, 12, 15];

interface SeamPictureProps {
  a: SeamEdge;
  b: SeamEdge;
  seam: Seam;
  /** What decides its grade, for those who cannot see the picture. */
  words: string;
}

/** Two edges face to face at eye level: the first filled, the second as a line over it, both from the first one's left. */
export function SeamPicture({ a, b, seam, words }: SeamPictureProps) {
  const units = useUnits();
  const count = Math.min(a.heightMm.length, b.heightMm.length);
  const facing = Array.from({ length: count }, (_, i) => b.heightMm[b.heightMm.length - 1 - i]!);
  const highest = Math.max(
    a.heightMm.reduce((x, y) => Math.max(x, y), 0),
    facing.reduce((x, y) => Math.max(x, y), 0),
    ...a.levelMm,
    ...b.levelMm,
  );
  const lowest = Math.min(
    a.heightMm.reduce((x, y) => Math.min(x, y), Infinity),
    facing.reduce((x, y) => Math.min(x, y), Infinity),
  );
  const [top, bottom] = [highest + 1, Math.max(0, lowest - 2)];
  const perMm = WIDTH / a.lengthMm;
  const times = EXAGGERATIONS.filter((factor) => (top - bottom) * perMm * factor <= HEIGHT).at(-1) ?? 1;
  const x = (i: number): string => (i * SEAM_STEP_MM * perMm).toFixed(1);
  const y = (mm: number): string => ((top - mm) * perMm * times).toFixed(1);
  const line = (heights: ArrayLike<number>): string =>
    Array.from({ length: count }, (_, i) => `${x(i)} ${y(heights[i]!)}`).join('L');
  const deepest = a.look.colours.at(-1) ?? '#336633';
  const end = x(count - 1);
  const surface = ([left, middle, right]: readonly [number, number, number]): string =>
    `M0 ${y(left)}L${Number(end) / 2} ${y(middle)}L${end} ${y(right)}`;
  const levelsB = [b.levelMm[2], b.levelMm[1], b.levelMm[0]] as const;
  const mark = seam.grade === 'closes' ? null : seam.grades.step === seam.grade ? seam.stepAtMm : seam.gapAtMm;
  return (
    <figure className={styles.seam}>
      <svg
        viewBox={`-2 -6 ${WIDTH + 4} ${Number(y(bottom)) + 10}`}
        role="img"
        aria-label={`${a.piece} ${a.edge} against ${b.piece} ${b.edge}: ${words}`}
      >
        <path d={`${surface(a.levelMm)}V${y(bottom)}H0Z`} fill={deepest} opacity="0.85" />
        <path d={`M0 ${y(bottom)}L${line(a.heightMm)}L${end} ${y(bottom)}Z`} className={styles.body} />
        <path d={`M${line(facing)}`} className={styles.other} />
        <path d={surface(a.levelMm)} className={styles.level} />
        <path d={surface(levelsB)} className={styles.otherLevel} />
        {mark !== null && <path d={`M${(mark * perMm).toFixed(1)} -5V${y(bottom)}`} className={styles.mark} />}
      </svg>
      <figcaption>
        <span>
          <i className={styles.keyBody} /> {a.piece} {a.edge}
        </span>
        <span>
          <i className={styles.keyLine} /> {b.piece} {b.edge}, facing it
        </span>
        <span>{`heights ${times}×, from ${formatMeasure(bottom, 'length', units)} up`}</span>
      </figcaption>
    </figure>
  );
}
