import { existsSync, renameSync, rmSync } from 'node:fs';
import { ROUTES } from '../src/server/door/rights';
import type { Dice } from './dice';
import { filled } from './otherDevices';
import { sendRaw } from './raw';
import { end, pause, sendEdit, serve } from './server';
import { plainSet } from './set';

/** What a file that is moved away and back while everything is asked for came to. */
export interface MovedFileFigures {
  requests: number;
  edits: number;
  /** Edits that were acknowledged and are not in the file at the end. */
  lost: number;
  defects: string[];
  /** Pages asked for while the file was away that do not say so. */
  silent: string[];
}

/** Longer than the server takes to look. */
const NOTICED_MS = 400;
const WHY = /moved or deleted/;

/** Every route while the file is away; then all of them, and edits, while it is moved away and back again and again. */
export async function movedFile(data: string, rounds: number, dice: Dice): Promise<MovedFileFigures> {
  for (const ending of ['', '-wal', '-shm', '.away']) rmSync(`${data}${ending}`, { force: true });
  const served = await serve(data, { AGUADA_DEMO: '1' });
  const figures: MovedFileFigures = { requests: 0, edits: 0, lost: 0, defects: [], silent: [] };
  const odd = ['constructor', '__proto__', 'toString'].map((file) => `/export/heron-slack/hs-batch-3/${file}`);
  const paths = [...Object.entries(ROUTES).flatMap(([route, { GET }]) => (GET ? [filled(route)] : [])), ...odd];
  const ask = async (path: string): Promise<{ status: number; body: string } | null> => {
    const sent = { method: 'GET', path, headers: {}, body: null };
    const answer = await sendRaw(served, sent, (text) => path.endsWith('/live') && text.includes('data:'));
    figures.requests++;
    if (!answer || answer.status >= 500) figures.defects.push(`${answer?.status ?? 'no answer'} ${path}`);
    return answer;
  };
  try {
    // One after another: a server that has just started compiles each page at its first request.
    for (const path of paths) await ask(path);
    renameSync(data, `${data}.away`);
    await pause(NOTICED_MS);
    for (const path of paths) {
      const answer = await ask(path);
      const isPage = !/^\/(api|export|icon|_next|pair|booklet|log\/)/.test(path);
      if (isPage && !(answer && answer.status >= 400 && WHY.test(answer.body))) figures.silent.push(path);
    }
    renameSync(`${data}.away`, data);
    const made: string[] = [];
    for (let round = 0; round < rounds; round++) {
      for (let i = 0; i < 3; i++) {
        const name = `moved ${round} ${i}`;
        const reply = await sendEdit(
          served.url,
          { do: 'add', kind: 'set', data: { ...plainSet, name } },
          { view: 'shelf' },
        );
        if (reply?.status === 200) made.push(name);
      }
      renameSync(data, `${data}.away`);
      await Promise.all([pause(dice.whole(2 * NOTICED_MS)), ...Array.from({ length: 4 }, () => ask(dice.one(paths)))]);
      if (existsSync(`${data}.away`)) renameSync(`${data}.away`, data);
      await ask(dice.one(paths));
    }
    figures.edits = made.length;
    const shown = (await (await fetch(`${served.url}/api/sets/heron-slack/spent`)).text()).length > 0;
    await end(served);
    figures.lost = shown ? await missing(data, made) : made.length;
  } finally {
    await end(served);
  }
  return figures;
}

async function missing(data: string, made: readonly string[]): Promise<number> {
  const { default: Sqlite } = await import('better-sqlite3');
  const file = new Sqlite(data, { readonly: true });
  const rows = file.prepare('select data from sets').all() as { data: string }[];
  file.close();
  const there = new Set(rows.map(({ data: text }) => (JSON.parse(text) as { name: string }).name));
  return made.filter((name) => !there.has(name)).length;
}
