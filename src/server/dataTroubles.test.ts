import {
  chmodSync,
  copyFileSync,
  existsSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
  utimesSync,
} from 'node:fs';
import { execFileSync } from 'node:child_process';
import { basename, join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { commandSchema, type Scope } from '@/core/records/command';
import type { EditAnswer } from '@/core/records/views';
import { DataFileError, openDataFile } from '@/db/dataFile';
import { getDocument } from '@/db/documents';
import { temporaryFolder } from '@/db/testDataFile';
import { closeData, dataFile, goOnWithFile, rescueData, withData } from './data';
import { runCommand } from './runCommand';
import { setsView, shelfView } from './views';

const folder = temporaryFolder();
const NOW = '2026-11-26T10:00';
let path = '';
let count = 0;
const run = (command: unknown, scope: Scope = 'sets', key: string | null = null): Promise<EditAnswer> =>
  runCommand(commandSchema.parse(command), scope, key);
const set = { name: 'Otter Reach', figureScaleMm: 28, levelMm: 15, productId: 'coating-epoxy', recipeId: 'clear' };
const addSet = (name: string, key: string | null = null): Promise<EditAnswer> =>
  run(
    { do: 'add', kind: 'set', data: { ...set, name, benchWindows: null, job: null }, label: `Add ${name}` },
    'sets',
    key,
  );
const names = (): string[] =>
  withData((db) => db.$client.prepare('select data from sets').all() as { data: string }[]).map(
    ({ data }) => (JSON.parse(data) as { name: string }).name,
  );
async function troubleOf(work: () => unknown): Promise<string> {
  try {
    await work();
    return 'none';
  } catch (error) {
    return error instanceof DataFileError ? error.trouble : `unexplained: ${String(error)}`;
  }
}
let later = 0;
const machine = Date.now;
jest.spyOn(Date, 'now').mockImplementation(() => machine() + later);
/** Looks at the file are 300 ms apart. */
const aMoment = (): void => void (later += 320);

beforeEach(() => {
  path = join(folder, `${count++}.db`);
  process.env['AGUADA_DATA'] = path;
  shelfView();
});
afterEach(closeData);

describe('a file that is taken away while it is open', () => {
  test.each([
    ['moved', (): void => renameSync(path, `${path}.elsewhere`), /was moved or deleted/],
    ['deleted', (): void => rmSync(path), /was moved or deleted/],
    [
      'replaced',
      (): void => {
        openDataFile(`${path}.other`).close();
        renameSync(`${path}.other`, path);
      },
      /was replaced/,
    ],
  ])('%s: edits are refused, what was in hand is written to a new place', async (_what, take, words) => {
    await addSet('Kept one');
    await addSet('Kept two');
    take();
    aMoment();
    await expect(addSet('Too late')).rejects.toThrow(words);
    expect(await troubleOf(() => setsView())).toBe('swapped');
    const to = rescueData(NOW);
    const rescued = openDataFile(to);
    expect(rescued.db.$client.prepare('select count(*) n from sets').get()).toEqual({ n: 2 });
    rescued.close();
    // Going on with what lies there now: a new file, or the one that was put there, unharmed by the old one's log.
    goOnWithFile(NOW);
    expect(names()).toEqual([]);
    await addSet('New start');
    closeData();
    const again = openDataFile(path);
    expect(again.db.$client.pragma('integrity_check', { simple: true })).toBe('ok');
    expect(again.db.$client.prepare('select count(*) n from sets').get()).toEqual({ n: 1 });
    again.close();
  });
  test('cut short or written over it is noticed before the next edit', async () => {
    await addSet('Kept');
    withData((db) => db.$client.pragma('wal_checkpoint(TRUNCATE)'));
    aMoment();
    withData(() => undefined);
    truncateSync(path, 8192);
    aMoment();
    expect(await troubleOf(() => addSet('Too late'))).toBe('swapped');
    goOnWithFile(NOW);
    // What lies there now is no whole file: it is named as such, and not written to.
    const bytes = statSync(path).size;
    expect(await troubleOf(() => addSet('Too late'))).toBe('damaged');
    expect(statSync(path).size).toBe(bytes);
    rmSync(path);
  });
});

describe('a file that was away and comes back', () => {
  const addSome = async (): Promise<string[]> => {
    for (let i = 1; i <= 12; i++) await addSet(`Edit ${i}`);
    return Array.from({ length: 12 }, (_, i) => `Edit ${i + 1}`);
  };
  test.each([
    ['by itself', (): void => undefined],
    ['and going on is pressed once more', (): void => void goOnWithFile(NOW)],
  ])('is gone on with %s, every edit in it', async (_what, press) => {
    const made = await addSome();
    expect(statSync(`${path}-wal`).size).toBeGreaterThan(0);
    renameSync(path, `${path}.elsewhere`);
    aMoment();
    expect(await troubleOf(() => addSet('Too late'))).toBe('swapped');
    renameSync(`${path}.elsewhere`, path);
    press();
    expect(names()).toEqual(made);
    await addSet('Afterwards');
    closeData();
    expect(names()).toEqual([...made, 'Afterwards']);
    const aside = readdirSync(folder).filter((name) => name.startsWith(`${basename(path)}.lost-`));
    expect(aside).toEqual([]);
  });
  test('written to meanwhile it is not mixed with what is in hand: that is kept in a file of its own', async () => {
    const made = await addSome();
    renameSync(path, `${path}.elsewhere`);
    aMoment();
    expect(await troubleOf(() => addSet('Too late'))).toBe('swapped');
    // From another process: in one, a file has its locks once.
    const write = `new (require('better-sqlite3'))(${JSON.stringify(`${path}.elsewhere`)}).exec('create table theirs (a)').pragma('wal_checkpoint(TRUNCATE)')`;
    execFileSync(process.execPath, ['-e', write]);
    // By the moved clock of this test it was written after it was missed.
    utimesSync(`${path}.elsewhere`, (machine() + later) / 1000 + 1, (machine() + later) / 1000 + 1);
    renameSync(`${path}.elsewhere`, path);
    expect(await troubleOf(() => setsView())).toBe('swapped');
    const kept = goOnWithFile(NOW)!;
    const rescued = openDataFile(kept);
    const there = rescued.db.$client.prepare('select data from sets').all() as { data: string }[];
    expect(there.map(({ data }) => (JSON.parse(data) as { name: string }).name)).toEqual(made);
    rescued.close();
    expect(withData((db) => db.$client.pragma('integrity_check', { simple: true }))).toBe('ok');
  });
});

describe('a file that cannot be written', () => {
  test('and can again: the next edit is taken, without a new start', async () => {
    await addSet('Before');
    withData((db) => db.$client.pragma('query_only = ON'));
    expect(await troubleOf(() => addSet('Refused'))).toBe('read-only');
    await addSet('After');
    expect(names()).toEqual(['Before', 'After']);
  });
  test('as it is empty is said so, and is not made new silently', async () => {
    closeData();
    for (const end of ['', '-wal', '-shm']) rmSync(`${path}${end}`, { force: true });
    writeFileSync(path, '');
    expect(await troubleOf(() => setsView())).toBe('empty');
    expect(statSync(path).size).toBe(0);
    rmSync(path);
    expect(names()).toEqual([]);
  });
});

describe('a file that another program writes to', () => {
  test('an edit waits for it, reads go on, and the thread is free meanwhile', async () => {
    await addSet('Before');
    const other = new Sqlite(path);
    other.exec('begin immediate');
    let ticks = 0;
    const clock = setInterval(() => ticks++, 10);
    const waiting = addSet('Waited');
    while (ticks <= 4) await new Promise(setImmediate);
    expect(names()).toEqual(['Before']);
    // A thread that is held up ticks not at all: then this would never be reached.
    other.exec('commit');
    await waiting;
    clearInterval(clock);
    expect(names()).toEqual(['Before', 'Waited']);
    other.close();
  });
});

describe('an edit with a key', () => {
  test('sent twice is made once, and answered alike', async () => {
    const key = 'a-key-of-its-own-1';
    const first = await addSet('Once', key);
    const second = await addSet('Once', key);
    expect(second.id).toBe(first.id);
    expect(second.changes).toEqual(first.changes);
    expect(names()).toEqual(['Once']);
    await addSet('Once', 'a-key-of-its-own-2');
    expect(names()).toEqual(['Once', 'Once']);
  });
  test('with which another edit comes is refused, and that is not made', async () => {
    const key = 'a-key-of-its-own-3';
    await addSet('First', key);
    await expect(addSet('Second', key)).rejects.toThrow('used for another edit');
    expect(names()).toEqual(['First']);
  });
  test('that was refused is not remembered: mended, it is made', async () => {
    const key = 'a-key-of-its-own-3';
    const broken = { ...set, name: 'Mended', productId: 'no-such', benchWindows: null, job: null };
    await expect(run({ do: 'add', kind: 'set', data: broken, label: 'x' }, 'sets', key)).rejects.toThrow();
    await addSet('Mended', key);
    expect(names()).toEqual(['Mended']);
  });
  test('is forgotten after a day', async () => {
    await addSet('Yesterday', 'an-old-key-of-mine');
    withData((db) => db.$client.prepare('update answered set at = at - ?').run(25 * 3_600_000));
    await addSet('Today', 'a-new-key-of-mine-');
    expect(withData((db) => db.$client.prepare('select key from answered').all())).toEqual([
      { key: 'a-new-key-of-mine-' },
    ]);
  });
});

describe('what is refused is not written', () => {
  test('a screen that is gone: neither an edit nor an undo from it', async () => {
    const { id } = await addSet('Gone soon');
    const recipe = withData((db) => getDocument(db, 'recipe', 'clear'))!;
    await run(
      { do: 'put', kind: 'recipe', id: 'clear', version: recipe.version, data: { ...recipe.data, name: 'Crystal' } },
      'shelf',
    );
    const version = withData((db) => getDocument(db, 'set', id!))!.version;
    await run({ do: 'remove', kind: 'set', id, version });
    const desk: Scope = `set:${id}`;
    await expect(addSet('From nowhere').then(() => run({ do: 'undo', scope: desk }, desk))).rejects.toThrow(
      'no longer there',
    );
    await expect(run({ do: 'plan', setId: id }, 'sets')).rejects.toThrow('no longer there');
    await expect(run({ do: 'undo', scope: desk }, 'sets')).rejects.toThrow('no longer there');
    // The rename on the shelf, which that undo used to reach, stands.
    expect(withData((db) => getDocument(db, 'recipe', 'clear'))!.data.name).toBe('Crystal');
  });
});

test('closed in order, the file alone is the whole of it; copied while it is open by hand it may not be', async () => {
  await addSet('In the log');
  expect(existsSync(`${path}-wal`)).toBe(true);
  dataFile();
  closeData();
  expect(readdirSync(folder).filter((name) => name.startsWith(`${count - 1}.db`))).toEqual([`${count - 1}.db`]);
  copyFileSync(path, `${path}.copy`);
  const copy = openDataFile(`${path}.copy`);
  expect(copy.db.$client.prepare('select count(*) n from sets').get()).toEqual({ n: 1 });
  copy.close();
  chmodSync(path, 0o644);
});
