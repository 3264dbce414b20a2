import { reference } from './reference';
import { z } from 'zod';
import { wallTimeSchema } from '../time/wallTime';
import { hexColour } from './hexColour';
import { tintPoursSchema } from './tintSchema';

const number = z.number({ error: 'Type a number' });

export const COLOURANT_KINDS = [
  'ink',
  'alcohol ink',
  'food dye',
  'acrylic paint',
  'wash',
  'dry pigment',
  'resin dye',
] as const;

/** Absorption per mm of water for 1 g of colourant in 100 g of product, in linear light: red, green, blue. */
const absorption = number.min(0, 'Cannot be negative').max(500, 'At most 500');

const perChannel = z.object({ red: absorption, green: absorption, blue: absorption });

/** A test pour of one colourant: dose, depth, the ground under it and the colour that it came to, as screens have them. */
export const swatchSchema = z.object({
  gramsPer100: number.min(0, 'Cannot be negative').max(20, 'At most 20 g per 100 g'),
  depthMm: number.gt(0, 'A swatch has some depth').max(60, 'At most 60 mm'),
  ground: hexColour,
  seen: hexColour,
  /** When it was entered; those of before are in no log. */
  at: wallTimeSchema.optional(),
  /** Kept in the list, and left out of the fit. */
  rejected: z.boolean().optional(),
});
export type Swatch = z.infer<typeof swatchSchema>;

/** What tints. `absorption` is a first, typical figure for the kind until a swatch is measured. */
export const colourantSchema = z.object({
  name: z.string().trim().min(1, 'Give it a name').max(60, 'At most 60 characters'),
  kind: z.enum(COLOURANT_KINDS),
  absorption: perChannel,
  /** What it throws back: cloudy colourants only. In the same measure as the absorption. */
  scattering: perChannel.optional(),
  /** Test pours from which absorption and scattering were fitted; none: typical figures of its kind. */
  swatches: z.array(swatchSchema).max(40, 'At most 40 swatches').optional(),
  dropGrams: number.gt(0, 'Must be more than 0').max(1, 'A drop weighs less than 1 g'),
  bottleGrams: number.gt(0, 'Must be more than 0').max(100_000),
  bottlePrice: number.min(0, 'Cannot be negative').max(100_000),
});
export type Colourant = z.infer<typeof colourantSchema>;

/** A drop of a thin liquid from a common dropper bottle. */
export const DEFAULT_DROP_GRAMS = 0.035;

const doseSchema = z.object({
  colourantId: reference('colourant', 'refused'),
  /** Grams of colourant per 100 g of product. */
  gramsPer100: number.min(0, 'Cannot be negative').max(20, 'At most 20 g per 100 g'),
});

/** Colourants per 100 g of product, so that the colour can be made again. No doses: clear. */
export const recipeSchema = z.object({
  name: z.string().trim().min(1, 'Give it a name').max(60, 'At most 60 characters'),
  doses: z.array(doseSchema).max(5, 'At most five colourants'),
  /** Poured lighter towards the top: each pour's strength, from the surface down. The same all through when nothing is said. */
  pours: tintPoursSchema.optional(),
});
export type Recipe = z.infer<typeof recipeSchema>;

/** Colourants that make water cloudy: they hold grains that throw light back. What was fitted says it better than the kind. */
export const isCloudy = ({ kind, scattering }: Pick<Colourant, 'kind' | 'scattering'>): boolean =>
  scattering
    ? scattering.red + scattering.green + scattering.blue > 0
    : kind === 'acrylic paint' || kind === 'dry pigment';

/** Water-based colourants spoil the cure sooner than others. */
export const isWaterBased = (kind: Colourant['kind']): boolean =>
  kind !== 'alcohol ink' && kind !== 'resin dye' && kind !== 'dry pigment';
