import { volumeCurve, levelForMl } from './volumeCurve';
import type { BedGrid } from './grid';
import { compassName, edgeLengthMm, edgePoint, fillsBox, outlinePolygon, outlineSize, type PointMm } from './outline';
import type { OutlineProfile } from './profile';
import type { EdgeName, Outline } from '../model/designSchema';

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
export const surfaceAtMm = ({ middleMm, slope, middle }: TiltedSurface, { xMm, yMm }: PointMm): number =>
  middleMm + slope.east * (xMm - middle.xMm) + slope.north * (yMm - middle.yMm);

/** Water on the bed under a tilted surface, in ml, and the wetted area in mm². */
export function tiltedVolume(
  grid: BedGrid,
  surface: TiltedSurface,
): { ml: number; surfaceMm2: number; deepestMm: number } {
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
  const { widthMm, lengthMm } = outlineSize(outline);
  const middle = { xMm: widthMm / 2, yMm: lengthMm / 2 };
  const reach = (Math.abs(slope.east) * widthMm + Math.abs(slope.north) * lengthMm) / 2;
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

/** Corners of a piece and by how much each must be raised to be level with the highest; of many corners the outermost each way. */
export function cornersToRaise(outline: Outline, { east, north }: Slope): { corner: string; raiseMm: number }[] {
  const polygon = outlinePolygon(outline);
  const { widthMm, lengthMm } = outlineSize(outline);
  const outermost = new Map<string, { away: number; fall: number }>();
  for (let i = 0; i < polygon.length; i += 2) {
    const [x, y] = [polygon[i]!, polygon[i + 1]!];
    const away = Math.hypot(x - widthMm / 2, y - lengthMm / 2);
    const corner = fillsBox(outline)
      ? compassName(Math.sign(x - widthMm / 2), Math.sign(y - lengthMm / 2))
      : compassName(x - widthMm / 2, y - lengthMm / 2);
    if ((outermost.get(corner)?.away ?? -1) < away) outermost.set(corner, { away, fall: east * x + north * y });
  }
  const highest = Math.min(...[...outermost.values()].map(({ fall }) => fall));
  return [...outermost].map(([corner, { fall }]) => ({ corner, raiseMm: fall - highest }));
}

/** The point of a side at a share of its length from its west or south end. */
export const edgePlace = (outline: Outline, edge: EdgeName, share: number): PointMm =>
  edgePoint(outline, { edge, positionMm: share * edgeLengthMm(outline, edge) });

/**
 * Where a tilted surface runs over the outline: the worst place of each edge, over a bank, or over the dams.
 * Dams stand wherever the bed is below the level, their ends overlap the bank, their tops are at `dam.topMm`.
 */
export function tiltSpills(
  profiles: readonly OutlineProfile[],
  outline: Outline,
  surface: TiltedSurface,
  levelMm: number,
  dam: { topMm: number; overlapMm: number },
): { edge: EdgeName; overMm: number; atMm: number }[] {
  return profiles.flatMap(({ edge, profile }) => {
    if (edge === 'rim') return [];
    let worst = { overMm: 0, atMm: 0 };
    const overlap = Math.round(dam.overlapMm / profile.stepMm);
    const dammed = (i: number): boolean =>
      profile.heightMm.subarray(Math.max(0, i - overlap), i + overlap + 1).some((height) => height < levelMm);
    profile.heightMm.forEach((height, i) => {
      const share = i / (profile.heightMm.length - 1);
      const overMm =
        surfaceAtMm(surface, edgePlace(outline, edge, share)) - (dammed(i) ? Math.max(dam.topMm, height) : height);
      if (overMm > worst.overMm) worst = { overMm, atMm: share * profile.lengthMm };
    });
    return worst.overMm > 0 ? [{ edge, ...worst }] : [];
  });
}
