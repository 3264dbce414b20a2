'use client';

import Button from '@mui/material/Button';
import type { EditDoor } from './editDoor';
import styles from './DoorNotices.module.css';

/** Says at the foot of the page what an edit came to: taken back, refused, changed elsewhere. */
export function DoorNotices({ door }: { door: Pick<EditDoor<never>, 'trouble' | 'done' | 'insist' | 'dismiss'> }) {
  const { trouble, done, insist, dismiss } = door;
  return (
    <div className={styles.place}>
      <p className="visually-hidden" role="status">
        {done}
      </p>
      {trouble && (
        <div className={styles.notice} role="alert">
          <p>{trouble.message}</p>
          {trouble.kind === 'stale' && 'version' in trouble.command && (
            <Button size="small" variant="contained" onClick={insist}>
              Write mine over it
            </Button>
          )}
          {(trouble.kind === 'offline' || trouble.kind === 'data file') && (
            <Button size="small" variant="contained" onClick={insist}>
              Try again
            </Button>
          )}
          <Button size="small" onClick={dismiss}>
            {trouble.kind === 'stale' ? 'Keep what is there' : 'Close'}
          </Button>
        </div>
      )}
    </div>
  );
}
