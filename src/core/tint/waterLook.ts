import type { PieceDesign } from '../bed/schema';
import { hexFromLinear, linearFromHex, recipeAbsorption, waterColour, type LinearRgb } from './colour';
import type { RecipeDose } from './doses';

/** The colours of a piece's water from the surface down: `colours[i]` at depth `i·stepMm`, linear in between. */
export interface WaterLook {
  stepMm: number;
  colours: string[];
}

const STEPS = 24;

/** Colours of the water over one bed, seen from straight above, down to `deepestMm`. */
export function waterLook(
  { bedColour }: Pick<PieceDesign, 'bedColour'>,
  recipe: readonly RecipeDose[],
  deepestMm: number,
): WaterLook {
  const bed = linearFromHex(bedColour);
  const absorption = recipeAbsorption(recipe);
  const stepMm = Math.max(deepestMm, 0.1) / STEPS;
  return {
    stepMm,
    colours: Array.from({ length: STEPS + 1 }, (_, i) =>
      hexFromLinear(onTop(waterColour(bed, absorption, i * stepMm))),
    ),
  };
}

/** Index of the colour for a depth. */
export const lookAt = ({ stepMm, colours }: WaterLook, depthMm: number): string =>
  colours[Math.min(colours.length - 1, Math.max(0, Math.round(depthMm / stepMm)))]!;

/** A wet bed looks a little darker than a dry one even when the water is clear. */
const WET = 0.93;
const onTop = ({ red, green, blue }: LinearRgb): LinearRgb => ({
  red: red * WET,
  green: green * WET,
  blue: blue * WET,
});
