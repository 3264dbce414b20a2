import { samePiece, type PieceRef } from '../model/pieceRef';
import { emptyWish } from './table';
import type { LaidTile, SidesMeet, TableLayout, TableTile } from './tableTypes';
import type { TablePlace, TableSide, TableWish } from '../model/tableSchema';

/** A tile's piece by a short name, and what a tile of that name says of itself. */
export const ref = (designId: string): PieceRef => ({ designId, copy: null });
export const named = (tag: string): PieceRef & { tag: string } => ({ ...ref(tag), tag });

/** Tiles, a table and a verifier of layouts for tests: written apart from the search. */
export const straight: TableTile = { ...named('straight'), copies: 4, turnable: true, wet: [true, false, true, false] };
export const bend: TableTile = { ...named('bend'), copies: 4, turnable: true, wet: [true, true, false, false] };
export const fork: TableTile = { ...named('fork'), copies: 1, turnable: true, wet: [true, true, true, false] };
export const end: TableTile = { ...named('end'), copies: 2, turnable: true, wet: [true, false, false, false] };
export const all: SidesMeet = () => true;

/** Written apart from the search's own tables: how many sides a place has, which turns its tiles may take, and where each side leads. */
const SIDES = { square: 4, rectangle: 4, 'rectangle across': 4, hexagon: 6 } as const;
const TURNS = {
  square: [0, 1, 2, 3],
  rectangle: [0, 2],
  'rectangle across': [1, 3],
  hexagon: [0, 1, 2, 3, 4, 5],
} as const;
type Wish = Pick<TableWish, 'grid'>;
/** The middle of a place: of hexagons with flats 2 apart, every second column half a place further north. */
const middle = ({ grid }: Wish, { column, row }: TablePlace): [number, number] =>
  grid === 'hexagon' ? [column * Math.sqrt(3), row * 2 + (column % 2 === 0 ? 0 : 1)] : [column * 2, row * 2];
/** The place that lies beyond a side: the one whose middle is as far again in the direction in which the side faces. */
function beyond(wish: Wish, place: TablePlace, side: number): TablePlace {
  const angle = ((-90 + (360 / SIDES[wish.grid]) * side) * Math.PI) / 180;
  const [x, y] = middle(wish, place);
  const [toX, toY] = [x + 2 * Math.cos(angle), y + 2 * Math.sin(angle)];
  for (let column = place.column - 1; column <= place.column + 1; column++)
    for (let row = place.row - 1; row <= place.row + 1; row++) {
      // Columns left of the table have no parity of their own in `%`.
      const [otherX, otherY] =
        wish.grid === 'hexagon' && column < 0 ? [column * Math.sqrt(3), row * 2 + 1] : middle(wish, { column, row });
      if (Math.hypot(otherX - toX, otherY - toY) < 1e-6) return { column, row };
    }
  throw new Error('no place there');
}
const keyOf = ({ column, row }: TablePlace): string => `${column},${row}`;

/** Written apart from the search: everything that a layout must keep. */
export function faults(
  wish: TableWish,
  tiles: readonly TableTile[],
  meet: SidesMeet,
  { laid, extras }: TableLayout,
): string[] {
  const at = new Map(laid.map((place) => [`${place.column},${place.row}`, place]));
  const sides = SIDES[wish.grid];
  const over = (place: TablePlace, table: number): string => keyOf(beyond(wish, place, table));
  const side = (place: LaidTile, table: number): TableSide => ((table - place.turns + 2 * sides) % sides) as TableSide;
  const across = (table: number): number => (table + sides / 2) % sides;
  const wet = (place: LaidTile, table: number): boolean => tiles[place.tile]!.wet[side(place, table)]!;
  const found: string[] = [];
  if (at.size !== laid.length) found.push('two tiles in one place');
  for (const { column, row } of wish.blocked) if (at.has(`${column},${row}`)) found.push('a tile on a blocked place');
  for (const { column, row } of [...wish.pass, ...wish.openings, ...wish.forks, ...wish.ponds, ...wish.fixed])
    if (!at.has(`${column},${row}`)) found.push('a wanted place is empty');
  const holds = (place: TablePlace, what: (tile: TableTile) => boolean): boolean => {
    const there = at.get(`${place.column},${place.row}`);
    return there !== undefined && what(tiles[there.tile]!);
  };
  const isFork = (tile: TableTile): boolean => tile.wet.filter(Boolean).length > 2;
  if (
    !wish.forks.every((place) => holds(place, isFork)) ||
    (wish.anyFork && !laid.some((place) => holds(place, isFork)))
  )
    found.push('no fork where one is wanted');
  if (
    !wish.ponds.every((place) => holds(place, ({ pond }) => pond === true)) ||
    (wish.anyPond && !laid.some((place) => holds(place, ({ pond }) => pond === true)))
  )
    found.push('no pond where one is wanted');
  for (const place of wish.fixed)
    if (
      !laid.some(
        (other) =>
          other.column === place.column &&
          other.row === place.row &&
          other.turns === place.turns &&
          samePiece(tiles[other.tile]!, place.piece),
      )
    )
      found.push('a kept tile is gone');
  // The way the water of a one-way tile runs over a side of the table: 1 out of the tile, -1 into it, 0 either way.
  const runs = (place: LaidTile, table: number): number => {
    const { from } = tiles[place.tile]!;
    return from === undefined ? 0 : side(place, table) === from ? -1 : 1;
  };
  // How many tiles lie on the shortest way from the first opening.
  const source = wish.openings[0];
  const away = new Map(source ? [[`${source.column},${source.row}`, 0]] : []);
  for (let round = 0; round < laid.length; round++) {
    for (const place of laid) {
      for (let s = 0; s < sides; s++) {
        const there = away.get(over(place, s));
        const here = away.get(`${place.column},${place.row}`) ?? Infinity;
        if (wet(place, s) && there !== undefined && there + 1 < here)
          away.set(`${place.column},${place.row}`, there + 1);
      }
    }
  }
  for (const place of laid) {
    const isSource = source?.column === place.column && source.row === place.row;
    const upstream = Array.from({ length: sides }, (_, s) => s).find((s) => runs(place, s) === -1);
    if (
      source &&
      !isSource &&
      upstream !== undefined &&
      away.get(over(place, upstream)) !== away.get(`${place.column},${place.row}`)! - 1
    )
      found.push('points upstream');
    for (let s = 0; s < sides; s++) {
      const other = at.get(over(place, s));
      if (other && wet(place, s) && runs(place, s) !== 0 && runs(place, s) === runs(other, across(s)))
        found.push('two streams head on');
      const opening = wish.openings.findIndex((o) => o.column === place.column && o.row === place.row && o.side === s);
      if (opening >= 0 && runs(place, s) === (opening === 0 ? 1 : -1))
        found.push('against the stream at the table’s edge');
    }
    const allowed: readonly number[] = TURNS[wish.grid];
    if (!allowed.includes(place.turns) || (!tiles[place.tile]!.turnable && place.turns !== allowed[0]))
      found.push('turned, and may not be');
    for (let s = 0; s < sides; s++) {
      const { column, row } = beyond(wish, place, s);
      const outside = column < 0 || row < 0 || column >= wish.columns || row >= wish.rows;
      const opening = wish.openings.some((o) => o.column === place.column && o.row === place.row && o.side === s);
      const other = at.get(`${column},${row}`);
      if (outside && wet(place, s) !== opening) found.push('water at the table’s edge');
      if (!outside && wet(place, s) && (!other || !wet(other, across(s)))) found.push('water against land');
      if (
        other &&
        wet(place, s) &&
        wet(other, across(s)) &&
        !meet(place.tile, side(place, s), other.tile, side(other, across(s)))
      )
        found.push('sides that may not meet');
    }
  }
  tiles.forEach(({ copies }, tile) => {
    const used = laid.filter((place) => place.tile === tile).length;
    if (used > copies + (extras.find((extra) => extra.tile === tile)?.count ?? 0)) found.push('more than the stock');
  });
  const seen = new Set<string>();
  const walk = (key: string): void => {
    const place = at.get(key);
    if (!place || seen.has(key)) return;
    seen.add(key);
    for (let s = 0; s < sides; s++) if (wet(place, s)) walk(over(place, s));
  };
  if (laid[0]) walk(`${laid[0].column},${laid[0].row}`);
  if (seen.size !== laid.length) found.push('water that hangs apart');
  return found;
}

/** Every way to lay a small table in which no water meets land or leaves the table where it should not, empty places included. */
export function* everyLaying(
  wish: TableWish,
  tiles: readonly TableTile[],
  laid: LaidTile[] = [],
  i = 0,
): Generator<LaidTile[]> {
  if (i === wish.columns * wish.rows) {
    if (laid.length > 0) yield laid;
    return;
  }
  const sides = SIDES[wish.grid];
  const here = { column: i % wish.columns, row: Math.floor(i / wish.columns) };
  const wetAt = (place: LaidTile | undefined, table: number): boolean =>
    place !== undefined && tiles[place.tile]!.wet[(table - place.turns + 2 * sides) % sides]!;
  const opens = (side: number): boolean =>
    wish.openings.some((o) => o.column === here.column && o.row === here.row && o.side === side);
  const fits = (place: LaidTile | undefined): boolean =>
    Array.from({ length: sides }, (_, s) => s).every((s) => {
      const { column, row } = beyond(wish, here, s);
      if (column < 0 || row < 0 || column >= wish.columns || row >= wish.rows) return wetAt(place, s) === opens(s);
      // Places further on have their say when their turn comes.
      if (row * wish.columns + column > i) return true;
      const other = laid.find((p) => p.column === column && p.row === row);
      return wetAt(place, s) === wetAt(other, (s + sides / 2) % sides);
    });
  if (fits(undefined)) yield* everyLaying(wish, tiles, laid, i + 1);
  for (const [tile, { turnable }] of tiles.entries()) {
    for (const turns of turnable ? TURNS[wish.grid] : TURNS[wish.grid].slice(0, 1)) {
      const place = { ...here, tile, turns };
      if (fits(place)) yield* everyLaying(wish, tiles, [...laid, place], i + 1);
    }
  }
}

/** The fewest extras of all ways to lay a small table that keep everything. */
export function bruteExtras(wish: TableWish, tiles: readonly TableTile[], meet: SidesMeet): number | null {
  let fewest: number | null = null;
  for (const laid of everyLaying(wish, tiles)) {
    const extras = tiles.flatMap(({ copies }, tile) => {
      const over = laid.filter((other) => other.tile === tile).length - copies;
      return over > 0 ? [{ tile, count: over }] : [];
    });
    if (faults(wish, tiles, meet, { laid, extras }).length > 0) continue;
    const sum = extras.reduce((total, { count }) => total + count, 0);
    fewest = fewest === null ? sum : Math.min(fewest, sum);
  }
  return fewest;
}

export const across: TableWish = {
  ...emptyWish(4, 3),
  blocked: [],
  pass: [],
  openings: [
    { column: 0, row: 1, side: 3 },
    { column: 3, row: 1, side: 1 },
  ],
};
