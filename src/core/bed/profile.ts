import type { BedGrid } from './grid';
import { edgeLengthMm, outlineEdges, outlinePolygon } from './outline';
import type { EdgeName, Outline } from './schema';

/** Spacing of the samples along an edge or section. */
export const PROFILE_STEP_MM = 0.5;

/** Bed heights along a line, evenly spaced from its start. `pointsMm` are the samples' places along the line. */
export interface BedProfile {
  lengthMm: number;
  stepMm: number;
  heightMm: Float32Array;
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

/** The bed under a straight cut between two points. */
export function sectionProfile(grid: BedGrid, fromX: number, fromY: number, toX: number, toY: number, stepMm = PROFILE_STEP_MM): BedProfile {
  const lengthMm = Math.hypot(toX - fromX, toY - fromY);
  const count = Math.max(2, Math.round(lengthMm / stepMm) + 1);
  const heights = Float32Array.from({ length: count }, (_, i) => {
    const t = i / (count - 1);
    return heightAt(grid, fromX + t * (toX - fromX), fromY + t * (toY - fromY));
  });
  return { lengthMm, stepMm: lengthMm / (count - 1), heightMm: heights };
}

/** The bed just inside one edge of a rectangle, from its west or south end. */
export function edgeProfile(grid: BedGrid, outline: Outline, edge: EdgeName): BedProfile {
  const length = edgeLengthMm(outline, edge);
  if (edge === 'south') return sectionProfile(grid, 0, 0, length, 0);
  if (edge === 'north') return sectionProfile(grid, 0, outline.lengthMm, length, outline.lengthMm);
  if (edge === 'west') return sectionProfile(grid, 0, 0, 0, length);
  return sectionProfile(grid, outline.widthMm, 0, outline.widthMm, length);
}

/** The bed just inside the whole rim, anticlockwise from the east point of an oval; first and last sample meet. */
export function rimProfile(grid: BedGrid, outline: Outline): BedProfile {
  const rim = outlinePolygon(outline);
  const count = rim.length / 2;
  const inset = 1 - grid.cellMm / Math.min(outline.widthMm, outline.lengthMm);
  const [cx, cy] = [outline.widthMm / 2, outline.lengthMm / 2];
  const heights = new Float32Array(count + 1);
  let lengthMm = 0;
  for (let i = 0; i <= count; i++) {
    const [x, y] = [rim[2 * (i % count)]!, rim[2 * (i % count) + 1]!];
    heights[i] = heightAt(grid, cx + (x - cx) * inset, cy + (y - cy) * inset);
    if (i > 0) lengthMm += Math.hypot(x - rim[2 * (i - 1)]!, y - rim[2 * (i - 1) + 1]!);
  }
  return { lengthMm, stepMm: lengthMm / count, heightMm: heights };
}

/** The bed along one edge, or along the whole rim of a piece without straight edges. */
export interface OutlineProfile {
  edge: EdgeName | 'rim';
  profile: BedProfile;
}

/** The bed all round the outline: every edge, or the rim. Taken once, it answers for any level. */
export function outlineProfiles(grid: BedGrid, outline: Outline): OutlineProfile[] {
  const edges = outlineEdges(outline);
  return edges.length === 0 ? [{ edge: 'rim', profile: rimProfile(grid, outline) }] : edges.map((edge) => ({ edge, profile: edgeProfile(grid, outline, edge) }));
}

/** The bed from west to east through the middle of a piece. */
export const middleProfile = (grid: BedGrid, outline: Outline): BedProfile => sectionProfile(grid, 0, outline.lengthMm / 2, outline.widthMm, outline.lengthMm / 2);
