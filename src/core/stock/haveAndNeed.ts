import { ratioByWeight } from '../mixing/ratio';
import type { Product } from '../model/productSchema';
import { cheapestCover, type Cover, type Pack } from './cover';
import type { LotLeft } from './lotChange';
import { NOTHING } from './lots';
import type { Need } from './needs';
import type { StockItem, StockPart } from '../model/stockSchema';

/** What stands on the shelf of one part of one thing. */
export interface StockLevel {
  item: StockItem;
  part: StockPart;
  /** In lots that are still good, and in those past their date. */
  good: number;
  expired: number;
  /** Reserved for batches that are not poured yet: those of this batch, and of all others. */
  reservedHere: number;
  reservedElsewhere: number;
  /** True once any lot of it was entered: before that nothing is known, which is not the same as nothing being there. */
  known: boolean;
  /** What one of it cost, over all that is left of its lots; null where nothing is left. */
  pricePerUnit: number | null;
  /** What is left in each good lot, in the order in which they are used up. */
  lots: LotLeft[];
}

export interface HaveAndNeed extends Need {
  level: StockLevel;
  /** What is free for this batch: good lots without what others have reserved. */
  free: number;
  /** What is missing, most likely and in the bad case; 0 where there is enough. */
  short: number;
  shortHigh: number;
}

/** What to buy of one thing, both parts together, for the bad case. */
export interface ToBuy {
  item: StockItem;
  name: string;
  cover: Cover;
  packs: Pack[];
}

const sameItem = (a: StockItem, b: StockItem): boolean => a.kind === b.kind && a.id === b.id;

const NONE = { good: 0, expired: 0, reservedHere: 0, reservedElsewhere: 0, known: false, pricePerUnit: null, lots: [] };

/** Needs against the shelf, line by line. */
export function haveAndNeed(needs: readonly Need[], levels: readonly StockLevel[]): HaveAndNeed[] {
  return needs.map((need) => {
    const level = levels.find(({ item, part }) => sameItem(item, need.item) && part === need.part) ?? {
      item: need.item,
      part: need.part,
      ...NONE,
    };
    const free = Math.max(0, level.good - level.reservedElsewhere);
    const missing = (amount: number): number => (amount - free > NOTHING ? amount - free : 0);
    return { ...need, level, free, short: missing(need.likely), shortHigh: missing(need.high) };
  });
}

/** Grams of kits that hold at least so much of each part: a kit holds its parts at the label's ratio. */
export function kitGrams(
  { parts }: Pick<Product, 'parts'>,
  missing: readonly { part: StockPart; amount: number }[],
): number {
  if (!parts) return Math.max(0, ...missing.map(({ amount }) => amount));
  const ratio = ratioByWeight(parts);
  const share = { A: ratio / (1 + ratio), B: 1 / (1 + ratio), all: 1 };
  return Math.max(0, ...missing.map(({ part, amount }) => amount / share[part]));
}

/** Which packs cover what is missing in the bad case, each thing once. `packsOf` says how it is sold; a kit for its parts. */
export function shoppingList(
  lines: readonly HaveAndNeed[],
  packsOf: (item: StockItem) => { name: string; packs: Pack[]; product: Pick<Product, 'parts'> | null } | null,
): ToBuy[] {
  const items = lines.filter(
    ({ item, shortHigh }, i) =>
      shortHigh > 0 && lines.findIndex((line) => sameItem(line.item, item) && line.shortHigh > 0) === i,
  );
  return items.flatMap(({ item }) => {
    const sold = packsOf(item);
    if (!sold) return [];
    const missing = lines
      .filter((line) => sameItem(line.item, item))
      .map(({ part, shortHigh }) => ({ part, amount: shortHigh }));
    const cover = cheapestCover(kitGrams(sold.product ?? { parts: null }, missing), sold.packs);
    return cover ? [{ item, name: sold.name, packs: sold.packs, cover }] : [];
  });
}

/** What some needs cost: out of the lots that are there at what those cost, where none is left at the price of a new pack. */
export const priceOfNeeds = (
  needs: readonly Need[],
  levels: readonly StockLevel[],
  packsFor: (item: StockItem) => { packs: Pack[] } | null,
): number =>
  needs.reduce((sum, { item, part, likely }) => {
    const level = levels.find((candidate) => sameItem(candidate.item, item) && candidate.part === part);
    const [pack] = packsFor(item)?.packs ?? [];
    return sum + likely * (level?.pricePerUnit ?? (pack ? pack.price / pack.amount : 0));
  }, 0);
