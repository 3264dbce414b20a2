import { existsSync, readFileSync } from 'node:fs';
import { loadHeronSlack, PLANNED_AT_BUILD, type HeronSlackAmounts } from '@/db/demo/heronSlack';
import {
  DataFileError,
  dataFilePath,
  explained,
  openDataFile,
  type DataTrouble,
  type OpenedDataFile,
} from '@/db/dataFile';
import { identityOf, isUntouched, partFrom, setOldLogAside, whatHappened, type FileIdentity } from '@/db/fileIdentity';
import { EditRefusedError } from '@/db/journal';
import { stockShelf } from '@/db/defaults';
import { wallClockNow } from './clock';

/** The file that is open, and which one it is. */
interface Kept {
  opened: OpenedDataFile;
  identity: FileIdentity;
  checkedAt: number;
  /** What became of the file while it was open, and when that was seen; nothing is written any more until the maker has decided. */
  lost: { error: DataFileError; at: number } | null;
}

// Kept across hot reloads of the development server, and for the front door.
const kept = globalThis as { aguadaDataFile?: Kept | undefined; aguadaAbandoned?: OpenedDataFile[] };

/** How often the file itself is looked at, ms. */
const LOOK_MS = 300;

/**
 * The open data file. Opened at the first call; a file that failed to open is tried again at the next.
 * A new file gets the shelf of typical products, and the sample set when `AGUADA_DEMO` is set. Throws a DataFileError `swapped` from
 * the moment on at which it is no longer the file that was opened.
 */
export function dataFile(): OpenedDataFile {
  const path = dataFilePath();
  const known = kept.aguadaDataFile;
  if (known?.opened.path === path) {
    if (known.lost || Date.now() - known.checkedAt >= LOOK_MS) lookAt(known);
    if (known.lost) throw known.lost.error;
    return known.opened;
  }
  const opened = openDataFile(path, {
    ...(process.env['AGUADA_BUSY_MS'] && { busyMs: Number(process.env['AGUADA_BUSY_MS']) }),
  });
  return explained(path, () => {
    try {
      const isNew = stockShelf(opened.db, wallClockNow());
      if (isNew && process.env['AGUADA_DEMO']) loadHeronSlack(opened.db, wallClockNow(), plannedAtBuild());
    } catch (error) {
      opened.close();
      throw error;
    }
    kept.aguadaDataFile = { opened, identity: identityOf(path)!, checkedAt: Date.now(), lost: null };
    return opened;
  });
}

/** The sample's plans as the build worked them out; what runs from its source plans them itself. */
export const plannedAtBuild = (): HeronSlackAmounts | undefined =>
  process.env['NODE_ENV'] === 'production' && existsSync(PLANNED_AT_BUILD)
    ? (JSON.parse(readFileSync(PLANNED_AT_BUILD, 'utf8')) as HeronSlackAmounts)
    : undefined;

const HAPPENED = {
  gone: 'was moved or deleted',
  swapped: 'was replaced by another one',
  cut: 'was cut short',
  overwritten: 'was written over',
};

/** Looks whether the file is still the one that was opened. The same one that comes back untouched ends the trouble by itself. */
function lookAt(known: Kept): void {
  const { path } = known.opened;
  known.checkedAt = Date.now();
  const what = whatHappened(path, known.identity);
  if (what === null) {
    if (known.lost && !isUntouched(path, known.identity, known.lost.at)) return;
    known.lost = null;
    known.identity = identityOf(path) ?? known.identity;
    return;
  }
  const error = new DataFileError(
    'swapped',
    `The data file ${path} ${HAPPENED[what]} while Aguada had it open. Nothing is written any more. What Aguada still has in hand can be written to a new file beside it; or go on with what lies there now.`,
  );
  known.lost = { error, at: known.lost?.at ?? Date.now() };
}

/** Troubles after which the file is opened anew at the next call: it may have been mended meanwhile. */
const TRY_ANEW: ReadonlySet<DataTrouble> = new Set(['read-only', 'damaged', 'unreachable', 'full']);

/** Runs something on the database, its errors turned into ones that a maker can act on. */
export function withData<T>(run: (db: OpenedDataFile['db']) => T): T {
  const { db, path, close } = dataFile();
  try {
    return explained(path, () => run(db));
  } catch (error) {
    if (error instanceof DataFileError && TRY_ANEW.has(error.trouble) && !db.$client.inTransaction) {
      const known = kept.aguadaDataFile;
      if (known) lookAt(known);
      if (known?.lost) throw known.lost.error;
      delete kept.aguadaDataFile;
      close();
    }
    throw error;
  }
}

/** How long an edit waits for another program that writes to the file, and how often it tries. */
const PATIENCE_MS = 4000;
const TRY_MS = 40;

/** Runs something that writes as soon as no other program holds the file; whatever else is asked goes on meanwhile. */
export async function whenFree<T>(run: (db: OpenedDataFile['db']) => T): Promise<T> {
  const until = Date.now() + PATIENCE_MS;
  for (;;) {
    try {
      return withData(run);
    } catch (error) {
      const busy = error instanceof DataFileError && error.trouble === 'locked';
      if (!busy || Date.now() >= until) throw error;
      await new Promise((resolve) => setTimeout(resolve, TRY_MS));
    }
  }
}

/** The file that is open and was lost; null when it is where it should be. */
function lostFile(): Kept | null {
  const known = kept.aguadaDataFile;
  if (known?.lost) lookAt(known);
  return known?.lost ? known : null;
}

/** A path that nothing of a database lies at yet: two in a minute are two. */
function freePath(start: string): string {
  for (let i = 1; ; i++) {
    const path = i === 1 ? start : `${start}-${i}`;
    if (!['', '-wal', '-shm'].some((end) => existsSync(`${path}${end}`))) return path;
  }
}

/** Writes what is in hand of a file that was lost to a new one beside it, and says where. Throws when nothing was lost. */
export function rescueData(now: string): string {
  const known = lostFile();
  if (!known) throw new EditRefusedError('nothing', 'The data file is where it should be; there is nothing to rescue.');
  const { path, db } = known.opened;
  const to = freePath(`${path}.rescued-${now.replace(/[^0-9]/g, '')}`);
  return explained(to, () => {
    db.$client.prepare('vacuum into ?').run(to);
    return to;
  });
}

/**
 * Goes on with the file that lies there now. What is in hand of the one that was lost, with all that stands in its log, is written to
 * a file of its own first; then it is let go of without touching what lies in its place. Returns where that is; null when nothing was
 * lost, or nothing of it can be read any more.
 */
export function goOnWithFile(now: string): string | null {
  const known = lostFile();
  if (!known) return null;
  let rescued: string | null = null;
  try {
    rescued = rescueData(now);
  } catch {
    // It was cut or written over: its log is still kept, beside it.
  }
  const { path } = known.opened;
  partFrom(path, known.identity);
  setOldLogAside(path, known.identity, freePath(`${path}.lost-${now.replace(/[^0-9]/g, '')}`));
  // Closing it would take away the log of the new file by its name: it is kept, unused.
  (kept.aguadaAbandoned ??= []).push(known.opened);
  delete kept.aguadaDataFile;
  return rescued;
}

/** Closes the data file in order. */
export function closeData(): void {
  const known = kept.aguadaDataFile;
  delete kept.aguadaDataFile;
  if (known && !known.lost) known.opened.close();
}
