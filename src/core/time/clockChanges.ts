import { z } from 'zod';
import { wallMinutes, wallTimeSchema } from './wallTime';

/** A night on which clocks change: what the clock on the wall shows when it is put on (positive) or back, and by how much. */
export const clockChangeSchema = z.object({ at: wallTimeSchema, byMinutes: z.number().int().min(-180).max(180) });
export type ClockChange = z.infer<typeof clockChangeSchema>;

/**
 * Minutes on a clock that is never changed, for minutes of the clock on the wall. An hour that is skipped counts as the
 * moment of the change, one that comes twice as its first time. `changes` in the order of time.
 */
export function steadyMinutes(wall: number, changes: readonly ClockChange[]): number {
  let steady = wall;
  for (const { at, byMinutes } of changes) {
    const from = wallMinutes(at);
    if (wall >= from) steady -= Math.min(byMinutes, wall - from);
  }
  return steady;
}

/** The inverse: what the clock on the wall shows after so many steady minutes. */
export function wallFromSteady(steady: number, changes: readonly ClockChange[]): number {
  let shift = 0;
  for (const { at, byMinutes } of changes) {
    if (steady >= wallMinutes(at) - shift) shift += byMinutes;
  }
  return steady + shift;
}

/** The wall clock so many real minutes after a time on it: nights on which clocks change are as long as they really are. */
export const minutesLater = (wall: number, minutes: number, changes: readonly ClockChange[]): number =>
  changes.length === 0 ? wall + minutes : wallFromSteady(steadyMinutes(wall, changes) + minutes, changes);
