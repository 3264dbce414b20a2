import type { TintLeft } from '../pouring/portions';
import { takeFrom, type LotState } from './lots';
import type { Consumable, MovementKind, StockItem, StockPart } from '../model/stockSchema';

/** What one cup took of one thing: so much that reached the pieces, so much that stayed in the cup and on the stick. */
export interface CupTake {
  cup: number | null;
  item: StockItem;
  part: StockPart;
  poured: number;
  lost: number;
  /** Lots that were named for it. */
  named?: readonly string[] | undefined;
}

/** A planned cup and what was really weighed into it. */
export interface PouredCup {
  number: number;
  planned: { pouredGrams: number; mixGrams: number; doses: readonly { id: string; grams: number }[] };
  partAGrams: number;
  /** Null for one-part products: part A is all of it. */
  partBGrams: number | null;
  /** What was read at the bench: what reached the pieces, and colourants as they were dosed. Else as planned. */
  pouredGrams?: number | undefined;
  doses?: readonly { id: string; grams: number }[] | undefined;
  /** Lots that were named for it. */
  lots?: readonly string[] | undefined;
}

/**
 * What the cups of a layer took out of the bottles. Of what was weighed, what was read at the bench reached the pieces, or else the
 * planned share, and the rest was lost. Colourants are as they were dosed, or else to the recipe for what was really in the cup.
 */
export function cupTakes(productId: string, cups: readonly PouredCup[]): CupTake[] {
  return cups.flatMap(({ number: cup, planned, partAGrams, partBGrams, pouredGrams, doses, lots }): CupTake[] => {
    const all = partAGrams + (partBGrams ?? 0) + (doses ?? []).reduce((sum, { grams }) => sum + grams, 0);
    const plannedShare = planned.mixGrams > 0 ? planned.pouredGrams / planned.mixGrams : 0;
    const share = pouredGrams === undefined ? plannedShare : all > 0 ? Math.min(1, pouredGrams / all) : 0;
    const take = (item: StockItem, part: StockPart, grams: number): CupTake[] =>
      grams > 0 ? [{ cup, item, part, poured: grams * share, lost: grams * (1 - share), named: lots }] : [];
    const product: StockItem = { kind: 'product', id: productId };
    const weighed = partAGrams + (partBGrams ?? 0);
    const scale = planned.mixGrams > 0 ? weighed / planned.mixGrams : 0;
    return [
      ...(partBGrams === null
        ? take(product, 'all', partAGrams)
        : [...take(product, 'A', partAGrams), ...take(product, 'B', partBGrams)]),
      ...(doses ?? planned.doses.map(({ id, grams }) => ({ id, grams: grams * scale }))).flatMap(({ id, grams }) =>
        take({ kind: 'colourant', id }, 'all', grams),
      ),
    ];
  });
}

/** What a stock tint and premixes took beside what went into cups: part A (or the product), and colourants. It reaches no piece. */
export const tintTakes = (productId: string, { resinGrams, colours }: TintLeft, twoPart: boolean): CupTake[] =>
  [
    {
      item: { kind: 'product', id: productId } as StockItem,
      part: twoPart ? ('A' as const) : ('all' as const),
      grams: resinGrams,
    },
    ...colours.map(({ id, grams }) => ({ item: { kind: 'colourant', id } as StockItem, part: 'all' as const, grams })),
  ].flatMap(({ item, part, grams }) => (grams > 0 ? [{ cup: null, item, part, poured: 0, lost: grams }] : []));

/**
 * What a layer takes of consumables: whole pieces. Half a stick a cup is rounded once for all of a batch: a layer takes what brings it
 * from the whole pieces of the layers before to those with it. What a batch takes once is counted with its first layer.
 */
export function consumableTakes(
  consumables: readonly { id: string; data: Consumable }[],
  counts: { cups: number; cupsBefore: number; layersBefore: number; pieces: number; damMm: number },
): CupTake[] {
  const { cups, cupsBefore, layersBefore, pieces, damMm } = counts;
  const once = (count: number): [number, number] => [layersBefore > 0 ? count : 0, count];
  const times: Record<Consumable['per'], [before: number, withIt: number]> = {
    cup: [cupsBefore, cupsBefore + cups],
    layer: [layersBefore, layersBefore + 1],
    batch: once(1),
    piece: once(pieces),
    'mm of dam': once(damMm),
  };
  return consumables.flatMap(({ id, data }) => {
    const whole = (count: number): number => Math.ceil(count * data.amount - 1e-9);
    const [before, withIt] = times[data.per];
    const used = whole(withIt) - whole(before);
    return used > 0
      ? [{ cup: null, item: { kind: 'consumable', id }, part: 'all' as const, poured: used, lost: 0 } satisfies CupTake]
      : [];
  });
}

/** A movement out of a lot (negative), or something found to have been in it after all (positive). */
export interface LotMovement {
  lotId: string;
  item: StockItem;
  part: StockPart;
  amount: number;
  kind: Extract<MovementKind, 'poured' | 'lost' | 'used' | 'found'>;
  cup: number | null;
}

/**
 * Takes out of lots what cups took, those that were named first, then lot after lot in their order. What was poured was there: where the lots of a thing held less
 * than that, as much is first found in the last of them. Things of which no lot was ever entered are left alone. The grams of all
 * movements of a cup but those found add up to what was taken.
 */
export function lotMovements(
  takes: readonly CupTake[],
  lotsOf: (item: StockItem) => readonly LotState[],
): LotMovement[] {
  const state = new Map<string, LotState[]>();
  const movements: LotMovement[] = [];
  for (const { cup, item, part, poured, lost, named } of takes) {
    const key = `${item.kind} ${item.id}`;
    const lots = state.get(key) ?? lotsOf(item).map((lot) => ({ ...lot, left: lot.left.map((one) => ({ ...one })) }));
    state.set(key, lots);
    const holding = lots.filter(({ left }) => left.some((one) => one.part === part));
    const last = holding.at(-1);
    if (!last) continue;
    const all = poured + lost;
    const { short } = takeFrom(holding, part, all, named);
    const change = (lotId: string, amount: number): void => {
      const one = lots.find(({ id }) => id === lotId)!.left.find((left) => left.part === part)!;
      one.amount += amount;
    };
    if (short > 0) {
      // The one that is in use: open, or else the last.
      const open = holding.filter(({ lot }) => lot.openedOn !== null).at(-1) ?? last;
      movements.push({ lotId: open.id, item, part, amount: short, kind: 'found', cup });
      change(open.id, short);
    }
    const share = all > 0 ? poured / all : 0;
    for (const { lotId, amount } of takeFrom(holding, part, all, named).taken) {
      change(lotId, -amount);
      const out = (grams: number, kind: LotMovement['kind']): void => {
        if (grams > 0) movements.push({ lotId, item, part, amount: -grams, kind, cup });
      };
      if (item.kind === 'consumable') out(amount, 'used');
      else {
        out(amount * share, 'poured');
        out(amount - amount * share, 'lost');
      }
    }
  }
  return movements;
}
