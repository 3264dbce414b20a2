import { randomUUID } from 'node:crypto';
import {
  closeSync,
  createReadStream,
  createWriteStream,
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  readSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { z } from 'zod';
import { cleanJpeg } from '@/core/formats/jpegFile';
import { MOST_PHOTO_BYTES, photosIn } from '@/core/records/photos';
import { daysAfter } from '@/core/records/workshopLog';
import { dataFilePath } from '@/db/dataFile';
import {
  copyPath,
  keepDailyBackup,
  listBackups,
  openBackup,
  readyBackup,
  saveBackup,
  type Backup,
  type DeviceRow,
} from '@/db/backups';
import { BackupError } from '@/db/backupError';
import { backupsFolder } from '@/db/backupsFolder';
import { listDocuments } from '@/db/documents';
import { hasPhoto, keepPhoto, letGoOfPhotos, photoBytes } from '@/db/photos';
import { devices } from '@/db/schema';
import { putInSet, setFileOf } from '@/db/setFile';
import { listLots, lotHistory } from '@/db/stock';
import { startsAsDatabase } from '@/db/fileIdentity';
import { ARCHIVED_DATABASE, jsonBytes, makeArchive, makeSetArchive, openArchive } from './archive';
import { wallClockNow } from './clock';
import { MOST_FILE_BYTES } from './door/gate';
import { closeData, dataFile, goOnWithFile, rescueData, whenFree, withData } from './data';
import { rightsChanged } from './devices';
import { RequestError } from './respond';
import { shelfView } from './views';

/** A stamp for file names: day and time of the wall clock. */
const stamp = (): string => wallClockNow().replace('T', '-').replace(':', '');

/** A name in the folder of the copies that none has yet: two in a minute are two. */
function freeName(start: string): string {
  const folder = backupsFolder(dataFilePath());
  const base = `${start}-${stamp()}`;
  for (let i = 1; ; i++) {
    const name = i === 1 ? `${base}.db` : `${base}-${i}.db`;
    if (!existsSync(join(folder, name)) && !existsSync(join(folder, name.replace(/\.db$/, '-as-it-was')))) return name;
  }
}

/** What can be asked of the copies and of the data file. */
export const backupsRequestSchema = z.discriminatedUnion('do', [
  z.object({ do: z.literal('save') }),
  z.object({ do: z.literal('put back'), name: z.string().max(80) }),
  z.object({ do: z.literal('rescue') }),
  z.object({ do: z.literal('go on') }),
]);

/** What is known of the copies after something was done. */
export interface BackupsAnswer {
  copies: Backup[];
  /** What was done, in words. */
  done: string | null;
  /** The set that was taken in. */
  setId?: string;
}

const answerWith = (done: string | null): BackupsAnswer => ({ copies: listBackups(dataFilePath()), done });

export const copiesView = (): BackupsAnswer => answerWith(null);

/** Does what is asked of the copies. */
export async function runBackups(asked: z.infer<typeof backupsRequestSchema>): Promise<BackupsAnswer> {
  if (asked.do === 'rescue') return answerWith(`Written to ${rescueData(wallClockNow())}.`);
  if (asked.do === 'go on') {
    const kept = goOnWithFile(wallClockNow());
    return answerWith(
      `Going on with the data file that lies there now.${kept ? ` What was in hand of the one before is kept as ${kept}.` : ''}`,
    );
  }
  if (asked.do === 'put back') return putBack(copyPath(dataFilePath(), asked.name));
  const { db, path } = dataFile();
  const to = join(/* turbopackIgnore: true */ backupsFolder(path), freeName('saved'));
  await saveBackup(db, to);
  return answerWith(`Saved as ${to}.`);
}

/** A photo that nothing names is kept so long: what was taken away by mistake is in the copies as long. */
const LOOSE_PHOTO_DAYS = 14;

/** Keeps the copy of today, if there is none yet; what no longer belongs to anything goes after that. Called when Aguada is used; never in the way of an answer. */
export async function keepToday(): Promise<void> {
  const { db, path } = dataFile();
  const today = wallClockNow().slice(0, 10);
  await keepDailyBackup(db, path, today);
  await whenFree((free) => letGoOfPhotos(free, daysAfter(today, -LOOSE_PHOTO_DAYS)));
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
async function putBack(from: string): Promise<BackupsAnswer> {
  const path = dataFilePath();
  const incoming = `${path}.incoming`;
  try {
    readyBackup(from, incoming, ownDevices(), wallClockNow());
    const kept = await keepWhatIsThere();
    closeData();
    for (const end of ['-wal', '-shm']) rmSync(`${path}${end}`, { force: true });
    renameSync(incoming, path);
    withData(() => undefined);
    rightsChanged();
    return answerWith(`Put back.${kept ? ` What was there is kept as ${kept}.` : ''}`);
  } finally {
    for (const end of ['', '-wal', '-shm']) rmSync(`${incoming}${end}`, { force: true });
  }
}

/** The devices that may come in now; none while the data file cannot be read: then each has to be paired anew. */
function ownDevices(): DeviceRow[] {
  try {
    return withData((db) => db.select().from(devices).all());
  } catch {
    return [];
  }
}

/** A copy of the data file as it is, or the file itself moved aside when it cannot be read. */
async function keepWhatIsThere(): Promise<string | null> {
  const path = dataFilePath();
  const name = freeName('before-putting-back');
  const to = join(/* turbopackIgnore: true */ backupsFolder(path), name);
  mkdirSync(backupsFolder(path), { recursive: true });
  try {
    await saveBackup(dataFile().db, to);
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

/**
 * Everything in one archive: the database, every set, the shelf and its ledger as JSON, all of one moment, and a manifest with
 * checksums. It is made while it is sent.
 */
export async function wholeArchive(): Promise<{ name: string; stream: Readable }> {
  const { db, path } = dataFile();
  const at = join(backupsFolder(path), `archive-${randomUUID()}.part`);
  await saveBackup(db, at);
  const copy = openBackup(at);
  const { settings, products, colourants, recipes, consumables } = shelfView();
  const sets = listDocuments(copy.db, 'set').records.map(
    ({ id }) => [`sets/${id}.json`, () => jsonBytes(setFileOf(copy.db, id))] as const,
  );
  // Lots with every movement of each, the oldest first.
  const stock = (): Uint8Array =>
    jsonBytes({
      lots: listLots(copy.db).map((lot) => ({
        ...lot,
        movements: lotHistory(copy.db, lot.id, MOST_MOVEMENTS).toReversed(),
      })),
    });
  const stream = makeArchive(
    [
      [ARCHIVED_DATABASE, () => createReadStream(at)],
      ['shelf.json', () => jsonBytes({ settings, products, colourants, recipes, consumables })],
      ['stock.json', stock],
      ...sets,
    ],
    { holds: 'everything', madeAt: wallClockNow() },
  );
  stream.once('close', () => {
    copy.close();
    rmSync(at, { force: true });
  });
  return { name: `aguada-${stamp()}.zip`, stream };
}

/** One set in an archive, to hand on. */
export function setArchive(setId: string): { name: string; stream: Readable } {
  const file = withData((db) => setFileOf(db, setId));
  const photos = withData((db) => photosIn(file.batches).filter((id) => hasPhoto(db, id)));
  const name =
    file.set.data.name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'set';
  return {
    name: `${name}.zip`,
    stream: makeSetArchive(
      file,
      wallClockNow(),
      photos.map((id) => [id, () => withData((db) => photoBytes(db, id)) ?? new Uint8Array()] as const),
    ),
  };
}

/** Takes in a file: an archive of everything or a bare data file takes the place of what is there, a set is put in beside it. */
export async function takeIn(request: Request): Promise<BackupsAnswer> {
  const onlySets = new URL(request.url).searchParams.get('only') === 'set';
  // Of its own: two files may come in at once.
  const path = `${dataFilePath()}.upload-${randomUUID()}`;
  const folder = `${path}.unpacked`;
  try {
    if ((await received(request, path)) === 'database') {
      if (onlySets) throw new BackupError('This is no archive of a set.');
      return await putBack(path);
    }
    const opened = await openArchive(path, folder);
    if (opened.holds === 'everything') {
      if (onlySets) throw new BackupError('This archive holds everything. Put it back on the shelf, under Copies.');
      return await putBack(join(folder, ARCHIVED_DATABASE));
    }
    const now = wallClockNow();
    const photos = photosIn(opened.file.batches).flatMap((id) => {
      const bytes = cleanPhoto(opened.photos.get(id));
      return bytes ? [[id, bytes] as const] : [];
    });
    const { id } = await whenFree((db) => {
      for (const [photo, bytes] of photos) keepPhoto(db, photo, bytes, now);
      return putInSet(db, opened.file, now);
    });
    return { ...answerWith(`Took in ${opened.file.set.data.name}.`), setId: id };
  } finally {
    for (const end of ['', '-wal', '-shm']) rmSync(`${path}${end}`, { force: true });
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A photo out of an archive; null where there is none, or something else than a picture is in it. */
function cleanPhoto(path: string | undefined): Buffer | null {
  if (path === undefined || statSync(path).size > MOST_PHOTO_BYTES) return null;
  const bytes = readFileSync(path);
  try {
    return bytes.equals(cleanJpeg(bytes).bytes) ? bytes : null;
  } catch {
    return null;
  }
}

/** Writes an upload to a file as it comes in, no more than may be. What it is by how it begins. */
async function received(request: Request, path: string): Promise<'archive' | 'database'> {
  if (!request.body) throw new RequestError(400, 'Send a file.');
  let bytes = 0;
  const counted = async function* (source: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
    for await (const chunk of source) {
      bytes += chunk.byteLength;
      if (bytes > MOST_FILE_BYTES) throw new RequestError(413, 'This file is larger than 500 MB.');
      yield chunk;
    }
  };
  await pipeline(Readable.fromWeb(request.body as never), counted, createWriteStream(path));
  if (bytes === 0) throw new RequestError(400, 'This file is empty.');
  if (startsAsDatabase(path)) return 'database';
  if (startsAsZip(path)) return 'archive';
  throw new BackupError('This is neither an archive nor a data file of Aguada.');
}

function startsAsZip(path: string): boolean {
  const start = Buffer.alloc(2);
  const file = openSync(path, 'r');
  try {
    return readSync(file, start, 0, 2, 0) === 2 && start.toString('latin1') === 'PK';
  } finally {
    closeSync(file);
  }
}
