import type { PieceWater } from '../model/pieceWaterSchema';
import type { Clarity, PourTint, TintPour } from '../model/tintSchema';
import type { LinearRgb } from './colour';
import type { RecipeDose } from './doses';

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
  /** From the surface down; a pour of another product may be clearer than the rest. */
  pours?: readonly (TintPour & { clarity?: Clarity })[];
}

/** Water to which nothing was added, of the clearest product. */
export const CLEAR_TINT: WaterTint = { clarity: 'water-clear', doses: [] };

/** A recipe as one pour has it: every dose times its strength, but those of its own. */
export const pourDoses = (recipe: readonly RecipeDose[], { strength, own }: PourTint): readonly RecipeDose[] =>
  strength === 1 && !own
    ? recipe
    : recipe.map((dose) => ({ ...dose, gramsPer100: own?.[dose.colourant.id] ?? dose.gramsPer100 * strength }));

/** The optics of a product with doses: what absorbs adds, and what scatters adds. */
export function tintOptics({ clarity, doses }: Pick<WaterTint, 'clarity' | 'doses'>): Optics {
  const own = CLARITY_OPTICS[clarity];
  const absorption = { ...own.absorption };
  const scattering = { ...own.scattering };
  for (const { colourant, gramsPer100 } of doses)
    for (const channel of CHANNELS) {
      absorption[channel] += colourant.absorption[channel] * gramsPer100;
      scattering[channel] += (colourant.scattering?.[channel] ?? 0) * gramsPer100;
    }
  return { absorption, scattering };
}

export const CHANNELS = ['red', 'green', 'blue'] as const;

/** What colours the water of a piece with water of its own. */
export const tintOfWater = ({ clarity, doses, pours }: PieceWater): WaterTint => ({
  clarity,
  doses,
  ...(pours && { pours: pours.map(({ clarity: own, ...pour }) => ({ ...pour, ...(own && { clarity: own }) })) }),
});
