import type { LaidTile, TableResult } from '@/core/seams/table';
import { samePlace } from '@/core/seams/tableRules';
import type { KeptTable, TablePlace, TableSide, TableWish } from '@/core/seams/tableSchema';
import type { TableStock } from '@/core/seams/tableTiles';

/** Pieces over the stock that a layout may ask for. */
export const MOST_EXTRAS = 6;

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
  const same = (opening: TableWish['openings'][number]): boolean => samePlace(place)(opening) && opening.side === side;
  return {
    ...wish,
    openings: wish.openings.some(same)
      ? wish.openings.filter((opening) => !same(opening))
      : [...wish.openings, { ...place, side }],
  };
}

/** A layout in an order of its own: equal ones read the same. */
export const plain = (laid: readonly LaidTile[]): unknown =>
  [...laid].map(({ column, row, tile, quarters }) => [row, column, tile, quarters]).sort();

/** A kept layout by the tiles of today's stock; null when one of its pieces is gone. */
export function laidOf(laid: NonNullable<KeptTable['laid']>, { tiles }: Pick<TableStock, 'tiles'>): LaidTile[] | null {
  const places = laid.map(({ piece, ...place }) => ({ ...place, tile: tiles.findIndex(({ tag }) => tag === piece) }));
  return places.every(({ tile }) => tile >= 0) ? places : null;
}

/** A wish without what lies outside its size, or at an edge that is none any more. */
export function resized(wish: KeptTable['wish']): KeptTable['wish'] {
  const { columns, rows } = wish;
  const inside = ({ column, row }: { column: number; row: number }): boolean => column < columns && row < rows;
  const onEdge = ({ column, row, side }: KeptTable['wish']['openings'][number]): boolean =>
    side === 0 ? row === 0 : side === 2 ? row === rows - 1 : side === 3 ? column === 0 : column === columns - 1;
  return {
    ...wish,
    blocked: wish.blocked.filter(inside),
    pass: wish.pass.filter(inside),
    forks: wish.forks.filter(inside),
    ponds: wish.ponds.filter(inside),
    fixed: wish.fixed.filter(inside),
    openings: wish.openings.filter((opening) => inside(opening) && onEdge(opening)),
  };
}

/** What a search came to, in words. */
export function resultWords(result: TableResult, { tiles }: Pick<TableStock, 'tiles'>): string {
  if (result.kind === 'none')
    return `It cannot be laid, not even with ${MOST_EXTRAS} pieces more. Free a place, or move an opening.`;
  if (result.kind === 'gave up')
    return 'No layout found in the time allowed; there may be one. Try again, or ask for less.';
  const { extras, laid } = result.layout;
  if (extras.length === 0) return `${laid.length} ${laid.length === 1 ? 'tile' : 'tiles'}, all in stock.`;
  return `${laid.length} ${laid.length === 1 ? 'tile' : 'tiles'}. It needs ${extras.map(({ tile, count }) => `${count} more ${tiles[tile]!.tag}`).join(' and ')}${result.fewest ? '; fewer will not do' : ''}.`;
}
