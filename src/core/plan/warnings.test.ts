import { colourIn } from '../pouring/portions';
import { testPiece } from '../bed/testShapes';
import type { Feature } from '../model/designSchema';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { smallestDropMixGrams, type RecipeDose } from '../tint/doses';
import type { Colourant } from '../model/recipeSchema';
import { LEVEL_BENCH, planBatch, type PlanRequest } from '.';
import { testBench, testRequest } from './testRequest';

const ink: Colourant & { id: string } = {
  id: 'ink',
  name: 'Green ink',
  kind: 'ink',
  absorption: { red: 1, green: 0.3, blue: 0.7 },
  dropGrams: 0.035,
  bottleGrams: 30,
  bottlePrice: 6,
};
const basin: Feature = { kind: 'basin', id: 'b', rimMm: 20, depthMm: 4 };
const request = (change: Partial<PlanRequest> = {}): PlanRequest =>
  testRequest({ bench: testBench({ cupGrams: 400 }), ...change });
const said = (change: Partial<PlanRequest>, code: string): { message: string; mend: string } => {
  const problem = planBatch(request(change)).problems.find((candidate) => candidate.code === code);
  if (!problem) throw new Error(`${code} is not said`);
  return {
    message: problem.message.replace(/\u00a0/g, ' '),
    mend: (problem.mend?.label ?? '').replace(/\u00a0/g, ' '),
  };
};
const tint = (gramsPer100: number): PlanRequest['recipe'] => ({
  id: 'recipe',
  name: 'Tint',
  doses: [{ colourant: ink, gramsPer100 }],
});

describe('warnings say what is wrong in figures, and what mends it', () => {
  test('a cloudy colourant says from which depth on the bed is lost, a clear one says nothing', () => {
    const white = { ...ink, id: 'w', name: 'White', kind: 'acrylic paint' as const };
    const scattering = { red: 1.6, green: 1.7, blue: 1.8 };
    const milky = { id: 'r', name: 'Milk', doses: [{ colourant: { ...white, scattering }, gramsPer100: 0.8 }] };
    const { message } = said({ recipe: milky }, 'cloudy-colourant');
    expect(message).toMatch(
      /^White makes the water cloudy: below [0-3]\.\d mm nothing of the bed is seen, and the deepest is 4\.0 mm\.$/,
    );
    expect(planBatch(request({ recipe: tint(0.8) })).problems.map(({ code }) => code)).not.toContain(
      'cloudy-colourant',
    );
    const breath = { ...milky, doses: [{ ...milky.doses[0]!, gramsPer100: 0.001 }] };
    expect(planBatch(request({ recipe: breath })).problems.map(({ code }) => code)).not.toContain('cloudy-colourant');
  });
  test('drops', () => {
    // 25 g of mix at 0.1 g per 100 g wants 0.7 drops: one is 40 % too much.
    const small = testPiece([
      {
        kind: 'pool',
        id: 'p',
        xMm: 70,
        yMm: 70,
        widthMm: 62,
        lengthMm: 62,
        depthMm: 4,
        section: 'trapezoid',
        bankSlope: 0.5,
      },
    ]);
    const { message, mend } = said({ pieces: [small], recipe: tint(0.2) }, 'drops-too-coarse');
    expect(message).toMatch(
      /^Whole drops would miss the recipe in one dose, by \d+(\.\d)? % at worst: its cup says what to take instead/,
    );
    expect(mend).toBe('The smallest cup in which drops come out right is 16.0 g.');
  });
  test('water in the mix', () =>
    expect(said({ recipe: tint(1.4) }, 'too-much-water').message).toBe(
      'The recipe is 1.4 % water-based colourant; over 1.0 % resin turns cloudy or stays sticky.',
    ));
  test('colourant in all', () =>
    expect(
      said(
        {
          recipe: { id: 'recipe', name: 'x', doses: [{ colourant: { ...ink, kind: 'resin dye' }, gramsPer100: 3.5 }] },
        },
        'too-much-colourant',
      ).message,
    ).toContain('3.5 % colourant; over 3.0 %'));
  test('a coarse scale', () => {
    const { message } = said(
      { bench: { windows: [], exceptions: [], cupGrams: 400, scaleStepGrams: 2, pricePerCup: 0, tilt: LEVEL_BENCH } },
      'scale-too-coarse',
    );
    expect(message).toMatch(
      /The smallest cup is 4\d\.\d g\. A scale that shows 2\.00 g gets the ratio right within 1 % from 21\d\.\d g up\./,
    );
  });
  test('a cold room', () =>
    expect(said({ room: { temperatureC: 11, humidity: 0.5 } }, 'cold-room')).toEqual({
      message: 'At 11.0 °C many resins cure cloudy or stay soft.',
      mend: 'Warm the room and the bottles to 20 °C or more, and keep them there until demould.',
    }));
  test('too many layers of a glue', () =>
    expect(said({ product: PRODUCT_KINDS[5]! }, 'too-many-layers').message).toBe(
      'Clear-drying glue stays clear for 3 layers, 1.5 mm in all; this bed needs 8.',
    ));
  test('a glue that sets in the cup', () =>
    expect(said({ product: PRODUCT_KINDS[3]! }, 'pot-life-limits').message).toMatch(
      /one cup of five-minute glue may hold \d+\.\d g at most/,
    ));
  test('a dry piece', () =>
    expect(said({ set: { name: 'S', figureScaleMm: 28, levelMm: 10 } }, 'dry').message).toContain('T-1 stays dry'));
  test('water too near the brim of its own land', () => {
    const { message } = said({ pieces: [testPiece([basin], { landMm: 15.3 })] }, 'near-brim');
    expect(message).toBe('The water of T-1 stands 0.3 mm below running over the land.');
  });
});

test('the caution comes with the kind of product, the label always first', async () => {
  const { pourCautions } = await import('../cure/cautions');
  for (const product of PRODUCT_KINDS) expect(pourCautions(product)[0]).toContain('label and safety data sheet');
  expect(pourCautions(PRODUCT_KINDS[0]!).join(' ')).toMatch(/Gloves.*Flame.*dust mask/s);
  expect(pourCautions(PRODUCT_KINDS[4]!).join(' ')).toContain('lamp');
});

describe('a recipe that is poured lighter towards the top', () => {
  const pours = [
    { thicknessMm: 1, strength: 0.5 },
    { thicknessMm: null, strength: 2 },
  ];
  const recipe = { ...tint(0.1), pours };
  test('is dosed layer by layer, and nothing of it is lost in the sum', () => {
    const { layers, totals } = planBatch(request({ recipe }));
    expect(layers.map(({ strength }) => strength)).toEqual([2, 0.5]);
    for (const { strength = 1, mixGrams, doses, cups } of layers) {
      expect(doses[0]!.grams).toBeCloseTo((0.1 * strength * mixGrams) / 100, 9);
      expect(cups.reduce((sum, cup) => sum + cup.doses[0]!.grams, 0)).toBeCloseTo(doses[0]!.grams, 9);
    }
    expect(totals.doses[0]!.grams).toBeCloseTo(
      // As it is measured in each cup, and what of a premix goes into none.
      layers.reduce(
        (sum, { cups, tintLeft }) =>
          sum + colourIn([tintLeft, ...cups.flatMap(({ portions }) => portions)], totals.doses[0]!.id),
        0,
      ),
      9,
    );
  });
  test('counts its strongest layer against the limits', () =>
    expect(said({ recipe: { ...tint(0.6), pours } }, 'too-much-water').message).toMatch(/^The recipe is 1.2 % water/));
  test('says which pieces have height for the top pour only', () => {
    const thick = [{ thicknessMm: 6, strength: 0 }, pours[1]!];
    expect(said({ recipe: { ...tint(0.1), pours: thick } }, 'shallower-than-top-pour').message).toMatch(
      /no deeper than the top pour/,
    );
  });
});

describe('a recipe whose pours have colourants of their own', () => {
  const [{ colourant }] = tint(0.1).doses as [RecipeDose];
  const umber = { ...colourant, id: 'umber', name: 'Umber', kind: 'resin dye' as const };
  const recipe = {
    ...tint(0.1),
    doses: [
      { colourant, gramsPer100: 0.1 },
      { colourant: umber, gramsPer100: 0 },
    ],
    pours: [
      { thicknessMm: 1, strength: 0.5 },
      { thicknessMm: null, strength: 1, own: { [colourant.id]: 0, umber: 0.3 } },
    ],
  };
  test('doses each layer by its own, and the batch by their sum', () => {
    const { layers, totals, mix } = planBatch(request({ recipe }));
    const [low, top] = layers;
    expect(low!.own).toEqual({ [colourant.id]: 0, umber: 0.3 });
    expect(low!.doses.map(({ grams }) => grams)).toEqual([0, expect.closeTo(0.003 * low!.mixGrams, 9)]);
    expect(top!.doses.map(({ grams }) => grams)).toEqual([expect.closeTo(0.0005 * top!.mixGrams, 9), 0]);
    expect(totals.doses.map(({ id, grams }) => [id, grams])).toEqual([
      // A drop of ink is too much for the top: one is stirred into a premix, and what is not taken of it is left.
      [colourant.id, expect.closeTo(top!.doses[0]!.grams + top!.tintLeft.colours[0]!.grams, 9)],
      // Three whole drops for 0.107 g.
      ['umber', expect.closeTo(3 * 0.035, 9)],
    ]);
    // The top pour at half the dose is the one in which drops come out right last.
    expect(mix.smallestForDropsGrams).toBeCloseTo(smallestDropMixGrams([{ colourant, gramsPer100: 0.05 }])!, 9);
  });
  test('counts the one with the most against the limits', () => {
    const pours = [recipe.pours[0]!, { ...recipe.pours[1]!, own: { [colourant.id]: 1.4 } }];
    expect(said({ recipe: { ...recipe, pours } }, 'too-much-water').message).toMatch(/^The recipe is 1.4 % water/);
  });
});

test('a tinted lamp product says how deep the lamp still hardens it', () => {
  const lamp = PRODUCT_KINDS.find(({ cureModel }) => cureModel === 'lamp')!;
  // Blue is swallowed by 0.7 × 0.5 + 0.009 per mm: 30 % of it after 1.0 mm.
  expect(said({ product: lamp, recipe: tint(0.5) }, 'lamp-too-dark').message).toMatch(/hardens about 1\.0 mm/);
  expect(planBatch(request({ product: lamp, recipe: tint(0.01) })).problems.map(({ code }) => code)).not.toContain(
    'lamp-too-dark',
  );
});

describe('a layer that misses one cup fewer by a hair', () => {
  const pieces = [testPiece([basin], { copies: 6 })];
  /** A cup that holds so much less than the whole layer. */
  const cupGrams = (less: number): number =>
    planBatch(request({ pieces, bench: testBench({ cupGrams: 5000 }) })).layers.at(-1)!.cups[0]!.mixGrams - less;
  const slow = PRODUCT_KINDS[0]!;
  test('says by how much, which cup would do, and by how much lower it does', () => {
    const whole = planBatch(request({ product: slow, pieces, bench: testBench({ cupGrams: 5000 }) })).layers[0]!.cups;
    expect(whole).toHaveLength(1);
    const bench = testBench({ cupGrams: whole[0]!.mixGrams - 3 });
    const { message, mend } = said({ product: slow, pieces, bench }, 'cup-by-a-hair');
    expect(message).toMatch(/^Layer 1 misses one cup fewer by 2\.9 g: with a cup that holds \d+ g one does/);
    expect(mend).toMatch(/^Lower the level by 0\.\d mm$/);
    // The mend that is offered holds.
    const problem = planBatch(request({ product: slow, pieces, bench })).problems.find(
      ({ code }) => code === 'cup-by-a-hair',
    )!;
    const levelMm = (problem.mend as { value: number }).value;
    const lowered = planBatch(request({ product: slow, pieces, bench, set: { ...request().set, levelMm } }));
    expect(lowered.layers[0]!.cups).toHaveLength(1);
  });
  test('is not spoken of where a cup is missed by more', () => {
    const bench = testBench({ cupGrams: cupGrams(60) });
    expect(planBatch(request({ pieces, bench })).problems.map(({ code }) => code)).not.toContain('cup-by-a-hair');
  });
});

describe('a big mass in one layer', () => {
  const slow = PRODUCT_KINDS[0]!;
  const deep = (depthMm: number, change: object = {}): PlanRequest =>
    request({
      product: slow,
      pieces: [testPiece([{ ...basin, rimMm: 2, depthMm } as Feature], { landMm: 60, drawnLevelMm: 55, ...change })],
      set: { name: 'S', figureScaleMm: 28, levelMm: 55 },
    });
  const heats = (asked: PlanRequest) => planBatch(asked).problems.find(({ code }) => code === 'heats-up');
  test('is told where it is thick as well, with the piece and how much', () => {
    const problem = heats(deep(24));
    expect(problem?.message.replace(/\u00a0/g, ' ')).toMatch(
      /^Layer 1 puts \d+\.\d g of slow casting epoxy into T-1 at once, 24\.2 mm thick/,
    );
  });
  test('is no matter where the layer is thin, the piece small, or the product sets under a lamp', () => {
    expect(heats(deep(12))).toBeUndefined();
    expect(heats(deep(24, { outline: { kind: 'rectangle', widthMm: 60, lengthMm: 60 } }))).toBeUndefined();
    expect(
      heats({ ...deep(24), product: PRODUCT_KINDS.find(({ id }) => id === 'light-cured-resin')! }),
    ).toBeUndefined();
  });
});
