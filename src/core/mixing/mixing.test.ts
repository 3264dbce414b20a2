import fc from 'fast-check';
import { splitIntoCups, type Pour } from './cups';
import { gradientPours } from '../tint/waterTint';
import { splitLayers } from './layers';
import { mixForPour, pourFromMix, smallestMixGrams, TYPICAL_LOSSES } from './losses';
import { mostMixGrams, PER_PIECE_MINUTES, potLifeMinutes, pouredInTime, pouringMinutes, usualPace } from './potLife';
import { productSchema, type Parts, type Product } from '../model/productSchema';
import { PRODUCT_KINDS } from './productKinds';
import { mixedDensity, ratioByVolume, ratioByWeight, ratioReading, splitParts } from './ratio';

const kind = (name: string): Product => PRODUCT_KINDS.find((product) => product.name === name)!;
const partsOf = (name: string): Parts => kind(name).parts!;
const anyParts = fc.record({
  ratioA: fc.double({ min: 0.2, max: 10, noNaN: true }),
  ratioB: fc.double({ min: 0.2, max: 10, noNaN: true }),
  ratioBy: fc.constantFrom('weight' as const, 'volume' as const),
  densityA: fc.double({ min: 0.8, max: 2, noNaN: true }),
  densityB: fc.double({ min: 0.8, max: 2, noNaN: true }),
});

describe('both schools of measuring', () => {
  test('2:1 by volume at 1.12 and 1.00 is 2.24:1 by weight', () => {
    expect(ratioByWeight(partsOf('Slow casting epoxy'))).toBeCloseTo(2.24);
    expect(ratioByVolume(partsOf('Slow casting epoxy'))).toBeCloseTo(2);
    expect(mixedDensity(partsOf('Slow casting epoxy'))).toBeCloseTo((2 * 1.12 + 1) / 3);
  });
  test('2:1 by weight at 1.13 and 1.00 is 1.770:1 by volume', () =>
    expect(ratioByVolume(partsOf('Quick clear epoxy'))).toBeCloseTo(1.7699, 4));
  test('parts add up to the mix, and their volumes to mix over density', () => {
    fc.assert(
      fc.property(anyParts, fc.double({ min: 1, max: 500, noNaN: true }), (parts, mix) => {
        const split = splitParts(mix, parts);
        expect(split.partAGrams + split.partBGrams).toBeCloseTo(mix, 8);
        expect((split.partAMl + split.partBMl) * mixedDensity(parts)).toBeCloseTo(mix, 6);
        expect(split.partAMl / split.partBMl).toBeCloseTo(ratioByVolume(parts), 6);
      }),
    );
  });
});

describe('a weighed cup', () => {
  const parts = partsOf('Quick clear epoxy');
  test('within 3 % is good', () => expect(ratioReading(20.5, 10, parts)).toMatchObject({ grade: 'good', add: null }));
  test('too much A: says how much B mends it', () => {
    const reading = ratioReading(22, 10, parts);
    expect(reading).toMatchObject({ grade: 'wrong', add: { part: 'B' } });
    expect(reading.add!.grams).toBeCloseTo(1);
    expect(reading.add!.newTotalGrams).toBeCloseTo(33);
  });
  test('5 % over is off, not wrong', () => expect(ratioReading(21, 10, parts).grade).toBe('off'));
  test('the mend always brings the ratio back', () => {
    fc.assert(
      fc.property(
        anyParts,
        fc.double({ min: 1, max: 99, noNaN: true }),
        fc.double({ min: 1, max: 99, noNaN: true }),
        (any, a, b) => {
          const { add } = ratioReading(a, b, any);
          if (add)
            expect(
              ratioReading(a + (add.part === 'A' ? add.grams : 0), b + (add.part === 'B' ? add.grams : 0), any).error,
            ).toBeCloseTo(0, 8);
        },
      ),
    );
  });
  test('an empty cup is refused', () => expect(() => ratioReading(0, 5, parts)).toThrow('more than 0'));
});

describe('losses', () => {
  test('42.8 g into one piece takes 45.5 g of mix', () =>
    expect(mixForPour(42.8, 1)).toBeCloseTo((42.8 + 0.3 + 1.5) / 0.98));
  test('pour and mix are each other’s inverse', () => expect(pourFromMix(mixForPour(31.4, 5), 5)).toBeCloseTo(31.4));
  test('a scale that shows 0.1 g weighs 1:1 right from 10 g, 1:4 from 25 g', () => {
    expect(smallestMixGrams(1, 0.1)).toBeCloseTo(10);
    expect(smallestMixGrams(0.25, 0.1)).toBeCloseTo(25);
    expect(smallestMixGrams(4, 0.1)).toBeCloseTo(25);
  });
});

describe('layers', () => {
  const coating = kind('Coating epoxy');
  test('a depth of one layer stays one', () => expect(splitLayers(10.2, 15, coating)).toHaveLength(1));
  test('each wet layer stays within the product’s greatest', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 60, noNaN: true }),
        fc.constantFrom(...PRODUCT_KINDS),
        (depth, product) => {
          const layers = splitLayers(70 - depth, 70, product);
          for (const layer of layers) expect(layer.wetMm).toBeLessThanOrEqual(product.greatestLayerMm + 1e-6);
          expect(layers.at(-1)!.toMm).toBe(70);
          expect(layers.reduce((sum, layer) => sum + layer.toMm - layer.fromMm, 0)).toBeCloseTo(depth, 9);
          expect((layers.length - 1) * product.greatestLayerMm * (1 - product.shrinkage)).toBeLessThan(depth + 1e-6);
        },
      ),
    );
  });
  test('exactly the greatest layer is one, a little more is two', () => {
    const cured = 5 * (1 - 0.015);
    expect(splitLayers(15 - cured, 15, coating)).toHaveLength(1);
    expect(splitLayers(15 - cured - 0.01, 15, coating)).toHaveLength(2);
  });
  test('no water, no layers', () => expect(splitLayers(15, 15, coating)).toEqual([]));
});

describe('cups', () => {
  const pour = (grams: number, copy = 1): Pour => ({ designId: 'hs-1', tag: 'HS-1', copy, grams });
  const pours = fc.array(fc.double({ min: 0.5, max: 150, noNaN: true }), { minLength: 1, maxLength: 40 });
  test('nothing is lost, no cup is overfull, no piece is split that fits a cup', () => {
    fc.assert(
      fc.property(pours, fc.double({ min: 30, max: 200, noNaN: true }), (amounts, most) => {
        const { cups, fewestPossible } = splitIntoCups(
          amounts.map((grams, i) => pour(grams, i + 1)),
          most,
        );
        const poured = new Map<number, number[]>();
        for (const cup of cups) {
          expect(cup.mixGrams).toBeLessThanOrEqual(most + 1e-6);
          for (const { copy, grams } of cup.pours) poured.set(copy, [...(poured.get(copy) ?? []), grams]);
        }
        amounts.forEach((grams, i) => {
          const got = poured.get(i + 1)!;
          expect(got.reduce((a, b) => a + b, 0)).toBeCloseTo(grams, 6);
          if (grams <= pourFromMix(most, 1)) expect(got).toHaveLength(1);
        });
        expect(cups.length).toBeGreaterThanOrEqual(fewestPossible);
      }),
    );
  });
  test('is the fewest where brute force can tell', () => {
    const room = pourFromMix(60, 0);
    fc.assert(
      fc.property(fc.array(fc.constantFrom(8, 14, 21, 27), { minLength: 1, maxLength: 6 }), (amounts) => {
        const { cups } = splitIntoCups(
          amounts.map((grams, i) => pour(grams, i + 1)),
          60,
        );
        expect(cups.length).toBe(fewestByBruteForce(amounts, room));
      }),
    );
  });
  test('pieces larger than a cup are parted so that their rests share one, and no fewer are claimed than can be', () => {
    const none = { perCupGrams: 0, share: 0, perPieceGrams: 0 };
    const two = splitIntoCups([pour(12.02, 1), pour(12.02, 2)], 10, none);
    expect([two.cups.length, two.fewestPossible]).toEqual([3, 3]);
    fc.assert(
      fc.property(fc.array(fc.double({ min: 1, max: 30, noNaN: true }), { minLength: 1, maxLength: 5 }), (amounts) => {
        const wanted = amounts.map((grams, i) => pour(grams, i + 1));
        const { cups, fewestPossible } = splitIntoCups(wanted, 14);
        expect(fewestPossible).toBeLessThanOrEqual(cups.length);
        const poured = cups.flatMap(({ pours: own }) => own).reduce((sum, { grams }) => sum + grams, 0);
        expect(poured).toBeCloseTo(
          amounts.reduce((sum, grams) => sum + grams, 0),
          6,
        );
        // Poured straight on from cup to cup, with no piece kept whole, as much takes at least so many.
        const fluid = Math.ceil(poured / pourFromMix(14, 0) - 1e-9);
        if (amounts.some((grams) => grams > pourFromMix(14, 1))) expect(fewestPossible).toBeGreaterThanOrEqual(fluid);
        if (amounts.length === 1) expect(cups.length).toBe(fewestPossible);
      }),
    );
  });
  test('cups are filled evenly, in the order of the pieces, when that needs no more of them', () => {
    const { cups } = splitIntoCups(
      [...Array.from({ length: 4 }, (_, i) => pour(38, i + 1)), pour(2, 5), pour(2, 6)],
      120,
    );
    expect(cups.map((cup) => cup.pours.map(({ copy }) => copy))).toEqual([
      [1, 2],
      [3, 4, 5, 6],
    ]);
  });
  test('many small pieces take longer to reach than to pour: no cup has more than are filled before it sets, in as few cups', () => {
    const glue = kind('Five-minute glue');
    const inTime = (mix: number, count: number): boolean => pouredInTime(glue, 23, mix, count, usualPace(glue));
    const bases = Array.from({ length: 48 }, (_, i) => pour(1, i + 1));
    const { grams } = mostMixGrams(glue, 23, 180);
    // By grams alone one cup holds them all; it would have set long before.
    expect(splitIntoCups(bases, grams).cups).toHaveLength(1);
    const { cups, fewestPossible } = splitIntoCups(bases, grams, TYPICAL_LOSSES, inTime);
    for (const { mixGrams, pours: own } of cups) expect(inTime(mixGrams, own.length)).toBe(true);
    expect(cups.length).toBe(fewestPossible);
    let most = 0;
    while (inTime(mixForPour(most + 1, most + 1), most + 1)) most++;
    expect(cups.length).toBe(Math.ceil(48 / most));
    expect(most).toBeLessThan(20);
  });
  test('a piece bigger than a cup becomes equal portions', () => {
    const { cups } = splitIntoCups([pour(250)], 100);
    expect(cups.map((cup) => Math.round(cup.pouredGrams))).toEqual([83, 83, 83]);
  });
  test('a cup that losses fill is refused', () => expect(() => splitIntoCups([pour(5)], 1)).toThrow('too small'));

  function fewestByBruteForce(amounts: number[], room: number): number {
    const place = (index: number, loads: number[][]): number => {
      if (index === amounts.length) return loads.length;
      const options = loads.filter(
        (load) => load.reduce((a, b) => a + b, 0) + amounts[index]! + 0.3 * (load.length + 1) <= room,
      );
      const opened = place(index + 1, [...loads, [amounts[index]!]]);
      return Math.min(
        opened,
        ...options.map((load) =>
          place(
            index + 1,
            loads.map((other) => (other === load ? [...load, amounts[index]!] : other)),
          ),
        ),
      );
    };
    return place(0, []);
  }
});

describe('pot life', () => {
  const slow = kind('Slow casting epoxy');
  test('is the label’s for the label’s cup at the label’s temperature', () =>
    expect(potLifeMinutes(slow, 23, 100)).toBeCloseTo(60));
  test('is about halved 10 °C warmer and shorter in a bigger cup', () => {
    expect(potLifeMinutes(slow, 33, 100) / 60).toBeCloseTo(0.482, 2);
    expect(potLifeMinutes(slow, 23, 200) / 60).toBeCloseTo(2 ** -0.3, 6);
  });
  test('stays between 0.4 and 2.5 of the label', () => {
    expect(potLifeMinutes(slow, 40, 2000)).toBeCloseTo(24);
    expect(potLifeMinutes(slow, 5, 10)).toBeCloseTo(150);
  });
  test('the most one mix holds can just be poured before it sets', () => {
    const glue = kind('Five-minute glue');
    const { grams, limit } = mostMixGrams(glue, 23, 400);
    expect(limit).toBe('pot life');
    expect((pouringMinutes(glue, 23, grams) - PER_PIECE_MINUTES) * glue.pourGramsPerMinute).toBeCloseTo(grams, 3);
  });
  test('a slow product in a small cup is limited by the cup', () =>
    expect(mostMixGrams(slow, 20, 150)).toEqual({ grams: 150, limit: 'cup' }));
});

describe('products', () => {
  test.each(PRODUCT_KINDS.map((product) => [product.name, product] as const))(
    '%s is sound, its density that of its mix',
    (_, product) => {
      expect(productSchema.safeParse(product).error).toBeUndefined();
      if (product.parts) expect(product.density).toBeCloseTo(mixedDensity(product.parts), 2);
    },
  );
  const broken = (change: object): string | undefined =>
    productSchema.safeParse({ ...kind('Slow casting epoxy'), ...change }).error?.issues[0]?.path.join('.');
  test.each<[string, object, string]>([
    ['ratio 0', { parts: { ...partsOf('Slow casting epoxy'), ratioA: 0 } }, 'parts.ratioA'],
    ['density 0', { density: 0 }, 'density'],
    ['a recoat window that closes first', { recoatClosesMinutes: 10 }, 'recoatClosesMinutes'],
    ['parts missing', { parts: null }, 'parts'],
    ['full cure before demould', { fullCureMinutes: 30 }, 'fullCureMinutes'],
  ])('%s is refused at its field', (_, change, path) => expect(broken(change)).toBe(path));
});

describe('layers of a recipe that is poured lighter towards the top', () => {
  const coating = kind('Coating epoxy');
  const pours = [
    { thicknessMm: 3, strength: 0 },
    { thicknessMm: 3, strength: 1 },
    { thicknessMm: null, strength: 2 },
  ];
  test('are split where the strength changes, and where the product wants it', () => {
    const layers = splitLayers(3, 15, coating, pours);
    expect(layers.map(({ number, fromMm, toMm, strength }) => [number, fromMm, toMm, strength])).toEqual([
      [1, 3, 6, 2],
      [2, 6, 9, 2],
      [3, 9, 12, 1],
      [4, 12, 15, 0],
    ]);
    for (const { wetMm } of layers) expect(wetMm).toBeLessThanOrEqual(coating.greatestLayerMm);
  });
  test('of water shallower than the upper pours are those only', () =>
    expect(splitLayers(11, 15, coating, pours).map(({ strength }) => strength)).toEqual([1, 0]));
  test('an even gradient holds as much colourant at the deepest as the recipe all through', () => {
    for (const count of [1, 2, 3, 5]) {
      const layers = splitLayers(5, 15, coating, gradientPours(10, count));
      const colour = layers.reduce((sum, { thicknessMm, strength }) => sum + thicknessMm * strength, 0);
      expect(colour).toBeCloseTo(10, 9);
      expect(layers.length).toBeGreaterThanOrEqual(count);
      if (count > 1) expect([layers[0]!.strength, layers.at(-1)!.strength]).toEqual([2, 0]);
    }
    expect(gradientPours(10, 3, 0).map(({ strength }) => strength)).toEqual([1, 1, 1]);
  });
});
