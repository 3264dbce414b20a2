import type { RecipeDose } from './doses';
import type { Colourant } from '../model/recipeSchema';

/** What went into a cup: its mix without colourant, and of each colourant so many grams. */
export interface CupContents {
  mixGrams: number;
  colourants: readonly { colourant: Colourant & { id: string }; grams: number }[];
}

/** How a cup is brought to its recipe. */
export interface CupMend {
  /** Clear mix to add, parts together in the product's ratio. */
  clearGrams: number;
  /** The mix in the cup afterwards, without colourant. */
  mixGrams: number;
  /** Colourant to add after that. */
  add: { id: string; name: string; grams: number; drops: number }[];
  /** Colourants in the cup that the recipe does not know: no clear mix takes them out. */
  foreign: string[];
}

/** Less than this share of a dose is not worth adding. */
const TRIFLE = 0.005;

/**
 * Brings a cup to a recipe: nothing can be taken out, so as much clear mix goes in as the most over-dosed colourant asks for,
 * m′ = max(m, 100·have/recipe), and then of each colourant what is still missing, recipe·m′/100 − have. Colourant is neither made
 * nor lost. The recipe counts per 100 g of mix without colourant.
 */
export function bringToRecipe({ mixGrams, colourants }: CupContents, recipe: readonly RecipeDose[]): CupMend {
  const have = (id: string): number =>
    colourants.reduce((sum, { colourant, grams }) => sum + (colourant.id === id ? grams : 0), 0);
  const doses = recipe.filter(({ gramsPer100 }) => gramsPer100 > 0);
  const after = Math.max(
    mixGrams,
    ...doses.map(({ colourant, gramsPer100 }) => (100 * have(colourant.id)) / gramsPer100),
  );
  return {
    clearGrams: after - mixGrams,
    mixGrams: after,
    add: doses.flatMap(({ colourant, gramsPer100 }) => {
      const wanted = (gramsPer100 * after) / 100;
      const grams = wanted - have(colourant.id);
      return grams > TRIFLE * wanted
        ? [{ id: colourant.id, name: colourant.name, grams, drops: Math.round(grams / colourant.dropGrams) }]
        : [];
    }),
    foreign: colourants
      .filter(({ colourant, grams }) => grams > 0 && !doses.some(({ colourant: { id } }) => id === colourant.id))
      .map(({ colourant }) => colourant.name),
  };
}
