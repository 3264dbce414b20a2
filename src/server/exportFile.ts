import { planFileText } from '@/core/formats/planFile';
import { pourCardCsv } from '@/core/formats/pourCardCsv';
import type { Plan, PlanRequest } from '@/core/plan';
import { batchPlan } from './batchPlan';
import { answer, RequestError } from './respond';

const FILES = new Map<string, { type: string; write: (request: PlanRequest, plan: Plan) => string }>(
  Object.entries({
    'plan.json': { type: 'application/json', write: (_, plan) => planFileText(plan) },
    'plan-request.json': { type: 'application/json', write: (request) => planFileText(request) },
    'pour-card.csv': { type: 'text/csv; charset=utf-8', write: (request, plan) => pourCardCsv(plan, request) },
  }),
);

/** A batch as a file to save: the plan, its request, or the pour card. */
export function exportFile({
  setId,
  batchId,
  file,
}: {
  setId: string;
  batchId: string;
  file: string;
}): Promise<Response> {
  return answer(async () => {
    const kind = FILES.get(file);
    const found = kind ? await batchPlan(setId, batchId) : null;
    if (!kind || !found) throw new RequestError(404, 'There is no such file.');
    if (!found.request || !found.plan) throw new RequestError(409, 'This batch has no pieces yet.');
    const name =
      found.batch.data.name
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-|-$/g, '') || 'batch';
    return new Response(kind.write(found.request, found.plan), {
      headers: { 'content-type': kind.type, 'content-disposition': `attachment; filename="${name}-${file}"` },
    });
  });
}
