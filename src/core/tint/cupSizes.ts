import { DROP_TOLERANCE, type RecipeDose } from './doses';

/** Cups in which whole drops come out right: from so many grams to so many. */
export interface CupRange {
  fromGrams: number;
  toGrams: number;
}

export interface CupSizes {
  /** The sizes that are right below `alwaysFromGrams`, smallest first; between them one is wrong. */
  right: CupRange[];
  /** From here on every cup is right. */
  alwaysFromGrams: number;
}

/**
 * In which mixes whole drops of every colourant are within `tolerance` of the recipe. A cup of m grams is right for a colourant of
 * which one drop does for p grams where some whole k has |k·p/m − 1| ≤ tolerance: from k·p/(1 + tolerance) to k·p/(1 − tolerance).
 * These stretches meet from k = (1 − tolerance)/2·tolerance on; several colourants must be right at once. Null for a clear recipe.
 */
export function cupSizes(recipe: readonly RecipeDose[], tolerance = DROP_TOLERANCE): CupSizes | null {
  const perDrop = recipe
    .filter(({ gramsPer100 }) => gramsPer100 > 0)
    .map(({ colourant, gramsPer100 }) => (colourant.dropGrams * 100) / gramsPer100);
  if (perDrop.length === 0) return null;
  const meet = Math.max(1, Math.ceil((1 - tolerance) / (2 * tolerance) - 1e-9));
  const alwaysOf = (grams: number): number => (meet * grams) / (1 + tolerance);
  const rangesOf = (grams: number): CupRange[] => [
    ...Array.from({ length: meet - 1 }, (_, i) => ({
      fromGrams: ((i + 1) * grams) / (1 + tolerance),
      toGrams: ((i + 1) * grams) / (1 - tolerance),
    })),
    { fromGrams: alwaysOf(grams), toGrams: Infinity },
  ];
  const right = perDrop.map(rangesOf).reduce((some, others) => joined(some, others));
  // The last stretch is the one without end: it begins where the last of the colourants is right in every cup.
  return { right: right.slice(0, -1), alwaysFromGrams: Math.max(...perDrop.map(alwaysOf)) };
}

/** Where a stretch of the one list and one of the other hold at once. */
const joined = (some: readonly CupRange[], others: readonly CupRange[]): CupRange[] =>
  some
    .flatMap((a) =>
      others.map((b) => ({ fromGrams: Math.max(a.fromGrams, b.fromGrams), toGrams: Math.min(a.toGrams, b.toGrams) })),
    )
    .filter(({ fromGrams, toGrams }) => fromGrams <= toGrams)
    .sort((a, b) => a.fromGrams - b.fromGrams);
