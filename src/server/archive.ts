import { createHash } from 'node:crypto';
import { createWriteStream, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { Readable, Transform, Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { openPromise, type Entry, type ZipFile as OpenedZip } from 'yauzl';
import { ZipFile } from 'yazl';
import { z } from 'zod';
import { setFileSchema, type SetFile } from '@/core/formats/setFile';
import { BackupError } from '@/db/backupError';

/** What an archive says of itself: a zip of open files, each with its checksum. */
const manifestSchema = z.object({
  format: z.literal('aguada.archive'),
  version: z.literal(1),
  holds: z.enum(['everything', 'set']),
  madeAt: z.string().max(40),
  files: z
    .array(z.object({ name: z.string().max(200), bytes: z.number().int(), sha256: z.string().length(64) }))
    .min(1)
    .max(5000),
});
type Manifest = z.infer<typeof manifestSchema>;

const MANIFEST = 'manifest.json';
export const ARCHIVED_DATABASE = 'aguada.db';
const ARCHIVED_SET = 'set.json';
const ARCHIVED_PHOTO = /^photos\/([0-9a-f]{64})\.jpg$/;

/** A small file may grow without end: this much is unpacked of one, of one that is read as text, and in all. */
const MOST_UNPACKED_BYTES = 1_000_000_000;
const MOST_TEXT_BYTES = 100_000_000;
/** What packs better than this is no drawing and no log, if it is large besides. */
const MOST_RATIO = 200;
const RATIO_COUNTS_FROM_BYTES = 16_000_000;

export const jsonBytes = (value: unknown): Buffer => Buffer.from(JSON.stringify(value, null, 1));

/** What passes through is counted and summed up. */
class Tally extends Transform {
  readonly #hash = createHash('sha256');
  bytes = 0;
  override _transform(chunk: Buffer, _encoding: string, done: (error: null, chunk: Buffer) => void): void {
    this.#hash.update(chunk);
    this.bytes += chunk.length;
    done(null, chunk);
  }
  sha256 = (): string => this.#hash.copy().digest('hex');
}

/**
 * An archive of files, as it is made: each is read when its turn comes, and the manifest with the checksum of each stands last.
 * Memory holds one file at a time.
 */
export function makeArchive(
  files: Iterable<readonly [name: string, read: () => Readable | Uint8Array]>,
  { holds, madeAt }: Pick<Manifest, 'holds' | 'madeAt'>,
): Readable {
  const zip = new ZipFile();
  const listed: Manifest['files'] = [];
  const add = (name: string, read: () => Readable): void =>
    zip.addReadStreamLazy(name, (take) => {
      try {
        take(null, read());
      } catch (error) {
        out.destroy(error as Error);
      }
    });
  const out = zip.outputStream as Readable;
  for (const [name, read] of files)
    add(name, () => {
      const tally = new Tally();
      tally.once('end', () => listed.push({ name, bytes: tally.bytes, sha256: tally.sha256() }));
      const from = read();
      const source = from instanceof Readable ? from : Readable.from([from]);
      source.once('error', (error) => out.destroy(error));
      return source.pipe(tally);
    });
  const about: Omit<Manifest, 'files'> = { format: 'aguada.archive', version: 1, holds, madeAt };
  add(MANIFEST, () => Readable.from([jsonBytes({ ...about, files: listed })]));
  zip.end();
  return out;
}

/** An archive of one set, with the photos of its pieces. */
export const makeSetArchive = (
  file: SetFile,
  madeAt: string,
  photos: readonly (readonly [id: string, read: () => Uint8Array])[] = [],
): Readable =>
  makeArchive(
    [[ARCHIVED_SET, () => jsonBytes(file)], ...photos.map(([id, read]) => [`photos/${id}.jpg`, read] as const)],
    { holds: 'set', madeAt },
  );

/**
 * What was taken in hand: an archive of everything, its database written where that was wished, or the set of an archive of one, with
 * the paths of its photos by their ids.
 */
export type OpenedArchive =
  { holds: 'everything' } | { holds: 'set'; file: SetFile; photos: ReadonlyMap<string, string> };

/**
 * Opens an archive and checks it against its manifest, byte for byte. Its database and its photos go to files in a folder. What is
 * unpacked is counted as it comes, whatever the archive says of itself. Throws a BackupError.
 */
export async function openArchive(path: string, folder: string): Promise<OpenedArchive> {
  mkdirSync(folder, { recursive: true });
  const { found, texts } = await unpacked(path, folder);
  const text = texts.get(MANIFEST);
  const manifest = manifestSchema.safeParse(text && parsed(text));
  if (!manifest.success)
    throw new BackupError('This zip is no archive of Aguada: it has no manifest that can be read.');
  const listed = new Map(manifest.data.files.map(({ name, sha256 }) => [name, sha256]));
  for (const [name, expected] of listed) {
    const sum = found.get(name);
    if (sum === undefined) throw new BackupError(`This archive is not whole: ${name} is missing.`);
    if (sum !== expected) throw new BackupError(`This archive is damaged: ${name} is not as it was written.`);
  }
  for (const name of found.keys())
    if (name !== MANIFEST && !listed.has(name))
      throw new BackupError(`This archive was changed: its manifest has no ${name}.`);
  if (manifest.data.holds === 'everything') {
    if (!found.has(ARCHIVED_DATABASE)) throw new BackupError('This archive is not whole: its database is missing.');
    return { holds: 'everything' };
  }
  const set = texts.get(ARCHIVED_SET);
  const file = setFileSchema.safeParse(set && parsed(set));
  if (!file.success) {
    const [issue] = file.error.issues;
    throw new BackupError(
      `The set in this archive cannot be read: ${issue?.path.join('.') ?? ''} ${issue?.message ?? ''}`.trim(),
    );
  }
  const photos = new Map<string, string>();
  for (const [name, sum] of found) {
    const id = ARCHIVED_PHOTO.exec(name)?.[1];
    // A photo is known by the sum of its bytes.
    if (id === sum) photos.set(id, join(folder, id));
  }
  return { holds: 'set', file: file.data, photos };
}

interface Unpacked {
  /** Checksums by name. */
  found: Map<string, string>;
  /** Those that are read as text. */
  texts: Map<string, Buffer>;
}

async function unpacked(path: string, folder: string): Promise<Unpacked> {
  const found: Unpacked['found'] = new Map();
  const texts: Unpacked['texts'] = new Map();
  let grown = 0;
  let zip: OpenedZip | null = null;
  try {
    zip = await openPromise(path, { lazyEntries: true, autoClose: false, strictFileNames: true });
    if (zip.entryCount > 5001) throw new BackupError('This archive holds more files than Aguada ever writes.');
    for await (const entry of zip.eachEntry()) {
      if (found.has(entry.fileName)) throw new BackupError(`This archive has ${entry.fileName} twice.`);
      boundEntry(entry);
      const asText = entry.fileName === MANIFEST || entry.fileName === ARCHIVED_SET;
      const tally = new Tally();
      const parts: Buffer[] = [];
      const most = asText ? MOST_TEXT_BYTES : MOST_UNPACKED_BYTES;
      tally.on('data', (chunk: Buffer) => {
        grown += chunk.length;
        if (tally.bytes > most || grown > MOST_UNPACKED_BYTES)
          tally.destroy(new BackupError('This archive is too large to be unpacked.'));
        else if (asText) parts.push(chunk);
      });
      const to = entry.fileName === ARCHIVED_DATABASE ? ARCHIVED_DATABASE : ARCHIVED_PHOTO.exec(entry.fileName)?.[1];
      const nowhere = new Writable({ write: (_chunk, _encoding, done) => done() });
      await pipeline(
        await zip.openReadStreamPromise(entry),
        tally,
        to === undefined ? nowhere : createWriteStream(join(folder, to)),
      );
      found.set(entry.fileName, tally.sha256());
      if (asText) texts.set(entry.fileName, Buffer.concat(parts));
    }
    return { found, texts };
  } catch (error) {
    if (error instanceof BackupError) throw error;
    throw new BackupError('This zip cannot be opened; it may have been cut short, or says of itself what is not so.');
  } finally {
    zip?.close();
  }
}

/** Refuses by what an archive claims; that it holds no more than it claims is seen while it is unpacked. */
function boundEntry({ fileName, compressedSize, uncompressedSize }: Entry): void {
  if (uncompressedSize > MOST_UNPACKED_BYTES) throw new BackupError('This archive is too large to be unpacked.');
  if (uncompressedSize > RATIO_COUNTS_FROM_BYTES && uncompressedSize > MOST_RATIO * Math.max(1, compressedSize))
    throw new BackupError(`This archive is not unpacked: ${fileName} would grow beyond all measure.`);
}

function parsed(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    return null;
  }
}
