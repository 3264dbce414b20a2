import { PRODUCT_KINDS } from '../mixing/productKinds';
import { ratioByWeight } from '../mixing/ratio';
import { runPlanSchema } from './runSchema';
import { TestBench, testRunPlan } from './testRuns';

const product = PRODUCT_KINDS[1]!;
const older = (dose: object, stock: object | null = null): unknown => {
  const { layers, climate: _climate, ...plan } = testRunPlan({ ready: [] });
  const [{ recipe: _recipe, cups, ...layer }] = layers as [(typeof layers)[number]];
  const [{ portions: _portions, ...cup }] = cups as [(typeof cups)[number]];
  return { ...plan, layers: [{ ...layer, stock, cups: [{ ...cup, doses: [dose] }] }] };
};
const ink = {
  id: 'ink',
  name: 'Ink',
  how: 'drops',
  grams: 0.15,
  drops: 4,
  dropGrams: 0.035,
  resinGrams: 0,
  intoGrams: 0,
  colours: [{ id: 'ink', grams: 0.15 }],
  pricePerGram: 0.4,
};

test('a plan of a run that an older version kept is read, and its run goes on', () => {
  const plan = runPlanSchema.parse(older(ink));
  const [cup] = plan.layers[0]!.cups;
  expect(cup!.portions.map(({ way, key }) => [way, key])).toEqual([
    ['part A', 'A'],
    ['part B', 'B'],
    ['drops', 'ink'],
  ]);
  expect(cup!.portions[0]!.grams / cup!.portions[1]!.grams).toBeCloseTo(ratioByWeight(product.parts!), 9);
  expect(plan.layers[0]!.recipe).toMatchObject([{ id: 'ink', gramsPer100: (100 * 0.15) / cup!.mixGrams }]);
  const bench = new TestBench(plan);
  bench.until('dose');
  // Presses that it logged name their steps as before.
  expect(bench.state.current).toMatchObject({ id: 'L1.C1.1.dose.ink', portion: { drops: 4, grams: 0.14 } });
});
test('its premix and its stock count as part A, as they did', () => {
  const premix = { ...ink, how: 'premix', grams: 4, resinGrams: 3.9, intoGrams: 10, drops: 1 };
  const [cup] = runPlanSchema.parse(older(premix)).layers[0]!.cups;
  expect(cup!.portions.map(({ way }) => way)).toEqual(['part A', 'premix', 'part B']);
  const [a, , b] = cup!.portions;
  expect((a!.grams + 3.9) / b!.grams).toBeCloseTo(ratioByWeight(product.parts!), 9);
  const stock = { resinGrams: 9, stockGrams: 9.4, drops: [{ id: 'ink', name: 'Ink', drops: 11 }] };
  const tinted = runPlanSchema.parse(older({ ...premix, id: 'stock', how: 'stock' }, stock)).layers[0]!;
  expect(tinted.stock).toMatchObject({ stockGrams: 9.4, drops: [{ drops: 11 }] });
  expect(tinted.cups[0]!.portions[1]).toMatchObject({ way: 'stock', key: 'stock' });
});
test('what is no plan is refused as before', () =>
  expect(runPlanSchema.safeParse({ layers: 'none' }).success).toBe(false));
