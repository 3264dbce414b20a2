import { benchTimeOf, type BenchTime } from './benchTime';
import { cureFactor } from '../cure/cureLine';
import type { WallTime } from '../time/wallTime';
import type { Calendar } from './calendar';
import { climateOf, type Climate } from '../cure/conditions';
import type { NetHold, NetLink, NetTask, Network, Wait } from './network';
import type { ScheduleBatch, ScheduleRequest, ScheduleStep, ScheduleWait } from './scheduleRequest';

/** What makes a missed recoat window good. */
export const ABRADING = { kind: 'abrade', name: 'Abrade and wipe' } as const;

/** The step that makes good a missed recoat window before another. */
export const abradeId = (stepId: string): string => `${stepId}:abrade`;

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

/** A request while it is laid out: its time, its climate, and what there is of the network by now. */
class Layout {
  readonly tasks: NetTask[] = [];
  readonly of: TaskOf[] = [];
  readonly links: NetLink[] = [];
  readonly shortest: number[] = [];
  readonly holds: NetHold[] = [];
  choices = 0;
  readonly #places: ReadonlyMap<string, number>;

  constructor(
    readonly request: ScheduleRequest,
    readonly options: BuildOptions,
    readonly time: BenchTime,
    readonly climate: Climate,
  ) {
    this.#places = new Map(request.places.map(({ id }, i) => [id, i]));
  }

  #task(of: TaskOf, task: Partial<NetTask>): number {
    const minutes = Math.ceil(of.step.handsOnMinutes);
    this.of.push(of);
    return (
      this.tasks.push({
        minutes,
        hands: minutes === 0 ? 0 : (of.step.hands ?? 1),
        mayPause: of.step.mayPause ?? false,
        calendars: minutes === 0 ? [] : this.time.calendarsFor(of.step, of.batch),
        earliest: this.time.now,
        fixed: null,
        pin: null,
        onlyIf: null,
        ...task,
      }) - 1
    );
  }

  #link(from: number, to: number, shortest = 0, waits: Partial<NetLink> = {}): void {
    this.links.push({ from, to, least: null, most: null, choice: null, ...waits });
    this.shortest.push(Math.floor(shortest));
  }

  /** When a step is over that is held where it is wanted: with its pauses, where it can be done there at all. */
  #heldUntil(step: ScheduleStep, batch: ScheduleBatch, pin: number): number {
    const minutes = Math.ceil(step.handsOnMinutes);
    const calendar = step.mayPause
      ? this.time.calendarsFor(step, batch).find((one) => one.fit(pin, minutes, true) === pin)
      : undefined;
    return calendar?.endOf(pin, minutes, true) ?? pin + minutes;
  }

  #step(step: ScheduleStep, batch: ScheduleBatch): number {
    const { toSteady, now } = this.time;
    const { holdPins, notBefore } = this.options;
    const pin = step.pinned === undefined || step.done ? null : toSteady(step.pinned);
    const fixed = step.done
      ? { from: toSteady(step.done.from), to: Math.max(toSteady(step.done.from), toSteady(step.done.to)) }
      : holdPins && pin !== null
        ? { from: pin, to: this.#heldUntil(step, batch, pin) }
        : null;
    const sooner = notBefore?.get(`${batch.id}/${step.id}`) ?? this.request.now;
    return this.#task(
      { batch, step, repairs: null },
      { earliest: Math.max(now, toSteady(sooner)), fixed, pin: fixed ? null : pin },
    );
  }

  /** What lies between two steps. A recoat window may be missed where the layer is abraded instead: a step that is there by choice. */
  #wait(batch: ScheduleBatch, step: ScheduleStep, to: number, from: number, wait: ScheduleStep['after'][number]): void {
    const { least: leastWait, most, abradeMinutes, again } = wait;
    const least = leastWait ? curingWait(this.climate, leastWait, Math.ceil) : null;
    const short = leastWait ? shortestWait(leastWait, this.request) : 0;
    const choice = most && abradeMinutes !== undefined ? this.choices++ : null;
    this.#link(from, to, short, { least, most: most ? curingWait(this.climate, most, Math.floor) : null, choice });
    if (choice === null) return;
    const extra: ScheduleStep = {
      id: abradeId(step.id),
      ...(again ?? ABRADING),
      handsOnMinutes: abradeMinutes!,
      mayPause: again === undefined,
      after: [],
    };
    const abrade = this.#task({ batch, step: extra, repairs: step.id }, { onlyIf: choice });
    this.#link(from, abrade, short, { least });
    this.#link(abrade, to);
  }

  batch(batch: ScheduleBatch): Network['batches'][number] {
    const indexOf = new Map(batch.steps.map((step) => [step.id, this.#step(step, batch)]));
    for (const step of batch.steps)
      for (const wait of step.after) {
        const from = indexOf.get(wait.step);
        if (from !== undefined) this.#wait(batch, step, indexOf.get(step.id)!, from, wait);
      }
    for (const { place, amount, from, to } of batch.holds) {
      const index = this.#places.get(place);
      const [a, b] = [indexOf.get(from), indexOf.get(to)];
      if (index !== undefined && a !== undefined && b !== undefined)
        this.holds.push({ place: index, amount, from: a, to: b });
    }
    // Ready is when every step is: a step of its own, which takes nobody.
    const step: ScheduleStep = { id: `${batch.id}:ready`, kind: 'ready', name: 'Ready', handsOnMinutes: 0, after: [] };
    const ready = this.#task({ batch, step, repairs: null }, {});
    for (const i of indexOf.values()) this.#link(i, ready);
    return { due: batch.due === null ? null : this.time.toSteady(`${batch.due}T23:59`), ready };
  }
}

/**
 * Lays a request out as a network of tasks, links and places, in steady minutes. `known`: the climate of the same
 * request, built before.
 */
export function buildNetwork(request: ScheduleRequest, options: BuildOptions = {}, known?: Climate): Built {
  const time = benchTimeOf(request, options.closedDays);
  const { now, horizon, bench, toWall, toSteady } = time;
  const oldest = request.batches.flatMap(({ steps }) =>
    steps.flatMap(({ done }) => (done ? [toSteady(done.from)] : [])),
  );
  const climate = known ?? climateOf(request.conditions, Math.min(now, ...oldest), horizon, request.clockChanges);
  const layout = new Layout(request, options, time, climate);
  const batches = request.batches.flatMap((batch) => (options.without?.has(batch.id) ? [] : [layout.batch(batch)]));
  const { tasks, links, holds, choices, shortest } = layout;
  const net: Network = {
    tasks,
    links,
    holds,
    batches,
    makers: request.makers.length,
    choices,
    horizon,
    capacities: request.places.map(({ capacity }) => capacity),
  };
  return { request, net, tasks: layout.of, climate, now, shortest, bench, toWall, toSteady };
}
