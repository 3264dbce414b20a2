import { PRODUCT_KINDS } from '../mixing/productKinds';
import { linearFromHex } from '../tint/colour';
import { deltaE } from '../tint/difference';
import { tintCommand } from './tintFile';

const { id: _, ...product } = PRODUCT_KINDS.find(({ id }) => id === 'coating-epoxy')!;
const colourant = (id: string, red: number, green: number, blue: number): object => ({
  id,
  name: id,
  kind: 'ink',
  absorption: { red, green, blue },
  dropGrams: 0.035,
  bottleGrams: 30,
  bottlePrice: 5,
});
const request = {
  format: 'aguada.tint-request',
  version: 1,
  bedColour: '#b9a883',
  colourants: [colourant('green', 1.15, 0.32, 0.72), colourant('umber', 0.42, 0.82, 1.35)],
  recipe: [{ colourant: 'green', gramsPer100: 0.1 }],
};
const run = (change: object): { report: Record<string, never>; errors: string; exitCode: number } => {
  const { output, errors, exitCode } = tintCommand(JSON.stringify({ ...request, ...change }));
  return { report: output ? (JSON.parse(output) as Record<string, never>) : {}, errors, exitCode };
};

test('a colour that it predicts it finds a recipe for', () => {
  const predicted = run({ predict: { depthsMm: [6] } }).report as unknown as { colours: { colour: string }[] };
  const { colour } = predicted.colours[0]!;
  const found = run({ find: { colour, depthMm: 6 } }).report as unknown as {
    found: { answers: { deltaE: number; colour: string; recipe: { colourant: string; gramsPer100: number }[] }[] };
  };
  const [nearest] = found.found.answers;
  expect(nearest!.deltaE).toBeLessThan(0.6);
  expect(deltaE(linearFromHex(nearest!.colour), linearFromHex(colour))).toBeLessThan(0.8);
  expect(nearest!.recipe.find(({ colourant: id }) => id === 'green')!.gramsPer100).toBeCloseTo(0.1, 2);
});
test('pours that it finds for a gradient make the colour that was wished at the deepest', () => {
  const recipe = ['green', 'umber'].map((id) => ({ colourant: id, gramsPer100: 0.1 }));
  const even = run({ recipe, predict: { depthsMm: [9] } }).report as unknown as { colours: { colour: string }[] };
  const deepColour = even.colours[0]!.colour;
  const asked = { deepestMm: 9, deepColour, halfwayMm: 6, pours: 2, by: 'colourant' };
  const { gradient } = run({ recipe, gradient: asked }).report as unknown as {
    gradient: { pours: { thicknessMm: number | null; strength: number }[]; meanDeltaE: number };
  };
  expect(gradient.pours.map(({ thicknessMm }) => thicknessMm)).toEqual([4.5, null]);
  const { colours } = run({ recipe, pours: gradient.pours, predict: { depthsMm: [9] } }).report as unknown as {
    colours: { colour: string }[];
  };
  expect(deltaE(linearFromHex(colours[0]!.colour), linearFromHex(deepColour))).toBeLessThan(3);
});
test('doses come by cup, with a stock and the sizes that are right', () => {
  expect(run({ dose: { cupsGrams: [35, 50], resinShare: 0.5 } }).report).toMatchObject({
    doses: [
      { mixGrams: 35, deltaE: 0, colourants: [{ drops: 1 }], portions: [{}, { way: 'stock' }, {}] },
      { mixGrams: 50, colourants: [{ drops: 1 }], portions: [{}, { way: 'stock' }, {}] },
    ],
    cupSizes: { alwaysFromGrams: expect.closeTo(175 / 1.1, 3) },
    stock: { drops: [{ id: 'green', drops: 3 }] },
    tintLeft: { colours: [{ id: 'green' }] },
  });
});
test('a cup with twice the drops is brought back', () =>
  expect(run({ rescue: { mixGrams: 35, added: [{ colourant: 'green', drops: 2 }], product } }).report).toMatchObject({
    rescue: { clearGrams: 35, mixGrams: 70, add: [], stops: null },
  }));
test.each([
  [{ recipe: [{ colourant: 'grene', gramsPer100: 0.1 }] }, /^recipe\.0\.colourant: There is no colourant “grene”/],
  [{ bedColour: 'sand' }, /^bedColour: A colour such as/],
  [{ predict: { depthsMm: [0] } }, /^predict\.depthsMm\.0: Must be more than 0/],
  [{ gradient: { deepestMm: 9, deepColour: '#000000', halfwayMm: 3, pours: 9 } }, /^gradient\.pours: /],
  [{ version: 2 }, /^version: This program reads version 1/],
])('%j is refused at its field', (change, words) => {
  const { errors, exitCode } = run(change);
  expect(errors).toMatch(words);
  expect(exitCode).toBe(2);
});
