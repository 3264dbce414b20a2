import { batchRequest } from '@/core/records/buildRequest';
import type { PourRecord } from '@/core/records/recordSchemas';
import type { BatchRow, KeptPlan } from '@/core/records/views';
import { setOfBatch } from '@/db/batches';
import { EditRefusedError } from '@/db/journal';
import { withData } from './data';
import { amountsOf } from './figures';
import { FieldProblem } from './fieldProblem';
import { deskView, openBatch } from './views';

/** A batch with the plan that it is poured by: the one that was kept, or one made now. */
export async function planToPour(
  batchId: string,
): Promise<{ setId: string; row: BatchRow; kept: KeptPlan | null; amounts: KeptPlan; poured: PourRecord[] }> {
  const setId = withData((db) => setOfBatch(db, batchId));
  const desk = setId && deskView(setId);
  const opened = setId && openBatch(setId, batchId);
  if (!desk || !opened)
    throw new EditRefusedError('missing', 'This batch is no longer there; it may have been removed in another window.');
  const { row, detail } = opened;
  const request = batchRequest(desk, row.data, detail);
  if (!request) throw new FieldProblem(['layer'], 'There is nothing to pour in this batch yet.');
  const amounts = detail.kept ?? { request: { ...request, poured: [] }, amounts: await amountsOf(request) };
  return { setId, row, kept: detail.kept, amounts, poured: detail.pours };
}
