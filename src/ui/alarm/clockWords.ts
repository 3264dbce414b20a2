/** A wait as a bench reads it: `12:07`, `3 h 20`, `2 days`; with a minus sign when it is over. */
export function clockDigits(ms: number): string {
  const over = ms < 0;
  const seconds = over ? Math.floor(-ms / 1000) : Math.ceil(ms / 1000);
  const sign = over && seconds > 0 ? '−' : '';
  if (seconds < 3600) return `${sign}${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
  const minutes = Math.round(seconds / 60);
  if (minutes < 48 * 60) return `${sign}${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`;
  return `${sign}${(minutes / 1440).toFixed(1)} days`;
}

/** When that is on the wall: `21:40`, or with its day when it is not today. */
export function wallWords(moment: number, now: number): string {
  const at = new Date(moment);
  const time = `${String(at.getHours()).padStart(2, '0')}:${String(at.getMinutes()).padStart(2, '0')}`;
  if (at.toDateString() === new Date(now).toDateString()) return time;
  return `${['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'][at.getDay()]} ${time}`;
}
