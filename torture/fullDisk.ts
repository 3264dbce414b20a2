import { execFileSync } from 'node:child_process';
import { mkdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { end, sendEdit, serve } from './server';
import { plainSet } from './set';

/** What a full disk came to; null where no small file system can be made. */
export interface FullDiskFigures {
  acknowledged: number;
  refusals: Record<string, number>;
  lost: number;
  recovered: boolean;
  pagesWhileFull: number[];
}

/** Edits on a small file system until it is full; then room is made, and they go on. */
export async function fullDisk(folder: string): Promise<FullDiskFigures | null> {
  mkdirSync(folder, { recursive: true });
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=3m', 'tmpfs', folder], { stdio: 'ignore' });
  } catch {
    return null;
  }
  try {
    return await fillUp(folder);
  } finally {
    execFileSync('umount', [folder], { stdio: 'ignore' });
  }
}

async function fillUp(folder: string): Promise<FullDiskFigures> {
  const data = join(folder, 'small.db');
  const figures: FullDiskFigures = { acknowledged: 0, refusals: {}, lost: 0, recovered: false, pagesWhileFull: [] };
  const served = await serve(data);
  const add = (name: string) =>
    sendEdit(served.url, { do: 'add', kind: 'set', data: { ...plainSet, name } }, { view: 'shelf' });
  const ballast = join(folder, 'ballast');
  await add('first');
  const room = 3_000_000 - statSync(data).size - 300_000;
  writeFileSync(ballast, Buffer.alloc(Math.max(0, room)));
  const names = ['first'];
  for (let i = 0; i < 400 && Object.values(figures.refusals).reduce((sum, n) => sum + n, 0) < 20; i++) {
    const reply = await add(`set ${i}`);
    if (reply?.status === 200) names.push(`set ${i}`);
    else figures.refusals[reply?.status ?? 'none'] = (figures.refusals[reply?.status ?? 'none'] ?? 0) + 1;
  }
  for (const path of ['/', '/shelf']) figures.pagesWhileFull.push((await fetch(`${served.url}${path}`)).status);
  rmSync(ballast);
  const after = await add('after');
  figures.recovered = after?.status === 200;
  if (figures.recovered) names.push('after');
  figures.acknowledged = names.length;
  await end(served);
  const file = new Sqlite(data, { readonly: true });
  const there = new Set(
    (file.prepare('select data from sets').all() as { data: string }[]).map(
      ({ data: text }) => (JSON.parse(text) as { name: string }).name,
    ),
  );
  if (file.pragma('integrity_check', { simple: true }) !== 'ok') figures.lost++;
  file.close();
  figures.lost += names.filter((name) => !there.has(name)).length;
  return figures;
}
