import { hexFromLinear } from './colour';
import { lightAt, lightTable, lightTriple, paintDepths, pixelTable } from './lut';
import { colourByDepth, waterLook } from './waterLook';
import { deltaE } from './difference';
import { linearFromHex } from './colour';
import { inLight, lightFactors } from './lamp';
import { gradientPours, type WaterTint } from './waterTint';

const tint: WaterTint = {
  clarity: 'hazy',
  doses: [
    {
      colourant: {
        id: 'ink',
        name: 'Ink',
        kind: 'ink',
        absorption: { red: 1.15, green: 0.32, blue: 0.72 },
        dropGrams: 0.035,
        bottleGrams: 30,
        bottlePrice: 5,
      },
      gramsPer100: 0.12,
    },
  ],
  pours: gradientPours(12, 3),
};
const BED = '#b9a883';

test('a table of light says at every depth what the predictor says', () => {
  const table = lightTable({ bedColour: BED }, tint, 12, 256);
  const colourAt = colourByDepth(BED, tint);
  for (let depth = 0; depth <= 12; depth += 0.37)
    expect(deltaE(lightAt(table, 12, depth), linearFromHex(colourAt(depth)))).toBeLessThan(0.5);
  expect(lightAt(table, 12, 40)).toEqual(lightAt(table, 12, 12));
});
test('a bed is coloured by its depth, land in its own colour', () => {
  const look = waterLook({ bedColour: BED }, tint, 12);
  const heights = Float32Array.from([3, 9, 14.99, 15, 18]);
  const pixels = new Uint32Array(heights.length);
  paintDepths(heights, 15, 12, pixelTable(look, 1024), '#8b9166', pixels);
  const hex = (pixel: number): string =>
    `#${[pixel & 255, (pixel >> 8) & 255, (pixel >> 16) & 255].map((byte) => byte.toString(16).padStart(2, '0')).join('')}`;
  const colourAt = colourByDepth(BED, tint);
  for (const [i, depth] of [12, 6, 0.01].entries())
    expect(deltaE(linearFromHex(hex(pixels[i]!)), linearFromHex(colourAt(depth)))).toBeLessThan(1);
  expect([hex(pixels[3]!), hex(pixels[4]!)]).toEqual(['#8b9166', '#8b9166']);
  expect(pixels[0]! >>> 24).toBe(255);
});
test('a colour as three numbers is that colour', () => {
  const [red, green, blue] = lightTriple(BED);
  expect(hexFromLinear({ red, green, blue })).toBe(BED);
});
test('a lamp warms, the used eye takes most of it back, daylight changes nothing', () => {
  const warmth = (hex: string): number => linearFromHex(hex).red / linearFromHex(hex).blue;
  expect(inLight(BED, 'daylight')).toBe(BED);
  expect(warmth(inLight(BED, 'warm lamp'))).toBeGreaterThan(warmth(BED));
  expect(warmth(inLight('#606060', 'warm lamp, raw'))).toBeGreaterThan(2 * warmth(inLight('#606060', 'warm lamp')));
  expect(lightFactors('daylight')).toEqual({ red: 1, green: 1, blue: 1 });
});
