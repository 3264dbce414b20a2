import type { Stored } from '@/core/model/stored';
import type { Recipe } from '@/core/model/recipeSchema';
import type { TintPour } from '@/core/model/tintSchema';
import { useDesk } from '../../desk/DeskContext';

/** What a pour of some is called, from the surface down. */
export const pourName = (index: number, count: number): string =>
  index === 0 ? 'the top pour' : index === count - 1 ? 'the lowest' : `pour ${index + 1}`;

/** The pours of a recipe, and how they are changed. */
export function usePours(recipe: Stored<Recipe>) {
  const { tintRecipe } = useDesk();
  const put = (make: (pours: readonly TintPour[]) => readonly TintPour[], label: string): void => {
    tintRecipe(
      recipe.id,
      ({ pours: before = [], ...data }) => {
        const next = make(before);
        return next.length > 0 ? { ...data, pours: [...next] } : data;
      },
      label,
    );
  };
  const change = (
    at: number,
    part: (pour: TintPour) => { [K in keyof TintPour]?: TintPour[K] | undefined },
    words: string,
  ): void =>
    put(
      (now) =>
        now.map((pour, i) => {
          if (i !== at) return pour;
          const { own, ...rest } = { ...pour, ...part(pour) } as TintPour;
          return own ? { ...rest, own } : rest;
        }),
      `Change the ${words} of a pour`,
    );
  return { pours: recipe.data.pours ?? [], put, change };
}
