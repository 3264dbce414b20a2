import { seeded } from '../chance/random';
import { Calendar, without, type Span } from './calendar';
import { Engine } from './engine';
import type { Choice, Network, State } from './network';

/** What counts, in this order: the first in which two plans differ decides. */
export type Goal = 'late' | 'abraded' | 'finish' | 'sum';
/** What a plan comes to: minutes past due dates, recoat windows missed, when the last batch is ready, when all are, summed. */
export type Score = Record<Goal, number>;

export const DUE_FIRST: readonly Goal[] = ['late', 'abraded', 'finish', 'sum'];

/** A plan: when each step is done and by whom. */
export interface Solution {
  state: State;
  score: Score;
}

export function scoreOf(net: Network, state: State): Score {
  let late = 0;
  let finish = 0;
  let sum = 0;
  for (const { due, ready } of net.batches) {
    const at = state.end[ready]!;
    if (due !== null && at > due) late += at - due;
    finish = Math.max(finish, at);
    sum += at;
  }
  return { late, abraded: state.choice.filter((choice) => choice === 'abrade').length, finish, sum };
}

/** Negative when `a` is the better one. */
export function compareScores(a: Score, b: Score, goals: readonly Goal[]): number {
  for (const goal of goals) if (a[goal] !== b[goal]) return a[goal] - b[goal];
  return 0;
}

/** How far a search has come. */
export interface Progress {
  best: Solution | null;
  /** Partial plans that were looked at. */
  looked: number;
  /** True once nothing better is left to be found. */
  proved: boolean;
}

export interface SearchWish {
  goals: readonly Goal[];
  seed: number;
  /** Partial plans that may be looked at: the effort. */
  mostLooks: number;
  /** A plan to begin with and to improve on. */
  from?: Solution;
  /** Where to begin when part of the plan is decided: an engine of the same network, and a state of it. */
  within?: { engine: Engine; root: State };
}

/** Looks after which the whole tree is given up for neighbourhoods of the best plan. */
const TREE_LOOKS = 1500;
const NEIGHBOURHOOD_LOOKS = 120;
/** How far past the end that would be possible alone plans are looked for at first, and past the best one later. */
const FIRST_REACH_MINUTES = 21 * 1440;
const NEAR_MINUTES = 3 * 1440;
/** Partial plans between two reports. */
const REPORT_EVERY = 60;

/**
 * The best plan that so much effort finds. Branch and bound over what is in conflict: which of two steps comes first, which batch has a
 * place first, who does a step, whether a recoat window is kept or abraded. What is decided settles all times at their earliest, so a
 * partial plan bounds every plan in it and a search that ends has proved its answer. What is too large for that is improved in
 * neighbourhoods: one batch or a few days are planned anew, the order of all else stays. The same network, seed and effort give the
 * same plan.
 */
export function* search(net: Network, wish: SearchWish): Generator<Progress, Progress> {
  const engine = wish.within?.engine ?? new Engine(net);
  const { goals } = wish;
  const roll = seeded(wish.seed);
  let best = wish.from ?? null;
  let looked = 0;
  let reported = 0;
  let begun: Solution | null = null;
  const report = (proved = false): Progress => {
    const shown = begun && (!best || compareScores(begun.score, best.score, goals) < 0) ? begun : best;
    return { best: shown, looked, proved };
  };

  interface Node {
    state: State;
    score: Score;
    tie: number;
  }
  const node = (state: State, noise: number): Node => ({ state, score: scoreOf(net, state), tie: noise * roll() });
  /** Depth first, the child that costs least first. Ends after `most` looks; true when it has seen everything. */
  function* deepen(root: State, most: number, noise: number): Generator<Progress, boolean> {
    const stack: Node[] = [node(root, 0)];
    const until = looked + most;
    while (stack.length > 0) {
      const { state, score } = stack.pop()!;
      if (best && compareScores(score, best.score, goals) >= 0) continue;
      if (looked >= until || looked >= wish.mostLooks) return false;
      looked++;
      if (looked - reported >= REPORT_EVERY) {
        reported = looked;
        yield report();
      }
      const conflict = engine.conflict(state);
      if (!conflict) {
        best = { state, score };
        continue;
      }
      const children = engine.ways(state, conflict).map((way) => node(way, noise));
      // The last one on the stack is looked at first.
      children.sort((a, b) => compareScores(b.score, a.score, goals) || b.tie - a.tie);
      stack.push(...children);
    }
    return true;
  }

  const root = wish.within?.root ?? engine.root();
  if (!root) return report(true);
  // A plan to begin with: batches put in one after the other. The tree is gone into without it: it would hide better ways that begin worse.
  if (!best && !wish.within && net.batches.length > 1) {
    const state = oneAfterTheOther(engine, root);
    if (state) begun = { state, score: scoreOf(net, state) };
    if (begun) yield report();
  }
  const better = (): void => {
    if (begun && (!best || compareScores(begun.score, best.score, goals) < 0)) best = begun;
    begun = null;
  };
  const rootFinish = scoreOf(net, root).finish;
  const now = Math.min(...net.tasks.map(({ earliest }) => earliest));
  engine.limit = Math.min(net.horizon, rootFinish + Math.max(FIRST_REACH_MINUTES, 2 * (rootFinish - now)));
  // Nothing later can be better than a plan that is in time, misses no window and ends before.
  const nothingLater = (): boolean =>
    engine.limit === net.horizon || (best !== null && best.score.late === 0 && best.score.abraded === 0);
  if (yield* deepen(root, TREE_LOOKS, 0)) {
    if (nothingLater()) return report(true);
    engine.limit = net.horizon;
    if (yield* deepen(root, TREE_LOOKS, 0)) return report(true);
  }
  better();
  // Where orders of the first plan lead nowhere, others are tried.
  engine.limit = net.horizon;
  while (!best && looked < wish.mostLooks) {
    const before = looked;
    if (yield* deepen(root, TREE_LOOKS, 1)) return report(true);
    if (looked === before) break;
  }
  while (best && looked < wish.mostLooks) {
    const before = looked;
    engine.limit = Math.min(net.horizon, best.score.finish + NEAR_MINUTES);
    const free = neighbourhood(net, best, roll);
    const kept = engine.orderedAll(withChoices(engine, root, best.state, free), ordersOf(engine, best.state, free));
    if (kept) yield* deepen(kept, NEIGHBOURHOOD_LOOKS, 1);
    if (looked === before) looked++;
  }
  return report();
}

/** Looks that one batch gets when it is put in. */
const LOOKS_PER_BATCH = 300;
const LOOKS_AT_THE_END = 2000;

/**
 * A plan without much looking: batches in the order of their due dates, each put into what the ones before it leave free. Null where
 * that leads nowhere.
 */
function oneAfterTheOther(engine: Engine, root: State): State | null {
  const { net } = engine;
  const batchOf = batchesOfTasks(net);
  const order = net.batches
    .map(({ due, ready }, i) => ({ i, due: due ?? Infinity, end: root.end[ready]! }))
    .sort((a, b) => a.due - b.due || a.end - b.end);
  const within = new Uint8Array(net.tasks.length);
  let tasks = net.tasks;
  const busy: Span[][] = Array.from({ length: net.makers }, () => []);
  const placed = engine.copy(root);
  for (const { i: batch } of order) {
    batchOf.forEach((of, i) => of === batch && (within[i] = 1));
    // The bench as the batches before it leave it.
    const left = leftOver(net, busy);
    const alone = new Engine({
      ...net,
      tasks: tasks.map((task, i) =>
        batchOf[i] === batch ? { ...task, calendars: task.calendars.map((one, m) => left(one, task.hands, m)) } : task,
      ),
    });
    alone.within = within;
    const state = firstPlan(alone);
    if (!state) return null;
    tasks = tasks.map((task, i) => {
      if (batchOf[i] !== batch) return task;
      placed.start[i] = state.start[i]!;
      placed.end[i] = state.end[i]!;
      placed.maker[i] = state.maker[i]! >= 0 || task.hands !== 1 ? state.maker[i]! : alone.makerFor(state, i);
      if (task.onlyIf !== null) placed.choice[task.onlyIf] = state.choice[task.onlyIf]!;
      const span = { from: state.start[i]!, to: state.end[i]! };
      if (task.hands > 0 && alone.isDone(state, i) && span.from < span.to)
        for (const own of task.hands === 2 ? busy : [busy[Math.max(0, placed.maker[i]!)]!]) own.push(span);
      return { ...task, hands: 0, fixed: task.fixed ?? span };
    });
  }
  const free = new Uint8Array(net.tasks.length);
  const kept = engine.orderedAll(withChoices(engine, root, placed, free), ordersOf(engine, placed, free));
  // In that order times can only get better; what is left of conflicts is solved from there.
  return kept && firstPlan(engine, kept, LOOKS_AT_THE_END);
}

/** Calendars without what the bench is busy with, each made once. */
function leftOver(
  { makers }: Network,
  busy: readonly (readonly Span[])[],
): (calendar: Calendar, hands: 0 | 1 | 2, maker: number) => Calendar {
  const made = new Map<Calendar, Calendar>();
  return (calendar, hands, maker) => {
    const known = made.get(calendar);
    if (known) return known;
    const taken = hands === 2 ? busy.slice(0, Math.min(2, makers)).flat() : (busy[maker] ?? []);
    const left = new Calendar(without(calendar.spans, taken));
    made.set(calendar, left);
    return left;
  };
}

/** The first plan that a way leads to, the child that costs least first. */
function firstPlan(engine: Engine, from: State | null = engine.root(), most = LOOKS_PER_BATCH): State | null {
  if (!from) return null;
  const stack = [from];
  for (let looks = 0; stack.length > 0 && looks < most; looks++) {
    const state = stack.pop()!;
    const conflict = engine.conflict(state);
    if (!conflict) return state;
    const ways = engine.ways(state, conflict).map((way) => ({ way, score: scoreOf(engine.net, way) }));
    ways.sort((a, b) => compareScores(b.score, a.score, DUE_FIRST));
    stack.push(...ways.map(({ way }) => way));
  }
  return null;
}

/** Steps that are planned anew: those of one or two batches, or those within some days. */
function neighbourhood(net: Network, { state }: Solution, roll: () => number): Uint8Array {
  const free = new Uint8Array(net.tasks.length);
  const starts = net.tasks.map((_, i) => state.start[i]!);
  const batchOf = batchesOfTasks(net);
  const kind = roll();
  if (kind < 0.4 && net.batches.length > 1) {
    const chosen = Math.floor(roll() * net.batches.length);
    const second = kind < 0.15 ? Math.floor(roll() * net.batches.length) : chosen;
    batchOf.forEach((batch, i) => (free[i] = batch === chosen || batch === second ? 1 : 0));
    return free;
  }
  const around = starts[Math.floor(roll() * starts.length)]!;
  const reach = (1 + Math.floor(roll() * 6)) * 1440;
  starts.forEach((start, i) => (free[i] = Math.abs(start - around) <= reach ? 1 : 0));
  return free;
}

/** The batch of each task: tasks of a batch hang together by links. */
function batchesOfTasks(net: Network): number[] {
  const group = net.tasks.map((_, i) => i);
  const top = (i: number): number => {
    while (group[i] !== i) i = group[i]!;
    return i;
  };
  for (const { from, to } of net.links) group[top(from)] = top(to);
  const tops = net.batches.map(({ ready }) => top(ready));
  return group.map((_, i) => tops.indexOf(top(i)));
}

/** Recoat windows that are not planned anew stay kept or abraded. */
export function withChoices(engine: Engine, root: State, best: State, free: Uint8Array): State {
  let state = root;
  for (const { from, to, choice } of engine.net.links) {
    if (choice === null || free[from] || free[to]) continue;
    const as: Choice = best.choice[choice] === 'abrade' ? 'abrade' : 'keep';
    state = engine.chosen(state, choice, as) ?? state;
  }
  return state;
}

/** The order of all steps and places of a plan but the free ones. */
export function ordersOf(engine: Engine, state: State, free: Uint8Array): [number, number][] {
  const { tasks, holds, capacities } = engine.net;
  const { start, end, maker } = state;
  const pairs: [number, number][] = [];
  const busy = tasks
    .map((_, i) => i)
    .filter((i) => !free[i] && tasks[i]!.hands > 0 && engine.isDone(state, i) && end[i]! > start[i]!)
    .sort((a, b) => start[a]! - start[b]! || a - b);
  const last = new Map<number, number>();
  for (const i of busy) {
    const whose = tasks[i]!.hands === 2 ? [...Array(engine.net.makers).keys()] : [Math.max(0, maker[i]!)];
    for (const one of whose) {
      const before = last.get(one);
      if (before !== undefined && end[before]! <= start[i]!) pairs.push([before, i]);
      last.set(one, i);
    }
  }
  for (const a of holds) {
    if (free[a.from] || free[a.to]) continue;
    for (const b of holds) {
      if (a === b || a.place !== b.place || free[b.from] || free[b.to]) continue;
      const apart = a.amount + b.amount > capacities[a.place]!;
      if (apart && end[a.to]! <= start[b.from]!) pairs.push([a.to, b.from]);
    }
  }
  return pairs;
}

/** The whole search in one go. */
export function solve(net: Network, wish: SearchWish): Progress {
  const run = search(net, wish);
  for (;;) {
    const step = run.next();
    if (step.done) return step.value;
  }
}
