import { batchRequest } from '@/core/records/buildRequest';
import type { BatchPlanView } from '@/core/records/views';
import { serverPlan } from './plans';
import { deskView } from './views';

/** Looks a batch up and plans it; null when there is none. */
export function batchPlan(setId: string, batchId: string): BatchPlanView | null {
  const desk = deskView(setId);
  const batch = desk?.batches.find(({ id }) => id === batchId);
  if (!desk || !batch) return null;
  const request = batchRequest(desk, batch.data);
  return {
    setId,
    batch,
    request,
    plan: request && serverPlan(request),
    units: desk.shelf.settings.data.units,
    printedAt: desk.now,
  };
}
