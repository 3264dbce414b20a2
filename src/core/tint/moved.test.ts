import { linearFromHex } from './colour';
import type { Colourant } from '../model/recipeSchema';
import { movedBy } from './moved';

const colourant = (id: string, red: number): Colourant & { id: string } => ({
  id,
  name: id,
  kind: 'ink',
  absorption: { red, green: 0.3, blue: 0.7 },
  dropGrams: 0.035,
  bottleGrams: 30,
  bottlePrice: 5,
});
const bed = { bed: linearFromHex('#b9a883'), depthMm: 6, clarity: 'water-clear' } as const;
const recipes = [
  { id: 'with', doses: [{ colourant: colourant('green', 1.1), gramsPer100: 0.1 }] },
  { id: 'without', doses: [{ colourant: colourant('blue', 0.2), gramsPer100: 0.1 }] },
  { id: 'none of it', doses: [{ colourant: colourant('green', 1.1), gramsPer100: 0 }] },
];

test('only recipes with the colourant in them move, by as much as it was wrong', () => {
  const [moved, ...others] = movedBy(recipes, colourant('green', 2.2), bed);
  expect(others).toEqual([]);
  expect(moved).toMatchObject({ id: 'with' });
  expect(moved!.deltaE).toBeGreaterThan(3);
  expect(movedBy(recipes, colourant('green', 1.1), bed)[0]!.deltaE).toBeCloseTo(0, 9);
});
test('of a recipe of several colourants only the one that is known better changes', () => {
  const both = [{ colourant: colourant('blue', 0.2), gramsPer100: 0.1 }, ...recipes[0]!.doses];
  const [moved] = movedBy([{ id: 'both', doses: both }], colourant('green', 2.2), bed);
  expect(moved!.deltaE).toBeGreaterThan(2);
  expect(movedBy([{ id: 'both', doses: both }], colourant('green', 1.1), bed)[0]!.deltaE).toBeCloseTo(0, 9);
});
