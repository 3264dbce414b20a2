import { newKey } from '@/ui/newKey';
import type { Command } from '@/core/records/command';
import type { EditAnswer, History } from '@/core/records/views';

/** What went wrong with an edit, as the maker reads it. */
export interface Trouble {
  kind: 'invalid' | 'stale' | 'refused' | 'missing' | 'data file' | 'request' | 'offline';
  message: string;
  fields: { field: string; message: string }[];
  /** The edit that was not written, to try again. */
  command: Command;
  /** By which the server knows it again. */
  key: string;
}

/** What an edit came to. */
export type Outcome = { ok: true; id: string | null } | { ok: false; trouble: Trouble };

/** An edit made for the newest view, so that its row version is the last one seen. */
export type MakeCommand<V> = (view: V) => Command | null;

/** What was changed: rows, or cards of the list of sets. */
export type Changed = Pick<EditAnswer, 'changes'> & Partial<Pick<EditAnswer, 'cards' | 'history' | 'now'>>;

/** What the edit route gave back. */
export type Sent = { ok: true; answer: EditAnswer } | { ok: false; trouble: Trouble; changed: Changed | null };

export interface QueueState<V> {
  view: V;
  busy: boolean;
  /** How much of a large edit has gone, 0 to 1; null when none is on its way. */
  sentShare: number | null;
  trouble: Trouble | null;
  /** The last thing done, in words, for the status line. */
  done: string | null;
  /** What the server had to say of it beside that: shown until it is dismissed. */
  note: string | null;
}

type Done<V> = string | ((view: V) => string | null);

export interface EditQueue<V> {
  state: () => QueueState<V>;
  subscribe: (listener: () => void) => () => void;
  /** `done` says in words what was done, by the view that the edit was made for. */
  run: (make: MakeCommand<V>, done?: Done<V>) => Promise<Outcome>;
  /** Writes the refused edit over what another window wrote. */
  insist: () => void;
  dismiss: () => void;
  /** Takes in what was read beside the edits. */
  show: (change: (view: V) => V) => void;
}

interface QueueOptions<V> {
  initial: V;
  send: (command: Command, key: string, progress: (share: number) => void) => Promise<Sent>;
  /** The view with what was changed; rows that were not keep their identity. */
  apply: (view: V, changed: Changed) => V;
}

/**
 * Edits one after another: each is made for the view that the one before left. A refused edit stays at hand as `trouble`, so that
 * nothing typed is lost; one that fails while it is made is told and does not hold up those behind it.
 */
export function createEditQueue<V extends { history: History }>({
  initial,
  send,
  apply,
}: QueueOptions<V>): EditQueue<V> {
  let state: QueueState<V> = { view: initial, busy: false, sentShare: null, trouble: null, done: null, note: null };
  let pending = 0;
  let last: Promise<unknown> = Promise.resolve();
  const listeners = new Set<() => void>();
  const set = (change: Partial<QueueState<V>>): void => {
    state = { ...state, ...change, busy: pending > 0 };
    for (const listener of listeners) listener();
  };
  const show: EditQueue<V>['show'] = (change) => set({ view: change(state.view) });

  const carryOut = async (make: MakeCommand<V>, done: Done<V> | undefined, key = newKey()): Promise<Outcome> => {
    const command = make(state.view);
    const words = typeof done === 'function' ? done(state.view) : done;
    if (!command) return { ok: true, id: null };
    const result = await send(command, key, (sentShare) => set({ sentShare }));
    if (state.sentShare !== null) set({ sentShare: null });
    const changed = result.ok ? result.answer : result.changed;
    if (changed) show((view) => apply(view, changed));
    if (result.ok) {
      const { note } = result.answer;
      set({ trouble: null, done: note ?? words ?? null, note });
      return { ok: true, id: result.answer.id };
    }
    set({ trouble: result.trouble });
    return { ok: false, trouble: result.trouble };
  };
  const enqueue = (make: MakeCommand<V>, done?: Done<V>, key?: string): Promise<Outcome> => {
    pending++;
    set({});
    const outcome = last.then(() => carryOut(make, done, key));
    last = outcome
      .catch(() => undefined)
      .finally(() => {
        pending--;
        set({});
      });
    return outcome;
  };
  const run: EditQueue<V>['run'] = (make, done) => enqueue(make, done);
  return {
    state: () => state,
    subscribe(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    run,
    insist() {
      const { trouble } = state;
      if (!trouble) return;
      // An answer that was lost may have been to an edit that was made: sent again as it was, under its own key, it is not made twice.
      if (trouble.kind === 'offline') void enqueue(() => trouble.command, undefined, trouble.key);
      else void run((view) => withNewestVersion(trouble.command, view));
    },
    dismiss: () => set({ trouble: null, note: null }),
    show,
  };
}

/** The same edit with the row version that the newest view knows. */
export function withNewestVersion(command: Command, view: unknown): Command {
  const id = 'id' in command ? command.id : 'batchId' in command ? command.batchId : null;
  const row = id === null ? null : findRow(view, id);
  return row !== null && 'version' in command ? { ...command, version: row.version } : command;
}

/** A row of a view, wherever it stands in it. */
interface Row {
  version: number;
  data?: unknown;
}

function findRow(value: unknown, id: string): Row | null {
  if (typeof value !== 'object' || value === null) return null;
  if ('id' in value && value.id === id && 'version' in value && typeof value.version === 'number') return value as Row;
  for (const part of Object.values(value)) {
    const found = findRow(part, id);
    if (found !== null) return found;
  }
  return null;
}

/** What a refused edit would write, and what stands there now; null where it writes no whole record. */
export function bothVersions(command: Command, view: unknown): { mine: unknown; theirs: unknown } | null {
  if (command.do !== 'put') return null;
  const row = findRow(view, command.id);
  return row && { mine: command.data, theirs: row.data };
}
