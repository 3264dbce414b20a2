import { CLEAR_TINT } from '../tint/waterTint';
import { z } from 'zod';
import { checkDesign } from '../bed/checkDesign';
import { withJoints } from '../bed/joints';
import { pieceDesignSchema } from '../model/designSchema';
import { LEVEL_BENCH, levelMmSchema, tiltSchema } from '../plan';
import { matchSet, type MatchSet } from '../seams/matchSet';
import { edgeStandardSchema } from '../model/edgeStandardSchema';
import { piecesToMake } from '../seams/makeList';
import type { MatchRow } from '../seams/matchRow';
import {
  measuredEdgesSchema,
  GRADES,
  NO_WISH,
  rowWishSchema,
  SEAM_LIMITS,
  seamLimitsSchema,
} from '../model/seamSchema';
import { shimRow } from '../seams/shims';
import { checkWish, layTable } from '../seams/table';
import { tableWishSchema } from '../model/tableSchema';
import { layoutJoints, meetsOf, settled, tableStock, type TableStock } from '../seams/tableTiles';
import { commandFailed, readJson, roundedJson, type CommandResult } from './planFile';
import type { MatchPiece, MatchRequest } from '../seams/matchTypes';

const tableAskedSchema = tableWishSchema.extend({
  seed: z.number().int().min(1).max(1_000_000).default(1),
  mostExtras: z.number().int().min(0).max(20).default(4),
});

/** Pieces, what was measured on their edges, and what is asked of them: what the `seams` command reads. */
export const matchRequestSchema = z.object({
  format: z.literal('aguada.match-request', { error: 'Must be "aguada.match-request"' }),
  version: z.literal(1, { error: 'This program reads version 1' }),
  levelMm: levelMmSchema,
  pieces: z
    .array(z.object({ design: pieceDesignSchema, edges: measuredEdgesSchema.optional() }))
    .min(1, 'Name at least one piece')
    .max(200, 'At most 200 pieces'),
  limits: seamLimitsSchema.default(SEAM_LIMITS),
  standards: z.array(edgeStandardSchema).max(12, 'At most 12 edge standards').default([]),
  tilt: tiltSchema.default(LEVEL_BENCH),
  /** Boards by name: the tag and the number of the copy, as in `SH-A #2`. */
  row: rowWishSchema.default(NO_WISH),
  shimsMm: z.array(z.number().gt(0).max(20)).max(8).default([]),
  /** Shims under each corner apart, or the same under all four of a board. */
  shimCorners: z.boolean().default(false),
  table: tableAskedSchema.optional(),
  /** Tables that must all be possible, one at a time: the report says what to make. */
  tables: z.array(tableWishSchema).max(12, 'At most 12 tables').default([]),
});
export type MatchFile = z.infer<typeof matchRequestSchema>;

/** Seams with their grades, worst first; the best row with its shims; the layout that was asked for. Lengths mm. */
export function matchReport(file: MatchFile): object {
  const pieces = file.pieces.map(({ design, edges = {} }, i): MatchPiece => {
    const before = file.pieces
      .slice(0, i)
      .reduce((sum, other) => sum + (other.design.tag === design.tag ? other.design.copies : 0), 0);
    const tag = before === 0 ? design.tag : `${design.tag} (${i + 1})`;
    return {
      tag,
      designId: tag,
      copy: null,
      copies: design.copies,
      copyNumbers: Array.from({ length: design.copies }, (_, k) => before + k + 1),
      design: withJoints(design, file.standards),
      edges,
    };
  });
  const request: MatchRequest = {
    pieces,
    levelMm: file.levelMm,
    limits: file.limits,
    standards: file.standards,
    tilt: file.tilt,
    tint: CLEAR_TINT,
    row: file.row,
  };
  const match = matchSet(request);
  const name = (index: number): { piece: string; edge: string } => ({
    piece: match.edges[index]!.piece,
    edge: match.edges[index]!.edge,
  });
  const { row } = match;
  const stock = file.table || file.tables.length > 0 ? tableStock(pieces, match) : null;
  return {
    format: 'aguada.match',
    version: 1,
    edges: match.edges.map(({ piece, edge, lengthMm, wet, levelMm, measured, standard, drawnTo, departs }) => ({
      piece,
      edge,
      lengthMm,
      wet,
      levelsMm: levelMm,
      measured,
      standard,
      drawnTo,
      departs,
    })),
    seams: match.seams.map(({ a, b, ...seam }) => ({ a: name(a), b: name(b), ...seam })),
    row: row && {
      order: row.result.places.map(({ board, turned }) => ({
        piece: row.boards[board]!.name,
        lengthMm: row.boards[board]!.lengthMm,
        turned,
      })),
      worst: row.result.worst,
      sum: row.result.sum,
      exact: row.result.exact,
      bound: row.result.bound,
      passing: row.result.passing,
      all: row.result.all,
      lengthMm: row.lengthMm,
      seams: row.seams.map(({ a, b, grade, reason, stepMm, gapMm }) => ({
        a: name(a),
        b: name(b),
        grade,
        reason,
        stepMm,
        gapMm,
      })),
      spoiler: row.spoiler && { ...row.spoiler, board: row.boards[row.spoiler.board]!.name },
      shims: shimReport(row, file),
    },
    ...(file.table && { table: layoutOf(file.table, stock, match) }),
    ...(file.tables.length > 0 && { make: makeReport(file.tables, stock) }),
    problems: match.problems,
  };
}

/** Shims by board and corner, by how much and which strips. */
function shimReport(row: MatchRow, { shimsMm, shimCorners }: MatchFile): object {
  const { shims, worstMm, beforeMm, mostStrips } = shimRow(row.ends, shimsMm, { perCorner: shimCorners });
  return {
    beforeMm,
    worstMm,
    mostStrips,
    boards: shims.map((corners, i) => ({ piece: row.boards[row.result.places[i]!.board]!.name, ...corners })),
  };
}

function layoutOf(
  { seed, mostExtras, ...wish }: NonNullable<MatchFile['table']>,
  stock: TableStock | null,
  match: MatchSet,
): object {
  if (!stock) return { kind: 'none', problems: [NO_TILES] };
  const problems = checkWish(wish, stock.tiles);
  if (problems.length > 0) return { kind: 'none', problems };
  const result = layTable(wish, stock.tiles, meetsOf(stock), { seed, mostExtras });
  if (result.kind !== 'found') return { kind: result.kind, problems: stock.leftOut };
  const { laid, extras } = settled(result.layout, stock, wish, seed);
  const tag = (tile: number): string => stock.tiles[tile]!.tag;
  const grades = layoutJoints(laid, stock, wish.grid).map(
    ({ a, b }) =>
      match.seams.find((seam) => (seam.a === a && seam.b === b) || (seam.a === b && seam.b === a))?.grade ?? 'shows',
  );
  return {
    kind: 'found',
    fewestExtras: result.fewest,
    laid: laid.map(({ tile, column, row, turns }) => ({ column, row, piece: tag(tile), turns })),
    extras: extras.map(({ tile, count }) => ({ piece: tag(tile), count })),
    seams: Object.fromEntries(GRADES.map((grade) => [grade, grades.filter((one) => one === grade).length])),
    problems: stock.leftOut,
  };
}

const NO_TILES = 'There are no tiles to lay: rectangles or hexagons. Add some on the Shape stage.';

function makeReport(wishes: MatchFile['tables'], stock: TableStock | null): object {
  if (!stock) return { kind: 'none', problems: [NO_TILES] };
  const problems = wishes.flatMap((wish, i) =>
    checkWish(wish, stock.tiles).map((problem) => `Table ${i + 1}: ${problem}`),
  );
  if (problems.length > 0) return { kind: 'none', problems };
  const result = piecesToMake(wishes, stock.tiles, meetsOf(stock));
  if (result.kind === 'none')
    return {
      kind: 'none',
      problems: result.tables.map((table) => `Table ${table + 1} cannot be laid with any number of these pieces.`),
    };
  if (result.kind === 'gave up') return { kind: 'gave up', problems: [] };
  const { pieces, make, exact, bound } = result.list;
  return {
    kind: 'found',
    make,
    exact,
    bound,
    pieces: pieces.map(({ tile, ...counts }) => ({ piece: stock.tiles[tile]!.tag, ...counts })),
  };
}

/** The `seams` command, without its files: text in, text out, and the exit code. */
export function seamsCommand(text: string): CommandResult {
  const read = readJson(text, matchRequestSchema);
  if (!read.ok) return commandFailed(read.errors);
  const { pieces, levelMm } = read.request;
  const stops = pieces.flatMap(({ design }, i) =>
    checkDesign(design, levelMm)
      .filter(({ severity }) => severity === 'stop')
      .map(({ path, message }) => ({ field: ['pieces', i, 'design', ...path].join('.'), message })),
  );
  if (stops.length > 0) return commandFailed(stops);
  return { output: roundedJson(matchReport(read.request)), errors: '', exitCode: 0 };
}
