import type { Command, ViewWanted } from '@/core/records/command';
import type { EditAnswer } from '@/core/records/views';
import type { Changed, Sent, Trouble } from './editQueue';

/** The browser lets requests outlive their page only up to 64 kB, all that are under way together. */
const MOST_OUTLIVING = 48_000;
let outliving = 0;

/**
 * Sends one edit to the server. Never throws: a server that does not answer is trouble like any other. A small edit survives the
 * end of its page; a large one, as of a scan, is sent as any other request.
 */
export async function sendEdit(command: Command, wanted: ViewWanted, key: string): Promise<Sent> {
  const text = JSON.stringify({ command, wanted, key });
  const bytes = text.length;
  const outlives = outliving + bytes < MOST_OUTLIVING;
  if (outlives) outliving += bytes;
  let response: Response;
  let body: unknown;
  try {
    response = await fetch('/api/edits', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: text,
      keepalive: outlives,
    });
    body = await response.json();
  } catch {
    const message = 'Aguada does not answer. Is it still running? Your edit is kept here.';
    return { ok: false, changed: null, trouble: { kind: 'offline', message, fields: [], command, key } };
  } finally {
    if (outlives) outliving -= bytes;
  }
  if (response.ok) return { ok: true, answer: body as EditAnswer };
  const { error, message, fields, changes } = body as {
    error: Trouble['kind'];
    message: string;
    fields: Trouble['fields'];
    changes?: Changed['changes'];
  };
  return { ok: false, changed: changes ? { changes } : null, trouble: { kind: error, message, fields, command, key } };
}
