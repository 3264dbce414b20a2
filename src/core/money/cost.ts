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
  /** Grams mixed in all cups, and of them what reaches the pieces. */
  mixGrams: number;
  pouredGrams: number;
  pricePerGram: number;
  colourants: readonly { grams: number; pricePerGram: number }[];
  cups: number;
  pricePerCup: number;
  pieces: number;
}

/** Product used and lost at its pack price, colourants at their bottle price, and cups. Hours are not counted. */
export function waterCost(input: CostInput): Cost {
  const lostGrams = input.mixGrams - input.pouredGrams;
  const product = input.pouredGrams * input.pricePerGram;
  const lost = lostGrams * input.pricePerGram;
  const colourant = input.colourants.reduce((sum, { grams, pricePerGram }) => sum + grams * pricePerGram, 0);
  const cups = input.cups * input.pricePerCup;
  const total = product + lost + colourant + cups;
  return {
    productGrams: input.mixGrams,
    lostGrams,
    product,
    lost,
    colourant,
    cups,
    total,
    perPiece: input.pieces > 0 ? total / input.pieces : 0,
  };
}
