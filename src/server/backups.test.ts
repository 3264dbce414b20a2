import { copyFileSync, existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import Sqlite from 'better-sqlite3';
import { unzipSync, zipSync } from 'fflate';
import { commandSchema } from '@/core/records/command';
import { KEPT_DAYS, keepDailyBackup, listBackups } from '@/db/backups';
import { BackupError } from '@/db/backupError';
import { backupsFolder } from '@/db/backupsFolder';
import { openDataFile } from '@/db/dataFile';
import { setFileOf } from '@/db/setFile';
import { temporaryFolder } from '@/db/testDataFile';
import { makeSetArchive } from './archive';
import { runBackups, setArchive, takeIn, wholeArchive } from './backups';
import { closeData, dataFile, withData } from './data';
import { closePool } from './threads/pool';
import { runCommand } from './runCommand';
import { deskView, shelfView } from './views';

const folder = temporaryFolder();
const path = join(folder, 'copies.db');
process.env['AGUADA_DATA'] = path;
const run = (command: unknown) => runCommand(commandSchema.parse(command), 'sets');
const upload = (bytes: Uint8Array) =>
  takeIn(new Request('http://127.0.0.1:3000/api/backups/file', { method: 'POST', body: new Uint8Array(bytes) }));
const nameOf = (id = 'heron-slack'): string | undefined => deskView(id)?.set.data.name;
async function rename(name: string): Promise<void> {
  const { id, version, data } = deskView('heron-slack')!.set;
  await run({ do: 'put', kind: 'set', id, version, data: { ...data, name } });
}

beforeAll(async () => {
  shelfView();
  await run({ do: 'sample' });
}, 60_000);
afterAll(async () => {
  closeData();
  await closePool();
});

describe('a copy', () => {
  test('made while edits stand in the log is whole; put back, it is as it was, and what was there is kept', async () => {
    for (let i = 0; i < 42; i++) await rename(`Heron ${i}`);
    expect(statSync(`${path}-wal`).size).toBeGreaterThan(0);
    const saved = await runBackups({ do: 'save' });
    expect(saved.done).toContain('Saved as');
    const copy = saved.copies.find(({ name }) => name.startsWith('saved-'))!;
    await rename('Changed afterwards');
    const back = await runBackups({ do: 'put back', name: copy.name });
    expect(back.done).toMatch(/^Put back\. What was there is kept as before-putting-back-/);
    // Without a new start, and with its undo.
    expect(nameOf()).toBe('Heron 41');
    await run({ do: 'undo', scope: 'set:heron-slack' });
    expect(nameOf()).toBe('Heron 40');
    const kept = back.copies.find(({ name }) => name.startsWith('before-'))!;
    const again = await runBackups({ do: 'put back', name: kept.name });
    expect(nameOf()).toBe('Changed afterwards');
    // Two in a minute are two: neither took the place of the other.
    expect(again.copies.filter(({ name }) => name.startsWith('before-'))).toHaveLength(2);
    expect(withData((db) => db.$client.pragma('integrity_check', { simple: true }))).toBe('ok');
  });
  test.each(['../copies.db', 'nowhere.db', '/etc/passwd', 'saved-1.db/..'])('named %s is none', async (name) =>
    expect(runBackups({ do: 'put back', name })).rejects.toThrow('no copy of this name'),
  );
});

describe('what is no copy is not put back, and nothing is touched', () => {
  const whole = (): Buffer => {
    closeData();
    return readFileSync(path);
  };
  const changed = (work: (sqlite: Sqlite.Database) => void): Buffer => {
    const at = join(folder, `changed-${Math.round(performance.now() * 1000)}.db`);
    writeFileSync(at, whole());
    const sqlite = new Sqlite(at);
    work(sqlite);
    sqlite.close();
    return readFileSync(at);
  };
  const torn = (): Buffer => {
    const bytes = Buffer.from(whole());
    bytes.fill(0xa5, 8192, bytes.length - 4096);
    return bytes;
  };
  test.each([
    ['a shopping list', () => Buffer.from('eggs, flour, milk'), /neither an archive nor a data file/],
    ['an empty file', () => Buffer.alloc(0), /empty/],
    ['one with torn pages', torn, /damaged|malformed/],
    ['one that was cut short', () => whole().subarray(0, 20_000), /damaged|malformed/],
    [
      'another database',
      () => {
        const at = join(folder, 'recipes.db');
        const sqlite = new Sqlite(at);
        sqlite.exec('create table if not exists cakes (name text)');
        sqlite.close();
        return readFileSync(at);
      },
      /none of Aguada/,
    ],
    [
      'one whose keys lead nowhere',
      () => changed((sqlite) => void (sqlite.pragma('foreign_keys = OFF'), sqlite.exec('delete from sets'))),
      /not whole/,
    ],
    [
      'one with a document that cannot be read',
      () => changed((sqlite) => sqlite.exec(`update designs set data = '{"tag":"X"}' where id = 'hs-1'`)),
      /cannot be read/,
    ],
    [
      'one of a newer program',
      () => changed((sqlite) => sqlite.exec('update __drizzle_migrations set created_at = 99999999999999')),
      /newer/,
    ],
  ])('%s', async (_what, make, words) => {
    const before = whole();
    const files = readdirSync(folder)
      .filter((name) => name.startsWith('copies.db'))
      .sort();
    await expect(upload(make())).rejects.toThrow(words);
    closeData();
    expect(readFileSync(path).equals(before)).toBe(true);
    expect(
      readdirSync(folder)
        .filter((name) => name.startsWith('copies.db'))
        .sort(),
    ).toEqual(files);
  });
});

describe('of a data file only what Aguada knows is taken over', () => {
  test('not its triggers, views, indexes and tables; all rows are, and numbers go on where they were', async () => {
    closeData();
    const at = join(folder, 'foreign.db');
    copyFileSync(path, at);
    const foreign = new Sqlite(at);
    foreign.exec(`
      create table theirs (a);
      create view their_view as select 1;
      create index their_index on sets (updated_at);
      create trigger their_trigger after insert on edits begin update sets set data = '{}'; end;
      alter table sets add column theirs text default 'x';
      update sqlite_sequence set seq = seq + 1000 where name = 'edits';
    `);
    const tables = (sqlite: Sqlite.Database): string[] =>
      (
        sqlite
          .prepare("select name from sqlite_master where type = 'table' and name not like 'sqlite_%' order by name")
          .all() as { name: string }[]
      ).map(({ name }) => name);
    const counts = (sqlite: Sqlite.Database, names: readonly string[]): Record<string, unknown> =>
      Object.fromEntries(names.map((name) => [name, sqlite.prepare(`select count(*) from "${name}"`).pluck().get()]));
    const objects = (sqlite: Sqlite.Database): unknown[] =>
      sqlite.prepare('select type, name, sql from sqlite_master order by type, name').all();
    const own = withData((db) => [objects(db.$client), counts(db.$client, tables(db.$client))] as const);
    foreign.close();
    await upload(readFileSync(at));
    const taken = withData((db) => [objects(db.$client), counts(db.$client, tables(db.$client))] as const);
    expect(taken).toEqual(own);
    const next = withData((db) =>
      db.$client.prepare("select seq from sqlite_sequence where name = 'edits'").pluck().get(),
    );
    const last = withData((db) => db.$client.prepare('select max(id) from edits').pluck().get());
    expect(next as number).toBeGreaterThanOrEqual((last as number) + 1000);
    // And the ledger's own triggers stand guard again.
    expect(() => withData((db) => db.$client.exec('delete from movements'))).toThrow();
    await rename('Still taken');
    expect(nameOf()).toBe('Still taken');
  });
  test('it is the devices of this workshop that may come in, not those of the copy', async () => {
    const device = (id: string, shutOut: boolean) =>
      withData((db) =>
        db.$client
          .prepare('insert or replace into devices values (?, ?, ?, ?, ?, ?, ?)')
          .run(id, id, 'everything', `hash of ${id}`, '2026-11-26T10:00', '2026-11-26T10:00', shutOut ? 1 : 0),
      );
    const known = (): unknown[] =>
      withData((db) => db.$client.prepare('select id, shut_out from devices order by id').all());
    device('tablet', false);
    device('phone', false);
    const copy = (await runBackups({ do: 'save' })).copies[0]!;
    device('tablet', true);
    device('new one', false);
    const now = known();
    await runBackups({ do: 'put back', name: copy.name });
    expect(known()).toEqual(now);
    expect(now).toContainEqual({ id: 'tablet', shut_out: 1 });
  });
});

describe('an archive of everything', () => {
  test('holds open files with their checksums, and puts everything back', async () => {
    const bytes = await buffer((await wholeArchive()).stream);
    const files = unzipSync(bytes);
    expect(Object.keys(files).sort()).toEqual([
      'aguada.db',
      'manifest.json',
      'sets/heron-slack.json',
      'shelf.json',
      'stock.json',
    ]);
    const { lots } = JSON.parse(Buffer.from(files['stock.json']!).toString()) as {
      lots: { left: { part: string; amount: number }[]; movements: { part: string; amount: number }[] }[];
    };
    expect(lots.length).toBeGreaterThan(3);
    // What is left of each part is the sum of what moved.
    for (const { left, movements } of lots)
      for (const { part, amount } of left)
        expect(movements.reduce((sum, one) => sum + (one.part === part ? one.amount : 0), 0)).toBeCloseTo(amount, 6);
    const set = JSON.parse(Buffer.from(files['sets/heron-slack.json']!).toString()) as { designs: unknown[] };
    expect(set.designs).toHaveLength(11);
    const before = nameOf();
    await rename('To be lost');
    await upload(bytes);
    expect(nameOf()).toBe(before);
  });
  test('that was tampered with or is not whole is told', async () => {
    const bytes = await buffer((await wholeArchive()).stream);
    const files = unzipSync(bytes);
    await expect(
      upload(zipSync({ ...files, 'aguada.db': files['aguada.db']!.map((byte, i) => (i === 5000 ? byte ^ 1 : byte)) })),
    ).rejects.toThrow('aguada.db is not as it was written');
    const { 'shelf.json': _, ...without } = files;
    await expect(upload(zipSync(without))).rejects.toThrow('shelf.json is missing');
    await expect(upload(zipSync({ 'readme.txt': Buffer.from('hello') }))).rejects.toThrow('no manifest');
    await expect(upload(bytes.subarray(0, bytes.length - 900))).rejects.toThrow('cut short');
    await expect(upload(zipSync({ ...files, 'more.json': Buffer.from('{}') }))).rejects.toThrow('has no more.json');
  });
  test.each([
    ['names no file', []],
    ['names only what every object has', [{ name: 'constructor', bytes: 1, sha256: 'a'.repeat(64) }]],
    ['names what objects are made from', [{ name: '__proto__', bytes: 1, sha256: 'a'.repeat(64) }]],
  ])('whose manifest %s is refused in words', async (_what, files) => {
    const manifest = { format: 'aguada.archive', version: 1, holds: 'everything', madeAt: '2026', files };
    await expect(upload(zipSync({ 'manifest.json': Buffer.from(JSON.stringify(manifest)) }))).rejects.toBeInstanceOf(
      BackupError,
    );
  });
  test('that grows beyond all measure is not unpacked, whatever it claims', async () => {
    const zeros = zipSync({ 'aguada.db': new Uint8Array(80_000_000) }, { level: 9 });
    expect(zeros.length).toBeLessThan(200_000);
    await expect(upload(zeros)).rejects.toThrow('beyond all measure');
    // It claims a hundred bytes, in both of its headers.
    const lying = Buffer.from(zeros);
    lying.writeUInt32LE(100, 22);
    lying.writeUInt32LE(100, lying.indexOf('PK\u0001\u0002', 0, 'latin1') + 24);
    const before = process.memoryUsage().rss;
    await expect(upload(lying)).rejects.toThrow('says of itself what is not so');
    expect(process.memoryUsage().rss - before).toBeLessThan(60_000_000);
  });
});

describe('one set, handed on', () => {
  test('comes in beside itself with new ids, everything in it the same', async () => {
    const { name, stream } = setArchive('heron-slack');
    const bytes = await buffer(stream);
    expect(name).toMatch(/\.zip$/);
    const { setId, done } = await upload(bytes);
    expect(done).toContain('Took in');
    expect(setId).not.toBe('heron-slack');
    const [mine, theirs] = withData((db) => [setFileOf(db, 'heron-slack'), setFileOf(db, setId!)]);
    const shapeOf = ({ designs, pieces, batches, shelf }: typeof mine) => ({
      designs: designs.map(({ data }) => data),
      pieces: pieces.length,
      batches: batches.map(({ data, bench }) => [
        data.name,
        bench?.entries.length ?? 0,
        bench?.kept?.amounts.totals.mixGrams ?? 0,
      ]),
      shelf,
    });
    // What lies on the shelf is used as it is, not put there twice.
    expect(shapeOf(theirs)).toEqual(shapeOf(mine));
    const ids = (file: typeof mine): string[] => [...file.designs, ...file.pieces, ...file.batches].map(({ id }) => id);
    expect(ids(mine).filter((id) => ids(theirs).includes(id))).toEqual([]);
    const designIds = new Set(theirs.designs.map(({ id }) => id));
    for (const { data, bench } of theirs.batches) {
      for (const { designId } of data.items) expect(designIds.has(designId)).toBe(true);
      for (const { designId } of bench?.kept?.amounts.pieces ?? []) expect(designIds.has(designId)).toBe(true);
    }
    // One undo takes it out again, poured batches and all.
    await run({ do: 'undo', scope: 'sets' });
    expect(deskView(setId!)).toBeNull();
  });
  test.each(['../../x', 'a/b', 'é💩', 'with space', '%2e%2e', '..'])(
    'with the id %s it gets one that can be opened',
    async (odd) => {
      const file = withData((db) => setFileOf(db, 'heron-slack'));
      const renamed = {
        ...file,
        set: { ...file.set, id: odd },
        designs: file.designs.map((design, i) => (i === 0 ? { ...design, id: `${odd}1` } : design)),
        pieces: [],
        batches: [],
      };
      const { setId } = await upload(await buffer(makeSetArchive(renamed, '2026-11-26T10:00')));
      expect(setId).toMatch(/^[A-Za-z0-9_-]+$/);
      const view = deskView(setId!)!;
      expect(view.designs).toHaveLength(file.designs.length);
      for (const { id } of view.designs) expect(id).toMatch(/^[A-Za-z0-9_-]+$/);
      await run({ do: 'undo', scope: 'sets' });
    },
  );
  test('with two designs of one id it is refused in words', async () => {
    const file = withData((db) => setFileOf(db, 'heron-slack'));
    const twins = { ...file, designs: [...file.designs, file.designs[0]!] };
    await expect(upload(await buffer(makeSetArchive(twins, '2026-11-26T10:00')))).rejects.toThrow('are both called');
  });
  test('into another workshop keeps its ids, and brings what it uses of the shelf', async () => {
    const bytes = await buffer(setArchive('heron-slack').stream);
    const mine = withData((db) => setFileOf(db, 'heron-slack'));
    closeData();
    process.env['AGUADA_DATA'] = join(folder, 'elsewhere.db');
    shelfView();
    const recipeId = mine.set.data.recipeId;
    expect((await upload(bytes)).setId).toBe('heron-slack');
    expect(withData((db) => setFileOf(db, 'heron-slack'))).toEqual(mine);
    expect(shelfView().recipes.map(({ id }) => id)).toContain(recipeId);
    closeData();
    process.env['AGUADA_DATA'] = path;
  });
});

test('a copy is kept of each day of use, so many of them', async () => {
  const at = join(folder, 'daily.db');
  const { db, close } = openDataFile(at);
  for (let day = 1; day <= KEPT_DAYS + 3; day++) {
    const date = `2026-11-${String(day).padStart(2, '0')}`;
    expect(await keepDailyBackup(db, at, date)).toBe(true);
    expect(await keepDailyBackup(db, at, date)).toBe(false);
  }
  const names = listBackups(at)
    .map(({ name }) => name)
    .sort();
  expect(names).toHaveLength(KEPT_DAYS);
  expect(names[0]).toBe('day-2026-11-04.db');
  expect(existsSync(join(backupsFolder(at), 'day-2026-11-01.db'))).toBe(false);
  close();
  const copy = join(folder, 'by-hand.db');
  copyFileSync(join(backupsFolder(at), names[0]!), copy);
  const opened = openDataFile(copy);
  expect(opened.isNew).toBe(false);
  opened.close();
  dataFile();
});

test('two files that come in at once do not get into each other', async () => {
  const bytes = await buffer(setArchive('heron-slack').stream);
  const taken = await Promise.all([upload(bytes), upload(bytes), upload(bytes)]);
  expect(new Set(taken.map(({ setId }) => setId)).size).toBe(3);
});
