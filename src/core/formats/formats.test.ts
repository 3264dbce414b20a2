import { TEST_DEFAULTS, testPiece } from '../bed/testShapes';
import Papa from 'papaparse';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { LEVEL_BENCH, planBatch, planSchema, type PlanRequest } from '../plan';
import { bedCommand } from './bedFile';
import { planCommand, planFileText, readPlanRequest } from './planFile';
import { pourCardCsv } from './pourCardCsv';

const request: PlanRequest = {
  format: 'aguada.plan-request',
  version: 1,
  set: { name: 'Test set', figureScaleMm: 28, levelMm: 15 },
  pieces: [testPiece([{ kind: 'basin', id: 'b', rimMm: 3, depthMm: 4 }], { tag: '=T', copies: 2 })],
  product: PRODUCT_KINDS[1]!,
  recipe: { id: 'recipe', name: 'Clear', doses: [] },
  room: { temperatureC: 20, humidity: 0.5 },
  bench: { windows: [], exceptions: [], cupGrams: 60, scaleStepGrams: 0.1, pricePerCup: 0, tilt: LEVEL_BENCH },
  pourAt: '2026-11-28T10:00',
  poured: [],
  ...TEST_DEFAULTS,
};
const withChange = (change: object): string => JSON.stringify({ ...request, ...change });

describe('the plan command', () => {
  test('writes the whole plan, the same every time', () => {
    const { output, errors, exitCode } = planCommand(planFileText(request));
    expect({ errors, exitCode }).toEqual({ errors: '', exitCode: 0 });
    expect(planSchema.safeParse(JSON.parse(output)).error).toBeUndefined();
    expect(planCommand(planFileText(request)).output).toBe(output);
  });
  test.each<[string, string, string]>([
    ['broken JSON', '{"format":', '(file): This is not JSON'],
    ['no object', '42', '(file): '],
    [
      'a cold room',
      withChange({ room: { temperatureC: -40, humidity: 0.5 } }),
      'room.temperatureC: Between 5 and 40 °C',
    ],
    ['a missing product', withChange({ product: undefined }), 'product: '],
    [
      'a level over the land',
      withChange({ set: { name: 'x', figureScaleMm: 28, levelMm: 20 } }),
      'pieces.0.landMm: The level 20.0',
    ],
    ['a dry piece', withChange({ set: { name: 'x', figureScaleMm: 28, levelMm: 9 } }), 'levelMm: =T stays dry'],
  ])('%s: exit 2, the field named', (_, text, expected) => {
    const { output, errors, exitCode } = planCommand(text);
    expect({ output, exitCode }).toEqual({ output: '', exitCode: 2 });
    expect(errors).toContain(expected);
  });
  test('a request written by the app reads back the same', () =>
    expect(readPlanRequest(planFileText(request))).toEqual({ ok: true, request }));
});

describe('the bed command', () => {
  const piece = testPiece([
    {
      kind: 'channel',
      id: 'c',
      from: { edge: 'south', positionMm: 70 },
      to: { edge: 'north', positionMm: 70 },
      widthMm: 58,
      depthMm: 6,
      section: 'trapezoid',
      bankSlope: 1,
    },
  ]);
  const bed = (change: object = {}): ReturnType<typeof bedCommand> =>
    bedCommand(JSON.stringify({ format: 'aguada.bed-request', version: 1, piece, levelMm: 15, ...change }));
  test('reports a piece: volume, curve, pool, dams, menisci, edges', () => {
    const { output, exitCode } = bed({ fillMl: 20 });
    expect(exitCode).toBe(0);
    const report = JSON.parse(output) as {
      water: { volumeMl: number };
      fill: { levelMm: number };
      curve: { levelMm: number; volumeMl: number }[];
      pools: { name: string; volumeMl: number }[];
      dams: { edge: string }[];
      meniscus: { ml: number };
      edges: { edge: string; heightsMm: number[] }[];
    };
    expect(Math.abs(report.water.volumeMl / ((140 * 6 * 52) / 1000) - 1)).toBeLessThan(0.005);
    expect(report.pools).toMatchObject([{ name: 'Pool A' }]);
    expect(report.pools[0]!.volumeMl).toBeCloseTo(report.water.volumeMl, 2);
    expect(report.dams.map(({ edge }) => edge).sort()).toEqual(['north', 'south']);
    expect(report.meniscus.ml).toBeGreaterThan(0);
    expect(report.edges.find(({ edge }) => edge === 'south')!.heightsMm[140]).toBeCloseTo(9, 2);
    // The curve and its inverse agree: the level of 20 ml lies between the entries either side of 20 ml.
    const after = report.curve.findIndex(({ volumeMl }) => volumeMl >= 20);
    expect(report.fill.levelMm).toBeGreaterThanOrEqual(report.curve[after - 1]!.levelMm);
    expect(report.fill.levelMm).toBeLessThanOrEqual(report.curve[after]!.levelMm);
  });
  test.each<[string, object, string]>([
    ['a level below the underside', { levelMm: -1 }, 'levelMm: '],
    ['a level over the land', { levelMm: 30 }, 'piece.landMm: '],
    ['another format', { format: 'x' }, 'format: '],
    ['no piece', { piece: null }, 'piece: '],
  ])('%s: exit 2, the field named', (_, change, expected) => {
    const { errors, exitCode } = bed(change);
    expect(exitCode).toBe(2);
    expect(errors).toContain(expected);
  });
});

describe('a cup that leaves nothing to pour', () => {
  test.each([
    [
      'losses.perCupGrams',
      { losses: { ...request.losses, perCupGrams: 50 }, bench: { ...request.bench, cupGrams: 40 } },
    ],
    ['product.potLifeMinutes', { product: { ...request.product, potLifeMinutes: 0.2 } }],
  ])('is told at %s, in words', (field, change) => {
    const { errors, exitCode } = planCommand(withChange(change));
    expect(exitCode).toBe(2);
    expect(errors).toContain(`${field}: Layer 1: a cup may hold`);
    expect(errors).not.toContain('RangeError');
  });
});

describe('the pour card as CSV', () => {
  const { data } = Papa.parse<Record<string, string>>(pourCardCsv(planBatch(request), request), {
    header: true,
    skipEmptyLines: true,
  });
  test('writes parts that add up to the mix within a step of the scale, and of which product', () => {
    for (const row of data) {
      expect(
        Math.abs(Number(row['part_a_g']) + Number(row['part_b_g']) - Number(row['cup_mix_g'])),
      ).toBeLessThanOrEqual(0.1 + 1e-9);
      expect(row['product']).toBe(request.product.name);
    }
  });
  test('has one row a pour and adds up to the poured grams', () => {
    const plan = planBatch(request);
    expect(data).toHaveLength(
      plan.layers.reduce((sum, layer) => sum + layer.cups.reduce((n, cup) => n + cup.pours.length, 0), 0),
    );
    expect(data.reduce((sum, row) => sum + Number(row['pour_g']), 0)).toBeCloseTo(plan.totals.pouredGrams, 0);
  });
  test('no text can become a formula: neither a tag nor a colourant', () => {
    expect(data[0]!['piece']).toBe("'=T #1");
    const ink = { name: '=Ink', kind: 'ink', absorption: { red: 1, green: 1, blue: 1 } } as const;
    const colourant = { id: 'i', ...ink, dropGrams: 0.03, bottleGrams: 30, bottlePrice: 4 };
    const tinted: PlanRequest = {
      ...request,
      recipe: { id: 'r', name: 'R', doses: [{ colourant, gramsPer100: 0.5 }] },
    };
    const [row] = Papa.parse<Record<string, string>>(pourCardCsv(planBatch(tinted), tinted), { header: true }).data;
    expect(row!['colourants']).toMatch(/^'=Ink: /);
  });
});
