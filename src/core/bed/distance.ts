import type { BedGrid } from './grid';
import type { Polygon } from './outline';

/** Cells are looked at in blocks of so many to a side: what is near a whole block is asked once. */
const BLOCK = 16;
/** More than rounding can make of a distance in mm. */
const SLACK_MM = 1e-3;
/** What stands for the length of a segment that has none. */
const LEAST_SQUARED = 1e-12;

/**
 * Distance in mm from each cell centre to a polyline, `Infinity` beyond `reachMm`. Exact: for each block of cells only those segments
 * are tried that can be the nearest of any of its cells. Those are no further from its middle than the nearest one and its own
 * breadth; and one that has the whole block behind its beginning leaves it to the segment that ends there. `along`,
 * when given, takes for each cell within reach the nearest place on the line: the number of its segment and
 * the share of it.
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
  const points = line.length / 2;
  const segments = closed ? points : points - 1;
  const fromMiddle = new Float64Array(segments);
  for (let row = 0; row < rows; row += BLOCK) {
    for (let column = 0; column < columns; column += BLOCK) {
      const block = { row, endRow: Math.min(rows, row + BLOCK), column, endColumn: Math.min(columns, column + BLOCK) };
      const [halfX, halfY] = [((block.endColumn - column) * cellMm) / 2, ((block.endRow - row) * cellMm) / 2];
      let nearest = Infinity;
      for (let i = 0; i < segments; i++) {
        const end = endOf(line, i);
        const [px, py] = [column * cellMm + halfX - line[2 * i]!, row * cellMm + halfY - line[2 * i + 1]!];
        const [dx, dy] = [line[2 * end]! - line[2 * i]!, line[2 * end + 1]! - line[2 * i + 1]!];
        const lengthSquared = dx * dx + dy * dy || LEAST_SQUARED;
        const onto = px * dx + py * dy;
        const t = Math.max(0, Math.min(1, onto / lengthSquared));
        const [ex, ey] = [px - t * dx, py - t * dy];
        const middle = Math.sqrt(ex * ex + ey * ey);
        nearest = Math.min(nearest, middle);
        const behind = onto + Math.abs(dx) * halfX + Math.abs(dy) * halfY < 0 && (closed || i > 0);
        fromMiddle[i] = behind ? Infinity : middle;
      }
      const half = Math.sqrt(halfX * halfX + halfY * halfY) + SLACK_MM;
      if (nearest - half > reachMm) continue;
      for (let i = 0; i < segments; i++)
        if (fromMiddle[i]! <= nearest + 2 * half) takeSegment(grid, block, line, i, squared, along);
    }
  }
  const reachSquared = reachMm * reachMm;
  for (let i = 0; i < squared.length; i++) squared[i] = squared[i]! <= reachSquared ? Math.sqrt(squared[i]!) : Infinity;
  return squared;
}

/** The vertex at which a segment of a line ends; the last of a closed one ends at the first. */
const endOf = (line: Polygon, segment: number): number => (segment + 1) % (line.length / 2);

/** Lowers the squared distances of a block's cells to those from one segment. Most of the time of a bed is spent here. */
function takeSegment(
  { cellMm, columns }: Pick<BedGrid, 'cellMm' | 'columns'>,
  block: { row: number; endRow: number; column: number; endColumn: number },
  line: Polygon,
  segment: number,
  squared: Float32Array,
  along: Float32Array | undefined,
): void {
  const end = endOf(line, segment);
  const ax = line[2 * segment]!;
  const ay = line[2 * segment + 1]!;
  const dx = line[2 * end]! - ax;
  const dy = line[2 * end + 1]! - ay;
  const lengthSquared = dx * dx + dy * dy || LEAST_SQUARED;
  const { column: firstColumn, endColumn } = block;
  for (let row = block.row; row < block.endRow; row++) {
    const py = (row + 0.5) * cellMm - ay;
    for (let column = firstColumn; column < endColumn; column++) {
      const px = (column + 0.5) * cellMm - ax;
      let t = (px * dx + py * dy) / lengthSquared;
      t = t < 0 ? 0 : t > 1 ? 1 : t;
      const ex = px - t * dx;
      const ey = py - t * dy;
      const index = row * columns + column;
      const d = ex * ex + ey * ey;
      if (d < squared[index]!) {
        squared[index] = d;
        if (along) along[index] = segment + t;
      }
    }
  }
}
