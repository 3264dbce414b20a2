import { seeded } from '../chance/random';
import { climateOf, type Conditions } from '../cure/conditions';
import { HORIZON_DAYS } from './benchTime';
import { near } from './replan';
import { withRepair } from './repair';
import type { SchedulePlan, ScheduleRequest } from './scheduleRequest';
import { steadyMinutes } from '../time/clockChanges';
import { wallMinutes, type WallTime } from '../time/wallTime';

/** What may go otherwise than planned. Estimates until the log knows better. */
export const MISHAPS = {
  /** Hands-on times differ by about this share, one step like another. */
  handsOnSpread: 0.2,
  /** One evening in so many is missed. */
  missedEvening: 0.08,
  /** One layer in so many has to be abraded and topped up. */
  failedLayer: 0.05,
  /** Nights and days differ from what is typed by about so many °C, all alike. */
  roomSpreadC: 1.5,
} as const;
export type Mishaps = { [K in keyof typeof MISHAPS]: number };

/** When a batch, or all of them, may be promised for. */
export interface PromiseFigures {
  earliest: WallTime;
  /** Half of the tries were ready by then, and nine in ten. */
  likely: WallTime;
  safe: WallTime;
  tries: number;
  /** Of so many tries that were in time; null without a due date. */
  inTime: number | null;
}
export interface Promised {
  all: PromiseFigures;
  batches: (PromiseFigures & { batchId: string })[];
}

const coldest = 5;
const warmest = 40;

/**
 * Earliest, likely and safe end of batches: the plan itself, then the same batches in the same order planned anew for each of `tries`
 * weeks that go as weeks go, with hands-on times that stray, evenings missed, layers that fail, a room warmer or colder (`MISHAPS`, drawn
 * from `seed`). Tells how many tries are done.
 */
export function* promising(
  request: ScheduleRequest,
  plan: SchedulePlan,
  { tries = 60, seed = 1, mishaps = MISHAPS }: { tries?: number; seed?: number; mishaps?: Mishaps } = {},
): Generator<number, Promised | null> {
  if (plan.readyAt === null) return null;
  const roll = seeded(seed);
  /** About normal: the sum of twelve even draws less six. */
  const bell = (): number => Array.from({ length: 12 }, roll).reduce((sum, one) => sum + one, 0) - 6;
  const now = steadyMinutes(wallMinutes(request.now), request.clockChanges);
  const ends: { all: string; batches: Map<string, string> }[] = [];
  for (let k = 0; k < tries; k++) {
    const offC = bell() * mishaps.roomSpreadC;
    const conditions = warmer(request.conditions, offC);
    let bent: ScheduleRequest = {
      ...request,
      conditions,
      batches: request.batches.map((batch) => {
        const failed = batch.steps.filter(({ kind, done }) => kind === 'pour' && !done && roll() < mishaps.failedLayer);
        const repaired = failed.reduce((one, { id }) => withRepair(one, id), batch);
        return {
          ...repaired,
          steps: repaired.steps.map((step) =>
            step.done || step.handsOnMinutes === 0
              ? step
              : { ...step, handsOnMinutes: step.handsOnMinutes * Math.exp(bell() * mishaps.handsOnSpread) },
          ),
        };
      }),
    };
    bent = { ...bent, makers: bent.makers.map((maker) => ({ ...maker, ...missing(maker, bent.now, roll, mishaps) })) };
    const climate = climateOf(conditions, oldest(request, now), now + HORIZON_DAYS * 1440, request.clockChanges);
    const found = near(bent, plan, new Set(), climate, { looks: 120 });
    if (found) {
      const { built, solution } = found;
      ends.push({
        all: built.toWall(solution.score.finish),
        batches: new Map(
          built.net.batches.map(({ ready }) => [
            built.tasks[ready]!.batch.id,
            built.toWall(solution.state.end[ready]!),
          ]),
        ),
      });
    }
    yield k + 1;
  }
  if (ends.length === 0) return null;
  const figures = (earliest: string, all: string[], due: string | null): PromiseFigures => {
    const sorted = [...all].sort();
    const at = (share: number): string => sorted[Math.min(sorted.length - 1, Math.ceil(share * sorted.length) - 1)]!;
    const later = (a: string, b: string): string => (a > b ? a : b);
    return {
      earliest,
      likely: later(earliest, at(0.5)),
      safe: later(earliest, at(0.9)),
      tries: all.length,
      inTime: due === null ? null : all.filter((end) => end <= `${due}T23:59`).length,
    };
  };
  const dues = request.batches.flatMap(({ due }) => (due === null ? [] : [due])).sort();
  return {
    all: figures(
      plan.readyAt,
      ends.map(({ all }) => all),
      dues.length === request.batches.length ? dues.at(-1)! : null,
    ),
    batches: plan.batches.map(({ batchId, readyAt }) => ({
      batchId,
      ...figures(
        readyAt,
        ends.map(({ batches }) => batches.get(batchId) ?? readyAt),
        request.batches.find(({ id }) => id === batchId)?.due ?? null,
      ),
    })),
  };
}

const oldest = ({ batches, clockChanges }: ScheduleRequest, now: number): number =>
  batches.reduce(
    (first, { steps }) =>
      steps.reduce(
        (least, { done }) => (done ? Math.min(least, steadyMinutes(wallMinutes(done.from), clockChanges)) : least),
        first,
      ),
    now,
  );

function warmer(conditions: Conditions, byC: number): Conditions {
  const held = (c: number): number => Math.min(warmest, Math.max(coldest, c + byC));
  const bend = <T extends { dayC: number; nightC: number }>(day: T): T => ({
    ...day,
    dayC: held(day.dayC),
    nightC: held(day.nightC),
  });
  return { ...conditions, usual: bend(conditions.usual), days: conditions.days.map(bend) };
}

/** How many days ahead an evening may be missed: more exceptions than a maker may type would slow every try. */
const MISSED_AHEAD_DAYS = 90;

function missing(
  { exceptions, windows }: ScheduleRequest['makers'][number],
  now: WallTime,
  roll: () => number,
  { missedEvening }: Mishaps,
): { exceptions: ScheduleRequest['makers'][number]['exceptions'] } {
  if (windows.length === 0) return { exceptions };
  const first = Math.floor(wallMinutes(now) / 1440);
  const missed = Array.from({ length: MISSED_AHEAD_DAYS }, (_, i) => first + i)
    .filter(() => roll() < missedEvening)
    .map((day) => ({ date: new Date(day * 86_400_000).toISOString().slice(0, 10), spans: [] }))
    .filter(({ date }) => !exceptions.some((one) => one.date === date));
  return { exceptions: [...exceptions, ...missed] };
}

/** The whole promise in one go. */
export function promise(...asked: Parameters<typeof promising>): Promised | null {
  const run = promising(...asked);
  for (;;) {
    const step = run.next();
    if (step.done) return step.value;
  }
}
