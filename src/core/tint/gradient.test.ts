import { seeded } from '../chance/random';
import { linearFromHex } from './colour';
import { deltaE } from './difference';
import type { RecipeDose } from './doses';
import { mostGramsPer100 } from './limits';
import {
  distance,
  gradientCost,
  hasPaintedLine,
  lineHiddenFromMm,
  overPaint,
  solvePours,
  wishedByDepth,
  type GradientWish,
} from './gradient';
import type { Colourant } from '../model/recipeSchema';
import { pourDoses } from './waterTint';
import { MOST_STRENGTH, type TintPour } from '../model/tintSchema';

const colourant = (id: string, kind: Colourant['kind'], [red, green, blue]: number[]): RecipeDose['colourant'] => ({
  id,
  name: id,
  kind,
  dropGrams: 0.035,
  bottleGrams: 30,
  bottlePrice: 5,
  absorption: { red: red!, green: green!, blue: blue! },
});
const doses: RecipeDose[] = [
  { colourant: colourant('green', 'ink', [1.15, 0.32, 0.72]), gramsPer100: 0.12 },
  { colourant: colourant('umber', 'ink', [0.42, 0.82, 1.35]), gramsPer100: 0.08 },
];
const paint = { bedColour: '#b9a883', shoreColour: '#d6c8a2', deepColour: '#6f6a4e' };
const evenAt = (mm: number) => overPaint(paint, { clarity: 'water-clear', doses }, 12)(mm);
const wish = (change: Partial<GradientWish> = {}): GradientWish => ({
  paint,
  clarity: 'water-clear',
  doses,
  deepestMm: 12,
  deep: evenAt(12),
  halfwayMm: 8,
  by: 'strength',
  thicknessesMm: [4, 4, 4],
  hideLineMm: null,
  ...change,
});

describe('a wished gradient', () => {
  test('begins at the bed under clear product, ends at the wished colour, and is half way where it is told', () => {
    const asked = wish();
    const at = wishedByDepth(asked);
    const clear = overPaint(paint, { clarity: 'water-clear', doses: [] }, 12);
    expect(deltaE(at(0), clear(0))).toBeLessThan(1e-6);
    expect(deltaE(at(12), asked.deep)).toBeLessThan(1e-6);
    // Half way in L*a*b*: as far from clear as from the wish.
    const [near, far] = [deltaE(at(8), clear(8)), deltaE(at(8), asked.deep)];
    expect(near / (near + far)).toBeGreaterThan(0.35);
    expect(near / (near + far)).toBeLessThan(0.65);
    const early = wishedByDepth(wish({ halfwayMm: 3 }));
    expect(deltaE(early(6), asked.deep)).toBeLessThan(deltaE(at(6), asked.deep));
  });

  test('a recipe poured even has its own best strengths near what it is poured at', () => {
    const { pours, meanDeltaE } = solvePours(wish({ halfwayMm: 5.2, thicknessesMm: [6, 6] }));
    const even = distance(wish({ halfwayMm: 5.2 }), [{ thicknessMm: null, strength: 1 }]);
    expect(meanDeltaE).toBeLessThanOrEqual(even.meanDeltaE + 1e-6);
    expect(pours.map(({ thicknessMm }) => thicknessMm)).toEqual([6, null]);
  });

  test('a shore kept clear for longer has a clearer top and a darker bottom', () => {
    const strengths = (halfwayMm: number): number[] =>
      solvePours(wish({ halfwayMm })).pours.map(({ strength }) => strength);
    const [late, soon] = [strengths(10), strengths(4)];
    expect(late[0]).toBeLessThan(soon[0]!);
    expect(late[2]).toBeGreaterThan(soon[2]!);
    expect(late[0]).toBeLessThan(late[2]!);
  });

  test('is never missed by more than a dense lattice of strengths misses it', () => {
    const random = seeded(9);
    for (let round = 0; round < 4; round++) {
      const asked = wish({
        halfwayMm: 2 + 9 * random(),
        thicknessesMm: [3 + 6 * random(), 4],
        deep: { red: 0.02 + 0.1 * random(), green: 0.04 + 0.12 * random(), blue: 0.02 + 0.06 * random() },
        hideLineMm: round % 2 === 0 ? null : 6,
      });
      const cost = gradientCost(asked);
      let least = Infinity;
      for (let i = 0; i <= 24; i++)
        for (let k = 0; k <= 24; k++) {
          const [top, low] = [i, k].map((step) => MOST_STRENGTH * (step / 24) ** 2);
          const pours: TintPour[] = [
            { thicknessMm: asked.thicknessesMm[0]!, strength: top! },
            { thicknessMm: null, strength: low! },
          ];
          least = Math.min(least, cost(pours));
        }
      expect(cost(solvePours(asked).pours)).toBeLessThanOrEqual(least + 0.02);
    }
  });

  test('with colourants of its own in each pour it comes no less near, and keeps to the limits of each kind', () => {
    const deep = linearFromHex('#3a2a14');
    const thinned = solvePours(wish({ deep }));
    const own = solvePours(wish({ deep, by: 'colourant' }));
    expect(own.meanDeltaE).toBeLessThan(thinned.meanDeltaE * 0.8);
    for (const pour of own.pours) {
      const grams = pourDoses(doses, pour);
      expect(grams.every(({ gramsPer100 }) => gramsPer100 >= 0)).toBe(true);
      expect(grams.reduce((sum, { gramsPer100 }) => sum + gramsPer100, 0)).toBeLessThanOrEqual(
        mostGramsPer100(doses[0]!.colourant) + 1e-3,
      );
    }
  });

  test('what it tells of itself is what the one predictor says', () => {
    const asked = wish({ by: 'colourant' });
    const { pours, worstDeltaE, worstAtMm } = solvePours(asked);
    const made = overPaint(paint, { clarity: 'water-clear', doses, pours }, 12)(worstAtMm);
    expect(deltaE(made, wishedByDepth(asked)(worstAtMm))).toBeCloseTo(worstDeltaE, 6);
  });

  test('a painted line is hidden where that is wished, at some cost to the gradient', () => {
    const asked = wish({ halfwayMm: 10 });
    const open = solvePours(asked);
    const hidden = solvePours({ ...asked, hideLineMm: 6 });
    const from = (pours: readonly TintPour[]) => lineHiddenFromMm(paint, { clarity: 'water-clear', doses, pours })!;
    expect(from(open.pours)).toBeGreaterThan(7);
    expect(from(hidden.pours)).toBeLessThan(6.6);
    expect(hidden.meanDeltaE).toBeGreaterThanOrEqual(open.meanDeltaE - 1e-6);
  });

  test('a bed of one paint has no line', () => {
    expect(hasPaintedLine(paint)).toBe(true);
    expect(hasPaintedLine({ bedColour: '#b9a883' })).toBe(false);
    expect(lineHiddenFromMm({ bedColour: '#b9a883' }, { clarity: 'water-clear', doses })).toBe(0);
  });
});
