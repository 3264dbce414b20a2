'use client';

import Button from '@mui/material/Button';
import Snackbar from '@mui/material/Snackbar';
import SnackbarContent from '@mui/material/SnackbarContent';
import { useEffect, useRef } from 'react';
import type { EditDoor } from './editDoor';
import styles from './DoorNotices.module.css';

/** Says at the foot of the page what an edit came to: taken back, refused, changed elsewhere. A conflict takes the focus. */
export function DoorNotices({ door }: { door: Pick<EditDoor<never>, 'trouble' | 'done' | 'insist' | 'dismiss'> }) {
  const { trouble, done, insist, dismiss } = door;
  const first = useRef<HTMLButtonElement>(null);
  const stale = trouble?.kind === 'stale' && 'version' in trouble.command;
  useEffect(() => {
    if (stale) first.current?.focus();
  }, [stale, trouble]);
  const again = trouble?.kind === 'offline' || trouble?.kind === 'data file';
  return (
    <>
      <p className="visually-hidden" role="status">
        {done}
      </p>
      <Snackbar open={trouble !== null} anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}>
        <SnackbarContent
          role="alert"
          message={
            <>
              {trouble?.message}
              {stale && <span className={styles.mine}>{wordsOf(trouble.command)}</span>}
            </>
          }
          action={
            <>
              {stale && (
                <Button ref={first} size="small" variant="contained" onClick={insist}>
                  Write mine over it
                </Button>
              )}
              {again && (
                <Button size="small" variant="contained" onClick={insist}>
                  Try again
                </Button>
              )}
              <Button size="small" onClick={dismiss}>
                {trouble?.kind === 'stale' ? 'Keep what is there' : 'Close'}
              </Button>
            </>
          }
        />
      </Snackbar>
    </>
  );
}

/** Which edit it was that stands against what is there now. */
const wordsOf = (command: object): string =>
  'label' in command && typeof command.label === 'string' && command.label
    ? `Yours: ${command.label}. What the other window wrote is on the screen now.`
    : 'What the other window wrote is on the screen now.';
