import type { Losses } from '../mixing/losses';
import { RESERVE_SHARE, stirMinutesOf } from '../mixing/potLife';
import { type Product, setsInTheCup } from '../model/productSchema';
import type { Portion } from './portions';

/** In the good case this share of what was planned as loss is not lost. */
const GOOD_CASE = 0.5;

/** One pour out of a cup, and what the scale under the cup shows once it is done. */
export interface CupStep {
  designId: string;
  copy: number;
  tag: string;
  grams: number;
  /** The scale was set to nought with the empty cup on it: this is what is still in the cup. */
  cupShowsGrams: number;
}

/** How one cup is worked: stirred so long, poured in this order, empty by then. */
export interface CupWork {
  steps: CupStep[];
  /** 0 for what comes ready to pour. */
  stirMinutes: number;
  /** Minutes after the parts met by which the last piece is poured, a fifth of the pot life in hand; null: no hurry. */
  pourByMinutes: number | null;
  /** What is left in the cup at the end when all goes as planned: it sticks to the cup, or has begun to set. */
  leftGrams: number;
  /** What can still be poured in the good case: half of the planned loss. */
  goodSpareGrams: number;
}

interface PlannedCup {
  mixGrams: number;
  /** Product and colourants; the scale weighs both. */
  portions: readonly Pick<Portion, 'showsGrams'>[];
  potLifeMinutes: number;
  pours: readonly Omit<CupStep, 'cupShowsGrams'>[];
}

/**
 * The work of one cup. Each piece takes its grams and what drips and stays on its rim, so the reading to stop at is what was in the
 * cup before, less both. Assumes that the cup stands on the scale between pours.
 */
export function cupWork(
  { mixGrams, portions, potLifeMinutes, pours }: PlannedCup,
  product: Pick<Product, 'cureModel' | 'potLifeMinutes' | 'stirMinutes'>,
  { perPieceGrams }: Pick<Losses, 'perPieceGrams'>,
): CupWork {
  let inCup = portions.at(-1)?.showsGrams ?? mixGrams;
  const steps = pours.map((pour) => {
    inCup -= pour.grams + perPieceGrams;
    return { ...pour, cupShowsGrams: Math.max(0, inCup) };
  });
  const sets = setsInTheCup(product.cureModel);
  const poured = pours.reduce((sum, { grams }) => sum + grams, 0);
  return {
    steps,
    stirMinutes: stirMinutesOf(product),
    pourByMinutes: sets ? potLifeMinutes * (1 - RESERVE_SHARE) : null,
    leftGrams: Math.max(0, inCup),
    goodSpareGrams: Math.max(0, mixGrams - poured) * GOOD_CASE,
  };
}

/** How many more of a piece a spare may fill, and how much each takes. Leftovers are poured only while the cup's pour-by time lasts. */
export const fillsMore = (spareGrams: number, pieceGrams: number): number =>
  pieceGrams > 0 ? Math.floor(spareGrams / pieceGrams + 1e-9) : 0;
