import type { RecordKind } from '@/core/records/schema';
import type { Database } from './dataFile';

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
};
