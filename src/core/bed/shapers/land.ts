import { roundHeight } from '../grid';
import { lengthOf, raise, visitCells, type Shaper } from './carve';

/** Round-topped land laid on the bed: height·(1 − ρ²)², ρ the share of the way to its foot. Volume ⅓·height·area of the foot. */
export const hill: Shaper<'hill'> = (grid, { xMm, yMm, widthMm, lengthMm, heightMm }) => {
  visitCells(grid, { xMm, yMm, reachMm: Math.max(widthMm, lengthMm) / 2 }, (index, x, y) => {
    const squared = ((x - xMm) / (widthMm / 2)) ** 2 + ((y - yMm) / (lengthMm / 2)) ** 2;
    if (squared < 1) grid.heightMm[index] = roundHeight(grid.heightMm[index]! + heightMm * (1 - squared) ** 2);
  });
};

/** Flat-topped land over the piece's own, with banks that fall along rays from its middle. */
export const plateau: Shaper<'plateau'> = (grid, { xMm, yMm, widthMm, lengthMm, heightMm, bankSlope }, { landMm }) => {
  const top = landMm + heightMm;
  const reach = Math.max(widthMm, lengthMm) / 2 + bankSlope * top;
  raise(grid, { xMm, yMm, reachMm: reach }, (x, y) => {
    const [dx, dy] = [x - xMm, y - yMm];
    const ratio = lengthOf(dx / (widthMm / 2), dy / (lengthMm / 2));
    if (ratio <= 1) return top;
    return bankSlope === 0 ? -Infinity : top - (lengthOf(dx, dy) * (1 - 1 / ratio)) / bankSlope;
  });
};
