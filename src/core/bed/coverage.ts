import type { Polygon } from './outline';

const LEAST_SHARE = 1e-6;

/**
 * How much of each cell lies inside a polygon, 0 to 1, exact for the polygon.
 * Signed-area accumulation: every edge adds, to the cells of its row, the area between itself and the
 * cell's far side; a running sum along the row then gives the coverage. O(boundary + cells).
 * The polygon must lie inside the grid and not cross itself.
 */
export function polygonCoverage(polygon: Polygon, columns: number, rows: number, cellMm: number): Float32Array {
  const stride = columns + 2;
  const deltas = new Float64Array(stride * rows);
  const count = polygon.length / 2;
  let doubledArea = 0;
  for (let i = 0; i < count; i++) {
    const j = (i + 1) % count;
    const x0 = polygon[2 * i]! / cellMm;
    const y0 = polygon[2 * i + 1]! / cellMm;
    const x1 = polygon[2 * j]! / cellMm;
    const y1 = polygon[2 * j + 1]! / cellMm;
    doubledArea += x0 * y1 - x1 * y0;
    addEdge(deltas, stride, rows, x0, y0, x1, y1);
  }
  const sign = doubledArea > 0 ? -1 : 1;
  const coverage = new Float32Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    let sum = 0;
    for (let column = 0; column < columns; column++) {
      sum += deltas[row * stride + column]!;
      const share = sign * sum;
      // What rounding leaves of a running sum outside the outline must not count as a sliver of it.
      coverage[row * columns + column] = share < LEAST_SHARE ? 0 : Math.min(1, share);
    }
  }
  return coverage;
}

/** Adds one edge, cut at every row line it crosses. */
function addEdge(
  deltas: Float64Array,
  stride: number,
  rows: number,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): void {
  if (y0 === y1) return;
  const direction = y1 > y0 ? 1 : -1;
  const [topX, topY, bottomX, bottomY] = direction > 0 ? [x0, y0, x1, y1] : [x1, y1, x0, y0];
  let x = topX;
  for (let row = Math.max(0, Math.floor(topY)); row < Math.min(rows, Math.ceil(bottomY)); row++) {
    const yFrom = Math.max(row, topY);
    const yTo = Math.min(row + 1, bottomY);
    const height = yTo - yFrom;
    // By the share of the edge that lies behind, not by its slope: that of a nearly level edge has no bounds.
    const xNext = topX + ((yTo - topY) / (bottomY - topY)) * (bottomX - topX);
    addRowPiece(deltas, row * stride, direction * height, Math.min(x, xNext), Math.max(x, xNext));
    x = xNext;
  }
}

/** Adds a piece of edge within one row, spreading it over the cells it crosses. */
function addRowPiece(deltas: Float64Array, rowStart: number, signedHeight: number, left: number, right: number): void {
  const first = Math.max(0, Math.floor(left));
  const last = Math.max(first, Math.ceil(right) - 1);
  const perColumn = right > left ? signedHeight / (right - left) : 0;
  for (let column = first; column <= last; column++) {
    const from = Math.max(left, column);
    const to = Math.min(right, column + 1);
    const part = last === first ? signedHeight : perColumn * (to - from);
    const inCell = part * (column + 1 - (from + to) / 2);
    deltas[rowStart + column] = deltas[rowStart + column]! + inCell;
    deltas[rowStart + column + 1] = deltas[rowStart + column + 1]! + part - inCell;
  }
}
