import type { PieceRef } from '../model/pieceRef';
import type { LaidTile, SidesMeet, TableTile } from './tableTypes';
import type { TablePlace, TableSide, TableWish } from '../model/tableSchema';
import { drawnSide, opposite, TABLE_SHAPES, tableSide } from './tableShape';

export const samePlace =
  (a: TablePlace) =>
  (b: TablePlace): boolean =>
    a.column === b.column && a.row === b.row;
export const placeName = ({ column, row }: TablePlace): string => `column ${column + 1}, row ${row + 1}`;
/** Places that must have a tile with water. */
export const wantedPlaces = ({ pass, forks, ponds, openings, fixed }: TableWish): readonly TablePlace[] => [
  ...pass,
  ...forks,
  ...ponds,
  ...openings,
  ...fixed,
];

/** A tile is a fork when water leaves it at three sides or more. */
export const isFork = (wet: TableTile['wet']): boolean => wet.filter(Boolean).length >= 3;

/** What lies on each place of a table, row by row from the south-west. */
export type Placed = readonly (LaidTile | null)[];

/** Tiles that can stand for one another, taken together as kinds. */
export interface TileKinds {
  tiles: TableTile[];
  /** Which tiles each kind stands for, and which pieces those are. */
  members: number[][];
  refs: PieceRef[];
  meet: SidesMeet;
}

/** Tiles as kinds: the same water, the same freedom, the same partners. */
export function classesOf(tiles: readonly TableTile[], meet: SidesMeet): TileKinds {
  const byKey = new Map<string, number[]>();
  tiles.forEach(({ wet, turnable, from, pond }, a) => {
    const sides = wet.map((_, side) => side as TableSide);
    const partners = tiles
      .map((_, b) => sides.map((sideA) => sides.map((sideB) => (meet(a, sideA, b, sideB) ? 1 : 0)).join('')).join(''))
      .join(',');
    const key = JSON.stringify([wet, turnable, from, pond ?? false, partners]);
    byKey.set(key, [...(byKey.get(key) ?? []), a]);
  });
  const members = [...byKey.values()];
  return {
    members,
    refs: tiles.map(({ designId, copy }) => ({ designId, copy })),
    tiles: members.map((own): TableTile => ({
      ...tiles[own[0]!]!,
      copies: own.reduce((sum, member) => sum + tiles[member]!.copies, 0),
      once: own.every((member) => tiles[member]!.once),
    })),
    meet: (a, sideA, b, sideB) => meet(members[a]![0]!, sideA, members[b]![0]!, sideB),
  };
}

/** Cells that water reaches from one, over wet sides. */
function reached(
  wish: TableWish,
  tiles: readonly TableTile[],
  placed: Placed,
  start: number,
  enter: (cell: number, from: TableSide | null) => boolean,
): Set<number> {
  const { columns, rows, grid } = wish;
  const shape = TABLE_SHAPES[grid];
  const seen = new Set<number>();
  const stack: { cell: number; from: TableSide | null }[] = [{ cell: start, from: null }];
  for (let next = stack.pop(); next; next = stack.pop()) {
    const { cell, from } = next;
    const here = placed[cell];
    if (!here || seen.has(cell) || !enter(cell, from)) continue;
    seen.add(cell);
    for (const side of shape.sides) {
      const { column, row } = shape.beyond({ column: cell % columns, row: Math.floor(cell / columns) }, side);
      if (
        column < 0 ||
        row < 0 ||
        column >= columns ||
        row >= rows ||
        !tiles[here.tile]!.wet[drawnSide(shape, side, here.turns)]
      )
        continue;
      stack.push({ cell: row * columns + column, from: opposite(shape, side) });
    }
  }
  return seen;
}

/** True when all water of a layout hangs together. */
export function hangsTogether(wish: TableWish, tiles: readonly TableTile[], placed: Placed): boolean {
  const laid = placed.flatMap((place, cell) => (place ? [cell] : []));
  return laid.length > 0 && reached(wish, tiles, placed, laid[0]!, () => true).size === laid.length;
}

/** From the first opening on, a tile that reads one way must have its upstream side on a shortest way to it. */
export function runsDownstream(wish: TableWish, tiles: readonly TableTile[], placed: Placed): boolean {
  const source = wish.openings[0];
  if (!source || !tiles.some(({ from }) => from !== undefined)) return true;
  const { columns, rows, grid } = wish;
  const shape = TABLE_SHAPES[grid];
  const distance = new Int32Array(columns * rows).fill(-1);
  const queue = [source.row * columns + source.column];
  distance[queue[0]!] = 0;
  const beyond = (cell: number, side: TableSide): number => {
    const { column, row } = shape.beyond({ column: cell % columns, row: Math.floor(cell / columns) }, side);
    const here = placed[cell];
    return !here ||
      column < 0 ||
      row < 0 ||
      column >= columns ||
      row >= rows ||
      !tiles[here.tile]!.wet[drawnSide(shape, side, here.turns)]
      ? -1
      : row * columns + column;
  };
  for (let i = 0; i < queue.length; i++) {
    for (const side of shape.sides) {
      const next = beyond(queue[i]!, side);
      if (next < 0 || distance[next]! >= 0) continue;
      distance[next] = distance[queue[i]!]! + 1;
      queue.push(next);
    }
  }
  return placed.every((here, cell) => {
    const from = here && tiles[here.tile]!.from;
    if (!here || from === undefined || from === null) return true;
    const upstream = tableSide(shape, from, here.turns);
    if (cell === queue[0]) return upstream === source.side;
    const before = beyond(cell, upstream);
    return before >= 0 && distance[before] === distance[cell]! - 1;
  });
}
