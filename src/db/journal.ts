import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import { RECORD_SCHEMAS, type RecordKind } from '@/core/records/recordSchemas';
import type { History, HistoryStep } from '@/core/records/views';
import { KIND_WORDS, type Connection, type RowImage, type Database, type EditWriter, type Change } from './storage';
import { missingFor, takeAlong, usersOf } from './dependents';
import { STORAGE } from './records';
import { edits } from './schema';

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

/** Where undo or redo came to: the records that it touched, and in words what went along with them. */
export interface Travelled {
  touched: Touched[];
  note: string | null;
}

/**
 * Takes back one edit of a scope: the one that is named, so that what another window did since is not hit in its place, or the
 * last. What was made to hang on it since goes along, and comes back with it. Refused when a record
 * has changed since in some other way, and when something else uses it or lacks what it names.
 */
export const undo = (db: Database, scope: string, now: string, named?: number): Travelled =>
  travel(db, scope, now, 'undo', named);

/** Makes an edit that was taken back again: the one that is named, or the one that comes next. */
export const redo = (db: Database, scope: string, now: string, named?: number): Travelled =>
  travel(db, scope, now, 'redo', named);

function travel(db: Database, scope: string, now: string, direction: 'undo' | 'redo', named?: number): Travelled {
  return db.transaction(
    (tx) => {
      const next = nextEdit(tx, scope, direction, named);
      if (!next) throw new EditRefusedError('nothing', nothingTo(direction, named !== undefined));
      const cannot = `“${next.label}” cannot be ${direction === 'undo' ? 'taken back' : 'made again'}`;
      const changes = next.changes as Change[];
      const went: Change[] = [];
      const moved: Change[] = [];
      for (const change of direction === 'undo' ? changes.toReversed() : changes) {
        const { kind, id, before, after } = change;
        const [expected, wanted] = direction === 'undo' ? [after, before] : [before, after];
        const row = STORAGE[kind].image(tx, id);
        if (imageText(row) !== imageText(expected))
          throw new StaleEditError(kind, id, `${cannot}: the ${KIND_WORDS[kind]} has changed since.`);
        if (wanted) moved.push(...bring(tx, change, wanted, (row?.version ?? before?.version ?? 1) + 1, now, cannot));
        else went.push(...takeAway(tx, change, expected!, now, cannot));
      }
      tx.update(edits)
        .set({ undone: direction === 'undo', changes })
        .where(eq(edits.id, next.id))
        .run();
      return { touched: [...changes, ...went, ...moved].map(touched), note: wentWords(next.label, direction, went) };
    },
    { behavior: 'immediate' },
  );
}

/** Puts a record back, and with it what went along when it was taken away. */
function bring(
  tx: Connection,
  change: Change,
  wanted: RowImage,
  version: number,
  now: string,
  cannot: string,
): Change[] {
  const { kind, id } = change;
  const [missing] = missingFor(tx, kind, wanted.data);
  if (missing)
    throw new EditRefusedError(
      'in use',
      `${cannot}: a ${KIND_WORDS[missing.kind]} that it uses is no longer there. Put that back first.`,
    );
  STORAGE[kind].write(tx, id, wanted, version, now);
  const back = change.along ?? [];
  for (const one of back.toReversed()) {
    const there = STORAGE[one.kind].image(tx, one.id);
    if (one.before) STORAGE[one.kind].write(tx, one.id, one.before, (there ?? one.before).version + 1, now);
  }
  delete change.along;
  return back;
}

/** Takes a record away, and with it what cannot stand without it; that is kept with the change. */
function takeAway(tx: Connection, change: Change, expected: RowImage, now: string, cannot: string): Change[] {
  const { kind, id } = change;
  const users = usersOf(tx, kind, id);
  if (users.length > 0)
    throw new EditRefusedError('in use', `${cannot}: ${users.join(', ')} uses it. Choose another there first.`);
  const along: Change[] = [];
  takeAlong(writerOf(tx, now, along), tx, kind, id);
  if (along.length > 0) change.along = along;
  // What happened at the bench meanwhile must come back with the record, should it come back.
  expected.attached = STORAGE[kind].remove(tx, id, now);
  return along;
}

const nothingTo = (direction: 'undo' | 'redo', named: boolean): string =>
  named
    ? `That edit ${direction === 'undo' ? 'was taken back already, or is too long ago' : 'can no longer be made again'}: another window went on since.`
    : `There is nothing to ${direction}.`;

/** What went along with an undo or redo, in words; null when nothing did. */
function wentWords(label: string, direction: 'undo' | 'redo', went: readonly Change[]): string | null {
  if (went.length === 0) return null;
  const counts = new Map<RecordKind, number>();
  for (const { kind } of went) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  const plural = (word: string, count: number): string =>
    count === 1 ? `a ${word}` : `${count} ${word === 'batch' ? 'batches' : `${word}s`}`;
  const words = [...counts].map(([kind, count]) => plural(KIND_WORDS[kind], count)).join(', ');
  return `${direction === 'undo' ? 'Took back' : 'Made again'} “${label}”; ${words} went along.`;
}

const imageText = (image: RowImage | null): string =>
  image ? JSON.stringify([image.position, image.setId, image.data]) : '';

const inReach = (scope: string, direction: 'undo' | 'redo') =>
  and(inArray(edits.scope, reach(scope)), eq(edits.undone, direction === 'redo'));
const byAge = (direction: 'undo' | 'redo') => (direction === 'undo' ? desc(edits.id) : asc(edits.id));

const nextEdit = (
  db: Connection,
  scope: string,
  direction: 'undo' | 'redo',
  named?: number,
): typeof edits.$inferSelect | undefined =>
  db
    .select()
    .from(edits)
    .where(and(inReach(scope, direction), named === undefined ? undefined : eq(edits.id, named)))
    .orderBy(byAge(direction))
    .limit(1)
    .get();

/** What undo and redo would do next. */
export function history(db: Connection, scope: string): History {
  const step = (direction: 'undo' | 'redo'): HistoryStep | null =>
    db
      .select({ edit: edits.id, label: edits.label })
      .from(edits)
      .where(inReach(scope, direction))
      .orderBy(byAge(direction))
      .limit(1)
      .get() ?? null;
  return { undo: step('undo'), redo: step('redo') };
}
