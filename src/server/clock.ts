import { LRUCache } from 'lru-cache';
import type { ClockChange } from '@/core/time/clockChanges';
import { toWallTime, wallMinutes, type WallTime } from '@/core/time/wallTime';

/** A moment on the workshop's wall clock: the server's own local time. */
export function onTheWall(moment: Date): WallTime {
  const pad = (value: number): string => String(value).padStart(2, '0');
  return `${moment.getFullYear()}-${pad(moment.getMonth() + 1)}-${pad(moment.getDate())}T${pad(moment.getHours())}:${pad(moment.getMinutes())}`;
}

export const wallClockNow = (): WallTime => onTheWall(new Date());

const HOUR_MS = 3_600_000;
/** How far back and ahead clock changes are looked for. */
const BACK_DAYS = 60;
const AHEAD_DAYS = 120;

const yearAround = new LRUCache<number, ClockChange[]>({ max: 2 });

/** The clock changes round about now; they are looked for once an hour. */
export function clockChangesNow(): ClockChange[] {
  const hour = Math.floor(Date.now() / HOUR_MS);
  const known = yearAround.get(hour) ?? clockChangesAround(new Date(hour * HOUR_MS));
  yearAround.set(hour, known);
  return known;
}

/** Nights round about now on which the workshop's clocks change. `offsetAt` gives the minutes that its zone is behind UTC. */
export function clockChangesAround(
  now: Date = new Date(),
  offsetAt: (moment: Date) => number = (moment) => moment.getTimezoneOffset(),
): ClockChange[] {
  const changes: ClockChange[] = [];
  const start = Math.floor(now.getTime() / HOUR_MS) * HOUR_MS - BACK_DAYS * 24 * HOUR_MS;
  const end = start + (BACK_DAYS + AHEAD_DAYS) * 24 * HOUR_MS;
  let before = offsetAt(new Date(start));
  for (let moment = start; moment < end; moment += HOUR_MS) {
    const after = offsetAt(new Date(moment));
    if (after === before) continue;
    // What the clock shows at that moment if it is not changed.
    const at = toWallTime(wallMinutes('1970-01-01T00:00') + moment / 60_000 - before);
    changes.push({ at, byMinutes: before - after });
    before = after;
  }
  return changes;
}
