'use client';

import { useState } from 'react';
import { readLogFile } from '@/core/formats/logFile';
import type { LogView } from '@/core/records/workshopLog';
import { FileButton } from '@/ui/controls/FileButton';
import type { Edits } from '../edits/useEdits';
import styles from './LogScreen.module.css';

const MOST_BYTES = 4e6;
const MOST_TOLD = 6;

/** A log out of a file: notes, and pieces as they were looked over. Lines that cannot be read are told, and none is taken in. */
export function TakeIn({ edits }: { edits: Pick<Edits<LogView>, 'run' | 'view'> }) {
  const [told, setTold] = useState<string[]>([]);
  const { dateOrder } = edits.view.settings.data.calendar;
  const take = async (file: File): Promise<void> => {
    if (file.size > MOST_BYTES) return setTold([`${file.name} is too large for a log to be taken in.`]);
    const { lines, others, problems } = readLogFile(await file.text(), dateOrder);
    const left =
      others > 0
        ? [
            `${others} ${others === 1 ? 'line is' : 'lines are'} of what Aguada records itself: that comes in with an archive.`,
          ]
        : [];
    if (problems.length > 0)
      return setTold([
        `${file.name} was not taken in:`,
        ...problems.slice(0, MOST_TOLD).map(({ line, message }) => `Line ${line}: ${message}`),
        ...(problems.length > MOST_TOLD ? [`and ${problems.length - MOST_TOLD} more`] : []),
      ]);
    if (lines.length === 0)
      return setTold([`There is no note in ${file.name}, and no piece that was looked over.`, ...left]);
    const label = `Take in ${file.name}`.slice(0, 80);
    const outcome = await edits.run(() => ({ do: 'take in log', lines, label }), label);
    setTold(outcome.ok ? left : []);
  };
  return (
    <>
      <FileButton
        label="Take in a file"
        name="Log out of a file"
        accept=".csv,.json,text/csv,application/json"
        onFile={(file) => void take(file)}
      />
      {told.length > 0 && (
        <ul role="status" className={styles.told}>
          {told.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
    </>
  );
}
