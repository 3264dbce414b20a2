import type { Grade } from '@/core/model/seamSchema';
import styles from './GradeMark.module.css';

/** A grade in a maker's words. */
export const GRADE_WORDS: Record<Grade, string> = {
  closes: 'closes',
  passes: 'passes at arm’s length',
  shows: 'shows',
};

const OFFSET: Record<Grade, number> = { closes: 0, passes: 3, shows: 7 };

/** Two water surfaces that meet, or do not: drawn as far apart as the grade says, so that the shape tells it without the colour. */
export function GradeMark({ grade }: { grade: Grade }) {
  const half = OFFSET[grade] / 2;
  return (
    <svg
      className={styles.mark}
      data-grade={grade}
      width="26"
      height="16"
      viewBox="0 0 26 16"
      role="img"
      aria-label={GRADE_WORDS[grade]}
    >
      <path d={`M1 ${8 - half}H12.5M13.5 ${8 + half}H25`} fill="none" stroke="currentColor" strokeWidth="2.6" />
      {grade === 'shows' && (
        <path
          d={`M13 ${7 - half}V${9 + half}`}
          fill="none"
          stroke="currentColor"
          strokeWidth="1"
          strokeDasharray="2 1.6"
        />
      )}
    </svg>
  );
}
