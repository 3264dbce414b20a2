import { useMemo } from 'react';
import { resolveRecipe } from '@/core/records/buildRequest';
import type { Stored } from '@/core/model/stored';
import type { RecipeDose } from '@/core/tint/doses';
import type { Recipe } from '@/core/model/recipeSchema';
import type { WaterTint } from '@/core/tint/waterTint';
import { useDesk, useDeskPlan, useLiveDesk } from '../desk/DeskContext';
import type { Clarity } from '@/core/model/tintSchema';

/** What the Tint stage is about: the set's recipe in its product as it is dragged, and how deep its water is. */
export interface Tinting {
  recipe: Stored<Recipe> | null;
  doses: readonly RecipeDose[];
  tint: WaterTint;
  clarity: Clarity;
  deepestMm: number;
  /** Where the water of each design ends. */
  depths: readonly { tag: string; designId: string; depthMm: number }[];
  /** Any recipe of the shelf in the set's product. */
  tintOf: (recipe: Stored<Recipe>) => WaterTint;
}

/** Water where nothing is planned yet, mm. */
const FIRST_DEPTH_MM = 6;

export function useTint(): Tinting {
  const { desk } = useDesk();
  const { plan } = useDeskPlan();
  const { tint } = useLiveDesk();
  return useMemo(() => {
    const depths =
      plan?.pieces.map(({ tag, designId, water }) => ({ tag, designId, depthMm: water.greatestDepthMm })) ?? [];
    return {
      recipe: desk.shelf.recipes.find(({ id }) => id === desk.set.data.recipeId) ?? null,
      doses: tint.doses,
      tint,
      clarity: tint.clarity,
      deepestMm: Math.max(1, ...(depths.length > 0 ? depths.map(({ depthMm }) => depthMm) : [FIRST_DEPTH_MM])),
      depths,
      tintOf: (recipe) => {
        const { doses, pours } = resolveRecipe(recipe, desk.shelf);
        return { clarity: tint.clarity, doses, ...(pours && { pours }) };
      },
    };
  }, [desk, plan, tint]);
}
