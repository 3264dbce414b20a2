import { PRODUCT_KINDS } from './productKinds';
import { CURE_MODELS } from '../cure/cureModels';
import { mayBeThinned, MOST_WARM_C, thinned, warmed } from './benchRules';
import { tintForMore } from '../tint/tintForMore';
import { potLifeMinutes } from './potLife';
import { ratioByWeight, ratioReading } from './ratio';

const named = (id: string) => PRODUCT_KINDS.find((kind) => kind.id === id)!;
const [glue, coating, lamp] = [named('five-minute-glue'), named('coating-epoxy'), named('light-cured-resin')];

describe('a five-minute glue thinned with alcohol', () => {
  test('sets slower with every tenth, and by nothing without', () => {
    expect(thinned(glue, 20, 0)).toEqual({
      potLifeMinutes: 4.5,
      shrinkage: glue.shrinkage,
      alcoholGrams: 0,
      soft: false,
    });
    const [ten, twenty] = [thinned(glue, 20, 0.1)!, thinned(glue, 20, 0.2)!];
    expect(ten.potLifeMinutes).toBeGreaterThan(4.5);
    expect(twenty.potLifeMinutes / ten.potLifeMinutes).toBeCloseTo(ten.potLifeMinutes / 4.5, 9);
    expect([ten.soft, twenty.soft]).toEqual([true, true]);
  });
  test('loses the alcohol: what is left of the volume is the glue, less its own shrinkage', () => {
    const { shrinkage, alcoholGrams } = thinned(glue, 20, 0.15)!;
    const [glueMl, alcoholMl] = [20 / glue.density, alcoholGrams / 0.79];
    expect((glueMl + alcoholMl) * (1 - shrinkage)).toBeCloseTo(glueMl * (1 - glue.shrinkage), 9);
  });
  test('is refused beyond a fifth, and offered for nothing but quick two-part glues', () => {
    expect(thinned(glue, 20, 0.21)).toBeNull();
    expect(PRODUCT_KINDS.filter(mayBeThinned).map(({ id }) => id)).toEqual(['five-minute-glue']);
  });
});

describe('warm bottles', () => {
  test('set as sooner as a room of that warmth would make them', () => {
    const { potLifeMinutes: warm, roomPotLifeMinutes: cold, sooner } = warmed(coating, 14, 26, 80)!;
    expect(warm).toBe(potLifeMinutes(coating, 26, 80));
    expect(cold).toBe(potLifeMinutes(coating, 14, 80));
    expect(sooner).toBeGreaterThan(2);
  });
  test('are no matter for what sets under a lamp, and refused when too hot', () => {
    expect(warmed(lamp, 14, 30, 80)).toBeNull();
    expect(warmed(coating, 14, MOST_WARM_C + 1, 80)).toBeNull();
  });
});

test('leftovers of two parts are never kept; what waits for a lamp may go back', () => {
  expect(CURE_MODELS[coating.cureModel].leftovers.join(' ')).toMatch(/Never keep a mix/);
  expect(CURE_MODELS[lamp.cureModel].leftovers.join(' ')).toMatch(/goes back into a dark, closed bottle/);
});

describe('a cup mended with the other part', () => {
  const parts = coating.parts!;
  const doses = [{ id: 'ink', name: 'Ink', grams: 0.2, drops: 6, error: 0 }];
  test('has the recipe again: the colourant in it over its new total is that of the plan', () => {
    const [a, b] = [40, 30];
    const { add } = ratioReading(a, b, parts);
    const planned = { mixGrams: 60, doses };
    const [mend] = tintForMore(add!, planned, () => 0.035);
    expect((0.2 + mend!.grams) / add!.newTotalGrams).toBeCloseTo(0.2 / 60, 12);
    expect((a / (b + add!.grams)) as number).toBeCloseTo(ratioByWeight(parts), 9);
    expect(mend!.drops).toBe(Math.round(mend!.grams / 0.035));
  });
  test('wants none where it holds no more than planned, or not half a drop more', () => {
    expect(tintForMore({ newTotalGrams: 58 }, { mixGrams: 60, doses }, () => 0.035)).toEqual([]);
    expect(tintForMore({ newTotalGrams: 62 }, { mixGrams: 60, doses }, () => 0.035)).toEqual([]);
  });
});
