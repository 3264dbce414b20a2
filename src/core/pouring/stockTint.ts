import { reference } from '../model/reference';
import { z } from 'zod';
import { ratioByWeight } from '../mixing/ratio';
import type { Product } from '../model/productSchema';
import { DROP_TOLERANCE, type RecipeDose } from '../tint/doses';

const n = z.number();

/** A colourant as a layer takes it: g in 100 g of mix, and what a drop of it weighs. */
export const tintingSchema = z.object({ id: reference('colourant'), name: z.string(), dropGrams: n, gramsPer100: n });
export type Tinting = z.infer<typeof tintingSchema>;

/** Those colourants of a recipe that there is any of. */
export const tintings = (recipe: readonly RecipeDose[]): Tinting[] =>
  recipe
    .filter(({ gramsPer100 }) => gramsPer100 > 0)
    .map(({ colourant: { id, name, dropGrams }, gramsPer100 }) => ({ id, name, dropGrams, gramsPer100 }));

/** A stock tint: so many drops of each colourant stirred into so many grams of the resin part, for so many grams of mix. */
export const stockTintSchema = z.object({
  /** The resin part that the colourants go into; it counts in the ratio of the cups. */
  resinGrams: n,
  /** The stock altogether, resin and colourants. */
  stockGrams: n,
  /** What mix it tints to the recipe. */
  forMixGrams: n,
  drops: z.array(z.object({ id: reference('colourant'), name: z.string(), drops: n.int(), grams: n })),
  /** By how much the colourants of the stock stand off the recipe among each other, the worst, for whole drops. */
  worstError: n,
});
export type StockTint = z.infer<typeof stockTintSchema>;

/** What a stock is stirred into, and its share of the mix: part A of a two-part product, all of a one-part one. */
export function stockPart({ parts }: Pick<Product, 'parts'>): { name: 'part A' | 'the product'; share: number } {
  if (!parts) return { name: 'the product', share: 1 };
  const ratio = ratioByWeight(parts);
  return { name: 'part A', share: ratio / (1 + ratio) };
}

/** A little more than the cups take: what stays in the stock's own cup. */
const SPARE = 1.1;
/** Whole drops of several colourants stand for the recipe to within this. */
const AMONG_EACH_OTHER = 0.05;
const MOST_DROPS_OF_RAREST = 12;
/** A weight is read to within `DROP_TOLERANCE` when it is this many steps of the scale. */
export const STEPS_TO_WEIGH = 1 / (2 * DROP_TOLERANCE);
/** A cup's share is read twice as well as it has to be; where that would take too much resin, as well as it has to be. */
const SHARE_STEPS = [2 * STEPS_TO_WEIGH, STEPS_TO_WEIGH] as const;
/** Less cannot be stirred. */
const LEAST_RESIN_GRAMS = 5;
/** No more than this share of a cup's resin part comes along with its tint. */
export const MOST_BROUGHT = 0.5;
/** A stock of so much is small enough for any batch; a larger one takes no more resin than all of its cups do. */
const SMALL_STOCK_GRAMS = 10;

/**
 * A stock for the cups of a layer: drops are counted once for all of them, cups are then dosed by weight. As few drops as stand for
 * the recipe with a tenth to spare, and so much resin that the share of the smallest cup is well read on the scale. Null for a clear
 * recipe, for no cups, and where that would take more resin than a cup may get along with its tint, or than all cups hold.
 */
export function stockTint(
  recipe: readonly Tinting[],
  cupsGrams: readonly number[],
  { scaleStepGrams, resinShare }: { scaleStepGrams: number; resinShare: number },
): StockTint | null {
  const totalMix = cupsGrams.reduce((sum, grams) => sum + grams, 0);
  if (recipe.length === 0 || !(totalMix > 0)) return null;
  const mixPerDrop = recipe.map(({ dropGrams, gramsPer100 }) => (100 * dropGrams) / gramsPer100);
  const rarest = Math.max(...mixPerDrop);
  const least = Math.ceil((totalMix * SPARE) / rarest - 1e-9);
  const worst = (forMix: number): number =>
    Math.max(...mixPerDrop.map((mix) => Math.abs(Math.max(1, Math.round(forMix / mix)) / (forMix / mix) - 1)));
  const counts = Array.from({ length: MOST_DROPS_OF_RAREST }, (_, i) => (least + i) * rarest);
  // Of more than ten drops the nearest whole one is always near enough.
  const forMixGrams = counts.find((forMix) => worst(forMix) <= AMONG_EACH_OTHER)!;
  const drops = recipe.map(({ id, name, dropGrams }, i) => {
    const whole = Math.max(1, Math.round(forMixGrams / mixPerDrop[i]!));
    return { id, name, drops: whole, grams: whole * dropGrams };
  });
  const colourGrams = drops.reduce((sum, { grams }) => sum + grams, 0);
  const mostResin = Math.min(
    MOST_BROUGHT * resinShare * forMixGrams,
    Math.max(SMALL_STOCK_GRAMS, resinShare * totalMix),
  );
  for (const steps of SHARE_STEPS) {
    const weighable = (steps * scaleStepGrams * forMixGrams) / Math.min(...cupsGrams);
    const resinGrams = Math.ceil(Math.max(LEAST_RESIN_GRAMS, weighable - colourGrams) - 1e-9);
    if (resinGrams <= mostResin)
      return { resinGrams, stockGrams: resinGrams + colourGrams, forMixGrams, drops, worstError: worst(forMixGrams) };
  }
  return null;
}
