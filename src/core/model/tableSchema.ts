import { reference } from './reference';
import { z } from 'zod';
import { pieceRefSchema } from './pieceRef';

/**
 * What the places of a table are: squares; rectangles, their width across the table or up it; hexagons with a flat side to the
 * south, every second column half a place further north.
 */
export const TABLE_GRIDS = ['square', 'rectangle', 'rectangle across', 'hexagon'] as const;
export type TableGridKind = (typeof TABLE_GRIDS)[number];

/** Sides of a tile on the table, anticlockwise from the south as a tile is turned; of four the others are east, north, west. */
const sideSchema = z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3), z.literal(4), z.literal(5)]);
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
/** Files may still count a square tile's turns in quarters. */
const turnsOf = (value: unknown): unknown =>
  typeof value === 'object' && value !== null && 'quarters' in value && !('turns' in value)
    ? { ...value, turns: value.quarters }
    : value;
const laidSchema = z.preprocess(
  turnsOf,
  placeSchema.extend({
    piece: pieceRefSchema,
    /** Steps anticlockwise, each from one side to the next. */
    turns: z.number().int().min(0).max(5),
  }),
);

/** What is wanted of a table. Columns run east, rows north. */
export const tableWishSchema = z.object({
  grid: z.enum(TABLE_GRIDS).default('square'),
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
  /** Tiles that stay where they lie, each turned by so many steps. */
  fixed: z.array(laidSchema).max(MOST_PLACES).default([]),
});
export type TableWish = z.infer<typeof tableWishSchema>;
export type Opening = TableWish['openings'][number];

const tableMm = z.number().gt(0, 'Must be more than 0').max(20_000, 'At most 20 m');

/** A table that the maker keeps: what is wanted of it, and the layout chosen for it, if any. */
export const keptTableSchema = z.object({
  id: reference('table'),
  name: z.string().trim().min(1, 'Give the table a name').max(40, 'At most 40 characters'),
  wish: tableWishSchema,
  laid: z.array(laidSchema).max(MOST_PLACES).nullable().default(null),
  /** The table's own size, where the maker has said: more than its places take. */
  sizeMm: z.object({ acrossMm: tableMm, upMm: tableMm }).optional(),
});
export type KeptTable = z.infer<typeof keptTableSchema>;
