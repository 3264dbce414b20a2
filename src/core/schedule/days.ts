import { buildNetwork, type BuildOptions, type Built } from './buildNetwork';
import type { Calendar, Span } from './calendar';
import { Engine } from './engine';
import type { NetTask, State } from './network';
import type { ScheduleRequest } from './scheduleRequest';
import {
  compareScores,
  ordersOf,
  scoreOf,
  search,
  withChoices,
  type Goal,
  type SearchWish,
  type Solution,
} from './search';

/** Up to so many days with bench time, every choice of days is tried; beyond that they are given up one by one. */
const ALL_CHOICES_DAYS = 7;
const LOOKS_PER_TRY = 150;
/** With more tasks a day is only given up where the order of all steps can stay. */
const SEARCHED_TASKS = 90;
const MOST_TRIES = 16;

/** The days (since 1970, by the wall clock) on which hands are needed, and for how many minutes. What is done already is not counted. */
export function benchDaysOf({ net, tasks, toWall }: Built, state: State): Map<number, number> {
  const days = new Map<number, number>();
  const engine = new Engine(net);
  net.tasks.forEach((task, i) => {
    if (task.hands === 0 || tasks[i]!.step.done || task.minutes === 0 || !engine.isDone(state, i)) return;
    const calendar = task.calendars[task.hands === 2 ? 0 : Math.max(0, engine.makerFor(state, i))]!;
    const parts = partsOf(task, calendar, state.start[i]!, state.end[i]!);
    for (const { from, to } of parts) {
      const day = dayOf(toWall(from));
      days.set(day, (days.get(day) ?? 0) + to - from);
    }
  });
  return days;
}

/** The stretches at the bench of a step as it is planned: more than one where it is paused. */
export function partsOf(
  { mayPause, minutes }: NetTask,
  calendar: Calendar | undefined,
  start: number,
  end: number,
): Span[] {
  const whole = [{ from: start, to: end }];
  if (!mayPause || !calendar || end - start === minutes) return whole;
  const parts = calendar.partsOf(start, minutes);
  return parts.at(-1)?.to === end ? parts : whole;
}

/** The day since 1970 of a wall time. */
export const dayOf = (wall: string): number => Math.floor(Date.parse(`${wall.slice(0, 10)}T00:00:00Z`) / 86_400_000);

/** What may not get worse for an evening that is saved. */
const KEPT: Record<ScheduleRequest['goal'], readonly Goal[]> = {
  soonest: ['late', 'abraded', 'finish'],
  'fewest evenings': ['late', 'abraded'],
};

/** The same batches on fewer bench days, where that costs nothing that counts more. */
export function fewerDays(
  request: ScheduleRequest,
  options: BuildOptions,
  built: Built,
  solution: Solution,
  wish: SearchWish,
): { built: Built; solution: Solution } {
  const kept = KEPT[request.goal];
  let best = { built, solution, days: benchDaysOf(built, solution.state) };
  const attempt = (closed: ReadonlySet<number>): typeof best | null => {
    const next = buildNetwork(request, { ...options, closedDays: closed }, built.climate);
    const found =
      inThatOrder(next, best, kept) ??
      (next.net.tasks.length <= SEARCHED_TASKS ? firstGood(next, wish, kept, solution) : null);
    if (!found) return null;
    const days = benchDaysOf(next, found.state);
    return days.size < best.days.size ? { built: next, solution: found, days } : null;
  };
  const open = openDays(built, solution.score.finish);
  if (open.length <= ALL_CHOICES_DAYS) {
    for (let count = 1; count < best.days.size; count++) {
      for (const left of subsets(open, count)) {
        const found = attempt(new Set(open.filter((day) => !left.includes(day))));
        if (found) return found;
      }
    }
    return best;
  }
  const closed = new Set<number>();
  const quietest = [...best.days].sort((a, b) => a[1] - b[1]).slice(0, MOST_TRIES);
  for (const [day] of quietest) {
    const found = attempt(new Set([...closed, day]));
    if (!found) continue;
    best = found;
    closed.add(day);
  }
  return best;
}

/** The steps of a plan in their order on the days that are left; null where that does not do. */
function inThatOrder(
  next: Built,
  { solution: { state, score } }: { solution: Solution },
  kept: readonly Goal[],
): Solution | null {
  const engine = new Engine(next.net);
  const root = engine.root();
  if (!root) return null;
  const free = new Uint8Array(next.net.tasks.length);
  const ordered = engine.orderedAll(withChoices(engine, root, state, free), ordersOf(engine, state, free));
  if (!ordered || engine.conflict(ordered)) return null;
  const found = { state: ordered, score: scoreOf(next.net, ordered) };
  return compareScores(found.score, score, kept) <= 0 ? found : null;
}

/** The first plan that is as good in what counts more; on few looks. */
function firstGood({ net }: Built, wish: SearchWish, kept: readonly Goal[], than: Solution): Solution | null {
  const run = search(net, { ...wish, mostLooks: LOOKS_PER_TRY });
  for (;;) {
    const { value, done } = run.next();
    if (value.best && compareScores(value.best.score, than.score, kept) <= 0) return value.best;
    if (done) return null;
  }
}

function openDays({ bench, toWall, now }: Built, until: number): number[] {
  const days = new Set<number>();
  for (const calendar of bench)
    for (const { from, to } of calendar.spans) {
      if (to <= now || from >= until) continue;
      for (let at = from; at < Math.min(to, until); at += 1440) days.add(dayOf(toWall(at)));
      days.add(dayOf(toWall(Math.min(to, until) - 1)));
      if (days.size > ALL_CHOICES_DAYS) return [...days];
    }
  return [...days].sort((a, b) => a - b);
}

function subsets(of: readonly number[], count: number): number[][] {
  if (count === 0) return [[]];
  return of.flatMap((first, i) => subsets(of.slice(i + 1), count - 1).map((rest) => [first, ...rest]));
}
