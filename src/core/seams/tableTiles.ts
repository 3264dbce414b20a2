import { outlineSize } from '../bed/outline';
import type { EdgeName } from '../bed/schema';
import type { MatchPiece, MatchSet } from './matchSet';
import type { LaidTile, SidesMeet, TableLayout, TableTile } from './table';
import { bestCopies, laidSeams, type SideScore } from './tableCopies';
import type { TablePlace, TableSide } from './tableSchema';

/** The set's square tiles as kinds that can be laid on one grid. */
export interface TableStock {
  tiles: TableTile[];
  designIds: string[];
  sizeMm: number;
  /** For two sides of two kinds, as drawn, 1 when the seam between them at least passes. Index: ((a·4 + sideA)·tiles + b)·4 + sideB. */
  meets: Uint8Array;
  /** The same seams by how bad they are (`seamScore`). */
  scores: Float32Array;
  /** The set's edge at each side of each tile: index 4·tile + side, −1 for none. */
  edges: Int32Array;
  /** Tiles that do not fit this grid, in words. */
  leftOut: string[];
}

const SIDES: readonly EdgeName[] = ['south', 'east', 'north', 'west'];

/** Takes the tiles of a set for a grid of the size that most of them have. Null when there are none. */
export function tableStock(
  pieces: readonly MatchPiece[],
  { edges, seams }: Pick<MatchSet, 'edges' | 'seams'>,
): TableStock | null {
  const square = pieces.flatMap((piece) => {
    const { widthMm, lengthMm } = outlineSize(piece.design.outline);
    return piece.design.kind === 'tile' &&
      piece.design.outline.kind === 'rectangle' &&
      Math.abs(widthMm - lengthMm) < 0.5
      ? [{ piece, sizeMm: widthMm }]
      : [];
  });
  const sizes = [...new Set(square.map(({ sizeMm }) => Math.round(sizeMm)))];
  const countOf = (size: number): number =>
    square.filter(({ sizeMm }) => Math.round(sizeMm) === size).reduce((sum, { piece }) => sum + piece.copies, 0);
  const size = sizes.sort((a, b) => countOf(b) - countOf(a))[0];
  if (size === undefined) return null;
  const fitting = square.filter(({ sizeMm }) => Math.round(sizeMm) === size).map(({ piece }) => piece);
  const leftOut = [
    ...pieces
      .filter(({ design }) => design.kind === 'tile' && !square.some(({ piece }) => piece.design === design))
      .map(({ tag }) => `${tag} is not square: give it sides of ${size} mm to lay it here.`),
    ...square
      .filter(({ sizeMm }) => Math.round(sizeMm) !== size)
      .map(
        ({ piece, sizeMm }) =>
          `${piece.tag} is ${Math.round(sizeMm)} mm wide: make it ${size} mm, as most tiles are, to lay it here.`,
      ),
  ];
  const edgeAt = fitting.map(({ tag }) =>
    SIDES.map((side) => edges.findIndex(({ piece, edge }) => piece === tag && edge === side)),
  );
  const pairOf = (x: number, y: number): number => Math.min(x, y) * edges.length + Math.max(x, y);
  // Every seam of water against water has been judged already; any other pair may not stand together.
  const known = new Map(seams.map((seam) => [pairOf(seam.a, seam.b), seam]));
  const meets = new Uint8Array((fitting.length * 4) ** 2);
  const scores = new Float32Array(meets.length).fill(WORST);
  fitting.forEach((_, a) =>
    SIDES.forEach((__, sideA) =>
      fitting.forEach((___, b) =>
        SIDES.forEach((____, sideB) => {
          const seam = known.get(pairOf(edgeAt[a]![sideA]!, edgeAt[b]![sideB]!));
          if (!seam) return;
          const at = ((a * 4 + sideA) * fitting.length + b) * 4 + sideB;
          scores[at] = seam.score;
          if (seam.grade !== 'shows') meets[at] = 1;
        }),
      ),
    ),
  );
  const tiles = fitting.map(({ tag, copies }, i): TableTile => ({
    tag,
    copies,
    turnable: true,
    ...habits(fitting[i]!),
    wet: SIDES.map((_, side) => edges[edgeAt[i]![side]!]?.wet ?? false) as unknown as TableTile['wet'],
  }));
  return {
    tiles,
    designIds: fitting.map(({ designId }) => designId),
    sizeMm: size,
    meets,
    scores,
    edges: Int32Array.from(edgeAt.flat()),
    leftOut,
  };
}

/** The score of edges that cannot stand against each other. */
const WORST = 1000;

/** Which way its water reads, and whether there is a pond on it. */
function habits({ design }: MatchPiece): Pick<TableTile, 'from' | 'pond'> {
  const from = SIDES.indexOf(design.flowsFrom as EdgeName);
  return {
    ...(from >= 0 && { from: from as TableSide }),
    ...(design.features.some(({ kind }) => kind === 'pool') && { pond: true }),
  };
}

const scoreOf =
  ({ tiles, scores }: Pick<TableStock, 'tiles' | 'scores'>): SideScore =>
  (a, sideA, b, sideB) =>
    scores[((a * 4 + sideA) * tiles.length + b) * 4 + sideB]!;

/** A layout with its copies where the seams are best. */
export const settled = (
  layout: TableLayout,
  stock: Pick<TableStock, 'tiles' | 'meets' | 'scores'>,
  kept: readonly TablePlace[],
  seed: number,
): TableLayout => bestCopies(layout, stock.tiles, meetsOf(stock), scoreOf(stock), kept, seed);

/** Seams of a layout as edges of the set, by index, and between which of the laid tiles. */
export const layoutJoints = (
  laid: readonly LaidTile[],
  { tiles, edges }: Pick<TableStock, 'tiles' | 'edges'>,
): { a: number; b: number; placeA: number; placeB: number }[] =>
  laidSeams(laid, tiles)
    .map(({ a, b, sideA, sideB }) => ({
      a: edges[laid[a]!.tile * 4 + sideA]!,
      b: edges[laid[b]!.tile * 4 + sideB]!,
      placeA: a,
      placeB: b,
    }))
    .filter(({ a, b }) => a >= 0 && b >= 0);

/** Whether two sides may meet, by the stock's table. */
export const meetsOf =
  ({ tiles, meets }: Pick<TableStock, 'tiles' | 'meets'>): SidesMeet =>
  (a, sideA, b, sideB) =>
    meets[((a * 4 + sideA) * tiles.length + b) * 4 + sideB] === 1;
