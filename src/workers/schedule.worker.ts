import { expose } from 'comlink';
import { triedWays, type WayToBeSooner, type SoonerBy } from '../core/schedule/soonerBy';
import { promising, type Promised } from '../core/schedule/promise';
import { replan } from '../core/schedule/replan';
import { scheduling, schedule } from '../core/schedule/solve';
import type { SchedulePlan, ScheduleRequest } from '../core/schedule/scheduleRequest';
import { steadyMore, steadyWork, type Bottleneck, type Steady, type SteadyWish } from '../core/schedule/steady';

/** What the worker does for the Cure stage. It is ended to stop it. */
export const scheduler = {
  /** A plan; tells each better one with the share of its effort that is spent. */
  plan(request: ScheduleRequest, told: (plan: SchedulePlan, share: number) => void): SchedulePlan {
    const run = scheduling(request);
    for (;;) {
      const step = run.next();
      if (step.done) return step.value;
      told(step.value.plan, step.value.share);
    }
  },
  /** In one go, for plans that are as good as there. */
  quick: (request: ScheduleRequest): SchedulePlan => schedule(request),
  replan: (request: ScheduleRequest, plan: SchedulePlan, free: readonly string[]): SchedulePlan =>
    replan(request, plan, new Set(free)),
  promise(request: ScheduleRequest, plan: SchedulePlan, told: (tries: number) => void): Promised | null {
    const run = promising(request, plan);
    for (;;) {
      const step = run.next();
      if (step.done) return step.value;
      told(step.value);
    }
  },
  ways(plan: SchedulePlan, ways: readonly WayToBeSooner[], told: (tried: SoonerBy) => void): SoonerBy[] {
    const all: SoonerBy[] = [];
    for (const tried of triedWays(plan, ways)) {
      all.push(tried);
      told(tried);
    }
    return all;
  },
  steady: (
    wish: SteadyWish,
    more: readonly { words: string; request: ScheduleRequest }[],
  ): { steady: Steady | null; more: Bottleneck[] } => ({ steady: steadyWork(wish), more: steadyMore(wish, more) }),
};
export type Scheduler = typeof scheduler;

expose(scheduler);
