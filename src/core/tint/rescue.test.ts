import { PRODUCT_KINDS } from '../mixing/productKinds';
import { linearFromHex } from './colour';
import type { RecipeDose } from './doses';
import { dropsDeltaE, rescueCup, type RescueAsk } from './rescue';

const coating = PRODUCT_KINDS.find(({ id }) => id === 'coating-epoxy')!;
const ink: RecipeDose['colourant'] = {
  id: 'ink',
  name: 'Ink',
  kind: 'ink',
  absorption: { red: 1.15, green: 0.32, blue: 0.72 },
  dropGrams: 0.035,
  bottleGrams: 30,
  bottlePrice: 6,
};
const recipe: RecipeDose[] = [{ colourant: ink, gramsPer100: 0.07 }];
const bed = linearFromHex('#b9a883');
/** 50 g with so many drops; the recipe wants one. */
const ask = (drops: number, change: Partial<RescueAsk> = {}): RescueAsk => ({
  cup: { mixGrams: 50, colourants: [{ colourant: ink, grams: drops * 0.035 }] },
  recipe,
  product: coating,
  roomC: 20,
  minutesGone: 3,
  cupHoldsGrams: 200,
  bed,
  depthMm: 6,
  ...change,
});

test('two drops where one was wanted: 50 g of clear, by the ratio of the label, and dearer than a new cup only by nothing', () => {
  const rescue = rescueCup(ask(2));
  expect(rescue.clearGrams).toBeCloseTo(50, 9);
  expect(rescue.clearParts!.partAGrams + rescue.clearParts!.partBGrams).toBeCloseTo(50, 9);
  // 1 : 1 by volume, 1.16 and 1.02 g/ml.
  expect(rescue.clearParts!.partAGrams / rescue.clearParts!.partBGrams).toBeCloseTo(1.16 / 1.02, 9);
  const perGram = coating.packPrice / coating.packGrams;
  expect(rescue.clearCost).toBeCloseTo(50 * perGram, 9);
  expect(rescue.newCupCost).toBeCloseTo(50 * perGram + (0.035 * 6) / 30, 9);
  expect(rescue.deltaENow).toBeGreaterThan(5);
});
test('five drops: more clear than the cup holds, and dearer than a new one', () => {
  const rescue = rescueCup(ask(5));
  expect(rescue).toMatchObject({ clearGrams: expect.closeTo(200, 9), stops: 'cup too small' });
  expect(rescue.clearCost).toBeGreaterThan(3.9 * rescue.newCupCost);
});
test('what is added of another colourant is paid for at its own price, and only that', () => {
  const dye = { ...ink, id: 'dye', name: 'Dye', bottleGrams: 20, bottlePrice: 10 };
  const both = [...recipe, { colourant: dye, gramsPer100: 0.2 }];
  const rescue = rescueCup(
    ask(2, {
      recipe: both,
      cup: {
        mixGrams: 50,
        colourants: [
          { colourant: ink, grams: 0.07 },
          { colourant: dye, grams: 0.1 },
        ],
      },
    }),
  );
  // 100 g in the end: 50 g of clear mix, 0.1 g of dye at 0.50 a gram, no more ink.
  expect(rescue.add).toMatchObject([{ id: 'dye', grams: expect.closeTo(0.1, 9) as number }]);
  const perGram = coating.packPrice / coating.packGrams;
  expect(rescue.clearCost).toBeCloseTo(50 * perGram + 0.1 * 0.5, 9);
  expect(rescue.newCupCost).toBeCloseTo(50 * perGram + 0.035 * 0.2 + 0.1 * 0.5, 9);
});
test('a cup that is right needs nothing; one that is late has no time', () => {
  expect(rescueCup(ask(1))).toMatchObject({ clearGrams: 0, add: [], clearParts: null, stops: null });
  expect(rescueCup(ask(1)).deltaENow).toBeCloseTo(0, 6);
  expect(rescueCup(ask(2, { minutesGone: 40 })).stops).toBe('no time');
});
test('a larger cup sets sooner: what is left shrinks with the clear mix that goes in', () =>
  expect(rescueCup(ask(4)).minutesLeft).toBeLessThan(rescueCup(ask(2)).minutesLeft));
test('an empty cup is refused', () =>
  expect(() => rescueCup(ask(0, { cup: { mixGrams: 0, colourants: [] } }))).toThrow(RangeError));
test('whole drops that come out even are off by nothing; half a drop off is seen', () => {
  const look = { bed, depthMm: 6, clarity: 'water-clear' } as const;
  expect(dropsDeltaE(recipe, 50, look)).toBeCloseTo(0, 6);
  expect(dropsDeltaE(recipe, 74, look)).toBeGreaterThan(dropsDeltaE(recipe, 55, look));
  expect(dropsDeltaE(recipe, 74, look)).toBeGreaterThan(3);
});
