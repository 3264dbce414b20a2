import fc from 'fast-check';
import { linearFromHex } from './colour';
import { colourantShares, cupDoses, smallestDropMixGrams, type RecipeDose } from './doses';
import type { Colourant } from '../model/recipeSchema';

const colourant = (change: Partial<Colourant> = {}): Colourant & { id: string } => ({
  id: 'ink',
  name: 'Green ink',
  kind: 'ink',
  absorption: { red: 1, green: 0.2, blue: 0.6 },
  dropGrams: 0.035,
  bottleGrams: 30,
  bottlePrice: 6,
  ...change,
});
const dose = (gramsPer100: number, change: Partial<Colourant> = {}): RecipeDose => ({
  colourant: colourant(change),
  gramsPer100,
});

describe('doses', () => {
  test('0.1 g per 100 g into 70 g is two drops', () =>
    expect(cupDoses([dose(0.1)], 70)[0]).toMatchObject({ drops: 2, error: 0 }));
  test('one drop in a small cup is said to be too much', () => {
    const [small] = cupDoses([dose(0.1)], 20);
    expect(small!.drops).toBe(1);
    expect(small!.error).toBeCloseTo(0.75);
  });
  test('a clear recipe has no smallest cup', () => expect(smallestDropMixGrams([dose(0)])).toBeNull());
  test('one drop is right from 35/1.1 g', () => expect(smallestDropMixGrams([dose(0.1)])).toBeCloseTo(31.9, 1));
  test('at the smallest mix every dose is within 10 %, and at none below', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.02, max: 1, noNaN: true }), { minLength: 1, maxLength: 3 }),
        (amounts) => {
          const recipe = amounts.map((grams) => dose(grams));
          const smallest = smallestDropMixGrams(recipe)!;
          const worst = (mix: number): number => Math.max(...cupDoses(recipe, mix).map(({ error }) => Math.abs(error)));
          expect(worst(smallest)).toBeLessThan(0.11);
          for (let mix = smallest - 1; mix > 1; mix -= 1.7) expect(worst(mix)).toBeGreaterThan(0.099);
        },
      ),
      { numRuns: 40 },
    );
  });
  test('shares tell water-based colourants apart', () => {
    const shares = colourantShares([dose(1.5), dose(2, { kind: 'resin dye' })]);
    expect(shares.total).toBeCloseTo(0.035);
    expect(shares.waterBased).toBeCloseTo(0.015);
  });
});

test('what is no colour is refused', () => expect(() => linearFromHex('sandy')).toThrow('not a colour'));
