import { eq, lt } from 'drizzle-orm';
import type { Touched } from './journal';
import type { Connection } from './storage';
import { answered } from './schema';

/** How long the key of an edit is known. */
const KEPT_MS = 24 * 3_600_000;

/** What an edit did, as far as its answer needs it again. */
export interface AnsweredEdit {
  /** Of which command, by its fingerprint; not known of those of an older program. */
  of?: string;
  id: string | null;
  touched: readonly Touched[];
  note: string | null;
}

/** What the edit with this key did; null for one that was not seen, or that was seen more than a day ago. */
export const answeredEdit = (db: Connection, key: string): AnsweredEdit | null =>
  (db.select({ done: answered.done }).from(answered).where(eq(answered.key, key)).get()?.done as
    AnsweredEdit | undefined) ?? null;

/** Remembers that the edit with this key was made, and forgets those of more than a day ago. */
export function keepAnswered(db: Connection, key: string, done: AnsweredEdit, at = Date.now()): void {
  db.delete(answered)
    .where(lt(answered.at, at - KEPT_MS))
    .run();
  db.insert(answered).values({ key, at, done }).run();
}
