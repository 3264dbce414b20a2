import type { LinearRgb } from './colour';
import { deltaE } from './difference';
import type { RecipeDose } from './doses';
import type { Colourant } from '../model/recipeSchema';
import { lightByDepth } from './waterLook';
import type { Clarity } from '../model/tintSchema';

/** How far each recipe's water moves to the eye when a colourant is known better: CIEDE2000 at a depth over a bed. */
export function movedBy(
  recipes: readonly { id: string; doses: readonly RecipeDose[] }[],
  colourant: Colourant & { id: string },
  { bed, depthMm, clarity }: { bed: LinearRgb; depthMm: number; clarity: Clarity },
): { id: string; deltaE: number }[] {
  return recipes.flatMap(({ id, doses }) => {
    if (!doses.some((dose) => dose.colourant.id === colourant.id && dose.gramsPer100 > 0)) return [];
    const after = doses.map((dose) => (dose.colourant.id === colourant.id ? { ...dose, colourant } : dose));
    const seen = (of: readonly RecipeDose[]): LinearRgb => lightByDepth(bed, { clarity, doses: of })(depthMm);
    return [{ id, deltaE: deltaE(seen(doses), seen(after)) }];
  });
}
