import type { LinearRgb } from './colour';

/** Pixels as a canvas has them: four bytes each, row by row from the top. */
export interface Pixels {
  width: number;
  height: number;
  data: Uint8ClampedArray | Uint8Array;
}

/** Reflectance of white card or paper. */
export const WHITE_CARD = 0.88;
/** A white this dark is no white card in any light that colours can be judged in; at the brightest nothing can be told any more. */
const DARKEST_WHITE = 0.08;
const BRIGHTEST = 250;

const toLinear = (byte: number): number => {
  const share = byte / 255;
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
};

/** What a place of a photo shows: its mean in linear light, over a square of `radius` pixels to each side, and whether it is burnt out. */
export function pixelLight(
  { width, height, data }: Pixels,
  x: number,
  y: number,
  radius: number,
): { light: LinearRgb; burnt: boolean } {
  const sum = { red: 0, green: 0, blue: 0 };
  let count = 0;
  let burnt = 0;
  for (let row = Math.max(0, y - radius); row <= Math.min(height - 1, y + radius); row++)
    for (let column = Math.max(0, x - radius); column <= Math.min(width - 1, x + radius); column++) {
      const at = (row * width + column) * 4;
      const [red, green, blue] = [data[at]!, data[at + 1]!, data[at + 2]!];
      sum.red += toLinear(red);
      sum.green += toLinear(green);
      sum.blue += toLinear(blue);
      if (Math.max(red, green, blue) > BRIGHTEST) burnt++;
      count++;
    }
  const of = (total: number): number => (count > 0 ? total / count : 0);
  return {
    light: { red: of(sum.red), green: of(sum.green), blue: of(sum.blue) },
    burnt: count > 0 && burnt > count / 2,
  };
}

/**
 * A colour of a photo as it would be in daylight: against the white card in the same light, channel by channel. Null where what
 * was taken for white is too dark to be a card.
 */
export function againstWhite(light: LinearRgb, white: LinearRgb): LinearRgb | null {
  if (Math.min(white.red, white.green, white.blue) < DARKEST_WHITE) return null;
  const of = (value: number, card: number): number => Math.min(1, (WHITE_CARD * value) / card);
  return { red: of(light.red, white.red), green: of(light.green, white.green), blue: of(light.blue, white.blue) };
}
