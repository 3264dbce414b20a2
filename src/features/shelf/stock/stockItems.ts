import { ratioByWeight } from '@/core/mixing/ratio';
import type { LotRow, ShelfView } from '@/core/records/views';
import type { Lot, StockItem } from '@/core/model/stockSchema';
import type { Colourant } from '@/core/model/recipeSchema';
import { colourByDepth } from '@/core/tint/waterLook';

/** A thing on the shelf: what it is called, how one pack of it is bought, how long it keeps once open. */
export interface StockThing {
  item: StockItem;
  name: string;
  pack: Lot['bought'];
  price: number;
  /** Word for one of its lots: `Kit`, `Bottle`, `Pack`. */
  lotWord: string;
  shelfLifeMonths: number | null;
  /** Grams, or pieces. */
  counted: 'grams' | 'pieces';
  /** The colour of what is in it; none: like water. */
  colour?: string;
}

/** Everything that can be bought: products (kits hold their parts at the label's ratio), colourants, consumables. */
export function stockThings({ products, colourants, consumables }: ShelfView): StockThing[] {
  return [
    ...products.map(({ id, data }): StockThing => {
      const ratio = data.parts ? ratioByWeight(data.parts) : null;
      const pack: Lot['bought'] =
        ratio === null
          ? [{ part: 'all', amount: data.packGrams }]
          : [
              { part: 'A', amount: round((data.packGrams * ratio) / (1 + ratio)) },
              { part: 'B', amount: round(data.packGrams / (1 + ratio)) },
            ];
      return {
        item: { kind: 'product', id },
        name: data.name,
        pack,
        price: data.packPrice,
        lotWord: ratio === null ? 'Bottle' : 'Kit',
        shelfLifeMonths: data.shelfLifeMonths,
        counted: 'grams',
      };
    }),
    ...colourants.map(({ id, data }): StockThing => ({
      colour: inkColour({ ...data, id }),
      item: { kind: 'colourant', id },
      name: data.name,
      price: data.bottlePrice,
      lotWord: 'Bottle',
      pack: [{ part: 'all', amount: data.bottleGrams }],
      shelfLifeMonths: null,
      counted: 'grams',
    })),
    ...consumables.map(({ id, data }): StockThing => ({
      item: { kind: 'consumable', id },
      name: data.name,
      price: data.packPrice,
      lotWord: 'Pack',
      pack: [{ part: 'all', amount: data.packCount }],
      shelfLifeMonths: null,
      counted: 'pieces',
    })),
  ];
}

/** A colourant as it looks in a thin bottle: 1 g in 100 g, 2 mm deep over white. */
const inkColour = (colourant: Colourant & { id: string }): string =>
  colourByDepth('#ffffff', { clarity: 'water-clear', doses: [{ colourant, gramsPer100: 1 }] })(2);

const round = (grams: number): number => Math.round(grams * 10) / 10;

export const itemKey = ({ kind, id }: StockItem): string => `${kind} ${id}`;

/** Every lot there is, those that were emptied long ago too. */
export async function readAllLots(): Promise<LotRow[]> {
  const response = await fetch('/api/lots');
  if (!response.ok) throw new Error('The lots could not be read.');
  return ((await response.json()) as { lots: LotRow[] }).lots;
}
