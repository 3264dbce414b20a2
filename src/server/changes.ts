import type { Scope } from '@/core/records/command';
import type { EditAnswer, RowChange } from '@/core/records/views';
import type { Database } from '@/db/storage';
import { getBatch, setOfBatch } from '@/db/batches';
import { currentPours } from '@/db/pours';
import { getDocument } from '@/db/documents';
import { history, type Touched } from '@/db/journal';
import { getLot, lotOfMovement } from '@/db/stock';
import { wallClockNow } from './clock';

/** A record as it is now, for a screen that shows it. */
function rowOf(db: Database, { kind, id, setId }: Touched): RowChange[] {
  if (kind === 'batch') return [{ kind, id, setId, row: getBatch(db, id) }];
  if (kind === 'lot') return [{ kind, id, setId: null, row: getLot(db, id) }];
  if (kind === 'movement') {
    const lotId = lotOfMovement(db, id);
    return lotId === null ? [] : [{ kind: 'lot', id: lotId, setId: null, row: getLot(db, lotId) }];
  }
  if (kind !== 'pour') return [{ kind, id, setId, row: getDocument(db, kind, id) } as RowChange];
  const dot = id.lastIndexOf('.');
  const [batchId, layer] = [id.slice(0, dot), Number(id.slice(dot + 1))];
  const row = currentPours(db, batchId).find((pour) => pour.layer === layer) ?? null;
  const batch: RowChange = { kind: 'batch', id: batchId, setId: setOfBatch(db, batchId), row: getBatch(db, batchId) };
  return [{ kind, id, setId, batchId, layer, row }, batch];
}

/** Touched records as they are now, each once. */
export function changesOf(db: Database, touched: readonly Touched[]): RowChange[] {
  const all = touched.flatMap((one) => rowOf(db, one));
  return [...new Map(all.map((change) => [`${change.kind} ${change.id}`, change])).values()];
}

/** What an edit did: what was added, if anything, which records it touched, and what else there is to say of it. */
export interface Done {
  id: string | null;
  touched: readonly Touched[];
  note?: string | null;
}

/** The writing of an edit, once all that takes time has been worked out. */
export type Work = (db: Database) => Done;

/** What an edit is answered with. */
export const editAnswer = (db: Database, scope: Scope, { id, touched, note = null }: Done): EditAnswer => ({
  id,
  note,
  changes: changesOf(db, touched),
  history: history(db, scope),
  now: wallClockNow(),
});
