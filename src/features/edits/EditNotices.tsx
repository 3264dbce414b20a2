'use client';

import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Button from '@mui/material/Button';
import Snackbar from '@mui/material/Snackbar';
import SnackbarContent from '@mui/material/SnackbarContent';
import { useEffect, useRef } from 'react';
import { differences } from '@/core/records/differences';
import { useOwnWords, useUnits } from '@/ui/measure/UnitsContext';
import type { Edits } from './useEdits';
import { bothVersions } from './editQueue';
import styles from './EditNotices.module.css';

/** Says at the foot of the page what an edit came to: taken back, refused, changed elsewhere. A conflict takes the focus. */
export function EditNotices({
  edits,
}: {
  edits: Pick<Edits<unknown>, 'view' | 'trouble' | 'done' | 'note' | 'insist' | 'dismiss'>;
}) {
  const { view, trouble, done, note, insist, dismiss } = edits;
  const own = useOwnWords();
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
      <Snackbar
        open={trouble === null && note !== null}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}
        autoHideDuration={NOTE_MS}
        onClose={(_, why) => why === 'timeout' && dismiss()}
      >
        <SnackbarContent
          role="none"
          message={note}
          action={
            <Button size="small" onClick={dismiss}>
              Close
            </Button>
          }
        />
      </Snackbar>
      <Snackbar open={trouble !== null} anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}>
        <SnackbarContent
          role="alert"
          message={
            <>
              {trouble && own(trouble.message)}
              {stale && <span className={styles.mine}>{wordsOf(trouble.command)}</span>}
              {stale && <BothVersions both={bothVersions(trouble.command, view)} />}
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

/** How long a note stands: two sentences to be read by somebody who looks elsewhere first. */
const NOTE_MS = 15_000;
/** More fields than these are counted only. */
const MOST_FIELDS = 5;

/** Where mine and what is there now differ, value by value. */
function BothVersions({ both }: { both: ReturnType<typeof bothVersions> }) {
  const units = useUnits();
  if (!both) return null;
  const all = differences(both.mine, both.theirs, units);
  if (all.length === 0) return null;
  const more = all.length - MOST_FIELDS;
  return (
    <Table className={styles.both}>
      <TableHead>
        <TableRow>
          <TableCell />
          <TableCell>yours</TableCell>
          <TableCell>there now</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {all.slice(0, MOST_FIELDS).map(({ field, mine, theirs }) => (
          <TableRow key={field}>
            <TableCell component="th" scope="row">
              {field}
            </TableCell>
            <TableCell>{mine}</TableCell>
            <TableCell>{theirs}</TableCell>
          </TableRow>
        ))}
        {more > 0 && (
          <TableRow>
            <TableCell component="th" scope="row">{`and ${more} more`}</TableCell>
          </TableRow>
        )}
      </TableBody>
    </Table>
  );
}

/** Which edit it was that stands against what is there now. */
const wordsOf = (command: object): string =>
  'label' in command && typeof command.label === 'string' && command.label
    ? `Yours: ${command.label}. What the other window wrote is on the screen now.`
    : 'What the other window wrote is on the screen now.';
