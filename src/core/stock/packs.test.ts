import type { Colourant } from '../model/recipeSchema';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { packsOf, type Sold } from './packs';

const epoxy = { ...PRODUCT_KINDS[0]!, packGrams: 750, packPrice: 24, otherPacks: [{ amount: 250, price: 11 }] };
const stored = <T>(id: string, data: T) => ({ id, version: 1, data });
const ink: Colourant = {
  name: 'Ink',
  kind: 'ink',
  absorption: { red: 1, green: 1, blue: 1 },
  dropGrams: 0.04,
  bottleGrams: 20,
  bottlePrice: 6,
};
const sold: Sold = {
  products: [stored('other', { ...epoxy, name: 'Other' }), stored('epoxy', epoxy)],
  colourants: [stored('blue', { ...ink, name: 'Blue', bottlePrice: 9 }), stored('ink', ink)],
  consumables: [
    stored('gloves', { name: 'Gloves', per: 'layer' as const, amount: 2, packCount: 100, packPrice: 9 }),
    stored('cups', { name: 'Cups', per: 'cup' as const, amount: 1, packCount: 50, packPrice: 4 }),
  ],
};

test('a product is sold in its own pack first, then in its other sizes', () =>
  expect(packsOf({ kind: 'product', id: 'epoxy' }, sold)).toEqual({
    name: epoxy.name,
    product: epoxy,
    packs: [
      { amount: 750, price: 24 },
      { amount: 250, price: 11 },
    ],
  }));
test('a colourant by the bottle, a consumable by the pack', () => {
  expect(packsOf({ kind: 'colourant', id: 'ink' }, sold)).toEqual({
    name: 'Ink',
    product: null,
    packs: [{ amount: 20, price: 6 }],
  });
  expect(packsOf({ kind: 'consumable', id: 'cups' }, sold)).toEqual({
    name: 'Cups',
    product: null,
    packs: [{ amount: 50, price: 4 }],
  });
});
test.each(['product', 'colourant', 'consumable'] as const)('a %s that is gone from the shelf is sold nowhere', (kind) =>
  expect(packsOf({ kind, id: 'gone' }, sold)).toBeNull(),
);
