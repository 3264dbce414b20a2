import type { CupPlan } from '@/core/plan';
import { testRequest } from '@/core/plan/testRequest';
import type { Colourant } from '@/core/tint/schema';
import { cupDoses } from '@/core/tint/doses';
import { METRIC } from '@/core/units/formatMeasure';
import { doseWords } from './doseWords';

const ink = { ...({} as Colourant), id: 'ink', name: 'Ink', dropGrams: 0.04 };
const OUNCES = { ...METRIC, mass: 'oz' as const };
/** How 0.1 g of ink in 100 g of mix is put into a cup of so much, on a scale that shows 0.1 g. */
const words = (mixGrams: number, { units = METRIC, twoPart = true, dropGrams = ink.dropGrams } = {}) => {
  const doses = [{ colourant: { ...ink, dropGrams }, gramsPer100: 0.1 }];
  const request = testRequest({ recipe: { id: 'r', name: 'Ink', doses } });
  const parts = twoPart ? { partAGrams: 30, partBGrams: mixGrams - 30 } : null;
  return doseWords(cupDoses(doses, mixGrams)[0]!, { mixGrams, parts } as CupPlan, request, units);
};

describe('a dose in words', () => {
  test('is whole drops where they come out right', () =>
    expect(words(80)).toEqual({ act: '2 drops', note: '0.080\u00a0g', care: false }));
  test('is weighed where the scale shows it', () =>
    expect(words(640, { dropGrams: 0.4 })).toEqual({
      act: 'weigh 0.64\u00a0g',
      note: '2 drops are +25 %',
      care: true,
    }));
  test('else is stirred into some of part A first, of which a share is taken', () => {
    // 0.056 g are 1.4 drops: two in 10 g, of which 7 g.
    expect(words(56).act).toBe('2 drops in 10.0\u00a0g of part\u00a0A, take 7.0\u00a0g');
    expect(words(56).note).toContain('0.056\u00a0g is less than your scale shows');
    expect(words(56, { twoPart: false }).act).toContain('of the product');
  });
  test('says what is stirred and taken in the maker’s own unit', () =>
    expect(words(56, { units: OUNCES }).act).toMatch(
      /^2 drops in 0\.35\S*\u00a0oz of part\u00a0A, take 0\.25\S*\u00a0oz$/,
    ));
  test('is too little to measure where even that share cannot be weighed', () =>
    expect(words(0.5)).toMatchObject({ note: 'pour it from a larger cup', care: true }));
});
