'use client';

import Popover from '@mui/material/Popover';
import { useId, useState } from 'react';
import type { Explanation } from '@/core/plan';
import { HowItCameAbout } from './HowItCameAbout';
import styles from './Reading.module.css';

interface HowPressProps {
  label: string;
  /** The figure itself, over what it came from. */
  figure: string;
  /** Worked out when the figure is opened. */
  explain: () => Explanation;
}

/** The name of a figure as a press that opens how it came about. */
export function HowPress({ label, figure, explain }: HowPressProps) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const id = useId();
  return (
    <>
      <button
        type="button"
        className={styles.open}
        aria-haspopup="dialog"
        aria-expanded={anchor !== null}
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        {label}
      </button>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { role: 'dialog', 'aria-labelledby': id } }}
      >
        {anchor && <HowItCameAbout id={id} figure={figure} explanation={explain()} onClose={() => setAnchor(null)} />}
      </Popover>
    </>
  );
}
