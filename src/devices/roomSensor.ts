import type { DayConditions } from '@/core/cure/conditions';
import { seeded } from '@/core/chance/random';

/** Something that knows how warm and humid the room was. */
export interface RoomSensor {
  name: string;
  /** The days before one, the latest last: warmest by day, coldest by night, mean humidity. */
  lastDays(before: string, count: number): Promise<DayConditions[]>;
}

const DAY_MS = 86_400_000;
const dateOf = (day: number): string => new Date(day * DAY_MS).toISOString().slice(0, 10);
const dayOf = (date: string): number => Math.floor(Date.parse(`${date}T00:00:00Z`) / DAY_MS);
const half = (value: number): number => Math.round(value * 2) / 2;

/**
 * A stand-in for a sensor on the bench: a heated room over the year, colder by night and in winter, with weather of its own that is the
 * same each time it is read.
 */
export const simulatedSensor = (seed = 7): RoomSensor => ({
  name: 'Simulated room sensor',
  lastDays: (before, count) =>
    Promise.resolve(
      Array.from({ length: count }, (_, i) => {
        const day = dayOf(before) - count + i;
        const roll = seeded(seed + day);
        // Winter is in the middle of January.
        const winter = (Math.cos(((day - 14) / 365.25) * 2 * Math.PI) + 1) / 2;
        const stray = roll() + roll() - 1;
        return {
          date: dateOf(day),
          dayC: half(22 - 2.5 * winter + stray),
          nightC: half(19 - 4 * winter + 1.5 * stray),
          humidity: Math.round((0.55 - 0.08 * winter + 0.06 * (roll() - 0.5)) * 100) / 100,
        };
      }),
    ),
});

/** A sensor that is read by eye: what is typed is what it says. */
export const keyedInSensor = (days: readonly DayConditions[]): RoomSensor => ({
  name: 'Read by eye',
  lastDays: (before, count) => Promise.resolve(days.filter(({ date }) => date < before).slice(-count)),
});

/** What days to come are taken to be like: as the last ones were, on average. An estimate. Null when nothing was read. */
export function usualOf(days: readonly DayConditions[]): Omit<DayConditions, 'date'> | null {
  if (days.length === 0) return null;
  const mean = (of: (day: DayConditions) => number): number =>
    days.reduce((sum, day) => sum + of(day), 0) / days.length;
  return {
    dayC: half(mean(({ dayC }) => dayC)),
    nightC: half(mean(({ nightC }) => nightC)),
    humidity: Math.round(mean(({ humidity }) => humidity) * 100) / 100,
  };
}

/**
 * The simulated room at a moment: warm by day, coldest before dawn, as its days are. `null` in a gap: now and then it is silent for an
 * hour. `minutes` on the wall clock since 1970.
 */
export async function simulatedRoomAt(
  sensor: RoomSensor,
  minutes: number,
  seed = 7,
): Promise<{ temperatureC: number; humidity: number } | null> {
  const hour = Math.floor(minutes / 60);
  // About one hour in sixty nothing is heard.
  if (seeded(seed * 31 + hour)() < 1 / 60) return null;
  const [day] = await sensor.lastDays(dateOf(Math.floor(minutes / 1440) + 1), 1);
  if (!day) return null;
  const ofDay = (minutes % 1440) / 1440;
  // Coldest at five in the morning, warmest twelve hours later.
  const warm = (1 - Math.cos(2 * Math.PI * (ofDay - 5 / 24))) / 2;
  const stray = (seeded(seed + Math.floor(minutes / 10))() - 0.5) * 0.2;
  return {
    temperatureC: Math.round((day.nightC + (day.dayC - day.nightC) * warm + stray) * 10) / 10,
    humidity: day.humidity,
  };
}
