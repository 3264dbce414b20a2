import { z } from 'zod';
import { benchExceptionSchema, benchWindowSchema, type BenchException, type BenchWindow } from '../time/benchWindows';
import type { ClockChange } from '../time/clockChanges';
import type { Room } from '../model/roomSchema';
import type { WallTime } from '../time/wallTime';
import { dayConditionsSchema, type Conditions } from '../cure/conditions';
import type { BatchFacts } from './facts';
import { usualRoute, type Course, type Route, type StepMinutes } from './routes';
import { wishSchema, type ScheduleRequest } from './scheduleRequest';
import { batchOnRoute, PLACES } from './onRoute';

const number = z.number({ error: 'Type a number' });
const most = (what: number): z.ZodNullable<z.ZodNumber> =>
  number.min(0, 'Cannot be negative').max(what, `At most ${what}`).nullable();
const minute = z.number({ error: 'A time such as 19:00' }).int().min(0).max(1440);

/** Who else works, what places there are, when it may be loud or smell, and how the room changes: null where nothing limits. */
export const workplaceSchema = z.object({
  helper: z
    .object({
      name: z.string().trim().min(1, 'Give a name').max(40),
      windows: z.array(benchWindowSchema).max(28, 'At most four windows a day'),
      exceptions: z.array(benchExceptionSchema).max(120, 'At most 120 days').optional(),
    })
    .nullable(),
  levelCm2: most(1e6),
  damKits: most(10_000),
  moulds: most(10_000),
  dryBox: most(10_000),
  /** When outdoor steps are done; empty: whenever the bench is. */
  outdoors: z.array(benchWindowSchema).max(28, 'At most four windows a day'),
  quiet: z.object({ fromMinute: minute, toMinute: minute }).nullable(),
  /** How warm the room is at night; null: as by day. */
  nightC: dayConditionsSchema.shape.nightC.nullable(),
  nightFromMinute: minute,
  nightToMinute: minute,
  days: z.array(dayConditionsSchema).max(120, 'At most 120 days'),
  goal: wishSchema,
});
export type Workplace = z.infer<typeof workplaceSchema>;

/** A workshop of which nothing is said: one maker, room enough, the same temperature day and night. */
export const FIRST_WORKPLACE: Workplace = {
  helper: null,
  levelCm2: null,
  damKits: null,
  moulds: null,
  dryBox: null,
  outdoors: [],
  quiet: null,
  nightC: null,
  nightFromMinute: 22 * 60,
  nightToMinute: 6 * 60,
  days: [],
  goal: 'soonest',
};

/** The room over weeks, from the workshop's own and what is known of nights and days. */
export const conditionsOf = (room: Room, { nightC, nightFromMinute, nightToMinute, days }: Workplace): Conditions => ({
  usual: { dayC: room.temperatureC, nightC: nightC ?? room.temperatureC, humidity: room.humidity },
  nightFromMinute,
  nightToMinute,
  days,
});

/** A batch as the calendar knows it. */
export interface CalendarBatch {
  id: string;
  /** Of its row, by which an edit of its course names what it was made from. */
  version: number;
  setId: string;
  set: string;
  name: string;
  due: string | null;
  /** Bench windows of its own or of its set; null: all of the workshop’s. */
  windows?: BenchWindow[] | null;
  facts: BatchFacts;
  /** The route of its set; null: what its water asks for. */
  route: Route | null;
  course: Course;
}

/** The workshop as the calendar needs it. */
export interface CalendarWorkshop {
  room: Room;
  benchWindows: BenchWindow[];
  benchExceptions: BenchException[];
  workplace: Workplace;
  now: WallTime;
  clockChanges: ClockChange[];
  stepMinutes?: StepMinutes | undefined;
}

/** What a batch of the calendar takes one after the other. */
export const routeOf = (
  { route, facts }: Pick<CalendarBatch, 'route' | 'facts'>,
  stepMinutes: StepMinutes | undefined,
): Route => route ?? usualRoute(facts, stepMinutes);

/** Looks that a plan gets when it is not in a hurry: two or three seconds for a handful of batches. */
export const FULL_EFFORT = 6000;

/** Everything that is to be planned, for the solver. Null when there is nothing. */
export function calendarRequest(
  batches: readonly CalendarBatch[],
  { room, benchWindows, benchExceptions, workplace, now, clockChanges, stepMinutes }: CalendarWorkshop,
  effort = FULL_EFFORT,
): ScheduleRequest | null {
  if (batches.length === 0) return null;
  const { helper } = workplace;
  const places = (
    [
      [PLACES.level, workplace.levelCm2, 'cm²'],
      [PLACES.dams, workplace.damKits, ''],
      [PLACES.moulds, workplace.moulds, ''],
      [PLACES.dryBox, workplace.dryBox, ''],
    ] as const
  ).flatMap(([name, capacity, unit]) => (capacity === null ? [] : [{ id: name, name, capacity, unit }]));
  const there = new Set<string>(places.map(({ id }) => id));
  return {
    format: 'aguada.schedule-request',
    version: 1,
    now,
    makers: [
      { name: 'You', windows: benchWindows, exceptions: benchExceptions },
      ...(helper ? [{ name: helper.name, windows: helper.windows, exceptions: helper.exceptions ?? [] }] : []),
    ],
    outdoors: workplace.outdoors,
    quiet: workplace.quiet,
    places,
    conditions: conditionsOf(room, workplace),
    batches: batches.map((batch) => {
      const made = batchOnRoute(
        { id: batch.id, name: batch.name, set: batch.set, due: batch.due, windows: batch.windows ?? null },
        batch.facts,
        routeOf(batch, stepMinutes),
        batch.course.marks,
      );
      // What nothing is said of does not limit.
      return { ...made, holds: made.holds.filter(({ place }) => there.has(place)) };
    }),
    goal: workplace.goal,
    clockChanges,
    seed: 1,
    effort,
  };
}
