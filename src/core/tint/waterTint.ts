import type { LinearRgb } from './colour';
import type { RecipeDose } from './doses';

/** How clear a product cures by itself. */
export const CLARITIES = ['water-clear', 'slightly yellow', 'hazy'] as const;
export type Clarity = (typeof CLARITIES)[number];

/** What takes light away and what throws it back, per mm, in linear light. */
export interface Optics {
  absorption: LinearRgb;
  scattering: LinearRgb;
}

const NONE: LinearRgb = { red: 0, green: 0, blue: 0 };

/** What the clearest product swallows per mm, in linear light: a breath of green-blue, as a thick pane has. Typical. */
export const CLEAR_TONE: LinearRgb = { red: 0.016, green: 0.006, blue: 0.009 };

/** The product's own part in the colour. Typical figures, none measured. */
export const CLARITY_OPTICS: Record<Clarity, Optics> = {
  'water-clear': { absorption: CLEAR_TONE, scattering: NONE },
  'slightly yellow': { absorption: { red: 0.012, green: 0.016, blue: 0.045 }, scattering: NONE },
  hazy: { absorption: CLEAR_TONE, scattering: { red: 0.012, green: 0.012, blue: 0.013 } },
};

/** One pour of the water, counted from the surface down. `strength` multiplies every dose; the last pour goes on to the bed. */
export interface TintPour {
  thicknessMm: number | null;
  strength: number;
}

/** All that colours water: the product's own clarity, and the recipe, the same all through or pour by pour. */
export interface WaterTint {
  clarity: Clarity;
  doses: readonly RecipeDose[];
  pours?: readonly TintPour[];
}

/** Water to which nothing was added, of the clearest product. */
export const CLEAR_TINT: WaterTint = { clarity: 'water-clear', doses: [] };

/** The optics of a product with doses at a strength: what absorbs adds, and what scatters adds. */
export function tintOptics({ clarity, doses }: WaterTint, strength = 1): Optics {
  const own = CLARITY_OPTICS[clarity];
  const absorption = { ...own.absorption };
  const scattering = { ...own.scattering };
  for (const { colourant, gramsPer100 } of doses) {
    const amount = gramsPer100 * strength;
    for (const channel of CHANNELS) {
      absorption[channel] += colourant.absorption[channel] * amount;
      scattering[channel] += (colourant.scattering?.[channel] ?? 0) * amount;
    }
  }
  return { absorption, scattering };
}

export const CHANNELS = ['red', 'green', 'blue'] as const;
