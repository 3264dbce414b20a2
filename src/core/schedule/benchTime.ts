import { benchSpans, type BenchWindow } from '../time/benchWindows';
import { steadyMinutes, wallFromSteady } from '../time/clockChanges';
import { toWallTime, wallMinutes, type WallTime } from '../time/wallTime';
import { Calendar, common, joined, without, type Span } from './calendar';
import type { ScheduleBatch, ScheduleRequest, ScheduleStep } from './scheduleRequest';

/** How far ahead is planned. */
export const HORIZON_DAYS = 210;

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

/** The time of a request in steady minutes: its clock, and when steps can be done by whom. */
export interface BenchTime {
  toSteady: (wall: WallTime) => number;
  toWall: (steady: number) => WallTime;
  now: number;
  horizon: number;
  /** Bench time of each maker, before outdoor and quiet hours. */
  bench: Calendar[];
  /** When a step of a batch can be done, for each maker; for a step of two hands, when both can. */
  calendarsFor: (step: ScheduleStep, batch: ScheduleBatch) => Calendar[];
}

/** Bench windows, days unlike others, outdoor and quiet hours of a request, as calendars. `closedDays`: days since 1970 with nobody there. */
export function benchTimeOf(
  { now, clockChanges, makers, outdoors, quiet }: ScheduleRequest,
  closedDays: ReadonlySet<number> = new Set(),
): BenchTime {
  const toSteady = (wall: WallTime): number => steadyMinutes(wallMinutes(wall), clockChanges);
  const nowWall = wallMinutes(now);
  const endWall = nowWall + HORIZON_DAYS * 1440;
  const inSteady = (spans: readonly Span[]): Span[] =>
    joined(
      spans
        .map(({ from, to }) => ({ from: steadyMinutes(from, clockChanges), to: steadyMinutes(to, clockChanges) }))
        .filter(({ from, to }) => from < to),
    );
  const within = (windows: readonly BenchWindow[]): Span[] => inSteady(benchSpans(windows, nowWall, endWall));
  const always: Span[] = [{ from: toSteady(now), to: steadyMinutes(endWall, clockChanges) }];
  const closed = inSteady([...closedDays].map((day) => ({ from: day * 1440, to: (day + 1) * 1440 })));
  const ofMakers = makers.map(({ windows, exceptions }) => {
    const free = windows.length === 0 && exceptions.length === 0;
    const spans = free ? always : inSteady(benchSpans(windows, nowWall, endWall, exceptions));
    return closed.length === 0 ? spans : without(spans, closed);
  });
  const outside = outdoors.length === 0 ? null : within(outdoors);
  const loud = quiet ? without(always, inSteady(dailySpans(quiet, nowWall, endWall))) : null;
  const known = new Map<string, Calendar[]>();
  return {
    toSteady,
    toWall: (steady) => toWallTime(wallFromSteady(steady, clockChanges)),
    now: toSteady(now),
    horizon: steadyMinutes(endWall, clockChanges),
    bench: ofMakers.map((spans) => new Calendar(spans)),
    calendarsFor({ outdoors: out, noisy, hands }, batch) {
      const only = batch.windows?.length ? batch.windows : null;
      const key = `${Boolean(out)} ${Boolean(noisy)} ${hands === 2} ${only ? batch.id : ''}`;
      const there = known.get(key);
      if (there) return there;
      const inside = only && within(only);
      const narrowed = ofMakers.map((whole) => {
        const spans = inside ? common(whole, inside) : whole;
        const open = out && outside ? common(spans, outside) : spans;
        return noisy && loud ? common(open, loud) : open;
      });
      const spans = hands === 2 ? [narrowed.length < 2 ? [] : common(narrowed[0]!, narrowed[1]!)] : narrowed;
      const made = spans.map((one) => new Calendar(one));
      known.set(key, made);
      return made;
    },
  };
}
