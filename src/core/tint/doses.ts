import { isWaterBased, type Colourant } from '../model/recipeSchema';

/** A colourant with how much of it goes into 100 g. */
export interface RecipeDose {
  colourant: Colourant & { id: string };
  gramsPer100: number;
}

/** What to put into one cup. */
export interface CupDose {
  /** The colourant, by id and by name. */
  id: string;
  name: string;
  grams: number;
  /** Whole drops; 0 when even one would be too much by half. */
  drops: number;
  /** (drops as counted)/(drops as the recipe wants) − 1. */
  error: number;
}

/** A whole-drop dose is right when it is within this of the recipe. */
export const DROP_TOLERANCE = 0.1;

/** Doses for a cup of `mixGrams`, in grams and in whole drops. The recipe counts per 100 g of mixed product. */
export function cupDoses(recipe: readonly RecipeDose[], mixGrams: number): CupDose[] {
  return recipe.map(({ colourant, gramsPer100 }) => {
    const grams = (gramsPer100 * mixGrams) / 100;
    const exact = grams / colourant.dropGrams;
    const drops = Math.round(exact);
    return { id: colourant.id, name: colourant.name, grams, drops, error: exact > 0 ? drops / exact - 1 : 0 };
  });
}

/**
 * The smallest mix in grams, to 0.1 g, in which whole drops of every colourant are within 10 % of the recipe;
 * null for a clear recipe. Some larger mixes are wrong again: each cup's own error is in `cupDoses`.
 * From 5 drops of the rarest colourant on, any size is right, so the search ends there.
 */
export function smallestDropMixGrams(recipe: readonly RecipeDose[]): number | null {
  const tinted = recipe.filter((dose) => dose.gramsPer100 > 0);
  if (tinted.length === 0) return null;
  const gramsPerDrop = tinted.map(({ colourant, gramsPer100 }) => (colourant.dropGrams * 100) / gramsPer100);
  const always = Math.max(...gramsPerDrop) * 5;
  const right = (mix: number): boolean =>
    gramsPerDrop.every((perDrop) => Math.abs((Math.round(mix / perDrop) * perDrop) / mix - 1) <= DROP_TOLERANCE + 1e-9);
  for (let tenths = 1; tenths / 10 < always; tenths++) if (right(tenths / 10)) return tenths / 10;
  return always;
}

/** Colourant as a share of the product, all together and the water-based ones alone. */
export function colourantShares(recipe: readonly RecipeDose[]): { total: number; waterBased: number } {
  const share = (doses: readonly RecipeDose[]): number => doses.reduce((sum, dose) => sum + dose.gramsPer100 / 100, 0);
  return { total: share(recipe), waterBased: share(recipe.filter(({ colourant }) => isWaterBased(colourant.kind))) };
}
