import { integer, sqliteTable, text, index } from 'drizzle-orm/sqlite-core';

/** Columns that every kept thing has. `data` is JSON, validated by the record's schema on the way in and out. */
const recordColumns = () => ({
  id: text('id').primaryKey(),
  version: integer('version').notNull().default(1),
  position: integer('position').notNull().default(0),
  data: text('data', { mode: 'json' }).$type<unknown>().notNull(),
  updatedAt: text('updated_at').notNull(),
});

export const settings = sqliteTable('settings', recordColumns());
export const products = sqliteTable('products', recordColumns());
export const colourants = sqliteTable('colourants', recordColumns());
export const recipes = sqliteTable('recipes', recordColumns());

export const sets = sqliteTable('sets', {
  ...recordColumns(),
  productId: text('product_id')
    .notNull()
    .references(() => products.id),
  recipeId: text('recipe_id')
    .notNull()
    .references(() => recipes.id),
});

export const designs = sqliteTable(
  'designs',
  {
    ...recordColumns(),
    setId: text('set_id')
      .notNull()
      .references(() => sets.id),
  },
  (table) => [index('designs_set').on(table.setId)],
);

/** Single copies that have measurements of their own. */
export const pieces = sqliteTable(
  'pieces',
  {
    ...recordColumns(),
    setId: text('set_id')
      .notNull()
      .references(() => sets.id),
  },
  (table) => [index('pieces_set').on(table.setId)],
);

export const batches = sqliteTable(
  'batches',
  {
    ...recordColumns(),
    setId: text('set_id')
      .notNull()
      .references(() => sets.id),
  },
  (table) => [index('batches_set').on(table.setId)],
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
  (table) => [index('edits_scope').on(table.scope, table.id)],
);
