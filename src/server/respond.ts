import { ZodError } from 'zod';
import { Readable } from 'node:stream';
import { BackupError } from '@/db/backupError';
import { DataFileError, type DataTrouble } from '@/db/dataFile';
import { EditRefusedError, StaleEditError } from '@/db/journal';
import { isLessThanNothing } from '@/db/stock';
import { mostBytesAt, verdictOnWriting } from './door/gate';
import { FieldProblem } from './fieldProblem';

/** What the edit route answers when it does not do what was asked. */
export interface Refusal {
  error: 'invalid' | 'stale' | 'refused' | 'missing' | 'data file' | 'request';
  message: string;
  /** The fields concerned, dotted, when there are any. */
  fields: { field: string; message: string }[];
}

const DATA_STATUS: Record<DataTrouble, number> = {
  locked: 423,
  'read-only': 403,
  damaged: 409,
  newer: 409,
  unreachable: 409,
  full: 507,
  empty: 409,
  swapped: 409,
};

/** A request that is not one of ours. */
export class RequestError extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
    this.name = 'RequestError';
  }
}

/** The status and body for an error, or null when it is a defect of ours. */
export function refusalOf(error: unknown): { status: number; body: Refusal } | null {
  const refuse = (
    status: number,
    kind: Refusal['error'],
    message: string,
    fields: Refusal['fields'] = [],
  ): { status: number; body: Refusal } => ({ status, body: { error: kind, message, fields } });
  if (error instanceof ZodError) {
    const fields = error.issues.map(({ path, message }) => ({
      field: path.filter((part, i) => !(i < 2 && (part === 'command' || part === 'data'))).join('.'),
      message,
    }));
    return refuse(422, 'invalid', fields[0]?.message ?? 'Something in this form cannot be.', fields);
  }
  if (error instanceof FieldProblem)
    return refuse(422, 'invalid', error.message, [{ field: error.path.join('.'), message: error.message }]);
  if (error instanceof StaleEditError) return refuse(409, 'stale', error.message);
  if (error instanceof EditRefusedError)
    return refuse(
      error.reason === 'missing' ? 404 : 409,
      error.reason === 'missing' ? 'missing' : 'refused',
      error.message,
    );
  if (isLessThanNothing(error))
    return refuse(
      409,
      'refused',
      'A lot would hold less than nothing by that. Say first, on the shelf, what is really left in it.',
    );
  if (error instanceof BackupError) return refuse(422, 'refused', error.message);
  if (error instanceof DataFileError) return refuse(DATA_STATUS[error.trouble], 'data file', error.message);
  if (error instanceof RequestError) return refuse(error.status, 'request', error.message);
  return null;
}

/** Runs a route's work and answers with JSON (or with the response it made), refusals included. */
export async function answer(work: () => unknown): Promise<Response> {
  try {
    const result = await work();
    return result instanceof Response ? result : Response.json(result);
  } catch (error) {
    const refusal = refusalOf(error);
    if (!refusal) throw error;
    return Response.json(refusal.body, { status: refusal.status });
  }
}

/** A file to be saved by the browser, sent while it is made. */
export const download = ({ name, stream }: { name: string; stream: Readable }): Response =>
  new Response(Readable.toWeb(stream) as ReadableStream<Uint8Array>, {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    },
  });

/** The body of a request from our own pages; it is read no further than it may be long. */
export function ownBytes(request: Request): Promise<Uint8Array> {
  const { pathname } = new URL(request.url);
  const refused = verdictOnWriting(pathname, request.headers.get('host') ?? '', {
    ...Object.fromEntries(request.headers),
  });
  if (refused) throw new RequestError(refused.status, refused.message);
  return shortBytes(request, mostBytesAt(pathname));
}

/** The JSON body of a request from our own pages. */
export async function ownJson(request: Request): Promise<unknown> {
  const text = new TextDecoder().decode(await ownBytes(request));
  try {
    return JSON.parse(text);
  } catch {
    throw new RequestError(400, 'That is not JSON.');
  }
}

/** The text of a body that is no longer than it may be. */
export const shortText = async (request: Request, mostBytes: number): Promise<string> =>
  new TextDecoder().decode(await shortBytes(request, mostBytes));

/** A body that is no longer than it may be; of a longer one only so much is read. */
async function shortBytes(request: Request, mostBytes: number): Promise<Uint8Array> {
  if (!request.body) return new Uint8Array();
  const parts: Uint8Array[] = [];
  let bytes = 0;
  const reader = request.body.getReader();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return Buffer.concat(parts);
    bytes += value.byteLength;
    if (bytes > mostBytes) {
      await reader.cancel().catch(() => undefined);
      throw new RequestError(413, 'That is too large.');
    }
    parts.push(value);
  }
}
