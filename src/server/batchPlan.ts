import { planTimes, withTimes, type Plan } from '@/core/plan';
import { batchRequest } from '@/core/records/buildRequest';
import type { BatchDetail, BatchPlanView, BatchRow, DeskView } from '@/core/records/views';
import { planOf } from './figures';
import { deskView, openBatch } from './views';

/** The plan of a batch: the one that was kept, with its times as they are now; else as its set stands. Null without pieces. */
export async function planOfBatch(desk: DeskView, row: BatchRow, detail: BatchDetail): Promise<Plan | null> {
  const request = batchRequest(desk, row.data, detail);
  if (!request) return null;
  return detail.kept ? withTimes(detail.kept.amounts, planTimes(detail.kept.amounts, request)) : planOf(request);
}

/** Looks a batch up and plans it; null when there is none. */
export async function batchPlan(setId: string, batchId: string): Promise<BatchPlanView | null> {
  const desk = deskView(setId);
  const opened = desk && openBatch(setId, batchId);
  if (!desk || !opened || opened.row.id !== batchId) return null;
  const { row, detail } = opened;
  return {
    setId,
    batch: row,
    poured: detail.kept !== null,
    request: batchRequest(desk, row.data, detail),
    plan: await planOfBatch(desk, row, detail),
    settings: desk.shelf.settings.data,
    printedAt: desk.now,
  };
}
