import { seeded } from '../chance/random';
import { linearFromHex, type LinearRgb } from './colour';
import { deltaE } from './difference';
import { findRecipes, overLimit, type FinderAsk } from './finder';
import type { Colourant } from '../model/recipeSchema';
import { lightByDepth } from './waterLook';

const colourant = (
  id: string,
  kind: Colourant['kind'],
  rgb: number[],
  scatter?: number[],
): Colourant & { id: string } => {
  const channels = ([red, green, blue]: number[]): LinearRgb => ({ red: red!, green: green!, blue: blue! });
  return {
    id,
    name: id,
    kind,
    absorption: channels(rgb),
    dropGrams: 0.035,
    bottleGrams: 30,
    bottlePrice: 5,
    ...(scatter && { scattering: channels(scatter) }),
  };
};
const SHELF = [
  colourant('green', 'ink', [1.15, 0.32, 0.72]),
  colourant('umber', 'ink', [0.42, 0.82, 1.35]),
  colourant('blue', 'resin dye', [1.7, 0.46, 0.12]),
  colourant('white', 'acrylic paint', [0.01, 0.01, 0.012], [1.4, 1.4, 1.4]),
  colourant('peat', 'wash', [0.16, 0.36, 0.62]),
  colourant('teal', 'alcohol ink', [1.4, 0.16, 0.26]),
];
const BED = linearFromHex('#b9a883');
const ask = (change: Partial<FinderAsk>): FinderAsk => ({
  target: BED,
  bed: BED,
  depthMm: 6,
  clarity: 'water-clear',
  colourants: SHELF.slice(0, 3),
  ...change,
});
const lightOf = (asked: FinderAsk, grams: readonly number[]): LinearRgb =>
  lightByDepth(asked.bed, {
    clarity: asked.clarity,
    doses: asked.colourants.map((one, i) => ({ colourant: one, gramsPer100: grams[i]! })),
  })(asked.depthMm);

test('a colour that a recipe on the shelf makes is found again', () => {
  const asked = ask({});
  const grams = [0.08, 0.11, 0];
  const { answers } = findRecipes({ ...asked, target: lightOf(asked, grams) });
  const { recipe, kinds } = answers[0]!;
  expect(kinds).toContain('nearest');
  expect(recipe.deltaE).toBeLessThan(0.05);
  const dose = (id: string): number => recipe.doses.find(({ colourant: { id: own } }) => own === id)?.gramsPer100 ?? 0;
  expect(dose('green')).toBeCloseTo(0.08, 2);
  expect(dose('umber')).toBeCloseTo(0.11, 2);
});

test('what is told of a recipe is what the one predictor says of it', () => {
  const { answers } = findRecipes(ask({ target: linearFromHex('#5c6f52'), colourants: SHELF }));
  for (const { recipe } of answers) {
    const light = lightByDepth(BED, { clarity: 'water-clear', doses: recipe.doses })(6);
    expect(deltaE(light, recipe.light)).toBeLessThan(1e-6);
    expect(deltaE(light, linearFromHex('#5c6f52'))).toBeCloseTo(recipe.deltaE, 6);
  }
});

test('never worse than a dense lattice of doses, for random colours, beds and depths', () => {
  const random = seeded(41);
  const STEPS = 26;
  for (let round = 0; round < 12; round++) {
    const channel = (): number => 0.02 + 0.5 * random() ** 2;
    const two = [SHELF[Math.floor(random() * 3)]!, SHELF[3 + Math.floor(random() * 3)]!];
    const asked = ask({
      target: { red: channel(), green: channel(), blue: channel() },
      bed: { red: channel() + 0.2, green: channel() + 0.2, blue: channel() + 0.1 },
      depthMm: 1 + 14 * random(),
      colourants: two,
    });
    let least = Infinity;
    for (let i = 0; i <= STEPS; i++)
      for (let k = 0; k <= STEPS; k++) {
        const grams = [i, k].map((step) => (step === 0 ? 0 : Math.exp(Math.log(1 / 4000) * (1 - step / STEPS))));
        if (overLimit(two, grams) > 0) continue;
        least = Math.min(least, deltaE(lightOf(asked, grams), asked.target));
      }
    expect(findRecipes(asked).answers[0]!.recipe.deltaE).toBeLessThanOrEqual(least + 0.02);
  }
});

test('how far a recipe is over the limits: 3 g in 100 g of all colourants, 1 g of the water-based', () => {
  const [ink, dye] = [{ kind: 'ink' as const }, { kind: 'resin dye' as const }];
  expect(overLimit([ink], [1])).toBeCloseTo(0, 9);
  expect(overLimit([ink], [2])).toBeCloseTo(1, 9);
  expect(overLimit([dye], [3])).toBeCloseTo(0, 9);
  expect(overLimit([dye], [6])).toBeCloseTo(1, 9);
  // 4 g in all are a third too much, 1.5 of them half too much ink.
  expect(overLimit([ink, dye], [1.5, 2.5])).toBeCloseTo(1 / 3 + 0.5, 9);
});
test('the limits of each kind hold', () => {
  // Nearly black over a pale bed in thin water would take more ink than cures.
  const { answers } = findRecipes(ask({ target: { red: 0.002, green: 0.002, blue: 0.002 }, depthMm: 0.4 }));
  for (const { recipe } of answers)
    expect(
      overLimit(
        recipe.doses.map(({ colourant: one }) => one),
        recipe.doses.map(({ gramsPer100 }) => gramsPer100),
      ),
    ).toBeLessThan(1e-3);
});

test('fewest takes fewer colourants where that costs next to nothing; clearest shows details deeper', () => {
  const asked = ask({ colourants: SHELF });
  const one = { ...asked, target: lightOf(asked, [0, 0, 0, 0, 0.5, 0]) };
  const fewest = findRecipes(one).answers.find(({ kinds }) => kinds.includes('fewest'))!.recipe;
  expect(fewest.doses.map(({ colourant: { id } }) => id)).toEqual(['peat']);
  const murky = findRecipes({ ...asked, target: lightOf(asked, [0.02, 0.03, 0, 0.05, 0, 0]) });
  const depth = ({ seenToMm }: { seenToMm: number | null }): number => seenToMm ?? Infinity;
  const clearest = murky.answers.find(({ kinds }) => kinds.includes('clearest'))!.recipe;
  for (const { recipe } of murky.answers) expect(depth(clearest)).toBeGreaterThanOrEqual(depth(recipe));
});

test('a colour brighter than the bed is said to be; the nearest possible comes with its distance', () => {
  const found = findRecipes(ask({ target: linearFromHex('#ffffff') }));
  expect(found.brighterThanBed).toBe(true);
  expect(found.answers[0]!.recipe.deltaE).toBeGreaterThan(10);
  expect(found.answers[0]!.recipe.deltaE).toBeLessThan(found.clear.deltaE + 0.5);
  expect(findRecipes(ask({ target: linearFromHex('#303830') })).brighterThanBed).toBe(false);
  // Clear water itself is no brighter than the bed that is seen through it.
  expect(findRecipes(ask({ target: lightOf(ask({}), [0, 0, 0]) })).brighterThanBed).toBe(false);
});

test('for the cups that it is for, a recipe of doses that are drops comes before a nearer one of crumbs', () => {
  const target = linearFromHex('#6f7f62');
  const least = (
    { doses }: { doses: { gramsPer100: number; colourant: { dropGrams: number } }[] },
    cup: number,
  ): number =>
    Math.min(...doses.map(({ gramsPer100, colourant: { dropGrams } }) => (gramsPer100 * cup) / 100 / dropGrams));
  const colours = ['#6f7f62', '#8a8a6a', '#9aa07c', '#5c7d78'].map(linearFromHex);
  let moved = 0;
  for (const wanted of [target, ...colours]) {
    const [free, bound] = [findRecipes(ask({ target: wanted })), findRecipes(ask({ target: wanted, cupGrams: 60 }))];
    // Drops all of them, or, where no recipe is, none.
    const drops = bound.answers.map(({ recipe }) => least(recipe, 60) >= 0.75);
    expect(new Set(drops).size).toBe(1);
    if (drops[0] && free.answers.some(({ recipe }) => least(recipe, 60) < 0.75)) moved++;
    expect(bound.answers[0]!.recipe.deltaE).toBeGreaterThanOrEqual(free.answers[0]!.recipe.deltaE - 1e-9);
  }
  expect(moved).toBeGreaterThan(0);
  // Where nothing is a drop, what there is is offered all the same.
  expect(findRecipes(ask({ target, cupGrams: 0.01 })).answers).toEqual(findRecipes(ask({ target })).answers);
});
test('no recipe holds a colourant that it takes nothing of', () => {
  for (const colour of ['#6f7f62', '#8a8a6a', '#9aa07c', '#5c7d78', '#7f7050']) {
    const { answers } = findRecipes(ask({ target: linearFromHex(colour), colourants: SHELF }));
    expect(answers.length).toBeGreaterThan(0);
    for (const { recipe } of answers)
      for (const { gramsPer100 } of recipe.doses) expect(gramsPer100).toBeGreaterThan(0.0002);
  }
});
test('an empty shelf has no answer, and clear water is told all the same', () =>
  expect(findRecipes(ask({ colourants: [] }))).toMatchObject({ answers: [], clear: { deltaE: expect.any(Number) } }));

test('a coat over cured water starts from what is seen there; a bed gets darker as it is wetted', () => {
  const over = ask({ colourants: [] });
  const [wet, cured] = [findRecipes(over).clear.light, findRecipes({ ...over, dryBed: true }).clear.light];
  expect(wet.green / cured.green).toBeCloseTo(0.93, 9);
});
