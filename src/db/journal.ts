import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import { RECORD_SCHEMAS, type RecordData, type RecordKind } from '@/core/records/schema';
import type { History } from '@/core/records/views';
import type { Database } from './dataFile';
import { KIND_WORDS, type Connection, type RowImage } from './images';
import { STORAGE } from './records';
import { edits } from './schema';

/** What one edit did to one record. `version` is its last version before it was deleted or changed. */
export interface Change {
  kind: RecordKind;
  id: string;
  before: (RowImage & { version: number }) | null;
  after: RowImage | null;
}

/** A record that was touched: which, and of which set. */
export interface Touched {
  kind: RecordKind;
  id: string;
  setId: string | null;
}

/** Somebody else changed the record since it was read: the edit is told, not written. */
export class StaleEditError extends Error {
  constructor(
    readonly kind: RecordKind,
    readonly id: string,
    message: string,
  ) {
    super(message);
    this.name = 'StaleEditError';
  }
}

/** The edit cannot be made as things stand; the message says why. */
export class EditRefusedError extends Error {
  constructor(
    readonly reason: 'missing' | 'in use' | 'nothing',
    message: string,
  ) {
    super(message);
    this.name = 'EditRefusedError';
  }
}

/** The writes that an edit may make. Every one of them is noted down for undo. */
export interface EditWriter {
  db: Connection;
  /** Replaces a record's data; a version that is not the record's own is stale. `null` writes over whatever is there. */
  put: <K extends RecordKind>(kind: K, id: string, data: RecordData<K>, version: number | null) => void;
  add: <K extends RecordKind>(kind: K, id: string, data: RecordData<K>, setId?: string) => void;
  remove: (kind: RecordKind, id: string, version: number | null) => void;
}

/** The journals that undo walks in a scope: a set's desk also takes back what was changed on the shelf from there. */
const reach = (scope: string): string[] => (scope.startsWith('set:') ? [scope, 'shelf'] : [scope]);

/** Edits kept for undo in each scope; older ones can no longer be taken back. */
const KEPT_EDITS = 500;

/**
 * Makes one edit in one transaction and notes it in the journal. Whatever could be redone in the scope is dropped.
 * All writes succeed or none does. Returns the records that it touched.
 */
export function edit(
  db: Database,
  scope: string,
  label: string,
  now: string,
  work: (writer: EditWriter) => void,
): Touched[] {
  return db.transaction(
    (tx) => {
      const changes: Change[] = [];
      work(writerOf(tx, now, changes));
      if (changes.length === 0) return [];
      tx.delete(edits)
        .where(and(inArray(edits.scope, reach(scope)), eq(edits.undone, true)))
        .run();
      tx.insert(edits).values({ scope, label, at: now, changes }).run();
      const old = tx
        .select({ id: edits.id })
        .from(edits)
        .where(eq(edits.scope, scope))
        .orderBy(desc(edits.id))
        .offset(KEPT_EDITS)
        .limit(KEPT_EDITS)
        .all();
      for (const { id } of old) tx.delete(edits).where(eq(edits.id, id)).run();
      return changes.map(touched);
    },
    { behavior: 'immediate' },
  );
}

const touched = ({ kind, id, before, after }: Change): Touched => ({
  kind,
  id,
  setId: (after ?? before)?.setId ?? null,
});

function writerOf(db: Connection, now: string, changes: Change[]): EditWriter {
  const current = (kind: RecordKind, id: string, version: number | null): RowImage & { version: number } => {
    const row = STORAGE[kind].image(db, id);
    if (!row)
      throw new EditRefusedError(
        'missing',
        `This ${KIND_WORDS[kind]} is no longer there; it may have been removed in another window.`,
      );
    if (version !== null && row.version !== version)
      throw new StaleEditError(
        kind,
        id,
        `This ${KIND_WORDS[kind]} was changed in another window since you opened it. Nothing was overwritten.`,
      );
    return row;
  };
  return {
    db,
    put(kind, id, data, version) {
      const before = current(kind, id, version);
      const after = { position: before.position, setId: before.setId, data: RECORD_SCHEMAS[kind].parse(data) };
      if (JSON.stringify(before.data) === JSON.stringify(after.data)) return;
      STORAGE[kind].write(db, id, after, before.version + 1, now);
      changes.push({ kind, id, before, after });
    },
    add(kind, id, data, setId) {
      const position = STORAGE[kind].nextPosition(db, setId ?? null);
      const after = { position, setId: setId ?? null, data: RECORD_SCHEMAS[kind].parse(data) };
      STORAGE[kind].write(db, id, after, 1, now);
      changes.push({ kind, id, before: null, after });
    },
    remove(kind, id, version) {
      const before = current(kind, id, version);
      const attached = STORAGE[kind].remove(db, id, now);
      changes.push({ kind, id, before: { ...before, attached }, after: null });
    },
  };
}

/** Takes back the last edit of a scope. Refused when a record has changed since in some other way. */
export const undo = (db: Database, scope: string, now: string): Touched[] => travel(db, scope, now, 'undo');

/** Makes the edit that was last taken back again. */
export const redo = (db: Database, scope: string, now: string): Touched[] => travel(db, scope, now, 'redo');

function travel(db: Database, scope: string, now: string, direction: 'undo' | 'redo'): Touched[] {
  return db.transaction(
    (tx) => {
      const next = nextEdit(tx, scope, direction);
      if (!next)
        throw new EditRefusedError(
          'nothing',
          direction === 'undo' ? 'There is nothing to undo.' : 'There is nothing to redo.',
        );
      const changes = next.changes as Change[];
      for (const change of direction === 'undo' ? changes.toReversed() : changes) {
        const { kind, id, before, after } = change;
        const [expected, wanted] = direction === 'undo' ? [after, before] : [before, after];
        const row = STORAGE[kind].image(tx, id);
        if (imageText(row) !== imageText(expected))
          throw new StaleEditError(
            kind,
            id,
            `“${next.label}” cannot be ${direction === 'undo' ? 'taken back' : 'made again'}: the ${KIND_WORDS[kind]} has changed since.`,
          );
        if (wanted) STORAGE[kind].write(tx, id, wanted, (row?.version ?? before?.version ?? 1) + 1, now);
        // What happened at the bench meanwhile must come back with the record, should it come back.
        else expected!.attached = STORAGE[kind].remove(tx, id, now);
      }
      tx.update(edits)
        .set({ undone: direction === 'undo', changes })
        .where(eq(edits.id, next.id))
        .run();
      return changes.map(touched);
    },
    { behavior: 'immediate' },
  );
}

const imageText = (image: RowImage | null): string =>
  image ? JSON.stringify([image.position, image.setId, image.data]) : '';

const inReach = (scope: string, direction: 'undo' | 'redo') =>
  and(inArray(edits.scope, reach(scope)), eq(edits.undone, direction === 'redo'));
const byAge = (direction: 'undo' | 'redo') => (direction === 'undo' ? desc(edits.id) : asc(edits.id));

const nextEdit = (db: Connection, scope: string, direction: 'undo' | 'redo'): typeof edits.$inferSelect | undefined =>
  db.select().from(edits).where(inReach(scope, direction)).orderBy(byAge(direction)).limit(1).get();

/** What undo and redo would do next, in words. */
export function history(db: Connection, scope: string): History {
  const label = (direction: 'undo' | 'redo'): string | null =>
    db
      .select({ label: edits.label })
      .from(edits)
      .where(inReach(scope, direction))
      .orderBy(byAge(direction))
      .limit(1)
      .get()?.label ?? null;
  return { undo: label('undo'), redo: label('redo') };
}
