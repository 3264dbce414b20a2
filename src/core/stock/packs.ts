import type { Product } from '../model/productSchema';
import type { Stored } from '../model/stored';
import type { Colourant } from '../model/recipeSchema';
import type { Pack } from './cover';
import type { Consumable, StockItem } from '../model/stockSchema';

/** What is known of how things are sold. */
export interface Sold {
  products: readonly Stored<Product>[];
  colourants: readonly Stored<Colourant>[];
  consumables: readonly Stored<Consumable>[];
}

/** How a thing is sold: its packs, by what they hold and cost. Null for what is no longer on the shelf. */
export function packsOf(
  { kind, id }: StockItem,
  { products, colourants, consumables }: Sold,
): { name: string; packs: Pack[]; product: Pick<Product, 'parts'> | null } | null {
  if (kind === 'product') {
    const data = products.find((one) => one.id === id)?.data;
    if (!data) return null;
    const packs = [{ amount: data.packGrams, price: data.packPrice }, ...(data.otherPacks ?? [])];
    return { name: data.name, product: data, packs };
  }
  if (kind === 'colourant') {
    const data = colourants.find((one) => one.id === id)?.data;
    return data
      ? { name: data.name, product: null, packs: [{ amount: data.bottleGrams, price: data.bottlePrice }] }
      : null;
  }
  const data = consumables.find((one) => one.id === id)?.data;
  return data ? { name: data.name, product: null, packs: [{ amount: data.packCount, price: data.packPrice }] } : null;
}
