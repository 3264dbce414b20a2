import type { PieceRef } from '../model/pieceRef';
import type { EdgeName } from '../model/designSchema';
import type { MatchEdge } from './matchTypes';
import type { Grade, SeamLimits } from '../model/seamSchema';
import { canMeet, compareEdges, type Seam } from './seam';
import { LEAST_FILM_MM } from './shims';
import { atEdge, onShims, raiseEdge, ROUND } from './standing';

/** Two edges of the set that stand together in an arrangement, by index, and at which of its places. */
export interface StandingJoint {
  a: number;
  b: number;
  placeA: number;
  placeB: number;
}

export const MEND_KINDS = ['shim', 'shim corners', 'top up', 'sand down'] as const;

/** One way to close a step, and what it does to the seams beside it. */
export interface SeamMend extends PieceRef {
  kind: (typeof MEND_KINDS)[number];
  /** What the piece that is changed is called. */
  piece: string;
  edge: EdgeName;
  /** By how much at the left and the right end of the edge, seen from the middle of the piece; both alike for a whole piece. */
  byMm: readonly [number, number];
  after: Seam;
  /** The piece's other seams in the arrangement. */
  others: { piece: string; edge: EdgeName; before: Seam; after: Seam }[];
  /** Without an arrangement: of how many possible seams of its other edges how many pass, now and then. */
  possible: { of: number; passNow: number; passThen: number } | null;
}

const raiseWater = <T extends MatchEdge>(edge: T, byMm: number): T => ({
  ...edge,
  levelMm: [edge.levelMm[0] + byMm, edge.levelMm[1] + byMm, edge.levelMm[2] + byMm] as const,
});

interface Way {
  kind: SeamMend['kind'];
  edge: MatchEdge;
  byMm: readonly [number, number];
  change: (edge: MatchEdge) => MatchEdge;
}

/** The ways to close a step between two edges, from the lower piece and from the higher. */
function waysToClose(a: MatchEdge, b: MatchEdge): Way[] {
  const over = [0, 1, 2].map((i) => a.levelMm[i]! - b.levelMm[2 - i]!) as [number, number, number];
  const middle = (Math.max(...over) + Math.min(...over)) / 2;
  // How far the lower edge must rise at its own left, middle and right end.
  const [low, high, rises] =
    middle > 0
      ? [b, a, [over[2], over[1], over[0]] as const]
      : [a, b, over.map((mm) => -mm) as [number, number, number]];
  const rise = Math.abs(middle);
  const film = Math.max(rise, LEAST_FILM_MM);
  // A corner cannot be let into the table.
  const corners = [Math.max(0, rises[0]), Math.max(0, rises[2])] as const;
  const ways: Way[] = [{ kind: 'shim', edge: low, byMm: [rise, rise], change: (edge) => raiseEdge(edge, rise) }];
  if (ROUND.includes(low.edge))
    ways.push({
      kind: 'shim corners',
      edge: low,
      byMm: corners,
      change: (edge) => onShims(edge, atEdge(low.edge, corners)),
    });
  ways.push({ kind: 'top up', edge: low, byMm: [film, film], change: (edge) => raiseWater(edge, film) });
  ways.push({ kind: 'sand down', edge: high, byMm: [rise, rise], change: (edge) => raiseWater(edge, -rise) });
  return ways;
}

/**
 * Ways to close the step of a seam, each with the seam as it would be and with what becomes of the other seams of the piece that
 * is moved: in the arrangement when one is given (the seam must be one of its joints), else over all that its other edges could meet.
 * A whole piece moves by half-way between its least and greatest step; corners each by their own.
 */
export function mendSeam(
  edges: readonly MatchEdge[],
  seam: { a: number; b: number },
  limits: SeamLimits,
  joints: readonly StandingJoint[] | null,
): SeamMend[] {
  const [a, b] = [edges[seam.a]!, edges[seam.b]!];
  const standing =
    joints?.find((joint) => (joint.a === seam.a && joint.b === seam.b) || (joint.a === seam.b && joint.b === seam.a)) ??
    null;
  return waysToClose(a, b).map(({ kind, edge, byMm, change }): SeamMend => {
    const movesA = edge === a;
    const after = movesA ? compareEdges(change(a), b, limits) : compareEdges(a, change(b), limits);
    const index = movesA ? seam.a : seam.b;
    const { designId, copy, piece } = edge;
    const shared = { kind, designId, copy, piece, edge: edge.edge, byMm, after };
    return standing && joints
      ? {
          ...shared,
          others: besideIt(
            edges,
            joints,
            standing,
            standing.a === index ? standing.placeA : standing.placeB,
            change,
            limits,
          ),
          possible: null,
        }
      : { ...shared, others: [], possible: couldMeet(edges, index, change, limits) };
  });
}

function besideIt(
  edges: readonly MatchEdge[],
  joints: readonly StandingJoint[],
  target: StandingJoint,
  place: number,
  change: (edge: MatchEdge) => MatchEdge,
  limits: SeamLimits,
): SeamMend['others'] {
  return joints.flatMap((joint) => {
    const own = joint.placeA === place ? joint.a : joint.placeB === place ? joint.b : null;
    if (joint === target || own === null) return [];
    const other = edges[own === joint.a && joint.placeA === place ? joint.b : joint.a]!;
    return [
      {
        piece: other.piece,
        edge: other.edge,
        before: compareEdges(edges[own]!, other, limits),
        after: compareEdges(change(edges[own]!), other, limits),
      },
    ];
  });
}

function couldMeet(
  edges: readonly MatchEdge[],
  index: number,
  change: (edge: MatchEdge) => MatchEdge,
  limits: SeamLimits,
): SeamMend['possible'] {
  const { piece } = edges[index]!;
  const passes = (grade: Grade): number => (grade === 'shows' ? 0 : 1);
  let [of, passNow, passThen] = [0, 0, 0];
  edges.forEach((own, i) => {
    if (own.piece !== piece || i === index || !own.wet) return;
    const changed = change(own);
    for (const other of edges) {
      if (other.piece === piece || !other.wet || !canMeet(own, other)) continue;
      of++;
      passNow += passes(compareEdges(own, other, limits).grade);
      passThen += passes(compareEdges(changed, other, limits).grade);
    }
  });
  return of > 0 ? { of, passNow, passThen } : null;
}
