import { toWallTime } from '@/core/time/wallTime';
import type { Consumable, Lot, StockItem } from '@/core/model/stockSchema';
import type { EditWriter } from '@/db/storage';

const DAY = 24 * 60;

const CONSUMABLES: readonly { id: string; data: Consumable }[] = [
  { id: 'paper-cups', data: { name: 'Paper cups', per: 'cup', amount: 1, packCount: 50, packPrice: 4.5 } },
  { id: 'stirring-sticks', data: { name: 'Stirring sticks', per: 'cup', amount: 1, packCount: 100, packPrice: 3 } },
  { id: 'gloves', data: { name: 'Gloves', per: 'layer', amount: 2, packCount: 100, packPrice: 9 } },
];

interface DemoLot {
  id: string;
  of: StockItem;
  name: string;
  bought: Lot['bought'];
  /** Days ago. */
  boughtDays: number;
  openedDays: number | null;
  price: number;
}

const kit = (a: number, b: number): Lot['bought'] => [
  { part: 'A', amount: a },
  { part: 'B', amount: b },
];
const all = (amount: number): Lot['bought'] => [{ part: 'all', amount }];
const epoxy: StockItem = { kind: 'product', id: 'coating-epoxy' };

/** An open kit and a sealed one, one past its date, two inks of which one is low, and a pack of each consumable. */
const LOTS: readonly DemoLot[] = [
  { id: 'hs-kit-1', of: epoxy, name: 'Kit 1', bought: kit(1060, 940), boughtDays: 96, openedDays: 70, price: 46 },
  { id: 'hs-kit-2', of: epoxy, name: 'Kit 2', bought: kit(532, 468), boughtDays: 9, openedDays: null, price: 26 },
  {
    id: 'hs-quick-1',
    of: { kind: 'product', id: 'quick-clear-epoxy' },
    name: 'Kit 1',
    bought: kit(200, 100),
    boughtDays: 460,
    openedDays: 430,
    price: 14,
  },
  {
    id: 'hs-green',
    of: { kind: 'colourant', id: 'deep-green-ink' },
    name: 'Bottle 1',
    bought: all(30),
    boughtDays: 200,
    openedDays: 190,
    price: 6,
  },
  {
    id: 'hs-umber',
    of: { kind: 'colourant', id: 'raw-umber-ink' },
    name: 'Bottle 1',
    bought: all(2),
    boughtDays: 200,
    openedDays: 190,
    price: 6,
  },
  {
    id: 'hs-cups',
    of: { kind: 'consumable', id: 'paper-cups' },
    name: 'Pack 1',
    bought: all(50),
    boughtDays: 96,
    openedDays: 70,
    price: 4.5,
  },
  {
    id: 'hs-sticks',
    of: { kind: 'consumable', id: 'stirring-sticks' },
    name: 'Pack 1',
    bought: all(100),
    boughtDays: 96,
    openedDays: 70,
    price: 3,
  },
  {
    id: 'hs-gloves',
    of: { kind: 'consumable', id: 'gloves' },
    name: 'Pack 1',
    bought: all(12),
    boughtDays: 96,
    openedDays: 70,
    price: 2,
  },
];

/** Puts the sample's bottles on a shelf on which nothing was ever entered. */
export function writeHeronSlackStock(writer: EditWriter, minutes: number): void {
  const day = (ago: number): string => toWallTime(minutes - ago * DAY).slice(0, 10);
  for (const { id, data } of CONSUMABLES) writer.add('consumable', id, data);
  for (const { id, boughtDays, openedDays, ...lot } of LOTS)
    writer.add('lot', id, {
      ...lot,
      boughtOn: day(boughtDays),
      openedOn: openedDays === null ? null : day(openedDays),
      bestBefore: null,
    });
}
