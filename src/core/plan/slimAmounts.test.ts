import { TEST_DEFAULTS, testPiece } from '../bed/testShapes';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { fingerprint, LEVEL_BENCH, planAmounts, slimAmounts, type PlanRequest } from '.';

const request = (pieces: number): PlanRequest => ({
  format: 'aguada.plan-request',
  version: 1,
  set: { name: 'S', figureScaleMm: 28, levelMm: 15 },
  pieces: Array.from({ length: pieces }, (_, i) =>
    testPiece([{ kind: 'basin', id: 'b', rimMm: 20, depthMm: 4 }], { tag: `T-${i}` }),
  ),
  product: PRODUCT_KINDS[1]!,
  recipe: { id: 'recipe', name: 'Clear', doses: [] },
  room: { temperatureC: 23, humidity: 0.5 },
  bench: { windows: [], exceptions: [], cupGrams: 400, scaleStepGrams: 0.1, pricePerCup: 0, tilt: LEVEL_BENCH },
  pourAt: '2026-11-28T10:00',
  poured: [],
  ...TEST_DEFAULTS,
});

test('a first look at a small set has all its pieces, to six digits, and no cups', () => {
  const whole = planAmounts(request(3));
  const { amounts, partial } = slimAmounts(whole);
  expect(partial).toBe(false);
  expect(amounts.pieces.map(({ designId }) => designId)).toEqual(['T-0', 'T-1', 'T-2']);
  expect(amounts.layers.every(({ cups }) => cups.length === 0)).toBe(true);
  const [rough, exact] = [amounts.totals.mixGrams, whole.totals.mixGrams];
  expect(Math.abs(rough / exact - 1)).toBeLessThan(1e-5);
  expect(String(rough).replace('.', '').length).toBeLessThanOrEqual(7);
});
test('of a large set it has the first design, and says that it is not all', () => {
  const { amounts, partial } = slimAmounts(planAmounts(request(20)));
  expect(partial).toBe(true);
  expect(amounts.pieces.map(({ designId }) => designId)).toEqual(['T-0']);
});
test('fingerprints tell texts apart that differ in one character, anywhere', () => {
  const text = JSON.stringify(request(3));
  const seen = new Set([fingerprint(text)]);
  for (let i = 0; i < text.length; i += 37) seen.add(fingerprint(`${text.slice(0, i)}~${text.slice(i + 1)}`));
  expect(seen.size).toBe(1 + Math.ceil(text.length / 37));
  expect(fingerprint(text)).toBe(fingerprint(`${text}`));
});
