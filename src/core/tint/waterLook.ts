import type { PieceDesign } from '../bed/schema';
import { hexFromLinear, linearFromHex, recipeAbsorption, waterColour, type LinearRgb } from './colour';
import type { RecipeDose } from './doses';

/** The colours of a piece's water from the surface down: `colours[i]` at depth `i·stepMm`, linear in between. */
export interface WaterLook {
  stepMm: number;
  colours: string[];
}

const STEPS = 24;

/** A wet bed looks a little darker than a dry one even when the water is clear. */
const WET = 0.93;
/** What the clearest product swallows per mm, in linear light: a breath of green-blue, as a thick pane has. Typical. */
export const CLEAR_TONE: LinearRgb = { red: 0.016, green: 0.006, blue: 0.009 };

/**
 * The one predictor of colours: the screen colour of water over a bed (or over a detail on it) by its depth, seen from straight
 * above. Absorption of the recipe and of the product itself; no scattering. An estimate.
 */
export function colourByDepth(bedColour: string, recipe: readonly RecipeDose[]): (depthMm: number) => string {
  const bed = linearFromHex(bedColour);
  const wet = { red: bed.red * WET, green: bed.green * WET, blue: bed.blue * WET };
  const tint = recipeAbsorption(recipe);
  const absorption = {
    red: tint.red + CLEAR_TONE.red,
    green: tint.green + CLEAR_TONE.green,
    blue: tint.blue + CLEAR_TONE.blue,
  };
  return (depthMm) => hexFromLinear(waterColour(wet, absorption, depthMm));
}

/** Colours of the water over one bed, seen from straight above, down to `deepestMm`. */
export function waterLook(
  { bedColour }: Pick<PieceDesign, 'bedColour'>,
  recipe: readonly RecipeDose[],
  deepestMm: number,
  steps = STEPS,
): WaterLook {
  const colourAt = colourByDepth(bedColour, recipe);
  const stepMm = Math.max(deepestMm, 0.1) / steps;
  return { stepMm, colours: Array.from({ length: steps + 1 }, (_, i) => colourAt(i * stepMm)) };
}

/** The colour for a depth. */
export const lookAt = ({ stepMm, colours }: WaterLook, depthMm: number): string =>
  colours[Math.min(colours.length - 1, Math.max(0, Math.round(depthMm / stepMm)))]!;
