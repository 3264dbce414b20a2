import { join } from 'node:path';
import { TEST_DEFAULTS, testDesign, testPiece } from '@/core/bed/testShapes';
import { PRODUCT_KINDS } from '@/core/mixing/productKinds';
import { LEVEL_BENCH, planAmounts, type Amounts, type PlanRequest } from '@/core/plan';
import { pourId, type PourRecord } from '@/core/records/recordSchemas';
import { dryPours } from '@/core/records/rest';
import type { CopyInBatch } from '@/core/records/copies';
import { batchesWith, countBatches, getBatch, lastCopyTaken, listBatches, setOfBatch } from './batches';
import { keepPlan, keptPlan } from './keptPlans';
import { batchDetail, currentPours } from './pours';
import { copiesInBatches } from './copies';
import { openDataFile } from './dataFile';
import { stockShelf } from './defaults';
import { guestsOf, possibleGuests } from './guests';
import { edit, undo } from './journal';
import { setFileOf } from './setFile';
import { temporaryFolder } from './testDataFile';
import type { Database } from './storage';

const NOW = '2026-11-24T20:00';
const folder = temporaryFolder();
let count = 0;
let db: Database;
const INK: PlanRequest['recipe']['doses'][number]['colourant'] = {
  id: 'ink',
  name: 'Ink',
  kind: 'ink',
  absorption: { red: 1, green: 0.3, blue: 0.7 },
  dropGrams: 0.035,
  bottleGrams: 30,
  bottlePrice: 6,
};
const request: PlanRequest = {
  format: 'aguada.plan-request',
  version: 1,
  set: { name: 'S', figureScaleMm: 28, levelMm: 15 },
  pieces: [testPiece([{ kind: 'basin', id: 'b', rimMm: 3, depthMm: 8 }], { copies: 3, designId: 'd' })],
  product: PRODUCT_KINDS[1]!,
  build: { coats: [{ product: PRODUCT_KINDS[0]!, thicknessMm: 1, tint: 'clear', plantsBefore: true }] },
  recipe: {
    id: 'recipe',
    name: 'Two tints',
    doses: [{ colourant: INK, gramsPer100: 0.1 }],
    pours: [
      { thicknessMm: 2, strength: 0.5 },
      { thicknessMm: null, strength: 1, own: { ink: 0.3 } },
    ],
  },
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
      begun: 2,
      dry: 0,
      of: amounts.layers.length,
      lastAt: '2026-11-22T10:00',
      // Two cups each: (30 + 15) and (40 + 20).
      mixGrams: 2 * 45 + 2 * 60,
    });
  });
  test('know which copies are taken, and who takes a design', () => {
    addBatch('b', 2);
    addBatch('c', 3);
    expect(lastCopyTaken(db, 'd')).toBe(3);
    const data = { ...getBatch(db, 'b')!.data, own: { roomC: 17, hands: 2 as const } };
    edit(db, 'set:s', 'Its own room', NOW, (writer) => writer.put('batch', 'b', data, null));
    expect(getBatch(db, 'b')!.data).toEqual(data);
    undo(db, 'set:s', NOW);
    // Numbered on: what was taken ends with the highest number.
    edit(db, 'set:s', 'Plan later ones', NOW, (writer) =>
      writer.add(
        'batch',
        'later',
        { name: 'L', items: [{ designId: 'd', copies: 2, first: 8 }], pourAt: NOW, benchWindows: null },
        's',
      ),
    );
    expect(getBatch(db, 'later')!.data.items).toEqual([{ designId: 'd', copies: 2, first: 8 }]);
    expect(lastCopyTaken(db, 'd')).toBe(9);
    undo(db, 'set:s', NOW);
    expect([...batchesWith(db, 'd')].sort()).toEqual(['b', 'c']);
    expect(setOfBatch(db, 'c')).toBe('s');
  });
});

describe('copies in batches', () => {
  const known = { clockChanges: [], measuredDays: [] };
  const copies = (now = NOW): CopyInBatch[] =>
    copiesInBatches(db, 's', { now, settings: { room: { temperatureC: 20, humidity: 0.5 } }, known });
  const short = (now?: string): string[] =>
    copies(now).map(
      ({ batchId, copy, layers, partly, of }) => `${batchId} ${copy}: ${layers}${partly ? '+' : ''}/${of}`,
    );
  const plannedPours = amounts.layers[0]!.cups.flatMap(({ pours }) => pours);
  /** A layer as a run logs it: one cup, and the pieces that it reached. */
  const fromBench = (layer: number, pieces: readonly { copy: number }[]): PourRecord => ({
    ...pour(layer, 30),
    cups: [
      {
        number: 1,
        partAGrams: 60,
        partBGrams: 30,
        note: '',
        pouredGrams: 80,
        discarded: false,
        doses: [],
        pieces: pieces.map(({ copy }) => ({ ...plannedPours[0]!, copy })),
      },
    ],
  });

  test('have what was poured of them, in the batch that holds them; older batches come first', () => {
    addBatch('b', 3);
    edit(db, 'set:s', 'Plan', NOW, (writer) =>
      writer.add(
        'batch',
        'earlier',
        {
          name: 'E',
          items: [{ designId: 'd', copies: 2, first: 5, numbers: [5, 8] }],
          pourAt: '2026-11-01T10:00',
          benchWindows: null,
        },
        's',
      ),
    );
    expect(short()).toEqual(['earlier 5: 0/0', 'earlier 8: 0/0', 'b 1: 0/0', 'b 2: 0/0', 'b 3: 0/0']);
    const of = amounts.layers.length;
    addPour('b', pour(1, 30));
    expect(short().slice(2)).toEqual([1, 2, 3].map((copy) => `b ${copy}: 1/${of}`));
    addPour('b', fromBench(2, [{ copy: 3 }]));
    expect(short().slice(2)).toEqual([`b 1: 1/${of}`, `b 2: 1/${of}`, `b 3: 2/${of}`]);
    const [first] = copies().slice(2);
    expect([first!.firmAt! > first!.lastAt!, first!.curedAt! > first!.firmAt!]).toEqual([true, true]);
    expect(lastCopyTaken(db, 'd')).toBe(8);
  });

  test('that are planned in two cups have a layer in part when one of them was poured, as the rule of dry pours counts', () => {
    addBatch('b', 3);
    addPour('b', fromBench(1, [{ copy: 1 }]));
    const { designId, tag } = plannedPours[0]!;
    db.$client
      .prepare(
        `insert into cup_pours (batch_id, layer, cup, position, design_id, copy, tag, grams) values ('b', 1, 1, 90, ?, 1, ?, 4)`,
      )
      .run(designId, tag);
    const of = amounts.layers.length;
    expect(short()).toEqual([`b 1: 0+/${of}`, `b 2: 0/${of}`, `b 3: 0/${of}`]);
    const dry = (): number => dryPours(keptPlan(db, 'b')!.amounts.layers[0]!, currentPours(db, 'b')[0]!).length;
    expect([getBatch(db, 'b')!.poured!.dry, dry()]).toEqual([3, 3]);
    // Three small mixes into one piece fill no other.
    addPour('b', fromBench(1, [{ copy: 1 }, { copy: 1 }, { copy: 1 }, { copy: 2 }]));
    expect(short()).toEqual([`b 1: 1/${of}`, `b 2: 1/${of}`, `b 3: 0/${of}`]);
    expect([getBatch(db, 'b')!.poured!.dry, dry()]).toEqual([1, 1]);
  });

  test('were looked over when the step of their batch says so, whatever the route of the set calls it', () => {
    const done = { from: '2026-11-23T10:00', to: '2026-11-23T11:00' };
    addBatch('b');
    const put = (marks: { step: string; done: typeof done }[]): unknown =>
      edit(db, 'set:s', 'Mark', NOW, (writer) =>
        writer.put('batch', 'b', { ...getBatch(db, 'b')!.data, course: { marks } }, null),
      );
    put([{ step: 'demould', done }]);
    expect(copies()[0]!.inspectedAt).toBeNull();
    put([{ step: 'inspect', done }]);
    expect(copies()[0]!.inspectedAt).toBe(done.to);
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
    expect(
      run(`insert into batch_items (batch_id, design_id, position, copies) values ('b', 'nowhere', 1, 2)`),
    ).toThrow(/FOREIGN KEY/);
    expect(run(`update batch_items set copies = 0`)).toThrow(/CHECK/);
    expect(
      run(
        `insert into layers (batch_id, number, from_mm, to_mm, thickness_mm, wet_mm, volume_ml, poured_grams, mix_grams, fewest_cups) values ('b', 1, 0, 5, 5, 5, 10, 11, 12, 1)`,
      ),
    ).toThrow(/FOREIGN KEY/);
  });
});

describe('pieces of another set', () => {
  const other = (levelMm: number): void => {
    edit(db, 'sets', 'Make another', NOW, (writer) => {
      const set = { figureScaleMm: 28, levelMm, benchWindows: null, job: null } as const;
      writer.add('set', 'o', { ...set, name: 'Other', productId: 'coating-epoxy', recipeId: 'clear' });
      writer.add('design', 'g', testDesign([], { tag: 'G', copies: 4 }), 'o');
    });
    const measured = { atLevelMm: levelMm, readings: [], fillMl: 30 };
    edit(db, 'set:o', 'Measure', NOW, (writer) => writer.add('piece', 'm', { designId: 'g', copy: 2, measured }, 'o'));
  };
  test('may be taken where their water stands at the same level; they come with their measured copies', () => {
    other(15);
    expect(possibleGuests(db, 's').map(({ set, design, taken }) => [set.name, design.data.tag, taken])).toEqual([
      ['Other', 'G', 0],
    ]);
    expect(guestsOf(db, 's')).toEqual([]);
    edit(db, 'set:s', 'Plan both', NOW, (writer) =>
      writer.add(
        'batch',
        'both',
        {
          name: 'Both',
          pourAt: NOW,
          benchWindows: null,
          items: [
            { designId: 'd', copies: 2 },
            { designId: 'g', copies: 3 },
          ],
        },
        's',
      ),
    );
    const [guest] = guestsOf(db, 's');
    expect([guest!.design.id, guest!.taken, guest!.pieces.map(({ id }) => id)]).toEqual(['g', 3, ['m']]);
    // They are taken of their own set too, and handed on with neither.
    expect(lastCopyTaken(db, 'g')).toBe(3);
    expect(setFileOf(db, 's').batches[0]!.data.items).toEqual([{ designId: 'd', copies: 2 }]);
  });
  test('are no choice at another level', () => {
    other(12);
    expect(possibleGuests(db, 's')).toEqual([]);
  });
});
