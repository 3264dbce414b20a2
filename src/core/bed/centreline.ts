import { edgePoint, flatten, inwardOf, outlineSize, type PointMm, type Polygon } from './outline';
import type { FeatureOf, Outline } from '../model/designSchema';

const STEPS = 32;
type Direction = readonly [number, number];

/** A centreline, and the vertex at which each of its ends and points lies. */
export interface Centreline {
  line: Polygon;
  knots: number[];
  /** Vertices at which its straight runs from the edges end; none when it has no points. */
  leads: { first: number | null; last: number | null };
}

/** How far a channel with points runs straight from its edges, so that the bed at the edge is its port's own. */
const LEAD_MM = 16;
/** But no further than this share of the way to its next point. */
const LEAD_SHARE = 0.35;

/** One stretch of a centreline as a cubic Bézier from `a` along `leave` to `b`, which it reaches along `arrive`. */
function stretch(
  a: PointMm,
  leave: Direction,
  reachA: number,
  b: PointMm,
  arrive: Direction,
  reachB: number,
): PointMm[] {
  return Array.from({ length: STEPS + 1 }, (_, i) => {
    const t = i / STEPS;
    const [w0, w1, w2, w3] = [(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t ** 3];
    return {
      xMm: w0 * a.xMm + w1 * (a.xMm + leave[0] * reachA) + w2 * (b.xMm - arrive[0] * reachB) + w3 * b.xMm,
      yMm: w0 * a.yMm + w1 * (a.yMm + leave[1] * reachA) + w2 * (b.yMm - arrive[1] * reachB) + w3 * b.yMm,
    };
  });
}

/**
 * How far the handles of a bend reach: where the two directions meet at one distance this makes it a circle's arc
 * (within 0.03 % of the radius for a quarter), a quarter ellipse if the distances differ. Facing ends: half of what lies between.
 */
function reaches(a: PointMm, leave: Direction, b: PointMm, arrive: Direction): readonly [number, number] {
  const [dx, dy] = [b.xMm - a.xMm, b.yMm - a.yMm];
  const turn = Math.acos(Math.max(-1, Math.min(1, leave[0] * arrive[0] + leave[1] * arrive[1])));
  const cross = leave[0] * arrive[1] - leave[1] * arrive[0];
  const fallback = Math.max(Math.abs(dx * leave[0] + dy * leave[1]), Math.hypot(dx, dy) / 2) / 2;
  if (turn < 0.35 || Math.abs(cross) < 1e-6) return [fallback, fallback];
  const [toA, toB] = [(dx * arrive[1] - dy * arrive[0]) / cross, (dx * leave[1] - dy * leave[0]) / -cross];
  if (toA <= 0 || toB <= 0) return [fallback, fallback];
  const share = ((4 / 3) * Math.tan(turn / 4)) / Math.tan(turn / 2);
  return [share * toA, share * toB];
}

/**
 * The centreline of a channel. It leaves its edges at right angles, so neighbours meet square, and runs smoothly
 * through its points (each passed in the direction from the one before to the one after). It is carried `overshootMm`
 * past its edges so that the bed there is not rounded off.
 */
export function channelCentreline(
  outline: Outline,
  { from, to, via = [], endsInside = false }: Pick<FeatureOf<'channel'>, 'from' | 'to' | 'via' | 'endsInside'>,
  overshootMm: number,
): Centreline {
  const start = edgePoint(outline, from);
  const { widthMm, lengthMm } = outlineSize(outline);
  const inner: PointMm[] = endsInside && via.length === 0 ? [{ xMm: widthMm / 2, yMm: lengthMm / 2 }] : [...via];
  const points = endsInside ? [start, ...inner] : [start, ...inner, edgePoint(outline, to)];
  const out = inwardOf(outline, to.edge);
  return throughPoints(points, inwardOf(outline, from.edge), endsInside ? null : [-out[0], -out[1]], overshootMm);
}

/** The two lines of a fork: from the stem's port through the joint to each arm's port. They share the stem. */
export function forkCentrelines(
  outline: Outline,
  { stem, left, right, xMm, yMm }: FeatureOf<'fork'>,
  overshootMm: number,
): Centreline[] {
  const start = edgePoint(outline, stem);
  const joint = { xMm, yMm };
  const through = unitOf(joint.xMm - start.xMm, joint.yMm - start.yMm);
  return [left, right].map((arm) => {
    const out = inwardOf(outline, arm.edge);
    return throughPoints(
      [start, joint, edgePoint(outline, arm)],
      inwardOf(outline, stem.edge),
      [-out[0], -out[1]],
      overshootMm,
      through,
    );
  });
}

/** A smooth line through points, with given directions at its ends; `last` null: it ends as it comes. */
function throughPoints(
  points: readonly PointMm[],
  first: Direction,
  last: Direction | null,
  overshootMm: number,
  middle?: Direction,
): Centreline {
  const direction = (i: number): Direction => {
    if (i === 0) return first;
    const [before, here, after] = [points[i - 1]!, points[i]!, points[i + 1]];
    if (!after) return last ?? unitOf(here.xMm - before.xMm, here.yMm - before.yMm);
    return middle ?? unitOf(after.xMm - before.xMm, after.yMm - before.yMm);
  };
  const ends = [...points];
  const [a, b] = [points[0]!, points.at(-1)!];
  const lead = (from: PointMm, to: PointMm): number =>
    Math.min(LEAD_MM, LEAD_SHARE * Math.hypot(to.xMm - from.xMm, to.yMm - from.yMm));
  const curved = points.length > 2;
  if (curved) ends[0] = past(a, first, lead(a, points[1]!));
  if (curved && last) ends[ends.length - 1] = past(b, last, -lead(b, points.at(-2)!));
  const line: PointMm[] = [past(a, first, -overshootMm), a];
  const knots = [1];
  const leads: Centreline['leads'] = { first: curved ? 2 : null, last: null };
  for (let i = 0; i + 1 < ends.length; i++) {
    const [from, to] = [ends[i]!, ends[i + 1]!];
    const [leave, arrive] = [direction(i), direction(i + 1)];
    const third = Math.hypot(to.xMm - from.xMm, to.yMm - from.yMm) / 3;
    const [reachA, reachB] = !curved && last ? reaches(from, leave, to, arrive) : [third, third];
    line.push(...stretch(from, leave, reachA, to, arrive, reachB).slice(i === 0 && curved ? 0 : 1));
    knots.push(line.length - 1);
  }
  if (curved && last) {
    leads.last = line.length - 1;
    line.push(b);
    knots[knots.length - 1] = line.length - 1;
  }
  if (last) line.push(past(b, last, overshootMm));
  return { line: flatten(line), knots, leads };
}

const past = ({ xMm, yMm }: PointMm, [dx, dy]: Direction, byMm: number): PointMm => ({
  xMm: xMm + dx * byMm,
  yMm: yMm + dy * byMm,
});

function unitOf(x: number, y: number): Direction {
  const size = Math.hypot(x, y) || 1;
  return [x / size, y / size];
}

/**
 * A measure along a line: given at some of its knots (null: go on as the neighbours do), spread evenly by length in
 * between; a port's holds along its straight run. One value a vertex.
 */
export function alongLine({ line, knots, leads }: Centreline, atKnots: readonly (number | null)[]): Float32Array {
  const count = line.length / 2;
  const travelled = new Float64Array(count);
  for (let i = 1; i < count; i++)
    travelled[i] = travelled[i - 1]! + Math.hypot(line[2 * i]! - line[2 * i - 2]!, line[2 * i + 1]! - line[2 * i - 1]!);
  const given = atKnots.flatMap((value, k) => {
    if (value === null) return [];
    const port = { at: travelled[knots[k]!]!, value };
    if (k === 0 && leads.first !== null) return [port, { at: travelled[leads.first]!, value }];
    return k === knots.length - 1 && leads.last !== null ? [{ at: travelled[leads.last]!, value }, port] : [port];
  });
  return Float32Array.from(travelled, (at) => {
    const next = given.findIndex((station) => station.at >= at);
    if (next <= 0) return given[next < 0 ? given.length - 1 : 0]!.value;
    const [a, b] = [given[next - 1]!, given[next]!];
    return a.value + ((b.value - a.value) * (at - a.at)) / (b.at - a.at || 1);
  });
}
