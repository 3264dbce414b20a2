import { pieceKey } from '../model/pieceRef';
import type { Pour } from '../mixing/cups';
import { restOfLayer } from '../plan/planBatch';
import type { Amounts, LayerAmounts } from '../plan/plan';
import type { PlanRequest } from '../plan/request';
import type { PourRecord } from './recordSchemas';

/** Whether an entry of the log comes from a run at the bench, which says of each cup where it went; by hand a layer is entered whole. */
export const isOfBench = ({ cups }: Pick<PourRecord, 'cups'>): boolean =>
  cups.some(({ pieces }) => pieces !== undefined);

/**
 * Pours of a planned layer that were not made: what a run left dry, given up or in passing. A piece that is planned in two cups is
 * poured twice. The database counts them by the same rule (`DRY_POURS`).
 */
export function dryPours(planned: Pick<LayerAmounts, 'cups'>, entry: Pick<PourRecord, 'cups'>): Pour[] {
  if (!isOfBench(entry)) return [];
  const made = new Map<string, number>();
  for (const { pieces = [] } of entry.cups)
    for (const piece of pieces) made.set(pieceKey(piece), (made.get(pieceKey(piece)) ?? 0) + 1);
  return planned.cups
    .flatMap(({ pours }) => pours)
    .filter((pour) => {
      const left = made.get(pieceKey(pour)) ?? 0;
      if (left > 0) made.set(pieceKey(pour), left - 1);
      return left === 0;
    });
}

/** Entries of layers that are poured whole. */
export const wholePours = <P extends PourRecord>({ layers }: Pick<Amounts, 'layers'>, pours: readonly P[]): P[] =>
  pours.filter((pour) => {
    const planned = layers.find(({ number }) => number === pour.layer);
    return !planned || dryPours(planned, pour).length === 0;
  });

/** A plan in which a layer that was poured in part takes what is left of it, in cups that are numbered on from those it has had. */
export const stillToPour = (amounts: Amounts, request: PlanRequest, pours: readonly PourRecord[]): Amounts => ({
  ...amounts,
  layers: amounts.layers.map((layer) => {
    const entry = pours.find((pour) => pour.layer === layer.number);
    const dry = entry ? dryPours(layer, entry) : [];
    if (!entry || dry.length === 0) return layer;
    const last = Math.max(...[...layer.cups, ...entry.cups].map(({ number }) => number));
    return restOfLayer(request, layer, dry, last + 1);
  }),
});
