import { withoutJoints } from '../bed/joints';
import { edgeProfile } from '../bed/profile';
import { outlineEdges, outlineSize } from '../bed/outline';
import { edgePlace, surfaceAtMm, tiltedSurface } from '../bed/tilt';
import type { EdgeName, PieceDesign } from '../bed/schema';
import { volumeMl } from '../bed/volumeCurve';
import { levelBed, type SurveyedBed } from '../plan/beds';
import type { Tilt } from '../plan/request';
import type { RecipeDose } from '../tint/doses';
import { waterLook } from '../tint/waterLook';
import { bestRow, checkRowRules, type RowResult, type RowRules } from './row';
import type { EdgeStandard } from '../bed/edgeStandardSchema';
import type { MeasuredEdge, SeamLimits } from './schema';
import { canMeet, compareEdges, seamScore, type Seam } from './seam';
import { departure, edgeHeights, edgeLevels, type SeamEdge } from './seamEdge';

/** A piece as it is matched: a design, or one copy of it with measurements of its own. */
export interface MatchPiece {
  /** `HS-1`, or `HS-1 #2` for a copy that was measured. */
  tag: string;
  designId: string;
  copy: number | null;
  /** How many pieces it stands for. */
  copies: number;
  design: PieceDesign;
  edges: Partial<Record<EdgeName, MeasuredEdge>>;
}

export interface MatchRequest {
  pieces: MatchPiece[];
  levelMm: number;
  limits: SeamLimits;
  standards: EdgeStandard[];
  tilt: Tilt;
  doses: RecipeDose[];
  row: RowRules;
}

/** An edge of the set, its profile, and how it keeps to its standard. */
export interface MatchEdge extends SeamEdge {
  designId: string;
  copy: number | null;
  wet: boolean;
  standard: string | null;
  /** True when the bed is drawn to the standard over its blend length. */
  drawnTo: boolean;
  /** Where what was carved (or measured) departs most from the standard; null when it keeps to it, or there is none. */
  departs: { atMm: number; offMm: number } | null;
}

/** A seam of the set: which edges, by index, and what it is like. */
export interface MatchSeam extends Seam {
  a: number;
  b: number;
  score: number;
}

/** A row of boards: who stands where, and the seams between them. */
export interface MatchRow {
  /** The boards, one entry a copy, by tag. */
  boards: { tag: string; copy: number; lengthMm: number }[];
  result: RowResult;
  seams: MatchSeam[];
  lengthMm: number;
  /** The board whose seams are worst in the best row, and how many of all orders would pass without it. */
  spoiler: { board: number; withoutWorst: number } | null;
}

export interface MatchSet {
  edges: MatchEdge[];
  /** Water against water, worst first. */
  seams: MatchSeam[];
  row: MatchRow | null;
  problems: string[];
}

/** The most boards in one row; more are a table, not a row. */
export const MOST_BOARDS = 40;

/** Every edge of a set, every seam that could be made of two wet ones, and the best row of its boards. */
export function matchSet(request: MatchRequest, bedOf: (design: PieceDesign) => SurveyedBed, tick: (share: number) => void = () => undefined): MatchSet {
  const edges = request.pieces.flatMap((piece) => edgesOf(piece, request, bedOf));
  const seams: MatchSeam[] = [];
  for (let a = 0; a < edges.length; a++) {
    for (let b = a; b < edges.length; b++) {
      if (!edges[a]!.wet || !edges[b]!.wet || !canMeet(edges[a]!, edges[b]!)) continue;
      seams.push(seamOf(edges, a, b, request.limits));
    }
  }
  seams.sort((x, y) => y.score - x.score);
  tick(0.3);
  const { row, problems } = matchRow(request, edges, tick);
  return { edges, seams, row, problems };
}

function seamOf(edges: readonly MatchEdge[], a: number, b: number, limits: SeamLimits): MatchSeam {
  const seam = compareEdges(edges[a]!, edges[b]!, limits);
  return { a, b, ...seam, score: seamScore(seam, limits) };
}

function edgesOf({ tag, designId, copy, design, edges: measured }: MatchPiece, { levelMm, standards, tilt, doses }: MatchRequest, bedOf: (design: PieceDesign) => SurveyedBed): MatchEdge[] {
  const bed = levelBed(bedOf(design), design, levelMm);
  const deepest = Math.max(0.1, levelMm - bed.curve.lowestMm);
  const look = waterLook(design, doses, deepest);
  const slope = { east: tilt.eastMmPerM / 1000, north: tilt.northMmPerM / 1000 };
  const level = slope.east === 0 && slope.north === 0;
  const surface = level ? null : tiltedSurface(bed.grid, design.outline, volumeMl(bed.curve, levelMm), slope);
  const at = (edge: EdgeName, share: number): number => (surface ? surfaceAtMm(surface, edgePlace(design.outline, edge, share)) : levelMm);
  const carved = design.joints ? bedOf(withoutJoints(design)).drawn : bed.drawn;
  return outlineEdges(design.outline).map((edge): MatchEdge => {
    const own = measured[edge] ?? null;
    const heightMm = edgeHeights(design.outline, edge, edgeProfile(bed.drawn, design.outline, edge), own);
    const levels = edgeLevels(design.outline, edge, own?.levels ?? [at(edge, 0), at(edge, 0.5), at(edge, 1)]);
    const wanted = standards.find(({ id }) => id === design.edgeStandards?.[edge]) ?? null;
    return {
      piece: tag, designId, copy, edge, heightMm, levelMm: levels, measured: own !== null, look,
      lengthMm: bed.profiles.find((profile) => profile.edge === edge)?.profile.lengthMm ?? 0,
      wet: heightMm.some((height) => height < levels[1]),
      standard: wanted?.name ?? null,
      drawnTo: design.joints?.some((joint) => joint.edge === edge) ?? false,
      departs: wanted && departure(own || carved === bed.drawn ? heightMm : edgeHeights(design.outline, edge, edgeProfile(carved, design.outline, edge), null), wanted),
    };
  });
}

/** Boards stand with their west and east edges to each other. */
function matchRow({ pieces, limits, row: rules }: MatchRequest, edges: readonly MatchEdge[], tick: (share: number) => void): { row: MatchRow | null; problems: string[] } {
  const kinds = pieces.flatMap((piece) => {
    if (piece.design.kind !== 'board') return [];
    const find = (edge: EdgeName): number => edges.findIndex((candidate) => candidate.piece === piece.tag && candidate.edge === edge);
    const [west, east] = [find('west'), find('east')];
    return west < 0 || east < 0 ? [] : [{ piece, west, east }];
  });
  const boards = kinds.flatMap((kind) => Array.from({ length: kind.piece.copies }, (_, i) => ({ ...kind, copy: kind.piece.copy ?? i + 1 })));
  if (boards.length < 2) return { row: null, problems: [] };
  if (boards.length > MOST_BOARDS) return { row: null, problems: [`${boards.length} boards are too many for one row; at most ${MOST_BOARDS}.`] };
  const problems = checkRowRules(boards.length, rules);
  if (problems.length > 0) return { row: null, problems };
  const known = new Map<number, MatchSeam>();
  const between = (left: { board: number; turned: boolean }, right: { board: number; turned: boolean }): MatchSeam => {
    const a = boards[left.board]![left.turned ? 'west' : 'east'];
    const b = boards[right.board]![right.turned ? 'east' : 'west'];
    const key = a * edges.length + b;
    const seam = known.get(key) ?? (canMeet(edges[a]!, edges[b]!) ? seamOf(edges, a, b, limits) : { ...seamOf(edges, a, a, limits), a, b, score: 1000, grade: 'shows' as const, reason: 'the edges are not equally long' });
    known.set(key, seam);
    return seam;
  };
  const cost = (left: { board: number; turned: boolean }, right: { board: number; turned: boolean }): number => between(left, right).score;
  const result = bestRow(boards.length, cost, 2, rules, (share) => tick(0.3 + 0.6 * share));
  if (!result) return { row: null, problems: ['With these rules no order is left. Take out a pin, or let two boards be neighbours again.'] };
  const seams = result.places.slice(1).map((place, i) => between(result.places[i]!, place));
  const across = (board: number): number => sizeAcross(boards[board]!.piece.design);
  const withoutWorst = boards.length > 2 && boards.length <= 10 ? boards.map((_, board) => worstWithout(boards.length, board, cost)) : [];
  const spoiler = withoutWorst.length > 0 && result.worst > 1 ? withoutWorst.reduce((best, worst, board) => (worst < withoutWorst[best]! ? board : best), 0) : null;
  return {
    problems: [],
    row: {
      boards: boards.map(({ piece, copy }, board) => ({ tag: piece.copy === null ? piece.tag : piece.tag.replace(/ #\d+$/, ''), copy, lengthMm: across(board) })),
      result, seams,
      lengthMm: boards.reduce((sum, _, board) => sum + across(board), 0),
      spoiler: spoiler !== null && withoutWorst[spoiler]! < result.worst - 1e-9 ? { board: spoiler, withoutWorst: withoutWorst[spoiler]! } : null,
    },
  };
}

const sizeAcross = ({ outline }: PieceDesign): number => outlineSize(outline).widthMm;

/** The worst seam of the best row of all boards but one. */
function worstWithout(count: number, left: number, cost: (a: { board: number; turned: boolean }, b: { board: number; turned: boolean }) => number): number {
  const rest = Array.from({ length: count }, (_, board) => board).filter((board) => board !== left);
  const real = (place: { board: number; turned: boolean }): { board: number; turned: boolean } => ({ ...place, board: rest[place.board]! });
  return bestRow(rest.length, (a, b) => cost(real(a), real(b)), 2)?.worst ?? Infinity;
}
