'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { useState, type ReactNode } from 'react';
import styles from './Sheet.module.css';

/** A sheet to print on A4 or Letter: the way back, the paper, the button; none of them is printed. */
export function Sheet({ back, backTo, children }: { back: string; backTo: string; children: ReactNode }) {
  const [paper, setPaper] = useState<'A4' | 'Letter'>('A4');
  return (
    <div className={styles.page}>
      <style>{`@page { size: ${paper === 'A4' ? 'A4' : 'letter'}; margin: 13mm; }`}</style>
      <nav className={styles.tools} aria-label="Sheet">
        <Link href={back}>{backTo}</Link>
        <span className={styles.papers} role="group" aria-label="Paper">
          {(['A4', 'Letter'] as const).map((size) => (
            <button key={size} type="button" aria-pressed={paper === size} onClick={() => setPaper(size)}>
              {size}
            </button>
          ))}
        </span>
        <Button variant="contained" onClick={() => window.print()}>
          Print
        </Button>
      </nav>
      <main className={styles.sheet}>{children}</main>
    </div>
  );
}
