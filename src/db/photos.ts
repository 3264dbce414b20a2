import { and, eq, inArray, lt, sql } from 'drizzle-orm';
import { edits, photos } from './schema';
import type { Connection } from './storage';

/** Keeps the bytes of a photo under their sum; those that are there stay as they are. */
export const keepPhoto = (db: Connection, id: string, bytes: Buffer, now: string): void =>
  void db.insert(photos).values({ id, bytes, keptAt: now }).onConflictDoNothing().run();

export const hasPhoto = (db: Connection, id: string): boolean =>
  db.select({ id: photos.id }).from(photos).where(eq(photos.id, id)).get() !== undefined;

/** A photo, byte for byte as it was kept; null when there is none. */
export const photoBytes = (db: Connection, id: string): Buffer | null =>
  db.select({ bytes: photos.bytes }).from(photos).where(eq(photos.id, id)).get()?.bytes ?? null;

/**
 * Lets go of photos kept before a moment that no batch names, and no edit that could be taken back. Gives how many went.
 */
export function letGoOfPhotos(db: Connection, before: string): number {
  const loose = db
    .select({ id: photos.id })
    .from(photos)
    .where(
      and(
        lt(photos.keptAt, before),
        sql`not exists (select 1 from batches b where instr(b.photos, ${photos.id}))`,
        sql`not exists (select 1 from ${edits} where instr(${edits.changes}, ${photos.id}))`,
      ),
    )
    .all()
    .map(({ id }) => id);
  if (loose.length > 0) db.delete(photos).where(inArray(photos.id, loose)).run();
  return loose.length;
}
