import { samePiece } from '@/core/model/pieceRef';
import { samePlace } from '@/core/seams/tableRules';
import type { KeptTable, Opening, TablePlace, TableSide, TableWish, TableGridKind } from '@/core/model/tableSchema';
import { placesOn, TABLE_SHAPES, tableEdges, tableExtent } from '@/core/seams/tableShape';
import type { TableStock } from '@/core/seams/tableTiles';
import type { LaidTile, TableResult } from '@/core/seams/tableTypes';

/** Pieces over the stock that a layout may ask for. */
export const MOST_EXTRAS = 6;
/** More places than this in a row are no table. */
export const MOST_ACROSS = 20;

/** What a press on a place says of it. */
export type Brush = 'pass' | 'fork' | 'pond' | 'blocked' | 'keep';
const LISTS = { pass: 'pass', fork: 'forks', pond: 'ponds', blocked: 'blocked' } as const;

/** A place takes what the brush says, or loses it; it holds one kind of wish at a time. */
export function brushed(wish: TableWish, place: TablePlace, brush: Exclude<Brush, 'keep'>): TableWish {
  const had = wish[LISTS[brush]].some(samePlace(place));
  const without = (list: readonly TablePlace[]): TablePlace[] => list.filter((other) => !samePlace(place)(other));
  const bare = {
    ...wish,
    pass: without(wish.pass),
    forks: without(wish.forks),
    ponds: without(wish.ponds),
    blocked: without(wish.blocked),
    fixed: wish.fixed.filter((other) => !samePlace(place)(other)),
  };
  return had ? bare : { ...bare, [LISTS[brush]]: [...bare[LISTS[brush]], place] };
}

/** Water at one side of a place at the table's edge comes or goes. */
export function toggledOpening(wish: TableWish, place: TablePlace, side: TableSide): TableWish {
  const same = (opening: Opening): boolean => samePlace(place)(opening) && opening.side === side;
  return {
    ...wish,
    openings: wish.openings.some(same)
      ? wish.openings.filter((opening) => !same(opening))
      : [...wish.openings, { ...place, side }],
  };
}

/** A layout in an order of its own: equal ones read the same. */
export const plain = (laid: readonly LaidTile[]): unknown =>
  [...laid].map(({ column, row, tile, turns }) => [row, column, tile, turns]).sort();

/** A kept layout by the tiles of today's stock; null when one of its pieces is gone. */
export function laidOf(laid: NonNullable<KeptTable['laid']>, { tiles }: Pick<TableStock, 'tiles'>): LaidTile[] | null {
  const places = laid.map(({ piece, ...place }) => ({
    ...place,
    tile: tiles.findIndex((tile) => samePiece(tile, piece)),
  }));
  return places.every(({ tile }) => tile >= 0) ? places : null;
}

/** What a further tile of a kind is called. */
export const makeName = ({ tiles }: Pick<TableStock, 'tiles'>, tile: number): string =>
  tiles[tile]!.drawnTag ?? tiles[tile]!.tag;

/**
 * A wish on places of another number or another grid: what lies outside goes; an opening follows the edge that it is at to the
 * nearest place there, and goes only where another is already.
 */
export function resized(
  wish: TableWish,
  to: Pick<TableWish, 'columns' | 'rows'> & { grid?: TableGridKind },
): TableWish {
  const { columns, rows, grid = wish.grid } = to;
  const inside = ({ column, row }: TablePlace): boolean => column < columns && row < rows;
  const edges = tableEdges(grid, columns, rows);
  const openings: Opening[] = [];
  for (const opening of wish.openings) {
    const moved = followed(opening, wish, edges, to);
    if (moved && !openings.some((other) => samePlace(other)(moved) && other.side === moved.side)) openings.push(moved);
  }
  const { turns } = TABLE_SHAPES[grid];
  return {
    ...wish,
    grid,
    columns,
    rows,
    blocked: wish.blocked.filter(inside),
    pass: wish.pass.filter(inside),
    forks: wish.forks.filter(inside),
    ponds: wish.ponds.filter(inside),
    fixed: wish.fixed.filter((place) => inside(place) && turns.includes(place.turns)),
    openings,
  };
}

/** The side of the new table that an opening comes to lie at. */
function followed(
  { column, row, side }: Opening,
  before: TableWish,
  edges: readonly Opening[],
  { columns, rows }: Pick<TableWish, 'columns' | 'rows'>,
): Opening | null {
  // One at the last column or row stays at the last one.
  const at = {
    column: column === before.columns - 1 ? columns - 1 : Math.min(column, columns - 1),
    row: row === before.rows - 1 ? rows - 1 : Math.min(row, rows - 1),
  };
  const away = (edge: Opening): number => Math.abs(edge.column - at.column) + Math.abs(edge.row - at.row);
  return edges
    .filter((edge) => edge.side === side)
    .reduce<Opening | null>((best, edge) => (best === null || away(edge) < away(best) ? edge : best), null);
}

/** A table of a size in mm: as many places as it has room for, at most twenty each way. */
export function onTable(
  table: KeptTable,
  stock: Pick<TableStock, 'sizeMm'>,
  sizeMm: NonNullable<KeptTable['sizeMm']>,
  grid: TableGridKind = table.wish.grid,
): KeptTable {
  const { columns, rows } = placesOn(grid, stock.sizeMm, sizeMm);
  const to = { grid, columns: Math.min(MOST_ACROSS, columns), rows: Math.min(MOST_ACROSS, rows) };
  return { ...table, sizeMm, laid: null, wish: resized(table.wish, to) };
}

/** The table's own size, or what its places take. */
export const sizeOf = (
  { sizeMm, wish }: KeptTable,
  stock: Pick<TableStock, 'sizeMm'>,
): NonNullable<KeptTable['sizeMm']> => sizeMm ?? tableExtent(wish.grid, stock.sizeMm, wish.columns, wish.rows);

/** What a search came to, in words. */
export function resultWords(result: TableResult, stock: Pick<TableStock, 'tiles'>): string {
  if (result.kind === 'none')
    return `It cannot be laid, not even with ${MOST_EXTRAS} pieces more. ${
      result.inTheWay?.length
        ? `Without ${result.inTheWay.slice(0, 3).join(', or without ')} it could: water there has no way on.`
        : 'Free a place, or move an opening.'
    }`;
  if (result.kind === 'gave up')
    return 'No layout found in the time allowed; there may be one. Try again, or ask for less.';
  const { extras, laid } = result.layout;
  const count = `${laid.length} ${laid.length === 1 ? 'tile' : 'tiles'}`;
  if (extras.length === 0) return `${count}, all in stock.`;
  const more = extras.map((extra) => `${extra.count} more ${makeName(stock, extra.tile)}`).join(' and ');
  return `${count}. It needs ${more}${result.fewest ? '; fewer will not do' : ''}.`;
}
