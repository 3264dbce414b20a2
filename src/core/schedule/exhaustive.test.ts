import fc from 'fast-check';
import { wallMinutes } from '../time/wallTime';
import { requestOf } from './testSchedules';
import { schedule } from './solve';
import type { ScheduleRequest } from './scheduleRequest';
import { verifyPlan } from './verify';

/*
 * Every plan of a small case is tried on a grid of hours, on which all its numbers lie, so that none between can be better. Nothing of
 * the solver is used.
 */
const HOUR = 60;
const NOW = wallMinutes('2026-11-23T00:00');

/** Two days with bench time, by the hour after midnight. */
const windowsArb = fc
  .array(
    fc.record({
      day: fc.integer({ min: 0, max: 2 }),
      from: fc.integer({ min: 8, max: 12 }),
      hours: fc.integer({ min: 2, max: 6 }),
    }),
    { minLength: 2, maxLength: 3 },
  )
  .map((windows) =>
    [0, 1, 2, 3].flatMap((day) => {
      const own = windows.find((window) => window.day === day);
      const spans = own ? [{ fromMinute: own.from * HOUR, toMinute: (own.from + own.hours) * HOUR }] : [];
      // The last day is long: there is always a plan.
      if (day === 3) spans.push({ fromMinute: 6 * HOUR, toMinute: 22 * HOUR });
      return spans.map((span) => ({ weekday: day, ...span }));
    }),
  );

const stepArb = fc.record({
  hours: fc.integer({ min: 0, max: 3 }),
  least: fc.integer({ min: 0, max: 5 }),
  most: fc.option(fc.integer({ min: 0, max: 12 }), { nil: null }),
  abrade: fc.boolean(),
});

const caseArb = fc
  .record({
    windows: windowsArb,
    batches: fc.array(
      fc.record({
        steps: fc.array(stepArb, { minLength: 1, maxLength: 3 }),
        due: fc.option(fc.integer({ min: 0, max: 2 }), { nil: null }),
        holds: fc.boolean(),
      }),
      { minLength: 1, maxLength: 2 },
    ),
    kits: fc.integer({ min: 1, max: 2 }),
  })
  .map(({ windows, batches, kits }) =>
    requestOf({
      now: '2026-11-23T00:00',
      makers: [
        {
          name: 'Maker',
          windows,
          exceptions: [23, 24, 25].flatMap((day) =>
            windows.some(({ weekday }) => weekday === day - 23) ? [] : [{ date: `2026-11-${day}`, spans: [] }],
          ),
        },
      ],
      places: [{ id: 'kit', name: 'dam kits', capacity: kits }],
      batches: batches.map(({ steps, due, holds }, b) => ({
        id: `b${b}`,
        name: `Batch ${b}`,
        due: due === null ? null : `2026-11-${23 + due}`,
        steps: steps.map(({ hours, least, most, abrade }, s) => ({
          id: `s${s}`,
          kind: 'other' as const,
          name: `Step ${s}`,
          handsOnMinutes: hours * HOUR,
          after:
            s === 0
              ? []
              : [
                  {
                    step: `s${s - 1}`,
                    least: { minutes: least * HOUR },
                    ...(most !== null && { most: { minutes: (least + most) * HOUR } }),
                    ...(most !== null && abrade && { abradeMinutes: HOUR }),
                  },
                ],
        })),
        holds: holds ? [{ place: 'kit', amount: 1, from: 's0', to: `s${steps.length - 1}` }] : [],
      })),
    }),
  );

/**
 * What is best of all plans on the grid, as [minutes late, windows missed, end, bench days]; null when there is none
 * until the horizon of the test.
 */
function bestOfAll(request: ScheduleRequest): readonly [number, number, number, number] | null {
  const hours = 4 * 24;
  const open = Array.from({ length: hours }, (_, hour) => {
    const weekday = Math.floor(hour / 24);
    return request.makers[0]!.windows.some(
      (window) =>
        window.weekday === weekday && window.fromMinute <= (hour % 24) * HOUR && (hour % 24) * HOUR < window.toMinute,
    );
  });
  const busy = new Uint8Array(hours + 1);
  const steps = request.batches.flatMap((batch, b) => batch.steps.map((step, s) => ({ batch, b, s, step })));
  const ends = steps.map(() => 0);
  const starts = steps.map(() => 0);
  let best: readonly [number, number, number, number] | null = null;
  const better = (a: readonly number[], b: readonly number[] | null): boolean => {
    if (!b) return true;
    for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return a[i]! < b[i]!;
    return false;
  };
  const capacity = request.places[0]!.capacity;
  const lateOf = (b: number, end: number): number => {
    const { due } = request.batches[b]!;
    return due === null ? 0 : Math.max(0, NOW + end * HOUR - wallMinutes(`${due}T23:59`));
  };
  const fits = (from: number, length: number): boolean => {
    if (from + length > hours) return false;
    for (let hour = from; hour < from + length; hour++) if (!open[hour] || busy[hour]) return false;
    return true;
  };
  const mark = (from: number, length: number, as: 0 | 1): void => {
    for (let hour = from; hour < from + length; hour++) busy[hour] = as;
  };
  const place = (i: number, late: number, missed: number, finish: number): void => {
    const days = new Set<number>();
    busy.forEach((taken, hour) => taken && days.add(Math.floor(hour / 24)));
    const here = [late, missed, finish, days.size] as const;
    if (!better(here, best)) return;
    if (i === steps.length) {
      const spans = request.batches.flatMap((batch, b) => {
        const mine = steps.flatMap((one, k) => (one.b === b ? [k] : []));
        return batch.holds.length > 0 ? [{ from: starts[mine[0]!]!, to: ends[mine.at(-1)!]! }] : [];
      });
      const over = spans.some(
        ({ from, to }) =>
          from < to && spans.filter((one) => one.from < one.to && one.from <= from && from < one.to).length > capacity,
      );
      if (!over) best = here;
      return;
    }
    const { b, s, step } = steps[i]!;
    const length = step.handsOnMinutes / HOUR;
    const link = step.after[0];
    const before = s > 0 ? ends[i - 1]! : 0;
    const earliest = before + (link?.least ? link.least.minutes / HOUR : 0);
    const latest = link?.most ? before + link.most.minutes / HOUR : hours;
    const isLast = s === request.batches[b]!.steps.length - 1;
    const set = (from: number, missedNow: number): void => {
      if (length > 0 && !fits(from, length)) return;
      mark(from, length, 1);
      starts[i] = from;
      ends[i] = from + length;
      place(i + 1, late + (isLast ? lateOf(b, ends[i]!) : 0), missed + missedNow, Math.max(finish, ends[i]!));
      mark(from, length, 0);
    };
    for (let from = earliest; from <= hours; from++) {
      if (from <= latest) {
        set(from, 0);
      } else if (link?.abradeMinutes !== undefined) {
        // An hour to abrade, some time after it may be touched and before this step; it may be split over windows, an hour cannot be here.
        for (let abrade = earliest; abrade + 1 <= from; abrade++) {
          if (!fits(abrade, 1)) continue;
          mark(abrade, 1, 1);
          set(from, 1);
          mark(abrade, 1, 0);
        }
      }
    }
  };
  place(0, 0, 0, 0);
  return best;
}

test('on small cases the plan is as good as the best of all plans', () => {
  let told = 0;
  fc.assert(
    fc.property(caseArb, (request) => {
      const best = bestOfAll(request);
      const plan = schedule(request);
      if (!best) return;
      told++;
      expect(verifyPlan(request, plan)).toEqual([]);
      const late = plan.batches.reduce((sum, { lateMinutes }) => sum + lateMinutes, 0);
      const missed = plan.steps.filter(({ repairs }) => repairs !== undefined).length;
      expect([late, missed, (wallMinutes(plan.readyAt!) - NOW) / HOUR, plan.benchDays]).toEqual([...best]);
      expect(wallMinutes(plan.bound.readyAt!)).toBeLessThanOrEqual(NOW + best[2] * HOUR);
    }),
    { numRuns: 45, seed: 11 },
  );
  expect(told).toBeGreaterThan(28);
});
