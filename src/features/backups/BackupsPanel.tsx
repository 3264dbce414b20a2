'use client';

import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { useEffect, useState } from 'react';
import { FileButton } from '@/ui/controls/FileButton';
import { askBackups, readBackups, sendFile, type BackupsOutcome, type KnownBackup } from './askBackups';
import styles from './BackupsPanel.module.css';

const KINDS: [start: string, words: string][] = [
  ['day-', 'of the day'],
  ['saved-', 'saved by hand'],
  ['before-putting-back-', 'before another was put back'],
  ['before-update-', 'before a newer Aguada'],
];
const kindOf = (name: string): string => KINDS.find(([start]) => name.startsWith(start))?.[1] ?? name;
const megabytes = (bytes: number): string => `${Math.max(0.1, bytes / 1_000_000).toFixed(1)}\u00a0MB`;
const moment = (ms: number): string =>
  new Date(ms).toLocaleString('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  });

/** Copies of everything: the ones kept by themselves, saving one, and putting one back. */
export function BackupsPanel({ onPutBack }: { onPutBack: () => void }) {
  const [copies, setCopies] = useState<readonly KnownBackup[] | null>(null);
  const [said, setSaid] = useState<{ ok: boolean; words: string } | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const [asked, setAsked] = useState<string | null>(null);
  const take = (outcome: BackupsOutcome): boolean => {
    if (outcome.ok) setCopies(outcome.answer.copies);
    setSaid(
      outcome.ok
        ? outcome.answer.done
          ? { ok: true, words: outcome.answer.done }
          : null
        : { ok: false, words: outcome.message },
    );
    return outcome.ok;
  };
  useEffect(() => {
    let current = true;
    void readBackups().then((outcome) => current && take(outcome));
    return () => {
      current = false;
    };
  }, []);
  const putBack = async (name: string): Promise<void> => {
    setAsked(null);
    if (take(await askBackups({ do: 'put back', name }))) onPutBack();
  };
  const send = async (file: File): Promise<void> => {
    setShare(0);
    const outcome = await sendFile(file, 'anything', setShare);
    setShare(null);
    if (take(outcome)) onPutBack();
  };
  return (
    <div className={styles.copies}>
      <p className={styles.teach}>
        A copy is kept of each day on which you work, the last fourteen of them, beside the data file. An archive is one
        zip of open files with everything in it, for another disk. Putting one back keeps what was there as a copy.
      </p>
      <div className={styles.actions}>
        <Button variant="contained" onClick={() => void askBackups({ do: 'save' }).then(take)}>
          Save a copy
        </Button>
        <Button href="/api/backups/archive" download>
          Download an archive
        </Button>
        <FileButton
          label="Put a file back"
          name="An archive or a data file, up to 500 MB"
          accept=".zip,.db"
          disabled={share !== null}
          onFile={(file) => void send(file)}
        />
      </div>
      {share !== null && (
        <LinearProgress variant="determinate" value={share * 100} aria-label="The file is being sent" />
      )}
      <p role={said && !said.ok ? 'alert' : 'status'} className={said && !said.ok ? styles.trouble : styles.done}>
        {said?.words}
      </p>
      {copies && copies.length > 0 && (
        <Table aria-label="Copies" className={styles.table}>
          <TableBody>
            {copies.map(({ name, bytes, madeAt }) => (
              <TableRow key={name}>
                <TableCell>{moment(madeAt)}</TableCell>
                <TableCell>{kindOf(name)}</TableCell>
                <TableCell align="right">{megabytes(bytes)}</TableCell>
                <TableCell align="right">
                  {asked === name ? (
                    <>
                      <Button size="small" variant="contained" onClick={() => void putBack(name)}>
                        Put it back
                      </Button>{' '}
                      <Button size="small" onClick={() => setAsked(null)}>
                        Leave it
                      </Button>
                    </>
                  ) : (
                    <Button
                      size="small"
                      variant="text"
                      aria-label={`Put back the copy of ${moment(madeAt)}, ${kindOf(name)}`}
                      onClick={() => setAsked(name)}
                    >
                      Put back
                    </Button>
                  )}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      {copies?.length === 0 && (
        <p className={styles.teach}>No copy yet: the first is made after your first edit of a day.</p>
      )}
    </div>
  );
}
