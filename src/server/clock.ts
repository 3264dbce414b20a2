import type { WallTime } from '@/core/cure/wallTime';

/** The workshop's wall clock: the server's own local time. */
export function wallClockNow(): WallTime {
  const now = new Date();
  const pad = (value: number): string => String(value).padStart(2, '0');
  return `${now.getFullYear()}-${pad(now.getMonth() + 1)}-${pad(now.getDate())}T${pad(now.getHours())}:${pad(now.getMinutes())}`;
}
