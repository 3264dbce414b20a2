import type { Amounts } from '../plan/plan';
import type { AmountsRequest } from '../plan/request';
import type { Consumable, StockItem, StockPart } from '../model/stockSchema';

/** How much of one thing a batch takes: most likely, and in a bad case. Grams, or pieces of a consumable. */
export interface Need {
  item: StockItem;
  part: StockPart;
  name: string;
  likely: number;
  high: number;
}

/** What cups cost beside the packs of consumables: nothing where they stand on the shelf as one. Cups are counted once. */
export const cupsBesidePacks = (
  cupsPrice: number,
  consumables: readonly { data: Pick<Consumable, 'per'> }[],
): number => (consumables.some(({ data }) => data.per === 'cup') ? 0 : cupsPrice);

/** In a bad case half as much again stays in cups and on sticks. Typical, until the log knows better. */
const BAD_LOSS = 1.5;

/**
 * What a batch takes of each part of its product, of each colourant and of the consumables. Likely is the plan. The bad case adds
 * what beds may be off by (each piece on its own, in 19 of 20 cases: their squares add) and half as much loss again.
 */
export function batchNeeds(
  { product, recipe }: Pick<AmountsRequest, 'product' | 'recipe'>,
  { totals, pieces, layers }: Pick<Amounts, 'totals' | 'pieces' | 'layers'>,
  consumables: readonly { id: string; data: Consumable }[] = [],
): Need[] {
  const off = Math.hypot(...pieces.map(({ copies, uncertainGrams }) => Math.sqrt(copies) * uncertainGrams), 0);
  const lost = totals.mixGrams - totals.pouredGrams;
  const bad = totals.mixGrams > 0 ? (totals.mixGrams + off + (BAD_LOSS - 1) * lost) / totals.mixGrams : 1;
  const need = (item: StockItem, part: StockPart, name: string, likely: number): Need => ({
    item,
    part,
    name,
    likely,
    high: likely * bad,
  });
  const tints = totals.doses
    .filter(({ grams }) => grams > 0)
    .map(({ id, name, grams }) => need({ kind: 'colourant', id }, 'all', name, grams));
  const products = totals.products ?? [{ ...product, mixGrams: totals.mixGrams, parts: totals.parts }];
  const water = products.flatMap(({ id, name, mixGrams, parts }) => {
    const of: StockItem = { kind: 'product', id };
    if (!(mixGrams > 0)) return [];
    return parts
      ? [need(of, 'A', `${name}, part A`, parts.partAGrams), need(of, 'B', `${name}, part B`, parts.partBGrams)]
      : [need(of, 'all', name, mixGrams)];
  });
  const times: Record<Consumable['per'], number> = {
    cup: totals.cups,
    layer: layers.length,
    batch: 1,
    piece: totals.pieces,
    'mm of dam': totals.damMm,
  };
  return [
    ...water,
    ...tints.filter(({ item }) => recipe.doses.some(({ colourant }) => colourant.id === item.id)),
    ...consumables.flatMap(({ id, data }): Need[] => {
      const count = Math.ceil(times[data.per] * data.amount - 1e-9);
      return count > 0
        ? [{ item: { kind: 'consumable', id }, part: 'all', name: data.name, likely: count, high: count }]
        : [];
    }),
  ];
}
