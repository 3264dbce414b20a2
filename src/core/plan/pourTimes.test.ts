import { TEST_DEFAULTS, testPiece } from '../bed/testShapes';
import fc from 'fast-check';
import { nextBenchMinute, type BenchWindow } from '../time/benchWindows';
import { steadyRoom } from '../cure/conditions';
import { toWallTime, wallMinutes } from '../time/wallTime';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { LEVEL_BENCH, planBatch, surveyBed, type PlanRequest } from './';
import { FIRST_PIECE_MINUTES, layerHandsOnMinutes, SETUP_MINUTES } from '../pouring/handsOn';
import { layerMinutes } from './pourTimes';

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

test('hands-on time: setting up, each cup, pouring at its speed, and each piece', () => {
  const work = { cups: 0, pours: 0, mixGrams: 0, pourGramsPerMinute: 45 };
  expect(layerHandsOnMinutes(work)).toBe(SETUP_MINUTES);
  expect(layerHandsOnMinutes({ ...work, cups: 2, mixGrams: 90 })).toBe(SETUP_MINUTES + 2 * 4 + 2);
  // 48 bases take their reaching and waiting, however little goes into each; two pairs of hands reach twice as fast.
  expect(layerHandsOnMinutes({ ...work, cups: 1, pours: 48, mixGrams: 45 })).toBe(
    Math.ceil(SETUP_MINUTES + 4 + 1 + 19.2),
  );
  expect(layerHandsOnMinutes({ ...work, pours: 48, hands: 2 })).toBe(Math.ceil(SETUP_MINUTES + 9.6));
});

test('colder rooms stretch every time by the same factor', () => {
  const [warm, cold] = [planBatch(request()), planBatch(request({ room: { temperatureC: 13, humidity: 0.5 } }))];
  const waited = (plan: ReturnType<typeof planBatch>): number =>
    wallMinutes(plan.layers[1]!.cure.pouredAt) -
    wallMinutes(plan.layers[0]!.cure.pouredAt) -
    layerMinutes(plan.layers[0]!, request());
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
      const handsOn = layerMinutes(second!, request());
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
  // From the last piece of the last layer, which was poured in the minutes that the plan gives it.
  const span = layerMinutes(plan.layers[1]!, request()) - FIRST_PIECE_MINUTES;
  expect(wallMinutes(plan.doneAt!)).toBe(wallMinutes('2026-11-29T04:00') + span);
});

test('recoat opens from the last piece, closes from the first, and its first piece has to come before that', () => {
  const { layers } = planBatch(request({ room: { temperatureC: 23, humidity: 0.5 } }));
  const { recoatOpensMinutes, recoatClosesMinutes, fullCureMinutes } = PRODUCT_KINDS[1]!;
  const [first, second] = layers;
  const begun = wallMinutes(first!.cure.pouredAt);
  const last = begun + layerMinutes(first!, request());
  expect(wallMinutes(first!.cure.recoatOpensAt)).toBe(last + recoatOpensMinutes);
  expect(wallMinutes(first!.cure.recoatClosesAt!)).toBe(begun + FIRST_PIECE_MINUTES + recoatClosesMinutes!);
  expect(wallMinutes(second!.cure.fullCureAt)).toBe(
    wallMinutes(second!.cure.pouredAt) + layerMinutes(second!, request()) + fullCureMinutes,
  );
  // Begun a minute too late for its first piece, the layer misses the window that is still open.
  const closes = wallMinutes(first!.cure.recoatClosesAt!);
  const codes = (begin: number): string[] =>
    planBatch(request({ calendar: [{ layer: 2, at: toWallTime(begin) }] })).problems.map(({ code }) => code);
  expect(codes(closes - FIRST_PIECE_MINUTES)).not.toContain('recoat-missed');
  expect(codes(closes - FIRST_PIECE_MINUTES + 1)).toContain('recoat-missed');
});

test('nights count: a window is longer where it runs through a cold one', () => {
  const conditions = { ...steadyRoom({ temperatureC: 23, humidity: 0.5 }) };
  const cold = { ...conditions, usual: { ...conditions.usual, nightC: 14 } };
  const closesAt = (change: Partial<PlanRequest>): number =>
    wallMinutes(planBatch(request({ pourAt: '2026-11-28T18:00', ...change })).layers[0]!.cure.recoatClosesAt!);
  expect(closesAt({ conditions })).toBe(closesAt({}));
  expect(closesAt({ conditions: cold })).toBeGreaterThan(closesAt({}) + 240);
});
