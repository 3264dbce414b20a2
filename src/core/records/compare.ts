import type { LayerPlan } from '../plan/plan';
import { ratioReading, type RatioReading } from '../mixing/ratio';
import type { Parts } from '../model/productSchema';
import type { PourRecord, WeighedCup } from './recordSchemas';

/** One cup, planned against really weighed. */
export interface CupComparison {
  number: number;
  plannedGrams: number;
  realGrams: number;
  /** Real less planned. */
  differenceGrams: number;
  /** How the ratio came out: it is poured, so there is nothing to add. Null for one-part products and cups with a part missing. */
  ratio: RatioReading | null;
  note: string;
}

/** One layer, planned against really poured. */
export interface LayerComparison {
  cups: CupComparison[];
  plannedGrams: number;
  realGrams: number;
  differenceGrams: number;
}

/** Total weighed into a cup. */
export const weighedGrams = ({ partAGrams, partBGrams }: Pick<WeighedCup, 'partAGrams' | 'partBGrams'>): number =>
  partAGrams + (partBGrams ?? 0);

/** Sets a poured layer beside its plan, cup by cup. */
export function compareLayer(
  layer: Pick<LayerPlan, 'cups' | 'mixGrams'>,
  pour: PourRecord,
  parts: Parts | null,
): LayerComparison {
  const cups = pour.cups.map((cup): CupComparison => {
    const plannedGrams = layer.cups.find(({ number }) => number === cup.number)?.mixGrams ?? 0;
    const realGrams = weighedGrams(cup);
    const ratio =
      parts && cup.partAGrams > 0 && (cup.partBGrams ?? 0) > 0
        ? { ...ratioReading(cup.partAGrams, cup.partBGrams ?? 0, parts), add: null }
        : null;
    return {
      number: cup.number,
      plannedGrams,
      realGrams,
      differenceGrams: realGrams - plannedGrams,
      ratio,
      note: cup.note,
    };
  });
  const realGrams = cups.reduce((sum, cup) => sum + cup.realGrams, 0);
  return { cups, plannedGrams: layer.mixGrams, realGrams, differenceGrams: realGrams - layer.mixGrams };
}
