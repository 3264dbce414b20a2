import type { BedGrid } from '@/core/bed/grid';
import type { WaterLook } from '@/core/tint/waterLook';

/** Screen bytes of a `#rrggbb` colour. */
const bytes = (hex: string): [number, number, number] => [
  parseInt(hex.slice(1, 3), 16),
  parseInt(hex.slice(3, 5), 16),
  parseInt(hex.slice(5, 7), 16),
];

/** Light from the north-west, low: how strongly slopes are shaded on land and under water. */
const LAND_SHADE = 1.1;
const WATER_SHADE = 0.35;

/**
 * The bed from above as pixels, one a cell, north at the top: land in its own colour, water in its predicted one,
 * both with a little relief and, on sand and gravel, a speckle. Coverage becomes transparency at the outline.
 */
export function paintBed(grid: BedGrid, levelMm: number, landColour: string, look: WaterLook, grainMm = 0): ImageData {
  const { columns, rows, heightMm, coverage, cellMm } = grid;
  const image = new ImageData(columns, rows);
  const land = bytes(landColour);
  const water = look.colours.map(bytes);
  const stone = grid.rock && look.rock?.map(bytes);
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const index = row * columns + column;
      const z = heightMm[index]!;
      const east = heightMm[row * columns + Math.min(columns - 1, column + 1)]!;
      const south = heightMm[Math.max(0, row - 1) * columns + column]!;
      const slope = Math.max(-1, Math.min(1, (z - east + (z - south)) / cellMm / 2));
      const wet = z < levelMm;
      const paint = stone && grid.rock![index] ? stone : wet ? water : null;
      const colour = paint?.[Math.min(paint.length - 1, Math.max(0, Math.round((levelMm - z) / look.stepMm)))] ?? land;
      const shade =
        1 -
        slope * (wet ? WATER_SHADE : LAND_SHADE) * 0.28 +
        (grainMm > 0 ? speckle(column, row, grainMm / cellMm) : 0);
      const at = ((rows - 1 - row) * columns + column) * 4;
      image.data[at] = colour[0] * shade;
      image.data[at + 1] = colour[1] * shade;
      image.data[at + 2] = colour[2] * shade;
      image.data[at + 3] = coverage[index]! * 255;
    }
  }
  return image;
}

const SPECKLE = 0.09;

/** A light or dark grain, the same at the same place each time. */
function speckle(column: number, row: number, grainCells: number): number {
  const size = Math.max(1, grainCells);
  const mixed = Math.imul((Math.floor(column / size) * 73_856_093) ^ (Math.floor(row / size) * 19_349_663), 0x9e3779b1);
  return (((mixed >>> 8) & 255) / 255 - 0.5) * SPECKLE * Math.min(2, 0.7 + grainCells / 2);
}

/** Difference, mm, at which the signed map reaches its full colour. */
const FULL_MM = 1.5;
const DEEPER: readonly [number, number, number] = [38, 84, 150];
const SHALLOWER: readonly [number, number, number] = [196, 92, 30];
const SAME: readonly [number, number, number] = [238, 238, 230];

/** Where a measured bed differs from its drawing: blue is deeper, orange shallower, pale the same. */
export function paintDifference(drawn: BedGrid, real: BedGrid): ImageData {
  const { columns, rows, coverage } = drawn;
  const image = new ImageData(columns, rows);
  for (let index = 0; index < coverage.length; index++) {
    const deeper = (drawn.heightMm[index]! - real.heightMm[index]!) / FULL_MM;
    const share = Math.min(1, Math.abs(deeper));
    const full = deeper > 0 ? DEEPER : SHALLOWER;
    const at = ((rows - 1 - Math.floor(index / columns)) * columns + (index % columns)) * 4;
    for (let channel = 0; channel < 3; channel++)
      image.data[at + channel] = SAME[channel]! + share * (full[channel]! - SAME[channel]!);
    image.data[at + 3] = coverage[index]! * 255;
  }
  return image;
}
