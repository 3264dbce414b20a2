import type { LayerPlan } from '@/core/plan';

/** How a layer of a recipe that is poured pour by pour is tinted; nothing where it is the recipe itself. */
export function tintWords({ strength = 1, own, doses }: Pick<LayerPlan, 'strength' | 'own' | 'doses'>): string {
  if (doses.every(({ grams }) => grams === 0)) return doses.length > 0 ? ', clear' : '';
  if (own) return ', a tint of its own';
  return strength === 1 ? '' : `, tint at ${Math.round(strength * 100)} %`;
}

/** What is done at the bench before a layer that plants are set for. */
export const PLANTS_FIRST =
  'Set the plants first, and seal dry stems: air rises from them for as long as the layer is liquid.';
