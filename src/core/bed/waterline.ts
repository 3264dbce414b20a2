import { outlineSize, sideOf, type PointMm, type Polygon } from './outline';
import type { EdgeName, FeatureOf, Outline } from '../model/designSchema';

/** A side as the land side of a shore: places are measured along it and away from it, into the piece. */
export interface LandFrame {
  origin: PointMm;
  along: readonly [number, number];
  inward: readonly [number, number];
  lengthMm: number;
  /** How far the piece reaches from the land side. */
  acrossMm: number;
}

/** The frame of a side; of a piece without that side, of the side of its box. */
export function landFrame(outline: Outline, edge: EdgeName): LandFrame {
  const { widthMm, lengthMm } = outlineSize(outline);
  const side =
    sideOf(outline, edge) ??
    sideOf({ kind: 'rectangle', widthMm, lengthMm }, edge) ??
    sideOf({ kind: 'rectangle', widthMm, lengthMm }, 'north')!;
  const [ix, iy] = side.inward;
  const corners = [
    [0, 0],
    [widthMm, 0],
    [widthMm, lengthMm],
    [0, lengthMm],
  ] as const;
  return {
    origin: side.from,
    along: [(side.to.xMm - side.from.xMm) / side.lengthMm, (side.to.yMm - side.from.yMm) / side.lengthMm],
    inward: side.inward,
    lengthMm: side.lengthMm,
    acrossMm: Math.max(...corners.map(([x, y]) => (x - side.from.xMm) * ix + (y - side.from.yMm) * iy)),
  };
}

/** A point of the piece in a land frame. */
export const toFrame = (
  { origin, along, inward }: LandFrame,
  { xMm, yMm }: PointMm,
): { alongMm: number; offMm: number } => ({
  alongMm: (xMm - origin.xMm) * along[0] + (yMm - origin.yMm) * along[1],
  offMm: (xMm - origin.xMm) * inward[0] + (yMm - origin.yMm) * inward[1],
});

/** A place in a land frame as a point of the piece. */
export const fromFrame = ({ origin, along, inward }: LandFrame, alongMm: number, offMm: number): PointMm => ({
  xMm: origin.xMm + along[0] * alongMm + inward[0] * offMm,
  yMm: origin.yMm + along[1] * alongMm + inward[1] * offMm,
});

/** How far past the piece a waterline is carried, so that its ends do not round the bed off. */
const BEYOND_MM = 400;
const STEPS_PER_SPAN = 24;

/**
 * How far the waterline lies from the land side, at a place along it: a smooth curve through the shore's points, level
 * beyond the outermost; straight without any.
 */
export function waterlineOff({
  waterlineMm,
  line = [],
}: Pick<FeatureOf<'shore'>, 'waterlineMm' | 'line'>): (alongMm: number) => number {
  if (line.length === 0) return () => waterlineMm;
  const points = [...line].sort((a, b) => a.alongMm - b.alongMm);
  const slopes = points.map((_, i) => {
    const [before, after] = [points[i - 1], points[i + 1]];
    return before && after ? (after.offMm - before.offMm) / (after.alongMm - before.alongMm || 1) : 0;
  });
  return (alongMm) => {
    const next = points.findIndex((point) => point.alongMm >= alongMm);
    if (next < 0) return points.at(-1)!.offMm;
    if (next === 0) return points[0]!.offMm;
    const [a, b] = [points[next - 1]!, points[next]!];
    const span = b.alongMm - a.alongMm || 1;
    const t = (alongMm - a.alongMm) / span;
    const [t2, t3] = [t * t, t * t * t];
    return (
      (2 * t3 - 3 * t2 + 1) * a.offMm +
      (t3 - 2 * t2 + t) * span * slopes[next - 1]! +
      (-2 * t3 + 3 * t2) * b.offMm +
      (t3 - t2) * span * slopes[next]!
    );
  };
}

/** The waterline as a line of points in mm, carried past the piece. */
export function waterlinePoints(outline: Outline, shore: FeatureOf<'shore'>): Polygon {
  const frame = landFrame(outline, shore.landSide);
  const off = waterlineOff(shore);
  const stops = [
    ...new Set([
      -BEYOND_MM,
      0,
      ...(shore.line ?? []).map(({ alongMm }) => alongMm),
      frame.lengthMm,
      frame.lengthMm + BEYOND_MM,
    ]),
  ].sort((a, b) => a - b);
  const places = stops
    .slice(1)
    .flatMap((stop, i) =>
      Array.from({ length: STEPS_PER_SPAN }, (_, k) => stops[i]! + ((stop - stops[i]!) * k) / STEPS_PER_SPAN),
    );
  const points = [...places, stops.at(-1)!].map((alongMm) => fromFrame(frame, alongMm, off(alongMm)));
  return Float64Array.from(points.flatMap(({ xMm, yMm }) => [xMm, yMm]));
}
