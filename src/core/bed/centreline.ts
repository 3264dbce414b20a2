import { edgePoint, inwardOf, type Polygon } from './outline';
import type { FeatureOf, Outline } from './schema';

const STEPS = 64;

/**
 * The centreline of a channel: a cubic Bézier that leaves both edges at right angles, so neighbours meet square.
 * Between facing ports it is straight, between neighbouring edges nearly a quarter circle (within 0.03 % of the radius).
 * It is carried `overshootMm` past both edges so that the bed at the edge is not rounded off.
 */
export function channelCentreline(outline: Outline, { from, to }: Pick<FeatureOf<'channel'>, 'from' | 'to'>, overshootMm: number): Polygon {
  const a = edgePoint(outline, from);
  const b = edgePoint(outline, to);
  const [ax, ay] = inwardOf(from.edge);
  const [bx, by] = inwardOf(to.edge);
  const facing = ax * bx + ay * by < -0.5;
  const [spanX, spanY] = [Math.abs(b.xMm - a.xMm), Math.abs(b.yMm - a.yMm)];
  const across = Math.max(spanX, spanY);
  // 0.5523 of the span along each edge's own direction makes a bend a quarter circle (a quarter ellipse if unequal).
  const reachA = facing ? across / 2 : 0.5523 * (Math.abs(ax) > 0 ? spanX : spanY) || across / 2;
  const reachB = facing ? across / 2 : 0.5523 * (Math.abs(bx) > 0 ? spanX : spanY) || across / 2;
  const points = new Float64Array((STEPS + 3) * 2);
  points.set([a.xMm - ax * overshootMm, a.yMm - ay * overshootMm]);
  for (let i = 0; i <= STEPS; i++) {
    const t = i / STEPS;
    const [w0, w1, w2, w3] = [(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t ** 3];
    points[2 * i + 2] = w0 * a.xMm + w1 * (a.xMm + ax * reachA) + w2 * (b.xMm + bx * reachB) + w3 * b.xMm;
    points[2 * i + 3] = w0 * a.yMm + w1 * (a.yMm + ay * reachA) + w2 * (b.yMm + by * reachB) + w3 * b.yMm;
  }
  points.set([b.xMm - bx * overshootMm, b.yMm - by * overshootMm], (STEPS + 2) * 2);
  return points;
}
