import { postTelling } from '@/features/door/post';

/** A copy of the data file beside it. */
export interface KnownCopy {
  name: string;
  bytes: number;
  madeAt: number;
}

/** What is known of the copies, and what was done. */
export interface CopiesAnswer {
  copies: KnownCopy[];
  done: string | null;
  setId?: string;
}

export type CopiesOutcome = { ok: true; answer: CopiesAnswer } | { ok: false; message: string };

const UNANSWERED = 'Aguada does not answer. Is it still running?';

async function outcomeOf(response: Response): Promise<CopiesOutcome> {
  const body = (await response.json()) as CopiesAnswer | { message: string };
  return response.ok
    ? { ok: true, answer: body as CopiesAnswer }
    : { ok: false, message: (body as { message: string }).message };
}

/** The copies that there are. Never throws. */
export const readCopies = (): Promise<CopiesOutcome> =>
  fetch('/api/copies').then(outcomeOf, () => ({ ok: false, message: UNANSWERED }) as const);

/** Has something done with the copies or the data file. Never throws. */
export const askCopies = (
  asked: { do: 'save' | 'rescue' | 'go on' } | { do: 'put back'; name: string },
): Promise<CopiesOutcome> =>
  fetch('/api/copies', {
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
): Promise<CopiesOutcome> {
  if (file.size > MOST_FILE_BYTES)
    return Promise.resolve({ ok: false, message: `${file.name} is larger than 500 MB; it is not sent.` });
  return postTelling(`/api/copies/file?only=${only}`, 'application/octet-stream', file, progress).then(
    ({ status, body }): CopiesOutcome =>
      status === 200
        ? { ok: true, answer: body as CopiesAnswer }
        : { ok: false, message: (body as { message: string }).message },
    () => ({ ok: false, message: UNANSWERED }),
  );
}
