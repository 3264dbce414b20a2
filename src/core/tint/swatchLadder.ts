import type { LinearRgb } from './colour';
import type { Colourant } from '../model/recipeSchema';
import { lightByDepth } from './waterLook';
import type { Clarity } from '../model/tintSchema';

/** One dose of a ladder, the strongest first; each next is half of the last with as much clear product. */
export interface LadderRung {
  gramsPer100: number;
  /** The colour that is expected over white card. */
  light: LinearRgb;
}

/** Test pours of one colourant, made by halving: drops are counted once. */
export interface Ladder {
  drops: number;
  /** The mix that the drops go into. */
  mixGrams: number;
  /** Of the last mix, and of clear product, for each rung further. */
  halfGrams: number;
  rungs: LadderRung[];
  /** Product altogether. */
  productGrams: number;
}

/** The strongest rung leaves this share of the strongest channel, down and up again over white. */
const STRONGEST_LEAVES = 0.05;
/** Less than this cannot be stirred evenly. */
const LEAST_MIX_GRAMS = 10;
/** Cavities of a paint palette or of a cut card: this wide. */
const CAVITY_AREA_MM2 = 500;
const WHITE: LinearRgb = { red: 0.88, green: 0.88, blue: 0.88 };

/**
 * A ladder of test pours at a depth: the strongest dose nearly hides white card, each next holds half as much. The first takes
 * whole drops in at least ten grams; the others are made from it by weight.
 */
export function swatchLadder(
  colourant: Colourant & { id: string },
  depthMm: number,
  { rungs = 4, clarity = 'water-clear' as Clarity, density = 1.1 } = {},
): Ladder {
  const { red, green, blue } = colourant.absorption;
  const strongest = Math.max(red, green, blue, 1e-3);
  const most = -Math.log(STRONGEST_LEAVES) / (2 * strongest * depthMm);
  const perDrop = (100 * colourant.dropGrams) / most;
  const drops = Math.max(1, Math.ceil(LEAST_MIX_GRAMS / perDrop));
  const cavityGrams = (CAVITY_AREA_MM2 * depthMm * density) / 1000;
  const halfGrams = Math.max(LEAST_MIX_GRAMS / 2, Math.ceil(cavityGrams));
  const mixGrams = Math.max(drops * perDrop, LEAST_MIX_GRAMS);
  const first = (100 * drops * colourant.dropGrams) / mixGrams;
  return {
    drops,
    mixGrams,
    halfGrams,
    productGrams: mixGrams + (rungs - 1) * halfGrams,
    rungs: Array.from({ length: rungs }, (_, i) => {
      const gramsPer100 = first / 2 ** i;
      return { gramsPer100, light: lightByDepth(WHITE, { clarity, doses: [{ colourant, gramsPer100 }] })(depthMm) };
    }),
  };
}
