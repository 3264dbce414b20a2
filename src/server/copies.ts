import { randomUUID } from 'node:crypto';
import { createWriteStream, existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { z } from 'zod';
import { dataFilePath } from '@/db/dataFile';
import { CopyError, copyPath, keepDailyCopy, listCopies, readyCopy, saveCopy, type Copy } from '@/db/copies';
import { copiesFolder } from '@/db/copiesFolder';
import { listDocuments } from '@/db/documents';
import { putInSet, setFileOf } from '@/db/setFile';
import { listLots, lotHistory } from '@/db/stock';
import { startsAsDatabase } from '@/db/fileIdentity';
import { ARCHIVED_DATABASE, jsonBytes, makeArchive, makeSetArchive, openArchive } from './archive';
import { wallClockNow } from './clock';
import { MOST_FILE_BYTES } from './door/gate';
import { closeData, dataFile, goOnWithFile, rescueData, whenFree, withData } from './data';
import { RequestError } from './respond';
import { shelfView } from './views';

/** A stamp for file names: day and time of the wall clock. */
const stamp = (): string => wallClockNow().replace('T', '-').replace(':', '');

/** A name in the folder of the copies that none has yet: two in a minute are two. */
function freeName(start: string): string {
  const folder = copiesFolder(dataFilePath());
  const base = `${start}-${stamp()}`;
  for (let i = 1; ; i++) {
    const name = i === 1 ? `${base}.db` : `${base}-${i}.db`;
    if (!existsSync(join(folder, name)) && !existsSync(join(folder, name.replace(/\.db$/, '-as-it-was')))) return name;
  }
}

/** What can be asked of the copies and of the data file. */
export const copiesRequestSchema = z.discriminatedUnion('do', [
  z.object({ do: z.literal('save') }),
  z.object({ do: z.literal('put back'), name: z.string().max(80) }),
  z.object({ do: z.literal('rescue') }),
  z.object({ do: z.literal('go on') }),
]);

/** What is known of the copies after something was done. */
export interface CopiesAnswer {
  copies: Copy[];
  /** What was done, in words. */
  done: string | null;
  /** The set that was taken in. */
  setId?: string;
}

const answerWith = (done: string | null): CopiesAnswer => ({ copies: listCopies(dataFilePath()), done });

export const copiesView = (): CopiesAnswer => answerWith(null);

/** Does what is asked of the copies. */
export async function runCopies(asked: z.infer<typeof copiesRequestSchema>): Promise<CopiesAnswer> {
  if (asked.do === 'rescue') return answerWith(`Written to ${rescueData(wallClockNow())}.`);
  if (asked.do === 'go on') {
    goOnWithFile();
    return answerWith('Going on with the data file that lies there now.');
  }
  if (asked.do === 'put back') return putBack(readFileSync(copyPath(dataFilePath(), asked.name)));
  const { db, path } = dataFile();
  const to = join(copiesFolder(path), freeName('saved'));
  await saveCopy(db, to);
  return answerWith(`Saved as ${to}.`);
}

/** Keeps the copy of today, if there is none yet. Called when Aguada is used; never in the way of an answer. */
export async function keepToday(): Promise<void> {
  const { db, path } = dataFile();
  await keepDailyCopy(db, path, wallClockNow().slice(0, 10));
}

/** How often it is looked whether there is a copy of today. */
const LOOK_MS = 600_000;
let lookedAt = -Infinity;

/**
 * After an edit: keeps the copy of today when there is none, beside everything else. What fails of it is told on the
 * shelf's list by its absence.
 */
export function keepTodaySoon(): void {
  if (process.env['NODE_ENV'] === 'test' || performance.now() - lookedAt < LOOK_MS) return;
  lookedAt = performance.now();
  setTimeout(() => void keepToday().catch(() => (lookedAt = -Infinity)), 1000).unref();
}

/**
 * Puts a database in the place of the one that is open. It is looked through and made ready apart; only then is what was there kept
 * as a copy and the file exchanged, with nothing in between that could fail half way.
 */
async function putBack(bytes: Uint8Array): Promise<CopiesAnswer> {
  const path = dataFilePath();
  const incoming = `${path}.incoming`;
  const clean = (): void => {
    for (const end of ['', '-wal', '-shm']) rmSync(`${incoming}${end}`, { force: true });
  };
  clean();
  try {
    writeFileSync(incoming, bytes);
    readyCopy(incoming, wallClockNow());
    const kept = await keepWhatIsThere();
    closeData();
    for (const end of ['-wal', '-shm']) rmSync(`${path}${end}`, { force: true });
    renameSync(incoming, path);
    withData(() => undefined);
    return answerWith(`Put back.${kept ? ` What was there is kept as ${kept}.` : ''}`);
  } finally {
    clean();
  }
}

/** A copy of the data file as it is, or the file itself moved aside when it cannot be read. */
async function keepWhatIsThere(): Promise<string | null> {
  const path = dataFilePath();
  const name = freeName('before-putting-back');
  const to = join(copiesFolder(path), name);
  mkdirSync(copiesFolder(path), { recursive: true });
  try {
    await saveCopy(dataFile().db, to);
    return name;
  } catch {
    // It is in trouble itself: it is moved aside with its log, as it is.
    closeData();
    let moved = false;
    for (const end of ['-wal', '-shm', ''])
      try {
        renameSync(`${path}${end}`, `${to.replace(/\.db$/, '-as-it-was')}${end}`);
        moved = true;
      } catch {
        // There is none.
      }
    return moved ? `${name.replace(/\.db$/, '-as-it-was')}` : null;
  }
}

const MOST_MOVEMENTS = 1_000_000;

/** Everything in one archive: the database, every set, the shelf and its ledger as JSON, and a manifest with checksums. */
export async function wholeArchive(): Promise<{ name: string; bytes: Uint8Array }> {
  const { db, path } = dataFile();
  const copy = join(copiesFolder(path), `archive-${stamp()}-${process.pid}.db`);
  try {
    await saveCopy(db, copy);
    const sets = withData((open) =>
      listDocuments(open, 'set').records.map(({ id }) => [`sets/${id}.json`, jsonBytes(setFileOf(open, id))] as const),
    );
    const { settings, products, colourants, recipes, consumables } = shelfView();
    // Lots with every movement of each, the oldest first.
    const lots = withData((open) =>
      listLots(open).map((lot) => ({ ...lot, movements: lotHistory(open, lot.id, MOST_MOVEMENTS).toReversed() })),
    );
    const bytes = await makeArchive(
      {
        [ARCHIVED_DATABASE]: readFileSync(copy),
        'shelf.json': jsonBytes({ settings, products, colourants, recipes, consumables }),
        'stock.json': jsonBytes({ lots }),
        ...Object.fromEntries(sets),
      },
      { holds: 'everything', madeAt: wallClockNow() },
    );
    return { name: `aguada-${stamp()}.zip`, bytes };
  } finally {
    rmSync(copy, { force: true });
  }
}

/** One set in an archive, to hand on. */
export async function setArchive(setId: string): Promise<{ name: string; bytes: Uint8Array }> {
  const file = withData((db) => setFileOf(db, setId));
  const name =
    file.set.data.name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'set';
  return { name: `${name}.zip`, bytes: await makeSetArchive(file, wallClockNow()) };
}

/** Takes in a file: an archive of everything or a bare data file takes the place of what is there, a set is put in beside it. */
export async function takeIn(request: Request): Promise<CopiesAnswer> {
  const onlySets = new URL(request.url).searchParams.get('only') === 'set';
  const bytes = await received(request);
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) {
    const opened = await openArchive(bytes);
    if (opened.holds === 'everything') {
      if (onlySets) throw new CopyError('This archive holds everything. Put it back on the shelf, under Copies.');
      return putBack(opened.database);
    }
    const { id } = await whenFree((db) => putInSet(db, opened.file, wallClockNow()));
    return { ...answerWith(`Took in ${opened.file.set.data.name}.`), setId: id };
  }
  if (onlySets) throw new CopyError('This is no archive of a set.');
  return putBack(bytes);
}

/** The bytes of an upload, written to a file as they come in; no more than may be. */
async function received(request: Request): Promise<Uint8Array> {
  if (!request.body) throw new RequestError(400, 'Send a file.');
  // Of its own: two files may come in at once.
  const path = `${dataFilePath()}.upload-${randomUUID()}`;
  let bytes = 0;
  const counted = async function* (source: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
    for await (const chunk of source) {
      bytes += chunk.byteLength;
      if (bytes > MOST_FILE_BYTES) throw new RequestError(413, 'This file is larger than 500 MB.');
      yield chunk;
    }
  };
  try {
    await pipeline(Readable.fromWeb(request.body as never), counted, createWriteStream(path));
    if (bytes === 0) throw new RequestError(400, 'This file is empty.');
    const start = readFileSync(path).subarray(0, 2);
    if (!(start[0] === 0x50 && start[1] === 0x4b) && !startsAsDatabase(path))
      throw new CopyError('This is neither an archive nor a data file of Aguada.');
    return readFileSync(path);
  } finally {
    rmSync(path, { force: true });
  }
}
