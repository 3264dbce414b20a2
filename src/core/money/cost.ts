import { z } from 'zod';

/** What a batch's water costs. Money in the maker's currency. */
export const costSchema = z.object({
  productGrams: z.number(),
  lostGrams: z.number(),
  product: z.number(),
  lost: z.number(),
  colourant: z.number(),
  cups: z.number(),
  total: z.number(),
  perPiece: z.number(),
});
export type Cost = z.infer<typeof costSchema>;

export interface CostInput {
  /** Product by product: grams mixed in all cups, of them what reaches the pieces, and the price of a gram. */
  water: readonly { mixGrams: number; pouredGrams: number; pricePerGram: number }[];
  colourants: readonly { grams: number; pricePerGram: number }[];
  cups: number;
  pricePerCup: number;
  pieces: number;
}

/** Product used and lost at its pack price, colourants at their bottle price, and cups. Hours are not counted. */
export function waterCost(input: CostInput): Cost {
  const over = (pick: (product: CostInput['water'][number]) => number): number =>
    input.water.reduce((sum, product) => sum + pick(product), 0);
  const lostGrams = over(({ mixGrams, pouredGrams }) => mixGrams - pouredGrams);
  const product = over(({ pouredGrams, pricePerGram }) => pouredGrams * pricePerGram);
  const lost = over(({ mixGrams, pouredGrams, pricePerGram }) => (mixGrams - pouredGrams) * pricePerGram);
  const colourant = input.colourants.reduce((sum, { grams, pricePerGram }) => sum + grams * pricePerGram, 0);
  const cups = input.cups * input.pricePerCup;
  const total = product + lost + colourant + cups;
  return {
    productGrams: over(({ mixGrams }) => mixGrams),
    lostGrams,
    product,
    lost,
    colourant,
    cups,
    total,
    perPiece: input.pieces > 0 ? total / input.pieces : 0,
  };
}
