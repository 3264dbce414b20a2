import { cpSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { starters } from '@/core/bed/starters';
import { DataFileError, explained, openDataFile } from './dataFile';
import { stockShelf } from './defaults';
import { listRecords } from './records';
import { temporaryFolder } from './testDataFile';

const folder = temporaryFolder();
const NOW = '2026-11-24T20:00';
const MIGRATIONS = join(process.cwd(), 'src', 'db', 'migrations');

function troubleOf(run: () => unknown): string {
  try {
    run();
    return 'none';
  } catch (error) {
    return error instanceof DataFileError ? error.trouble : `unexplained: ${String(error)}`;
  }
}

/** A copy of the migrations with one more, from a program of the future. */
function laterMigrations(): string {
  const later = join(folder, 'later-migrations');
  cpSync(MIGRATIONS, later, { recursive: true });
  const journalFile = join(later, 'meta', '_journal.json');
  const journal = JSON.parse(readFileSync(journalFile, 'utf8')) as { entries: object[] };
  journal.entries.push({ idx: 99, version: '6', when: Date.parse('2099-01-01'), tag: '0099_later', breakpoints: true });
  writeFileSync(journalFile, JSON.stringify(journal));
  writeFileSync(join(later, '0099_later.sql'), 'ALTER TABLE sets ADD later text;');
  return later;
}

test('a new file is made with its folder, in WAL mode, foreign keys on', () => {
  const { db, isNew, close } = openDataFile(join(folder, 'deep', 'down', 'new.db'));
  expect(isNew).toBe(true);
  expect(db.$client.pragma('journal_mode', { simple: true })).toBe('wal');
  expect(db.$client.pragma('foreign_keys', { simple: true })).toBe(1);
  close();
});

test('what was written is there when it is opened again', () => {
  const path = join(folder, 'again.db');
  const first = openDataFile(path);
  expect(stockShelf(first.db, NOW)).toBe(true);
  first.close();
  const second = openDataFile(path);
  expect(second.isNew).toBe(false);
  expect(stockShelf(second.db, NOW)).toBe(false);
  expect(listRecords(second.db, 'product')).toHaveLength(9);
  second.close();
});

test('an older file is carried forward and a copy of it kept', () => {
  const path = join(folder, 'older.db');
  const first = openDataFile(path);
  stockShelf(first.db, NOW);
  first.close();
  const migrated = openDataFile(path, { migrations: laterMigrations() });
  expect(listRecords(migrated.db, 'product')).toHaveLength(9);
  expect(migrated.db.$client.prepare('select later from sets').all()).toEqual([]);
  migrated.close();
  expect(readdirSync(folder).some((name) => name.startsWith('older.db.before-'))).toBe(true);
});

test('a file from before measured copies keeps its sets and can take measurements', () => {
  const early = join(folder, 'early-migrations');
  cpSync(MIGRATIONS, early, { recursive: true });
  const journalFile = join(early, 'meta', '_journal.json');
  const journal = JSON.parse(readFileSync(journalFile, 'utf8')) as { entries: object[] };
  writeFileSync(journalFile, JSON.stringify({ ...journal, entries: journal.entries.slice(0, 1) }));
  const path = join(folder, 'early.db');
  const first = openDataFile(path, { migrations: early });
  stockShelf(first.db, NOW);
  // A design as it was written then: without dams and without measurements.
  const design = Object.fromEntries(
    Object.entries(starters(15, [])[0]!.design).filter(([key]) => key !== 'dams' && key !== 'measured'),
  );
  first.db.$client.exec("insert into sets select 's', 1, 0, '{}', '', 'coating-epoxy', 'clear'");
  first.db.$client
    .prepare("insert into designs (id, data, updated_at, set_id) values ('d', ?, '', 's')")
    .run(JSON.stringify(design));
  first.close();
  const now = openDataFile(path);
  expect(listRecords(now.db, 'design', 's')[0]!.data).toMatchObject({
    dams: {},
    measured: null,
    name: 'Creek straight',
  });
  expect(listRecords(now.db, 'piece', 's')).toEqual([]);
  now.close();
});

test('a newer file is refused and left as it was', () => {
  const path = join(folder, 'newer.db');
  openDataFile(path, { migrations: laterMigrations() }).close();
  const before = readFileSync(path);
  expect(troubleOf(() => openDataFile(path))).toBe('newer');
  expect(readFileSync(path).equals(before)).toBe(true);
});

test('a file that is no database is called damaged', () => {
  const path = join(folder, 'noise.db');
  writeFileSync(path, 'this is a shopping list, not a database, and quite a long one at that');
  expect(troubleOf(() => openDataFile(path))).toBe('damaged');
  expect(readFileSync(path, 'utf8')).toContain('shopping list');
});

test('a file with torn pages is called damaged', () => {
  const path = join(folder, 'torn.db');
  const opened = openDataFile(path);
  stockShelf(opened.db, NOW);
  opened.db.$client.pragma('wal_checkpoint(TRUNCATE)');
  opened.close();
  const bytes = readFileSync(path);
  bytes.fill(0xa5, 4096, bytes.length - 100);
  writeFileSync(path, bytes);
  expect(troubleOf(() => openDataFile(path))).toBe('damaged');
});

test('a folder in its place cannot be opened', () => {
  const path = join(folder, 'folder.db');
  mkdirSync(path);
  expect(troubleOf(() => openDataFile(path))).toBe('unreachable');
});

test('a file that another program holds is called locked', () => {
  const path = join(folder, 'held.db');
  const opened = openDataFile(path, { busyMs: 50 });
  const other = new Sqlite(path);
  other.exec('begin exclusive');
  expect(troubleOf(() => explained(path, () => stockShelf(opened.db, NOW)))).toBe('locked');
  other.exec('rollback');
  expect(stockShelf(opened.db, NOW)).toBe(true);
  other.close();
  opened.close();
});

test('a file that cannot be written says so', () => {
  const path = join(folder, 'readonly.db');
  const opened = openDataFile(path);
  opened.db.$client.pragma('query_only = ON');
  expect(troubleOf(() => explained(path, () => stockShelf(opened.db, NOW)))).toBe('read-only');
  opened.close();
});
