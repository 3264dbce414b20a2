import { testRequest } from '../plan/testRequest';
import { planAmounts } from '../plan';
import type { PourRecord } from './recordSchemas';
import { dryPours, isOfBench, stillToPour, wholePours } from './rest';

const pour = (designId: string, copy: number, grams = 10) => ({ designId, copy, tag: designId, grams });
const cup = (number: number, pieces?: PourRecord['cups'][number]['pieces']): PourRecord['cups'][number] => ({
  number,
  partAGrams: 20,
  partBGrams: 10,
  note: '',
  ...(pieces && { pieces, pouredGrams: 25, discarded: false, doses: [] }),
});
const entry = (layer: number, cups: PourRecord['cups']): PourRecord => ({
  layer,
  pouredAt: '2026-12-01T10:00',
  temperatureC: 20,
  cups,
  note: '',
});
const planned = (...cups: ReturnType<typeof pour>[][]) =>
  ({ cups: cups.map((pours, i) => ({ number: i + 1, pours })) }) as unknown as Parameters<typeof dryPours>[0];

test('an entry by hand is of the whole layer; of one from the bench each pour that it does not name is still to be made', () => {
  const layer = planned([pour('a', 1), pour('a', 2)], [pour('b', 1)]);
  expect(isOfBench(entry(1, [cup(1), cup(2)]))).toBe(false);
  expect(dryPours(layer, entry(1, [cup(1), cup(2)]))).toEqual([]);
  expect(dryPours(layer, entry(1, [cup(1, [pour('a', 2, 9.8)])]))).toEqual([pour('a', 1), pour('b', 1)]);
  expect(dryPours(layer, entry(1, [cup(1, []), cup(5, [pour('a', 1), pour('a', 2), pour('b', 1)])]))).toEqual([]);
});

test('a piece larger than a cup has two pours to get; two small mixes into one piece fill no other', () => {
  expect(dryPours(planned([pour('a', 1)], [pour('a', 1)]), entry(1, [cup(1, [pour('a', 1)])]))).toEqual([pour('a', 1)]);
  const two = entry(1, [cup(1, [pour('a', 1, 6)]), cup(3, [pour('a', 1, 4)])]);
  expect(dryPours(planned([pour('a', 1), pour('b', 1)]), two)).toEqual([pour('b', 1)]);
});

test('what is left of a layer comes in cups of its own, numbered on; other layers stay as they are', () => {
  const [design] = testRequest().pieces;
  // 140 mm tiles with a rim of 20 mm: 100 × 100 × 4 mm, 40 ml each; cups of 180 g.
  const request = testRequest({ pieces: [{ ...design!, copies: 9 }] });
  const amounts = planAmounts(request);
  const [first, ...others] = amounts.layers;
  const pours = first!.cups.flatMap((own) => own.pours);
  const got = pours.slice(0, 2);
  const log = [entry(1, [cup(1, got), cup(7, [])])];
  expect(wholePours(amounts, log)).toEqual([]);
  const rest = stillToPour(amounts, request, log);
  const [left, ...untouched] = rest.layers;
  expect(untouched).toEqual(others);
  expect(left!.cups.flatMap((own) => own.pours)).toEqual(pours.slice(2));
  expect(left!.cups[0]!.number).toBe(Math.max(7, ...first!.cups.map(({ number }) => number)) + 1);
  const grams = pours.slice(2).reduce((sum, one) => sum + one.grams, 0);
  expect(left!.pouredGrams).toBeCloseTo(grams, 9);
  expect(left!.volumeMl / first!.volumeMl).toBeCloseTo(7 / 9, 9);
  for (const own of left!.cups) {
    expect(own.mixGrams).toBeLessThanOrEqual(180 + 1e-9);
    expect(own.mixGrams).toBeGreaterThan(own.pouredGrams);
    expect(own.parts!.partAGrams + own.parts!.partBGrams).toBeCloseTo(own.mixGrams, 9);
    expect(own.portions.length).toBeGreaterThan(0);
  }
  // Poured whole, it is as it was planned.
  const whole = [entry(1, [cup(1, got), cup(2, pours.slice(2))])];
  expect(stillToPour(amounts, request, whole).layers).toEqual(amounts.layers);
  expect(wholePours(amounts, whole)).toEqual(whole);
});
