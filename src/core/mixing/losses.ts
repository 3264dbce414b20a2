import { z } from 'zod';

const number = z.number({ error: 'Type a number' });

/** What never reaches the bed: grams that stay in each cup, a share of the mix, grams for each piece. */
export const lossesSchema = z.object({
  perCupGrams: number.min(0, 'Cannot be negative').max(50, 'At most 50 g'),
  share: number.min(0, 'Cannot be negative').max(0.5, 'At most 50 %'),
  perPieceGrams: number.min(0, 'Cannot be negative').max(20, 'At most 20 g'),
});
export type Losses = z.infer<typeof lossesSchema>;

/** Typical losses until the log knows better. */
export const TYPICAL_LOSSES: Losses = { perCupGrams: 1.5, share: 0.02, perPieceGrams: 0.3 };

/** Grams to mix so that `pouredGrams` reach `pieces` pieces from one cup: + grams a piece, + grams a cup, + a share of the mix. */
export const mixForPour = (pouredGrams: number, pieces: number, losses: Losses = TYPICAL_LOSSES): number =>
  (pouredGrams + pieces * losses.perPieceGrams + losses.perCupGrams) / (1 - losses.share);

/** Grams that can be poured into `pieces` pieces from a mix: the inverse of `mixForPour`. */
export const pourFromMix = (mixGrams: number, pieces: number, losses: Losses = TYPICAL_LOSSES): number =>
  mixGrams * (1 - losses.share) - losses.perCupGrams - pieces * losses.perPieceGrams;

/** Smallest mix that a scale of this resolution can weigh: half a step over the smaller part at most 1 %. */
export const smallestMixGrams = (ratioByWeight: number, scaleStepGrams: number): number =>
  (scaleStepGrams / 2 / 0.01) * (1 + Math.max(ratioByWeight, 1 / ratioByWeight));
