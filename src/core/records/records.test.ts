import { testDesign } from '../bed/testShapes';
import { TYPICAL_LOSSES } from '../mixing/losses';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { LEVEL_BENCH, planBatch } from '../plan';
import { METRIC } from '../units/formatMeasure';
import { keptTableSchema } from '../model/tableSchema';
import { batchRequest, setMatchRequest, standingOrder, wholeSetRequest } from './buildRequest';
import { layerProduct } from '../plan';
import { compareLayer } from './compare';
import { complaintAt, replaceAt } from './replaceAt';
import { pieceDesignSchema } from '../model/designSchema';
import { DEFAULT_CALENDAR, type Batch, type PourRecord } from './recordSchemas';
import type { BatchDetail, DeskView } from './views';

const basin = testDesign([{ kind: 'basin', id: 'b', rimMm: 3, depthMm: 4 }], { copies: 3 });
const stored = <T>(id: string, data: T): { id: string; version: number; data: T } => ({ id, version: 1, data });
const desk: DeskView = {
  set: stored('s', {
    name: 'Set',
    figureScaleMm: 28,
    levelMm: 15,
    productId: 'p',
    recipeId: 'r',
    benchWindows: null,
    job: null,
  }),
  designs: [stored('d', basin), stored('e', { ...basin, tag: 'T-2' })],
  pieces: [],
  batches: [],
  batchCount: 0,
  opened: null,
  clockChanges: [],
  measuredDays: [],
  unreadable: [],
  shelf: {
    settings: stored('w', {
      units: METRIC,
      room: { temperatureC: 20, humidity: 0.5 },
      cupGrams: 150,
      scaleStepGrams: 0.1,
      pricePerCup: 0,
      tilt: LEVEL_BENCH,
      benchWindows: [],
      benchExceptions: [],
      measureBy: 'weight',
      calendar: DEFAULT_CALENDAR,
      losses: TYPICAL_LOSSES,
    }),
    products: [stored('p', PRODUCT_KINDS[2]!)],
    consumables: [],
    colourants: [],
    recipes: [stored('r', { name: 'Ghost', doses: [{ colourantId: 'gone', gramsPer100: 1 }] })],
  },
  history: { undo: null, redo: null },
  now: '2026-11-24T20:00',
};
const batch: Batch = {
  name: 'B',
  items: [
    { designId: 'd', copies: 2 },
    { designId: 'gone', copies: 4 },
  ],
  pourAt: '2026-11-28T10:00',
  benchWindows: null,
};
const untouched: BatchDetail = { batchId: 'b', kept: null, pours: [] };
const pourOf = (layer: number): PourRecord => ({
  layer,
  pouredAt: '2026-11-28T10:30',
  temperatureC: 20,
  cups: [],
  note: '',
});

describe('plan requests', () => {
  test('of a set take every design with its copies; a colourant that is gone is left out', () => {
    const request = wholeSetRequest(desk)!;
    expect(request.pieces.map(({ tag, copies }) => [tag, copies])).toEqual([
      ['T-1', 3],
      ['T-2', 3],
    ]);
    expect(request.recipe).toEqual({ id: 'r', name: 'Ghost', doses: [] });
  });
  test('of a batch take its own copies and time', () => {
    expect(batchRequest(desk, batch, untouched)).toMatchObject({
      pourAt: '2026-11-28T10:00',
      pieces: [{ tag: 'T-1', copies: 2 }],
    });
  });
  test('of a poured batch stay what they were when its first layer was poured', () => {
    const planned = batchRequest(desk, batch, untouched)!;
    const kept = { request: planned, amounts: planBatch(planned) };
    const detail = { ...untouched, kept, pours: [pourOf(1)] };
    expect(batchRequest({ ...desk, designs: [] }, batch, detail)).toMatchObject({
      pieces: planned.pieces,
      losses: planned.losses,
      poured: [{ layer: 1, at: '2026-11-28T10:30' }],
    });
  });
  test('carry the bench windows of the workshop, narrowed by the set and the batch', () => {
    const evening = { weekday: 3, fromMinute: 1140, toMinute: 1290 };
    const settings = { ...desk.shelf.settings.data, benchWindows: [evening] };
    const view = { ...desk, shelf: { ...desk.shelf, settings: stored('w', settings) } };
    expect(batchRequest(view, batch, untouched)!.bench.windows).toEqual([evening]);
    const late = { weekday: 3, fromMinute: 1200, toMinute: 1440 };
    expect(batchRequest(view, { ...batch, benchWindows: [late] }, untouched)!.bench.windows).toEqual([
      { weekday: 3, fromMinute: 1200, toMinute: 1290 },
    ]);
  });
  test('of a batch number their copies on from those of the batches before it', () => {
    const batch: Batch = {
      name: 'B',
      items: [{ designId: 'd', copies: 2, first: 3 }],
      pourAt: '2026-11-28T10:00',
      benchWindows: null,
    };
    const numbers = (pieces: DeskView['pieces']): unknown[] =>
      batchRequest({ ...desk, pieces }, batch, null)!.pieces.map(({ copies, copyNumbers, measured }) => [
        copies,
        copyNumbers,
        measured !== null,
      ]);
    expect(numbers([])).toEqual([[2, [3, 4], false]]);
    // A measured copy counts where its own number is in the batch, and nowhere else.
    const measured = { atLevelMm: 15, readings: [], fillMl: 30 };
    expect(numbers([stored('m', { designId: 'd', copy: 4, measured })])).toEqual([
      [1, [3], false],
      [1, [4], true],
    ]);
    expect(numbers([stored('m', { designId: 'd', copy: 2, measured })])).toEqual([[2, [3, 4], false]]);
  });
  test('of a batch with a room, cups and hands of its own are planned with those', () => {
    const batch: Batch = {
      name: 'B',
      items: [{ designId: 'd', copies: 2 }],
      pourAt: '2026-11-28T10:00',
      benchWindows: null,
    };
    const [plain, own] = [batch, { ...batch, own: { roomC: 16, cupGrams: 90, hands: 2 as const } }].map((one) =>
      batchRequest(desk, one, null)!,
    );
    expect([own!.room.temperatureC, own!.bench.cupGrams, own!.hands]).toEqual([16, 90, 2]);
    expect(own!.room.humidity).toBe(plain!.room.humidity);
    expect(plain!.hands).toBeUndefined();
    // Twice the hands pour twice as quickly, and nothing else of the product is another.
    const { pourGramsPerMinute, ...rest } = layerProduct(own!, {});
    const { pourGramsPerMinute: once, ...same } = layerProduct(plain!, {});
    expect(pourGramsPerMinute).toBe(2 * once);
    expect(rest).toEqual(same);
  });
  test('know how the pieces of the kept layouts stand beside each other: row by row, there and back', () => {
    const at = (column: number, row: number, designId: string, copy: number | null = null) => ({
      column,
      row,
      turns: 0,
      piece: { designId, copy },
    });
    const tables = [
      keptTableSchema.parse({
        id: 't',
        name: 'Club',
        wish: { columns: 2, rows: 2 },
        laid: [at(0, 0, 'd'), at(1, 0, 'e', 2), at(0, 1, 'd'), at(1, 1, 'd', 1)],
      }),
    ];
    // The first of the design is named further on: it is not given out twice.
    expect(standingOrder({ tables })).toEqual([
      { designId: 'd', copy: 1 },
      { designId: 'e', copy: 2 },
      { designId: 'd', copy: 2 },
    ]);
    expect(standingOrder({})).toEqual([]);
  });
  test('of the seams know each measured copy by its design and number', () => {
    const measured = { atLevelMm: 15, readings: [], fillMl: null };
    const edges = { south: { bed: [], levels: [15, 15, 15] as [number, number, number] } };
    const view = { ...desk, pieces: [stored('m', { designId: 'd', copy: 2, measured, edges })] };
    expect(setMatchRequest(view).pieces.map(({ designId, copy, copies }) => [designId, copy, copies])).toEqual([
      ['d', null, 2],
      ['d', 2, 1],
      ['e', null, 3],
    ]);
  });
  test('take a measured copy on its own, with its own bed', () => {
    const measured = { atLevelMm: 15, readings: [{ xMm: 70, yMm: 70, depthMm: 5 }], fillMl: null };
    const pieces = [
      stored('m', { designId: 'd', copy: 2, measured }),
      stored('n', { designId: 'd', copy: 3, measured }),
    ];
    const request = batchRequest({ ...desk, pieces }, batch, untouched)!;
    expect(request.pieces.map(({ designId, copyNumbers, copies }) => [designId, copyNumbers, copies])).toEqual([
      ['d', [1], 1],
      ['d', [2], 1],
    ]);
    const plan = planBatch(request);
    expect(
      plan.layers[0]!.cups.flatMap(({ pours }) => pours.map((pour) => `${pour.designId} #${pour.copy}`)).sort(),
    ).toEqual(['d #1', 'd #2']);
    expect(plan.pieces[1]!.measured).toBe(true);
    expect(plan.pieces[1]!.water.volumeMl).toBeGreaterThan(plan.pieces[0]!.water.volumeMl);
    expect(plan.pieces[1]!.uncertainGrams).toBeLessThan(plan.pieces[0]!.uncertainGrams);
  });
  test('leave every copy its own number when one from the middle is measured', () => {
    const measured = { atLevelMm: 15, readings: [{ xMm: 70, yMm: 70, depthMm: 5 }], fillMl: null };
    const plan = planBatch(
      wholeSetRequest({
        ...desk,
        designs: desk.designs.slice(0, 1),
        pieces: [stored('m', { designId: 'd', copy: 2, measured })],
      })!,
    );
    const names = plan.layers
      .at(-1)!
      .cups.flatMap(({ pours }) => pours.map((pour) => `${pour.designId} #${pour.copy}`));
    expect(names.sort()).toEqual(['d #1', 'd #2', 'd #3']);
  });
  test('of an empty batch are none', () => expect(batchRequest(desk, { ...batch, items: [] }, untouched)).toBeNull());
});

test('planned against real: grams and ratio, cup by cup', () => {
  const request = batchRequest(desk, batch, untouched)!;
  const layer = planBatch(request).layers[0]!;
  const cup = layer.cups[0]!;
  const pour = {
    layer: 1,
    pouredAt: '2026-11-28T10:30',
    temperatureC: 20,
    note: '',
    cups: [{ number: 1, partAGrams: cup.parts!.partAGrams * 1.1, partBGrams: cup.parts!.partBGrams, note: 'a' }],
  };
  const compared = compareLayer(layer, pour, request.product.parts);
  expect(compared.cups[0]!.ratio).toMatchObject({ grade: 'wrong', add: null });
  expect(compared.cups[0]!.differenceGrams).toBeCloseTo(cup.parts!.partAGrams * 0.1);
  expect(compared.realGrams - compared.plannedGrams).toBeCloseTo(compared.differenceGrams);
});

describe('replacing one value', () => {
  test('leaves everything else as it was', () => {
    const next = replaceAt(basin, ['features', 0, 'depthMm'], 5);
    expect(next.features[0]).toMatchObject({ depthMm: 5, rimMm: 3 });
    expect(basin.features[0]).toMatchObject({ depthMm: 4 });
    expect(next.outline).toBe(basin.outline);
  });
  test('complaints are those of the very field', () => {
    expect(complaintAt(pieceDesignSchema, basin, ['features', 0, 'depthMm'], 0)).toContain('more than 0');
    expect(complaintAt(pieceDesignSchema, { ...basin, copies: 0 }, ['landMm'], 20)).toBeNull();
  });
});
