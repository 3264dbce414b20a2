import { benchSpans, narrowedWindows, nextBenchMinute } from './benchWindows';
import { minutesLater, steadyMinutes, wallFromSteady } from './clockChanges';
import { toWallTime, wallMinutes } from './wallTime';

// In spring the clock is put on at two, in autumn back at three.
const SPRING = { at: '2027-03-28T02:00', byMinutes: 60 };
const AUTUMN = { at: '2026-10-25T03:00', byMinutes: -60 };
const later = (at: string, minutes: number, changes = [AUTUMN, SPRING]): string =>
  toWallTime(minutesLater(wallMinutes(at), minutes, changes));

describe('nights on which clocks change are as long as they are', () => {
  test('in spring ten hours from eight in the evening end at seven', () =>
    expect(later('2027-03-27T20:00', 600)).toBe('2027-03-28T07:00'));
  test('in autumn they end at five', () => expect(later('2026-10-24T20:00', 600)).toBe('2026-10-25T05:00'));
  test('any other night they end at six', () => expect(later('2026-11-24T20:00', 600)).toBe('2026-11-25T06:00'));
  test('without changes a minute is a minute', () =>
    expect(later('2027-03-27T20:00', 600, [])).toBe('2027-03-28T06:00'));
  test('a time across both is short of nothing: what one takes the other gives', () =>
    expect(later('2026-10-24T12:00', 200 * 1440)).toBe('2027-05-12T12:00'));
  test('there and back is where it began, but for the hour that is skipped', () => {
    for (let wall = wallMinutes('2027-03-27T00:00'); wall < wallMinutes('2027-03-29T00:00'); wall += 30) {
      const back = wallFromSteady(steadyMinutes(wall, [SPRING]), [SPRING]);
      const skipped = wall >= wallMinutes(SPRING.at) && wall < wallMinutes(SPRING.at) + 60;
      expect(back).toBe(skipped ? wallMinutes(SPRING.at) + 60 : wall);
    }
  });
  test('steady time never runs backwards', () => {
    let before = -Infinity;
    for (let wall = wallMinutes('2026-10-24T20:00'); wall < wallMinutes('2026-10-25T08:00'); wall += 10) {
      const steady = steadyMinutes(wall, [AUTUMN]);
      expect(steady).toBeGreaterThanOrEqual(before);
      before = steady;
    }
  });
});

describe('days unlike others', () => {
  // Thursdays from 19:00 to 21:30; the 26th of November 2026 is one.
  const thursday = [{ weekday: 3, fromMinute: 1140, toMinute: 1290 }];
  const free = { date: '2026-11-26', spans: [] };
  const festive = { date: '2026-11-28', spans: [{ fromMinute: 540, toMinute: 720 }] };
  const next = (from: string, needed: number, exceptions: (typeof free | typeof festive)[]): string | null => {
    const minute = nextBenchMinute(thursday, wallMinutes(from), needed, exceptions);
    return minute === null ? null : toWallTime(minute);
  };
  test('a day off sends the pour to the next week', () => {
    expect(next('2026-11-26T08:00', 60, [])).toBe('2026-11-26T19:00');
    expect(next('2026-11-26T08:00', 60, [free])).toBe('2026-12-03T19:00');
  });
  test('a day that is given adds bench time, as long as it is', () => {
    expect(next('2026-11-27T08:00', 120, [festive])).toBe('2026-11-28T09:00');
    expect(next('2026-11-28T10:30', 120, [festive])).toBe('2026-12-03T19:00');
  });
  test('without windows every hour will do that no day off takes', () =>
    expect(toWallTime(nextBenchMinute([], wallMinutes('2026-11-26T08:00'), 60, [free])!)).toBe('2026-11-27T00:00'));
  test('what is drawn is what is counted with', () => {
    const [from, to] = [wallMinutes('2026-11-26T00:00'), wallMinutes('2026-11-29T00:00')];
    expect(benchSpans(thursday, from, to, [free, festive])).toEqual([
      { from: wallMinutes('2026-11-28T09:00'), to: wallMinutes('2026-11-28T12:00') },
    ]);
  });
  test('a set or a batch narrows the workshop’s windows and never widens them', () => {
    expect(narrowedWindows(thursday, null)).toEqual(thursday);
    expect(narrowedWindows(thursday, [{ weekday: 3, fromMinute: 1200, toMinute: 1400 }])).toEqual([
      { weekday: 3, fromMinute: 1200, toMinute: 1290 },
    ]);
    expect(narrowedWindows(thursday, [{ weekday: 4, fromMinute: 0, toMinute: 1440 }])).toEqual([]);
    expect(narrowedWindows([], thursday)).toEqual(thursday);
  });
});
