import { z } from 'zod';

/** A reading of an instrument on the bench, in the units of the core. `at`: ms since 1970; null where the instrument has no clock. */
export type Reading =
  | { device: 'scale'; grams: number; at: number | null }
  | { device: 'room'; temperatureC: number; humidity: number | null; at: number | null }
  | { device: 'gauge'; mm: number; at: number | null };
export type DeviceKind = Reading['device'];

const moment = z
  .union([z.number().min(0).max(8.64e15), z.iso.datetime({ offset: true }).transform((text) => Date.parse(text))])
  .nullish()
  .transform((at) => at ?? null);
const finite = z.number({ error: 'Must be a number' });

const GRAMS = { g: 1, kg: 1000, oz: 28.349523125 } as const;
const MM = { mm: 1, in: 25.4 } as const;

/**
 * A line of the open protocol: one JSON object. `{"device":"scale","value":109.4,"unit":"g"}`,
 * `{"device":"room","value":19.5,"unit":"°C","humidity":0.52}`, `{"device":"gauge","value":9.03,"unit":"mm"}`; `at` as
 * milliseconds or as an ISO time with its zone.
 */
export const readingLineSchema = z.discriminatedUnion('device', [
  z
    .object({
      device: z.literal('scale'),
      value: finite.min(-50_000, 'Out of reach of any scale').max(50_000, 'Out of reach of any scale'),
      unit: z.enum(['g', 'kg', 'oz'], { error: 'A scale reads g, kg or oz' }).default('g'),
      at: moment,
    })
    .transform(({ value, unit, at }) => ({ device: 'scale' as const, grams: value * GRAMS[unit], unit, at })),
  z
    .object({
      device: z.literal('room'),
      value: finite,
      unit: z.enum(['°C', '°F'], { error: 'A room sensor reads °C or °F' }).default('°C'),
      humidity: finite.min(0, 'Humidity is from 0 to 1').max(1, 'Humidity is from 0 to 1').nullish(),
      at: moment,
    })
    .transform(({ value, unit, humidity, at }) => ({
      device: 'room' as const,
      unit,
      at,
      humidity: humidity ?? null,
      temperatureC: unit === '°F' ? ((value - 32) * 5) / 9 : value,
    })),
  z
    .object({
      device: z.literal('gauge'),
      value: finite.min(-1000, 'Out of reach of the gauge').max(1000, 'Out of reach of the gauge'),
      unit: z.enum(['mm', 'in'], { error: 'A level gauge reads mm or in' }).default('mm'),
      at: moment,
    })
    .transform(({ value, unit, at }) => ({ device: 'gauge' as const, mm: value * MM[unit], unit, at })),
]);
type Line = z.infer<typeof readingLineSchema>;

/** What came of a line: a reading, or why it is none; with a word where the maker should look. */
export interface ReadLine {
  reading: Reading | null;
  /** In a maker's words; null where all is well. */
  trouble: string | null;
}

/** Colder or warmer than this is no workshop: the sensor is broken or lies on the radiator. */
const ROOM_C = { least: -20, most: 50 };
/** An instrument whose clock differs by more than this is taken by ours. */
const CLOCK_SLACK_MS = 120_000;
/** A scale that shows less than this was tared with something on it. */
const NEGATIVE_GRAMS = -2;

const NAMES: Record<DeviceKind, string> = { scale: 'The scale', room: 'The room sensor', gauge: 'The level gauge' };

/** Reads the lines of the instruments on a bench, one after the other, and notices what is odd about them. */
export class ReadingLines {
  #units = new Map<DeviceKind, string>();

  /** Reads one line, heard at `now` (ms since 1970). Never throws. */
  read(line: unknown, now: number): ReadLine {
    const json = typeof line === 'string' ? parsed(line) : line;
    if (json === undefined) return { reading: null, trouble: 'An instrument sends text that is no reading.' };
    const read = readingLineSchema.safeParse(json);
    if (!read.success) {
      const issue = read.error.issues[0];
      const field = issue?.path.join('.') ?? '';
      return {
        reading: null,
        trouble: `A reading cannot be read${field ? ` (${field})` : ''}: ${issue?.message ?? ''}`,
      };
    }
    const { unit, ...reading } = read.data;
    if (reading.device === 'room' && (reading.temperatureC < ROOM_C.least || reading.temperatureC > ROOM_C.most))
      return {
        reading: null,
        trouble: `The room sensor shows ${reading.temperatureC.toFixed(0)} °C: that is no room. It is left out.`,
      };
    return { reading: this.#placed(reading as Reading, now), trouble: this.#odd(read.data, unit, now) };
  }

  #placed(reading: Reading, now: number): Reading {
    // An instrument with a wrong clock still measured when it was heard.
    return { ...reading, at: reading.at !== null && Math.abs(reading.at - now) <= CLOCK_SLACK_MS ? reading.at : now };
  }

  #odd(line: Line, unit: string, now: number): string | null {
    const name = NAMES[line.device];
    const was = this.#units.get(line.device);
    this.#units.set(line.device, unit);
    if (was !== undefined && was !== unit)
      return `${name} changed from ${was} to ${unit}. It is converted; set it back to be sure.`;
    if (line.at !== null && Math.abs(line.at - now) > CLOCK_SLACK_MS) {
      const minutes = Math.round(Math.abs(line.at - now) / 60_000);
      return `${name}’s clock is ${minutes} min ${line.at < now ? 'behind' : 'ahead'}: its readings are taken as of now.`;
    }
    if (line.device === 'scale' && line.grams < NEGATIVE_GRAMS)
      return `The scale shows ${line.grams.toFixed(1)} g: it was tared with something on it. Tare it again with the empty cup.`;
    return null;
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}
