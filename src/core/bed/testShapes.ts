import type { BedGrid } from './grid';
import { TYPICAL_LOSSES } from '../mixing/losses';
import type { PlanPiece } from '../plan/request';
import { flatGrid } from './grid';
import { STRAYS } from './measured';
import type { Feature, Outline, PieceDesign } from '../model/designSchema';

/** A design for tests and benchmarks: a 140 mm tile with 18 mm of land and its level at 15 mm, unless told otherwise. */
export function testDesign(features: Feature[] = [], change: Partial<PieceDesign> = {}): PieceDesign {
  return {
    tag: 'T-1',
    name: 'Test piece',
    kind: 'tile',
    copies: 1,
    outline: { kind: 'rectangle', widthMm: 140, lengthMm: 140 },
    landMm: 18,
    drawnLevelMm: 15,
    bedColour: '#b8a888',
    landColour: '#8a8f6a',
    dams: {},
    measured: null,
    copyNumbers: null,
    features,
    ...change,
  };
}

/** The same as a plan takes it. */
export const testPiece = (features: Feature[] = [], change: Partial<PlanPiece> = {}): PlanPiece => ({
  ...testDesign(features, change),
  designId: change.designId ?? change.tag ?? 'T-1',
});

/** What a plan request says when a test has no opinion. */
export const TEST_DEFAULTS = { losses: TYPICAL_LOSSES, strays: STRAYS, clockChanges: [] };

/** A grid whose bed is a formula of x and y. */
export function formulaGrid(outline: Outline, cellMm: number, height: (x: number, y: number) => number): BedGrid {
  const grid = flatGrid(outline, 0, cellMm);
  for (let i = 0; i < grid.heightMm.length; i++)
    grid.heightMm[i] = height(((i % grid.columns) + 0.5) * cellMm, (Math.floor(i / grid.columns) + 0.5) * cellMm);
  return grid;
}
