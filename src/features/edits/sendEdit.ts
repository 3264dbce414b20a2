import type { Command, ViewWanted } from '@/core/records/command';
import { EDIT_ROUTES, editRouteFor } from '@/core/records/editRoutes';
import type { EditAnswer } from '@/core/records/views';
import type { Changed, Sent, Trouble } from './editQueue';
import { postTelling, type Reply } from './post';

/** The browser lets requests outlive their page only up to 64 kB, all that are under way together. */
const MOST_OUTLIVING = 48_000;
let outliving = 0;

const JSON_TYPE = 'application/json';

/** Sends a small edit so that it survives the end of its page. */
async function sendSmall(path: string, text: string, bytes: number): Promise<Reply> {
  const outlives = outliving + bytes < MOST_OUTLIVING;
  if (outlives) outliving += bytes;
  try {
    const response = await fetch(path, {
      method: 'POST',
      headers: { 'content-type': JSON_TYPE },
      body: text,
      keepalive: outlives,
    });
    return { status: response.status, body: await response.json() };
  } finally {
    if (outlives) outliving -= bytes;
  }
}

/**
 * Sends one edit to the server. Never throws: a server that does not answer is trouble like any other. A small edit survives the
 * end of its page; a large one, as of a scan, goes by the wide route and tells how much of it has gone, 0 to 1; one that no route
 * would take is not sent at all.
 */
export async function sendEdit(
  command: Command,
  wanted: ViewWanted,
  key: string,
  progress: (share: number) => void,
): Promise<Sent> {
  const text = JSON.stringify({ command, wanted, key });
  const bytes = new Blob([text]).size;
  const edits = editRouteFor(bytes);
  const failed = (kind: Trouble['kind'], message: string): Sent => ({
    ok: false,
    changed: null,
    trouble: { kind, message, fields: [], command, key },
  });
  if (!edits) {
    const most = EDIT_ROUTES[EDIT_ROUTES.length - 1]!.mostBytes;
    return failed(
      'refused',
      `This takes ${megabytes(bytes)} MB; an edit may take ${megabytes(most)} MB. It was not sent. A scan with wider spacing takes less.`,
    );
  }
  let reply: Reply;
  try {
    reply =
      edits === EDIT_ROUTES[0]
        ? await sendSmall(edits.path, text, bytes)
        : await postTelling(edits.path, JSON_TYPE, text, progress);
  } catch {
    return failed('offline', 'Aguada does not answer. Is it still running? Your edit is kept here.');
  }
  if (reply.status === 200) return { ok: true, answer: reply.body as EditAnswer };
  const { error, message, fields, ...newer } = reply.body as {
    error: Trouble['kind'];
    message: string;
    fields: Trouble['fields'];
  } & Partial<Changed>;
  return {
    ok: false,
    changed: newer.changes ? { ...newer, changes: newer.changes } : null,
    trouble: { kind: error, message, fields, command, key },
  };
}

const megabytes = (bytes: number): string => (bytes / 1_000_000).toFixed(1);
