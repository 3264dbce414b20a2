import { potLifeMinutes, pouringMinutes } from '../mixing/potLife';
import type { Product } from '../model/productSchema';
import { missingOf, RATIO_GOOD, ratioByWeight } from '../mixing/ratio';

/** Each part may be off by half of what its ratio may be. */
export const PART_TOLERANCE = RATIO_GOOD / 2;
/** The part that follows may be off by so much either way: too little of it sets the ratio off by a hair more than too much. */
const FOLLOWS_TOLERANCE = RATIO_GOOD / (1 + RATIO_GOOD);
/** From this share of the target on it is poured slowly. */
export const SLOW_FROM = 0.85;

/**
 * How far a weighing may be off, grams, but no finer than the scale shows. The first part may be off by half of what the ratio may; the
 * second follows what of the first is in the cup, so that it has all of the ratio's tolerance for itself. `partGrams` is all of that
 * part in the cup: a few grams that mend it need be no more exact than the whole.
 */
export const toleranceGrams = (partGrams: number, scaleStepGrams: number, follows = false): number =>
  Math.max(scaleStepGrams, partGrams * (follows ? FOLLOWS_TOLERANCE : PART_TOLERANCE));

export type WeighVerdict = 'under' | 'slow' | 'right' | 'over';

/** Where a reading stands to its target. */
export function weighVerdict(grams: number, targetGrams: number, tolerance: number): WeighVerdict {
  if (grams > targetGrams + tolerance + 1e-9) return 'over';
  if (grams >= targetGrams - tolerance - 1e-9) return 'right';
  return grams >= targetGrams * SLOW_FROM ? 'slow' : 'under';
}

/** A cup in which one part went over. */
export interface OverPoured {
  product: Product;
  part: 'A' | 'B' | 'all';
  /** What is in the cup, the part that went over included, and what of part A a premix still brings. */
  aGrams: number;
  bGrams: number;
  /** What it is to fill. */
  pourGrams: number;
  cupGrams: number;
  /** Colourant per gram of mix: it takes room in the cup too. */
  colourShare?: number;
  roomC: number;
  /** What lies in the cup by now, where that is less. */
  inCupGrams?: number;
  /** What the colourants of the cup so far have cost. */
  colourCost: number;
}

export interface OverPourMend {
  /** Grams of the other part that bring the ratio back. 0 where there is no other part. */
  addGrams: number;
  addPart: 'A' | 'B' | null;
  newTotalGrams: number;
  fitsCup: boolean;
  potLifeMinutes: number;
  /** Whether what is to be poured can be poured before the larger cup sets. */
  fitsPotLife: boolean;
  /** What is thrown away with the cup, at the price of the packs. */
  discardCost: number;
}

/**
 * What mends a cup in which too much of one part went in: so much of the other part as the label's ratio asks for what is in it, and
 * what follows: total, whether it still fits the cup and can be poured in time; and what discarding it costs.
 */
export function afterOverPour(over: OverPoured): OverPourMend {
  const { product, part, aGrams, bGrams, pourGrams, cupGrams, roomC } = over;
  const ratio = product.parts ? ratioByWeight(product.parts) : null;
  const addPart = ratio === null || part === 'all' ? null : part === 'A' ? 'B' : 'A';
  const addGrams = ratio === null || addPart === null ? 0 : Math.max(0, missingOf(addPart, aGrams, bGrams, ratio));
  const newTotalGrams = aGrams + bGrams + addGrams;
  const life = potLifeMinutes(product, roomC, Math.max(1, newTotalGrams));
  return {
    addGrams,
    addPart,
    newTotalGrams,
    potLifeMinutes: life,
    fitsCup: newTotalGrams * (1 + (over.colourShare ?? 0)) <= cupGrams + 1e-9,
    fitsPotLife:
      !product.parts ||
      pouringMinutes(product, roomC, Math.max(1, newTotalGrams)) * product.pourGramsPerMinute >= pourGrams - 1e-9,
    discardCost: ((over.inCupGrams ?? aGrams + bGrams) * product.packPrice) / product.packGrams + over.colourCost,
  };
}
