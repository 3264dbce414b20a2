import { earliestReady } from './bound';
import { buildNetwork, type Built } from './buildNetwork';
import type { Climate } from '../cure/conditions';
import { Engine } from './engine';
import type { State } from './network';
import { stopsOf } from './problems';
import { GOALS, planOf, schedule } from './solve';
import type { SchedulePlan, ScheduleRequest } from './scheduleRequest';
import { ordersOf, solve, type Solution } from './search';

export const stepKey = (batchId: string, stepId: string): string => `${batchId}/${stepId}`;

/** A plan's times laid on a network of a request that is much like its own; `known` where the plan has the step. */
function laidOn(built: Built, plan: SchedulePlan): { state: State; known: Uint8Array } {
  const { net, tasks, toSteady } = built;
  const byKey = new Map(plan.steps.map((step) => [stepKey(step.batchId, step.stepId), step]));
  const known = new Uint8Array(tasks.length);
  const state: State = {
    start: new Float64Array(tasks.length),
    end: new Float64Array(tasks.length),
    maker: new Int8Array(tasks.length),
    choice: Array.from({ length: net.choices }, () => 'keep'),
    arcsIn: tasks.map(() => null),
    arcsOut: tasks.map(() => null),
  };
  tasks.forEach(({ batch, step }, i) => {
    const planned = byKey.get(stepKey(batch.id, step.id));
    const choice = net.tasks[i]!.onlyIf;
    if (choice !== null) state.choice[choice] = planned ? 'abrade' : 'keep';
    if (!planned) return;
    known[i] = 1;
    state.start[i] = toSteady(planned.from);
    state.end[i] = toSteady(planned.to);
    state.maker[i] = planned.maker ?? 0;
  });
  return { state, known };
}

/** When the steps of a plan begin that are not free. */
const startsOf = (plan: SchedulePlan, free: ReadonlySet<string>): Map<string, string> =>
  new Map(
    plan.steps
      .map((step) => [stepKey(step.batchId, step.stepId), step.from] as const)
      .filter(([key]) => !free.has(key)),
  );

/** Looks for a plan near the one that is there. */
const NEAR_LOOKS = 200;
/** A whole plan needs about as many looks as it has conflicts. */
const WHOLE_LOOKS = 500;

/**
 * A solution that keeps the order of a plan for all steps but the free ones, and does none of them sooner if they are
 * to `stay`; null where that leaves none.
 */
export function near(
  request: ScheduleRequest,
  plan: SchedulePlan,
  free: ReadonlySet<string>,
  climate?: Climate,
  { looks = NEAR_LOOKS, stay = false }: { looks?: number; stay?: boolean } = {},
): { built: Built; engine: Engine; solution: Solution } | null {
  for (const holdPins of [false, true]) {
    const built = buildNetwork(request, { holdPins, ...(stay && { notBefore: startsOf(plan, free) }) }, climate);
    const engine = new Engine(built.net);
    const root = engine.root();
    if (!root) continue;
    const { state, known } = laidOn(built, plan);
    const loose = Uint8Array.from(known, (is, i) => {
      const { batch, step } = built.tasks[i]!;
      return !is || free.has(stepKey(batch.id, step.id)) || built.net.tasks[i]!.pin !== null ? 1 : 0;
    });
    const kept = engine.orderedAll(root, ordersOf(engine, state, loose));
    for (const start of kept ? [kept, root] : [root]) {
      const { best } = solve(built.net, {
        goals: GOALS[request.goal],
        seed: request.seed,
        mostLooks: start === root ? WHOLE_LOOKS : looks,
        within: { engine, root: start },
      });
      if (best) return { built, engine, solution: best };
    }
  }
  return null;
}

/**
 * Plans anew after a step was dragged or something happened: what is not `free` keeps its order and moves only as far as it must. What a
 * pinned step breaks is said. Falls back on a whole plan when that order leads nowhere.
 */
export function replan(
  request: ScheduleRequest,
  plan: SchedulePlan,
  free: ReadonlySet<string>,
  climate?: Climate,
): SchedulePlan {
  const found = near(request, plan, free, climate, { stay: true });
  if (!found) return schedule({ ...request, effort: 1500 });
  const { built, engine, solution } = found;
  const root = engine.root();
  const bound = root ? earliestReady(built, root) : solution.score.finish;
  return planOf(built, engine, solution, { bound, proved: false, stops: stopsOf(built) });
}

/** What is different between two plans, step by step: those that moved to another time, later or earlier. */
export function movedSteps(
  before: SchedulePlan,
  after: SchedulePlan,
): { batchId: string; stepId: string; from: string; to: string }[] {
  const was = new Map(before.steps.map((step) => [stepKey(step.batchId, step.stepId), step]));
  return after.steps.flatMap(({ batchId, stepId, from }) => {
    const old = was.get(stepKey(batchId, stepId));
    return old && old.from !== from ? [{ batchId, stepId, from: old.from, to: from }] : [];
  });
}
