'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { useState, type ReactNode } from 'react';
import styles from './PrintFrame.module.css';

export type Paper = 'A4' | 'Letter';

interface PrintFrameProps {
  /** What is printed, for those who cannot see it. */
  label: string;
  back: string;
  backTo: string;
  /** Other ways to take it along, beside the button. */
  tools?: ReactNode;
  children: (paper: Paper) => ReactNode;
}

/** Something to print on A4 or Letter: the way back, the paper, the button; none of them is printed. */
export function PrintFrame({ label, back, backTo, tools, children }: PrintFrameProps) {
  const [paper, setPaper] = useState<Paper>('A4');
  return (
    <div className={styles.page}>
      <style>{`@page { size: ${paper === 'A4' ? 'A4' : 'letter'}; margin: 13mm; }`}</style>
      <nav className={styles.tools} aria-label={label}>
        <Link href={back}>{backTo}</Link>
        <span className={styles.papers} role="group" aria-label="Paper">
          {(['A4', 'Letter'] as const).map((size) => (
            <button key={size} type="button" aria-pressed={paper === size} onClick={() => setPaper(size)}>
              {size}
            </button>
          ))}
        </span>
        {tools}
        <Button variant="contained" onClick={() => window.print()}>
          Print
        </Button>
      </nav>
      {children(paper)}
    </div>
  );
}
