'use client';

import Button from '@mui/material/Button';
import { rockStretches, type BedProfile } from '@/core/bed/profile';
import { lookAt, type WaterLook } from '@/core/tint/waterLook';
import { formatMeasure } from '@/core/units/formatMeasure';
import { useUnits } from '../measure/UnitsContext';
import styles from './SectionCut.module.css';

interface SectionCutProps {
  profile: BedProfile;
  levelMm: number;
  /** By how much the water stands over the level at each sample, where a pool has its own. */
  overMm: Float32Array | null;
  landColour: string;
  /** What rocks are painted with, where that is not the bed's colour. */
  rockColour?: string | undefined;
  look: WaterLook;
  /** Saves the cut at true size. */
  onSave: () => void;
  /** Whether the piece keeps this line as its own; and what keeps or forgets it. */
  isOwn: boolean;
  onOwn: () => void;
}

const HEIGHT = 96;
const WIDTH = 420;
/** Heights are drawn up to this many times taller than lengths. */
const EXAGGERATIONS = [1, 2, 3, 4, 5, 6, 8, 10];

/** The bed and its water along the section line, taller than long by a factor that is said. */
export function SectionCut({
  profile,
  levelMm,
  overMm,
  landColour,
  rockColour,
  look,
  onSave,
  isOwn,
  onOwn,
}: SectionCutProps) {
  const units = useUnits();
  const { heightMm, stepMm, lengthMm } = profile;
  const highest = heightMm.reduce((most, z, i) => Math.max(most, z, levelMm + (overMm?.[i] ?? 0)), 0) + 1;
  const perMm = WIDTH / lengthMm;
  const times = EXAGGERATIONS.filter((factor) => highest * perMm * factor <= HEIGHT).at(-1) ?? 1;
  const y = (mm: number): number => (highest - mm) * perMm * times;
  const x = (i: number): number => i * stepMm * perMm;
  const surface = (i: number): number => levelMm + (overMm?.[i] ?? 0);
  const water = Array.from(heightMm, (z, i) => `${x(i).toFixed(1)} ${y(Math.max(z, surface(i))).toFixed(1)}`).join('L');
  const bed = Array.from(heightMm, (z, i) => `${x(i).toFixed(1)} ${y(z).toFixed(1)}`).join('L');
  const depth = heightMm.reduce((most, z, i) => Math.max(most, surface(i) - z), 0);
  const wet = heightMm.reduce((sum, z, i) => sum + (z < surface(i) ? 1 : 0), 0) * stepMm;
  const deepest = lookAt(look, depth);
  const rocks = rockStretches(profile).map(([fromMm, toMm]) => {
    const [from, to] = [Math.round(fromMm / stepMm), Math.min(heightMm.length - 1, Math.round(toMm / stepMm))];
    const samples = Array.from({ length: to - from + 1 }, (_, i) => from + i);
    const over = Math.max(0, ...samples.map((i) => surface(i) - heightMm[i]!));
    const [above, face] = [samples.map((i) => Math.max(heightMm[i]!, surface(i))), samples.map((i) => heightMm[i]!)];
    const points = (heights: readonly number[]): string[] =>
      heights.map((mm, k) => `${x(samples[k]!).toFixed(1)} ${y(mm).toFixed(1)}`);
    return {
      face: points(face).join('L'),
      water: [...points(above), ...points(face).reverse()].join('L'),
      colour: over > 0 && look.rock ? lookAt({ ...look, colours: look.rock }, over) : null,
    };
  });
  const measure = (mm: number): string => formatMeasure(mm, 'length', units);
  return (
    <figure className={styles.cut} aria-label="Section">
      <svg
        viewBox={`-2 -2 ${WIDTH + 4} ${y(0) + 4}`}
        role="img"
        aria-label={`Section ${measure(lengthMm)} long, ${depth > 0 ? `${measure(depth)} deep at most, ${measure(wet)} of it under water` : 'dry'}`}
      >
        <path d={`M0 ${y(0)}L${water}L${WIDTH} ${y(0)}Z`} fill={deepest} />
        {rocks.map(({ water: over, colour }, i) => colour && <path key={i} d={`M${over}Z`} fill={colour} />)}
        <path d={`M0 ${y(0)}L${bed}L${WIDTH} ${y(0)}Z`} fill={landColour} className={styles.bed} />
        {rocks.map(({ face }, i) => (
          <path key={i} d={`M${face}`} stroke={rockColour} className={styles.rock} />
        ))}
        <path d={`M0 ${y(levelMm)}H${WIDTH}`} className={styles.level} />
      </svg>
      <figcaption>
        <span>
          {depth > 0
            ? `${measure(depth)} deep at most, ${measure(wet)} of ${measure(lengthMm)} under water`
            : `Dry along all ${measure(lengthMm)}`}{' '}
          · heights {times}×
        </span>
        <Button size="small" variant="text" onClick={onSave}>
          Save as SVG, 1:1
        </Button>
        <Button size="small" variant="text" aria-pressed={isOwn} onClick={onOwn}>
          {isOwn ? 'Forget this line' : 'Keep this line for the strip'}
        </Button>
      </figcaption>
    </figure>
  );
}
