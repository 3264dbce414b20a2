import { applyFeature } from './features';
import { chooseCellMm, flatGrid, type BedGrid } from './grid';
import { correctBed, strayOf } from './measured';
import type { PieceDesign } from './schema';

/**
 * The bed of a design: land at `landMm`, then each feature in order, then what was measured on the piece. Cell size by default from the piece's size.
 * Assumes walls stand upright between cell centres: a wall's place is known to half a cell.
 */
export function buildBed(design: PieceDesign, cellMm: number = chooseCellMm(design.outline)): BedGrid {
  const grid = flatGrid(design.outline, design.landMm, cellMm);
  for (const feature of design.features) applyFeature(grid, feature, design);
  if (design.measured) correctBed(grid, design.measured, design.landMm, strayOf(design));
  return grid;
}
