import { z } from 'zod';
import { reference } from './reference';

/** How clear a product cures by itself. */
export const CLARITIES = ['water-clear', 'slightly yellow', 'hazy'] as const;
export type Clarity = (typeof CLARITIES)[number];

const ownDose = z.number({ error: 'Type a number' }).min(0, 'Cannot be negative').max(20, 'At most 20 g per 100 g');

export const MOST_STRENGTH = 5;

/** Grams of a colourant per 100 g of one pour, by the colourant's id. */
export const ownDosesSchema = z.record(reference('colourant'), ownDose);
export type OwnDoses = z.infer<typeof ownDosesSchema>;

/**
 * One pour of the water, counted from the surface down. `strength` multiplies every dose of the recipe; a colourant in `own` is
 * dosed by that alone. The last pour goes on to the bed.
 */
export const tintPourSchema = z.object({
  thicknessMm: z.number({ error: 'Type a number' }).gt(0, 'Must be more than 0').max(60, 'At most 60 mm').nullable(),
  strength: z
    .number({ error: 'Type a number' })
    .min(0, 'Cannot be negative')
    .max(MOST_STRENGTH, `At most ${MOST_STRENGTH} times`),
  own: ownDosesSchema.optional(),
});
export type TintPour = z.infer<typeof tintPourSchema>;
export const MOST_POURS = 6;
/** The recipe as it is, from the surface to the bed. */
export const EVEN_POUR: TintPour = { thicknessMm: null, strength: 1 };
export const tintPoursSchema = z.array(tintPourSchema).max(MOST_POURS, `At most ${MOST_POURS} pours`);

/** What a pour is tinted by. */
export type PourTint = Pick<TintPour, 'strength' | 'own'>;
