import { countsToLay, layTable, toMake } from './table';
import type { SidesMeet, TableTile } from './tableTypes';
import { classesOf } from './tableRules';
import type { TableWish } from '../model/tableSchema';

/** What to make so that each of several tables can be laid, one at a time. */
export interface MakeList {
  /** By tile: how many are needed in all, and how many more than there are. */
  pieces: { tile: number; needed: number; make: number }[];
  /** Sum of what is to be made. */
  make: number;
  /** True when no list is shorter; otherwise none has fewer than `bound`. */
  exact: boolean;
  bound: number;
}

export interface MakeOptions {
  mostSteps?: number;
  mostExtras?: number;
  tick?: (share: number) => void;
}

/** Tables that cannot be laid with any number of pieces, by their place in the list; or what to make. */
export type MakeResult = { kind: 'found'; list: MakeList } | { kind: 'none'; tables: number[] } | { kind: 'gave up' };

/**
 * The fewest pieces to make, beside those there are, with which every table of a list can be laid, one at a time; among
 * those, the fewest needed in all. For each table every set of counts that lays it is found, then one set is chosen of each so that
 * the sum over the kinds of the most that any table needs is least. Exact when all sets were seen that could matter: none
 * needs more tiles than there are and are to be made.
 */
export function piecesToMake(
  wishes: readonly TableWish[],
  tiles: readonly TableTile[],
  meet: SidesMeet,
  { mostSteps = 300_000, mostExtras = 12, tick = () => undefined }: MakeOptions = {},
): MakeResult {
  const kinds = classesOf(tiles, meet);
  const have = kinds.tiles.map(({ copies, wet }) => (wet.some(Boolean) ? copies : 0));
  const stock = have.reduce((sum, copies) => sum + copies, 0);
  let bound = 0;
  const firsts: number[][] = [];
  for (const [i, wish] of wishes.entries()) {
    tick(i / wishes.length / 3);
    const alone = layTable(wish, tiles, meet, { mostExtras, mostSteps });
    if (alone.kind === 'none')
      return {
        kind: 'none',
        tables: wishes.flatMap((other, k) =>
          k >= i && layTable(other, tiles, meet, { mostExtras, mostSteps }).kind === 'none' ? [k] : [],
        ),
      };
    if (alone.kind === 'gave up') return { kind: 'gave up' };
    const kindOf = (tile: number): number => kinds.members.findIndex((members) => members.includes(tile));
    firsts.push(kinds.tiles.map((_, kind) => alone.layout.laid.filter(({ tile }) => kindOf(tile) === kind).length));
    if (alone.fewest)
      bound = Math.max(
        bound,
        alone.layout.extras.reduce((sum, { count }) => sum + count, 0),
      );
  }
  let best = together(
    firsts.map((first) => [first]),
    have,
  )!;
  let exact = best.make === bound;
  if (!exact) {
    let all = true;
    const sets = wishes.map((wish, i) => {
      tick(1 / 3 + (i / wishes.length) * (2 / 3));
      const most = Math.min(wish.columns * wish.rows - wish.blocked.length, stock + best.make - 1);
      const found = countsToLay(wish, kinds, most, mostSteps);
      all &&= found.all;
      return smallest([...found.counts, firsts[i]!]);
    });
    best = together(sets, have)!;
    exact = all || best.make === bound;
  }
  return {
    kind: 'found',
    list: {
      pieces: named(best.needed, kinds.members, tiles),
      make: best.make,
      exact,
      bound: exact ? best.make : bound,
    },
  };
}

/** Counts of which no other needs less of every kind. */
const smallest = (counts: readonly number[][]): number[][] =>
  counts.filter(
    (mine, i) =>
      !counts.some(
        (other, k) =>
          k !== i &&
          other.every((count, kind) => count <= mine[kind]!) &&
          (k < i || other.some((count, kind) => count < mine[kind]!)),
      ),
  );

/**
 * One set of counts of each table, so that what must be made beside what there is comes out least. Depth first, cut off
 * where it is no better.
 */
function together(
  sets: readonly (readonly number[][])[],
  have: readonly number[],
): { needed: number[]; make: number } | null {
  let best: { needed: number[]; make: number; sum: number } | null = null;
  const order = [...sets].sort((a, b) => a.length - b.length);
  const measure = (needed: readonly number[]): { make: number; sum: number } => ({
    make: needed.reduce((sum, count, kind) => sum + Math.max(0, count - have[kind]!), 0),
    sum: needed.reduce((a, b) => a + b, 0),
  });
  const choose = (i: number, needed: readonly number[]): void => {
    const { make, sum } = measure(needed);
    if (best && (make > best.make || (make === best.make && sum >= best.sum))) return;
    if (i === order.length) {
      best = { needed: [...needed], make, sum };
      return;
    }
    const next = order[i]!.map((counts) => needed.map((count, kind) => Math.max(count, counts[kind]!)));
    next
      .map((counts) => ({ counts, ...measure(counts) }))
      .sort((a, b) => a.make - b.make || a.sum - b.sum)
      .forEach(({ counts }) => choose(i + 1, counts));
  };
  choose(
    0,
    have.map(() => 0),
  );
  return best;
}

/** Kinds as tiles: what there is of them first, the rest as the first of its kind. */
function named(
  needed: readonly number[],
  members: readonly (readonly number[])[],
  tiles: readonly TableTile[],
): MakeList['pieces'] {
  return needed.flatMap((count, kind) => {
    let left = count;
    const rows = members[kind]!.map((tile) => {
      const take = Math.min(left, tiles[tile]!.copies);
      left -= take;
      return { tile, needed: take, make: 0 };
    });
    const made = rows.find(({ tile }) => tile === toMake(members[kind]!, tiles))!;
    made.needed += left;
    made.make = left;
    return rows.filter((row) => row.needed > 0);
  });
}
