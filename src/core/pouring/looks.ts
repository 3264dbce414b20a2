import { CURE_MODELS } from '../cure/cureModels';
import { isQuick } from '../mixing/potLife';
import type { Product } from '../model/productSchema';

/** Minutes after a pour at which its pieces are looked at: for bubbles that rise, for leaks under dams. */
const BUBBLE_LOOKS = [10, 15] as const;
const LEAK_LOOKS = [10, 30, 60] as const;
/** A leak that was found is looked at again so much later. */
export const LEAK_AGAIN_MINUTES = 10;

export interface Looks {
  bubbles: readonly number[];
  leaks: readonly number[];
}

/**
 * When the pieces of a layer are looked at after its pour: from the row of its product's kind, for plan, card, calendar, clocks and
 * practice alike. What sets within minutes, or dries, shows no bubbles that could be mended; without dams nothing leaks.
 */
export function looksAfter(
  { cureModel, potLifeMinutes }: Pick<Product, 'cureModel' | 'potLifeMinutes'>,
  dammed: boolean,
): Looks {
  const { bubblesRise, runsOut } = CURE_MODELS[cureModel];
  return {
    bubbles: bubblesRise && !isQuick(potLifeMinutes) ? BUBBLE_LOOKS : [],
    leaks: dammed && runsOut ? LEAK_LOOKS : [],
  };
}

/** Every moment at which there is something to look for, and what. */
export const lookMoments = ({ bubbles, leaks }: Looks): { minutes: number; bubbles: boolean; leaks: boolean }[] =>
  [...new Set([...bubbles, ...leaks])]
    .sort((a, b) => a - b)
    .map((minutes) => ({ minutes, bubbles: bubbles.includes(minutes), leaks: leaks.includes(minutes) }));
