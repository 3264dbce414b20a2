import { wrap, type Remote } from 'comlink';
import type { Plan, PlanRequest } from '../core/plan';
import type { Planner } from './plan.worker';

let remote: Remote<Planner> | null = null;
let waiting: { request: PlanRequest; resolve: (plan: Plan | null) => void; reject: (error: unknown) => void } | null = null;
let busy = false;

/**
 * Plans on the full grid off the main thread. Only the newest request matters: one that is overtaken while it
 * waits resolves to null.
 */
export function planInWorker(request: PlanRequest): Promise<Plan | null> {
  return new Promise((resolve, reject) => {
    waiting?.resolve(null);
    waiting = { request, resolve, reject };
    void next();
  });
}

async function next(): Promise<void> {
  if (busy || !waiting) return;
  const job = waiting;
  waiting = null;
  busy = true;
  try {
    remote ??= wrap<Planner>(new Worker(new URL('./plan.worker.ts', import.meta.url), { type: 'module' }));
    job.resolve(await remote.plan(job.request));
  } catch (error) {
    job.reject(error);
  } finally {
    busy = false;
    void next();
  }
}
