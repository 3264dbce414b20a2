import fc from 'fast-check';
import { cupWork, fillsMore } from './cupWork';
import { mixForPour, TYPICAL_LOSSES } from '../mixing/losses';
import { PRODUCT_KINDS } from '../mixing/productKinds';

const kind = (id: string) => PRODUCT_KINDS.find((one) => one.id === id)!;
const coating = kind('coating-epoxy');
const pour = (copy: number, grams: number) => ({ designId: 'T-1', copy, tag: 'T-1', grams });

test('the scale under the cup counts down, piece by piece, and ends on what stays in the cup', () => {
  const mixGrams = mixForPour(60, 3);
  const work = cupWork(
    { mixGrams, portions: [], potLifeMinutes: 20, pours: [pour(1, 10), pour(2, 20), pour(3, 30)] },
    coating,
    TYPICAL_LOSSES,
  );
  expect(work.steps.map(({ cupShowsGrams }) => cupShowsGrams)).toEqual([
    expect.closeTo(mixGrams - 10.3, 9),
    expect.closeTo(mixGrams - 30.6, 9),
    expect.closeTo(mixGrams - 60.9, 9),
  ]);
  // What stays: so much a cup, and a share of the mix.
  expect(work.leftGrams).toBeCloseTo(1.5 + 0.02 * mixGrams, 9);
  expect(work.goodSpareGrams).toBeCloseTo((mixGrams - 60) / 2, 9);
});
test('readings never rise, never fall below nothing, and account for every gram', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0.1, max: 80, noNaN: true }), { minLength: 1, maxLength: 12 }), (grams) => {
      const poured = grams.reduce((sum, one) => sum + one, 0);
      const mixGrams = mixForPour(poured, grams.length);
      const { steps, leftGrams } = cupWork(
        { mixGrams, portions: [], potLifeMinutes: 20, pours: grams.map((one, i) => pour(i + 1, one)) },
        coating,
        TYPICAL_LOSSES,
      );
      steps.forEach(({ cupShowsGrams }, i) => {
        expect(cupShowsGrams).toBeGreaterThanOrEqual(0);
        expect(cupShowsGrams).toBeLessThan(i === 0 ? mixGrams : steps[i - 1]!.cupShowsGrams);
      });
      expect(leftGrams + poured + grams.length * 0.3).toBeCloseTo(mixGrams, 6);
    }),
  );
});
test('stirring and hurry by kind: minutes for a slow one, half a minute for a five-minute one, none for what never sets in the cup', () => {
  const of = (id: string, potLifeMinutes: number) => {
    const { stirMinutes, pourByMinutes } = cupWork(
      { mixGrams: 50, portions: [], potLifeMinutes, pours: [] },
      kind(id),
      TYPICAL_LOSSES,
    );
    return [stirMinutes, pourByMinutes];
  };
  expect(of('coating-epoxy', 25)).toEqual([3, 20]);
  expect(of('five-minute-glue', 4.5)).toEqual([0.5, expect.closeTo(3.6, 9)]);
  expect(of('clear-drying-glue', 20)).toEqual([0, null]);
});
test.each([
  [4.2, 2.1, 2],
  [4.1, 2.1, 1],
  [2, 2.1, 0],
  [5, 0, 0],
])('%d g fill %d g pieces: %i', (spare, each, count) => expect(fillsMore(spare, each)).toBe(count));
