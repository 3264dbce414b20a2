import { contours } from 'd3-contour';
import type { BedGrid } from '@/core/bed/grid';

/** One contour as an SVG path in mm, y upwards. */
export interface Contour {
  depthMm: number;
  path: string;
}

const INTERVALS_MM = [0.5, 1, 2, 5, 10, 20];

/** The spacing that gives at most `most` contours. */
export const contourIntervalMm = (deepestMm: number, most: number): number =>
  INTERVALS_MM.find((interval) => deepestMm / interval <= most) ?? 20;

/** The waterline (depth 0) and the lines of equal depth below it. */
export function depthContours(grid: BedGrid, levelMm: number, deepestMm: number, most: number): Contour[] {
  const interval = contourIntervalMm(deepestMm, most);
  const count = Math.floor(Math.max(0, deepestMm - 0.01) / interval);
  return depthLines(
    grid,
    levelMm,
    Array.from({ length: count + 1 }, (_, i) => i * interval),
  );
}

/** The lines of the given depths. */
export function depthLines(grid: BedGrid, levelMm: number, depths: readonly number[]): Contour[] {
  if (depths.length === 0) return [];
  const values = Array.from(grid.heightMm, (z, i) => (grid.coverage[i]! > 0 ? z : levelMm + 1000));
  const trace = contours().size([grid.columns, grid.rows]).smooth(true);
  return depths.map((depthMm) => {
    const { coordinates } = trace.contour(values, levelMm - depthMm);
    const path = coordinates
      .flatMap((polygon) =>
        polygon.map(
          (ring) =>
            `M${ring.map(([x, y]) => `${(x! * grid.cellMm).toFixed(2)} ${(y! * grid.cellMm).toFixed(2)}`).join('L')}Z`,
        ),
      )
      .join('');
    return { depthMm, path };
  });
}
