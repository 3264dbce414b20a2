import { NOTHING } from './lots';
import type { StockPart } from '../model/stockSchema';

/** What is left of one part in a lot, in the order in which lots are used up. */
export interface LotLeft {
  id: string;
  name: string;
  left: number;
}

/** So much of a need out of one lot. */
export interface OutOf extends LotLeft {
  takes: number;
}

/** Out of which lots a need is met, each used up before the next. */
export function outOfLots(lots: readonly LotLeft[], amount: number): OutOf[] {
  let wanted = amount;
  return lots.flatMap((lot) => {
    const takes = Math.min(wanted, lot.left);
    wanted -= takes;
    return takes > NOTHING ? [{ ...lot, takes }] : [];
  });
}

/** Where the bottle changes within a layer: joined pieces of it may come out a shade apart. */
export interface LotChange {
  layer: number;
  part: StockPart;
  from: string;
  to: string;
}

/**
 * The layers of one product in which a lot of a part runs out half way. `layers` with what each takes of the part, in the order in
 * which they are poured. One that ends just with a layer changes nothing in it.
 */
export function lotChanges(
  layers: readonly { number: number; takes: number }[],
  part: StockPart,
  lots: readonly LotLeft[],
): LotChange[] {
  const changes: LotChange[] = [];
  let poured = 0;
  for (const { number, takes } of layers) {
    const [begins, ends] = [poured, poured + takes];
    let bottom = 0;
    lots.forEach((lot, i) => {
      bottom += lot.left;
      const next = lots.slice(i + 1).find(({ left }) => left > NOTHING);
      if (lot.left > NOTHING && next && bottom > begins + NOTHING && bottom < ends - NOTHING)
        changes.push({ layer: number, part, from: lot.name, to: next.name });
    });
    poured = ends;
  }
  return changes;
}
