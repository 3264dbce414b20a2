import { testPiece } from '../bed/testShapes';
import { testBench, testRequest } from '../plan/testRequest';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { planBatch } from '../plan';
import { pourCommand } from './pourFile';

const request = testRequest({
  pieces: [testPiece([{ kind: 'basin', id: 'b', rimMm: 20, depthMm: 4 }], { copies: 6 })],
  bench: testBench({ pricePerCup: 0.1 }),
});
const lot = (a: number, b: number, openedOn: string | null) => ({
  of: { kind: 'product', id: 'coating-epoxy' },
  name: 'Kit',
  bought: [
    { part: 'A', amount: a },
    { part: 'B', amount: b },
  ],
  boughtOn: '2025-01-01',
  openedOn,
  bestBefore: null,
  price: 30,
});
interface Report {
  layers: { mixes: { mixGrams: number; leftGrams: number; pours: { grams: number; cupShowsGrams: number }[] }[] }[];
  needs: { part: string; likely: number; free: number; short: number; outOf: { lotId: string; amount: number }[] }[];
  toBuy: { packs: { count: number }[]; price: number }[];
  quote: { likely: { price: number } };
}
const run = (change: object): Report =>
  JSON.parse(
    pourCommand(JSON.stringify({ format: 'aguada.pour-request', version: 1, request, ...change })).output,
  ) as Report;

test('mixes with their readings, and each part out of the lots that are open first', () => {
  const plan = planBatch(request);
  const { layers, needs, toBuy } = run({
    lots: [
      { id: 'sealed', lot: lot(600, 500, null) },
      {
        id: 'open',
        lot: lot(600, 500, '2026-11-01'),
        left: [
          { part: 'A', amount: 100 },
          { part: 'B', amount: 100 },
        ],
      },
    ],
  });
  const mixes = layers.flatMap((layer) => layer.mixes);
  expect(mixes.reduce((sum, { mixGrams }) => sum + mixGrams, 0)).toBeCloseTo(plan.totals.mixGrams, 2);
  for (const { pours, leftGrams } of mixes) expect(pours.at(-1)!.cupShowsGrams).toBeCloseTo(leftGrams, 3);
  const a = needs.find(({ part }) => part === 'A')!;
  expect(a.outOf).toEqual([
    { lotId: 'open', amount: 100 },
    { lotId: 'sealed', amount: expect.closeTo(plan.totals.parts!.partAGrams - 100, 2) },
  ]);
  expect(toBuy).toEqual([]);
});
test('what is past its date does not count, and the packs that cover the rest are named', () => {
  const { needs, toBuy } = run({ lots: [{ id: 'old', lot: lot(600, 500, '2025-02-01') }] });
  expect(needs.map(({ free }) => free)).toEqual([0, 0]);
  expect(needs[0]!.short).toBeCloseTo(needs[0]!.likely, 3);
  expect(toBuy).toHaveLength(1);
  expect(toBuy[0]!.price).toBe(toBuy[0]!.packs[0]!.count * PRODUCT_KINDS[1]!.packPrice);
});
test('a field that cannot be is named', () => {
  const { errors, exitCode } = pourCommand(
    JSON.stringify({
      format: 'aguada.pour-request',
      version: 1,
      request,
      lots: [{ id: 'x', lot: { ...lot(1, 1, null), price: -3 } }],
    }),
  );
  expect(errors).toBe('lots.0.lot.price: Cannot be negative\n');
  expect(exitCode).toBe(2);
  const dry = { ...request, set: { ...request.set, levelMm: 2 } };
  expect(pourCommand(JSON.stringify({ format: 'aguada.pour-request', version: 1, request: dry })).errors).toMatch(
    /^request\./,
  );
});
