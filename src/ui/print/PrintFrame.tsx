'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { useState, type ReactNode } from 'react';
import { Toggles } from '../controls/Toggles';
import styles from './PrintFrame.module.css';

const PAPERS = ['A4', 'Letter'] as const;
export type Paper = (typeof PAPERS)[number];

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
        <Toggles
          label="Paper"
          value={paper}
          choices={PAPERS.map((size) => ({ value: size, label: size }))}
          onChoose={setPaper}
        />
        {tools}
        <Button variant="contained" onClick={() => window.print()}>
          Print
        </Button>
      </nav>
      {children(paper)}
    </div>
  );
}
