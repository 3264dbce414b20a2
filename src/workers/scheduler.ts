import { proxy, wrap, type Remote } from 'comlink';
import type { WayToBeSooner, SoonerBy } from '../core/schedule/soonerBy';
import type { Promised } from '../core/schedule/promise';
import type { SchedulePlan, ScheduleRequest } from '../core/schedule/scheduleRequest';
import type { Bottleneck, Steady, SteadyWish } from '../core/schedule/steady';
import type { Scheduler } from './schedule.worker';

const start = (): Worker => new Worker(new URL('./schedule.worker.ts', import.meta.url), { type: 'module' });

/** Something that is being worked out, and can be stopped: then its result never comes. */
export interface Underway<T> {
  result: Promise<T>;
  end: () => void;
}

/** Has something worked out in a worker of its own. */
function inOwnWorker<T>(ask: (remote: Remote<Scheduler>) => Promise<T>): Underway<T> {
  const worker = start();
  const end = (): void => worker.terminate();
  return { result: ask(wrap<Scheduler>(worker)).finally(end), end };
}

/** A plan of all that is asked; `told` each better one on the way, and the share of the effort. */
export const planInWorker = (
  request: ScheduleRequest,
  told: (plan: SchedulePlan, share: number) => void,
): Underway<SchedulePlan> => inOwnWorker((remote) => remote.plan(request, proxy(told)) as Promise<SchedulePlan>);

let quick: Remote<Scheduler> | null = null;
/** The worker that is kept for what is answered at once: it is warm when a step is let go. */
function atHand(): Remote<Scheduler> {
  quick ??= wrap<Scheduler>(start());
  return quick;
}

/** A plan after something moved: the rest follows, in its order. */
export const replanInWorker = (
  request: ScheduleRequest,
  plan: SchedulePlan,
  free: readonly string[],
): Promise<SchedulePlan> => atHand().replan(request, plan, [...free]) as Promise<SchedulePlan>;

/** The plan of a request in which every step is held. */
export const heldInWorker = (request: ScheduleRequest): Promise<SchedulePlan> =>
  atHand().quick(request) as Promise<SchedulePlan>;

export const promiseInWorker = (
  request: ScheduleRequest,
  plan: SchedulePlan,
  told: (tries: number) => void,
): Underway<Promised | null> =>
  inOwnWorker((remote) => remote.promise(request, plan, proxy(told)) as Promise<Promised | null>);

export const waysInWorker = (
  plan: SchedulePlan,
  ways: readonly WayToBeSooner[],
  told: (tried: SoonerBy) => void,
): Underway<SoonerBy[]> => inOwnWorker((remote) => remote.ways(plan, [...ways], proxy(told)) as Promise<SoonerBy[]>);

export const steadyInWorker = (
  wish: SteadyWish,
  more: readonly { words: string; request: ScheduleRequest }[],
): Underway<{ steady: Steady | null; more: Bottleneck[] }> =>
  inOwnWorker((remote) => remote.steady(wish, [...more]) as Promise<{ steady: Steady | null; more: Bottleneck[] }>);
