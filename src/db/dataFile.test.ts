import { cpSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { starters } from '@/core/bed/starters';
import { PRODUCT_KINDS } from '@/core/mixing/productKinds';
import { LEVEL_BENCH, planAmounts } from '@/core/plan';
import { listBatches } from './batches';
import { batchDetail } from './pours';
import { DataFileError, explained, openDataFile } from './dataFile';
import { stockShelf } from './defaults';
import { getDocument, listDocuments } from './documents';
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
  expect(listDocuments(second.db, 'product').records).toHaveLength(9);
  second.close();
});

test('an older file is carried forward and a copy of it kept', () => {
  const path = join(folder, 'older.db');
  const first = openDataFile(path);
  stockShelf(first.db, NOW);
  first.close();
  const migrated = openDataFile(path, { migrations: laterMigrations() });
  expect(listDocuments(migrated.db, 'product').records).toHaveLength(9);
  expect(migrated.db.$client.prepare('select later from sets').all()).toEqual([]);
  migrated.close();
  expect(readdirSync(`${path}.copies`)).toEqual([expect.stringMatching(/^before-update-\d+\.db$/)]);
});

describe('a file from before batches were rows', () => {
  const evening = { weekday: 3, fromMinute: 1140, toMinute: 1290 };
  const design = starters(15, [])[0]!.design;
  // As they were written then: without dams and without measurements.
  const oldDesign = Object.fromEntries(
    Object.entries(design).filter(([key]) => key !== 'dams' && key !== 'measured' && key !== 'copyNumbers'),
  );
  const { id: productId, ...product } = PRODUCT_KINDS[1]!;
  const set = {
    name: 'Old creek',
    figureScaleMm: 28,
    levelMm: 15,
    productId,
    recipeId: 'clear',
    benchWindows: [evening],
    job: null,
    row: { pins: [{ piece: `${design.tag} #2`, place: 0 }], apart: [] },
  };
  const request = {
    format: 'aguada.plan-request',
    version: 1,
    set: { name: 'Old creek', figureScaleMm: 28, levelMm: 15 },
    pieces: [{ ...design, copies: 2 }],
    product,
    recipe: { name: 'Clear', doses: [] },
    room: { temperatureC: 20, humidity: 0.5 },
    bench: { windows: [], cupGrams: 400, scaleStepGrams: 0.1, pricePerCup: 0, tilt: LEVEL_BENCH },
    pourAt: '2026-11-21T10:00',
    poured: [],
  };
  const pour = {
    layer: 1,
    pouredAt: '2026-11-21T10:20',
    temperatureC: 19,
    note: 'bubbles',
    cups: [{ number: 1, partAGrams: 30, partBGrams: 25, note: '' }],
  };
  const batch = { name: 'First', items: [{ designId: 'd', copies: 2 }], pourAt: '2026-11-21T10:00' };
  const path = join(folder, 'early.db');
  let opened: ReturnType<typeof openDataFile>;
  beforeAll(() => {
    const early = join(folder, 'early-migrations');
    cpSync(MIGRATIONS, early, { recursive: true });
    const journalFile = join(early, 'meta', '_journal.json');
    const journal = JSON.parse(readFileSync(journalFile, 'utf8')) as { entries: object[] };
    writeFileSync(journalFile, JSON.stringify({ ...journal, entries: journal.entries.slice(0, 1) }));
    const sqlite = new Sqlite(path);
    migrate(drizzle(sqlite), { migrationsFolder: early });
    const put = (table: string, columns: object): void => {
      const keys = Object.keys(columns);
      sqlite
        .prepare(`insert into ${table} (updated_at, ${keys.join()}) values ('', ${keys.map(() => '?').join()})`)
        .run(...(Object.values(columns) as string[]));
    };
    put('products', { id: productId, data: JSON.stringify(product) });
    put('recipes', { id: 'clear', data: JSON.stringify({ name: 'Clear', doses: [] }) });
    put('sets', { id: 's', data: JSON.stringify(set), product_id: productId, recipe_id: 'clear' });
    put('designs', { id: 'd', data: JSON.stringify(oldDesign), set_id: 's' });
    put('designs', { id: 'odd', data: JSON.stringify({ tag: 'ODD', copies: 'many' }), set_id: 's', position: 1 });
    const poured = { ...batch, pours: [pour], planned: request };
    put('batches', { id: 'b', data: JSON.stringify(poured), set_id: 's' });
    put('batches', { id: 'c', data: JSON.stringify({ ...batch, name: 'Next', pours: [] }), set_id: 's', position: 1 });
    sqlite.close();
    opened = openDataFile(path);
  });
  afterAll(() => opened.close());
  test('keeps its designs and can take measurements', () => {
    const { records } = listDocuments(opened.db, 'design', 's');
    expect(records.find(({ id }) => id === 'd')!.data).toMatchObject({ dams: {}, measured: null, name: design.name });
    expect(listDocuments(opened.db, 'piece', 's').records).toEqual([]);
  });
  test('a document that cannot be read is named and spoils nothing else', () => {
    const { records, unreadable } = listDocuments(opened.db, 'design', 's');
    expect(records.map(({ id }) => id)).toEqual(['d']);
    expect(unreadable).toMatchObject([{ kind: 'design', id: 'odd' }]);
  });
  test('its batches are rows: the plan of a poured one is kept, its pours are entries', () => {
    const rows = listBatches(opened.db, 's', 10);
    expect(rows.map(({ data, poured }) => [data.name, poured?.layers ?? 0])).toEqual([
      ['Next', 0],
      ['First', 1],
    ]);
    const { kept, pours } = batchDetail(opened.db, 'b');
    expect(kept!.request.pieces).toMatchObject([{ designId: design.tag, copies: 2 }]);
    expect(kept!.amounts.totals.mixGrams).toBeCloseTo(planAmounts(kept!.request).totals.mixGrams, 9);
    expect(pours).toEqual([pour]);
  });
  test('a pinned piece is known by its design, bench windows belong to the workshop', () => {
    const kept = getDocument(opened.db, 'set', 's')!.data;
    expect(kept.row!.pins).toEqual([{ piece: { designId: 'd', copy: 2 }, place: 0 }]);
    expect(kept.benchWindows ?? [evening]).toEqual([evening]);
  });
  test('opened again nothing changes any more', () => {
    const before = JSON.stringify(listDocuments(opened.db, 'set').records);
    opened.close();
    opened = openDataFile(path);
    expect(JSON.stringify(listDocuments(opened.db, 'set').records)).toBe(before);
    expect(batchDetail(opened.db, 'b').pours).toEqual([pour]);
  });
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
