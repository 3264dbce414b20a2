import { converter, formatHex } from 'culori';

/** A colour in linear light, each channel 0 to 1. */
export interface LinearRgb {
  red: number;
  green: number;
  blue: number;
}

const toLinear = converter('lrgb');

/** `#b8a888` in linear light. Throws a RangeError when the text is no colour. */
export function linearFromHex(hex: string): LinearRgb {
  const colour = toLinear(hex);
  if (!colour) throw new RangeError(`${hex} is not a colour`);
  return { red: colour.r, green: colour.g, blue: colour.b };
}

/** A colour of L*a*b* (D65) in linear light; what no screen shows is cut to what one does. */
export function linearFromLab({ l, a, b }: { l: number; a: number; b: number }): LinearRgb {
  const { r, g, b: blue } = toLinear({ mode: 'lab65', l, a, b });
  const cut = (value: number): number => Math.min(1, Math.max(0, value));
  return { red: cut(r), green: cut(g), blue: cut(blue) };
}

/** The screen colour of a linear one, as `#rrggbb`. */
export const hexFromLinear = ({ red, green, blue }: LinearRgb): string =>
  formatHex({ mode: 'lrgb', r: red, g: green, b: blue });
