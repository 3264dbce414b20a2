import type { ReadyItem } from '../run/runSchema';
import type { NextTime, Settings } from './recordSchemas';

const MOST = 12;

/** Settings with a reminder for every run, or without it; one a cause, the oldest goes where there are too many. */
export function reminded(
  { nextTime = [], ...settings }: Settings,
  { cause, ...said }: NextTime,
  wanted: boolean,
): Settings {
  const others = nextTime.filter((one) => one.cause !== cause);
  const next = wanted ? [...others, { cause, ...said }].slice(-MOST) : others;
  return { ...settings, ...(next.length > 0 && { nextTime: next }) };
}

/** The reminders as a run lays them out before it begins. */
export const readyReminders = ({ nextTime = [] }: Pick<Settings, 'nextTime'>): ReadyItem[] =>
  nextTime.map(({ cause, words, why }) => ({ id: `next ${cause}`, text: words, why, must: false }));
