import fc from 'fast-check';
import { potLifeMinutes } from '../mixing/potLife';
import { pouredDensity, ratioByWeight } from '../mixing/ratio';
import { TYPICAL_LOSSES } from '../mixing/losses';
import type { RunPour } from './runSchema';
import { loweredBy, sharedOut, shortfall } from './shortfall';
import { kind } from './testRuns';
import { toleranceGrams, afterOverPour, weighVerdict, type OverPoured } from './overPoured';

const product = kind('coating-epoxy');
const over = (change: Partial<OverPoured>): OverPoured => ({
  product,
  part: 'B',
  aGrams: 60,
  bGrams: 55,
  pourGrams: 108,
  cupGrams: 180,
  roomC: 20,
  colourCost: 0.1,
  ...change,
});
const grams = fc.double({ min: 1, max: 200, noNaN: true });

describe('a part that went over', () => {
  it('is told from one that is right by half of what the ratio may be, or by the step of the scale', () => {
    expect(toleranceGrams(100, 0.1)).toBeCloseTo(1.5, 9);
    expect(toleranceGrams(4, 0.1)).toBeCloseTo(0.1, 9);
    // As much as keeps A : B within 3 %, also where there is too little of it.
    expect(100 / (100 - toleranceGrams(100, 0.1, true))).toBeCloseTo(1.03, 9);
    expect(weighVerdict(101.5, 100, 1.5)).toBe('right');
    expect(weighVerdict(101.6, 100, 1.5)).toBe('over');
    expect(weighVerdict(98.4, 100, 1.5)).toBe('slow');
    expect(weighVerdict(84.9, 100, 1.5)).toBe('under');
  });

  it('is mended with the other part to the label’s ratio exactly: A/r − B, or B·r − A', () => {
    fc.assert(
      fc.property(grams, grams, fc.constantFrom('A' as const, 'B' as const), (a, b, part) => {
        const r = ratioByWeight(product.parts!);
        const mend = afterOverPour(over({ part, aGrams: a, bGrams: b }));
        const closed = part === 'A' ? a / r - b : b * r - a;
        expect(mend.addGrams).toBeCloseTo(Math.max(0, closed), 9);
        expect(mend.newTotalGrams).toBeCloseTo(a + b + Math.max(0, closed), 9);
        if (closed > 0) {
          const [newA, newB] = part === 'A' ? [a, b + mend.addGrams] : [a + mend.addGrams, b];
          expect(newA / newB).toBeCloseTo(r, 9);
        }
      }),
    );
  });

  it('says when the cup or its pot life is too small for that', () => {
    expect(afterOverPour(over({})).fitsCup).toBe(true);
    expect(afterOverPour(over({ bGrams: 120 })).fitsCup).toBe(false);
    expect(afterOverPour(over({})).fitsPotLife).toBe(true);
    expect(afterOverPour(over({ pourGrams: 5000 })).fitsPotLife).toBe(false);
    const mend = afterOverPour(over({}));
    expect(mend.potLifeMinutes).toBeCloseTo(potLifeMinutes(product, 20, mend.newTotalGrams), 9);
  });

  it('costs what is in the cup, at the price of the pack, and its colourants', () => {
    const { discardCost } = afterOverPour(over({}));
    expect(discardCost).toBeCloseTo((115 * product.packPrice) / product.packGrams + 0.1, 9);
    expect(
      afterOverPour(over({ product: kind('light-cured-resin'), part: 'all', aGrams: 40, bGrams: 0 })).addPart,
    ).toBeNull();
  });
});

describe('a cup that is short', () => {
  const rest: RunPour[] = [1, 2, 3].map((copy) => ({ designId: 't', copy, tag: 'T', grams: 10 * copy }));
  const surface = (): number => 50;
  const density = { density: pouredDensity(product), shrinkage: product.shrinkage };

  it('fills all that are left lower by as much as is missing', () => {
    const holds = 45;
    const { shortGrams, lowerMm, freshMixGrams, overGrams } = shortfall(holds, rest, surface, density, TYPICAL_LOSSES);
    expect(shortGrams).toBeCloseTo(60 + 0.9 - 45, 9);
    expect(overGrams).toBe(0);
    expect(freshMixGrams).toBeCloseTo((shortGrams + 0.3 + 1.5) / 0.98, 9);
    // What is left out over 150 cm², cured, is that many mm high.
    const ml = shortGrams / density.density;
    expect(lowerMm).toBeCloseTo(((ml * 1000) / 15_000) * (1 - density.shrinkage), 9);
    const lowered = [...loweredBy(rest, lowerMm, surface, density).values()];
    expect(lowered.reduce((sum, one) => sum + one, 0)).toBeCloseTo(60 - shortGrams, 6);
    expect(shortfall(70, rest, surface, density, TYPICAL_LOSSES)).toMatchObject({ shortGrams: 0, freshMixGrams: 0 });
  });

  it('shares what there is in order, no gram twice', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 80, noNaN: true }), (holds) => {
        const { now, later } = sharedOut(holds, rest, TYPICAL_LOSSES);
        const sum = (pours: readonly RunPour[]): number => pours.reduce((all, one) => all + one.grams, 0);
        expect(sum(now) + sum(later)).toBeCloseTo(60, 9);
        expect(sum(now)).toBeLessThanOrEqual(holds + 1e-9);
        // No piece is left dry while a later one gets some.
        const first = later[0]?.copy ?? 9;
        expect(now.every(({ copy }) => copy <= first)).toBe(true);
      }),
    );
  });
});
