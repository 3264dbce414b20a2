'use client';

import { explainRecipe } from '@/core/plan';
import { colourantShares, smallestDropMixGrams, type RecipeDose } from '@/core/tint/doses';
import { MOST_COLOURANT_SHARE, MOST_WATER_BASED_SHARE } from '@/core/tint/limits';
import type { Recipe } from '@/core/model/recipeSchema';
import { measureText } from '@/core/units/formatMeasure';
import { useUnits } from '@/ui/measure/UnitsContext';
import { Reading, Readings } from '@/ui/reading/Reading';

/** What follows from a recipe. */
export function RecipeReadings({ recipe, doses }: { recipe: Recipe; doses: readonly RecipeDose[] }) {
  const units = useUnits();
  const { total, waterBased } = colourantShares(doses);
  const smallest = smallestDropMixGrams(doses);
  const percent = (share: number): string => (share * 100).toFixed(2);
  const cup = smallest === null ? { digits: 'any', unit: '' } : measureText(smallest, 'mass', units);
  return (
    <Readings>
      <Reading label="Smallest cup for drops" {...cup} strong explain={() => explainRecipe('smallestCup', doses)} />
      <Reading
        label="Colourant in all"
        digits={percent(total)}
        unit="%"
        note={`at most ${MOST_COLOURANT_SHARE * 100} %`}
        explain={() => explainRecipe('colourant', doses)}
      />
      <Reading
        label="Water-based"
        digits={percent(waterBased)}
        unit="%"
        note={`at most ${MOST_WATER_BASED_SHARE * 100} %`}
        explain={() => explainRecipe('waterBased', doses)}
      />
      <Reading label="Colourants" digits={String(recipe.doses.length)} />
    </Readings>
  );
}
