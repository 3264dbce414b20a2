import fc from 'fast-check';
import { METRIC } from '../units/formatMeasure';
import {
  colourIn,
  colourPortions,
  cupPortions,
  dropsDo,
  fromBottle,
  layerPortions,
  leftOfTint,
  lossesOf,
  ofStockGrams,
  portionsOfKept,
  type Mixture,
  type Portion,
} from './portions';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { colourPortionsOf, partGrams, portionWords, readerOf, stockWords, type Reader } from './portionWords';
import { stockPart, stockTint, tintings, type Tinting } from './stockTint';

const ink = (gramsPer100: number, id = 'ink', dropGrams = 0.04): Tinting => ({ id, name: id, dropGrams, gramsPer100 });
const mixture = (recipe: readonly Tinting[], change: Partial<Mixture> = {}): Mixture => ({
  recipe,
  resinShare: 2 / 3,
  scaleStepGrams: 0.1,
  ...change,
});
const ways = (portions: readonly Portion[]): string[] => portions.map(({ way }) => way);
const resinOf = (portions: readonly Portion[]): number =>
  portions.reduce(
    (sum, { way, grams, resinGrams }) => sum + (way === 'part A' || way === 'product' ? grams : resinGrams),
    0,
  );
const colourOf = (portions: readonly Portion[], id: string): number =>
  portions.flatMap(({ colours }) => colours).reduce((sum, one) => sum + (one.id === id ? one.grams : 0), 0);

const recipes = fc
  .array(
    fc.record({
      grams: fc.double({ min: 0.01, max: 2, noNaN: true }),
      drop: fc.double({ min: 0.02, max: 0.06, noNaN: true }),
    }),
    { maxLength: 3 },
  )
  .map((all) => all.map(({ grams, drop }, i) => ink(grams, `c${i}`, drop)));
const mixtures = fc
  .record({
    recipe: recipes,
    scaleStepGrams: fc.constantFrom(0.01, 0.1, 0.5, 1),
    resinShare: fc.constantFrom(0.5, 2 / 3, 1),
  })
  .map((all): Mixture => all);

describe('how a colourant is measured in one cup', () => {
  // 0.1 g in 100 g, 0.04 g a drop.
  const one = (mixGrams: number, change: Partial<Mixture> = {}) =>
    colourPortionsOf(cupPortions(mixGrams, mixture([ink(0.1)], change), null))[0]!;
  test('by drops where they come out right', () =>
    expect(one(80)).toMatchObject({ way: 'drops', drops: 2, grams: 0.08 }));
  test('by weight where the scale shows it to a tenth', () => {
    expect(one(60, { scaleStepGrams: 0.01 })).toMatchObject({ way: 'weight', grams: expect.closeTo(0.06, 12) });
  });
  test('by a premix where it does not; the drops weigh something themselves', () => {
    const premix = one(60);
    // Two drops for 0.06 g; into 2 g, so that both are read well.
    expect(premix).toMatchObject({ way: 'premix', drops: 2, intoGrams: 2 });
    expect(premix.grams).toBeCloseTo((2.08 * 0.06) / 0.08, 12);
    expect(premix.resinGrams).toBeCloseTo((2 * 0.06) / 0.08, 12);
    expect(premix.resinGrams + premix.colours[0]!.grams).toBeCloseTo(premix.grams, 12);
  });
  test('what nothing measures is said, not forgotten', () => {
    expect(one(1)).toMatchObject({ way: 'too little', grams: 0, wantGrams: 0.001 });
  });
});

describe('a cup', () => {
  test('of three inks keeps its ratio: what comes along is part of A, and some of A is left to weigh', () => {
    // Three premixes of 5 g once stood beside a part A of 11.59 g.
    const portions = cupPortions(17.38, mixture([ink(0.1, 'a'), ink(0.1, 'b'), ink(0.1, 'c')]), null);
    expect(ways(portions)).toEqual(['part A', 'premix', 'premix', 'premix', 'part B']);
    expect(portions[0]!.grams).toBeGreaterThan(5);
    expect(resinOf(portions)).toBeCloseTo((17.38 * 2) / 3, 9);
    expect(portions.at(-1)!.showsGrams).toBeCloseTo(17.38 + 3 * 0.01738, 9);
  });

  test('whatever is in it: the ratio is exact, each colourant is right to a tenth or said to be missing', () => {
    fc.assert(
      fc.property(mixtures, fc.double({ min: 3, max: 400, noNaN: true }), (made, mixGrams) => {
        const portions = cupPortions(mixGrams, made, null);
        expect(resinOf(portions)).toBeCloseTo(mixGrams * made.resinShare, 6);
        const b = portions.find(({ way }) => way === 'part B')?.grams ?? 0;
        expect(resinOf(portions) + b).toBeCloseTo(mixGrams, 6);
        for (const { id, gramsPer100 } of made.recipe) {
          const want = (gramsPer100 * mixGrams) / 100;
          const missing = portions.some(({ colours, way }) => way === 'too little' && colours[0]!.id === id);
          if (missing) expect(colourOf(portions, id)).toBe(0);
          else expect(Math.abs(colourOf(portions, id) / want - 1)).toBeLessThan(0.1 + 1e-9);
        }
        // At most half of the resin part comes along with the tint, and a reading is the sum of what is in.
        const brought = portions.reduce((sum, { resinGrams }) => sum + resinGrams, 0);
        expect(brought).toBeLessThanOrEqual((mixGrams * made.resinShare) / 2 + 1e-9);
        let shows = 0;
        for (const portion of portions) expect(portion.showsGrams).toBeCloseTo((shows += portion.grams), 9);
      }),
      { numRuns: 300 },
    );
  });

  test('topped up for a larger mix, only what is missing goes in', () => {
    const have = new Map([['ink', 0.08]]);
    const recipe = mixture([ink(0.1)]);
    expect(colourPortions(84, recipe, null, { have, roomGrams: 0 })).toEqual([]);
    expect(colourPortions(120, recipe, null, { have, roomGrams: 0 })).toMatchObject([{ way: 'drops', drops: 1 }]);
    expect(colourPortions(100, recipe, null, { have, roomGrams: 10 })).toMatchObject([{ way: 'premix', drops: 1 }]);
    expect(colourPortions(100, recipe, null, { have, roomGrams: 0 })).toMatchObject([{ way: 'too little' }]);
  });
});

describe('the cups of a layer', () => {
  test('share a stock where drops miss: as few drops as do for them', () => {
    const made = layerPortions([20, 20, 20], mixture([ink(0.1, 'ink', 0.035)]));
    // 66 g with a tenth to spare are 1.9 drops; two do for 70 g.
    expect(made.stock).toMatchObject({ drops: [{ drops: 2 }], forMixGrams: expect.closeTo(70, 9), resinGrams: 5 });
    for (const portions of made.cups) expect(ways(portions)).toEqual(['part A', 'stock', 'part B']);
    expect(made.cups[0]![1]!.grams).toBeCloseTo(1.4, 9);
    const used = made.cups.flat().reduce((sum, { resinGrams }) => sum + resinGrams, 0);
    expect(made.tintLeft.resinGrams).toBeCloseTo(5 - used, 9);
  });
  test('a stock takes no more resin than its cups do; where it would, there is none', () => {
    const made = layerPortions([22, 22], mixture([ink(0.002)]));
    expect(made.stock).toBeNull();
    expect(stockTint([ink(0.002)], [22, 22], mixture([]))).toBeNull();
    expect(ways(made.cups[0]!)).toContain('too little');
  });
  test('one cup that is too small for its premixes has a stock of its own', () => {
    const made = layerPortions([16], mixture([ink(0.3, 'a'), ink(0.3, 'b'), ink(0.3, 'c')], { scaleStepGrams: 0.5 }));
    expect(made.stock).not.toBeNull();
    expect(ways(made.cups[0]!)).toEqual(['part A', 'stock', 'part B']);
  });
  test('are counted in drops where all come out right, without any stock', () =>
    expect(layerPortions([80, 120], mixture([ink(0.1)]))).toMatchObject({
      stock: null,
      tintLeft: { resinGrams: 0, colours: [] },
      cups: [
        [{}, {}, { way: 'drops', drops: 2 }],
        [{}, {}, { way: 'drops', drops: 3 }],
      ],
    }));

  test('what was made of a stock is in the cups or left, to the gram, resin and colour', () => {
    fc.assert(
      fc.property(
        mixtures,
        fc.array(fc.double({ min: 10, max: 200, noNaN: true }), { minLength: 1, maxLength: 6 }),
        (made, mixes) => {
          const { stock, cups, tintLeft } = layerPortions(mixes, made);
          const portions = cups.flat();
          const takenOfStock = portions.reduce((sum, { way, grams }) => sum + (way === 'stock' ? grams : 0), 0);
          expect(takenOfStock).toBeLessThanOrEqual((stock?.stockGrams ?? 0) + 1e-9);
          const brought = portions.reduce((sum, { resinGrams }) => sum + resinGrams, 0);
          const premixed = portions.reduce((sum, { intoGrams }) => sum + intoGrams, 0);
          expect(brought + tintLeft.resinGrams).toBeCloseTo((stock?.resinGrams ?? 0) + premixed, 6);
          // No tint takes more resin than the cups of its layer do, but for a small one.
          if (stock) {
            const resin = mixes.reduce((sum, mix) => sum + mix * made.resinShare, 0);
            expect(stock.resinGrams).toBeLessThanOrEqual(Math.max(10, resin) + 1e-9);
          }
          for (const { id, gramsPer100 } of made.recipe)
            mixes.forEach((mix, i) => {
              const want = (gramsPer100 * mix) / 100;
              const put = colourOf(cups[i]!, id);
              if (put > 0) expect(Math.abs(put / want - 1)).toBeLessThan(stock ? 0.16 : 0.1 + 1e-9);
            });
        },
      ),
      { numRuns: 300 },
    );
  });
  test('nothing was made, nothing is left', () =>
    expect(leftOfTint([], cupPortions(80, mixture([ink(0.1)]), null))).toEqual({ resinGrams: 0, colours: [] }));
});

describe('a portion in words', () => {
  const reader: Reader = { units: METRIC, scaleStepGrams: 0.1, twoPart: true, densityByVolume: null };
  const words = (mixGrams: number, change: Partial<Mixture> = {}, say: Partial<typeof reader> = {}) =>
    portionWords(colourPortionsOf(cupPortions(mixGrams, mixture([ink(0.1)], change), null))[0]!, { ...reader, ...say });
  test('is whole drops where they come out right', () =>
    expect(words(80)).toEqual({ act: '2 drops', note: '0.080\u00a0g', care: false }));
  test('is weighed where the scale shows it', () =>
    expect(words(64, { scaleStepGrams: 0.01 })).toEqual({
      act: 'weigh 0.064\u00a0g',
      note: 'drops would miss it',
      care: true,
    }));
  test('else is stirred into some of part A first, of which a share is taken and counts as part A', () => {
    expect(words(60).act).toBe('2 drops in 2.0\u00a0g of part\u00a0A, take 1.6\u00a0g');
    expect(words(60).note).toBe('0.060\u00a0g is less than your scale shows; 1.5\u00a0g of it count as part\u00a0A');
    expect(words(60, { resinShare: 1 }, { twoPart: false }).act).toContain('of the product');
  });
  test('has the decimals of the scale, in the maker’s own unit', () => {
    expect(words(60, { scaleStepGrams: 1 }, { scaleStepGrams: 1 }).act).toMatch(
      /in 10\u00a0g of part\u00a0A, take 8\u00a0g$/,
    );
    expect(words(60, {}, { units: { ...METRIC, mass: 'oz' } }).act).toMatch(
      /in 0\.071\u00a0oz of part\u00a0A, take 0\.056\u00a0oz$/,
    );
  });
  test('by volume in ml, of no scale', () => {
    const byVolume = { densityByVolume: 1.1 };
    expect(words(20, {}, byVolume).act).toMatch(/in \d+\.\d\u00a0ml of part\u00a0A, take \d+\.\d\u00a0ml$/);
    expect(words(20, {}, byVolume).note).toMatch(/is less than one drop; .*\u00a0ml of it count as part/);
    expect(words(20).note).toMatch(/is less than your scale shows/);
    const { stock } = layerPortions([20, 20, 20], mixture([ink(0.1)]));
    expect(stockWords(stock!, { ...reader, ...byVolume })).toBe('2 drops of ink in 4.5\u00a0ml of part\u00a0A');
    expect(readerOf(PRODUCT_KINDS[0]!, { units: METRIC, scaleStepGrams: 0.1, by: 'volume' }).densityByVolume).toBe(
      1.12,
    );
    expect(readerOf(PRODUCT_KINDS[5]!, { units: METRIC, scaleStepGrams: 0.1, by: 'volume' })).toMatchObject({
      twoPart: false,
      densityByVolume: 1.07,
    });
  });
  test('a stock says how it is made', () =>
    expect(stockWords(layerPortions([20, 20, 20], mixture([ink(0.1)])).stock!, reader)).toBe(
      '2 drops of ink in 5.0\u00a0g of part\u00a0A',
    ));
});

describe('a stock tint by hand', () => {
  test('two inks: as few drops of the rarest as stand for both, and what it weighs altogether', () => {
    // A drop of a is good for 35 g of mix, one of b for 140: one of b and four of a are exact.
    const stock = stockTint([ink(0.1, 'a', 0.035), ink(0.025, 'b', 0.035)], [60, 60], {
      scaleStepGrams: 0.1,
      resinShare: 0.5,
    })!;
    expect(stock.drops.map(({ id, drops, grams }) => [id, drops, grams])).toEqual([
      ['a', 4, 0.14],
      ['b', 1, 0.035],
    ]);
    expect(stock).toMatchObject({ forMixGrams: expect.closeTo(140, 9), worstError: expect.closeTo(0, 9) });
    expect(stock.stockGrams).toBeCloseTo(stock.resinGrams + 0.175, 9);
    expect(stock.resinGrams).toBe(5);
  });
  test('resin enough that the smallest cup’s share is read on the scale', () => {
    // Ten steps of 0.5 g out of what tints 87.5 g, for a cup of 20 g: 21.9 g of stock.
    const stock = stockTint([ink(0.1, 'ink', 0.035)], [20, 60], { scaleStepGrams: 0.5, resinShare: 1 })!;
    expect(stock.forMixGrams).toBeCloseTo(105, 9);
    expect(stock.resinGrams).toBe(27);
  });
  test('no recipe or no mix, no stock', () => {
    const scale = { scaleStepGrams: 0.1, resinShare: 0.5 };
    expect(stockTint([], [20, 20], scale)).toBeNull();
    expect(stockTint([ink(0.1)], [], scale)).toBeNull();
    expect(stockTint([ink(0.1)], [0, 0], scale)).toBeNull();
  });
  test('goes into part A at its share of the label, or into a one-part product', () => {
    const parts = { ratioA: 3, ratioB: 1, ratioBy: 'weight' as const, densityA: 1, densityB: 1 };
    expect(stockPart({ parts })).toEqual({ name: 'part A', share: 0.75 });
    expect(stockPart({ parts: null })).toEqual({ name: 'the product', share: 1 });
  });
});

describe('a cup that a stock has too little for', () => {
  const made = layerPortions([20, 20, 20], mixture([ink(0.1, 'ink', 0.035)]));
  const of = (leftGrams: number) =>
    colourPortionsOf(cupPortions(20, mixture([ink(0.1, 'ink', 0.035)]), { stock: made.stock!, leftGrams }));
  test('takes the last of it where that does, and is tinted by itself where it does not', () => {
    const [share] = of(made.stock!.stockGrams);
    expect(share).toMatchObject({ way: 'stock', grams: expect.closeTo(1.4, 9) });
    expect(of(share!.grams)[0]!.way).toBe('stock');
    expect(of(share!.grams - 0.1)[0]!.way).toBe('premix');
  });
  test('a stock that has been used up leaves nothing', () => {
    const { stock } = made;
    const all = [
      { way: 'stock' as const, intoGrams: 0, resinGrams: stock!.resinGrams, colours: [{ id: 'ink', grams: 0.07 }] },
    ];
    expect(leftOfTint([stock!], all)).toEqual({ resinGrams: 0, colours: [] });
    expect(leftOfTint([stock!], [])).toEqual({ resinGrams: 5, colours: [{ id: 'ink', grams: 0.07 }] });
  });
  test('of a premix is left what was not taken of it, in resin and in colour', () => {
    // Two drops, 0.08 g, in 2 g; three quarters of it are taken.
    const premix = { way: 'premix' as const, intoGrams: 2, resinGrams: 1.5, colours: [{ id: 'ink', grams: 0.06 }] };
    expect(leftOfTint([], [premix])).toEqual({
      resinGrams: 0.5,
      colours: [{ id: 'ink', grams: expect.closeTo(0.02, 9) }],
    });
  });
});

describe('what an earlier run left of a stock', () => {
  const recipe = mixture([ink(0.1, 'ink', 0.035)]);
  const { stock } = layerPortions([20, 20, 20], recipe);
  // Each cup of 20 g takes 1.4 g of it.
  const kept = (leftGrams: number, mixes: number[]) => portionsOfKept(mixes, recipe, { stock: stock!, leftGrams });
  test('tints all cups that it is enough for, one after the other, and none where it is not', () => {
    expect(kept(2.8, [20, 20])!.map(ofStockGrams)).toEqual([expect.closeTo(1.4, 9), expect.closeTo(1.4, 9)]);
    expect(kept(2.7, [20, 20])).toBeNull();
    expect(kept(1.4, [20])!.map(ways)).toEqual([['part A', 'stock', 'part B']]);
    expect(kept(0, [20])).toBeNull();
  });
});

test('only of what is one part and has nothing in it is nothing lost in a cup', () => {
  const losses = { perCupGrams: 3, perPieceGrams: 0.5, share: 0.02 };
  const bare = { perCupGrams: 0, perPieceGrams: 0, share: 0.02 };
  const { parts } = PRODUCT_KINDS.find((kind) => kind.parts !== null)!;
  expect(lossesOf({ parts: null }, [], losses)).toEqual(bare);
  expect(lossesOf({ parts: null }, [{ gramsPer100: 0 }], losses)).toEqual(bare);
  expect(lossesOf({ parts: null }, [{ gramsPer100: 0 }, { gramsPer100: 0.1 }], losses)).toBe(losses);
  expect(lossesOf({ parts }, [], losses)).toBe(losses);
  const product = [{ way: 'product' as const }];
  expect(fromBottle({ product: { parts: null } }, { portions: product })).toBe(true);
  expect(fromBottle({ product: { parts: null } }, { portions: [...product, { way: 'drops' as const }] })).toBe(false);
  expect(fromBottle({ product: { parts } }, { portions: product })).toBe(false);
});

test('whole drops do for a mix when they do for every colourant', () => {
  // 0.04 g a drop: 40 g take one drop of the first, 1.3 of the second.
  expect(dropsDo([ink(0.1)], 40)).toBe(true);
  expect(dropsDo([ink(0.1), ink(0.13)], 40)).toBe(false);
  expect(dropsDo([ink(0.13)], 40)).toBe(false);
  expect(dropsDo([], 40)).toBe(true);
});

test('of a cup that lacks half of its tint a stock gives half a share', () => {
  const recipe = mixture([ink(0.1, 'ink', 0.035)]);
  const { stock } = layerPortions([40, 40], recipe);
  const whole = colourPortions(40, recipe, { stock: stock!, leftGrams: 100 }, { have: new Map(), roomGrams: 20 });
  const half = colourPortions(
    40,
    recipe,
    { stock: stock!, leftGrams: 100 },
    { have: new Map([['ink', 0.02]]), roomGrams: 20 },
  );
  expect(half[0]!.grams).toBeCloseTo(whole[0]!.grams / 2, 1);
  expect(half[0]!.way).toBe('stock');
});

test('a recipe is tinted by those of its colourants that there is any of', () => {
  const colourant = { id: 'ink', name: 'Ink', dropGrams: 0.04 } as Parameters<typeof tintings>[0][number]['colourant'];
  expect(tintings([{ colourant, gramsPer100: 0.1 }])).toEqual([
    { id: 'ink', name: 'Ink', dropGrams: 0.04, gramsPer100: 0.1 },
  ]);
  expect(tintings([{ colourant, gramsPer100: 0 }])).toEqual([]);
});

test('what of a colourant is in portions, what of a stock, what of each part', () => {
  const portions = layerPortions([20, 20], mixture([ink(0.1, 'a', 0.035), ink(0.2, 'b', 0.035)])).cups[0]!;
  const stock = portions.find(({ way }) => way === 'stock')!;
  expect(ofStockGrams(portions)).toBe(stock.grams);
  expect(colourIn(portions, 'a')).toBeCloseTo(stock.colours[0]!.grams, 12);
  expect(colourIn(portions, 'b')).toBeCloseTo(stock.colours[1]!.grams, 12);
  expect(colourIn(portions, 'none')).toBe(0);
  expect(partGrams(portions, 'part A')).toBe(portions[0]!.grams);
  expect(partGrams(portions, 'part B')).toBeCloseTo(20 / 3, 9);
  expect(partGrams(portions, 'product')).toBe(0);
});
test('parts of the product are told in grams, and need no care', () => {
  const [a, ...rest] = cupPortions(80, mixture([ink(0.1)]), null);
  const reader: Reader = { units: METRIC, scaleStepGrams: 0.1, twoPart: true, densityByVolume: null };
  expect(portionWords(a!, reader)).toEqual({ act: '53.3\u00a0g', note: '', care: false });
  expect(portionWords(rest[0]!, reader)).toEqual({ act: '26.7\u00a0g', note: '', care: false });
  const stocked = layerPortions([20, 20, 20], mixture([ink(0.1)])).cups[0]![1]!;
  expect(portionWords(stocked, reader).care).toBe(true);
  const tooLittle = colourPortionsOf(cupPortions(1, mixture([ink(0.1)]), null))[0]!;
  expect(portionWords(tooLittle, reader)).toMatchObject({ act: '0.001\u00a0g: too little to measure', care: true });
});

test('what is poured straight out of its bottle loses nothing in a cup; what is mixed or tinted does', () => {
  const [epoxy, glue] = [PRODUCT_KINDS[0]!, PRODUCT_KINDS[5]!];
  const losses = { perCupGrams: 1.5, perPieceGrams: 0.3, share: 0.02 };
  expect(lossesOf(glue, [], losses)).toEqual({ perCupGrams: 0, perPieceGrams: 0, share: 0.02 });
  expect(lossesOf(glue, [{ gramsPer100: 0 }], losses).perCupGrams).toBe(0);
  expect(lossesOf(glue, [{ gramsPer100: 0.1 }], losses)).toEqual(losses);
  expect(lossesOf(epoxy, [], losses)).toEqual(losses);
});
