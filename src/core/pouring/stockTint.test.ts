import fc from 'fast-check';
import { stockTint, type Tinting } from './stockTint';

const colourant = fc.record({
  dropGrams: fc.double({ min: 0.02, max: 0.06, noNaN: true }),
  gramsPer100: fc.double({ min: 0.02, max: 0.6, noNaN: true }),
});
const cups = fc.array(fc.double({ min: 8, max: 90, noNaN: true }), { minLength: 1, maxLength: 6 });
const named = (doses: readonly Pick<Tinting, 'dropGrams' | 'gramsPer100'>[]): Tinting[] =>
  doses.map((dose, i) => ({ id: `c${i}`, name: `Colourant ${i}`, ...dose }));
const sum = (of: readonly number[]): number => of.reduce((a, b) => a + b, 0);
const RESIN_SHARE = 0.53;

/** By how much whole drops of a recipe stand off for a mix, the worst of them. */
const offFor = (recipe: readonly Tinting[], forMix: number): number =>
  Math.max(
    ...recipe.map(({ dropGrams, gramsPer100 }) => {
      const wanted = ((gramsPer100 / 100) * forMix) / dropGrams;
      return Math.abs(Math.max(1, Math.round(wanted)) - wanted) / wanted;
    }),
  );

test('of all counts of the rarest drop it is the first that stands for the recipe to a twentieth', () => {
  fc.assert(
    fc.property(fc.array(colourant, { minLength: 2, maxLength: 4 }), cups, (doses, cupsGrams) => {
      const recipe = named(doses);
      const stock = stockTint(recipe, cupsGrams, { scaleStepGrams: 0.001, resinShare: RESIN_SHARE });
      if (!stock) return;
      const rarest = Math.max(...recipe.map(({ dropGrams, gramsPer100 }) => (100 * dropGrams) / gramsPer100));
      const least = Math.ceil((1.1 * sum(cupsGrams)) / rarest - 1e-9);
      const taken = Math.round(stock.forMixGrams / rarest);
      const offs = Array.from({ length: taken - least + 1 }, (_, i) => offFor(recipe, (least + i) * rarest));
      expect(stock.worstError).toBeCloseTo(offs.pop()!, 9);
      expect(stock.worstError).toBeLessThanOrEqual(0.05);
      for (const off of offs) expect(off).toBeGreaterThan(0.05 - 1e-9);
    }),
    { numRuns: 400 },
  );
});

test('the smallest cup’s share is read in ten steps of the scale, in five where ten would take too much resin, and not at all beyond', () => {
  const recipe = named([{ dropGrams: 0.04, gramsPer100: 0.1 }]);
  const of = (cupsGrams: readonly number[], scaleStepGrams: number) =>
    stockTint(recipe, cupsGrams, { scaleStepGrams, resinShare: RESIN_SHARE });
  // Two cups of 100 g: six drops for 240 g, 0.24 g of colourant. Ten steps of 0.5 g to 100 g are 12 g to all.
  expect(of([100, 100], 0.5)).toMatchObject({ forMixGrams: 240, resinGrams: 12, drops: [{ drops: 6 }] });
  // Ten steps of 5 g would be 120 g: more than half of the 127.2 g of resin in all cups. Five are 60 g.
  expect(of([100, 100], 5)).toMatchObject({ resinGrams: 60 });
  // Five steps of 6 g are 72 g.
  expect(of([100, 100], 6)).toBeNull();
  // Never less than can be stirred.
  expect(of([100, 100], 0.01)).toMatchObject({ resinGrams: 5 });
  // A small cup beside a large one asks for more: ten steps of 0.5 g to 20 g are 60 g to 240 g.
  expect(of([180, 20], 0.5)).toMatchObject({ resinGrams: 60 });
});
