'use client';

import Button from '@mui/material/Button';
import { useState } from 'react';
import { askBackups } from '../backups/askBackups';
import { BackupsPanel } from '../backups/BackupsPanel';
import styles from './Message.module.css';

/** Troubles that a copy put in its place ends. */
const MENDED_BY_COPY: ReadonlySet<string> = new Set(['damaged', 'empty', 'swapped']);

/** Stands in for every page while the data file cannot be used, with what can be done about it. */
export function DataFileTrouble({ message, trouble = null }: { message: string; trouble?: string | null }) {
  const [said, setSaid] = useState<string | null>(null);
  const again = (): void => window.location.reload();
  const ask = async (what: 'rescue' | 'go on'): Promise<void> => {
    const outcome = await askBackups({ do: what });
    setSaid(outcome.ok ? outcome.answer.done : outcome.message);
    if (outcome.ok && what === 'go on') again();
  };
  return (
    <main className={styles.page}>
      <h1>The data file cannot be used</h1>
      <p>{message}</p>
      <p className={styles.ways}>
        {trouble === 'swapped' && (
          <>
            <Button variant="contained" onClick={() => void ask('rescue')}>
              Write what is in hand to a new file
            </Button>
            <Button onClick={() => void ask('go on')}>Go on with what lies there now</Button>
          </>
        )}
        {/* A full load, not a client navigation: the file is opened anew. */}
        <Button href="/" variant={trouble === 'swapped' ? 'text' : 'contained'}>
          Try again
        </Button>
      </p>
      {said && <p role="status">{said}</p>}
      {trouble !== null && MENDED_BY_COPY.has(trouble) && (
        <section aria-label="Copies">
          <h2>Put a copy back</h2>
          <BackupsPanel onPutBack={again} />
        </section>
      )}
    </main>
  );
}
