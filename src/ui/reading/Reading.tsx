'use client';

import Popover from '@mui/material/Popover';
import { useId, useState } from 'react';
import type { Explanation } from '@/core/plan';
import { HowItCameAbout } from './HowItCameAbout';
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
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const id = useId();
  return (
    <div className={styles.row} data-strong={strong || undefined}>
      <dt className={styles.label}>
        {explain ? (
          <button
            type="button"
            className={styles.open}
            aria-haspopup="dialog"
            aria-expanded={anchor !== null}
            onClick={(event) => setAnchor(event.currentTarget)}
          >
            {label}
          </button>
        ) : (
          label
        )}
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
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { role: 'dialog', 'aria-labelledby': id } }}
      >
        {anchor && explain && (
          <HowItCameAbout
            id={id}
            figure={`${digits} ${unit}`}
            explanation={explain()}
            onClose={() => setAnchor(null)}
          />
        )}
      </Popover>
    </div>
  );
}

/** A column of readings. */
export function Readings({ children }: { children: React.ReactNode }) {
  return <dl className={styles.column}>{children}</dl>;
}
