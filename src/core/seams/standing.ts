import type { EdgeName } from '../model/designSchema';
import type { CornerHeights } from '../model/seamSchema';
import type { SeamEdge } from './seamEdge';

/**
 * Edges of a rectangular piece anticlockwise; each runs, seen from the middle, from the corner of the next one's number
 * to that of its own.
 */
export const ROUND: readonly EdgeName[] = ['south', 'east', 'north', 'west'];

/** What of an edge moves when its piece is raised. */
type Raised = Pick<SeamEdge, 'heightMm' | 'levelMm'>;

/** An edge of which the left and the right end come up by so much, and what lies between in proportion. */
export function tiltEdge<T extends Raised>(edge: T, leftMm: number, rightMm: number): T {
  if (leftMm === 0 && rightMm === 0) return edge;
  const last = edge.heightMm.length - 1;
  const { levelMm } = edge;
  return {
    ...edge,
    heightMm: edge.heightMm.map((height, i) => height + leftMm + ((rightMm - leftMm) * i) / last),
    levelMm: [levelMm[0] + leftMm, levelMm[1] + (leftMm + rightMm) / 2, levelMm[2] + rightMm] as const,
  };
}

/** An edge of a piece that stands on a shim of one height. */
export const raiseEdge = <T extends Raised>(edge: T, raiseMm: number): T => tiltEdge(edge, raiseMm, raiseMm);

/**
 * An edge of a piece that stands on shims under its corners: south-west, south-east, north-east, north-west. Edges of a piece that
 * is not a rectangle come up by the mean. Seen from the middle, the south edge has its east end at the left, the east
 * edge its north end, and so on.
 */
export function onShims<T extends Raised & { edge: EdgeName }>(edge: T, corners: CornerHeights | undefined): T {
  if (!corners) return edge;
  const side = ROUND.indexOf(edge.edge);
  if (side < 0) return raiseEdge(edge, corners.reduce((sum, mm) => sum + mm, 0) / 4);
  return tiltEdge(edge, corners[(side + 1) % 4]!, corners[side]!);
}

/** Shims under the two corners at an edge's left and right end; the far edge stays down. */
export function atEdge(edge: EdgeName, [leftMm, rightMm]: readonly [number, number]): CornerHeights {
  const side = ROUND.indexOf(edge);
  const corners: [number, number, number, number] = [0, 0, 0, 0];
  corners[(side + 1) % 4] = leftMm;
  corners[side] = rightMm;
  return corners;
}

/** Corner heights of a standing board, front left, back left, front right, back right, as of the piece as drawn. */
export const asDrawn = (
  [frontLeft, backLeft, frontRight, backRight]: readonly [number, number, number, number],
  turned: boolean,
): CornerHeights =>
  turned ? [backRight, backLeft, frontLeft, frontRight] : [frontLeft, frontRight, backRight, backLeft];

/** Two sets of shims on one another. */
export const addShims = (a: CornerHeights | undefined, b: CornerHeights): CornerHeights =>
  b.map((mm, i) => Math.round((mm + (a?.[i] ?? 0)) * 1000) / 1000) as CornerHeights;
