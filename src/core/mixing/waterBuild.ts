import { reference } from '../model/reference';
import { z } from 'zod';
import type { TintPour } from '../tint/waterTint';

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

/** A stretch of water of one product and one tint, from the surface down; the last goes on to the bed. */
export interface WaterStretch<P> extends TintPour {
  product: P;
  /** Which coat it is of, from the surface down. */
  coat: number;
  /** Plants are set before the lowest layer of that coat is poured. */
  plantsBefore?: boolean;
}

/** Ends that lie closer than this are one. */
const SAME_MM = 1e-9;

/**
 * The stretches of water from the surface down where coats of other products lie over one that fills the rest, and the recipe is
 * poured pour by pour: each ends where a coat or a pour does. Depths only; where the bed is higher the lower ones are left out.
 */
export function waterStretches<P>(
  fill: P,
  coats: readonly { product: P; thicknessMm: number; tint: Coat['tint']; plantsBefore?: boolean | undefined }[],
  pours: readonly TintPour[],
): WaterStretch<P>[] {
  const stretches: WaterStretch<P>[] = [];
  let at = 0;
  let [coat, pour] = [0, 0];
  let coatEnds = coats[0]?.thicknessMm ?? Infinity;
  const lengthOf = (i: number): number => (i >= pours.length - 1 ? Infinity : (pours[i]!.thicknessMm ?? Infinity));
  let pourEnds = lengthOf(0);
  for (;;) {
    const own = coats[coat];
    const to = Math.min(coatEnds, pourEnds);
    const { strength, own: doses } = pours[pour] ?? { strength: 1 };
    const clear = own?.tint === 'clear';
    stretches.push({
      thicknessMm: Number.isFinite(to) ? to - at : null,
      strength: clear ? 0 : strength,
      ...(!clear && doses && { own: doses }),
      product: own?.product ?? fill,
      coat,
      ...(own?.plantsBefore && { plantsBefore: true }),
    });
    if (!Number.isFinite(to)) return stretches;
    at = to;
    if (coatEnds - to < SAME_MM) {
      coat++;
      coatEnds = coat < coats.length ? to + coats[coat]!.thicknessMm : Infinity;
    }
    if (pourEnds - to < SAME_MM) {
      pour++;
      pourEnds = to + lengthOf(pour);
    }
  }
}
