import { steadyMinutes } from '../time/clockChanges';
import { cureFactor } from '../cure/cureLine';
import { toWallTime, wallMinutes, weekdayOf } from '../time/wallTime';
import { climateOf } from '../cure/conditions';
import type {
  PlannedStep,
  ScheduleBatch,
  SchedulePlan,
  ScheduleRequest,
  ScheduleStep,
  ScheduleWait,
} from './scheduleRequest';

/** Something in a plan that cannot be, in words. */
export type Breach = string;

/**
 * Looks a plan through from its own times and the request alone, minute by minute, with nothing of the solver: every step once, order
 * and lags (cure summed up over the room minute by minute), bench windows with exceptions, outdoor and quiet hours, nobody at two
 * steps at once, places never overfull, nothing that may not be paused cut in two, what is done where it was, pins kept. An empty list
 * is a plan that holds.
 */
export function verifyPlan(request: ScheduleRequest, plan: SchedulePlan): Breach[] {
  const breaches: Breach[] = [];
  const { clockChanges } = request;
  const steady = (wall: string): number => steadyMinutes(wallMinutes(wall), clockChanges);
  const planned = new Map(plan.steps.map((step) => [`${step.batchId}/${step.stepId}`, step]));
  if (planned.size !== plan.steps.length) breaches.push('a step is planned twice');
  const at = (batch: ScheduleBatch, id: string): PlannedStep | undefined => planned.get(`${batch.id}/${id}`);
  const now = steady(request.now);
  const times = plan.steps.flatMap(({ from, to }) => [steady(from), steady(to)]);
  const climate = climateOf(request.conditions, Math.min(now, ...times), Math.max(now, ...times) + 1440, clockChanges);
  /** Label minutes of cure from one time to another. */
  const cured = ({ curing }: ScheduleWait, from: number, to: number): number => {
    if (!curing) return to - from;
    let sum = 0;
    for (let minute = from; minute < to; minute++)
      sum += 1 / cureFactor(curing, climate.roomAt(minute + 0.5), curing.wetMm);
    return sum;
  };
  for (const batch of request.batches) {
    for (const step of batch.steps) {
      const own = at(batch, step.id);
      if (!own) {
        breaches.push(`${batch.id}/${step.id} is not planned`);
        continue;
      }
      if (step.done) {
        if (own.from !== step.done.from || own.to !== step.done.to) breaches.push(`${step.id} was done and has moved`);
        continue;
      }
      if (steady(own.from) < now) breaches.push(`${step.id} begins in the past`);
      if (step.pinned !== undefined && own.from !== step.pinned) breaches.push(`${step.id} is not where it is pinned`);
      breaches.push(...handsOn(request, step, own, batch.windows));
      for (const { step: before, least, most, abradeMinutes } of step.after) {
        const other = at(batch, before);
        if (!other) continue;
        const [from, to] = [steady(other.to), steady(own.from)];
        if (to < from) breaches.push(`${step.id} begins before ${before} is over`);
        else if (least && cured(least, from, to) < least.minutes - 0.01)
          breaches.push(`${step.id} is too soon after ${before}`);
        const abraded = plan.steps.find((one) => one.batchId === batch.id && one.repairs === step.id);
        const [since, until] = [from - (most?.beforeEndMinutes ?? 0), to + (most?.afterStartMinutes ?? 0)];
        if (most && cured(most, since, until) > most.minutes + (most.curing ? 1.01 : 0)) {
          if (abradeMinutes === undefined) breaches.push(`${step.id} is too late after ${before}`);
          else if (!abraded) breaches.push(`${step.id} misses the window of ${before} and nothing is abraded`);
          else if (steady(abraded.from) < from || steady(abraded.to) > to)
            breaches.push(`${before} is not abraded in time`);
          else if (least && cured(least, from, steady(abraded.from)) < least.minutes - 0.01)
            breaches.push(`${before} is abraded while it is soft`);
          else
            breaches.push(
              ...handsOn(
                request,
                { mayPause: true, handsOnMinutes: abradeMinutes, id: abraded.stepId },
                abraded,
                batch.windows,
              ),
            );
        }
      }
    }
  }
  breaches.push(...twoAtOnce(request, plan), ...overfull(request, plan));
  return breaches;
}

const stretches = ({ from, to, parts }: PlannedStep): { from: string; to: string }[] => parts ?? [{ from, to }];

type Work = Pick<ScheduleStep, 'id' | 'handsOnMinutes' | 'mayPause' | 'outdoors' | 'noisy' | 'hands'>;

function handsOn(request: ScheduleRequest, step: Work, own: PlannedStep, only: ScheduleBatch['windows']): Breach[] {
  const breaches: Breach[] = [];
  const { clockChanges } = request;
  const steady = (wall: string): number => steadyMinutes(wallMinutes(wall), clockChanges);
  const worked = stretches(own).reduce((sum, { from, to }) => sum + steady(to) - steady(from), 0);
  const minutes = Math.ceil(step.handsOnMinutes);
  if (worked !== minutes) breaches.push(`${step.id} takes ${minutes} min and has ${worked}`);
  if (own.parts && !step.mayPause) breaches.push(`${step.id} may not be paused`);
  if (minutes === 0) return breaches;
  const makers = step.hands === 2 ? request.makers.slice(0, 2) : [request.makers[own.maker ?? 0]!];
  for (const stretch of stretches(own)) {
    for (let wall = wallMinutes(stretch.from); wall < wallMinutes(stretch.to); wall++) {
      if (makers.some((maker) => !isOpen(wall, maker.windows, maker.exceptions)))
        return [...breaches, `${step.id} is outside bench time at ${toWallTime(wall)}`];
      if (only && !isOpen(wall, only, [])) return [...breaches, `${step.id} is outside its own windows`];
      if (step.outdoors && request.outdoors.length > 0 && !isOpen(wall, request.outdoors, []))
        return [...breaches, `${step.id} is outdoors at ${toWallTime(wall)}`];
      if (step.noisy && request.quiet && inDaily(wall, request.quiet))
        return [...breaches, `${step.id} is noisy at ${toWallTime(wall)}`];
    }
  }
  return breaches;
}

function isOpen(
  wall: number,
  windows: ScheduleRequest['makers'][number]['windows'],
  exceptions: ScheduleRequest['makers'][number]['exceptions'],
): boolean {
  const minute = ((wall % 1440) + 1440) % 1440;
  const date = toWallTime(wall).slice(0, 10);
  const other = exceptions.find((one) => one.date === date);
  const inside = ({ fromMinute, toMinute }: { fromMinute: number; toMinute: number }): boolean =>
    minute >= fromMinute && minute < toMinute;
  if (other) return other.spans.some(inside);
  return windows.length === 0 || windows.some((window) => window.weekday === weekdayOf(wall) && inside(window));
}

function inDaily(wall: number, { fromMinute, toMinute }: { fromMinute: number; toMinute: number }): boolean {
  const minute = ((wall % 1440) + 1440) % 1440;
  if (fromMinute === toMinute) return false;
  return fromMinute < toMinute ? minute >= fromMinute && minute < toMinute : minute >= fromMinute || minute < toMinute;
}

function twoAtOnce(request: ScheduleRequest, plan: SchedulePlan): Breach[] {
  const open = plan.steps.filter(({ done, handsOnMinutes, maker }) => !done && handsOnMinutes > 0 && maker !== null);
  const both = (step: PlannedStep): boolean =>
    request.batches.find(({ id }) => id === step.batchId)?.steps.find(({ id }) => id === step.stepId)?.hands === 2;
  return open.flatMap((a, i) =>
    open.slice(i + 1).flatMap((b) => {
      if (a.maker !== b.maker && !both(a) && !both(b)) return [];
      return a.from < b.to && b.from < a.to ? [`${a.stepId} and ${b.stepId} are done at once`] : [];
    }),
  );
}

function overfull(request: ScheduleRequest, plan: SchedulePlan): Breach[] {
  return request.places.flatMap(({ id, capacity }) => {
    const taken = request.batches.flatMap((batch) =>
      batch.holds
        .filter(({ place }) => place === id)
        .flatMap(({ from, to, amount }) => {
          const first = plan.steps.find((step) => step.batchId === batch.id && step.stepId === from);
          const last = plan.steps.find((step) => step.batchId === batch.id && step.stepId === to);
          return first && last && first.from < last.to ? [{ from: first.from, to: last.to, amount }] : [];
        }),
    );
    // What has been there since before now is as it is.
    return taken.flatMap(({ from }) => {
      if (from < request.now) return [];
      const sum = taken.reduce((all, one) => (one.from <= from && from < one.to ? all + one.amount : all), 0);
      return sum > capacity + 1e-9 ? [`${id} holds ${sum} of ${capacity} at ${from}`] : [];
    });
  });
}
