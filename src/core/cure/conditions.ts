import { z } from 'zod';
import { cureFactor } from './cureLine';
import type { Room } from '../model/roomSchema';
import { minuteOfDay, toWallTime } from '../time/wallTime';
import { wallFromSteady, type ClockChange } from '../time/clockChanges';
import { cureModelSchema } from '../model/productSchema';
import { roomSchema } from '../model/roomSchema';

const degrees = roomSchema.shape.temperatureC;
const minuteOfTheDay = z.number().int().min(0).max(1440);

/** What the room is like on one day: while somebody heats, over the night that follows, and how humid. */
export const dayConditionsSchema = z.object({
  date: z.iso.date('A date such as 2026-12-12'),
  dayC: degrees,
  nightC: degrees,
  humidity: roomSchema.shape.humidity,
});
export type DayConditions = z.infer<typeof dayConditionsSchema>;

/** The room over weeks: what holds on a day that nothing is said of, and days that are known. */
export const conditionsSchema = z.object({
  usual: dayConditionsSchema.omit({ date: true }),
  /** Between these the room is at its night temperature; it changes over an hour after each. May run over midnight. */
  nightFromMinute: minuteOfTheDay.default(22 * 60),
  nightToMinute: minuteOfTheDay.default(6 * 60),
  days: z.array(dayConditionsSchema).max(120, 'At most 120 days').default([]),
});
export type Conditions = z.infer<typeof conditionsSchema>;

/** A room that is the same day and night. */
export const steadyRoom = ({ temperatureC, humidity }: Room): Conditions => ({
  usual: { dayC: temperatureC, nightC: temperatureC, humidity },
  nightFromMinute: 22 * 60,
  nightToMinute: 6 * 60,
  days: [],
});

/** How a layer or film hardens, as far as a room matters. */
export const curingSchema = z.object({
  cureModel: cureModelSchema,
  referenceC: z.number().min(5).max(40),
  greatestLayerMm: z.number().gt(0).max(200),
  wetMm: z.number().gt(0).max(200),
});
export type CuringLayer = z.infer<typeof curingSchema>;

/** How long the room takes from its day to its night temperature and back. */
const CHANGE_MINUTES = 60;
/** Cells in which progress is summed up. */
const CELL_MINUTES = 15;

/** How a layer comes along in a room. Times are steady minutes. */
export interface CureCourse {
  /** When a layer that is poured at `from` has cured as far as `labelMinutes` at its reference would bring it. */
  curedAt(from: number, labelMinutes: number): number;
  /** The inverse: the pour from which that is reached at `at`. */
  pouredFor(at: number, labelMinutes: number): number;
}

/** A room that can be asked what it is like, and how far a layer has come. */
export interface Climate {
  roomAt(steady: number): Room;
  courseOf(curing: CuringLayer): CureCourse;
}

/**
 * Integrates cure over a changing room: a layer has come as far as ∫ dt / f(T(t), RH(t)) label minutes, f the factor of its cure model
 * (`cureFactor`). By Simpson's rule in cells of a quarter of an hour between `from` and `to`, the room as it then is before and after.
 * Temperatures go in straight lines between day and night; humidity is that of the day.
 */
export function climateOf(
  conditions: Conditions,
  from: number,
  to: number,
  clockChanges: readonly ClockChange[] = [],
): Climate {
  const byDate = new Map(conditions.days.map((day) => [day.date, day]));
  const dates = new Map<number, string>();
  const dayOf = (wall: number): Conditions['usual'] => {
    const number = Math.floor(wall / 1440);
    let date = dates.get(number);
    if (date === undefined) dates.set(number, (date = toWallTime(number * 1440).slice(0, 10)));
    return byDate.get(date) ?? conditions.usual;
  };
  const { nightFromMinute, nightToMinute } = conditions;
  const nightLength = (nightToMinute - nightFromMinute + 1440) % 1440;
  const roomAt = (steady: number): Room => {
    const wall = clockChanges.length === 0 ? steady : wallFromSteady(steady, clockChanges);
    const minute = minuteOfDay(wall);
    const sinceNight = (minute - nightFromMinute + 1440) % 1440;
    const today = dayOf(wall);
    const share =
      nightLength === 0
        ? 0
        : sinceNight < nightLength
          ? Math.min(1, sinceNight / CHANGE_MINUTES)
          : Math.max(0, 1 - (sinceNight - nightLength) / CHANGE_MINUTES);
    // What is left of a night after midnight belongs to the evening before.
    const night = (nightFromMinute > minute ? dayOf(wall - 1440) : today).nightC;
    return { temperatureC: today.dayC + (night - today.dayC) * share, humidity: today.humidity };
  };

  const first = Math.floor(from / CELL_MINUTES) * CELL_MINUTES;
  const cells = Math.max(1, Math.ceil((to - first) / CELL_MINUTES));
  const last = first + cells * CELL_MINUTES;
  const courses = new Map<string, CureCourse>();
  const keyOf = ({ cureModel, referenceC, greatestLayerMm, wetMm }: CuringLayer): string =>
    `${cureModel} ${referenceC} ${greatestLayerMm} ${wetMm}`;
  const speed = (curing: CuringLayer, at: number): number => 1 / cureFactor(curing, roomAt(at), curing.wetMm);
  const tableOf = (curing: CuringLayer): Float64Array => {
    const table = new Float64Array(cells + 1);
    let before = speed(curing, first);
    for (let i = 0; i < cells; i++) {
      const start = first + i * CELL_MINUTES;
      // The room may jump at midnight: a cell ends just before it.
      const middle = speed(curing, start + CELL_MINUTES / 2);
      const end = speed(curing, start + CELL_MINUTES - 1e-6);
      table[i + 1] = table[i]! + (CELL_MINUTES / 6) * (before + 4 * middle + end);
      before = speed(curing, start + CELL_MINUTES);
    }
    return table;
  };
  /** Progress since `first`, straight within a cell, at the speed of the end cells outside. */
  const progress = (table: Float64Array, at: number): number => {
    if (at <= first) return (at - first) * (table[1]! / CELL_MINUTES);
    if (at >= last) return table[cells]! + (at - last) * ((table[cells]! - table[cells - 1]!) / CELL_MINUTES);
    const i = Math.floor((at - first) / CELL_MINUTES);
    return table[i]! + (table[i + 1]! - table[i]!) * ((at - first) / CELL_MINUTES - i);
  };
  /** The cell in which a progress is reached, by even steps of progress: where to begin to look. */
  const guessOf = (table: Float64Array): { step: number; cell: Int32Array } => {
    const step = table[cells]! / cells;
    const cell = new Int32Array(cells + 1);
    for (let k = 0, i = 0; k <= cells; k++) {
      while (i < cells - 1 && table[i + 1]! <= k * step) i++;
      cell[k] = i;
    }
    return { step, cell };
  };
  const timeOf = (table: Float64Array, { step, cell }: ReturnType<typeof guessOf>, value: number): number => {
    if (value <= 0) return first + value / (table[1]! / CELL_MINUTES);
    if (value >= table[cells]!)
      return last + (value - table[cells]!) / ((table[cells]! - table[cells - 1]!) / CELL_MINUTES);
    let i = cell[Math.min(cells, Math.floor(value / step))]!;
    while (table[i + 1]! <= value) i++;
    return first + CELL_MINUTES * (i + (value - table[i]!) / (table[i + 1]! - table[i]!));
  };
  return {
    roomAt,
    courseOf(curing) {
      const key = keyOf(curing);
      const known = courses.get(key);
      if (known) return known;
      const table = tableOf(curing);
      const guess = guessOf(table);
      const course: CureCourse = {
        curedAt: (poured, labelMinutes) => timeOf(table, guess, progress(table, poured) + labelMinutes),
        pouredFor: (at, labelMinutes) => timeOf(table, guess, progress(table, at) - labelMinutes),
      };
      courses.set(key, course);
      return course;
    },
  };
}
