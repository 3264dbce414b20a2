import { formulaGrid } from '@/core/bed/testShapes';
import type { WaterLook } from '@/core/tint/waterLook';
import { paintBed, paintDifference } from './paintBed';

// The browser's own, as far as painting needs it.
class Pixels {
  data: Uint8ClampedArray;
  constructor(
    public width: number,
    public height: number,
  ) {
    this.data = new Uint8ClampedArray(width * height * 4);
  }
}
Object.assign(globalThis, { ImageData: Pixels });

const outline = { kind: 'rectangle', widthMm: 4, lengthMm: 3 } as const;
const look = { colours: ['#ffffff', '#808080', '#000000'], stepMm: 2 } as unknown as WaterLook;
const pixel = (image: ImageData, column: number, rowFromTop: number): number[] => [
  ...image.data.subarray((rowFromTop * image.width + column) * 4, (rowFromTop * image.width + column) * 4 + 4),
];

test('land in its own colour, water by its depth, north at the top', () => {
  // Land in the north row, water 2 and 4 mm deep in the middle and the south; steps so gentle that nothing is shaded.
  const flat = (z: number): ReturnType<typeof formulaGrid> => formulaGrid(outline, 1, () => z);
  expect(pixel(paintBed(flat(18), 15, '#8d9068', look), 1, 1)).toEqual([0x8d, 0x90, 0x68, 255]);
  expect(pixel(paintBed(flat(13), 15, '#8d9068', look), 1, 1)).toEqual([0x80, 0x80, 0x80, 255]);
  expect(pixel(paintBed(flat(11), 15, '#8d9068', look), 1, 1)).toEqual([0, 0, 0, 255]);
  const north = formulaGrid(outline, 1, (_, y) => (y > 2 ? 18 : 11));
  expect(pixel(paintBed(north, 15, '#ffffff', look), 1, 2)).toEqual([0, 0, 0, 255]);
  expect(pixel(paintBed(north, 15, '#ffffff', look), 1, 0)[0]).toBeGreaterThan(100);
});
test('rocks have their own paint, under water by depth and out of it dry', () => {
  const stony: WaterLook = { ...look, rock: ['#ff0000', '#400000', '#100000'] };
  const rocky = (z: number): ReturnType<typeof formulaGrid> => {
    const grid = formulaGrid(outline, 1, () => z);
    return { ...grid, rock: Uint8Array.from(grid.heightMm, (_, i) => i % 2) };
  };
  const pair = (z: number, of: WaterLook): number[][] =>
    [0, 1].map((column) => pixel(paintBed(rocky(z), 15, '#8d9068', of), column, 2).slice(0, 3));
  expect(pair(13, stony)).toEqual([
    [0x80, 0x80, 0x80],
    [0x40, 0, 0],
  ]);
  expect(pair(18, stony)).toEqual([
    [0x8d, 0x90, 0x68],
    [0xff, 0, 0],
  ]);
  expect(pair(13, look)[1]).toEqual([0x80, 0x80, 0x80]);
});
test('deeper than the darkest colour stays that; outside the outline nothing is painted', () => {
  expect(
    pixel(
      paintBed(
        formulaGrid(outline, 1, () => 1),
        15,
        '#ffffff',
        look,
      ),
      0,
      0,
    ),
  ).toEqual([0, 0, 0, 255]);
  const round = formulaGrid({ kind: 'oval', widthMm: 40, lengthMm: 40 }, 1, () => 18);
  const image = paintBed(round, 15, '#ffffff', look);
  expect([pixel(image, 0, 0)[3], pixel(image, 20, 20)[3]]).toEqual([0, 255]);
});
test('a slope towards the light is lighter than one away from it', () => {
  const slope = (way: number): ReturnType<typeof formulaGrid> =>
    formulaGrid(outline, 1, (x, y) => 20 + way * (x - y) * 0.4);
  const [rising, falling] = [1, -1].map((way) => pixel(paintBed(slope(way), 5, '#808080', look), 1, 1)[0]!);
  expect(rising).toBeGreaterThan(0x80);
  expect(falling).toBeLessThan(0x80);
});
test('grains speckle, the same each time', () => {
  const grid = formulaGrid({ kind: 'rectangle', widthMm: 30, lengthMm: 30 }, 1, () => 18);
  const [first, again, smooth] = [
    paintBed(grid, 15, '#808080', look, 2),
    paintBed(grid, 15, '#808080', look, 2),
    paintBed(grid, 15, '#808080', look),
  ];
  expect([...first.data]).toEqual([...again.data]);
  expect(new Set(first.data).size).toBeGreaterThan(3);
  expect(new Set(smooth.data)).toEqual(new Set([128, 255]));
});
test('a measured bed against its drawing: deeper is blue, shallower orange, the same pale', () => {
  const drawn = formulaGrid(outline, 1, () => 10);
  const colour = (by: number): number[] =>
    pixel(
      paintDifference(
        drawn,
        formulaGrid(outline, 1, () => 10 + by),
      ),
      0,
      0,
    );
  expect(colour(0)).toEqual([238, 238, 230, 255]);
  expect(colour(-5)).toEqual([38, 84, 150, 255]);
  expect(colour(5)).toEqual([196, 92, 30, 255]);
  expect(colour(-0.75)).toEqual([138, 161, 190, 255]);
});
