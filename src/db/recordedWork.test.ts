import { RECORD_SCHEMAS, type PourRecord, type WeighedCup } from '@/core/records/recordSchemas';
import { loadHeronSlack } from './demo/heronSlack';
import { openDataFile } from './dataFile';
import { stockShelf } from './defaults';
import { getBatch } from './batches';
import { getDocument } from './documents';
import { edit } from './journal';
import { appendEntry, currentPours } from './pours';
import { recordedWork } from './recordedWork';
import type { Database } from './storage';

const NOW = '2026-11-26T10:00';
const BATCH = 'hs-batch-1';
function sample(): Database {
  const { db } = openDataFile(':memory:');
  stockShelf(db, NOW);
  loadHeronSlack(db, NOW);
  return db;
}
const read = (cup: WeighedCup, more: Partial<WeighedCup> = {}): WeighedCup => ({
  ...cup,
  pouredGrams: 30,
  discarded: false,
  doses: [{ id: 'ink', grams: 0.5 }],
  pieces: [
    { designId: 'hs-1', copy: 1, tag: 'HS-1', grams: 20 },
    { designId: 'hs-1', copy: 2, tag: 'HS-1', grams: 10 },
  ],
  bench: { read: true, stirMinutes: 4, thickMinutes: 50, pieceMinutes: [1.5, null] },
  ...more,
});
/** The first layer of the sample entered again, its first cup as it is given. */
function entered(db: Database, cup: (cup: WeighedCup) => WeighedCup): PourRecord {
  const [pour] = currentPours(db, BATCH);
  const again = { ...pour!, cups: [cup(pour!.cups[0]!), ...pour!.cups.slice(1)] };
  appendEntry(db, BATCH, again, { struck: false, enteredAt: NOW });
  return again;
}

test('cups that were entered by hand say nothing of what stays in a cup', () => {
  expect(recordedWork(sample()).cups).toEqual([]);
});

test('a cup that the bench read is found with all that was mixed in it, its pieces and their minutes', () => {
  const db = sample();
  const { pouredAt, temperatureC, cups } = entered(db, read);
  const [cup, ...others] = recordedWork(db).cups;
  expect(others).toEqual([]);
  expect(cup).toMatchObject({
    at: pouredAt,
    batchId: BATCH,
    productId: 'coating-epoxy',
    temperatureC,
    pouredGrams: 30,
    pieces: 2,
    thickMinutes: 50,
    pours: [{ grams: 20, minutes: 1.5 }],
  });
  expect(cup!.mixGrams).toBeCloseTo(cups[0]!.partAGrams + cups[0]!.partBGrams! + 0.5, 9);
});

test.each([
  ['was thrown away', { discarded: true }],
  [
    'was taken as planned',
    { bench: { read: false, stirMinutes: null, thickMinutes: null, pieceMinutes: [null, null] } },
  ],
  ['filled nothing', { pieces: [], bench: { read: true, stirMinutes: null, thickMinutes: null, pieceMinutes: [] } }],
])('a cup that %s is left out', (_, more) => {
  const db = sample();
  entered(db, (cup) => read(cup, more));
  expect(recordedWork(db).cups).toEqual([]);
});

test('what was not poured after all is left out', () => {
  const db = sample();
  const pour = entered(db, read);
  appendEntry(db, BATCH, pour, { struck: true, enteredAt: NOW });
  expect(recordedWork(db).cups).toEqual([]);
});

test('levels of pieces that were looked over: the first look, in mm below the wanted level; what moved says nothing', () => {
  const db = sample();
  const row = getBatch(db, BATCH)!;
  const [{ designId } = { designId: '' }] = row.data.items;
  const look = (copy: number, kind: 'low' | 'high' | 'warp' | null, mm?: number, day = '20') => ({
    designId,
    copy,
    at: `2026-11-${day}T20:00`,
    findings: kind ? [{ kind, ...(mm !== undefined && { mm }) }] : [],
    outcome: 'pass' as const,
    note: '',
  });
  const inspections = [
    look(1, 'low', 0.4),
    look(2, 'high', 0.3),
    look(3, 'warp'),
    look(4, null),
    look(1, 'low', 9, '21'),
  ];
  edit(db, 'log', 'look', NOW, (writer) => writer.put('batch', BATCH, { ...row.data, inspections }, null));
  const levels = recordedWork(db).levels.filter(({ batchId }) => batchId === BATCH);
  expect(levels.map(({ lowMm, of }) => [lowMm, of])).toEqual([
    [0.4, 3],
    [-0.3, 3],
    [0, 3],
  ]);
  expect(levels[0]).toMatchObject({ productId: 'coating-epoxy', shrinkage: 0.015 });
  // A creek tile of 140 mm holds a few mm of water on the average.
  expect(levels[0]!.depthMm).toBeGreaterThan(1);
  expect(levels[0]!.depthMm).toBeLessThan(12);
});

test('steps that were marked as done, and packs that were bought', () => {
  const db = sample();
  const row = getBatch(db, 'hs-batch-3') ?? getBatch(db, BATCH)!;
  const done = { from: '2026-11-20T18:00', to: '2026-11-20T18:45' };
  edit(db, 'log', 'mark', NOW, (writer) =>
    writer.put(
      'batch',
      row.id,
      {
        ...row.data,
        course: {
          marks: [
            { step: 'seal', done },
            { step: 'pour 1', done },
          ],
        },
      },
      null,
    ),
  );
  const { steps, packs } = recordedWork(db);
  expect(steps.filter(({ batchId }) => batchId === row.id)).toEqual([
    {
      key: `step ${row.id} seal`,
      at: done.to,
      batchId: row.id,
      kind: 'seal',
      minutes: 45,
      pieces: row.data.items.reduce((sum, { copies }) => sum + copies, 0),
    },
  ]);
  expect(packs.length).toBeGreaterThan(0);
  expect(packs.every(({ grams, price }) => grams > 0 && price > 0)).toBe(true);
});

test('what was stirred, cleared and counted in drops comes with its cup', () => {
  const db = sample();
  const drops = [{ id: 'ink', count: 12, grams: 0.44 }];
  entered(db, (cup) =>
    read(cup, {
      bench: { read: true, stirMinutes: 4, clearMinutes: 1.5, thickMinutes: null, pieceMinutes: [1, 1], drops },
    }),
  );
  expect(recordedWork(db).cups[0]).toMatchObject({ stirMinutes: 4, clearMinutes: 1.5, drops });
});

test('how a layer was found while it hardened is kept with its entry and read with its product', () => {
  const db = sample();
  const look = {
    what: 'firm' as const,
    labelMinutes: 1440,
    reckonedMinutes: 1800,
    softMinutes: 1500,
    firmMinutes: 1700,
  };
  const pour = { ...currentPours(db, BATCH)[0]!, hardened: [look] };
  appendEntry(db, BATCH, pour, { struck: false, enteredAt: NOW });
  expect(currentPours(db, BATCH)[0]!.hardened).toEqual([look]);
  expect(recordedWork(db).hardened.filter(({ batchId }) => batchId === BATCH)).toMatchObject([
    { ...look, at: pour.pouredAt, productId: 'coating-epoxy' },
  ]);
});

test('depths that were felt in a copy stand against the drawing of its design, whatever was measured on that', () => {
  const db = sample();
  const before = recordedWork(db).beds.map(({ key }) => key);
  const level = 30;
  // Land far from any water, as drawn and two millimetres under it.
  const spots = [3, 70, 137].map((xMm) => ({ xMm, yMm: 3, depthMm: 0 }));
  const design = { ...RECORD_SCHEMAS.design.parse(getDocument(db, 'design', 'hs-1')!.data), features: [], joints: [] };
  const felt = (depthMm: number) => ({
    atLevelMm: level,
    readings: spots.map((spot) => ({ ...spot, depthMm: level - design.landMm + depthMm })),
    fillMl: null,
  });
  edit(db, 'set:heron-slack', 'measure', NOW, (writer) => {
    writer.put('design', 'hs-1', { ...design, measured: felt(1) }, null);
    writer.add('piece', 'felt', { designId: 'hs-1', copy: 40, measured: felt(2) }, 'heron-slack');
  });
  const beds = recordedWork(db).beds.filter(({ key }) => !before.includes(key));
  const of = (key: string) => beds.find((bed) => bed.key === key)!.offMm;
  of('bed hs-1').forEach((off) => expect(off).toBeCloseTo(-1, 1));
  of('bed felt').forEach((off) => expect(off).toBeCloseTo(-2, 1));
});
