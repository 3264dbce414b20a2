import { join } from 'node:path';
import { TEST_DEFAULTS, testDesign, testPiece } from '@/core/bed/testShapes';
import { PRODUCT_KINDS } from '@/core/mixing/productKinds';
import { LEVEL_BENCH, planAmounts, type Amounts, type PlanRequest } from '@/core/plan';
import { pourId, type PourRecord } from '@/core/records/schema';
import {
  batchDetail,
  batchesWith,
  copiesTaken,
  countBatches,
  currentPours,
  getBatch,
  keepPlan,
  keptPlan,
  listBatches,
  setOfBatch,
} from './batches';
import { openDataFile, type Database } from './dataFile';
import { stockShelf } from './defaults';
import { edit, undo } from './journal';
import { temporaryFolder } from './testDataFile';

const NOW = '2026-11-24T20:00';
const folder = temporaryFolder();
let count = 0;
let db: Database;
const request: PlanRequest = {
  format: 'aguada.plan-request',
  version: 1,
  set: { name: 'S', figureScaleMm: 28, levelMm: 15 },
  pieces: [testPiece([{ kind: 'basin', id: 'b', rimMm: 3, depthMm: 8 }], { copies: 3 })],
  product: PRODUCT_KINDS[1]!,
  recipe: { id: 'recipe', name: 'Clear', doses: [] },
  room: { temperatureC: 20, humidity: 0.5 },
  bench: { windows: [], exceptions: [], cupGrams: 120, scaleStepGrams: 0.1, pricePerCup: 0, tilt: LEVEL_BENCH },
  pourAt: '2026-11-28T10:00',
  poured: [],
  ...TEST_DEFAULTS,
};
const amounts: Amounts = planAmounts(request);
/** To twelve digits: sums of the cups may end in another last one. */
const rough = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value, (_, part) => (typeof part === 'number' ? Number(part.toPrecision(12)) : part)));
const pour = (layer: number, grams: number): PourRecord => ({
  layer,
  pouredAt: `2026-11-2${layer}T10:00`,
  temperatureC: 20,
  note: '',
  cups: [1, 2].map((number) => ({ number, partAGrams: grams, partBGrams: grams / 2, note: '' })),
});
const addBatch = (id: string, copies = 2): unknown =>
  edit(db, 'set:s', `Plan ${id}`, NOW, (writer) =>
    writer.add('batch', id, { name: id, items: [{ designId: 'd', copies }], pourAt: NOW, benchWindows: null }, 's'),
  );
const addPour = (batchId: string, record: PourRecord): unknown =>
  edit(db, 'set:s', 'Pour', NOW, (writer) => {
    if (!keptPlan(writer.db, batchId)) keepPlan(writer.db, batchId, { request, amounts }, NOW);
    writer.add('pour', pourId(batchId, record.layer), { ...record, batchId }, 's');
  });

beforeEach(() => {
  db = openDataFile(join(folder, `${count++}.db`)).db;
  stockShelf(db, NOW);
  edit(db, 'sets', 'Make a set', NOW, (writer) => {
    const set = { figureScaleMm: 28, levelMm: 15, benchWindows: null, job: null } as const;
    writer.add('set', 's', { ...set, name: 'S', productId: 'coating-epoxy', recipeId: 'clear' });
    writer.add('design', 'd', testDesign([], { copies: 9 }), 's');
  });
});

describe('batches in short', () => {
  test('come newest first, so many at a time', () => {
    for (let i = 0; i < 7; i++) addBatch(`b${i}`);
    expect(countBatches(db, 's')).toBe(7);
    expect(listBatches(db, 's', 3).map(({ id }) => id)).toEqual(['b6', 'b5', 'b4']);
    expect(listBatches(db, 's', 3, 3).map(({ id }) => id)).toEqual(['b3', 'b2', 'b1']);
    expect(listBatches(db, 'elsewhere', 3)).toEqual([]);
  });
  test('say what is wished of them, and how far they are poured', () => {
    addBatch('b');
    expect(getBatch(db, 'b')).toMatchObject({ data: { items: [{ designId: 'd', copies: 2 }] }, poured: null });
    addPour('b', pour(1, 30));
    addPour('b', pour(2, 40));
    expect(getBatch(db, 'b')!.poured).toEqual({
      layers: 2,
      of: amounts.layers.length,
      lastAt: '2026-11-22T10:00',
      // Two cups each: (30 + 15) and (40 + 20).
      mixGrams: 2 * 45 + 2 * 60,
    });
  });
  test('know which copies are taken, and who takes a design', () => {
    addBatch('b', 2);
    addBatch('c', 3);
    expect(copiesTaken(db, 's').get('d')).toBe(5);
    expect([...batchesWith(db, 'd')].sort()).toEqual(['b', 'c']);
    expect(setOfBatch(db, 'c')).toBe('s');
  });
});

describe('a plan that is kept', () => {
  test('comes back as it was: layers, cups and pours are rows, and are put together again', () => {
    addBatch('b');
    keepPlan(db, 'b', { request, amounts }, NOW);
    const kept = keptPlan(db, 'b')!;
    expect(rough(kept.amounts)).toEqual(rough(amounts));
    expect(kept.request.pieces).toEqual(request.pieces);
    const rows = (table: string): number => db.$client.prepare(`select count(*) from ${table}`).pluck().get() as number;
    expect(rows('layers')).toBe(amounts.layers.length);
    expect(rows('cups')).toBe(amounts.totals.cups);
    expect(rows('cup_pours')).toBe(amounts.layers.flatMap(({ cups }) => cups.flatMap(({ pours }) => pours)).length);
  });
  test('goes with its batch, and undo brings both back', () => {
    addBatch('b');
    addPour('b', pour(1, 30));
    edit(db, 'set:s', 'Remove', NOW, (writer) => writer.remove('batch', 'b', null));
    expect([getBatch(db, 'b'), keptPlan(db, 'b')]).toEqual([null, null]);
    undo(db, 'set:s', NOW);
    expect(rough(batchDetail(db, 'b').kept!.amounts)).toEqual(rough(amounts));
    expect(currentPours(db, 'b')).toEqual([pour(1, 30)]);
  });
  test('the database itself refuses what cannot be', () => {
    addBatch('b');
    const run = (sql: string) => () => db.$client.exec(sql);
    expect(run(`insert into batch_items values ('b', 'nowhere', 1, 2)`)).toThrow(/FOREIGN KEY/);
    expect(run(`update batch_items set copies = 0`)).toThrow(/CHECK/);
    expect(run(`insert into layers values ('b', 1, 0, 5, 5, 5, 10, 11, 12, 1, null)`)).toThrow(/FOREIGN KEY/);
  });
});
