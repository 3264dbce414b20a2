import { benchSpans } from '../time/benchWindows';
import { steadyMinutes, wallFromSteady } from '../time/clockChanges';
import { cureFactor } from '../cure/cureLine';
import { toWallTime, wallMinutes, type WallTime } from '../time/wallTime';
import { Calendar, common, joined, without, type Span } from './calendar';
import { climateOf, type Climate } from '../cure/conditions';
import type { NetHold, NetLink, NetTask, Network, Wait } from './network';
import type { ScheduleBatch, ScheduleRequest, ScheduleStep, ScheduleWait } from './scheduleRequest';

/** What makes a missed recoat window good. */
export const ABRADING = { kind: 'abrade', name: 'Abrade and wipe' } as const;

/** The step that makes good a missed recoat window before another. */
export const abradeId = (stepId: string): string => `${stepId}:abrade`;

/** How far ahead is planned. */
export const HORIZON_DAYS = 210;

/** A task of the network and what it stands for. */
export interface TaskOf {
  batch: ScheduleBatch;
  step: ScheduleStep;
  /** The step whose recoat window it makes good; null for steps of the route itself. */
  repairs: string | null;
}

/** A request made ready for the solver. */
export interface Built {
  request: ScheduleRequest;
  net: Network;
  tasks: TaskOf[];
  climate: Climate;
  now: number;
  /** The shortest that the least wait of each link can come to, by link. */
  shortest: number[];
  /** Bench time of each maker, before outdoor and quiet hours. */
  bench: Calendar[];
  toWall: (steady: number) => WallTime;
  toSteady: (wall: WallTime) => number;
}

/** What is asked of a request beside what it says: what would be if. */
export interface BuildOptions {
  /** Steps held where they are wanted, whatever they break. */
  holdPins?: boolean;
  /** Days (since 1970) on which nobody is at the bench. */
  closedDays?: ReadonlySet<number>;
  /** Steps that begin no sooner than they do in a plan, by `batch/step`. */
  notBefore?: ReadonlyMap<string, WallTime>;
  /** Batches that are left out. */
  without?: ReadonlySet<string>;
}

const clockWait = (minutes: number): Wait => ({ after: (end) => end + minutes, before: (at) => at - minutes });

/** A wait of something that cures, in whole minutes: up for the least wait, down for the greatest. */
function curingWait(climate: Climate, wait: ScheduleWait, round: (value: number) => number): Wait {
  const { minutes, curing, beforeEndMinutes = 0, afterStartMinutes = 0 } = wait;
  if (!curing) return clockWait(round(minutes - beforeEndMinutes - afterStartMinutes));
  const course = climate.courseOf(curing);
  const after = (end: number): number => round(course.curedAt(end - beforeEndMinutes, minutes) - afterStartMinutes);
  return {
    after,
    before(at) {
      let end = Math.floor(course.pouredFor(at + afterStartMinutes, minutes) + beforeEndMinutes);
      while (after(end) < at) end++;
      while (after(end - 1) >= at) end--;
      return end;
    },
  };
}

/** The minutes of a wait in the warmest, driest room of the request: it is never shorter. */
function shortestWait({ minutes, curing }: ScheduleWait, { conditions }: ScheduleRequest): number {
  if (!curing) return minutes;
  const all = [conditions.usual, ...conditions.days];
  const warmest = Math.max(...all.flatMap(({ dayC, nightC }) => [dayC, nightC]));
  const driest = Math.min(...all.map(({ humidity }) => humidity));
  return minutes * cureFactor(curing, { temperatureC: warmest, humidity: driest }, curing.wetMm);
}

/** Daily hours as spans of wall minutes; they may run over midnight. */
function dailySpans(
  { fromMinute, toMinute }: { fromMinute: number; toMinute: number },
  from: number,
  to: number,
): Span[] {
  const spans: Span[] = [];
  const length = (toMinute - fromMinute + 1440) % 1440;
  if (length === 0) return [];
  for (let day = Math.floor(from / 1440) - 1; day * 1440 < to; day++)
    spans.push({ from: day * 1440 + fromMinute, to: day * 1440 + fromMinute + length });
  return spans;
}

/**
 * Lays a request out as a network of tasks, links and places, in steady minutes. `known`: the climate of the same
 * request, built before.
 */
export function buildNetwork(request: ScheduleRequest, options: BuildOptions = {}, known?: Climate): Built {
  const { clockChanges, makers, outdoors, quiet, conditions } = request;
  const toSteady = (wall: WallTime): number => steadyMinutes(wallMinutes(wall), clockChanges);
  const toWall = (steady: number): WallTime => toWallTime(wallFromSteady(steady, clockChanges));
  const nowWall = wallMinutes(request.now);
  const endWall = nowWall + HORIZON_DAYS * 1440;
  const now = toSteady(request.now);
  const horizon = steadyMinutes(endWall, clockChanges);
  const oldest = request.batches.flatMap(({ steps }) =>
    steps.flatMap(({ done }) => (done ? [toSteady(done.from)] : [])),
  );
  const climate = known ?? climateOf(conditions, Math.min(now, ...oldest), horizon, clockChanges);

  const inSteady = (spans: readonly Span[]): Span[] =>
    joined(
      spans
        .map(({ from, to }) => ({ from: steadyMinutes(from, clockChanges), to: steadyMinutes(to, clockChanges) }))
        .filter(({ from, to }) => from < to),
    );
  const always: Span[] = [{ from: now, to: horizon }];
  const closed = [...(options.closedDays ?? [])].map((day) => ({ from: day * 1440, to: (day + 1) * 1440 }));
  const benchOf = makers.map(({ windows, exceptions }) => {
    const free = windows.length === 0 && exceptions.length === 0;
    const spans = free ? always : inSteady(benchSpans(windows, nowWall, endWall, exceptions));
    return closed.length === 0 ? spans : without(spans, inSteady(closed));
  });
  const outside = outdoors.length === 0 ? null : inSteady(benchSpans(outdoors, nowWall, endWall));
  const loud = quiet ? without(always, inSteady(dailySpans(quiet, nowWall, endWall))) : null;
  const calendars = new Map<string, Calendar[]>();
  const calendarsFor = ({ outdoors: out, noisy, hands }: ScheduleStep, batch: ScheduleBatch): Calendar[] => {
    const only = batch.windows?.length ? batch.windows : null;
    const key = `${Boolean(out)} ${Boolean(noisy)} ${hands === 2} ${only ? batch.id : ''}`;
    const known = calendars.get(key);
    if (known) return known;
    const inside = only ? inSteady(benchSpans(only, nowWall, endWall)) : null;
    const narrowed = benchOf.map((whole) => {
      const spans = inside ? common(whole, inside) : whole;
      const open = out && outside ? common(spans, outside) : spans;
      return noisy && loud ? common(open, loud) : open;
    });
    const spans = hands === 2 ? [narrowed.length < 2 ? [] : common(narrowed[0]!, narrowed[1]!)] : narrowed;
    const made = spans.map((one) => new Calendar(one));
    calendars.set(key, made);
    return made;
  };

  /** When a step is over that is held where it is wanted: with its pauses, where it can be done there at all. */
  const heldUntil = (step: ScheduleStep, batch: ScheduleBatch, pin: number, minutes: number): number => {
    const calendar = step.mayPause
      ? calendarsFor(step, batch).find((one) => one.fit(pin, minutes, true) === pin)
      : undefined;
    return calendar?.endOf(pin, minutes, true) ?? pin + minutes;
  };
  const tasks: NetTask[] = [];
  const of: TaskOf[] = [];
  const links: NetLink[] = [];
  const shortest: number[] = [];
  const holds: NetHold[] = [];
  const places = new Map(request.places.map(({ id }, i) => [id, i]));
  const addLink = (link: NetLink, shortestMinutes: number): void => {
    links.push(link);
    shortest.push(Math.floor(shortestMinutes));
  };
  let choices = 0;
  const batches = request.batches.flatMap((batch) => {
    if (options.without?.has(batch.id)) return [];
    const indexOf = new Map<string, number>();
    for (const step of batch.steps) {
      indexOf.set(step.id, tasks.length);
      const pin = step.pinned === undefined || step.done ? null : toSteady(step.pinned);
      const minutes = Math.ceil(step.handsOnMinutes);
      const fixed = step.done
        ? { from: toSteady(step.done.from), to: Math.max(toSteady(step.done.from), toSteady(step.done.to)) }
        : options.holdPins && pin !== null
          ? { from: pin, to: heldUntil(step, batch, pin, minutes) }
          : null;
      tasks.push({
        minutes,
        hands: minutes === 0 ? 0 : (step.hands ?? 1),
        mayPause: step.mayPause ?? false,
        calendars: minutes === 0 ? [] : calendarsFor(step, batch),
        earliest: Math.max(now, toSteady(options.notBefore?.get(`${batch.id}/${step.id}`) ?? request.now)),
        fixed,
        pin: fixed ? null : pin,
        onlyIf: null,
      });
      of.push({ batch, step, repairs: null });
    }
    for (const step of batch.steps) {
      const to = indexOf.get(step.id)!;
      for (const { step: before, least, most, abradeMinutes, again } of step.after) {
        const from = indexOf.get(before);
        if (from === undefined) continue;
        const leastWait = least ? curingWait(climate, least, Math.ceil) : null;
        const short = least ? shortestWait(least, request) : 0;
        const choice = most && abradeMinutes !== undefined ? choices++ : null;
        addLink(
          { from, to, least: leastWait, most: most ? curingWait(climate, most, Math.floor) : null, choice },
          short,
        );
        if (choice === null) continue;
        const abrade = tasks.length;
        const extra: ScheduleStep = {
          id: abradeId(step.id),
          ...(again ?? ABRADING),
          handsOnMinutes: abradeMinutes!,
          mayPause: again === undefined,
          after: [],
        };
        const minutes = Math.ceil(abradeMinutes!);
        const hands = minutes === 0 ? 0 : 1;
        tasks.push({
          minutes,
          hands,
          mayPause: extra.mayPause ?? false,
          calendars: calendarsFor(extra, batch),
          earliest: now,
          fixed: null,
          pin: null,
          onlyIf: choice,
        });
        of.push({ batch, step: extra, repairs: step.id });
        addLink({ from, to: abrade, least: leastWait, most: null, choice: null }, short);
        addLink({ from: abrade, to, least: null, most: null, choice: null }, 0);
      }
    }
    for (const { place, amount, from, to } of batch.holds) {
      const index = places.get(place);
      const [a, b] = [indexOf.get(from), indexOf.get(to)];
      if (index !== undefined && a !== undefined && b !== undefined)
        holds.push({ place: index, amount, from: a, to: b });
    }
    // Ready is when every step is: a step of its own, which takes nobody.
    const ready = tasks.length;
    tasks.push({
      minutes: 0,
      hands: 0,
      mayPause: false,
      calendars: [],
      earliest: now,
      fixed: null,
      pin: null,
      onlyIf: null,
    });
    of.push({
      batch,
      step: { id: `${batch.id}:ready`, kind: 'ready', name: 'Ready', handsOnMinutes: 0, after: [] },
      repairs: null,
    });
    for (const i of indexOf.values()) addLink({ from: i, to: ready, least: null, most: null, choice: null }, 0);
    return [{ due: batch.due === null ? null : toSteady(`${batch.due}T23:59`), ready }];
  });
  const net: Network = {
    tasks,
    links,
    holds,
    batches,
    makers: makers.length,
    choices,
    horizon,
    capacities: request.places.map(({ capacity }) => capacity),
  };
  const bench = benchOf.map((spans) => new Calendar(spans));
  return { request, net, tasks: of, climate, now, shortest, bench, toWall, toSteady };
}
