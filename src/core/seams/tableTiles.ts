import { outlineSize } from '../bed/outline';
import type { EdgeName } from '../bed/schema';
import type { MatchPiece, MatchSet } from './matchSet';
import type { SeamLimits } from './schema';
import { compareEdges } from './seam';
import type { SidesMeet, TableTile } from './table';

/** The set's square tiles as kinds that can be laid on one grid. */
export interface TableStock {
  tiles: TableTile[];
  designIds: string[];
  sizeMm: number;
  /** For two sides of two kinds, as drawn, 1 when the seam between them at least passes. Index: ((a·4 + sideA)·tiles + b)·4 + sideB. */
  meets: Uint8Array;
  /** Tiles that do not fit this grid, in words. */
  leftOut: string[];
}

const SIDES: readonly EdgeName[] = ['south', 'east', 'north', 'west'];

/** Takes the tiles of a set for a grid of the size that most of them have. Null when there are none. */
export function tableStock(pieces: readonly MatchPiece[], { edges }: MatchSet, limits: SeamLimits): TableStock | null {
  const square = pieces.flatMap((piece) => {
    const { widthMm, lengthMm } = outlineSize(piece.design.outline);
    return piece.design.kind === 'tile' && piece.design.outline.kind === 'rectangle' && Math.abs(widthMm - lengthMm) < 0.5 ? [{ piece, sizeMm: widthMm }] : [];
  });
  const sizes = [...new Set(square.map(({ sizeMm }) => Math.round(sizeMm)))];
  const countOf = (size: number): number => square.filter(({ sizeMm }) => Math.round(sizeMm) === size).reduce((sum, { piece }) => sum + piece.copies, 0);
  const size = sizes.sort((a, b) => countOf(b) - countOf(a))[0];
  if (size === undefined) return null;
  const fitting = square.filter(({ sizeMm }) => Math.round(sizeMm) === size).map(({ piece }) => piece);
  const leftOut = [
    ...pieces.filter(({ design }) => design.kind === 'tile' && !square.some(({ piece }) => piece.design === design)).map(({ tag }) => `${tag} is not square.`),
    ...square.filter(({ sizeMm }) => Math.round(sizeMm) !== size).map(({ piece, sizeMm }) => `${piece.tag} is ${Math.round(sizeMm)} mm wide, the grid’s tiles ${size} mm.`),
  ];
  const edgeAt = fitting.map(({ tag }) => SIDES.map((side) => edges.findIndex(({ piece, edge }) => piece === tag && edge === side)));
  const meets = new Uint8Array((fitting.length * 4) ** 2);
  fitting.forEach((_, a) => SIDES.forEach((__, sideA) => fitting.forEach((___, b) => SIDES.forEach((____, sideB) => {
    const [x, y] = [edges[edgeAt[a]![sideA]!], edges[edgeAt[b]![sideB]!]];
    if (x && y && compareEdges(x, y, limits).grade !== 'shows') meets[((a * 4 + sideA) * fitting.length + b) * 4 + sideB] = 1;
  }))));
  const tiles = fitting.map(({ tag, copies }, i): TableTile => ({ tag, copies, turnable: true, wet: SIDES.map((_, side) => edges[edgeAt[i]![side]!]?.wet ?? false) as unknown as TableTile['wet'] }));
  return { tiles, designIds: fitting.map(({ designId }) => designId), sizeMm: size, meets, leftOut };
}

/** Whether two sides may meet, by the stock's table. */
export const meetsOf = ({ tiles, meets }: Pick<TableStock, 'tiles' | 'meets'>): SidesMeet => (a, sideA, b, sideB) => meets[((a * 4 + sideA) * tiles.length + b) * 4 + sideB] === 1;
