import { volumeCurve, levelForMl } from './volumeCurve';
import type { BedGrid } from './grid';
import type { PointMm } from './outline';
import type { OutlineProfile } from './profile';
import type { EdgeName, Outline } from './schema';

/** How the bench is out of level: by how much it falls towards the east and the north, mm for each mm. Negative: the other way. */
export interface Slope {
  east: number;
  north: number;
}

/** A still water surface on a tilted bench, as seen from the piece: a plane that stands higher on the low side. */
export interface TiltedSurface {
  /** Level over the middle of the piece. */
  middleMm: number;
  slope: Slope;
  middle: PointMm;
}

/** Height of a tilted surface above the underside at a point of the piece. */
export const surfaceAtMm = ({ middleMm, slope, middle }: TiltedSurface, { xMm, yMm }: PointMm): number => middleMm + slope.east * (xMm - middle.xMm) + slope.north * (yMm - middle.yMm);

/** Water on the bed under a tilted surface, in ml, and the wetted area in mm². */
export function tiltedVolume(grid: BedGrid, surface: TiltedSurface): { ml: number; surfaceMm2: number; deepestMm: number } {
  const { columns, rows, heightMm, coverage, cellMm } = grid;
  let [sum, area, deepest] = [0, 0, 0];
  for (let row = 0; row < rows; row++) {
    let level = surfaceAtMm(surface, { xMm: 0.5 * cellMm, yMm: (row + 0.5) * cellMm });
    for (let index = row * columns; index < (row + 1) * columns; index++) {
      const depth = level - heightMm[index]!;
      const share = coverage[index]!;
      if (depth > 0 && share > 0) {
        sum += share * depth;
        area += share;
        if (depth > deepest) deepest = depth;
      }
      level += surface.slope.east * cellMm;
    }
  }
  return { ml: (sum * cellMm * cellMm) / 1000, surfaceMm2: area * cellMm * cellMm, deepestMm: deepest };
}

/**
 * The surface that the same volume takes on a tilted bench. Newton's method on the volume, which only rises with the
 * level, kept between bounds; ends when the volume is right within a millionth.
 */
export function tiltedSurface(grid: BedGrid, outline: Outline, ml: number, slope: Slope): TiltedSurface {
  const middle = { xMm: outline.widthMm / 2, yMm: outline.lengthMm / 2 };
  const reach = (Math.abs(slope.east) * outline.widthMm + Math.abs(slope.north) * outline.lengthMm) / 2;
  let middleMm = levelForMl(volumeCurve(grid), ml);
  let [low, high] = [middleMm - reach - 1, middleMm + reach + 1];
  for (let i = 0; i < 60; i++) {
    const { ml: has, surfaceMm2 } = tiltedVolume(grid, { middleMm, slope, middle });
    if (Math.abs(has - ml) <= 1e-6 * Math.max(ml, 1e-6)) break;
    if (has > ml) high = middleMm;
    else low = middleMm;
    const step = surfaceMm2 > 0 ? middleMm + ((ml - has) * 1000) / surfaceMm2 : Infinity;
    middleMm = step > low && step < high ? step : (low + high) / 2;
  }
  return { middleMm, slope, middle };
}

/** Corners of a piece and by how much each must be raised to be level with the highest. */
export function cornersToRaise({ widthMm, lengthMm }: Outline, { east, north }: Slope): { corner: string; raiseMm: number }[] {
  const corners = [
    { corner: 'south-west', fall: 0 },
    { corner: 'south-east', fall: east * widthMm },
    { corner: 'north-east', fall: east * widthMm + north * lengthMm },
    { corner: 'north-west', fall: north * lengthMm },
  ];
  const highest = Math.min(...corners.map(({ fall }) => fall));
  return corners.map(({ corner, fall }) => ({ corner, raiseMm: fall - highest }));
}

/** The point of a rectangle's edge at a share of its length from its west or south end. */
export function edgePlace({ widthMm, lengthMm }: Outline, edge: EdgeName, share: number): PointMm {
  if (edge === 'south' || edge === 'north') return { xMm: widthMm * share, yMm: edge === 'south' ? 0 : lengthMm };
  return { xMm: edge === 'west' ? 0 : widthMm, yMm: lengthMm * share };
}

/**
 * Where a tilted surface runs over the outline: the worst place of each edge, over a bank, or over the dams.
 * Dams stand wherever the bed is below the level, their ends overlap the bank, their tops are at `dam.topMm`.
 */
export function tiltSpills(profiles: readonly OutlineProfile[], outline: Outline, surface: TiltedSurface, levelMm: number, dam: { topMm: number; overlapMm: number }): { edge: EdgeName; overMm: number; atMm: number }[] {
  return profiles.flatMap(({ edge, profile }) => {
    if (edge === 'rim') return [];
    let worst = { overMm: 0, atMm: 0 };
    const overlap = Math.round(dam.overlapMm / profile.stepMm);
    const dammed = (i: number): boolean => profile.heightMm.subarray(Math.max(0, i - overlap), i + overlap + 1).some((height) => height < levelMm);
    profile.heightMm.forEach((height, i) => {
      const share = i / (profile.heightMm.length - 1);
      const overMm = surfaceAtMm(surface, edgePlace(outline, edge, share)) - (dammed(i) ? Math.max(dam.topMm, height) : height);
      if (overMm > worst.overMm) worst = { overMm, atMm: share * profile.lengthMm };
    });
    return worst.overMm > 0 ? [{ edge, ...worst }] : [];
  });
}
