import { z } from 'zod';
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
export const tintPourSchema = z.object({
  thicknessMm: z.number({ error: 'Type a number' }).gt(0, 'Must be more than 0').max(60, 'At most 60 mm').nullable(),
  strength: z.number({ error: 'Type a number' }).min(0, 'Cannot be negative').max(5, 'At most five times'),
});
export type TintPour = z.infer<typeof tintPourSchema>;
export const MOST_POURS = 6;
export const tintPoursSchema = z.array(tintPourSchema).max(MOST_POURS, `At most ${MOST_POURS} pours`);

/**
 * Pours that run from clear on top to dark at the bottom: `count` of them, equally thick over `deepestMm`. At the deepest they hold
 * as much colourant together as the even recipe (their strengths have the mean 1), so the deep keeps its colour while the shore
 * stays clear. `gradient` 0 is even, 1 runs from nothing to twice.
 */
export function gradientPours(deepestMm: number, count: number, gradient = 1): TintPour[] {
  return Array.from({ length: count }, (_, i) => ({
    thicknessMm: i === count - 1 ? null : deepestMm / count,
    strength: count === 1 ? 1 : 1 - gradient + (gradient * 2 * i) / (count - 1),
  }));
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
