import type { Parts, Product } from '../model/productSchema';

/** Parts A and B of a mix, both by weight and by volume, so that both schools can measure. */
export interface PartAmounts {
  partAGrams: number;
  partBGrams: number;
  partAMl: number;
  partBMl: number;
}

/** A : B by weight. From a volume ratio, r_w = r_v·ρA/ρB. */
export function ratioByWeight({ ratioA, ratioB, ratioBy, densityA, densityB }: Parts): number {
  const ratio = ratioA / ratioB;
  return ratioBy === 'weight' ? ratio : (ratio * densityA) / densityB;
}

/** A : B by volume. From a weight ratio, r_v = r_w·ρB/ρA. */
export const ratioByVolume = (parts: Parts): number => (ratioByWeight(parts) * parts.densityB) / parts.densityA;

/** Density of the liquid mix in g/ml: (mA + mB)/(mA/ρA + mB/ρB), assuming the volumes add. */
export function mixedDensity(parts: Parts): number {
  const a = ratioByWeight(parts);
  return (a + 1) / (a / parts.densityA + 1 / parts.densityB);
}

/** Density of a product as poured, g/ml. */
export const pouredDensity = (product: Pick<Product, 'parts' | 'density'>): number =>
  product.parts ? mixedDensity(product.parts) : product.density;

/** Splits a mix of `mixGrams` into its parts at the label's ratio. */
export function splitParts(mixGrams: number, parts: Parts): PartAmounts {
  const ratio = ratioByWeight(parts);
  const partBGrams = mixGrams / (1 + ratio);
  const partAGrams = mixGrams - partBGrams;
  return { partAGrams, partBGrams, partAMl: partAGrams / parts.densityA, partBMl: partBGrams / parts.densityB };
}

/** How a weighed cup stands to the label's ratio, and what mends it. */
export interface RatioReading {
  /** (A/B)/(target) − 1: positive when there is too much A. */
  error: number;
  grade: 'good' | 'off' | 'wrong';
  /** The part to add, how much of it, and what the cup then holds. Null when nothing needs adding. */
  add: { part: 'A' | 'B'; grams: number; newTotalGrams: number } | null;
}

export const RATIO_GOOD = 0.03;
export const RATIO_WRONG = 0.07;

/** Grams of a part that are missing in a cup at a ratio by weight: A/r − B, or B·r − A; negative where there is too much of it. */
export const missingOf = (part: 'A' | 'B', aGrams: number, bGrams: number, ratio: number): number =>
  part === 'B' ? aGrams / ratio - bGrams : bGrams * ratio - aGrams;

/** Grades a weighed cup: within ±3 % good, to ±7 % off, beyond wrong; and how many grams of the other part mend it. */
export function ratioReading(partAGrams: number, partBGrams: number, parts: Parts): RatioReading {
  if (!(partAGrams > 0 && partBGrams > 0)) throw new RangeError('Both parts must weigh more than 0 g');
  const target = ratioByWeight(parts);
  const error = partAGrams / partBGrams / target - 1;
  const grade =
    Math.abs(error) <= RATIO_GOOD + 1e-12 ? 'good' : Math.abs(error) <= RATIO_WRONG + 1e-12 ? 'off' : 'wrong';
  if (grade === 'good') return { error, grade, add: null };
  const part = error > 0 ? 'B' : 'A';
  const grams = missingOf(part, partAGrams, partBGrams, target);
  return { error, grade, add: { part, grams, newTotalGrams: partAGrams + partBGrams + grams } };
}
