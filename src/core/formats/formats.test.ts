import Papa from 'papaparse';
import { testDesign } from '../bed/testShapes';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { LEVEL_BENCH, planBatch, planSchema, type PlanRequest } from '../plan';
import { planCommand, planFileText, readPlanRequest } from './planFile';
import { pourCardCsv } from './pourCardCsv';

const request: PlanRequest = {
  format: 'aguada.plan-request', version: 1,
  set: { name: 'Test set', figureScaleMm: 28, levelMm: 15 },
  pieces: [testDesign([{ kind: 'basin', id: 'b', rimMm: 3, depthMm: 4 }], { tag: '=T', copies: 2 })],
  product: PRODUCT_KINDS[1]!,
  recipe: { name: 'Clear', doses: [] },
  room: { temperatureC: 20, humidity: 0.5 },
  bench: { windows: [], cupGrams: 60, scaleStepGrams: 0.1, pricePerCup: 0, tilt: LEVEL_BENCH },
  pourAt: '2026-11-28T10:00',
  poured: [],
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
    ['a cold room', withChange({ room: { temperatureC: -40, humidity: 0.5 } }), 'room.temperatureC: Between 5 and 40 °C'],
    ['a missing product', withChange({ product: undefined }), 'product: '],
    ['a level over the land', withChange({ set: { name: 'x', figureScaleMm: 28, levelMm: 20 } }), 'pieces.0.landMm: The level 20.0'],
    ['a dry piece', withChange({ set: { name: 'x', figureScaleMm: 28, levelMm: 9 } }), 'levelMm: =T stays dry'],
  ])('%s: exit 2, the field named', (_, text, expected) => {
    const { output, errors, exitCode } = planCommand(text);
    expect({ output, exitCode }).toEqual({ output: '', exitCode: 2 });
    expect(errors).toContain(expected);
  });
  test('a request written by the app reads back the same', () => expect(readPlanRequest(planFileText(request))).toEqual({ ok: true, request }));
});

describe('the pour card as CSV', () => {
  const { data } = Papa.parse<Record<string, string>>(pourCardCsv(planBatch(request)), { header: true, skipEmptyLines: true });
  test('has one row a pour and adds up to the poured grams', () => {
    const plan = planBatch(request);
    expect(data).toHaveLength(plan.layers.reduce((sum, layer) => sum + layer.cups.reduce((n, cup) => n + cup.pours.length, 0), 0));
    expect(data.reduce((sum, row) => sum + Number(row['pour_g']), 0)).toBeCloseTo(plan.totals.pouredGrams, 0);
  });
  test('a tag cannot become a formula', () => expect(data[0]!['piece']).toBe("'=T #1"));
});
