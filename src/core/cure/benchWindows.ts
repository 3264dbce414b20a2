import { z } from 'zod';
import { minuteOfDay, weekdayOf } from './wallTime';

export const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;

const clock = z.number({ error: 'A time such as 19:00' }).int().min(0).max(1440);

/** When the maker is at the bench, by the week. Minutes after midnight; 0 = Monday. */
export const benchWindowSchema = z
  .object({ weekday: z.number().int().min(0).max(6), fromMinute: clock, toMinute: clock })
  .refine((window) => window.toMinute > window.fromMinute, {
    message: 'The window must end after it starts',
    path: ['toMinute'],
  });
export type BenchWindow = z.infer<typeof benchWindowSchema>;

/**
 * The first minute at or after `fromMinutes` that lies in a bench window with `neededMinutes` still to go in it.
 * Without windows every minute will do. Null when no window of the week is long enough.
 */
export function nextBenchMinute(
  windows: readonly BenchWindow[],
  fromMinutes: number,
  neededMinutes = 0,
): number | null {
  if (windows.length === 0) return fromMinutes;
  const midnight = fromMinutes - minuteOfDay(fromMinutes);
  for (let day = 0; day <= 7; day++) {
    const start = midnight + day * 1440;
    const candidates = windows
      .filter((window) => window.weekday === weekdayOf(start))
      .map((window) => ({ at: Math.max(fromMinutes, start + window.fromMinute), end: start + window.toMinute }))
      .filter(({ at, end }) => at + neededMinutes <= end)
      .sort((a, b) => a.at - b.at);
    if (candidates[0]) return candidates[0].at;
  }
  return null;
}

/** The bench windows that fall between two minutes of the wall clock, in order. */
export function benchSpans(
  windows: readonly BenchWindow[],
  fromMinutes: number,
  toMinutes: number,
): { from: number; to: number }[] {
  const spans: { from: number; to: number }[] = [];
  for (let midnight = fromMinutes - minuteOfDay(fromMinutes); midnight < toMinutes; midnight += 1440) {
    for (const window of windows) {
      const [from, to] = [
        Math.max(fromMinutes, midnight + window.fromMinute),
        Math.min(toMinutes, midnight + window.toMinute),
      ];
      if (window.weekday === weekdayOf(midnight) && from < to) spans.push({ from, to });
    }
  }
  return spans.sort((a, b) => a.from - b.from);
}
