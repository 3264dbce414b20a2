import { z } from 'zod';
import { minuteOfDay, toWallTime, weekdayOf } from './wallTime';

export const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;

const clock = z.number({ error: 'A time such as 19:00' }).int().min(0).max(1440);
const endsLater = {
  check: ({ fromMinute, toMinute }: { fromMinute: number; toMinute: number }): boolean => toMinute > fromMinute,
  or: { message: 'The window must end after it starts', path: ['toMinute'] },
};

/** When the maker is at the bench, by the week. Minutes after midnight; 0 = Monday. */
export const benchWindowSchema = z
  .object({ weekday: z.number().int().min(0).max(6), fromMinute: clock, toMinute: clock })
  .refine(endsLater.check, endsLater.or);
export type BenchWindow = z.infer<typeof benchWindowSchema>;

/** A day unlike others: when the maker is at the bench on it; not at all when there are no spans. */
export const benchExceptionSchema = z.object({
  date: z.iso.date('A date such as 2026-12-12'),
  spans: z
    .array(z.object({ fromMinute: clock, toMinute: clock }).refine(endsLater.check, endsLater.or))
    .max(4, 'At most four spans a day'),
});
export type BenchException = z.infer<typeof benchExceptionSchema>;

interface Span {
  fromMinute: number;
  toMinute: number;
}

/** Bench time of the day that begins at a midnight. */
function spansOn(
  midnight: number,
  windows: readonly BenchWindow[],
  exceptions: readonly BenchException[],
): readonly Span[] {
  const date = toWallTime(midnight).slice(0, 10);
  const other = exceptions.find((exception) => exception.date === date);
  if (other) return other.spans;
  if (windows.length === 0) return [{ fromMinute: 0, toMinute: 1440 }];
  return windows.filter(({ weekday }) => weekday === weekdayOf(midnight));
}

/**
 * The first minute at or after `fromMinutes` that lies in bench time with `neededMinutes` still to go in it.
 * Without windows every minute will do that no exception takes away. Null when no span is long enough.
 */
export function nextBenchMinute(
  windows: readonly BenchWindow[],
  fromMinutes: number,
  neededMinutes = 0,
  exceptions: readonly BenchException[] = [],
): number | null {
  if (windows.length === 0 && exceptions.length === 0) return fromMinutes;
  const midnight = fromMinutes - minuteOfDay(fromMinutes);
  // Each exception can take away one week's turn of a window at the most.
  const days = 7 * (exceptions.length + 1);
  for (let day = 0; day <= days; day++) {
    const start = midnight + day * 1440;
    const candidates = spansOn(start, windows, exceptions)
      .map((span) => ({ at: Math.max(fromMinutes, start + span.fromMinute), end: start + span.toMinute }))
      .filter(({ at, end }) => at + neededMinutes <= end)
      .sort((a, b) => a.at - b.at);
    if (candidates[0]) return candidates[0].at;
  }
  return null;
}

/** The bench time that falls between two minutes of the wall clock, in order; without windows or exceptions none is drawn. */
export function benchSpans(
  windows: readonly BenchWindow[],
  fromMinutes: number,
  toMinutes: number,
  exceptions: readonly BenchException[] = [],
): { from: number; to: number }[] {
  if (windows.length === 0 && exceptions.length === 0) return [];
  const spans: { from: number; to: number }[] = [];
  for (let midnight = fromMinutes - minuteOfDay(fromMinutes); midnight < toMinutes; midnight += 1440) {
    for (const span of spansOn(midnight, windows, exceptions)) {
      const from = Math.max(fromMinutes, midnight + span.fromMinute);
      const to = Math.min(toMinutes, midnight + span.toMinute);
      if (from < to) spans.push({ from, to });
    }
  }
  return spans.sort((a, b) => a.from - b.from);
}

/** What is left of the workshop's windows when a set or batch narrows them to its own; null: all of them. */
export function narrowedWindows(workshop: readonly BenchWindow[], own: readonly BenchWindow[] | null): BenchWindow[] {
  if (own === null) return [...workshop];
  if (workshop.length === 0) return [...own];
  return own.flatMap((mine) =>
    workshop
      .filter(({ weekday }) => weekday === mine.weekday)
      .map(({ fromMinute, toMinute }) => ({
        weekday: mine.weekday,
        fromMinute: Math.max(fromMinute, mine.fromMinute),
        toMinute: Math.min(toMinute, mine.toMinute),
      }))
      .filter(({ fromMinute, toMinute }) => toMinute > fromMinute),
  );
}
