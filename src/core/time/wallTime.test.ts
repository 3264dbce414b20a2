import fc from 'fast-check';
import { benchSpans, narrowedWindows, nextBenchMinute, type BenchWindow } from './benchWindows';
import { minuteOfDay, toWallTime, wallMinutes, wallTimeSchema, weekdayOf } from './wallTime';

describe('the wall clock', () => {
  test('reads and writes the same minute', () =>
    fc.assert(fc.property(fc.integer({ min: 0, max: 40_000_000 }), (m) => expect(wallMinutes(toWallTime(m))).toBe(m))));
  test('counts minutes after midnight, before 1970 too', () => {
    expect(minuteOfDay(wallMinutes('2026-11-23T07:05'))).toBe(425);
    expect(minuteOfDay(-1)).toBe(1439);
  });
  test('a moment that is none is an empty text', () => expect(toWallTime(NaN)).toBe(''));
  test('knows its weekdays', () => {
    expect(weekdayOf(wallMinutes('2026-11-23T12:00'))).toBe(0);
    expect(weekdayOf(wallMinutes('2026-11-29T23:59'))).toBe(6);
  });
  test.each(['2026-02-30T10:00', '2026-11-28', 'tomorrow', '2026-11-28T25:00'])('%s is no time', (text) =>
    expect(wallTimeSchema.safeParse(text).success).toBe(false),
  );
});

describe('bench windows', () => {
  const evenings: BenchWindow[] = [
    { weekday: 1, fromMinute: 19 * 60, toMinute: 21 * 60 },
    { weekday: 5, fromMinute: 10 * 60, toMinute: 16 * 60 },
  ];
  const next = (from: string, needed?: number): string | null => {
    const at = nextBenchMinute(evenings, wallMinutes(from), needed);
    return at === null ? null : toWallTime(at);
  };
  test.each<[string, number, string | null]>([
    ['2026-11-24T12:00', 30, '2026-11-24T19:00'],
    ['2026-11-24T19:30', 30, '2026-11-24T19:30'],
    ['2026-11-24T20:45', 30, '2026-11-28T10:00'],
    ['2026-11-28T15:45', 30, '2026-12-01T19:00'],
    ['2026-11-28T10:00', 300, '2026-11-28T10:00'],
    ['2026-11-28T10:01', 360, '2026-12-05T10:00'],
    ['2026-11-24T12:00', 361, null],
  ])('from %s, %d min', (from, needed, at) => expect(next(from, needed)).toBe(at));
  test('those of a stretch of days, cut to it', () => {
    const spans = benchSpans(evenings, wallMinutes('2026-11-24T20:00'), wallMinutes('2026-11-30T00:00'));
    expect(spans.map(({ from, to }) => [toWallTime(from), toWallTime(to)])).toEqual([
      ['2026-11-24T20:00', '2026-11-24T21:00'],
      ['2026-11-28T10:00', '2026-11-28T16:00'],
    ]);
  });
  test('without windows any minute will do', () => expect(nextBenchMinute([], 123, 600)).toBe(123));
  const on = (date: string, ...spans: [number, number][]) => ({
    date,
    spans: spans.map(([from, to]) => ({ fromMinute: from * 60, toMinute: to * 60 })),
  });
  test('a day unlike others has its own hours, or none', () => {
    const at = (exceptions: Parameters<typeof nextBenchMinute>[3]) =>
      toWallTime(nextBenchMinute(evenings, wallMinutes('2026-11-24T12:00'), 30, exceptions)!);
    expect(at([on('2026-11-24')])).toBe('2026-11-28T10:00');
    expect(at([on('2026-11-24', [14, 15])])).toBe('2026-11-24T14:00');
    expect(at([on('2026-11-26', [8, 9])])).toBe('2026-11-24T19:00');
    // Of two spans of a day the earlier one, in whatever order they were typed.
    expect(at([on('2026-11-24', [18, 19], [13, 14])])).toBe('2026-11-24T13:00');
  });
  test('a holiday of weeks is waited out; without windows only what exceptions take away is missing', () => {
    const away = Array.from({ length: 3 }, (_, i) => on(`2026-12-0${1 + i}`));
    expect(toWallTime(nextBenchMinute([], wallMinutes('2026-12-01T10:00'), 60, away)!)).toBe('2026-12-04T00:00');
    const tuesdays = ['2026-11-24', '2026-12-01', '2026-12-08'].map((date) => on(date));
    const only = evenings.slice(0, 1);
    expect(toWallTime(nextBenchMinute(only, wallMinutes('2026-11-24T12:00'), 30, tuesdays)!)).toBe('2026-12-15T19:00');
  });
  test('spans come in order, also where exceptions are mixed in; none without any', () => {
    const from = wallMinutes('2026-11-24T00:00');
    const spans = benchSpans(evenings, from, from + 2 * 1440, [on('2026-11-25', [20, 21], [8, 9])]);
    expect(spans.map(({ from: at }) => toWallTime(at))).toEqual([
      '2026-11-24T19:00',
      '2026-11-25T08:00',
      '2026-11-25T20:00',
    ]);
    expect(benchSpans([], from, from + 1440)).toEqual([]);
    expect(benchSpans(evenings, wallMinutes('2026-11-24T21:00'), wallMinutes('2026-11-25T00:00'))).toEqual([]);
  });
  test('a set of its own windows has what those and the workshop’s share', () => {
    const own = [
      { weekday: 1, fromMinute: 18 * 60, toMinute: 20 * 60 },
      { weekday: 5, fromMinute: 16 * 60, toMinute: 18 * 60 },
    ];
    expect(narrowedWindows(evenings, own)).toEqual([{ weekday: 1, fromMinute: 19 * 60, toMinute: 20 * 60 }]);
    expect(narrowedWindows(evenings, null)).toEqual(evenings);
    expect(narrowedWindows([], own)).toEqual(own);
    expect(narrowedWindows(evenings, [])).toEqual([]);
  });
});
