import { DROP_TOLERANCE, type RecipeDose } from '../tint/doses';
import { MOST_COLOURANT_SHARE, MOST_WATER_BASED_SHARE } from '../tint/limits';
import { isWaterBased } from '../model/recipeSchema';
import type { Explanation } from './explanation';

export type RecipeFigure = 'smallestCup' | 'colourant' | 'waterBased';

const percent = (share: number): string => `${Number((share * 100).toPrecision(3))} %`;

function explainShare(title: string, most: number, doses: readonly RecipeDose[]): Explanation {
  return {
    title,
    formula: 'Grams of colourant in 100 g of product, added up.',
    inputs: doses.map(({ colourant, gramsPer100 }) => ({
      label: `${colourant.name}, ${colourant.kind}`,
      value: `${gramsPer100.toFixed(3)} g`,
    })),
    assumptions: [`At most ${percent(most)} is a common limit; the label of the product comes first.`],
    estimate: false,
  };
}

/** How a figure of a recipe came about. */
export function explainRecipe(figure: RecipeFigure, doses: readonly RecipeDose[]): Explanation {
  if (figure === 'colourant') return explainShare('Colourant in all', MOST_COLOURANT_SHARE, doses);
  if (figure === 'waterBased')
    return explainShare(
      'Water-based',
      MOST_WATER_BASED_SHARE,
      doses.filter(({ colourant }) => isWaterBased(colourant.kind)),
    );
  return {
    title: 'Smallest cup for drops',
    formula: `The smallest mix in which whole drops of every colourant are within ${percent(DROP_TOLERANCE)} of the recipe. One drop is a large dose in a small cup.`,
    inputs: doses.map(({ colourant, gramsPer100 }) => ({
      label: colourant.name,
      value:
        gramsPer100 > 0 ? `one drop for every ${((colourant.dropGrams / gramsPer100) * 100).toFixed(1)} g` : 'none',
    })),
    assumptions: [
      'Drop masses are those on the shelf; weigh twenty of your own.',
      'Some larger cups fall between two drops again; each cup on the Pour stage says by how much.',
    ],
    estimate: true,
  };
}
