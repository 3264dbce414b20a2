import { dayAndMonth, shortTime } from './dayNames';
import type { WallTime } from './wallTime';

test.each([
  ['2026-12-12', '12 December'],
  ['2027-01-03T08:00', '3 January'],
])('%s is %s', (time, words) => expect(dayAndMonth(time)).toBe(words));
test.each([
  ['2026-11-28T10:00', 'Sat 28 Nov, 10:00'],
  ['2024-02-29T23:05', 'Thu 29 Feb, 23:05'],
  ['2026-11-25T07:47', 'Wed 25 Nov, 07:47'],
])('%s is %s', (time, words) => expect(shortTime(time as WallTime)).toBe(words));
