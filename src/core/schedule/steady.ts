import { buildNetwork } from './buildNetwork';
import { Calendar, without, type Span } from './calendar';
import { Engine } from './engine';
import type { Network } from './network';
import type { ScheduleBatch, ScheduleRequest } from './scheduleRequest';

/** Steady work: one batch made again and again in the same moulds or behind the same dam kits. */
export interface SteadyWish {
  request: ScheduleRequest;
  /** The batch that is turned round, and the place that it turns round in. */
  batchId: string;
  place: string;
  /** Weeks that are played through; the first two are not counted. */
  weeks?: number;
}

export interface SteadyTurn {
  /** From what the turn takes first to when its place is free again, steady minutes as wall times. */
  from: string;
  freeAt: string;
  pieces: number;
}

export interface Steady {
  turns: SteadyTurn[];
  piecesPerWeek: number;
  handsOnMinutesPerWeek: number;
  /** How long a turn keeps its place, on average, minutes. */
  turnMinutes: number;
  /** Turns that go on side by side. */
  sideBySide: number;
}

const RUN_UP_WEEKS = 2;
const MOST_TURNS = 400;

/**
 * Plays weeks of steady work through: whenever a place is free the next turn begins, as early as its steps, waits and bench windows
 * allow around what is already at the bench. A turn is the part of the route between taking the place and giving it back, and what of
 * the route comes after it is done in between too. Not a best plan: what comes of always beginning the next turn as soon as it can.
 */
export function steadyWork({ request, batchId, place, weeks = 8 }: SteadyWish): Steady | null {
  const batch = request.batches.find(({ id }) => id === batchId);
  const hold = batch?.holds.find((one) => one.place === place);
  const capacity = request.places.find(({ id }) => id === place)?.capacity ?? 0;
  if (!batch || !hold || hold.amount > capacity) return null;
  const turn = turnOf(batch, hold.from);
  const alone: ScheduleRequest = { ...request, batches: [turn] };
  const built = buildNetwork(alone);
  const { net, tasks, now, toWall } = built;
  const indexOf = (id: string): number => tasks.findIndex(({ step }) => step.id === id);
  const [from, to] = [indexOf(hold.from), indexOf(hold.to)];
  const sideBySide = Math.max(1, Math.floor(capacity / hold.amount));
  const freeAt = Array.from({ length: sideBySide }, () => now);
  const busy: Span[][] = built.bench.map(() => []);
  const end = now + weeks * 7 * 1440;
  const counted = now + RUN_UP_WEEKS * 7 * 1440;
  const turns: { from: number; freeAt: number }[] = [];
  let handsOn = 0;
  while (turns.length < MOST_TURNS) {
    const kit = freeAt.indexOf(Math.min(...freeAt));
    if (freeAt[kit]! >= end) break;
    const placed = settleTurn(net, busy, freeAt[kit]!);
    if (!placed) break;
    const taken = { from: placed.start[from]!, freeAt: placed.end[to]! };
    if (taken.freeAt <= freeAt[kit]!) break;
    freeAt[kit] = taken.freeAt;
    turns.push(taken);
    net.tasks.forEach((task, i) => {
      if (task.hands === 0 || task.minutes === 0 || placed.choiceSkips(i)) return;
      const maker = Math.max(0, placed.maker(i));
      const parts = task.mayPause
        ? new Calendar(without(task.calendars[maker]!.spans, busy[maker]!)).partsOf(placed.start[i]!, task.minutes)
        : [{ from: placed.start[i]!, to: placed.end[i]! }];
      for (const part of parts) if (part.from >= counted && part.to <= end) handsOn += part.to - part.from;
      busy[maker]!.push(...parts);
      if (task.hands === 2) busy[1]?.push(...parts);
    });
  }
  const whole = turns.filter((one) => one.freeAt > counted && one.freeAt <= end);
  const span = (end - counted) / (7 * 1440);
  return {
    turns: turns.map((one) => ({ from: toWall(one.from), freeAt: toWall(one.freeAt), pieces: batch.pieces })),
    piecesPerWeek: (whole.length * batch.pieces) / span,
    handsOnMinutesPerWeek: handsOn / span,
    turnMinutes: turns.reduce((sum, one) => sum + one.freeAt - one.from, 0) / Math.max(1, turns.length),
    sideBySide,
  };
}

/** The steps of a turn: what takes the place and all that follows; bodies are ready. */
function turnOf(batch: ScheduleBatch, first: string): ScheduleBatch {
  const kept = new Set([first]);
  for (let grown = true; grown;) {
    grown = false;
    for (const { id, after } of batch.steps)
      if (!kept.has(id) && after.some(({ step }) => kept.has(step))) {
        kept.add(id);
        grown = true;
      }
  }
  return {
    ...batch,
    due: null,
    holds: batch.holds.filter(({ from, to }) => kept.has(from) && kept.has(to)),
    steps: batch.steps
      .filter(({ id }) => kept.has(id))
      .map(({ done: _done, pinned: _pinned, ...step }) => ({
        ...step,
        after: step.after.filter(({ step: id }) => kept.has(id)),
      })),
  };
}

interface Placed {
  start: Float64Array;
  end: Float64Array;
  maker: (task: number) => number;
  choiceSkips: (task: number) => boolean;
}

/** One turn from a time on, around what the bench is busy with. Its own steps are put in a row where two would fall together. */
function settleTurn(net: Network, busy: readonly Span[][], from: number): Placed | null {
  const free = new Map<Calendar, Calendar>();
  const open = (calendar: Calendar, maker: number): Calendar => {
    const known = free.get(calendar);
    if (known) return known;
    const made = new Calendar(without(calendar.spans, busy[maker] ?? []));
    free.set(calendar, made);
    return made;
  };
  const engine = new Engine({
    ...net,
    holds: [],
    tasks: net.tasks.map((task) => ({
      ...task,
      earliest: Math.max(task.earliest, from),
      calendars: task.calendars.map((calendar, maker) => open(calendar, maker)),
    })),
  });
  let state = engine.root();
  for (let tries = 0; state && tries < 200; tries++) {
    const conflict = engine.conflict(state);
    if (!conflict) {
      const done = state;
      return {
        start: done.start,
        end: done.end,
        maker: (task) => engine.makerFor(done, task),
        choiceSkips: (task) => !engine.isDone(done, task),
      };
    }
    state = engine.ways(state, conflict).sort((a, b) => total(a.end) - total(b.end))[0] ?? null;
  }
  return null;
}

const total = (ends: Float64Array): number => ends.reduce((sum, end) => sum + end, 0);

/** What holds steady work back: what one more of each would bring, in pieces a week. */
export interface Bottleneck {
  words: string;
  piecesPerWeek: number;
}

/** Steady work with one more set of the place, an evening more a week, warmer nights: what brings most is the bottleneck. */
export function steadyMore(
  wish: SteadyWish,
  more: readonly { words: string; request: ScheduleRequest }[],
): Bottleneck[] {
  return more
    .flatMap(({ words, request }) => {
      const steady = steadyWork({ ...wish, request });
      return steady ? [{ words, piecesPerWeek: steady.piecesPerWeek }] : [];
    })
    .sort((a, b) => b.piecesPerWeek - a.piecesPerWeek);
}
