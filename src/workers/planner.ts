import { wrap, type Remote } from 'comlink';
import type { Amounts, AmountsRequest } from '../core/plan';
import { latestWins } from './latestWins';
import type { Planner } from './plan.worker';

let remote: Remote<Planner> | null = null;

/**
 * Plans on the full grid off the main thread. Each screen asks in a lane of its own, in which only the newest request
 * matters: one that is overtaken while it waits, or while its beds are being built, resolves to null.
 */
export const planInWorker: (lane: symbol, request: AmountsRequest) => Promise<Amounts | null> = latestWins(
  (request: AmountsRequest): Promise<Amounts | null> => {
    remote ??= wrap<Planner>(new Worker(new URL('./plan.worker.ts', import.meta.url), { type: 'module' }));
    return remote.plan(request);
  },
  () => void remote?.overtake(),
);
