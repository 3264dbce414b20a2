import type Sqlite from 'better-sqlite3';
import type { BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import type { RecordData, RecordKind } from '@/core/records/recordSchemas';
import type * as schema from './schema';

export type Database = BetterSQLite3Database<typeof schema> & { $client: Sqlite.Database };

/** The database, or a transaction on it. */
export type Connection = Pick<Database, 'select' | 'insert' | 'update' | 'delete' | 'all' | 'get' | 'run'>;

/** A record without its version and date: what undo puts back. */
export interface RowImage {
  position: number;
  data: unknown;
  setId: string | null;
  /** The shape of `data`, of a document. */
  shape?: number;
  /** What goes with the record when it is deleted, and comes back with it: what happened at the bench with a batch. */
  attached?: unknown;
}

/** What one edit did to one record. `version` is its last version before it was deleted or changed. */
export interface Change {
  kind: RecordKind;
  id: string;
  before: (RowImage & { version: number }) | null;
  after: RowImage | null;
  /** What had to go with the record when it was taken away by undo or redo; it comes back with it. */
  along?: Change[];
}

/** The writes that an edit may make. Every one of them is noted down for undo. */
export interface EditWriter {
  db: Connection;
  /** Replaces a record's data; a version that is not the record's own is stale. `null` writes over whatever is there. */
  put: <K extends RecordKind>(kind: K, id: string, data: RecordData<K>, version: number | null) => void;
  add: <K extends RecordKind>(kind: K, id: string, data: RecordData<K>, setId?: string) => void;
  remove: (kind: RecordKind, id: string, version: number | null) => void;
}

/** How records of one kind are kept. */
export interface Storage {
  /** A record as undo needs it, with its version; null when there is none. */
  image: (db: Connection, id: string) => (RowImage & { version: number }) | null;
  /** Writes a record with the given version, over the one there or anew. */
  write: (db: Connection, id: string, image: RowImage, version: number, now: string) => void;
  /** Deletes a record; what goes with it. */
  remove: (db: Connection, id: string, now: string) => unknown;
  /** The position after the last (of one set). */
  nextPosition: (db: Connection, setId: string | null) => number;
}

/** The record that a message is about, in words. */
export const KIND_WORDS: Record<RecordKind, string> = {
  settings: 'workshop',
  product: 'product',
  colourant: 'colourant',
  recipe: 'recipe',
  set: 'set',
  design: 'design',
  piece: 'piece',
  batch: 'batch',
  pour: 'layer',
  consumable: 'consumable',
  lot: 'lot',
  movement: 'movement',
  note: 'note',
};
