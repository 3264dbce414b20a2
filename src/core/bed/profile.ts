import type { BedGrid } from './grid';
import {
  rimOf,
  roundedMm,
  edgeLengthMm,
  edgePoint,
  inwardOf,
  outlineEdges,
  outlinePolygon,
  outlineSides,
  outlineSize,
  type PointMm,
  type Polygon,
  type Side,
} from './outline';
import type { EdgeName, Outline } from '../model/designSchema';

/** Spacing of the samples along an edge or section. */
export const PROFILE_STEP_MM = 0.5;

/** Bed heights along a line, evenly spaced from its start. `pointsMm` are the samples' places along the line. */
export interface BedProfile {
  lengthMm: number;
  stepMm: number;
  heightMm: Float32Array;
  /** 1 where a rock stands; only of beds whose rocks have a paint of their own. */
  rock?: Uint8Array;
}

/** Stretches of a line, mm along it. */
export type Stretches = readonly (readonly [fromMm: number, toMm: number])[];

/** Where rocks stand along a line: each sample counts for half a step to either side. */
export function rockStretches({ rock, stepMm, lengthMm }: BedProfile): Stretches {
  const stretches: [number, number][] = [];
  rock?.forEach((stands, i) => {
    if (!stands) return;
    const [from, to] = [Math.max(0, (i - 0.5) * stepMm), Math.min(lengthMm, (i + 0.5) * stepMm)];
    const last = stretches.at(-1);
    if (last && last[1] >= from - 1e-6) last[1] = to;
    else stretches.push([from, to]);
  });
  return stretches;
}

/** Bed height between cell centres by bilinear interpolation; outside the outermost centres the nearest counts. */
export function heightAt(grid: BedGrid, xMm: number, yMm: number): number {
  const { cellMm, columns, rows, heightMm } = grid;
  const u = Math.min(columns - 1, Math.max(0, xMm / cellMm - 0.5));
  const v = Math.min(rows - 1, Math.max(0, yMm / cellMm - 0.5));
  const column = Math.min(columns - 2, Math.floor(u));
  const row = Math.min(rows - 2, Math.floor(v));
  if (column < 0 || row < 0) return heightMm[Math.round(v) * columns + Math.round(u)]!;
  const [fx, fy] = [u - column, v - row];
  const index = row * columns + column;
  const south = heightMm[index]! * (1 - fx) + heightMm[index + 1]! * fx;
  const north = heightMm[index + columns]! * (1 - fx) + heightMm[index + columns + 1]! * fx;
  return south * (1 - fy) + north * fy;
}

/** The bed at evenly spaced places. */
export function profileAt(grid: BedGrid, lengthMm: number, places: readonly PointMm[]): BedProfile {
  return {
    lengthMm,
    stepMm: lengthMm / (places.length - 1),
    heightMm: Float32Array.from(places, ({ xMm, yMm }) => heightAt(grid, xMm, yMm)),
    ...(grid.rock && { rock: Uint8Array.from(places, ({ xMm, yMm }) => rockAt(grid, xMm, yMm)) }),
  };
}

/** 1 where the cell of a place is rock. */
function rockAt({ rock, cellMm, columns, rows }: BedGrid, xMm: number, yMm: number): number {
  const cell = (mm: number, count: number): number => Math.min(count - 1, Math.max(0, Math.floor(mm / cellMm)));
  return rock?.[cell(yMm, rows) * columns + cell(xMm, columns)] ?? 0;
}

/** The bed under a straight cut between two points. */
export function sectionProfile(
  grid: BedGrid,
  fromX: number,
  fromY: number,
  toX: number,
  toY: number,
  stepMm = PROFILE_STEP_MM,
): BedProfile {
  const lengthMm = Math.hypot(toX - fromX, toY - fromY);
  const count = Math.max(2, Math.round(lengthMm / stepMm) + 1);
  const places = Array.from({ length: count }, (_, i): PointMm => {
    const t = i / (count - 1);
    return { xMm: fromX + t * (toX - fromX), yMm: fromY + t * (toY - fromY) };
  });
  return profileAt(grid, lengthMm, places);
}

/** The bed just inside one side, from its west or south end. At a rounded corner the sample is pulled onto the arc. */
export function edgeProfile(grid: BedGrid, outline: Outline, edge: EdgeName): BedProfile {
  const lengthMm = edgeLengthMm(outline, edge);
  const [inX, inY] = inwardOf(outline, edge);
  const radius = roundedMm(outline);
  const count = Math.max(2, Math.round(lengthMm / PROFILE_STEP_MM) + 1);
  const places = Array.from({ length: count }, (_, i): PointMm => {
    const { positionMm, insetMm } = besideCorner((lengthMm * i) / (count - 1), lengthMm, radius);
    const { xMm, yMm } = edgePoint(outline, { edge, positionMm });
    const inset = insetMm + grid.cellMm / 2;
    return { xMm: xMm + inX * inset, yMm: yMm + inY * inset };
  });
  return profileAt(grid, lengthMm, places);
}

/** A place along a side whose corners are rounded: at most half a corner belongs to each side. */
function besideCorner(positionMm: number, lengthMm: number, radius: number): { positionMm: number; insetMm: number } {
  const half = radius * (1 - Math.SQRT1_2);
  const kept = Math.min(lengthMm - half, Math.max(half, positionMm));
  const fromCorner = Math.min(kept, lengthMm - kept);
  return {
    positionMm: kept,
    insetMm: fromCorner >= radius ? 0 : radius - Math.sqrt(radius ** 2 - (radius - fromCorner) ** 2),
  };
}

/** Stands for the bed where a rim belongs to a named side: no water comes so high. */
export const NOT_RIM_MM = 1e6;

/**
 * The bed just inside the curved parts of an outline, all the way round anticlockwise; first and last sample meet.
 * Named sides count as out of the water.
 */
export function rimProfile(grid: BedGrid, outline: Outline): BedProfile {
  const rim = outlinePolygon(outline);
  const points = resample(rim, PROFILE_STEP_MM);
  const sides = outlineSides(outline);
  const inset = grid.cellMm / 2;
  const heights = Float32Array.from({ length: points.length + 1 }, (_, i) => {
    const { xMm, yMm, inward } = points[i % points.length]!;
    if (sides.some((side) => distanceToSide(side, xMm, yMm) < 1e-3)) return NOT_RIM_MM;
    return heightAt(grid, xMm + inward[0] * inset, yMm + inward[1] * inset);
  });
  const lengthMm = pathLength(rim);
  return { lengthMm, stepMm: lengthMm / points.length, heightMm: heights };
}

/** Distance from a point to a side, mm. */
export function distanceToSide({ from, to, lengthMm }: Side, xMm: number, yMm: number): number {
  const [dx, dy] = [(to.xMm - from.xMm) / lengthMm, (to.yMm - from.yMm) / lengthMm];
  const t = Math.max(0, Math.min(lengthMm, (xMm - from.xMm) * dx + (yMm - from.yMm) * dy));
  return Math.hypot(xMm - from.xMm - t * dx, yMm - from.yMm - t * dy);
}

/** Length of a closed polygon's way round, mm. */
export function pathLength(polygon: Polygon): number {
  let sum = 0;
  for (let i = 0; i < polygon.length; i += 2)
    sum += Math.hypot(
      polygon[(i + 2) % polygon.length]! - polygon[i]!,
      polygon[(i + 3) % polygon.length]! - polygon[i + 1]!,
    );
  return sum;
}

interface RimPoint extends PointMm {
  inward: readonly [number, number];
}

/** Evenly spaced points round a closed anticlockwise polygon, from its first. */
function resample(polygon: Polygon, stepMm: number): RimPoint[] {
  const length = pathLength(polygon);
  const count = Math.max(8, Math.round(length / stepMm));
  const points: RimPoint[] = [];
  let [vertex, before] = [0, 0];
  const corner = (i: number): readonly [number, number] => [
    polygon[(2 * i) % polygon.length]!,
    polygon[(2 * i + 1) % polygon.length]!,
  ];
  for (let k = 0; k < count; k++) {
    const at = (length * k) / count;
    for (;;) {
      const [[ax, ay], [bx, by]] = [corner(vertex), corner(vertex + 1)];
      const span = Math.hypot(bx - ax, by - ay);
      if (at <= before + span || vertex + 1 >= polygon.length / 2) {
        const t = span > 0 ? (at - before) / span : 0;
        points.push({
          xMm: ax + t * (bx - ax),
          yMm: ay + t * (by - ay),
          inward: span > 0 ? [-(by - ay) / span, (bx - ax) / span] : [0, 0],
        });
        break;
      }
      before += span;
      vertex++;
    }
  }
  return points;
}

/** The bed along one edge, or along the whole rim where it has no straight edges. */
export interface OutlineProfile {
  edge: EdgeName | 'rim';
  profile: BedProfile;
}

/** The bed all round the outline: every side, and the rim where that is curved. Taken once, it answers for any level. */
export function outlineProfiles(grid: BedGrid, outline: Outline): OutlineProfile[] {
  const edges = outlineEdges(outline).map((edge): OutlineProfile => ({
    edge,
    profile: edgeProfile(grid, outline, edge),
  }));
  return hasRim(outline) ? [...edges, { edge: 'rim', profile: rimProfile(grid, outline) }] : edges;
}

/** True when a part of the outline belongs to no straight side. */
export const hasRim = (outline: Outline): boolean =>
  rimOf(outline) === 'all' ||
  (rimOf(outline) === 'what is not straight' &&
    outlineSides(outline).reduce((sum, { lengthMm }) => sum + lengthMm, 0) < pathLength(outlinePolygon(outline)) - 0.5);

/** The way along a run of edge or rim in mm, `offMm` outside the piece. */
export function runPath(
  outline: Outline,
  { edge, fromMm, toMm }: { edge: EdgeName | 'rim'; fromMm: number; toMm: number },
  offMm = 0,
): PointMm[] {
  if (edge !== 'rim') {
    const [x, y] = inwardOf(outline, edge);
    return [fromMm, toMm].map((positionMm) => {
      const { xMm, yMm } = edgePoint(outline, { edge, positionMm });
      return { xMm: xMm - x * offMm, yMm: yMm - y * offMm };
    });
  }
  const rim = outlinePolygon(outline);
  const points = resample(rim, 1);
  const length = pathLength(rim);
  const place = (mm: number): number => Math.round((mm / length) * points.length);
  const [first, last] = [place(fromMm), place(toMm <= fromMm ? toMm + length : toMm)];
  return Array.from({ length: last - first + 1 }, (_, i) => points[(first + i) % points.length]!).map(
    ({ xMm, yMm, inward }) => ({ xMm: xMm - inward[0] * offMm, yMm: yMm - inward[1] * offMm }),
  );
}

/** The bed from west to east through the middle of a piece. */
export function middleProfile(grid: BedGrid, outline: Outline): BedProfile {
  const { widthMm, lengthMm } = outlineSize(outline);
  return sectionProfile(grid, 0, lengthMm / 2, widthMm, lengthMm / 2);
}
