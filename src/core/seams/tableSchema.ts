import { z } from 'zod';

/** Sides of a tile on the table, anticlockwise from the south as a tile is turned: 0 south, 1 east, 2 north, 3 west. */
export const TABLE_SIDES = ['south', 'east', 'north', 'west'] as const;
const sideSchema = z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3)]);
export type TableSide = z.infer<typeof sideSchema>;

/** The most places of a table. */
export const MOST_PLACES = 400;
const span = z
  .number({ error: 'Type a whole number' })
  .int('A whole number')
  .min(1, 'At least 1')
  .max(MOST_PLACES, `At most ${MOST_PLACES}`);
const at = z
  .number()
  .int()
  .min(0)
  .max(MOST_PLACES - 1);
const placeSchema = z.object({ column: at, row: at });
export type TablePlace = z.infer<typeof placeSchema>;
const places = z.array(placeSchema).max(MOST_PLACES).default([]);
const laidSchema = placeSchema.extend({ piece: z.string().min(1).max(24), quarters: z.number().int().min(0).max(3) });

/** What is wanted of a table. Columns run east, rows north. */
export const tableWishSchema = z.object({
  columns: span,
  rows: span,
  /** Places without a tile: hills, buildings, the table's own holes. */
  blocked: places,
  /** Places that water must reach, that must be a fork (three ways or more), that must hold a pond. */
  pass: places,
  forks: places,
  ponds: places,
  /** A fork or a pond wherever it fits. */
  anyFork: z.boolean().default(false),
  anyPond: z.boolean().default(false),
  /** Where water leaves the table: the first is where it comes in. */
  openings: z
    .array(placeSchema.extend({ side: sideSchema }))
    .max(80)
    .default([]),
  /** Tiles that stay where they lie, each by its tag and turned by so many quarters anticlockwise. */
  fixed: z.array(laidSchema).max(MOST_PLACES).default([]),
});
export type TableWish = z.infer<typeof tableWishSchema>;
export type Opening = TableWish['openings'][number];

/** A table that the maker keeps: what is wanted of it, and the layout chosen for it, if any. */
export const keptTableSchema = z.object({
  id: z.string().min(1).max(40),
  name: z.string().trim().min(1, 'Give the table a name').max(40, 'At most 40 characters'),
  wish: tableWishSchema,
  laid: z.array(laidSchema).max(MOST_PLACES).nullable().default(null),
});
export type KeptTable = z.infer<typeof keptTableSchema>;
