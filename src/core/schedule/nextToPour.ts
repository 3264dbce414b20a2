import { dayOf, benchDaysOf } from './days';
import type { Built } from './buildNetwork';
import { Engine } from './engine';
import type { State } from './network';
import type { StepKind } from './stepKinds';

/** Steps that are best done just before what follows: a bench does not stay level for days, dams are in short supply. */
const JUST_BEFORE: ReadonlySet<StepKind> = new Set(['level', 'leak test', 'mould', 'dam']);

/**
 * A plan in which what is best done just before the pour stands as near to it as it can without moving anything else and without
 * another bench day: no batch is ready any later.
 */
export function nextToPour(built: Built, planned: State): State {
  const { net, tasks, toWall } = built;
  const state = { ...planned, start: planned.start.slice(), end: planned.end.slice() };
  const engine = new Engine(net);
  const days = new Set(benchDaysOf(built, state).keys());
  const busy = net.tasks.flatMap((task, i) =>
    task.hands > 0 && task.minutes > 0 && engine.isDone(state, i) ? [i] : [],
  );
  const movable = busy
    .filter((i) => {
      const { fixed, pin, hands } = net.tasks[i]!;
      return !fixed && pin === null && hands === 1 && JUST_BEFORE.has(tasks[i]!.step.kind);
    })
    .sort((a, b) => state.start[b]! - state.start[a]!);
  for (const i of movable) {
    const { minutes } = net.tasks[i]!;
    const maker = engine.makerFor(state, i);
    let latest = Infinity;
    for (const { from, to, least, most } of net.links) {
      if (from === i)
        latest = Math.min(
          latest,
          (least ? lastBefore(least.after, state.start[to]!, state.end[i]!) : state.start[to]!) - minutes,
        );
      if (to === i && most) latest = Math.min(latest, most.after(state.end[from]!));
    }
    // Who has a place first stays as it is. Which of two steps the same hands do first does not: none is done at the time of another.
    const takesPlace = net.holds.some(({ from, to }) => from === i || to === i);
    for (let arc = takesPlace ? (state.arcsOut[i] ?? null) : null; arc; arc = arc.next)
      latest = Math.min(latest, state.start[arc.other]! - minutes);
    const { spans } = net.tasks[i]!.calendars[Math.max(0, maker)]!;
    const others = busy.filter(
      (other) =>
        other !== i && (net.makers === 1 || net.tasks[other]!.hands === 2 || engine.makerFor(state, other) === maker),
    );
    for (const span of [...spans].reverse()) {
      let at = Math.min(latest, span.to - minutes);
      if (at <= state.start[i]!) {
        if (span.to <= state.start[i]!) break;
        continue;
      }
      for (;;) {
        const other = others.find((one) => state.start[one]! < at + minutes && at < state.end[one]!);
        if (other === undefined || at < span.from) break;
        at = state.start[other]! - minutes;
      }
      if (at < span.from || at <= state.start[i]! || !days.has(dayOf(toWall(at)))) continue;
      state.start[i] = at;
      state.end[i] = at + minutes;
      break;
    }
  }
  return state;
}

/** The last end, from one that will do on, after which a wait is over by `by`. */
function lastBefore(after: (end: number) => number, by: number, from: number): number {
  let low = from;
  let high = by;
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (after(middle) <= by) low = middle;
    else high = middle - 1;
  }
  return low;
}
