import type { Box } from '../model/bodySchema';

/** Room for a sheet of soft paper between stacked pieces. */
export const BETWEEN_MM = 2;

/** How a layer of equal pieces lies in a box, and how many layers. */
export interface Packing {
  perLayer: number;
  layers: number;
  count: number;
}

const rows = (room: number, size: number): number => Math.max(0, Math.floor(room / size + 1e-9));

/**
 * How many equal pieces, lying flat, fit a box: a block of them one way round beside a block the other way round, along
 * either side of the box, whichever holds most. For rectangles in a box this is the best there is in nearly every case;
 * never more than fit.
 */
export function packBox(widthMm: number, lengthMm: number, heightMm: number, box: Box): Packing {
  const perLayer = Math.max(
    twoBlocks(box.widthMm, box.lengthMm, widthMm, lengthMm),
    twoBlocks(box.lengthMm, box.widthMm, widthMm, lengthMm),
  );
  const layers = box.heightMm < heightMm ? 0 : 1 + rows(box.heightMm - heightMm, heightMm + BETWEEN_MM);
  return { perLayer, layers, count: perLayer * layers };
}

function twoBlocks(across: number, up: number, width: number, length: number): number {
  let most = 0;
  for (let columns = 0; columns <= rows(across, width); columns++) {
    const left = across - columns * width;
    most = Math.max(most, columns * rows(up, length) + rows(left, length) * rows(up, width));
  }
  return most;
}

/** Height of a stack of so many pieces, mm. */
export const stackMm = (heightMm: number, count: number): number =>
  count * heightMm + Math.max(0, count - 1) * BETWEEN_MM;
