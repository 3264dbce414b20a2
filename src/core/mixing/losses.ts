/** What never reaches the bed. Typical figures until the log knows better. */
export const LOSS_PER_CUP_GRAMS = 1.5;
export const LOSS_SHARE = 0.02;
export const LOSS_PER_PIECE_GRAMS = 0.3;

/** Grams to mix so that `pouredGrams` reach `pieces` pieces from one cup: + 0.3 g a piece, + 1.5 g, + 2 % of the mix. */
export const mixForPour = (pouredGrams: number, pieces: number): number =>
  (pouredGrams + pieces * LOSS_PER_PIECE_GRAMS + LOSS_PER_CUP_GRAMS) / (1 - LOSS_SHARE);

/** Grams that can be poured into `pieces` pieces from a mix: the inverse of `mixForPour`. */
export const pourFromMix = (mixGrams: number, pieces: number): number =>
  mixGrams * (1 - LOSS_SHARE) - LOSS_PER_CUP_GRAMS - pieces * LOSS_PER_PIECE_GRAMS;

/** Smallest mix that a scale of this resolution can weigh: half a step over the smaller part at most 1 %. */
export const smallestMixGrams = (ratioByWeight: number, scaleStepGrams: number): number =>
  (scaleStepGrams / 2 / 0.01) * (1 + Math.max(ratioByWeight, 1 / ratioByWeight));
