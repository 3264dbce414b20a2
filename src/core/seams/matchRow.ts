import { copyName, samePiece, type PieceRef } from '../model/pieceRef';
import { outlineSize } from '../bed/outline';
import type { EdgeName } from '../model/designSchema';
import type { MatchEdge, MatchPiece, MatchRequest, MatchSeam } from './matchTypes';
import { bestRow, checkRowRules, type RowPlace, type RowResult, type RowRules } from './row';
import type { RowWish } from '../model/seamSchema';
import { canMeet, compareEdges, seamScore } from './seam';
import type { SeamEdge } from './seamEdge';
import type { EndLevels } from './shims';
import { raiseEdge } from './standing';

/** One board of a row, a copy of its own. */
export interface RowBoard {
  designId: string;
  copy: number;
  /** `SH-A #2`. */
  name: string;
  lengthMm: number;
  /** Its ends as edges of the set, by index. */
  west: number;
  east: number;
}

/** A board with which others do not pass, and what would mend that. */
export interface Spoiler {
  board: number;
  /** With how many of the others none of its ends passes (where all pass: closes), whichever way round. */
  spoils: number;
  lacks: 'passing' | 'closing';
  others: number;
  /** Raised by this (lowered when negative) it spoils the fewest; null where no height helps. */
  raiseMm: number | null;
  spoilsThen: number;
  /** The worst seam of the best row without it; null where that was not worked out. */
  withoutWorst: number | null;
}

/** A row of boards: who stands where, and the seams between them. */
export interface MatchRow {
  boards: RowBoard[];
  /** The order is chosen for the boards themselves; shims are laid under an order, they do not make another. */
  result: RowResult;
  /** The seams as the boards stand, shims and all. */
  seams: MatchSeam[];
  /** Levels along both ends of each standing board without shims. */
  ends: EndLevels[];
  lengthMm: number;
  spoiler: Spoiler | null;
}

/** The most boards in one row; more are a table, not a row. */
export const MOST_BOARDS = 40;
/** Up to so many boards the row is also tried without each. */
const MOST_WITHOUT = 10;
/** What passes at arm's length, and what closes, as a seam's score. */
const PASSES = 2;
const CLOSES = 1;
/** The score of edges that cannot stand against each other. */
const NEVER = 1000;

interface Board extends RowBoard {
  tag: string;
  facing: boolean | null;
}

/** Every copy of the set's boards that has a west and an east end. */
function boardsOf(pieces: readonly MatchPiece[], edges: readonly MatchEdge[]): Board[] {
  return pieces.flatMap((piece) => {
    if (piece.design.kind !== 'board') return [];
    const find = (edge: EdgeName): number =>
      edges.findIndex((candidate) => samePiece(candidate, piece) && candidate.edge === edge);
    const [west, east] = [find('west'), find('east')];
    if (west < 0 || east < 0) return [];
    const { flowsFrom, outline } = piece.design;
    // Where the water of a row reads one way it reads from left to right.
    const facing = flowsFrom === 'west' ? false : flowsFrom === 'east' ? true : null;
    return Array.from({ length: piece.copies }, (_, i): Board => {
      const copy = piece.copy ?? piece.copyNumbers?.[i] ?? i + 1;
      return {
        designId: piece.designId,
        copy,
        tag: piece.tag,
        name: piece.copy === null ? copyName(piece.tag, copy) : piece.tag,
        lengthMm: outlineSize(outline).widthMm,
        west,
        east,
        facing,
      };
    });
  });
}

/** Rules about pieces as rules by their place in the list; of pieces that are not in the row it is told. */
function rulesOf({ pins, apart }: RowWish, boards: readonly Board[]): { rules: RowRules; problems: string[] } {
  const index = (ref: PieceRef): number => boards.findIndex((board) => samePiece(board, ref));
  const gone = [...pins.map(({ piece }) => piece), ...apart.flat()].filter((ref) => index(ref) < 0);
  const known = (ref: PieceRef): string =>
    copyName(boards.find(({ designId }) => designId === ref.designId)?.tag ?? ref.designId, ref.copy);
  return {
    rules: {
      facing: boards.map(({ facing }) => facing),
      pins: pins.filter(({ piece }) => index(piece) >= 0).map(({ piece, place }) => ({ board: index(piece), place })),
      apart: apart
        .filter((pair) => pair.every((ref) => index(ref) >= 0))
        .map(([a, b]) => [index(a), index(b)] as const),
    },
    problems: [...new Set(gone.map((ref) => `A rule speaks of ${known(ref)}, which is not in this row. Take it out.`))],
  };
}

/** The best row of a set's boards, which stand with their west and east edges to each other. `bare` are the edges without shims. */
export function matchRow(
  { pieces, limits, row: wish }: MatchRequest,
  edges: readonly MatchEdge[],
  bare: readonly MatchEdge[],
  tick: (share: number) => void,
): { row: MatchRow | null; problems: string[] } {
  const boards = boardsOf(pieces, edges);
  if (boards.length < 2) return { row: null, problems: [] };
  if (boards.length > MOST_BOARDS)
    return { row: null, problems: [`${boards.length} boards are too many for one row; at most ${MOST_BOARDS}.`] };
  const { rules, problems: gone } = rulesOf(wish, boards);
  const problems = [...gone, ...checkRowRules(boards.length, rules)];
  if (problems.length > 0) return { row: null, problems };
  const known = new Map<number, MatchSeam>();
  const facing = (left: RowPlace, right: RowPlace): readonly [number, number] => [
    boards[left.board]![left.turned ? 'west' : 'east'],
    boards[right.board]![right.turned ? 'east' : 'west'],
  ];
  const cost = (left: RowPlace, right: RowPlace): number => {
    const [a, b] = facing(left, right);
    const key = a * bare.length + b;
    const seam = known.get(key) ?? seamBetween(bare, a, b, limits);
    known.set(key, seam);
    return seam.score;
  };
  const best = bestRow(boards.length, cost, PASSES, rules, (share) => tick(share * 0.9));
  if (!best)
    return {
      row: null,
      problems: ['With these rules no order is left. Take out a pin, or let two boards be neighbours again.'],
    };
  const result = { ...best, places: leastTurned(best.places, rules) };
  const spoiler = result.worst > 1 ? findSpoiler(boards, bare, limits, cost) : null;
  return {
    problems: [],
    row: {
      boards: boards.map(({ designId, copy, name, lengthMm, west, east }) => ({
        designId,
        copy,
        name,
        lengthMm,
        west,
        east,
      })),
      result,
      spoiler,
      ends: endsOf(bare, boards, result.places),
      seams: result.places.slice(1).map((place, i) => seamBetween(edges, ...facing(result.places[i]!, place), limits)),
      lengthMm: boards.reduce((sum, { lengthMm }) => sum + lengthMm, 0),
    },
  };
}

/** The seam of any two edges of a set, by index; of unequal ones it says so. */
export function seamBetween(
  edges: readonly MatchEdge[],
  a: number,
  b: number,
  limits: MatchRequest['limits'],
): MatchSeam {
  const seam = compareEdges(edges[a]!, edges[b]!, limits);
  return canMeet(edges[a]!, edges[b]!)
    ? { a, b, ...seam, score: seamScore(seam, limits) }
    : {
        a,
        b,
        ...seam,
        score: NEVER,
        grade: 'shows',
        why: 'unequal',
        reason: `the edges are ${edges[a]!.lengthMm.toFixed(0)} and ${edges[b]!.lengthMm.toFixed(0)} mm long: only equal ones can meet`,
      };
}

/** The board that passes with the fewest others, and the height that would mend most. */
function findSpoiler(
  boards: readonly Board[],
  edges: readonly MatchEdge[],
  limits: MatchRequest['limits'],
  cost: (left: RowPlace, right: RowPlace) => number,
): Spoiler | null {
  const ends = boards.map(({ west, east }) => [edges[west]!, edges[east]!] as const);
  /** The best seam that a board, raised, has with another. */
  const bestWith = (mine: readonly SeamEdge[], other: readonly SeamEdge[]): number =>
    Math.min(
      ...mine.flatMap((a) => other.map((b) => (canMeet(a, b) ? seamScore(compareEdges(a, b, limits), limits) : NEVER))),
    );
  const others = (board: number): number[] => boards.flatMap((_, other) => (other === board ? [] : [other]));
  const judge = (board: number, raiseMm: number, most: number): { spoils: number; worst: number; sum: number } => {
    const mine = ends[board]!.map((edge) => raiseEdge(edge, raiseMm));
    const scores = others(board).map((other) => bestWith(mine, ends[other]!));
    return {
      spoils: scores.filter((score) => score > most + 1e-9).length,
      worst: Math.max(...scores),
      sum: scores.reduce((a, b) => a + b, 0),
    };
  };
  const passing = boards.map((_, board) => judge(board, 0, PASSES));
  const most = passing.some(({ spoils }) => spoils > 0) ? PASSES : CLOSES;
  const now = most === PASSES ? passing : boards.map((_, board) => judge(board, 0, CLOSES));
  const board = now.reduce(
    (best, { spoils, sum }, i) =>
      spoils > now[best]!.spoils || (spoils === now[best]!.spoils && sum > now[best]!.sum + 1e-9) ? i : best,
    0,
  );
  // Heights that bring it level with one of the others, level or bed; the least of those that spoil least.
  const tries = new Set(
    others(board)
      .flatMap((other) =>
        ends[board]!.flatMap((a) =>
          ends[other]!.flatMap((b) => [b.levelMm[1] - a.levelMm[1], meanBed(b) - meanBed(a)]),
        ),
      )
      .map((mm) => Math.round(mm * 20) / 20),
  );
  let mend = { raiseMm: 0, ...now[board]! };
  for (const raiseMm of [...tries].sort((a, b) => Math.abs(a) - Math.abs(b)).slice(0, 24)) {
    const then = judge(board, raiseMm, most);
    if (then.spoils < mend.spoils || (then.spoils === mend.spoils && then.worst < mend.worst - 0.05))
      mend = { raiseMm, ...then };
  }
  const withoutWorst =
    boards.length > 2 && boards.length <= MOST_WITHOUT ? worstWithout(boards.length, board, cost) : null;
  if (now[board]!.spoils === 0) return null;
  return {
    board,
    spoils: now[board]!.spoils,
    lacks: most === PASSES ? 'passing' : 'closing',
    others: boards.length - 1,
    raiseMm: mend.raiseMm === 0 ? null : mend.raiseMm,
    spoilsThen: mend.spoils,
    withoutWorst,
  };
}

const meanBed = ({ heightMm }: SeamEdge): number => heightMm.reduce((sum, height) => sum + height, 0) / heightMm.length;

/** The worst seam of the best row of all boards but one. */
function worstWithout(count: number, left: number, cost: (a: RowPlace, b: RowPlace) => number): number {
  const rest = Array.from({ length: count }, (_, board) => board).filter((board) => board !== left);
  const real = (place: RowPlace): RowPlace => ({ ...place, board: rest[place.board]! });
  return bestRow(rest.length, (a, b) => cost(real(a), real(b)), PASSES)?.worst ?? Infinity;
}

/** A row reads the same from behind: of both ways the one with fewer boards turned, where no rule says how they stand. */
function leastTurned(places: RowPlace[], { pins = [], facing = [] }: RowRules): RowPlace[] {
  const turned = places.filter((place) => place.turned).length;
  if (pins.length > 0 || facing.some((way) => way !== null) || turned * 2 <= places.length) return places;
  return [...places].reverse().map(({ board, turned: was }) => ({ board, turned: !was }));
}

/**
 * From the front of the table to its back: seen from the middle of a piece, the front lies at the left of its left end
 * and at the right of its right end.
 */
function endsOf(
  edges: readonly Pick<SeamEdge, 'levelMm'>[],
  boards: readonly RowBoard[],
  places: readonly RowPlace[],
): EndLevels[] {
  return places.map(({ board, turned }) => {
    const { west, east } = boards[board]!;
    const [left, right] = (turned ? [east, west] : [west, east]).map((index) => edges[index]!.levelMm) as [
      SeamEdge['levelMm'],
      SeamEdge['levelMm'],
    ];
    return { left, right: [right[2], right[1], right[0]] };
  });
}
