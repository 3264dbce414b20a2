import type { LayerPlan } from '@/core/plan';
import type { Looks } from '@/core/pouring/looks';

/** How a layer of a recipe that is poured pour by pour is tinted; nothing where it is the recipe itself. */
export function tintWords({ strength = 1, own, doses }: Pick<LayerPlan, 'strength' | 'own' | 'doses'>): string {
  if (doses.every(({ grams }) => grams === 0)) return doses.length > 0 ? ', clear' : '';
  if (own) return ', a tint of its own';
  return strength === 1 ? '' : `, tint at ${Math.round(strength * 100)} %`;
}

/** When a layer is looked at after its pour, and what for; nothing where there is nothing to see. */
export function lookWords({ bubbles, leaks }: Looks): string {
  const at = (minutes: readonly number[]): string =>
    minutes.length > 1 ? `${minutes.slice(0, -1).join(', ')} and ${minutes.at(-1)} min` : `${minutes[0]} min`;
  return [
    bubbles.length > 0 ? ` Look for bubbles after ${at(bubbles)}.` : '',
    leaks.length > 0 ? ` Look for leaks after ${at(leaks)}.` : '',
  ].join('');
}

/** What is done at the bench before a layer that plants are set for. */
export const PLANTS_FIRST =
  'Set the plants first, and seal dry stems: air rises from them for as long as the layer is liquid.';
