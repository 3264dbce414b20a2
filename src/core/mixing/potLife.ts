import { z } from 'zod';
import { temperatureFactor } from '../cure/temperature';
import { type Product, setsInTheCup } from '../model/productSchema';

/** Minutes that go by before the first piece is poured, and the part of the pot life kept in hand. */
export const STIR_MINUTES = 3;
export const TRANSFER_MINUTES = 1;
export const RESERVE_SHARE = 0.2;
/** A five-minute product is stirred for half a minute and poured from the cup it was mixed in. */
export const isQuick = (potLifeMinutes: number): boolean => potLifeMinutes < 10;
const QUICK_STIR_MINUTES = 0.5;
/** What goes by between the last turn of the stick and the first piece. */
const QUICK_TRANSFER_MINUTES = 0.25;

/** What tells how long a mix of a product may be poured. */
type Stirred = Pick<Product, 'cureModel' | 'potLifeMinutes' | 'referenceC' | 'stirMinutes'>;

/** The label's cup for which a pot life is given. */
export const LABEL_CUP_GRAMS = 100;
/** A larger cup keeps its heat: its pot life falls with this power of its mass, within these shares of the label’s. */
export const CUP_EXPONENT = 0.3;
export const LEAST_LIFE = 0.4;
export const MOST_LIFE = 2.5;

/**
 * Pot life of a cup in minutes: label·(temperature factor)·(100 g/m)^0.3, between 0.4 and 2.5 of the label's.
 * Two-part products only; others keep the label's figure. An estimate: a wide, shallow cup lasts longer.
 */
export function potLifeMinutes(
  product: Pick<Product, 'cureModel' | 'potLifeMinutes' | 'referenceC'>,
  roomC: number,
  cupGrams: number,
): number {
  if (!setsInTheCup(product.cureModel)) return product.potLifeMinutes;
  const factor = temperatureFactor(roomC, product.referenceC) * (LABEL_CUP_GRAMS / cupGrams) ** CUP_EXPONENT;
  return product.potLifeMinutes * Math.min(MOST_LIFE, Math.max(LEAST_LIFE, factor));
}

/** How long a mix of a product is stirred: as the maker says, else the usual time. Nothing is stirred where no parts meet. */
export const stirMinutesOf = ({
  cureModel,
  potLifeMinutes: life,
  stirMinutes,
}: Pick<Product, 'cureModel' | 'potLifeMinutes' | 'stirMinutes'>): number =>
  setsInTheCup(cureModel) ? (stirMinutes ?? (isQuick(life) ? QUICK_STIR_MINUTES : STIR_MINUTES)) : 0;

/** Minutes left for pouring: pot life less stirring, changing cups and a fifth in reserve; never below 0. */
export function pouringMinutes(product: Stirred, roomC: number, cupGrams: number): number {
  const life = potLifeMinutes(product, roomC, cupGrams);
  const spent = setsInTheCup(product.cureModel)
    ? stirMinutesOf(product) + (isQuick(product.potLifeMinutes) ? QUICK_TRANSFER_MINUTES : TRANSFER_MINUTES)
    : 0;
  return Math.max(0, life * (1 - RESERVE_SHARE) - spent);
}

/** What a piece takes beside the pouring itself: reach, wait for the level, next. An estimate, until a run knows better. */
export const PER_PIECE_MINUTES = 0.4;

/** How a cup is poured: so many grams a minute, and so long for each piece beside. */
export interface PourPace {
  perPieceMinutes: number;
  gramsPerMinute: number;
}

/** The pace of a product that is poured by so many pairs of hands; its speed is that of all of them. */
export const usualPace = ({ pourGramsPerMinute }: Pick<Product, 'pourGramsPerMinute'>, hands: 1 | 2 = 1): PourPace => ({
  perPieceMinutes: PER_PIECE_MINUTES / hands,
  gramsPerMinute: pourGramsPerMinute,
});

/** Whether so many pieces are filled from a mix before it sets, a fifth of its pot life in hand. What never sets waits. */
export const pouredInTime = (
  product: Stirred,
  roomC: number,
  mixGrams: number,
  pieces: number,
  { perPieceMinutes, gramsPerMinute }: PourPace,
): boolean =>
  !setsInTheCup(product.cureModel) ||
  pouringMinutes(product, roomC, mixGrams) >= pieces * perPieceMinutes + mixGrams / gramsPerMinute - 1e-9;

/** The most that one mix may hold, and what keeps it from more. */
export const mostMixSchema = z.object({ grams: z.number(), limit: z.enum(['cup', 'pot life']) });
export type MostMix = z.infer<typeof mostMixSchema>;

/**
 * The most grams that one mix may hold: what can be poured into one piece before it sets, and what the cup takes.
 * Found by bisection, since a larger cup sets sooner. Lamp-cured and other one-part products are limited by the cup alone.
 * `colourShare` is colourant per gram of mix: it takes room in the cup too.
 */
export function mostMixGrams(
  product: Product,
  roomC: number,
  cupHoldsGrams: number,
  colourShare = 0,
  pace = usualPace(product),
): MostMix {
  const cupGrams = cupHoldsGrams / (1 + colourShare);
  const canPour = (grams: number): boolean => pouredInTime(product, roomC, grams, 1, pace);
  if (canPour(cupGrams)) return { grams: cupGrams, limit: 'cup' };
  let [low, high] = [0.1, cupGrams];
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (canPour(middle)) low = middle;
    else high = middle;
  }
  return { grams: low, limit: 'pot life' };
}
