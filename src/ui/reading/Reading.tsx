'use client';

import type { Explanation } from '@/core/plan';
import { HowPress } from './HowPress';
import styles from './Reading.module.css';

interface ReadingProps {
  label: string;
  digits: string;
  unit?: string;
  /** Worked out when the figure is opened. */
  explain?: (() => Explanation) | undefined;
  note?: string | undefined;
  strong?: boolean;
  /** A colour to show beside the note. */
  swatch?: string | undefined;
}

/** One figure in a column of readings. Pressing its name opens how it came about. */
export function Reading({ label, digits, unit = '', explain, note, strong = false, swatch }: ReadingProps) {
  return (
    <div className={styles.row} data-strong={strong || undefined}>
      <dt className={styles.label}>
        {explain ? <HowPress label={label} figure={`${digits} ${unit}`} explain={explain} /> : label}
      </dt>
      <dd className={styles.figure}>
        <span className={styles.digits}>{digits}</span>
        <span className={styles.unit}>{unit}</span>
      </dd>
      {note && (
        <dd className={styles.note}>
          {swatch && <span className={styles.swatch} style={{ background: swatch }} />}
          {note}
        </dd>
      )}
    </div>
  );
}

/** A column of readings. */
export function Readings({ children }: { children: React.ReactNode }) {
  return <dl className={styles.column}>{children}</dl>;
}
