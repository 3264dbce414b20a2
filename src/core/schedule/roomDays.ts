import type { DayConditions } from '../cure/conditions';

/** Fewer readings of a day than this say nothing of its night. */
const FEWEST = 3;

/** Days as a sensor read them: warmest, coldest, mean humidity. Days of which too little was heard are left out. */
export function daysOfReadings(
  readings: readonly { wallAt: string; temperatureC: number; humidity: number | null }[],
): DayConditions[] {
  const days = new Map<string, { temperatures: number[]; humidities: number[] }>();
  for (const { wallAt, temperatureC, humidity } of readings) {
    const date = wallAt.slice(0, 10);
    const day = days.get(date) ?? { temperatures: [], humidities: [] };
    day.temperatures.push(temperatureC);
    if (humidity !== null) day.humidities.push(humidity);
    days.set(date, day);
  }
  return [...days].flatMap(([date, { temperatures, humidities }]) => {
    if (temperatures.length < FEWEST) return [];
    const mean = humidities.length > 0 ? humidities.reduce((sum, one) => sum + one, 0) / humidities.length : 0.5;
    const tenth = (value: number): number => Math.round(value * 10) / 10;
    return [
      {
        date,
        dayC: tenth(Math.max(...temperatures)),
        nightC: tenth(Math.min(...temperatures)),
        humidity: Math.round(mean * 100) / 100,
      },
    ];
  });
}

/** What was measured in place of what was typed or supposed; the rest stays. In the order of days. */
export const withMeasured = (known: readonly DayConditions[], measured: readonly DayConditions[]): DayConditions[] => {
  const days = new Map([...known, ...measured].map((day) => [day.date, day]));
  return [...days.values()].sort((a, b) => (a.date < b.date ? -1 : 1));
};
