import type { BedGrid } from '@/core/bed/grid';
import { linearFromHex } from '@/core/tint/colour';
import type { WaterLook } from '@/core/tint/waterLook';

/** Screen bytes of a `#rrggbb` colour. */
const bytes = (hex: string): [number, number, number] => [parseInt(hex.slice(1, 3), 16), parseInt(hex.slice(3, 5), 16), parseInt(hex.slice(5, 7), 16)];

/** Light from the north-west, low: how strongly slopes are shaded on land and under water. */
const LAND_SHADE = 1.1;
const WATER_SHADE = 0.35;

/**
 * The bed from above as pixels, one a cell, north at the top: land in its own colour, water in its predicted one,
 * both with a little relief. Coverage becomes transparency at the outline.
 */
export function paintBed(grid: BedGrid, levelMm: number, landColour: string, look: WaterLook): ImageData {
  const { columns, rows, heightMm, coverage, cellMm } = grid;
  const image = new ImageData(columns, rows);
  const land = bytes(landColour);
  const water = look.colours.map(bytes);
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const index = row * columns + column;
      const z = heightMm[index]!;
      const east = heightMm[row * columns + Math.min(columns - 1, column + 1)]!;
      const south = heightMm[Math.max(0, row - 1) * columns + column]!;
      const slope = Math.max(-1, Math.min(1, (z - east + (z - south)) / cellMm / 2));
      const wet = z < levelMm;
      const colour = wet ? water[Math.min(water.length - 1, Math.round((levelMm - z) / look.stepMm))]! : land;
      const shade = 1 - slope * (wet ? WATER_SHADE : LAND_SHADE) * 0.28;
      const at = ((rows - 1 - row) * columns + column) * 4;
      image.data[at] = colour[0] * shade;
      image.data[at + 1] = colour[1] * shade;
      image.data[at + 2] = colour[2] * shade;
      image.data[at + 3] = coverage[index]! * 255;
    }
  }
  return image;
}

/** Black or white, whichever reads better on a colour. */
export function inkOn(hex: string): string {
  const { red, green, blue } = linearFromHex(hex);
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue > 0.19 ? '#17201d' : '#f8f9f6';
}
