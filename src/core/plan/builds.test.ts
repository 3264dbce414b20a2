import { testPiece } from '../bed/testShapes';
import { testBench, testRequest } from './testRequest';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { mixForPour } from '../mixing/losses';
import { planAmounts, type PlanRequest } from '.';
import { buildFigures, productOfBuild, requestOfBuild, WATER_BUILDS, type BuildFigures } from './builds';

const ink = {
  id: 'ink',
  name: 'Green ink',
  kind: 'ink' as const,
  absorption: { red: 1, green: 0.3, blue: 0.7 },
  dropGrams: 0.035,
  bottleGrams: 30,
  bottlePrice: 6,
};
const request = testRequest({
  pieces: [testPiece([{ kind: 'basin', id: 'b', rimMm: 20, depthMm: 8 }], { copies: 2 })],
  recipe: { id: 'recipe', name: 'Green', doses: [{ colourant: ink, gramsPer100: 0.1 }] },
  bench: testBench({ pricePerCup: 0.1 }),
});
const figures = (key: string): { of: PlanRequest; figures: BuildFigures } => {
  const build = WATER_BUILDS.find((one) => one.key === key)!;
  const of = requestOfBuild(request, build, productOfBuild(build, [])!, 8);
  return { of, figures: buildFigures(build, of, planAmounts(of)) };
};

test('every school names a kind that ships', () => {
  for (const build of WATER_BUILDS) expect(productOfBuild(build, [])).not.toBeNull();
});
test('a filled build has the figures of its own plan', () => {
  const { of, figures: deep } = figures('deep');
  const plan = planAmounts(of);
  expect([deep.grams, deep.cost, deep.layers]).toEqual([plan.totals.mixGrams, plan.cost.total, 1]);
  expect(deep.waitMinutes).toBeCloseTo(2 * 24 * 60, 0);
});
test('layers wait for each other, then for the dams: two pours of coating epoxy', () => {
  const { figures: graded } = figures('graded');
  expect(graded.layers).toBe(2);
  expect(graded.waitMinutes).toBeGreaterThan(24 * 60);
  const [shore, deep] = [graded.colours[1]!, graded.colours.at(-1)!];
  expect(shore).not.toBe(deep);
});
test('a film is its surface times its thickness, whatever lies beneath', () => {
  const { of, figures: film } = figures('film');
  const { totals, product } = planAmounts(of);
  const poured = (totals.surfaceCm2 * 100 * (2 / (1 - 0.015)) * product.pouredDensity) / 1000;
  expect(film.grams).toBeCloseTo(mixForPour(poured, 2), 6);
  expect(film.layers).toBe(1);
});
test('glue in more layers than stay clear is said to be stopped', () => {
  expect(figures('pva').figures.stops.join(' ')).toContain('stays clear for 3 layers');
  expect(figures('film').figures.stops).toEqual([]);
});
test('the maker’s own product of a kind is taken before the typical one', () => {
  const own = { ...PRODUCT_KINDS[0]!, name: 'My own', packPrice: 99 };
  expect(productOfBuild(WATER_BUILDS[0]!, [{ id: 'slow-casting-epoxy', data: own }])).toMatchObject({
    name: 'My own',
    packPrice: 99,
    own: true,
  });
});
