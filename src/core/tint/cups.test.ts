import fc from 'fast-check';
import { cupSizes } from './cupSizes';
import { cupDoses, type RecipeDose } from './doses';
import { bringToRecipe, type CupContents } from './bringToRecipe';
import type { Colourant } from '../model/recipeSchema';

const dose = (gramsPer100: number, id = 'ink', dropGrams = 0.035): RecipeDose => ({
  colourant: {
    id,
    name: id,
    kind: 'ink',
    absorption: { red: 1, green: 0.2, blue: 0.6 },
    dropGrams,
    bottleGrams: 30,
    bottlePrice: 6,
  } satisfies Colourant & { id: string },
  gramsPer100,
});
const recipes = fc
  .array(
    fc.record({
      grams: fc.double({ min: 0.02, max: 0.9, noNaN: true }),
      drop: fc.double({ min: 0.02, max: 0.06, noNaN: true }),
    }),
    { minLength: 1, maxLength: 3 },
  )
  .map((all) => all.map(({ grams, drop }, i) => dose(grams, `c${i}`, drop)));

describe('cup sizes', () => {
  test('one drop per 35 g: right about 35, 70, 105 and 140 g, and always from 159 g on', () => {
    const { right, alwaysFromGrams } = cupSizes([dose(0.1)])!;
    expect(
      right.map(({ fromGrams, toGrams }) => [Math.round(fromGrams * 10) / 10, Math.round(toGrams * 10) / 10]),
    ).toEqual([
      [31.8, 38.9],
      [63.6, 77.8],
      [95.5, 116.7],
      [127.3, 155.6],
    ]);
    expect(alwaysFromGrams).toBeCloseTo((5 * 35) / 1.1, 9);
  });
  test('agree with counting the drops of every cup', () => {
    fc.assert(
      fc.property(recipes, (recipe) => {
        const sizes = cupSizes(recipe)!;
        const top = sizes.alwaysFromGrams * 1.6;
        for (let i = 1; i <= 300; i++) {
          const mix = (i / 300) * top;
          const off = Math.max(...cupDoses(recipe, mix).map(({ error }) => Math.abs(error)));
          // At the very edge of a stretch rounding decides.
          if (Math.abs(off - 0.1) < 1e-6) continue;
          const told =
            mix >= sizes.alwaysFromGrams ||
            sizes.right.some(({ fromGrams, toGrams }) => mix >= fromGrams && mix <= toGrams);
          expect([mix, told]).toEqual([mix, off < 0.1]);
        }
      }),
      { numRuns: 60 },
    );
  });
  test('a clear recipe has none', () => expect(cupSizes([dose(0)])).toBeNull());
});

describe('a cup brought to its recipe', () => {
  const contents = (recipe: readonly RecipeDose[], mixGrams: number, factors: readonly number[]): CupContents => ({
    mixGrams,
    colourants: recipe.map(({ colourant, gramsPer100 }, i) => ({
      colourant,
      grams: ((gramsPer100 * mixGrams) / 100) * factors[i]!,
    })),
  });
  test('twice the tint takes as much clear mix again, and no colourant', () =>
    expect(bringToRecipe(contents([dose(0.1)], 40, [2]), [dose(0.1)])).toMatchObject({
      clearGrams: 40,
      mixGrams: 80,
      add: [],
    }));
  test('half the tint takes the other half, and no clear mix', () => {
    const { clearGrams, add } = bringToRecipe(contents([dose(0.1)], 70, [0.5]), [dose(0.1)]);
    expect(clearGrams).toBe(0);
    expect(add).toMatchObject([{ id: 'ink', drops: 1, grams: expect.closeTo(0.035, 9) }]);
  });
  test('colourant is neither made nor lost, and the recipe holds afterwards', () => {
    fc.assert(
      fc.property(
        recipes,
        fc.double({ min: 5, max: 300, noNaN: true }),
        fc.array(fc.double({ min: 0, max: 5, noNaN: true }), { minLength: 3, maxLength: 3 }),
        (recipe, mix, factors) => {
          const cup = contents(recipe, mix, factors);
          const mend = bringToRecipe(cup, recipe);
          expect(mend.mixGrams).toBeCloseTo(mix + mend.clearGrams, 9);
          expect(mend.clearGrams).toBeGreaterThanOrEqual(0);
          recipe.forEach(({ colourant, gramsPer100 }, i) => {
            const added = mend.add.find(({ id }) => id === colourant.id)?.grams ?? 0;
            const after = cup.colourants[i]!.grams + added;
            const wanted = (gramsPer100 * mend.mixGrams) / 100;
            expect(Math.abs(after - wanted)).toBeLessThanOrEqual(0.005 * wanted + 1e-9);
          });
        },
      ),
    );
  });
  test('a colourant that the recipe does not know stays in it, and is named', () => {
    const { colourants } = contents([dose(0.2, 'blue')], 50, [1]);
    expect(bringToRecipe({ mixGrams: 50, colourants }, [dose(0.1)]).foreign).toEqual(['blue']);
    const known = contents([dose(0.1)], 50, [1]).colourants;
    const none = [{ ...colourants[0]!, grams: 0 }];
    expect(bringToRecipe({ mixGrams: 50, colourants: [...known, ...none] }, [dose(0.1)]).foreign).toEqual([]);
  });
});
