import { wallMinutes } from '../time/wallTime';
import { earliestReady } from './bound';
import { buildNetwork, type BuildOptions, type Built } from './buildNetwork';
import { nextToPour } from './nextToPour';
import { benchDaysOf, fewerDays, partsOf } from './days';
import { Engine } from './engine';
import type { State } from './network';
import { problemsOf, stopsOf } from './problems';
import type { PlannedStep, SchedulePlan, ScheduleProblem, ScheduleRequest } from './scheduleRequest';
import { DUE_FIRST, search, type Goal, type SearchWish, type Solution } from './search';

/** What counts, in its order, by what the maker wishes. Fewest evenings are sought afterwards (`days.ts`). */
export const GOALS: Record<ScheduleRequest['goal'], readonly Goal[]> = {
  soonest: DUE_FIRST,
  'fewest evenings': DUE_FIRST,
};

/** What a search tells on its way: the best plan so far, and how much of its effort is spent. */
export interface ScheduleProgress {
  plan: SchedulePlan;
  share: number;
}

/**
 * Plans several batches together: due dates first, then as few missed recoat windows as can be, then the earliest end, then few bench
 * days. Tells the best plan so far now and then; the last is the answer. What stands in the way of a batch is said as a problem and the
 * others are planned without it. Deterministic.
 */
export function* scheduling(request: ScheduleRequest): Generator<ScheduleProgress, SchedulePlan> {
  const whole = buildNetwork(request);
  const stops = stopsOf(whole);
  const stopped = new Set(stops.flatMap(({ batchId }) => (batchId === undefined ? [] : [batchId])));
  const wish: SearchWish = { goals: GOALS[request.goal], seed: request.seed, mostLooks: request.effort };
  let options: BuildOptions = { without: stopped };
  let built = stopped.size === 0 ? whole : buildNetwork(request, options, whole.climate);
  if (built.net.batches.length === 0) return emptyPlan(built, stops);
  let engine = new Engine(built.net);
  let root = engine.root();
  let run = search(built.net, wish);
  let told = run.next();
  // What is wanted where it cannot be is held there all the same, and what that breaks is said.
  const nothing = (): boolean => (told.done ?? false) && told.value.best === null;
  while (!told.done && told.value.best === null) told = run.next();
  if (nothing() && hasPins(request)) {
    options = { ...options, holdPins: true };
    built = buildNetwork(request, options, whole.climate);
    engine = new Engine(built.net);
    root = engine.root();
    run = search(built.net, wish);
    told = run.next();
    while (!told.done && told.value.best === null) told = run.next();
  }
  if (nothing() || !root) {
    const misfits = misfitsOf(request, stopped, options);
    if (misfits.length === 0 || misfits.every(({ batchId }) => stopped.has(batchId!))) return emptyPlan(built, stops);
    return emptyPlan(built, [...stops, ...misfits]);
  }
  const bound = earliestReady(built, root);
  let best: Solution | null = null;
  while (!told.done) {
    if (told.value.best && told.value.best !== best) {
      best = told.value.best;
      yield {
        plan: planOf(built, engine, best, { bound, proved: false, stops }),
        share: told.value.looked / request.effort,
      };
    }
    told = run.next();
  }
  const { proved } = told.value;
  best = told.value.best ?? best!;
  const fewer = isHeld(built) ? { built, solution: best } : fewerDays(request, options, built, best, wish);
  return planOf(fewer.built, new Engine(fewer.built.net), fewer.solution, { bound, proved, stops });
}

const hasPins = ({ batches }: ScheduleRequest): boolean =>
  batches.some(({ steps }) => steps.some(({ pinned, done }) => pinned !== undefined && !done));

/** True when every step stands where it is wanted or was done: there is nothing to make better. */
const isHeld = ({ net }: Built): boolean =>
  net.tasks.every(({ fixed, pin, hands, onlyIf }) => fixed !== null || pin !== null || hands === 0 || onlyIf !== null);

/** The first plan of a search: there in tenths of a second, to be made better. */
export function firstSchedule(request: ScheduleRequest): SchedulePlan {
  const { value, done } = scheduling(request).next();
  return done ? value : value.plan;
}

/** The whole plan in one go. */
export function schedule(request: ScheduleRequest): SchedulePlan {
  const run = scheduling(request);
  for (;;) {
    const step = run.next();
    if (step.done) return step.value;
  }
}

/** Batches that do not even fit alone. */
function misfitsOf(request: ScheduleRequest, stopped: ReadonlySet<string>, options: BuildOptions): ScheduleProblem[] {
  return request.batches.flatMap((batch): ScheduleProblem[] => {
    if (stopped.has(batch.id)) return [];
    const others = request.batches.filter(({ id }) => id !== batch.id).map(({ id }) => id);
    const { net } = buildNetwork(request, { ...options, without: new Set(others) });
    const run = search(net, { goals: DUE_FIRST, seed: 1, mostLooks: 400 });
    let told = run.next();
    while (!told.done && !told.value.best) told = run.next();
    if (told.value.best) return [];
    return [
      {
        severity: 'stop',
        code: 'does-not-fit',
        path: [],
        batchId: batch.id,
        message: `${batch.name} does not fit into the next months: its steps, their waits and your bench windows leave no time for it.`,
        mend: {
          label: 'Widen a bench window, or take out a greatest lag that no window meets.',
          target: 'none',
          path: [],
          value: null,
        },
      },
    ];
  });
}

function emptyPlan({ request }: Built, problems: ScheduleProblem[]): SchedulePlan {
  return {
    format: 'aguada.schedule',
    version: 1,
    steps: [],
    batches: [],
    readyAt: null,
    benchDays: 0,
    handsOnMinutes: 0,
    bound: { readyAt: null, off: 0, proved: false, weakBecause: null },
    problems: problems.length > 0 ? problems : [noTime(request)],
  };
}

const noTime = ({ batches }: ScheduleRequest): ScheduleProblem => ({
  severity: 'stop',
  code: 'does-not-fit',
  path: [],
  message: `${batches.length === 1 ? 'The batch does' : 'These batches do'} not fit together into the next months.`,
  mend: { label: 'Plan fewer at a time, or widen a bench window.', target: 'none', path: [], value: null },
});

interface Told {
  bound: number;
  proved: boolean;
  stops: ScheduleProblem[];
}

/** Off from the bound by more than this, a plan says why. */
const CLOSE_TO_BOUND = 0.1;

/** A solution as a plan: wall times, who does what, the chain that decides the end. */
export function planOf(
  built: Built,
  engine: Engine,
  { state: planned, score }: Solution,
  { bound, proved, stops }: Told,
): SchedulePlan {
  const { net, tasks, toWall, now } = built;
  const state = nextToPour(built, planned);
  const critical = criticalChain(built, state);
  const steps = tasks.flatMap(({ batch, step, repairs }, i): PlannedStep[] => {
    const task = net.tasks[i]!;
    if (step.kind === 'ready' || !engine.isDone(state, i)) return [];
    const maker = task.hands === 0 || step.done ? -1 : engine.makerFor(state, i);
    const calendar = task.calendars[Math.max(0, task.hands === 2 ? 0 : maker)];
    const parts = step.done ? [] : partsOf(task, calendar, state.start[i]!, state.end[i]!);
    return [
      {
        batchId: batch.id,
        stepId: step.id,
        from: toWall(state.start[i]!),
        to: toWall(state.end[i]!),
        ...(parts.length > 1 && { parts: parts.map(({ from, to }) => ({ from: toWall(from), to: toWall(to) })) }),
        ...windowOf(built, state, i),
        maker: task.hands === 0 ? null : Math.max(0, maker),
        done: step.done !== undefined,
        pinned: step.pinned !== undefined && !step.done && !step.kept,
        critical: critical.has(i),
        ...(repairs !== null && { repairs }),
        handsOnMinutes: task.minutes,
      },
    ];
  });
  const readyAt = score.finish;
  const off = bound > now ? (readyAt - bound) / (bound - now) : 0;
  return {
    format: 'aguada.schedule',
    version: 1,
    steps: steps.sort((a, b) => (a.from < b.from ? -1 : a.from > b.from ? 1 : 0)),
    batches: net.batches.map(({ due, ready }) => {
      const at = state.end[ready]!;
      const lateMinutes = due === null ? 0 : Math.max(0, at - due);
      return {
        batchId: tasks[ready]!.batch.id,
        readyAt: toWall(at),
        lateMinutes,
        lateDays: lateMinutes === 0 ? 0 : daysBetween(tasks[ready]!.batch.due!, toWall(at)),
      };
    }),
    readyAt: toWall(readyAt),
    benchDays: benchDaysOf(built, state).size,
    handsOnMinutes: steps.reduce((sum, { handsOnMinutes, done }) => sum + (done ? 0 : handsOnMinutes), 0),
    bound: {
      readyAt: toWall(bound),
      off: Math.max(0, off),
      proved: proved || off <= 0,
      weakBecause: off > CLOSE_TO_BOUND && !proved ? whyWeak(built) : null,
    },
    problems: [...stops, ...problemsOf(built, state)],
  };
}

/** When what a step waits for is over, and when it is too late for it; nothing where it does not wait. */
function windowOf({ net, toWall }: Built, state: State, i: number): Pick<PlannedStep, 'opensAt' | 'closesAt'> {
  let opens = -Infinity;
  let closes = Infinity;
  for (const { from, to, least, most, choice } of net.links) {
    if (to !== i) continue;
    if (least) opens = Math.max(opens, least.after(state.end[from]!));
    if (most && (choice === null || state.choice[choice] !== 'abrade'))
      closes = Math.min(closes, most.after(state.end[from]!));
  }
  return {
    ...(opens > -Infinity && { opensAt: toWall(opens) }),
    ...(closes < Infinity && { closesAt: toWall(closes) }),
  };
}

const daysBetween = (date: string, wall: string): number =>
  Math.round((wallMinutes(`${wall.slice(0, 10)}T00:00`) - wallMinutes(`${date}T00:00`)) / 1440);

/** What the bound leaves out that this request has. */
function whyWeak({ request, net }: Built): string {
  const left = [
    ...(net.holds.length > 0 ? [`that ${request.places.map(({ name }) => name).join(', ')} are shared`] : []),
    ...(net.makers > 1
      ? ['that makers cannot be at two steps at once']
      : ['that a pour cannot be cut over two evenings']),
  ];
  return `The bound does not count ${left.join(' and ')}; the best plan may well be no better than this one.`;
}

/** Tasks that decide when the last batch is ready: from there back, at each step to what it waited for longest. */
function criticalChain({ net, now }: Built, state: State): Set<number> {
  const chain = new Set<number>();
  let at = net.batches.reduce(
    (last, { ready }) => (state.end[ready]! > state.end[last]! ? ready : last),
    net.batches[0]!.ready,
  );
  for (;;) {
    chain.add(at);
    if (net.tasks[at]!.fixed) return chain;
    let from = -1;
    let latest = now;
    const wait = (other: number, until: number): void => {
      if (until >= latest && !chain.has(other)) [from, latest] = [other, until];
    };
    for (const link of net.links)
      if (link.to === at) wait(link.from, link.least ? link.least.after(state.end[link.from]!) : state.end[link.from]!);
    for (let arc = state.arcsIn[at] ?? null; arc; arc = arc.next) wait(arc.other, state.end[arc.other]!);
    if (from < 0) return chain;
    at = from;
  }
}
