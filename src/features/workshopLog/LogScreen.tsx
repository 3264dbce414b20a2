'use client';

import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { LOG_FILES } from '@/core/formats/logFile';
import type { LogNote } from '@/core/records/recordSchemas';
import {
  daysAfter,
  LOG_KINDS,
  logAddress,
  mondayOf,
  type About,
  type LogAsk,
  type LogEntry,
  type LogKind,
  type LogPage,
  type LogView,
} from '@/core/records/workshopLog';
import { dayAndMonth } from '@/core/time/dayNames';
import { CalendarProvider } from '@/ui/controls/CalendarContext';
import { Tick } from '@/ui/controls/Tick';
import { NotRead } from '@/ui/held/NotRead';
import { useShortcuts, type Shortcut } from '@/ui/keys/useShortcuts';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { UnitsProvider } from '@/ui/measure/UnitsContext';
import { EditNotices } from '../edits/EditNotices';
import { pageWith } from '../edits/applyChanges';
import { UnreadableNotice } from '../edits/UnreadableNotice';
import { useEdits } from '../edits/useEdits';
import { Finder } from '../find/Finder';
import { HelpDialog } from '../help/HelpDialog';
import { TopBar } from '../TopBar';
import { Notebook } from './Notebook';
import { NoteForm } from './NoteForm';
import { TakeIn } from './TakeIn';
import { Tide } from './Tide';
import styles from './LogScreen.module.css';

const KIND_NAMES: Record<LogKind, string> = {
  poured: 'Poured',
  run: 'Runs',
  'looked over': 'Looked over',
  photo: 'Photos',
  seam: 'Edges measured',
  swatch: 'Swatches',
  became: 'Handed over, spoilt',
  bought: 'Bought',
  shelf: 'Weighed, thrown away',
  note: 'Notes',
};
const ALL_SETS = '';

/** The log of the whole workshop: the year as a tide over the days as pages of a notebook. */
export function LogScreen({ initial, asked }: { initial: LogView; asked: LogAsk }) {
  const edits = useEdits(initial, { view: 'log' }, pageWith);
  const { view } = edits;
  const [ask, setAsk] = useState(asked);
  const [opened, setOpened] = useState<'find' | 'keys' | null>(null);
  const [writing, setWriting] = useState<'new' | NonNullable<LogEntry['note']> | null>(null);
  const words = useRef<HTMLInputElement>(null);
  const late = useDeferredValue(ask);
  const address = logAddress(late);
  useEffect(() => window.history.replaceState(null, '', address === '' ? '/log' : `/log?${address}`), [address]);
  const days = useDays(late, view.history.undo?.edit ?? 0, asked, initial.page);
  const change = (more: Partial<LogAsk>): void => setAsk((now) => ({ ...now, ...more }));
  const today = view.now.slice(0, 10);
  const week = ask.before ? mondayOf(daysAfter(ask.before, -1)) : null;
  const openWeek = (monday: string): void => {
    const { before: _, ...rest } = ask;
    setAsk(monday === week ? rest : { ...rest, before: daysAfter(monday, 7) });
  };
  const newest = (): void => {
    const { before: _, ...rest } = ask;
    setAsk(rest);
  };
  const keep = async (data: LogNote): Promise<boolean> => {
    const note = writing === 'new' ? null : writing;
    const outcome = await edits.run(
      () =>
        note
          ? { do: 'put', kind: 'note', id: note.id, version: note.version, data, label: 'Change a note' }
          : { do: 'add', kind: 'note', data, label: 'Write a note' },
      'The note is in the log',
    );
    return outcome.ok;
  };
  const shortcuts: Shortcut[] = [
    { key: 'n', does: 'Write a note', run: () => setWriting('new') },
    { key: 'f', does: 'Find in the log', run: () => words.current?.focus() },
    { key: 'z', mod: true, shift: false, does: 'Undo', run: edits.undo },
    { key: 'z', mod: true, shift: true, does: 'Redo', run: edits.redo },
    { key: '/', does: 'Find anything', run: () => setOpened('find') },
    { key: '?', does: 'What this page says, and its keys', run: () => setOpened('keys') },
  ];
  useShortcuts(shortcuts);
  const first: LogNote = { at: view.now, text: '', setId: ask.setId ?? null };
  return (
    <UnitsProvider units={view.settings.data.units}>
      <CalendarProvider calendar={view.settings.data.calendar}>
        <div className={styles.page}>
          <TopBar edits={edits} onFind={() => setOpened('find')} onKeys={() => setOpened('keys')}>
            <h1 className={styles.title}>Log of the workshop</h1>
            <Link href="/learnt" className={styles.back}>
              Learnt
            </Link>
            <Link href="/figures" className={styles.back}>
              Figures over time
            </Link>
            <Link href="/" className={styles.back}>
              All sets
            </Link>
          </TopBar>
          <main className={styles.main}>
            <UnreadableNotice unreadable={view.unreadable} />
            <Tide weeks={view.weeks} today={today} open={week} onOpen={openWeek} />
            <div className={styles.under}>
              <aside className={styles.ask} aria-label="What of it">
                {writing === null ? (
                  <Button variant="contained" onClick={() => setWriting('new')}>
                    Write a note
                  </Button>
                ) : (
                  <NoteForm
                    key={writing === 'new' ? 'new' : writing.id}
                    first={writing === 'new' ? first : writing.data}
                    sets={view.sets}
                    press={writing === 'new' ? 'Into the log' : 'Change it'}
                    onKeep={keep}
                    onClose={() => setWriting(null)}
                    {...(writing !== 'new' && {
                      onRemove: () => {
                        const { id, version } = writing;
                        setWriting(null);
                        void edits.run(() => ({ do: 'remove', kind: 'note', id, version }), 'The note is taken out');
                      },
                    })}
                  />
                )}
                <TextField
                  label="Find in the log"
                  value={ask.words}
                  onChange={(event) => change({ words: event.target.value.slice(0, 80) })}
                  helperText="Words of notes, pieces, products, bottles, customers"
                  autoComplete="off"
                  slotProps={{ htmlInput: { ref: words } }}
                />
                <ChoiceField
                  label="Of"
                  value={ask.setId ?? ALL_SETS}
                  choices={[
                    { value: ALL_SETS, label: 'the whole workshop' },
                    ...view.sets.map(({ id, name }) => ({ value: id, label: name })),
                  ]}
                  onCommit={(id) => {
                    const { setId: _, about, ...rest } = ask;
                    // A piece is one of its set.
                    const kept = about && about.kind !== 'piece' && { about };
                    setAsk({ ...rest, ...kept, ...(id !== ALL_SETS && { setId: id }) });
                  }}
                />
                <AboutField view={view} ask={ask} pieces={days.pieces} onAsk={setAsk} />
                <fieldset className={styles.kinds}>
                  <legend>What</legend>
                  {LOG_KINDS.map((kind) => (
                    <Tick
                      key={kind}
                      label={KIND_NAMES[kind]}
                      checked={ask.kinds.length === 0 || ask.kinds.includes(kind)}
                      onChange={(wanted) => change({ kinds: withKind(ask.kinds, kind, wanted) })}
                    />
                  ))}
                </fieldset>
                <p className={styles.files}>
                  {'What is shown, as a file: '}
                  {LOG_FILES.map((file) => (
                    <a key={file} href={`/log/log.${file}${address && `?${address}`}`} download>
                      {file.toUpperCase()}
                    </a>
                  ))}
                </p>
                <TakeIn edits={edits} />
              </aside>
              <div className={styles.days}>
                {ask.before && (
                  <p className={styles.from}>
                    {`From ${dayAndMonth(daysAfter(ask.before, -1))} back. `}
                    <Button variant="text" size="small" onClick={newest}>
                      The newest again
                    </Button>
                  </p>
                )}
                {days.failed ? (
                  <NotRead what="The log could not be read." again={days.again} />
                ) : days.days.length === 0 ? (
                  <p className={styles.none}>
                    {days.reading
                      ? 'Reading the log'
                      : ask.words || ask.kinds.length > 0 || ask.setId || ask.about || ask.before
                        ? 'Nothing in the log says that.'
                        : 'Nothing has happened yet. What is poured, looked over, bought and said stands here, day by day.'}
                  </p>
                ) : (
                  <Notebook days={days.days} more={days.more} reading={days.reading} onNote={setWriting} />
                )}
              </div>
            </div>
          </main>
          <EditNotices edits={edits} />
          <HelpDialog
            page="workshop log"
            open={opened === 'keys'}
            shortcuts={shortcuts}
            onClose={() => setOpened(null)}
          />
          {opened === 'find' && <Finder onClose={() => setOpened(null)} />}
        </div>
      </CalendarProvider>
    </UnitsProvider>
  );
}

const ALL_THINGS = '';

/** Of which one thing entries are shown: a product, a bottle, a job, a piece of the set that is chosen. */
function AboutField({
  view,
  ask,
  pieces,
  onAsk,
}: {
  view: LogView;
  ask: LogAsk;
  pieces: LogPage['pieces'];
  onAsk: (ask: LogAsk) => void;
}) {
  const things: readonly (About & { label: string })[] = [
    ...pieces.map(({ id, name }) => ({ kind: 'piece' as const, of: id, label: `piece ${name}` })),
    ...view.products.map(({ id, data }) => ({ kind: 'product' as const, of: id, label: data.name })),
    ...view.customers.map((customer) => ({ kind: 'job' as const, of: customer, label: `for ${customer}` })),
    ...view.lots.map(({ id, name }) => ({ kind: 'lot' as const, of: id, label: name })),
  ];
  const valueOf = ({ kind, of }: About): string => `${kind}:${of}`;
  return (
    <ChoiceField
      label="About"
      value={ask.about ? valueOf(ask.about) : ALL_THINGS}
      choices={[
        { value: ALL_THINGS, label: 'everything' },
        ...things.map((thing) => ({ value: valueOf(thing), label: thing.label })),
      ]}
      onCommit={(value) => {
        const { about: _, ...rest } = ask;
        const thing = things.find((one) => valueOf(one) === value);
        onAsk(thing ? { ...rest, about: { kind: thing.kind, of: thing.of } } : rest);
      }}
    />
  );
}

/** The kinds that are shown once one was ticked or unticked; none stands for all of them. */
function withKind(kinds: readonly LogKind[], kind: LogKind, wanted: boolean): LogKind[] {
  const shown = LOG_KINDS.filter((one) => kinds.length === 0 || kinds.includes(one));
  // Out of all of them a press picks the one.
  if (!wanted && shown.length === LOG_KINDS.length) return [kind];
  const next = LOG_KINDS.filter((one) => (one === kind ? wanted : shown.includes(one)));
  return next.length === LOG_KINDS.length ? [] : next;
}

/** Days of the log as they are asked for: those of the page at once, more as they come into sight. */
function useDays(ask: LogAsk, state: number, asked: LogAsk, first: LogPage) {
  const [began] = useState(state);
  const query = useInfiniteQuery({
    queryKey: ['log', logAddress(ask), state],
    queryFn: async ({ pageParam, signal }) => {
      const more = logAddress(pageParam === null ? ask : { ...ask, before: pageParam });
      const response = await fetch(`/api/log?${more}`, { signal });
      if (!response.ok) throw new Error(`The log answered ${response.status}`);
      return (await response.json()) as LogPage;
    },
    initialPageParam: null as string | null,
    getNextPageParam: ({ before }) => before,
    placeholderData: keepPreviousData,
    ...(logAddress(ask) === logAddress(asked) &&
      state === began && { initialData: { pages: [first], pageParams: [null] } }),
  });
  const pieces = query.data?.pages[0]?.pieces ?? [];
  const days = useMemo(() => query.data?.pages.flatMap((page) => page.days) ?? [], [query.data]);
  return {
    days,
    pieces,
    more: query.hasNextPage ? () => void query.fetchNextPage() : null,
    reading: query.isFetching,
    failed: query.isError,
    again: () => void query.refetch(),
  };
}
