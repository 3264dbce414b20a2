import { TEST_DEFAULTS, testPiece } from '../bed/testShapes';
import fc from 'fast-check';
import { nextBenchMinute, type BenchWindow } from '../cure/benchWindows';
import { wallMinutes } from '../cure/wallTime';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { LEVEL_BENCH, planBatch, surveyBed, type PlanRequest } from '.';
import { layerHandsOnMinutes, SETUP_MINUTES } from './schedule';

/** A basin 9 mm deep: two layers of coating epoxy. */
const request = (change: Partial<PlanRequest> = {}, windows: BenchWindow[] = []): PlanRequest => ({
  format: 'aguada.plan-request',
  version: 1,
  set: { name: 'S', figureScaleMm: 28, levelMm: 15 },
  pieces: [testPiece([{ kind: 'basin', id: 'b', rimMm: 20, depthMm: 9 }])],
  product: PRODUCT_KINDS[1]!,
  recipe: { id: 'recipe', name: 'Clear', doses: [] },
  room: { temperatureC: 23, humidity: 0.5 },
  bench: { windows, exceptions: [], cupGrams: 400, scaleStepGrams: 0.1, pricePerCup: 0, tilt: LEVEL_BENCH },
  pourAt: '2026-11-28T10:00',
  poured: [],
  ...TEST_DEFAULTS,
  ...change,
});
const pouredAt = (plan: ReturnType<typeof planBatch>): string[] => plan.layers.map(({ cure }) => cure.pouredAt);

// The bed is always the same; building it once keeps the property quick.
const bed = surveyBed(request().pieces[0]!);

test('hands-on time: setting up, each cup, and pouring at its speed', () => {
  expect(layerHandsOnMinutes(0, 0, 45)).toBe(SETUP_MINUTES);
  expect(layerHandsOnMinutes(2, 90, 45)).toBe(SETUP_MINUTES + 2 * 4 + 2);
});

test('colder rooms stretch every time by the same factor', () => {
  const [warm, cold] = [planBatch(request()), planBatch(request({ room: { temperatureC: 13, humidity: 0.5 } }))];
  const waited = (plan: ReturnType<typeof planBatch>): number =>
    wallMinutes(plan.layers[1]!.cure.pouredAt) - wallMinutes(plan.layers[0]!.cure.pouredAt);
  expect(waited(cold) / waited(warm)).toBeCloseTo(cold.layers[0]!.cure.factor, 1);
  expect(cold.layers[0]!.cure.factor).toBeGreaterThan(2);
});

test('no layer is poured before the one below may be recoated, and each in bench time', () => {
  const windows = fc.uniqueArray(
    fc.record({
      weekday: fc.integer({ min: 0, max: 6 }),
      fromMinute: fc.integer({ min: 0, max: 1200 }),
      length: fc.integer({ min: 90, max: 240 }),
    }),
    { maxLength: 7, selector: ({ weekday }) => weekday },
  );
  fc.assert(
    fc.property(windows, fc.integer({ min: 0, max: 10_000 }), (list, later) => {
      const bench = list.map(({ weekday, fromMinute, length }) => ({
        weekday,
        fromMinute,
        toMinute: Math.min(1440, fromMinute + length),
      }));
      const start = new Date((wallMinutes('2026-11-28T10:00') + later) * 60_000).toISOString().slice(0, 16);
      const plan = planBatch(request({ pourAt: start }, bench), () => bed);
      const [first, second] = plan.layers;
      expect(first!.cure.pouredAt).toBe(start);
      const at = wallMinutes(second!.cure.pouredAt);
      expect(at).toBeGreaterThanOrEqual(wallMinutes(first!.cure.recoatOpensAt));
      const handsOn = layerHandsOnMinutes(second!.cups.length, second!.mixGrams, 45);
      if (bench.length > 0) expect(nextBenchMinute(bench, at, handsOn)).toBe(at);
    }),
    { numRuns: 40 },
  );
});
test('a recoat window that closes overnight is missed, and an open one never is', () => {
  const saturdays: BenchWindow[] = [{ weekday: 5, fromMinute: 600, toMinute: 720 }];
  const codes = (product: PlanRequest['product']): string[] =>
    planBatch(request({ product }, saturdays)).problems.map(({ code }) => code);
  expect(codes(PRODUCT_KINDS[1]!)).toContain('recoat-missed');
  expect(codes({ ...PRODUCT_KINDS[1]!, recoatClosesMinutes: null })).not.toContain('recoat-missed');
});

test('what was poured stays put, whatever the bench windows say', () => {
  const plan = planBatch(
    request(
      {
        poured: [
          { layer: 1, at: '2026-11-25T03:15' },
          { layer: 2, at: '2026-11-26T04:00' },
        ],
      },
      [{ weekday: 5, fromMinute: 600, toMinute: 720 }],
    ),
  );
  expect(pouredAt(plan)).toEqual(['2026-11-25T03:15', '2026-11-26T04:00']);
  expect(plan.problems.map(({ code }) => code)).not.toContain('recoat-missed');
  expect(plan.doneAt).toBe('2026-11-29T04:00');
});
