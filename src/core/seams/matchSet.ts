import { pieceKey } from '../model/pieceRef';
import { withoutJoints } from '../bed/joints';
import { edgeProfile } from '../bed/profile';
import { outlineEdges } from '../bed/outline';
import { edgePlace, surfaceAtMm, tiltedSurface } from '../bed/tilt';
import type { EdgeName, PieceDesign } from '../model/designSchema';
import { volumeMl } from '../bed/volumeCurve';
import { cellFor } from '../bed/grid';
import { levelBed, surveyBed, type SurveyedBed } from '../plan/beds';
import { waterLook } from '../tint/waterLook';
import { matchRow, type MatchRow } from './matchRow';
import type { Grade, SeamLimits } from '../model/seamSchema';
import { onShims } from './standing';
import { canMeet, compareEdges, seamScore, type Seam } from './seam';
import { departure, edgeHeights, edgeLevels, edgeRocks } from './seamEdge';
import type { MatchEdge, MatchSeam, MatchRequest, MatchPiece } from './matchTypes';

export interface MatchSet {
  edges: MatchEdge[];
  /** Water against water, worst first. */
  seams: MatchSeam[];
  counts: MatchCounts;
  row: MatchRow | null;
  problems: string[];
  /** True of an extract: more edges and seams are known than it carries. */
  partial: boolean;
}

/** How many seams of each grade there are, how many are meant to meet and how many of those show; edges off their standard. */
export interface MatchCounts {
  grades: Record<Grade, number>;
  meant: number;
  meantShows: number;
  departs: number;
}

/** Edges of which most of the water meets water are meant to meet; the others would only by mistake. */
export const MEANT_OVERLAP = 0.5;
export const isMeant = ({ wetOverlap }: Pick<Seam, 'wetOverlap'>): boolean => wetOverlap >= MEANT_OVERLAP;

function countsOf(edges: readonly MatchEdge[], seams: readonly MatchSeam[]): MatchCounts {
  const grades: MatchCounts['grades'] = { closes: 0, passes: 0, shows: 0 };
  for (const { grade } of seams) grades[grade]++;
  const meant = seams.filter(isMeant);
  return {
    grades,
    meant: meant.length,
    meantShows: meant.filter(({ grade }) => grade === 'shows').length,
    departs: edges.filter(({ departs }) => departs).length,
  };
}

/** More edges and seams than these make a page heavy; a first look does without the rest. */
const MOST_FIRST = { edges: 48, seams: 300, shown: 12 };

/** What a first look at a match needs: all of a small one; of a large one the worst seams that are meant to meet, and the row. */
export function slimMatch(match: MatchSet): MatchSet {
  const { edges, seams, row } = match;
  if (edges.length <= MOST_FIRST.edges && seams.length <= MOST_FIRST.seams) return match;
  const shown = seams.filter(isMeant).slice(0, MOST_FIRST.shown);
  const used = [
    ...new Set([
      ...shown.flatMap(({ a, b }) => [a, b]),
      ...(row?.seams.flatMap(({ a, b }) => [a, b]) ?? []),
      ...(row?.boards.flatMap(({ west, east }) => [west, east]) ?? []),
    ]),
  ];
  const place = new Map(used.map((edge, i) => [edge, i]));
  const moved = (seam: MatchSeam): MatchSeam => ({ ...seam, a: place.get(seam.a)!, b: place.get(seam.b)! });
  return {
    ...match,
    partial: true,
    edges: used.map((edge) => edges[edge]!),
    seams: shown.map(moved),
    row: row && {
      ...row,
      seams: row.seams.map(moved),
      boards: row.boards.map((board) => ({ ...board, west: place.get(board.west)!, east: place.get(board.east)! })),
    },
  };
}

/** Cells of a bed of which only the edges matter: half a millimetre apart on a 140 mm tile. */
const MATCH_CELLS = 90_000;

/** The bed of a design as fine as a match needs it. */
export const matchBed = (design: PieceDesign): SurveyedBed => surveyBed(design, cellFor(design.outline, MATCH_CELLS));

/** Every edge of a set, every seam that could be made of two wet ones, and the best row of its boards. */
export function matchSet(
  request: MatchRequest,
  bedOf: (design: PieceDesign) => SurveyedBed = matchBed,
  tick: (share: number) => void = () => undefined,
): MatchSet {
  const bare = request.pieces.flatMap((piece) => edgesOf(piece, request, bedOf));
  const shims = new Map(request.pieces.map((piece) => [pieceKey(piece), piece.shimsMm]));
  const edges = bare.map((edge) => onShims(edge, shims.get(pieceKey(edge))));
  const seams: MatchSeam[] = [];
  for (let a = 0; a < edges.length; a++) {
    if ((a & 15) === 0) tick((0.3 * a) / edges.length);
    for (let b = a; b < edges.length; b++) {
      if (!edges[a]!.wet || !edges[b]!.wet || !canMeet(edges[a]!, edges[b]!)) continue;
      seams.push(seamOf(edges, a, b, request.limits));
    }
  }
  seams.sort((x, y) => y.score - x.score);
  tick(0.3);
  const { row, problems } = matchRow(request, edges, bare, (share) => tick(0.3 + 0.7 * share));
  return { edges, seams, counts: countsOf(edges, seams), row, problems, partial: false };
}

function seamOf(edges: readonly MatchEdge[], a: number, b: number, limits: SeamLimits): MatchSeam {
  const seam = compareEdges(edges[a]!, edges[b]!, limits);
  return { a, b, ...seam, score: seamScore(seam, limits) };
}

function edgesOf(
  { tag, designId, copy, design, edges: measured, tint: ownTint }: MatchPiece,
  { levelMm, standards, tilt, tint }: MatchRequest,
  bedOf: (design: PieceDesign) => SurveyedBed,
): MatchEdge[] {
  const bed = levelBed(bedOf(design), design, levelMm);
  const deepest = Math.max(0.1, levelMm - bed.curve.lowestMm);
  const look = waterLook(design, ownTint ?? tint, deepest);
  const slope = { east: tilt.eastMmPerM / 1000, north: tilt.northMmPerM / 1000 };
  const level = slope.east === 0 && slope.north === 0;
  const surface = level ? null : tiltedSurface(bed.grid, design.outline, volumeMl(bed.curve, levelMm), slope);
  const at = (edge: EdgeName, share: number): number =>
    surface ? surfaceAtMm(surface, edgePlace(design.outline, edge, share)) : levelMm;
  const carved = design.joints ? bedOf(withoutJoints(design)).drawn : bed.drawn;
  return outlineEdges(design.outline).map((edge): MatchEdge => {
    const read = measured[edge] ?? null;
    const profile = edgeProfile(bed.drawn, design.outline, edge);
    const heightMm = edgeHeights(design.outline, edge, profile, read);
    const rocks = edgeRocks(design.outline, edge, profile);
    const levels = edgeLevels(design.outline, edge, read?.levels ?? [at(edge, 0), at(edge, 0.5), at(edge, 1)]);
    const wanted = standards.find(({ id }) => id === design.edgeStandards?.[edge]) ?? null;
    return {
      piece: tag,
      designId,
      copy,
      edge,
      heightMm,
      levelMm: levels,
      measured: read !== null,
      look,
      ...(rocks.length > 0 && { rocks }),
      lengthMm: profile.lengthMm,
      wet: heightMm.some((height) => height < levels[1]),
      standard: wanted?.name ?? null,
      drawnTo: design.joints?.some((joint) => joint.edge === edge) ?? false,
      departs:
        wanted &&
        departure(
          read || carved === bed.drawn
            ? heightMm
            : edgeHeights(design.outline, edge, edgeProfile(carved, design.outline, edge), null),
          wanted,
        ),
    };
  });
}
