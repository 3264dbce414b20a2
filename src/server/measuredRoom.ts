import { toWallTime, wallMinutes } from '@/core/time/wallTime';
import type { DayConditions } from '@/core/cure/conditions';
import { daysOfReadings } from '@/core/schedule/roomDays';
import { roomReadingsSince } from '@/db/runs';
import { withData } from './data';

/** What cured longer ago than this is cured. */
const DAYS_BACK = 60;

/** Days on which the room was read, for the calendar: measured beats typed. */
export const measuredDays = (now: string): DayConditions[] =>
  daysOfReadings(withData((db) => roomReadingsSince(db, toWallTime(wallMinutes(now) - DAYS_BACK * 1440))));
