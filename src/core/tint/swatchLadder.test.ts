import { labOf } from './difference';
import type { Colourant } from '../model/recipeSchema';
import { swatchLadder } from './swatchLadder';

const ink = {
  id: 'ink',
  name: 'Ink',
  kind: 'ink',
  absorption: { red: 1.15, green: 0.32, blue: 0.72 },
  dropGrams: 0.035,
  bottleGrams: 30,
  bottlePrice: 6,
} satisfies Colourant & { id: string };

test('the strongest rung leaves a twentieth of its strongest channel, at any depth; each next is half and paler', () => {
  for (const depth of [1, 4, 12]) {
    const { rungs, drops, mixGrams } = swatchLadder(ink, depth);
    expect(Math.exp(-2 * 1.15 * rungs[0]!.gramsPer100 * depth)).toBeCloseTo(0.05, 9);
    expect((100 * drops * ink.dropGrams) / mixGrams).toBeCloseTo(rungs[0]!.gramsPer100, 9);
    expect([Number.isInteger(drops), mixGrams >= 10]).toEqual([true, true]);
    rungs.slice(1).forEach(({ gramsPer100, light }, i) => {
      expect(gramsPer100).toBeCloseTo(rungs[i]!.gramsPer100 / 2, 12);
      expect(labOf(light).l).toBeGreaterThan(labOf(rungs[i]!.light).l);
    });
  }
});
test('half of a mix fills its cavity: 5 cm² at 12 mm and 1.1 g/ml are 6.6 g', () => {
  expect(swatchLadder(ink, 12).halfGrams).toBe(7);
  expect(swatchLadder(ink, 2).halfGrams).toBe(5);
  const { productGrams, mixGrams, halfGrams } = swatchLadder(ink, 4);
  expect(productGrams).toBeCloseTo(mixGrams + 3 * halfGrams, 9);
});
test('as many drops of a strong colourant as ten grams take; of a weak one a drop is too little for them already', () => {
  // ln 20 / (2 · 1.15 · 4) = 0.326 g in 100 g: a drop of 0.035 g tints 10.7 g.
  expect(swatchLadder(ink, 4)).toMatchObject({ drops: 1, mixGrams: expect.closeTo(10.748, 2) });
  const weak = { ...ink, absorption: { red: 0.115, green: 0.03, blue: 0.07 } };
  // Ten times as much of it: a drop tints 1.07 g, so that ten are counted.
  expect(swatchLadder(weak, 4)).toMatchObject({ drops: 10, mixGrams: expect.closeTo(10.748, 2) });
});
