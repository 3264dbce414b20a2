import { daysOfReadings, withMeasured } from '../schedule/roomDays';
import { ReadingLines } from './readingSchema';

const NOW = Date.parse('2026-11-27T20:00:00Z');
const read = (...lines: unknown[]) => {
  const reader = new ReadingLines();
  return lines.map((line) => reader.read(line, NOW));
};

test('lines in every unit come out in the units of the core', () => {
  const [grams, ounces, room, gauge] = read(
    { device: 'scale', value: 109.4 },
    '{"device":"scale","value":2,"unit":"oz"}',
    { device: 'room', value: 68, unit: '°F', humidity: 0.4 },
    { device: 'gauge', value: 0.5, unit: 'in', at: '2026-11-27T20:00:01+00:00' },
  );
  expect(grams!.reading).toEqual({ device: 'scale', grams: 109.4, at: NOW });
  expect(ounces!.reading).toMatchObject({ grams: 56.69904625 });
  expect(room!.reading).toMatchObject({ temperatureC: 20, humidity: 0.4 });
  expect(gauge!.reading).toEqual({ device: 'gauge', mm: 12.7, at: NOW + 1000 });
});

test.each<[string, unknown, RegExp]>([
  ['text', 'ERR 07', /text that is no reading/],
  ['no number', { device: 'scale', value: 'heavy' }, /value.*Must be a number/],
  ['an unknown instrument', { device: 'barometer', value: 1 }, /device/],
  ['an unknown unit', { device: 'scale', value: 1, unit: 'stone' }, /A scale reads g, kg or oz/],
  ['a weight beyond reason', { device: 'scale', value: 1e9 }, /Out of reach/],
  ['humidity in per cent', { device: 'room', value: 20, humidity: 52 }, /from 0 to 1/],
])('%s is no reading, and says why', (_, line, words) => {
  const [{ reading, trouble }] = read(line) as [{ reading: unknown; trouble: string }];
  expect(reading).toBeNull();
  expect(trouble).toMatch(words);
});

test('a scale that goes negative, changes its unit, or has a wrong clock is taken, with a word', () => {
  const [negative] = read({ device: 'scale', value: -14 });
  expect(negative).toMatchObject({
    reading: { grams: -14 },
    trouble: expect.stringContaining('tared with something on it') as string,
  });
  const [, changed] = read({ device: 'scale', value: 10 }, { device: 'scale', value: 0.35, unit: 'oz' });
  expect(changed!.trouble).toContain('from g to oz');
  expect(changed!.reading).toMatchObject({ grams: expect.closeTo(9.92, 2) as number });
  const [late] = read({ device: 'room', value: 20, at: NOW - 3_600_000 });
  expect(late!.trouble).toContain('60 min behind');
  expect(late!.reading!.at).toBe(NOW);
  for (const hot of [
    { device: 'room', value: 85 },
    { device: 'room', value: 300, unit: '°F' },
    { device: 'room', value: -40, unit: '°F' },
  ])
    expect(read(hot)[0]).toEqual({ reading: null, trouble: expect.stringContaining('that is no room') as string });
});

test('readings of a day become its warmest, coldest and mean; too few say nothing', () => {
  const at = (wallAt: string, temperatureC: number, humidity: number | null = 0.5) => ({
    wallAt,
    temperatureC,
    humidity,
  });
  const days = daysOfReadings([
    at('2026-11-26T03:00', 15.2),
    at('2026-11-26T12:00', 20.04, null),
    at('2026-11-26T18:00', 21.4, 0.6),
    at('2026-11-27T08:00', 19),
  ]);
  expect(days).toEqual([{ date: '2026-11-26', dayC: 21.4, nightC: 15.2, humidity: 0.55 }]);
  const typed = { date: '2026-11-26', dayC: 25, nightC: 20, humidity: 0.5 };
  const other = { ...typed, date: '2026-11-30' };
  expect(withMeasured([typed, other], days)).toEqual([days[0], other]);
});
