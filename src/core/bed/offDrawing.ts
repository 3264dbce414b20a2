import type { PieceDesign } from '../model/designSchema';
import type { Measured } from '../model/measuredSchema';
import { buildBed } from './buildBed';
import { cellFor } from './grid';
import { cellReadings } from './measured';

/** Half a millimetre on a tile: fine enough for a pin on a bank, and a quarter of the work. */
const CELLS = 80_000;

/**
 * By how much each place at which a depth was felt stands above the bed as it is drawn, mm; readings in one cell of the grid are one.
 * What was measured on the design itself is left out of the drawing.
 */
export const offDrawing = (design: PieceDesign, measured: Measured): number[] =>
  cellReadings(buildBed({ ...design, measured: null }, cellFor(design.outline, CELLS)), measured).map(
    ({ residualMm }) => residualMm,
  );
