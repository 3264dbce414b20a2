import type { Product } from '../mixing/product';
import { ratioByWeight } from '../mixing/ratio';
import type { RecipeDose } from './doses';

/** A stock tint: so many drops of each colourant stirred into so many grams of the resin part, and what each cup takes of it. */
export interface StockTint {
  /** The resin part that the colourants go into; it counts in the ratio of the cups. */
  resinGrams: number;
  drops: { id: string; name: string; drops: number; grams: number }[];
  /** The stock altogether, resin and colourants. */
  stockGrams: number;
  /** Grams of stock for each cup, to the scale's step, in the order they were asked; `resinGrams` of it is resin. */
  perCup: { mixGrams: number; stockGrams: number; resinGrams: number }[];
  /** By how much the colourants of the stock stand off the recipe among each other, the worst, for whole drops. */
  worstError: number;
}

/** What a stock is stirred into, and its share of the mix: part A of a two-part product, all of a one-part one. */
export function stockPart({ parts }: Pick<Product, 'parts'>): { name: 'part A' | 'the product'; share: number } {
  if (!parts) return { name: 'the product', share: 1 };
  const ratio = ratioByWeight(parts);
  return { name: 'part A', share: ratio / (1 + ratio) };
}

/** A little more than the cups take: what stays in the stock's own cup. */
const SPARE = 1.1;
/** A cup's share is read to within 5 % when it is this many steps of the scale. */
const STEPS_TO_WEIGH = 10;
/** Drops of the rarest colourant, so that whole drops stand for the recipe to within 5 %. */
const LEAST_DROPS = 10;

/**
 * A stock for several cups of one layer: drops are counted once for all of them, cups are then dosed by weight. There are at least
 * ten drops of the rarest colourant, and so much resin that the smallest cup's share is ten steps of the scale. Null for a clear
 * recipe, for no cups, or where the cups hold less resin part (`resinShare` of the mix) than the stock would bring along.
 */
export function stockTint(
  recipe: readonly RecipeDose[],
  cupsGrams: readonly number[],
  { scaleStepGrams, resinShare }: { scaleStepGrams: number; resinShare: number },
): StockTint | null {
  const doses = recipe.filter(({ gramsPer100 }) => gramsPer100 > 0);
  const totalMix = cupsGrams.reduce((sum, grams) => sum + grams, 0);
  if (doses.length === 0 || totalMix <= 0) return null;
  const dropsFor = (mixGrams: number): number[] =>
    doses.map(({ colourant, gramsPer100 }) => (gramsPer100 * mixGrams) / 100 / colourant.dropGrams);
  const rarest = Math.min(...dropsFor(totalMix * SPARE));
  const forMix = totalMix * SPARE * Math.max(1, LEAST_DROPS / rarest);
  const drops = doses.map(({ colourant }, i) => {
    const whole = Math.max(1, Math.round(dropsFor(forMix)[i]!));
    return { id: colourant.id, name: colourant.name, drops: whole, grams: whole * colourant.dropGrams };
  });
  const colourGrams = drops.reduce((sum, { grams }) => sum + grams, 0);
  const smallest = Math.min(...cupsGrams);
  // Of the stock a cup of m grams takes m/forMix.
  const least = (STEPS_TO_WEIGH * scaleStepGrams * forMix) / smallest;
  const resinGrams = Math.ceil(Math.max(5, least - colourGrams) - 1e-9);
  if (resinGrams > resinShare * forMix) return null;
  const stockGrams = resinGrams + colourGrams;
  return {
    resinGrams,
    drops,
    stockGrams,
    perCup: cupsGrams.map((mixGrams) => {
      const exact = (stockGrams * mixGrams) / forMix;
      const weighed = Math.round(exact / scaleStepGrams) * scaleStepGrams;
      return { mixGrams, stockGrams: weighed, resinGrams: (weighed * resinGrams) / stockGrams };
    }),
    worstError: Math.max(...drops.map(({ drops: whole }, i) => Math.abs(whole / dropsFor(forMix)[i]! - 1))),
  };
}
