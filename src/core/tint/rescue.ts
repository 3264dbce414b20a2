import { potLifeMinutes } from '../mixing/potLife';
import type { Product } from '../model/productSchema';
import { splitParts, type PartAmounts } from '../mixing/ratio';
import type { LinearRgb } from './colour';
import { deltaE } from './difference';
import type { RecipeDose } from './doses';
import { bringToRecipe, type CupContents, type CupMend } from './bringToRecipe';
import { lightByDepth } from './waterLook';
import type { Clarity } from '../model/tintSchema';

/** A cup that went wrong, and where its water is to lie. */
export interface RescueAsk {
  cup: CupContents;
  recipe: readonly RecipeDose[];
  product: Product;
  roomC: number;
  /** Minutes since the parts met. */
  minutesGone: number;
  /** The most that one cup holds, g. */
  cupHoldsGrams: number;
  bed: LinearRgb;
  depthMm: number;
}

/** What to do about it. */
export interface Rescue extends CupMend {
  /** How far the water would be from the recipe as the cup stands. */
  deltaENow: number;
  /** The clear mix by its parts; null for a one-part product or when none is needed. */
  clearParts: PartAmounts | null;
  /** What the clear mix costs, and what a new cup to the recipe costs with the old one thrown away. */
  clearCost: number;
  newCupCost: number;
  /** Pot life left once it is mended: of a cup of the new size, as old as it is. The clear mix is younger: an estimate on the safe side. */
  minutesLeft: number;
  /** What stands in the way, if anything. */
  stops: 'no time' | 'cup too small' | null;
}

/** A mend takes so long: weighing, pouring in, stirring. */
const MEND_MINUTES = 4;

const dosesIn = ({ mixGrams, colourants }: CupContents): RecipeDose[] =>
  colourants.map(({ colourant, grams }) => ({ colourant, gramsPer100: (100 * grams) / mixGrams }));

/** Whether and how a cup is brought to its recipe, set against a new one. Throws a RangeError for a cup without mix. */
export function rescueCup(ask: RescueAsk): Rescue {
  const { cup, recipe, product, roomC, minutesGone, cupHoldsGrams, bed, depthMm } = ask;
  if (!(cup.mixGrams > 0)) throw new RangeError('There must be some mix in the cup');
  const clarity: Clarity = product.clarity ?? 'water-clear';
  const mend = bringToRecipe(cup, recipe);
  const seen = (doses: readonly RecipeDose[]): LinearRgb => lightByDepth(bed, { clarity, doses })(depthMm);
  const perGram = product.packPrice / product.packGrams;
  const colourCost = (grams: (dose: RecipeDose) => number): number =>
    recipe.reduce((sum, dose) => sum + (grams(dose) * dose.colourant.bottlePrice) / dose.colourant.bottleGrams, 0);
  const added = (dose: RecipeDose): number => mend.add.find(({ id }) => id === dose.colourant.id)?.grams ?? 0;
  const minutesLeft = potLifeMinutes(product, roomC, mend.mixGrams) - minutesGone - MEND_MINUTES;
  return {
    ...mend,
    deltaENow: deltaE(seen(dosesIn(cup)), seen(recipe)),
    clearParts: mend.clearGrams > 0 && product.parts ? splitParts(mend.clearGrams, product.parts) : null,
    clearCost: mend.clearGrams * perGram + colourCost(added),
    newCupCost: cup.mixGrams * perGram + colourCost(({ gramsPer100 }) => (gramsPer100 * cup.mixGrams) / 100),
    minutesLeft,
    stops: minutesLeft <= 0 ? 'no time' : mend.mixGrams > cupHoldsGrams ? 'cup too small' : null,
  };
}

/** By how much whole drops in a cup of some size stand off the recipe to the eye, CIEDE2000 at a depth over a bed. */
export function dropsDeltaE(
  recipe: readonly RecipeDose[],
  mixGrams: number,
  { bed, depthMm, clarity }: { bed: LinearRgb; depthMm: number; clarity: Clarity },
): number {
  const counted = recipe.map((dose) => {
    const drops = Math.round((dose.gramsPer100 * mixGrams) / 100 / dose.colourant.dropGrams);
    return { ...dose, gramsPer100: (100 * drops * dose.colourant.dropGrams) / mixGrams };
  });
  const seen = (doses: readonly RecipeDose[]): LinearRgb => lightByDepth(bed, { clarity, doses })(depthMm);
  return deltaE(seen(counted), seen(recipe));
}
