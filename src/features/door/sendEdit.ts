import type { Command, ViewWanted } from '@/core/records/command';
import type { EditAnswer } from '@/core/records/views';
import type { Changed, Sent, Trouble } from './editQueue';

/** The browser lets a request outlive its page only up to 64 kB, all of them together. */
const SMALL_ENOUGH = 48_000;

/** Sends one edit to the server. Never throws: a server that does not answer is trouble like any other. */
export async function sendEdit(command: Command, wanted: ViewWanted): Promise<Sent> {
  const text = JSON.stringify({ command, wanted });
  let response: Response;
  let body: unknown;
  try {
    response = await fetch('/api/edits', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: text,
      keepalive: text.length < SMALL_ENOUGH,
    });
    body = await response.json();
  } catch {
    const message = 'Aguada does not answer. Is it still running? Your edit is kept here.';
    return { ok: false, changed: null, trouble: { kind: 'offline', message, fields: [], command } };
  }
  if (response.ok) return { ok: true, answer: body as EditAnswer };
  const { error, message, fields, changes } = body as {
    error: Trouble['kind'];
    message: string;
    fields: Trouble['fields'];
    changes?: Changed['changes'];
  };
  return { ok: false, changed: changes ? { changes } : null, trouble: { kind: error, message, fields, command } };
}
