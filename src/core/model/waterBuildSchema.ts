import { z } from 'zod';
import { reference } from './reference';

const number = z.number({ error: 'Type a number' });
const productId = reference('product', 'refused');

/** A coat over the product that fills the bed, so thick at the end; deeper water has no more of it. */
export const coatSchema = z.object({
  productId,
  thicknessMm: number.gt(0, 'Must be more than 0').max(60, 'At most 60 mm'),
  /** Tinted as the recipe has it at that depth, or left clear. */
  tint: z.enum(['recipe', 'clear']),
  /** Plants are set on what lies beneath before this coat is poured. */
  plantsBefore: z.boolean().optional(),
});
export type Coat = z.infer<typeof coatSchema>;

/** What goes over the surface when the water is done: a film of a surface product, in so many coats. */
export const finishSchema = z.object({
  productId,
  /** Of each coat, when dry. */
  filmMm: number.min(0.02, 'At least 0.02 mm').max(3, 'At most 3 mm'),
  coats: number.int('Type a whole number').min(1, 'At least 1').max(6, 'At most 6 coats'),
});
export type Finish = z.infer<typeof finishSchema>;

export const MOST_COATS = 4;

/** How water is built up over the set's product: its coats from the surface down, plants, and the surface finish. */
export const waterBuildSchema = z.object({
  coats: z.array(coatSchema).max(MOST_COATS, `At most ${MOST_COATS} coats`),
  /** Plants stand on the bed before anything is poured. */
  plantsFirst: z.boolean().optional(),
  finish: finishSchema.optional(),
});
export type WaterBuild = z.infer<typeof waterBuildSchema>;
export const PLAIN_BUILD: WaterBuild = { coats: [] };
