import { MOST_THINNER, thinned, warmed } from './benchRules';
import { splitLayers } from './layers';
import { isQuick, pouredInTime, pouringMinutes, usualPace } from './potLife';
import { PRODUCT_KINDS } from './productKinds';
import { ratioReading } from './ratio';
import { waterStretches } from './waterBuild';

const kind = (id: string) => PRODUCT_KINDS.find((one) => one.id === id)!;
const coating = kind('coating-epoxy');
const quick = kind('five-minute-glue');
const { referenceC } = coating;

describe('minutes for pouring', () => {
  test('what is stirred longer is poured for less long; where no parts meet nothing is stirred', () => {
    expect(pouringMinutes({ ...coating, potLifeMinutes: 30, stirMinutes: 8 }, referenceC, 100)).toBeCloseTo(15, 9);
    const glue = kind('clear-drying-glue');
    expect(pouringMinutes({ ...glue, stirMinutes: 8 }, 20, 5000)).toBeCloseTo(0.8 * glue.potLifeMinutes, 9);
  });
  test('are the pot life less a fifth, 3 minutes of stirring and 1 of changing cups', () =>
    expect(pouringMinutes({ ...coating, potLifeMinutes: 30 }, referenceC, 100)).toBeCloseTo(20, 9));
  test('of a five-minute product less half a minute and a quarter', () =>
    expect(pouringMinutes({ ...quick, potLifeMinutes: 5 }, quick.referenceC, 100)).toBeCloseTo(3.25, 9));
  test('are none where stirring takes all, and the label’s for what never sets in the cup', () => {
    expect(pouringMinutes({ ...coating, potLifeMinutes: 0.5 }, referenceC, 100)).toBe(0);
    const glue = kind('clear-drying-glue');
    expect(pouringMinutes(glue, 20, 5000)).toBeCloseTo(0.8 * glue.potLifeMinutes, 9);
  });
  test('ten minutes are no longer quick', () => {
    expect(isQuick(9.99)).toBe(true);
    expect(isQuick(10)).toBe(false);
  });
  test('are shared between pieces and grams; two reach twice as fast', () => {
    expect(usualPace({ pourGramsPerMinute: 40 })).toEqual({ perPieceMinutes: 0.4, gramsPerMinute: 40 });
    expect(usualPace({ pourGramsPerMinute: 40 }, 2).perPieceMinutes).toBe(0.2);
    // 20 minutes: 100 g take 2.5, so that 43 pieces are filled and no 44th.
    const life = { ...coating, potLifeMinutes: 30 };
    const pace = { perPieceMinutes: 0.4, gramsPerMinute: 40 };
    expect(pouredInTime(life, referenceC, 100, 43, pace)).toBe(true);
    expect(pouredInTime(life, referenceC, 100, 44, pace)).toBe(false);
    expect(pouredInTime(kind('clear-drying-glue'), 20, 100, 10_000, pace)).toBe(true);
  });
});

describe('what may be done to a product', () => {
  test('a glue takes up to a fifth of alcohol, and no less than none', () => {
    expect(thinned(quick, 100, MOST_THINNER)!.alcoholGrams).toBeCloseTo(20, 9);
    expect(thinned(quick, 100, MOST_THINNER + 0.001)).toBeNull();
    expect(thinned(quick, 100, -0.01)).toBeNull();
    expect(thinned(quick, 100, 0)).toMatchObject({ alcoholGrams: 0, soft: false, shrinkage: quick.shrinkage });
  });
  test('bottles may be as warm as 40 °C, no warmer, and only of what sets in the cup', () => {
    expect(warmed(coating, 20, 40, 100)).not.toBeNull();
    expect(warmed(coating, 20, 40.1, 100)).toBeNull();
    expect(warmed(kind('clear-drying-glue'), 20, 30, 100)).toBeNull();
  });
});

test('a cup without part B, or with nothing of either, has no ratio', () => {
  expect(() => ratioReading(5, 0, coating.parts!)).toThrow('more than 0');
  expect(() => ratioReading(0, 0, coating.parts!)).toThrow('more than 0');
});
test('7 % off is the last that is only off', () => {
  const parts = { ratioA: 1, ratioB: 1, ratioBy: 'weight' as const, densityA: 1, densityB: 1 };
  expect(ratioReading(107, 100, parts).grade).toBe('off');
  expect(ratioReading(107.1, 100, parts).grade).toBe('wrong');
  expect(ratioReading(100, 107, parts).add).toEqual({ part: 'A', grams: 7, newTotalGrams: 214 });
});

describe('layers of several pours', () => {
  const product = { greatestLayerMm: 5, shrinkage: 0, id: 'fill' };
  test('where the upper pours reach the bed there is nothing of the lower', () => {
    const pours = [
      { thicknessMm: 4, strength: 0.5 },
      { thicknessMm: 4, strength: 1 },
      { thicknessMm: null, strength: 2 },
    ];
    expect(splitLayers(10, 16, product, pours).map(({ strength, toMm }) => [strength, toMm])).toEqual([
      [1, 12],
      [0.5, 16],
    ]);
    expect(splitLayers(10, 14, product, pours).map(({ strength }) => strength)).toEqual([0.5]);
  });
  test('the last pour goes on to the bed, however thin it is said to be', () =>
    expect(
      splitLayers(0, 9, product, [
        { thicknessMm: 4, strength: 0 },
        { thicknessMm: 1, strength: 1 },
      ]).map(({ strength, fromMm, toMm }) => [strength, fromMm, toMm]),
    ).toEqual([
      [1, 0, 5],
      [0, 5, 9],
    ]));
  test('a product of its own is named, the fill is not; plants go before the lowest layer of their coat only', () => {
    const gel = { ...product, id: 'gel', greatestLayerMm: 2 };
    const layers = splitLayers(0, 9, product, [
      { thicknessMm: 4, strength: 0, product: gel, coat: 0, plantsBefore: true },
      { thicknessMm: null, strength: 1, product, coat: 1 },
    ]);
    expect(layers.map(({ number, productId, plantsBefore }) => [number, productId, plantsBefore])).toEqual([
      [1, undefined, undefined],
      [2, 'gel', true],
      [3, 'gel', undefined],
    ]);
  });
  test('nothing to fill is nothing to pour', () => {
    expect(splitLayers(15, 15, product)).toEqual([]);
    expect(splitLayers(16, 15, product)).toEqual([]);
  });
});

test('coats and pours end where either does; the last goes on to the bed', () => {
  const stretches = waterStretches(
    'fill',
    [{ product: 'gel', thicknessMm: 3, tint: 'clear' }],
    [
      { thicknessMm: 5, strength: 0.5 },
      { thicknessMm: 2, strength: 1 },
      { thicknessMm: 9, strength: 2 },
    ],
  );
  expect(stretches.map(({ product, coat, thicknessMm, strength }) => [product, coat, thicknessMm, strength])).toEqual([
    ['gel', 0, 3, 0],
    ['fill', 1, 2, 0.5],
    ['fill', 1, 2, 1],
    // The recipe's last pour is as deep as the water.
    ['fill', 1, null, 2],
  ]);
});
