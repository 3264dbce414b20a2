import fc from 'fast-check';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { benchSpans, nextBenchMinute, type BenchWindow } from '../time/benchWindows';
import { cureTimes } from './cureLine';
import { temperatureFactor } from './temperature';
import { toWallTime, wallMinutes, wallTimeSchema, weekdayOf } from '../time/wallTime';

const kind = (name: string): (typeof PRODUCT_KINDS)[number] => PRODUCT_KINDS.find((product) => product.name === name)!;

describe('temperature', () => {
  test('nothing changes at the reference', () => expect(temperatureFactor(23, 23)).toBe(1));
  test('10 °C colder is about twice as long', () => expect(temperatureFactor(13, 23)).toBeCloseTo(2.184, 2));
  test('there and back is 1', () =>
    fc.assert(
      fc.property(fc.double({ min: 5, max: 40, noNaN: true }), (t) =>
        expect(temperatureFactor(t, 20) * temperatureFactor(20, t)).toBeCloseTo(1, 10),
      ),
    ));
});

describe('cure lines', () => {
  test('two-part times all stretch by the same factor', () => {
    const times = cureTimes(kind('Coating epoxy'), { temperatureC: 13, humidity: 0.5 }, 4);
    expect(times.recoatOpens / (4 * 60)).toBeCloseTo(times.factor);
    expect(times.fullCure / (72 * 60)).toBeCloseTo(times.factor);
    expect(times.recoatCloses! / times.recoatOpens).toBeCloseTo(4);
  });
  test('a water-borne layer twice as thick takes four times as long, and longer in damp air', () => {
    const gel = kind('Water-borne gel');
    const at = (wet: number, humidity: number): number =>
      cureTimes(gel, { temperatureC: 23, humidity }, wet).recoatOpens;
    expect(at(2, 0.5)).toBeCloseTo(1440);
    expect(at(1, 0.5) * 4).toBeCloseTo(at(2, 0.5));
    expect(at(2, 0.75)).toBeCloseTo(2880);
    expect(cureTimes(gel, { temperatureC: 23, humidity: 0.5 }, 1).recoatCloses).toBeNull();
  });
  test('a lamp does not mind the room', () =>
    expect(cureTimes(kind('Light-cured resin'), { temperatureC: 12, humidity: 0.9 }, 2).factor).toBe(1));
});

describe('the wall clock', () => {
  test('reads and writes the same minute', () =>
    fc.assert(fc.property(fc.integer({ min: 0, max: 40_000_000 }), (m) => expect(wallMinutes(toWallTime(m))).toBe(m))));
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
});
