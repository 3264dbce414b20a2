import { TEST_DEFAULTS, testPiece } from '../bed/testShapes';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { LEVEL_BENCH, type Bench, type PlanRequest } from './request';

/** A bench for tests: no windows, cups of 180 g, a scale of 0.1 g, unless told otherwise. */
export const testBench = (change: Partial<Bench> = {}): Bench => ({
  windows: [],
  exceptions: [],
  cupGrams: 180,
  scaleStepGrams: 0.1,
  pricePerCup: 0,
  tilt: LEVEL_BENCH,
  ...change,
});

/** A batch for tests: tiles with a basin 4 mm deep, clear coating epoxy at 23 °C, unless told otherwise. */
export const testRequest = (change: Partial<PlanRequest> = {}): PlanRequest => ({
  format: 'aguada.plan-request',
  version: 1,
  set: { name: 'S', figureScaleMm: 28, levelMm: 15 },
  pieces: [testPiece([{ kind: 'basin', id: 'b', rimMm: 20, depthMm: 4 }])],
  product: PRODUCT_KINDS[1]!,
  recipe: { id: 'recipe', name: 'Clear', doses: [] },
  room: { temperatureC: 23, humidity: 0.5 },
  bench: testBench(),
  pourAt: '2026-11-28T10:00',
  poured: [],
  ...TEST_DEFAULTS,
  ...change,
});
