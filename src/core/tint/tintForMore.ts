import type { CupDose } from './doses';
import type { RatioReading } from '../mixing/ratio';

/** Colourant that a cup wants beside what is in it already. */
export interface TintMend {
  id: string;
  name: string;
  grams: number;
  drops: number;
}

/**
 * What a cup that is mended with the other part wants of its colourants: it was tinted for the planned mix, and holds more now. Empty
 * where it holds no more than was planned, or so little more that not half a drop is missing. `dropGrams` by colourant.
 */
export function tintForMore(
  { newTotalGrams }: Pick<NonNullable<RatioReading['add']>, 'newTotalGrams'>,
  { mixGrams, doses }: { mixGrams: number; doses: readonly CupDose[] },
  dropGrams: (colourantId: string) => number,
): TintMend[] {
  const more = mixGrams > 0 ? newTotalGrams / mixGrams - 1 : 0;
  if (!(more > 0)) return [];
  return doses.flatMap(({ id, name, grams }) => {
    const extra = grams * more;
    const drops = Math.round(extra / dropGrams(id));
    return drops > 0 ? [{ id, name, grams: extra, drops }] : [];
  });
}
