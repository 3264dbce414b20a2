import { roundHeight } from '../grid';
import { scanComplaint, unpackHeights } from '../scanHeights';
import { visitCells, type Shaper } from './carve';

/**
 * The bed as scanned, laid from the piece's south-west corner: heights between samples by bilinear interpolation,
 * beyond the outermost samples as at them. It takes the place of everything drawn before it; a damaged one changes nothing
 * (`checkDesign` says so).
 */
export const scan: Shaper<'scan'> = (grid, { columns, rows, stepMm, heights, baseMm = 0 }) => {
  if (scanComplaint(heights, columns * rows) !== null) return;
  const sampled = unpackHeights(heights, columns * rows);
  visitCells(grid, null, (index, x, y) => {
    const u = Math.min(columns - 1, Math.max(0, x / stepMm - 0.5));
    const v = Math.min(rows - 1, Math.max(0, y / stepMm - 0.5));
    const [column, row] = [Math.min(columns - 2, Math.floor(u)), Math.min(rows - 2, Math.floor(v))];
    const [fx, fy] = [u - column, v - row];
    const at = row * columns + column;
    const south = sampled[at]! * (1 - fx) + sampled[at + 1]! * fx;
    const north = sampled[at + columns]! * (1 - fx) + sampled[at + columns + 1]! * fx;
    grid.heightMm[index] = roundHeight(baseMm + south * (1 - fy) + north * fy);
  });
};
