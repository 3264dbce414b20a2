import { samePiece, type PieceRef } from '../bed/pieceRef';
import { emptyWish } from './table';
import type { LaidTile, SidesMeet, TableLayout, TableTile } from './tableTypes';
import type { TablePlace, TableSide, TableWish } from './tableSchema';

/** A tile's piece by a short name, and what a tile of that name says of itself. */
export const ref = (designId: string): PieceRef => ({ designId, copy: null });
export const named = (tag: string): PieceRef & { tag: string } => ({ ...ref(tag), tag });

/** Tiles, a table and a verifier of layouts for tests: written apart from the search. */
export const straight: TableTile = { ...named('straight'), copies: 4, turnable: true, wet: [true, false, true, false] };
export const bend: TableTile = { ...named('bend'), copies: 4, turnable: true, wet: [true, true, false, false] };
export const fork: TableTile = { ...named('fork'), copies: 1, turnable: true, wet: [true, true, true, false] };
export const end: TableTile = { ...named('end'), copies: 2, turnable: true, wet: [true, false, false, false] };
export const all: SidesMeet = () => true;
const DX = [0, 1, 0, -1];
const DY = [-1, 0, 1, 0];

/** Written apart from the search: everything that a layout must keep. */
export function faults(
  wish: TableWish,
  tiles: readonly TableTile[],
  meet: SidesMeet,
  { laid, extras }: TableLayout,
): string[] {
  const at = new Map(laid.map((place) => [`${place.column},${place.row}`, place]));
  const side = (place: LaidTile, table: number): TableSide => ((table - place.turns + 8) % 4) as TableSide;
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
  const isFork = ({ wet: sides }: TableTile): boolean => sides.filter(Boolean).length > 2;
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
      for (let s = 0; s < 4; s++) {
        const there = away.get(`${place.column + DX[s]!},${place.row + DY[s]!}`);
        const here = away.get(`${place.column},${place.row}`) ?? Infinity;
        if (wet(place, s) && there !== undefined && there + 1 < here)
          away.set(`${place.column},${place.row}`, there + 1);
      }
    }
  }
  for (const place of laid) {
    const isSource = source?.column === place.column && source.row === place.row;
    const upstream = [0, 1, 2, 3].find((s) => runs(place, s) === -1);
    if (
      source &&
      !isSource &&
      upstream !== undefined &&
      away.get(`${place.column + DX[upstream]!},${place.row + DY[upstream]!}`) !==
        away.get(`${place.column},${place.row}`)! - 1
    )
      found.push('points upstream');
    for (let s = 0; s < 4; s++) {
      const other = at.get(`${place.column + DX[s]!},${place.row + DY[s]!}`);
      if (other && wet(place, s) && runs(place, s) !== 0 && runs(place, s) === runs(other, (s + 2) % 4))
        found.push('two streams head on');
      const opening = wish.openings.findIndex((o) => o.column === place.column && o.row === place.row && o.side === s);
      if (opening >= 0 && runs(place, s) === (opening === 0 ? 1 : -1))
        found.push('against the stream at the table’s edge');
    }
    if (!tiles[place.tile]!.turnable && place.turns !== 0) found.push('turned, and may not be');
    for (let s = 0; s < 4; s++) {
      const [column, row] = [place.column + DX[s]!, place.row + DY[s]!];
      const outside = column < 0 || row < 0 || column >= wish.columns || row >= wish.rows;
      const opening = wish.openings.some((o) => o.column === place.column && o.row === place.row && o.side === s);
      const other = at.get(`${column},${row}`);
      if (outside && wet(place, s) !== opening) found.push('water at the table’s edge');
      if (!outside && wet(place, s) && (!other || !wet(other, (s + 2) % 4))) found.push('water against land');
      if (
        other &&
        wet(place, s) &&
        wet(other, (s + 2) % 4) &&
        !meet(place.tile, side(place, s), other.tile, side(other, (s + 2) % 4))
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
    for (let s = 0; s < 4; s++) if (wet(place, s)) walk(`${place.column + DX[s]!},${place.row + DY[s]!}`);
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
  const [column, row] = [i % wish.columns, Math.floor(i / wish.columns)];
  const wetAt = (place: LaidTile | undefined, table: number): boolean =>
    place !== undefined && tiles[place.tile]!.wet[(table - place.turns + 8) % 4]!;
  const opens = (side: number): boolean =>
    wish.openings.some((o) => o.column === column && o.row === row && o.side === side);
  const [west, south] = [
    laid.find((p) => p.column === column - 1 && p.row === row),
    laid.find((p) => p.column === column && p.row === row - 1),
  ];
  const fits = (place: LaidTile | undefined): boolean =>
    wetAt(place, 3) === (column === 0 ? opens(3) : wetAt(west, 1)) &&
    wetAt(place, 0) === (row === 0 ? opens(0) : wetAt(south, 2)) &&
    (column < wish.columns - 1 || wetAt(place, 1) === opens(1)) &&
    (row < wish.rows - 1 || wetAt(place, 2) === opens(2));
  if (fits(undefined)) yield* everyLaying(wish, tiles, laid, i + 1);
  for (const [tile, { turnable }] of tiles.entries()) {
    for (let turns = 0; turns < (turnable ? 4 : 1); turns++) {
      const place = { column, row, tile, turns };
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
