import type { BedGrid } from './grid';
import type { Polygon } from './outline';

/**
 * Distance in mm from each cell centre to a polyline, `Infinity` beyond `reachMm`.
 * Each segment visits only the cells of its own box widened by the reach. `along`, when given, takes for each cell the
 * nearest place on the line: the number of its segment and the share of it.
 */
export function distanceToPolyline(
  grid: Pick<BedGrid, 'cellMm' | 'columns' | 'rows'>,
  line: Polygon,
  closed: boolean,
  reachMm: number,
  along?: Float32Array,
): Float32Array {
  const { cellMm, columns, rows } = grid;
  const squared = new Float32Array(columns * rows).fill(Infinity);
  const count = line.length / 2;
  for (let i = 0; i < (closed ? count : count - 1); i++) {
    const j = (i + 1) % count;
    const ax = line[2 * i]!;
    const ay = line[2 * i + 1]!;
    const dx = line[2 * j]! - ax;
    const dy = line[2 * j + 1]! - ay;
    const lengthSquared = dx * dx + dy * dy || 1e-12;
    const firstColumn = Math.max(0, Math.floor((Math.min(ax, ax + dx) - reachMm) / cellMm));
    const lastColumn = Math.min(columns - 1, Math.ceil((Math.max(ax, ax + dx) + reachMm) / cellMm));
    const firstRow = Math.max(0, Math.floor((Math.min(ay, ay + dy) - reachMm) / cellMm));
    const lastRow = Math.min(rows - 1, Math.ceil((Math.max(ay, ay + dy) + reachMm) / cellMm));
    for (let row = firstRow; row <= lastRow; row++) {
      const py = (row + 0.5) * cellMm - ay;
      for (let column = firstColumn; column <= lastColumn; column++) {
        const px = (column + 0.5) * cellMm - ax;
        let t = (px * dx + py * dy) / lengthSquared;
        t = t < 0 ? 0 : t > 1 ? 1 : t;
        const ex = px - t * dx;
        const ey = py - t * dy;
        const index = row * columns + column;
        const d = ex * ex + ey * ey;
        if (d < squared[index]!) {
          squared[index] = d;
          if (along) along[index] = i + t;
        }
      }
    }
  }
  const reachSquared = reachMm * reachMm;
  for (let i = 0; i < squared.length; i++) squared[i] = squared[i]! <= reachSquared ? Math.sqrt(squared[i]!) : Infinity;
  return squared;
}
