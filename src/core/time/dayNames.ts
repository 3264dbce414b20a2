import { WEEKDAYS } from './benchWindows';
import { weekdayOf, wallMinutes, type WallTime } from './wallTime';

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];

/** `12 December` from a date or wall time. */
export const dayAndMonth = (time: string): string =>
  `${Number(time.slice(8, 10))} ${MONTHS[Number(time.slice(5, 7)) - 1]}`;

/** `28 November 2026` from a date. */
export const dayWithYear = (date: string): string => `${dayAndMonth(date)} ${date.slice(0, 4)}`;

/** `Sat 28 Nov, 10:00`: short, with its weekday, since that is how bench time is thought of. */
export function shortTime(time: WallTime): string {
  const weekday = WEEKDAYS[weekdayOf(wallMinutes(time))]!;
  return `${weekday.slice(0, 3)} ${Number(time.slice(8, 10))} ${MONTHS[Number(time.slice(5, 7)) - 1]!.slice(0, 3)}, ${time.slice(11, 16)}`;
}
