import { tableGridsOf, outlineSize } from '../bed/outline';
import { samePiece } from '../model/pieceRef';
import type { EdgeName } from '../model/designSchema';
import type { MatchSet } from './matchSet';
import { bestCopies, laidSeams, type SideScore } from './tableCopies';
import type { TablePlace, TableSide, TableWish, TableGridKind } from '../model/tableSchema';
import { TABLE_SHAPES, type TileSize } from './tableShape';
import type { LaidTile, SidesMeet, TableLayout, TableTile } from './tableTypes';
import type { MatchPiece } from './matchTypes';

/** The set's tiles of one shape and size as kinds that can be laid on one grid. */
export interface TableStock {
  tiles: TableTile[];
  /** What places these tiles can lie on, the likeliest first. */
  grids: readonly TableGridKind[];
  sizeMm: TileSize;
  /**
   * For two sides of two kinds, as drawn, 1 when the seam between them at least passes. Index: ((a·sides + sideA)·tiles
   * + b)·sides + sideB.
   */
  meets: Uint8Array;
  /** The same seams by how bad they are (`seamScore`). */
  scores: Float32Array;
  /** The set's edge at each side of each tile: index sides·tile + side, −1 for none. */
  edges: Int32Array;
  /** Tiles that do not fit this grid, in words. */
  leftOut: string[];
}

const SHAPE_WORDS: Partial<Record<TableGridKind, string>> = { hexagon: 'hexagons' };

/** The places that a tile can lie on, and its size to the millimetre; null for a shape that fills no table. */
function placesFor({
  design: { kind, outline },
}: MatchPiece): { grids: readonly TableGridKind[]; size: TileSize } | null {
  if (kind !== 'tile') return null;
  const { widthMm, lengthMm } = outlineSize(outline);
  const grids = tableGridsOf(outline);
  return grids.length > 0 ? { grids, size: { widthMm, lengthMm } } : null;
}

const sizeWords = ({ grids, size }: { grids: readonly TableGridKind[]; size: TileSize }): string =>
  grids[0] === 'hexagon'
    ? `hexagon ${Math.round(size.lengthMm)} mm across flats`
    : `${Math.round(size.widthMm)} × ${Math.round(size.lengthMm)} mm`;

/** Takes the tiles of a set for a grid of the shape and size that most of them have. Null when there are none. */
export function tableStock(
  pieces: readonly MatchPiece[],
  { edges, seams }: Pick<MatchSet, 'edges' | 'seams'>,
): TableStock | null {
  const placed = pieces.flatMap((piece) => {
    const places = placesFor(piece);
    return places ? [{ piece, ...places, key: sizeWords(places) }] : [];
  });
  const countOf = (key: string): number =>
    placed.filter((other) => other.key === key).reduce((sum, { piece }) => sum + piece.copies, 0);
  const most = [...placed].sort((a, b) => countOf(b.key) - countOf(a.key))[0];
  if (!most) return null;
  const fitting = placed.filter(({ key }) => key === most.key).map(({ piece }) => piece);
  const leftOut = pieces
    .filter((piece) => piece.design.kind === 'tile' && !fitting.includes(piece))
    .map((piece) => {
      const other = placed.find((candidate) => candidate.piece === piece);
      return other
        ? `${piece.tag} is ${other.key}: make it ${most.key}, as most tiles are, to lay it here.`
        : `${piece.tag} fills no grid: make it ${SHAPE_WORDS[most.grids[0]!] ? 'a ' : ''}${most.key} to lay it here.`;
    });
  const { names } = TABLE_SHAPES[most.grids[0]!];
  const sides = names.length;
  const edgeAt = fitting.map((piece) =>
    names.map((side) => edges.findIndex((candidate) => samePiece(candidate, piece) && candidate.edge === side)),
  );
  const pairOf = (x: number, y: number): number => Math.min(x, y) * edges.length + Math.max(x, y);
  // Every seam of water against water has been judged already; any other pair may not stand together.
  const known = new Map(seams.map((seam) => [pairOf(seam.a, seam.b), seam]));
  const meets = new Uint8Array((fitting.length * sides) ** 2);
  const scores = new Float32Array(meets.length).fill(WORST);
  const ends = edgeAt.flat();
  ends.forEach((edgeA, a) =>
    ends.forEach((edgeB, b) => {
      const seam = known.get(pairOf(edgeA, edgeB));
      if (!seam) return;
      scores[a * ends.length + b] = seam.score;
      if (seam.grade !== 'shows') meets[a * ends.length + b] = 1;
    }),
  );
  const tiles = fitting.map(({ designId, copy, tag, copies, ...piece }, i): TableTile => ({
    designId,
    copy,
    tag,
    copies,
    drawnTag: piece.design.tag,
    ...(copy !== null && fitting.some((other) => other.designId === designId && other.copy === null) && { once: true }),
    turnable: true,
    ...habits(piece, names),
    wet: edgeAt[i]!.map((edge) => edges[edge]?.wet ?? false),
  }));
  return { tiles, grids: most.grids, sizeMm: most.size, meets, scores, edges: Int32Array.from(ends), leftOut };
}

/** The score of edges that cannot stand against each other. */
const WORST = 1000;

/** Which way its water reads, and whether there is a pond on it. */
function habits({ design }: Pick<MatchPiece, 'design'>, names: readonly EdgeName[]): Pick<TableTile, 'from' | 'pond'> {
  const from = names.indexOf(design.flowsFrom as EdgeName);
  return {
    ...(from >= 0 && { from: from as TableSide }),
    ...(design.features.some(({ kind }) => kind === 'pool') && { pond: true }),
  };
}

/** Where two sides of two kinds stand in the stock's tables. */
const pairAt = ({ tiles }: Pick<TableStock, 'tiles'>, a: number, sideA: number, b: number, sideB: number): number => {
  const sides = tiles[0]!.wet.length;
  return (a * sides + sideA) * tiles.length * sides + b * sides + sideB;
};

const scoreOf =
  (stock: Pick<TableStock, 'tiles' | 'scores'>): SideScore =>
  (a, sideA, b, sideB) =>
    stock.scores[pairAt(stock, a, sideA, b, sideB)]!;

/** A layout with its copies where the seams are best. */
export const settled = (
  layout: TableLayout,
  stock: Pick<TableStock, 'tiles' | 'meets' | 'scores'>,
  { fixed, grid }: Pick<TableWish, 'grid'> & { fixed: readonly TablePlace[] },
  seed: number,
): TableLayout => bestCopies(layout, stock.tiles, meetsOf(stock), scoreOf(stock), fixed, grid, seed);

/** Seams of a layout as edges of the set, by index, and between which of the laid tiles. */
export function layoutJoints(
  laid: readonly LaidTile[],
  { tiles, edges }: Pick<TableStock, 'tiles' | 'edges'>,
  grid: TableGridKind,
): { a: number; b: number; placeA: number; placeB: number }[] {
  const sides = TABLE_SHAPES[grid].sides.length;
  return laidSeams(laid, tiles, grid)
    .map(({ a, b, sideA, sideB }) => ({
      a: edges[laid[a]!.tile * sides + sideA]!,
      b: edges[laid[b]!.tile * sides + sideB]!,
      placeA: a,
      placeB: b,
    }))
    .filter(({ a, b }) => a >= 0 && b >= 0);
}

/** Whether two sides may meet, by the stock's table. */
export const meetsOf =
  (stock: Pick<TableStock, 'tiles' | 'meets'>): SidesMeet =>
  (a, sideA, b, sideB) =>
    stock.meets[pairAt(stock, a, sideA, b, sideB)] === 1;
