import { z } from 'zod';
import { pieceDesignSchema } from '../bed/schema';
import { productSchema } from '../mixing/product';
import { planRequestSchema, type Amounts } from '../plan';
import { batchSchema, pieceSchema, pourRecordSchema, waterSetSchema } from '../records/schema';
import { colourantSchema, recipeSchema } from '../tint/schema';

const id = z.string().min(1).max(40);
const stored = <S extends z.ZodType>(data: S) => z.object({ id, data });

/** What happened at the bench with a batch: the plan that was kept, and every entry. */
export const benchSchema = z.object({
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
export type BatchBench = z.infer<typeof benchSchema>;

/** One set to hand on: all that is in it, and what it uses of the shelf. */
export const setFileSchema = z.object({
  format: z.literal('aguada.set'),
  version: z.literal(1),
  set: stored(waterSetSchema),
  designs: z.array(stored(pieceDesignSchema)).max(500),
  pieces: z.array(stored(pieceSchema)).max(5000),
  batches: z.array(stored(batchSchema).extend({ bench: benchSchema.nullable() })).max(5000),
  shelf: z.object({
    products: z.array(stored(productSchema)).max(200),
    recipes: z.array(stored(recipeSchema)).max(200),
    colourants: z.array(stored(colourantSchema)).max(200),
  }),
});
export type SetFile = z.infer<typeof setFileSchema>;

/** An id that can stand in an address as it is. */
export const isPlainId = (id: string): boolean => /^[A-Za-z0-9_-]{1,40}$/.test(id);

/** The keys under which one record names another. */
export const NAMING: ReadonlySet<string> = new Set(['designId', 'fillerId', 'productId', 'recipeId', 'colourantId']);
/** Under these a kept plan holds things of the shelf whole, or their amounts, and a set its standards and tables, each with its id. */
const WHOLE: ReadonlySet<string> = new Set([
  ...['product', 'products', 'recipe', 'colourant', 'doses', 'colours', 'drops'],
  ...['standards', 'standard', 'tables'],
]);
/** Under these the values, or the keys, are ids. */
const BY_EDGE = 'edgeStandards';
const BY_COLOURANT = 'own';

/**
 * The same set under other ids where its own are taken: records and whatever names them, in kept plans too. `renew` gives the new
 * id of a record, or the same.
 */
export function withNewIds(file: SetFile, renew: (id: string) => string): SetFile {
  const named = <T>(value: T, under = ''): T => {
    if (Array.isArray(value)) return value.map((part: unknown) => named(part, under)) as T;
    if (typeof value !== 'object' || value === null) return value;
    return Object.fromEntries(
      Object.entries(value).map(([key, part]) => {
        const names = NAMING.has(key) || (key === 'id' && WHOLE.has(under)) || under === BY_EDGE;
        return [
          under === BY_COLOURANT ? renew(key) : key,
          names && typeof part === 'string' ? renew(part) : named(part, key),
        ];
      }),
    ) as T;
  };
  const moved = <T extends { id: string }>(records: readonly T[]): T[] =>
    records.map((record) => ({ ...named(record, ''), id: renew(record.id) }));
  const { set, designs, pieces, batches, shelf } = file;
  return {
    ...file,
    set: moved([set])[0]!,
    designs: moved(designs),
    pieces: moved(pieces),
    batches: moved(batches),
    shelf: {
      products: moved(shelf.products),
      recipes: moved(shelf.recipes),
      colourants: moved(shelf.colourants),
    },
  };
}
