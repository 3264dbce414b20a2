import { asc, eq } from 'drizzle-orm';
import { RECORD_SCHEMAS, type RecordData, type RecordKind, type Stored } from '@/core/records/schema';
import { DataFileError, type Database } from './dataFile';
import * as schema from './schema';

/** The database, or a transaction on it. */
export type Connection = Pick<Database, 'select' | 'insert' | 'update' | 'delete'>;

/** A row without its version and date: what undo puts back. */
export interface RowImage {
  position: number;
  data: unknown;
  setId: string | null;
}

const TABLES = {
  settings: schema.settings,
  product: schema.products,
  colourant: schema.colourants,
  recipe: schema.recipes,
  set: schema.sets,
  design: schema.designs,
  piece: schema.pieces,
  batch: schema.batches,
} as const satisfies Record<RecordKind, unknown>;

// The tables share their columns; one stand-in type lets one function serve all of them.
const tableOf = (kind: RecordKind): typeof schema.designs => TABLES[kind] as typeof schema.designs;
const hasSet = (kind: RecordKind): boolean => kind === 'design' || kind === 'piece' || kind === 'batch';

function parse<K extends RecordKind>(
  kind: K,
  row: { id: string; version: number; data: unknown },
): Stored<RecordData<K>> {
  const parsed = RECORD_SCHEMAS[kind].safeParse(row.data);
  if (!parsed.success)
    throw new DataFileError(
      'damaged',
      `The ${kind} ${row.id} in the data file cannot be read (${parsed.error.issues[0]?.path.join('.')}: ${parsed.error.issues[0]?.message}).`,
    );
  return { id: row.id, version: row.version, data: parsed.data as RecordData<K> };
}

/** All records of a kind in their order; of designs and batches, those of one set. */
export function listRecords<K extends RecordKind>(db: Connection, kind: K, setId?: string): Stored<RecordData<K>>[] {
  const table = tableOf(kind);
  const columns = { id: table.id, version: table.version, data: table.data };
  const rows = db
    .select(columns)
    .from(table)
    .where(setId === undefined ? undefined : eq(table.setId, setId))
    .orderBy(asc(table.position), asc(table.id))
    .all();
  return rows.map((row) => parse(kind, row));
}

/** One record, or null. */
export function getRecord<K extends RecordKind>(db: Connection, kind: K, id: string): Stored<RecordData<K>> | null {
  const table = tableOf(kind);
  const row = db
    .select({ id: table.id, version: table.version, data: table.data })
    .from(table)
    .where(eq(table.id, id))
    .get();
  return row ? parse(kind, row) : null;
}

/** A row as undo needs it, with its version; null when there is none. */
export function getRow(db: Connection, kind: RecordKind, id: string): (RowImage & { version: number }) | null {
  const table = tableOf(kind);
  const row = db
    .select({
      version: table.version,
      position: table.position,
      data: table.data,
      ...(hasSet(kind) && { setId: table.setId }),
    })
    .from(table)
    .where(eq(table.id, id))
    .get();
  return row ? { version: row.version, position: row.position, data: row.data, setId: row.setId ?? null } : null;
}

/** Foreign keys that are kept in columns too, so that the database itself guards them. */
function keyColumns(kind: RecordKind, image: RowImage): object {
  if (hasSet(kind)) return { setId: image.setId };
  if (kind !== 'set') return {};
  const { productId, recipeId } = image.data as RecordData<'set'>;
  return { productId, recipeId };
}

/** Writes a row with the given version, over the one there or anew. */
export function writeRow(
  db: Connection,
  kind: RecordKind,
  id: string,
  image: RowImage,
  version: number,
  now: string,
): void {
  const table = tableOf(kind);
  const values = { position: image.position, data: image.data, version, updatedAt: now, ...keyColumns(kind, image) };
  const updated = db.update(table).set(values).where(eq(table.id, id)).run();
  if (updated.changes === 0)
    db.insert(table)
      .values({ id, ...values } as typeof schema.designs.$inferInsert)
      .run();
}

/** Deletes a row. */
export function deleteRow(db: Connection, kind: RecordKind, id: string): void {
  const table = tableOf(kind);
  db.delete(table).where(eq(table.id, id)).run();
}

/** The position after the last of a kind (of one set). */
export function nextPosition(db: Connection, kind: RecordKind, setId: string | null): number {
  const table = tableOf(kind);
  const rows = db
    .select({ position: table.position })
    .from(table)
    .where(setId === null ? undefined : eq(table.setId, setId))
    .all();
  return rows.reduce((most, { position }) => Math.max(most, position + 1), 0);
}
