'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { useEffect, useLayoutEffect, useRef, useState, type KeyboardEvent } from 'react';
import { photoAddress } from '@/core/records/photos';
import type { LogEntry, LogPage } from '@/core/records/workshopLog';
import { WEEKDAYS } from '@/core/time/benchWindows';
import { dayWithYear } from '@/core/time/dayNames';
import { wallMinutes, weekdayOf } from '@/core/time/wallTime';
import { formatMoney } from '@/core/units/formatMeasure';
import { useOwnWords, useUnits } from '@/ui/measure/UnitsContext';
import { useWindowRows } from '@/ui/useWindowRows';
import styles from './Notebook.module.css';

interface NotebookProps {
  days: LogPage['days'];
  /** Days that are not read yet: what asks for them, and whether they are being read. */
  more: (() => void) | null;
  reading: boolean;
  onNote: (note: NonNullable<LogEntry['note']>) => void;
}

/** Days of the log, each a page of a notebook; only those in sight are drawn. */
export function Notebook({ days, more, reading, onNote }: NotebookProps) {
  const list = useRef<HTMLDivElement>(null);
  const [above, setAbove] = useState(0);
  useLayoutEffect(() => setAbove(list.current?.offsetTop ?? 0), []);
  const { rows, items } = useWindowRows({
    count: days.length,
    estimateSize: (i) => 64 + 70 * (days[i]?.entries.length ?? 1),
    overscan: 3,
    scrollMargin: above,
    getItemKey: (i) => days[i]!.day,
  });
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (more && !reading && last >= days.length - 2) more();
  }, [more, reading, last, days.length]);
  return (
    <div ref={list} onKeyDown={walk} className={styles.book} style={{ height: rows.getTotalSize() }}>
      {items.map(({ index, key, start }) => (
        <div
          key={key}
          ref={rows.measureElement}
          data-index={index}
          className={styles.day}
          style={{ transform: `translateY(${start - above}px)` }}
        >
          <Day {...days[index]!} onNote={onNote} />
        </div>
      ))}
    </div>
  );
}

/** Up and down go from entry to entry. */
function walk(event: KeyboardEvent<HTMLDivElement>): void {
  const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  if (by === undefined) return;
  const all = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-entry]')];
  const next = all[all.indexOf(document.activeElement as HTMLElement) + by];
  if (!next) return;
  event.preventDefault();
  next.focus();
}

function Day({ day, entries, onNote }: LogPage['days'][number] & Pick<NotebookProps, 'onNote'>) {
  const weekday = WEEKDAYS[weekdayOf(wallMinutes(`${day}T00:00`))]!;
  return (
    <section aria-label={`${weekday}, ${dayWithYear(day)}`} className={styles.sheet}>
      <h2>
        <b>{Number(day.slice(8, 10))}</b>
        <span>{`${weekday}, ${dayWithYear(day).replace(/^\d+ /, '')}`}</span>
      </h2>
      <ol>
        {entries.map((entry) => (
          <Entry key={entry.key} entry={entry} onNote={onNote} />
        ))}
      </ol>
    </section>
  );
}

function Entry({ entry, onNote }: { entry: LogEntry } & Pick<NotebookProps, 'onNote'>) {
  const own = useOwnWords();
  const units = useUnits();
  const { kind, at, set, title, facts, said, price, photos, href, note } = entry;
  return (
    <li data-kind={kind} className={styles.entry}>
      <time dateTime={at}>{kind === 'bought' ? '' : at.slice(11, 16)}</time>
      <Mark kind={kind} />
      <div>
        <p className={styles.head}>
          {note ? (
            <Button variant="text" size="small" data-entry onClick={() => onNote(note)}>
              Note
            </Button>
          ) : href ? (
            <Link href={href} data-entry>
              {title}
            </Link>
          ) : (
            <span tabIndex={-1} data-entry>
              {title}
            </span>
          )}
          {set && <small>{set}</small>}
          {price !== null && price > 0 && <small className={styles.price}>{formatMoney(price, units)}</small>}
        </p>
        {facts.map((fact) => (
          <p key={fact}>{own(fact)}</p>
        ))}
        {photos.length > 0 && (
          <p className={styles.photos}>
            {photos.map(({ of, photo, width, height }) => (
              <a key={`${of} ${photo}`} href={photoAddress(photo)} target="_blank" rel="noreferrer">
                <img src={photoAddress(photo)} alt={of} width={width} height={height} loading="lazy" />
              </a>
            ))}
          </p>
        )}
        {said.map((words, i) => (
          <p key={i} className={styles.said}>
            {words}
          </p>
        ))}
      </div>
    </li>
  );
}

/** What kind of entry it is, by its shape; the words beside it say it too. */
function Mark({ kind }: { kind: LogEntry['kind'] }) {
  return (
    <svg viewBox="0 0 16 16" width="16" height="16" aria-hidden className={styles.mark}>
      <path d={MARKS[kind]} />
    </svg>
  );
}

const MARKS: Record<LogEntry['kind'], string> = {
  // A cup, a clock’s hand, a camera, an eye, two boards with a step, a card of four, an open door, a bottle, a shelf’s edge, a line of writing.
  poured: 'M2 3H14L12 14H4ZM3 7H13',
  run: 'M8 1A7 7 0 1 0 8 15A7 7 0 1 0 8 1M8 4V8L11 10',
  photo: 'M1 4H5L6 2H10L11 4H15V13H1ZM8 6A2.5 2.5 0 1 0 8 11A2.5 2.5 0 1 0 8 6',
  'looked over': 'M1 8Q8 1 15 8Q8 15 1 8M8 6A2 2 0 1 0 8 10A2 2 0 1 0 8 6',
  seam: 'M1 11H8V2M8 7H15M8 14V11',
  swatch: 'M2 3H14V13H2ZM2 8H14M8 3V13',
  became: 'M3 14V2H10V14M10 8H15M12 5L15 8L12 11',
  bought: 'M6 1H10V4L12 7V15H4V7L6 4Z',
  shelf: 'M1 12H15M3 12V5H7V12M9 12V8H13V12',
  note: 'M2 4H14M2 8H14M2 12H9',
};
