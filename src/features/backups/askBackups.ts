import { postTelling } from '@/features/edits/post';

/** A copy of the data file beside it. */
export interface KnownBackup {
  name: string;
  bytes: number;
  madeAt: number;
}

/** What is known of the copies, and what was done. */
export interface BackupsAnswer {
  copies: KnownBackup[];
  done: string | null;
  setId?: string;
}

export type BackupsOutcome = { ok: true; answer: BackupsAnswer } | { ok: false; message: string };

const UNANSWERED = 'Aguada does not answer. Is it still running?';

async function outcomeOf(response: Response): Promise<BackupsOutcome> {
  const body = (await response.json()) as BackupsAnswer | { message: string };
  return response.ok
    ? { ok: true, answer: body as BackupsAnswer }
    : { ok: false, message: (body as { message: string }).message };
}

/** The copies that there are. Never throws. */
export const readBackups = (): Promise<BackupsOutcome> =>
  fetch('/api/backups').then(outcomeOf, () => ({ ok: false, message: UNANSWERED }) as const);

/** Has something done with the copies or the data file. Never throws. */
export const askBackups = (
  asked: { do: 'save' | 'rescue' | 'go on' } | { do: 'put back'; name: string },
): Promise<BackupsOutcome> =>
  fetch('/api/backups', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(asked),
  }).then(outcomeOf, () => ({ ok: false, message: UNANSWERED }) as const);

/** The largest file that is taken in, as the server has it. */
const MOST_FILE_BYTES = 500_000_000;

/** Sends a file to be taken in, telling how much of it has gone. Never throws. `only` says what it must hold. */
export function sendFile(
  file: File,
  only: 'set' | 'anything',
  progress: (share: number) => void,
): Promise<BackupsOutcome> {
  if (file.size > MOST_FILE_BYTES)
    return Promise.resolve({ ok: false, message: `${file.name} is larger than 500 MB; it is not sent.` });
  return postTelling(`/api/backups/file?only=${only}`, 'application/octet-stream', file, progress).then(
    ({ status, body }): BackupsOutcome =>
      status === 200
        ? { ok: true, answer: body as BackupsAnswer }
        : { ok: false, message: (body as { message: string }).message },
    () => ({ ok: false, message: UNANSWERED }),
  );
}
