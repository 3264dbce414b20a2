import { TEST_DEFAULTS } from '@/core/bed/testShapes';
import { PRODUCT_KINDS } from '../src/core/mixing/productKinds';
import { LEVEL_BENCH, type PlanRequest } from '../src/core/plan';
import { HERON_SLACK_DESIGNS } from '../src/db/demo/heronSlackDesigns';

/** The sample set as one request, as the page sends it to its worker. */
export const sampleRequest = (): PlanRequest => ({
  format: 'aguada.plan-request',
  version: 1,
  set: { name: 'Heron Slack', figureScaleMm: 28, levelMm: 15 },
  pieces: HERON_SLACK_DESIGNS.map(({ id, ...design }) => ({ ...design, designId: id })),
  product: PRODUCT_KINDS.find(({ name }) => name === 'Coating epoxy')!,
  recipe: { id: 'recipe', name: 'Clear', doses: [] },
  room: { temperatureC: 20, humidity: 0.5 },
  bench: { windows: [], exceptions: [], cupGrams: 180, scaleStepGrams: 0.1, pricePerCup: 0.06, tilt: LEVEL_BENCH },
  pourAt: '2026-11-28T10:00',
  poured: [],
  ...TEST_DEFAULTS,
});
