import type { TintMend } from '@/core/tint/tintForMore';
import type { RatioReading } from '@/core/mixing/ratio';
import { formatMeasure, type UnitPreferences } from '@/core/units/formatMeasure';
import styles from './RatioMark.module.css';

const WORDS: Record<RatioReading['grade'], string> = { good: 'ratio good', off: 'ratio off', wrong: 'ratio wrong' };

const tintWords = (tint: readonly TintMend[]): string =>
  tint.length === 0
    ? ''
    : ` and wants ${tint.map(({ name, drops }) => `${drops} ${drops === 1 ? 'drop' : 'drops'} more of ${name.toLowerCase()}`).join(', ')}`;

/** How a cup's ratio came out: shape, word and colour, and what mends it. */
export function RatioMark({
  reading,
  units,
  live = false,
  tint = [],
}: {
  reading: RatioReading;
  units: UnitPreferences;
  /** Spoken as it changes, while the figures are typed. */
  live?: boolean;
  /** What the mended cup wants of its colourants. */
  tint?: readonly TintMend[];
}) {
  const percent = `${reading.error > 0 ? '+' : reading.error < 0 ? '−' : ''}${Math.abs(reading.error * 100).toFixed(1)} % A`;
  return (
    <p className={styles.mark} data-grade={reading.grade} role={live ? 'status' : undefined}>
      <svg
        width="16"
        height="16"
        viewBox="0 0 16 16"
        aria-hidden
        fill="none"
        stroke="currentColor"
        strokeWidth="2.2"
        strokeLinecap="round"
        strokeLinejoin="round"
      >
        {reading.grade === 'good' && <path d="m2.5 8.5 3.5 4 7.5-9" />}
        {reading.grade === 'off' && <path d="M8 2 14.5 13.5H1.5Z" />}
        {reading.grade === 'wrong' && <path d="M3 3 13 13M13 3 3 13" />}
      </svg>
      <span>
        {WORDS[reading.grade]}, {percent}.
        {reading.add && (
          <b>{` Add ${formatMeasure(reading.add.grams, 'mass', units)} of part ${reading.add.part}; the cup then holds ${formatMeasure(reading.add.newTotalGrams, 'mass', units)}${tintWords(tint)}.`}</b>
        )}
      </span>
    </p>
  );
}
