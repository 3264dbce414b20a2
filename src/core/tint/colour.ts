import { converter, formatHex } from 'culori';
import type { RecipeDose } from './doses';

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

/** The screen colour of a linear one, as `#rrggbb`. */
export const hexFromLinear = ({ red, green, blue }: LinearRgb): string =>
  formatHex({ mode: 'lrgb', r: red, g: green, b: blue });

/** Absorption of a recipe per mm of water: the doses add. */
export function recipeAbsorption(recipe: readonly RecipeDose[]): LinearRgb {
  const sum = { red: 0, green: 0, blue: 0 };
  for (const { colourant, gramsPer100 } of recipe) {
    sum.red += colourant.absorption.red * gramsPer100;
    sum.green += colourant.absorption.green * gramsPer100;
    sum.blue += colourant.absorption.blue * gramsPer100;
  }
  return sum;
}

/**
 * A first water colour: light passes `depthMm` of tinted water to the bed and back, R = Rg·exp(−2KX) per channel
 * (Beer–Lambert). No scattering: cloudy tints come out too clear. Seen from straight above.
 */
export function waterColour(bed: LinearRgb, absorptionPerMm: LinearRgb, depthMm: number): LinearRgb {
  const depth = Math.max(0, depthMm);
  return {
    red: bed.red * Math.exp(-2 * absorptionPerMm.red * depth),
    green: bed.green * Math.exp(-2 * absorptionPerMm.green * depth),
    blue: bed.blue * Math.exp(-2 * absorptionPerMm.blue * depth),
  };
}
