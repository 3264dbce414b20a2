import { applyFeature } from './features';
import { chooseCellMm, flatGrid, type BedGrid } from './grid';
import { correctBed, strayOf, STRAYS, type Strays } from './measured';
import { drawToStandard } from './joints';
import { SOLID_KINDS, type Feature, type PieceDesign } from '../model/designSchema';

/**
 * The bed of a design: land at `landMm`, then each feature in order, edges brought to their standards before the solids that
 * come last, then what was measured on the piece. Cell size by default from the piece's size.
 * Assumes walls stand upright between cell centres: a wall's place is known to half a cell.
 */
export function buildBed(
  design: PieceDesign,
  cellMm: number = chooseCellMm(design.outline),
  strays: Strays = STRAYS,
): BedGrid {
  const grid = flatGrid(design.outline, design.landMm, cellMm);
  const solids = firstSolid(design.features);
  if (design.rockColour) grid.rock = new Uint8Array(grid.heightMm.length);
  design.features.slice(0, solids).forEach((feature) => shape(grid, feature, design));
  for (const joint of design.joints ?? []) drawToStandard(grid, design.outline, joint);
  design.features.slice(solids).forEach((feature) => shape(grid, feature, design));
  if (design.measured) correctBed(grid, design.measured, design.landMm, strayOf(design, strays));
  return grid;
}

/** Applies a feature, and notes what is rock from then on: where a solid stands out, until something is carved there. */
function shape(grid: BedGrid, feature: Feature, design: PieceDesign): void {
  const { rock, heightMm } = grid;
  const before = rock && heightMm.slice();
  applyFeature(grid, feature, design);
  if (!rock || !before) return;
  const solid = SOLID_KINDS.has(feature.kind) ? 1 : 0;
  for (let i = 0; i < rock.length; i++) if (heightMm[i] !== before[i]) rock[i] = solid;
}

/** Where the solids begin that stand on everything else. */
function firstSolid(features: readonly Feature[]): number {
  let first = features.length;
  while (first > 0 && SOLID_KINDS.has(features[first - 1]!.kind)) first--;
  return first;
}
