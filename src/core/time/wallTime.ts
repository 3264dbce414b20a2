import { z } from 'zod';

/**
 * A time on the wall clock of the workshop, `2026-11-28T18:30`, without a zone. Plans are made in it: a bench window
 * from 19:00 to 21:30 means the clock on the wall. Nights on which clocks change: `clockChanges.ts`.
 */
export const wallTimeSchema = z
  .string()
  .regex(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/, 'A date and time such as 2026-11-28T18:30')
  .refine(
    (text) => Number.isFinite(wallMinutes(text)) && toWallTime(wallMinutes(text)) === text,
    'No such date or time',
  );
export type WallTime = string;

const MINUTE_MS = 60_000;

/** Minutes since 1970-01-01T00:00 on the same wall clock. */
export const wallMinutes = (time: WallTime): number => Date.parse(`${time}:00Z`) / MINUTE_MS;

/** The inverse of `wallMinutes`, to the whole minute. */
export function toWallTime(minutes: number): WallTime {
  const date = new Date(Math.round(minutes) * MINUTE_MS);
  return Number.isFinite(date.getTime()) ? date.toISOString().slice(0, 16) : '';
}

/** 0 for Monday to 6 for Sunday. */
export const weekdayOf = (minutes: number): number => (Math.floor(minutes / 1440) + 3) % 7;

/** Minutes after midnight. */
export const minuteOfDay = (minutes: number): number => ((minutes % 1440) + 1440) % 1440;
