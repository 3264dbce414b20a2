import { besideBatches, type BatchBeside, type BesideView } from '@/core/records/besideBatches';
import type { BatchOverTime, OverTimeView } from '@/core/records/overTime';
import { batchesOverTime } from '@/db/batchesOverTime';
import { withData } from './data';
import { shelfAndState } from './views';
import { recordOfBatch } from './why';

/** The figures over time as their page begins. */
export const overTimeView = (): OverTimeView =>
  withData((db) => {
    const shelf = shelfAndState(db, 'log');
    return { ...shelf, batches: batchesOverTime(db, shelf.settings.data.stepMinutes ?? {}) };
  });

/** Two batches beside each other, as their page begins: those that are asked for, else the two newest. */
export const besideView = (asked: { a?: string | undefined; b?: string | undefined }): BesideView =>
  withData((db) => {
    const shelf = shelfAndState(db, 'log');
    const batches = batchesOverTime(db, shelf.settings.data.stepMinutes ?? {}).toReversed();
    const pick = (id: string | undefined, not: string | undefined): BatchOverTime | undefined =>
      batches.find(({ batchId }) => batchId === id) ?? batches.find(({ batchId }) => batchId !== not);
    const b = pick(asked.b, asked.a);
    const a = pick(asked.a, b?.batchId);
    const names = batches.map(({ batchId, name, set, at }) => ({ batchId, name, set, at }));
    if (!a || !b || a === b) return { ...shelf, batches: names, a: null, b: null, rows: [] };
    const beside = (went: BatchOverTime): BatchBeside => {
      const { record, row } = recordOfBatch(db, went.batchId);
      return { went, record, batch: row.data };
    };
    return { ...shelf, batches: names, a, b, rows: besideBatches(beside(a), beside(b)) };
  });
