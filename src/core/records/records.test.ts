import { testDesign } from '../bed/testShapes';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { LEVEL_BENCH, planBatch } from '../plan';
import { METRIC } from '../units/formatMeasure';
import { batchRequest, batchStatus, wholeSetRequest } from './buildRequest';
import { compareLayer } from './compare';
import { complaintAt, replaceAt } from './replaceAt';
import { pieceDesignSchema } from '../bed/schema';
import type { Batch } from './schema';
import type { DeskView } from './views';

const basin = testDesign([{ kind: 'basin', id: 'b', rimMm: 3, depthMm: 4 }], { copies: 3 });
const stored = <T>(id: string, data: T): { id: string; version: number; data: T } => ({ id, version: 1, data });
const desk: DeskView = {
  set: stored('s', {
    name: 'Set',
    figureScaleMm: 28,
    levelMm: 15,
    productId: 'p',
    recipeId: 'r',
    benchWindows: [],
    job: null,
  }),
  designs: [stored('d', basin), stored('e', { ...basin, tag: 'T-2' })],
  pieces: [],
  batches: [],
  shelf: {
    settings: stored('w', {
      units: METRIC,
      room: { temperatureC: 20, humidity: 0.5 },
      cupGrams: 150,
      scaleStepGrams: 0.1,
      pricePerCup: 0,
      tilt: LEVEL_BENCH,
    }),
    products: [stored('p', PRODUCT_KINDS[2]!)],
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
  pours: [],
  planned: null,
};

describe('plan requests', () => {
  test('of a set take every design with its copies; a colourant that is gone is left out', () => {
    const request = wholeSetRequest(desk)!;
    expect(request.pieces.map(({ tag, copies }) => [tag, copies])).toEqual([
      ['T-1', 3],
      ['T-2', 3],
    ]);
    expect(request.recipe).toEqual({ name: 'Ghost', doses: [] });
  });
  test('of a batch take its own copies and time', () => {
    expect(batchRequest(desk, batch)).toMatchObject({
      pourAt: '2026-11-28T10:00',
      pieces: [{ tag: 'T-1', copies: 2 }],
    });
  });
  test('of a poured batch stay what they were', () => {
    const planned = batchRequest(desk, batch)!;
    const pours = [{ layer: 1, pouredAt: '2026-11-28T10:30', temperatureC: 20, cups: [], note: '' }];
    const deeper = { ...desk, designs: [] };
    expect(batchRequest(deeper, { ...batch, planned, pours })).toEqual({
      ...planned,
      poured: [{ layer: 1, at: '2026-11-28T10:30' }],
    });
  });
  test('take a measured copy on its own, with its own bed', () => {
    const measured = { atLevelMm: 15, readings: [{ xMm: 70, yMm: 70, depthMm: 5 }], fillMl: null };
    const pieces = [
      stored('m', { designId: 'd', copy: 2, measured }),
      stored('n', { designId: 'd', copy: 3, measured }),
    ];
    const request = batchRequest({ ...desk, pieces }, batch)!;
    expect(request.pieces.map(({ tag, copies }) => [tag, copies])).toEqual([
      ['T-1', 1],
      ['T-1 #2', 1],
    ]);
    const plan = planBatch(request);
    expect(
      plan.layers[0]!.cups.flatMap(({ pours }) => pours.map((pour) => `${pour.tag} #${pour.copy}`)).sort(),
    ).toEqual(['T-1 #1', 'T-1 #2']);
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
    const names = plan.layers.at(-1)!.cups.flatMap(({ pours }) => pours.map((pour) => `${pour.tag} #${pour.copy}`));
    expect(names.sort()).toEqual(['T-1 #1', 'T-1 #2', 'T-1 #3']);
  });
  test('of an empty batch are none', () => expect(batchRequest(desk, { ...batch, items: [] })).toBeNull());
  test.each([
    [0, 'planned'],
    [1, 'half done'],
    [2, 'finished'],
  ] as const)('%d of two layers poured is %s', (count, status) => {
    expect(
      batchStatus(
        {
          ...batch,
          pours: Array.from({ length: count }, (_, i) => ({
            layer: i + 1,
            pouredAt: '2026-11-28T10:30',
            temperatureC: 20,
            cups: [],
            note: '',
          })),
        },
        2,
      ),
    ).toBe(status);
  });
});

test('planned against real: grams and ratio, cup by cup', () => {
  const request = batchRequest(desk, batch)!;
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
  expect(compared.cups[0]!.ratio).toMatchObject({ grade: 'wrong', add: { part: 'B' } });
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
