import { createHash } from 'node:crypto';
import { unzip, zip, type Unzipped } from 'fflate';
import { z } from 'zod';
import { setFileSchema, type SetFile } from '@/core/formats/setFile';
import { CopyError } from '@/db/copies';

/** What an archive says of itself: a zip of open files, each with its checksum. */
const manifestSchema = z.object({
  format: z.literal('aguada.archive'),
  version: z.literal(1),
  holds: z.enum(['everything', 'set']),
  madeAt: z.string().max(40),
  files: z
    .array(z.object({ name: z.string().max(200), bytes: z.number().int(), sha256: z.string().length(64) }))
    .max(5000),
});
type Manifest = z.infer<typeof manifestSchema>;

const MANIFEST = 'manifest.json';
export const ARCHIVED_DATABASE = 'aguada.db';
const ARCHIVED_SET = 'set.json';
/** More than this is not unpacked: a small file may grow without end. */
const MOST_UNPACKED_BYTES = 1_000_000_000;

const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
const encode = (value: unknown): Uint8Array => new TextEncoder().encode(JSON.stringify(value, null, 1));

/** An archive of files, with a manifest that has the checksum of each. Packed beside the thread that answers. */
export function makeArchive(
  files: Record<string, Uint8Array>,
  { holds, madeAt }: Pick<Manifest, 'holds' | 'madeAt'>,
): Promise<Uint8Array> {
  const manifest: Manifest = {
    ...{ format: 'aguada.archive', version: 1, holds, madeAt },
    files: Object.entries(files).map(([name, bytes]) => ({ name, bytes: bytes.byteLength, sha256: sha256(bytes) })),
  };
  return new Promise((resolve, reject) =>
    zip({ [MANIFEST]: encode(manifest), ...files }, { level: 6 }, (error, bytes) =>
      error ? reject(error) : resolve(bytes),
    ),
  );
}

/** An archive of one set. */
export const makeSetArchive = (file: SetFile, madeAt: string): Promise<Uint8Array> =>
  makeArchive({ [ARCHIVED_SET]: encode(file) }, { holds: 'set', madeAt });

/** What was taken in hand: the database of an archive of everything, or the set of an archive of one. */
export type OpenedArchive = { holds: 'everything'; database: Uint8Array } | { holds: 'set'; file: SetFile };

/** Opens an archive and checks it against its manifest, byte for byte. Throws a CopyError. */
export async function openArchive(bytes: Uint8Array): Promise<OpenedArchive> {
  const files = await unpacked(bytes);
  const text = files[MANIFEST];
  const manifest = manifestSchema.safeParse(text && parsed(text));
  if (!manifest.success) throw new CopyError('This zip is no archive of Aguada: it has no manifest that can be read.');
  for (const { name, sha256: expected } of manifest.data.files) {
    const file = files[name];
    if (!file) throw new CopyError(`This archive is not whole: ${name} is missing.`);
    if (sha256(file) !== expected) throw new CopyError(`This archive is damaged: ${name} is not as it was written.`);
  }
  if (manifest.data.holds === 'everything') {
    const database = files[ARCHIVED_DATABASE];
    if (!database) throw new CopyError('This archive is not whole: its database is missing.');
    return { holds: 'everything', database };
  }
  const file = setFileSchema.safeParse(files[ARCHIVED_SET] && parsed(files[ARCHIVED_SET]));
  if (!file.success) {
    const [issue] = file.error.issues;
    throw new CopyError(
      `The set in this archive cannot be read: ${issue?.path.join('.') ?? ''} ${issue?.message ?? ''}`.trim(),
    );
  }
  return { holds: 'set', file: file.data };
}

function unpacked(bytes: Uint8Array): Promise<Unzipped> {
  let grown = 0;
  return new Promise((resolve, reject) =>
    unzip(
      bytes,
      {
        filter: ({ originalSize }) => {
          grown += originalSize;
          if (grown > MOST_UNPACKED_BYTES) throw new CopyError('This archive is too large to be unpacked.');
          return true;
        },
      },
      (error, files) =>
        error ? reject(new CopyError('This zip cannot be opened; it may have been cut short.')) : resolve(files),
    ),
  );
}

function parsed(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    return null;
  }
}

export { encode as jsonBytes };
