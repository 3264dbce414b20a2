import { z } from 'zod';
import { checkDesign } from '../bed/checkDesign';
import { withJoints } from '../bed/joints';
import { pieceDesignSchema } from '../bed/schema';
import { LEVEL_BENCH, levelMmSchema, surveyBed, tiltSchema } from '../plan';
import { matchSet, type MatchPiece, type MatchRequest } from '../seams/matchSet';
import { edgeStandardSchema } from '../bed/edgeStandardSchema';
import { measuredEdgesSchema, SEAM_LIMITS, seamLimitsSchema } from '../seams/schema';
import { shimRow } from '../seams/shims';
import { checkWish, layTable, type TableWish } from '../seams/table';
import { meetsOf, tableStock } from '../seams/tableTiles';
import { commandFailed, readJson, roundedJson, type CommandResult } from './planFile';

const count = z.number().int().min(0).max(399);
const place = z.object({ column: count, row: count });
const wishSchema = z.object({ columns: z.number().int().min(1).max(400), rows: z.number().int().min(1).max(400), blocked: z.array(place).default([]), pass: z.array(place).default([]), openings: z.array(place.extend({ side: z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3)]) })).default([]), seed: z.number().int().min(1).max(1_000_000).default(1), mostExtras: z.number().int().min(0).max(20).default(4) });

/** Pieces, what was measured on their edges, and what is asked of them: what the `seams` command reads. */
export const matchRequestSchema = z.object({
  format: z.literal('aguada.match-request', { error: 'Must be "aguada.match-request"' }),
  version: z.literal(1, { error: 'This program reads version 1' }),
  levelMm: levelMmSchema,
  pieces: z.array(z.object({ design: pieceDesignSchema, edges: measuredEdgesSchema.optional() })).min(1, 'Name at least one piece').max(200, 'At most 200 pieces'),
  limits: seamLimitsSchema.default(SEAM_LIMITS),
  standards: z.array(edgeStandardSchema).max(12, 'At most 12 edge standards').default([]),
  tilt: tiltSchema.default(LEVEL_BENCH),
  /** Boards by their place among the boards of `pieces`, copies one after another. */
  row: z.object({ pins: z.array(z.object({ board: count, place: count })).default([]), apart: z.array(z.tuple([count, count])).default([]) }).default({ pins: [], apart: [] }),
  shimsMm: z.array(z.number().gt(0).max(20)).max(8).default([]),
  table: wishSchema.optional(),
});
export type MatchFile = z.infer<typeof matchRequestSchema>;

/** Seams with their grades, worst first; the best row with its shims; the layout that was asked for. Lengths mm. */
export function matchReport(file: MatchFile): object {
  const pieces = file.pieces.map(({ design, edges = {} }): MatchPiece => ({ tag: design.tag, designId: design.tag, copy: null, copies: design.copies, design: withJoints(design, file.standards), edges }));
  const request: MatchRequest = { pieces, levelMm: file.levelMm, limits: file.limits, standards: file.standards, tilt: file.tilt, doses: [], row: file.row };
  const match = matchSet(request, (design) => surveyBed(design));
  const name = (index: number): { piece: string; edge: string } => ({ piece: match.edges[index]!.piece, edge: match.edges[index]!.edge });
  const { row } = match;
  return {
    format: 'aguada.match',
    version: 1,
    edges: match.edges.map(({ piece, edge, lengthMm, wet, levelMm, measured, standard, drawnTo, departs }) => ({ piece, edge, lengthMm, wet, levelsMm: levelMm, measured, standard, drawnTo, departs })),
    seams: match.seams.map(({ a, b, ...seam }) => ({ a: name(a), b: name(b), ...seam })),
    row: row && {
      order: row.result.places.map(({ board, turned }) => ({ ...row.boards[board]!, turned })),
      worst: row.result.worst, sum: row.result.sum, exact: row.result.exact, bound: row.result.bound, passing: row.result.passing, all: row.result.all, lengthMm: row.lengthMm,
      seams: row.seams.map(({ a, b, grade, reason, stepMm, gapMm }) => ({ a: name(a), b: name(b), grade, reason, stepMm, gapMm })),
      shims: shimRow(row.result.places.map((_, i) => rowEnds(match.edges, row.seams, i)), file.shimsMm),
    },
    ...(file.table && { table: layoutOf(file.table, pieces, match, file) }),
    problems: match.problems,
  };
}

/** Levels at the left and right end of a board in a row, from the seams beside it. */
export function rowEnds(edges: readonly { levelMm: readonly [number, number, number] }[], seams: readonly { a: number; b: number }[], i: number): { leftMm: number; rightMm: number } {
  const [before, after] = [seams[i - 1], seams[i]];
  const leftMm = edges[before ? before.b : after!.a]!.levelMm[1];
  return { leftMm, rightMm: after ? edges[after.a]!.levelMm[1] : leftMm };
}

function layoutOf({ seed, mostExtras, ...wish }: NonNullable<MatchFile['table']>, pieces: MatchPiece[], match: ReturnType<typeof matchSet>, { limits }: MatchFile): object {
  const stock = tableStock(pieces, match, limits);
  if (!stock) return { kind: 'none', problems: ['No square tiles.'] };
  const problems = checkWish(wish satisfies TableWish, stock.tiles);
  if (problems.length > 0) return { kind: 'none', problems };
  const result = layTable(wish, stock.tiles, meetsOf(stock), { seed, mostExtras });
  if (result.kind !== 'found') return { kind: result.kind, problems: stock.leftOut };
  const tag = (tile: number): string => stock.tiles[tile]!.tag;
  return { kind: 'found', fewestExtras: result.fewest, laid: result.layout.laid.map(({ tile, ...place }) => ({ ...place, tag: tag(tile) })), extras: result.layout.extras.map(({ tile, count: more }) => ({ tag: tag(tile), count: more })), problems: stock.leftOut };
}

/** The `seams` command, without its files: text in, text out, and the exit code. */
export function seamsCommand(text: string): CommandResult {
  const read = readJson(text, matchRequestSchema);
  if (!read.ok) return commandFailed(read.errors);
  const { pieces, levelMm } = read.request;
  const stops = pieces.flatMap(({ design }, i) => checkDesign(design, levelMm).filter(({ severity }) => severity === 'stop').map(({ path, message }) => ({ field: ['pieces', i, 'design', ...path].join('.'), message })));
  if (stops.length > 0) return commandFailed(stops);
  return { output: roundedJson(matchReport(read.request)), errors: '', exitCode: 0 };
}
