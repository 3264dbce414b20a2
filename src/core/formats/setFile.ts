import { z } from 'zod';
import { pieceDesignSchema } from '../model/designSchema';
import { productSchema } from '../model/productSchema';
import { mapReferences, reference, type Thing } from '../model/reference';
import { planRequestSchema, planSchema, type Amounts } from '../plan';
import { batchSchema, logNoteSchema, pieceSchema, pourRecordSchema, waterSetSchema } from '../records/recordSchemas';
import { colourantSchema, recipeSchema } from '../model/recipeSchema';

const stored = <S extends z.ZodType>(thing: Thing, data: S) => z.object({ id: reference(thing), data });

/** What happened at the bench with a batch: the plan that was kept, and every entry. */
export const benchWorkSchema = z.object({
  kept: z
    .object({
      request: planRequestSchema,
      amounts: z.custom<Amounts>(
        (value) =>
          z.looseObject({ layers: z.array(z.looseObject({ number: z.number() })).min(1) }).safeParse(value).success,
        'The amounts of a kept plan cannot be read',
      ),
    })
    .nullable(),
  entries: z.array(pourRecordSchema.extend({ struck: z.boolean(), enteredAt: z.string().max(30) })).max(2000),
});
export type BenchWork = z.infer<typeof benchWorkSchema>;

/** One set to hand on: all that is in it, and what it uses of the shelf. */
export const setFileSchema = z.object({
  format: z.literal('aguada.set'),
  version: z.literal(1),
  set: stored('set', waterSetSchema),
  designs: z.array(stored('design', pieceDesignSchema)).max(500),
  pieces: z.array(stored('piece', pieceSchema)).max(5000),
  /** What the maker wrote into the log of it. */
  notes: z
    .array(z.object({ id: z.string().min(1).max(40), data: logNoteSchema }))
    .max(5000)
    .default([]),
  batches: z.array(stored('batch', batchSchema).extend({ bench: benchWorkSchema.nullable() })).max(5000),
  shelf: z.object({
    products: z.array(stored('product', productSchema)).max(200),
    recipes: z.array(stored('recipe', recipeSchema)).max(200),
    colourants: z.array(stored('colourant', colourantSchema)).max(200),
  }),
});
export type SetFile = z.infer<typeof setFileSchema>;

/** An id that can stand in an address as it is. */
export const isPlainId = (id: string): boolean => /^[A-Za-z0-9_-]{1,40}$/.test(id);

/**
 * The same set under other ids where its own are taken: every id and every name that a schema declares (`reference`), in kept plans
 * too. `renew` gives the new id of a thing, or the same.
 */
export function withNewIds(file: SetFile, renew: (id: string) => string): SetFile {
  const renewed = mapReferences(setFileSchema, file, renew);
  return {
    ...renewed,
    batches: renewed.batches.map((batch) => {
      const kept = batch.bench?.kept;
      return kept
        ? {
            ...batch,
            bench: { ...batch.bench!, kept: { ...kept, amounts: mapReferences(planSchema, kept.amounts, renew) } },
          }
        : batch;
    }),
  };
}
