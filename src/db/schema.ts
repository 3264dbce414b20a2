import { sql } from 'drizzle-orm';
import { DEVICE_ROLES } from '@/core/records/devices';
import { MOVEMENT_KINDS, STOCK_KINDS, STOCK_PARTS, type Lot } from '@/core/model/stockSchema';
import type { HardenedLook } from '@/core/cure/hardened';
import type { WeighedCup } from '@/core/records/recordSchemas';
import type { OwnDoses } from '@/core/model/tintSchema';
import {
  blob,
  check,
  foreignKey,
  index,
  integer,
  primaryKey,
  real,
  sqliteTable,
  text,
  uniqueIndex,
} from 'drizzle-orm/sqlite-core';

/*
 * Documents and rows. What is drawn or wished (designs, recipes, sets with their tables) is a document: JSON, checked by the
 * record's schema on the way in and out. What is counted, dated or grows for years (batches, their layers, cups and pours) is rows
 * of real columns, summed and searched in SQL and guarded by the database.
 */

/** Columns that every document has. `shape` is the version of the shape of its `data`. */
const documentColumns = () => ({
  id: text('id').primaryKey(),
  version: integer('version').notNull().default(1),
  shape: integer('shape').notNull().default(1),
  position: integer('position').notNull().default(0),
  data: text('data', { mode: 'json' }).$type<unknown>().notNull(),
  updatedAt: text('updated_at').notNull(),
});

export const settings = sqliteTable('settings', documentColumns());
export const products = sqliteTable('products', documentColumns());
export const colourants = sqliteTable('colourants', documentColumns());
export const recipes = sqliteTable('recipes', documentColumns());
export const consumables = sqliteTable('consumables', documentColumns());
/** What makers write into the log. */
export const notes = sqliteTable('notes', documentColumns());

export const sets = sqliteTable('sets', {
  ...documentColumns(),
  productId: text('product_id')
    .notNull()
    .references(() => products.id),
  recipeId: text('recipe_id')
    .notNull()
    .references(() => recipes.id),
});

const setId = () =>
  text('set_id')
    .notNull()
    .references(() => sets.id);

export const designs = sqliteTable('designs', { ...documentColumns(), setId: setId() }, (table) => [
  index('designs_set').on(table.setId),
]);

/** Single copies that have measurements of their own. */
export const pieces = sqliteTable('pieces', { ...documentColumns(), setId: setId() }, (table) => [
  index('pieces_set').on(table.setId),
]);

export const batches = sqliteTable(
  'batches',
  {
    id: text('id').primaryKey(),
    version: integer('version').notNull().default(1),
    position: integer('position').notNull().default(0),
    setId: setId(),
    name: text('name').notNull(),
    pourAt: text('pour_at').notNull(),
    benchWindows: text('bench_windows', { mode: 'json' }).$type<unknown>(),
    /** Pieces moved to other cups by hand; null: none. */
    moves: text('moves', { mode: 'json' }).$type<unknown>(),
    /** In what it departs from the workshop; null where in nothing. */
    own: text('own', { mode: 'json' }).$type<unknown>(),
    /** What happened to its steps beside the pours, and the calendar that is kept; null while nothing did. */
    course: text('course', { mode: 'json' }).$type<unknown>(),
    /** What became of its copies; null while nothing did. */
    fates: text('fates', { mode: 'json' }).$type<unknown>(),
    inspections: text('inspections', { mode: 'json' }).$type<unknown>(),
    /** Photos of its copies, by the sums of their bytes. */
    photos: text('photos', { mode: 'json' }).$type<unknown>(),
    updatedAt: text('updated_at').notNull(),
  },
  (table) => [index('batches_set').on(table.setId, table.position)],
);

/** The bytes of photos, each known by their sum (SHA-256). Written once, never changed; batches name them. */
export const photos = sqliteTable('photos', {
  id: text('id').primaryKey(),
  bytes: blob('bytes', { mode: 'buffer' }).notNull(),
  keptAt: text('kept_at').notNull(),
});

const batchId = () =>
  text('batch_id')
    .notNull()
    .references(() => batches.id, { onDelete: 'cascade' });

/** How many copies of a design a batch takes. */
export const batchItems = sqliteTable(
  'batch_items',
  {
    batchId: batchId(),
    designId: text('design_id')
      .notNull()
      .references(() => designs.id),
    position: integer('position').notNull(),
    copies: integer('copies').notNull(),
    /** The number of the first of them. */
    first: integer('first').notNull().default(1),
    /** All their numbers, where these do not follow one on the other; else null. */
    numbers: text('numbers', { mode: 'json' }).$type<number[]>(),
  },
  (table) => [
    primaryKey({ columns: [table.batchId, table.designId] }),
    index('batch_items_design').on(table.designId),
    check('batch_items_copies', sql`${table.copies} >= 1`),
  ],
);

/** What was planned when the first layer was poured, apart from its layers: the request, and the figures of pieces and totals. */
export const keptPlans = sqliteTable('kept_plans', {
  batchId: batchId().primaryKey(),
  request: text('request', { mode: 'json' }).$type<unknown>().notNull(),
  amounts: text('amounts', { mode: 'json' }).$type<unknown>().notNull(),
  keptAt: text('kept_at').notNull(),
});

const grams = (name: string) => real(name).notNull();

/** The layers of a kept plan. */
export const layers = sqliteTable(
  'layers',
  {
    batchId: text('batch_id')
      .notNull()
      .references(() => keptPlans.batchId, { onDelete: 'cascade' }),
    number: integer('number').notNull(),
    fromMm: real('from_mm').notNull(),
    toMm: real('to_mm').notNull(),
    thicknessMm: real('thickness_mm').notNull(),
    wetMm: real('wet_mm').notNull(),
    /** Of what it was poured, and whether plants were set before; null in plans of one product. */
    productId: text('product_id'),
    plantsBefore: integer('plants_before', { mode: 'boolean' }),
    /** What every dose was multiplied by; null in plans kept before recipes had pours. */
    strength: real('strength'),
    /** What a layer had of colourants of its own, g per 100 g by id; null where it had none. */
    own: text('own', { mode: 'json' }).$type<OwnDoses>(),
    volumeMl: real('volume_ml').notNull(),
    pouredGrams: grams('poured_grams'),
    mixGrams: grams('mix_grams'),
    fewestCups: integer('fewest_cups').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.batchId, table.number] }),
    check('layers_grams', sql`${table.mixGrams} >= ${table.pouredGrams} and ${table.pouredGrams} >= 0`),
  ],
);

/** The cups of each planned layer. */
export const cups = sqliteTable(
  'cups',
  {
    batchId: text('batch_id').notNull(),
    layer: integer('layer').notNull(),
    number: integer('number').notNull(),
    pouredGrams: grams('poured_grams'),
    mixGrams: grams('mix_grams'),
    partAGrams: real('part_a_grams'),
    partBGrams: real('part_b_grams'),
    partAMl: real('part_a_ml'),
    partBMl: real('part_b_ml'),
    potLifeMinutes: real('pot_life_minutes').notNull(),
    /** Colourants of the cup, by id: grams, drops, how far the drops are off. */
    doses: text('doses', { mode: 'json' }).$type<unknown>().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.batchId, table.layer, table.number] }),
    foreignKey({ columns: [table.batchId, table.layer], foreignColumns: [layers.batchId, layers.number] }).onDelete(
      'cascade',
    ),
    check('cups_grams', sql`${table.mixGrams} >= ${table.pouredGrams} and ${table.pouredGrams} >= 0`),
  ],
);

/** What each cup was planned to fill: a copy of a design, so many grams. The design may be gone by now. */
export const cupPours = sqliteTable(
  'cup_pours',
  {
    batchId: text('batch_id').notNull(),
    layer: integer('layer').notNull(),
    cup: integer('cup').notNull(),
    position: integer('position').notNull(),
    designId: text('design_id').notNull(),
    copy: integer('copy').notNull(),
    tag: text('tag').notNull(),
    grams: grams('grams'),
  },
  (table) => [
    primaryKey({ columns: [table.batchId, table.layer, table.cup, table.position] }),
    foreignKey({
      columns: [table.batchId, table.layer, table.cup],
      foreignColumns: [cups.batchId, cups.layer, cups.number],
    }).onDelete('cascade'),
    check('cup_pours_grams', sql`${table.grams} >= 0 and ${table.copy} >= 1`),
  ],
);

/**
 * What happened at the bench: entries, never changed. The last entry of a layer is what holds; one that is struck says that the
 * layer was not poured after all.
 */
export const pours = sqliteTable(
  'pours',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    batchId: batchId(),
    layer: integer('layer').notNull(),
    struck: integer('struck', { mode: 'boolean' }).notNull().default(false),
    pouredAt: text('poured_at').notNull(),
    /** When its last piece was poured, where that was read. */
    pouredUntil: text('poured_until'),
    temperatureC: real('temperature_c').notNull(),
    note: text('note').notNull(),
    /** What of its stock tint and premixes went into no cup; null: as planned. */
    tintLeft: text('tint_left', { mode: 'json' }).$type<{
      resinGrams: number;
      colours: { id: string; grams: number }[];
    }>(),
    /** Lots past their date that the maker took all the same. */
    expiredLots: text('expired_lots', { mode: 'json' }).$type<string[]>(),
    /** How it was found while it hardened; null: nobody touched it. */
    hardened: text('hardened', { mode: 'json' }).$type<HardenedLook[]>(),
    enteredAt: text('entered_at').notNull(),
  },
  (table) => [
    index('pours_batch').on(table.batchId, table.layer, table.id),
    index('pours_when').on(table.pouredAt),
    check('pours_layer', sql`${table.layer} >= 1`),
  ],
);

/** What the scale showed for each cup of an entry. */
export const weighings = sqliteTable(
  'weighings',
  {
    pourId: integer('pour_id')
      .notNull()
      .references(() => pours.id, { onDelete: 'cascade' }),
    cup: integer('cup').notNull(),
    partAGrams: grams('part_a_grams'),
    partBGrams: real('part_b_grams'),
    note: text('note').notNull(),
    /** What reached the pieces, as it was read at the bench; null where only the parts were entered. */
    pouredGrams: real('poured_grams'),
    /** Thrown away before it was empty. */
    discarded: integer('discarded', { mode: 'boolean' }).notNull().default(false),
    /** Colourants as they were counted or weighed, grams by id; null: to the recipe. */
    doses: text('doses', { mode: 'json' }).$type<{ id: string; grams: number }[]>(),
    /** Lots that were named for it; null: none. */
    lots: text('lots', { mode: 'json' }).$type<string[]>(),
    /** What was read and timed of it at the bench; null: it was entered by hand. */
    bench: text('bench', { mode: 'json' }).$type<NonNullable<WeighedCup['bench']>>(),
  },
  (table) => [
    primaryKey({ columns: [table.pourId, table.cup] }),
    check(
      'weighings_grams',
      sql`${table.partAGrams} >= 0 and (${table.partBGrams} is null or ${table.partBGrams} >= 0)`,
    ),
  ],
);

/** What of a cup of an entry reached which piece. The design may be gone by now; copy 0 is the filler. */
export const pouredPieces = sqliteTable(
  'poured_pieces',
  {
    pourId: integer('pour_id').notNull(),
    cup: integer('cup').notNull(),
    position: integer('position').notNull(),
    designId: text('design_id').notNull(),
    copy: integer('copy').notNull(),
    tag: text('tag').notNull(),
    grams: grams('grams'),
  },
  (table) => [
    primaryKey({ columns: [table.pourId, table.cup, table.position] }),
    foreignKey({ columns: [table.pourId, table.cup], foreignColumns: [weighings.pourId, weighings.cup] }).onDelete(
      'cascade',
    ),
    index('poured_pieces_design').on(table.designId, table.copy),
    check('poured_pieces_grams', sql`${table.grams} >= 0 and ${table.copy} >= 0`),
  ],
);

/**
 * Batches as they are carried out. A run is its plan as it was when it began, and its events; the batch may be changed or gone by now.
 * Practice leaves nothing in log and ledger.
 */
export const runs = sqliteTable(
  'runs',
  {
    id: text('id').primaryKey(),
    setId: text('set_id').notNull(),
    batchId: text('batch_id').notNull(),
    name: text('name').notNull(),
    /** Null: in earnest. Else how many times faster than real it goes, and the seed of its slips. */
    practiceSpeed: real('practice_speed'),
    seed: integer('seed').notNull().default(0),
    plan: text('plan', { mode: 'json' }).$type<unknown>().notNull(),
    begunAt: integer('begun_at').notNull(),
    overAt: integer('over_at'),
  },
  (table) => [index('runs_set').on(table.setId, table.begunAt), index('runs_open').on(table.overAt)],
);

/** What happened in a run, in the order in which it came to the server. Only ever added. */
export const runEvents = sqliteTable(
  'run_events',
  {
    runId: text('run_id')
      .notNull()
      .references(() => runs.id, { onDelete: 'cascade' }),
    seq: integer('seq').notNull(),
    /** Sent twice, an event is taken once. */
    eventId: text('event_id').notNull(),
    at: integer('at').notNull(),
    data: text('data', { mode: 'json' }).$type<unknown>().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.runId, table.seq] }),
    uniqueIndex('run_events_once').on(table.runId, table.eventId),
  ],
);

/** How warm and humid the room was, as a sensor said: one a quarter of an hour, or when it changed. */
export const roomReadings = sqliteTable(
  'room_readings',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    /** On the wall clock of the workshop, and as a moment. */
    wallAt: text('wall_at').notNull(),
    at: integer('at').notNull(),
    temperatureC: real('temperature_c').notNull(),
    humidity: real('humidity'),
  },
  (table) => [index('room_readings_when').on(table.wallAt)],
);

/** One bottle, kit or pack that was bought. What is left of it is the sum of its movements. */
export const lots = sqliteTable(
  'lots',
  {
    id: text('id').primaryKey(),
    version: integer('version').notNull().default(1),
    position: integer('position').notNull().default(0),
    itemKind: text('item_kind', { enum: STOCK_KINDS }).notNull(),
    itemId: text('item_id').notNull(),
    name: text('name').notNull(),
    bought: text('bought', { mode: 'json' }).$type<Lot['bought']>().notNull(),
    boughtOn: text('bought_on').notNull(),
    openedOn: text('opened_on'),
    bestBefore: text('best_before'),
    price: real('price').notNull(),
    /** Taken out of the books: it was entered by mistake. Its movements stay, with those that undo them. */
    gone: integer('gone', { mode: 'boolean' }).notNull().default(false),
    updatedAt: text('updated_at').notNull(),
  },
  (table) => [
    index('lots_item').on(table.itemKind, table.itemId),
    check('lots_price', sql`${table.price} >= 0`),
    check('lots_opened', sql`${table.openedOn} is null or ${table.openedOn} >= ${table.boughtOn}`),
  ],
);

/**
 * The ledger: every gram (or piece) that came, was opened, poured, lost, thrown away, found or corrected, and what is reserved for
 * whom. Rows are only ever added; triggers refuse to change or delete one, and to let a part of a lot fall below nothing.
 */
export const movements = sqliteTable(
  'movements',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    /** By which an edit knows the movement that it made. */
    key: text('key').unique(),
    /** Null for what is reserved: that is meant for a batch, out of whichever lot. */
    lotId: text('lot_id').references(() => lots.id),
    itemKind: text('item_kind', { enum: STOCK_KINDS }).notNull(),
    itemId: text('item_id').notNull(),
    part: text('part', { enum: STOCK_PARTS }).notNull(),
    /** Positive comes, negative goes. */
    amount: real('amount').notNull(),
    kind: text('kind', { enum: MOVEMENT_KINDS }).notNull(),
    at: text('at').notNull(),
    note: text('note').notNull(),
    /** What caused it: a cup of a layer of a batch. The batch may be gone by now. */
    batchId: text('batch_id'),
    layer: integer('layer'),
    cup: integer('cup'),
    /** The movement that this one takes back. */
    counters: integer('counters'),
    enteredAt: text('entered_at').notNull(),
  },
  (table) => [
    // What is left of a lot, and when it last moved, stand in the index itself.
    index('movements_lot').on(table.lotId, table.part, table.amount, table.at),
    index('movements_item').on(table.itemKind, table.itemId, table.part),
    index('movements_batch').on(table.batchId, table.layer),
    index('movements_counters').on(table.counters),
    check('movements_lot_or_reserved', sql`(${table.lotId} is null) = (${table.kind} in ('reserved', 'released'))`),
  ],
);

/** Devices that were paired: only the hash of the secret that each keeps. */
export const devices = sqliteTable('devices', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  role: text('role', { enum: DEVICE_ROLES }).notNull(),
  tokenHash: text('token_hash').notNull().unique(),
  pairedAt: text('paired_at').notNull(),
  seenAt: text('seen_at').notNull(),
  shutOut: integer('shut_out', { mode: 'boolean' }).notNull().default(false),
});

/** Edits that were answered, by the key that they carried: a retry after a lost answer is known again for a day. */
export const answered = sqliteTable(
  'answered',
  {
    key: text('key').primaryKey(),
    at: integer('at').notNull(),
    done: text('done', { mode: 'json' }).$type<unknown>().notNull(),
  },
  (table) => [index('answered_at').on(table.at)],
);

/** The journal that undo and redo read: each edit with every row it touched, before and after. */
export const edits = sqliteTable(
  'edits',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    scope: text('scope').notNull(),
    label: text('label').notNull(),
    at: text('at').notNull(),
    undone: integer('undone', { mode: 'boolean' }).notNull().default(false),
    changes: text('changes', { mode: 'json' }).$type<unknown>().notNull(),
  },
  (table) => [index('edits_scope').on(table.scope, table.undone, table.id)],
);
