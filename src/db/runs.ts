import { and, asc, desc, eq, gte, isNull, max, sql } from 'drizzle-orm';
import { runEventSchema, runPlanSchema, type RunEvent, type RunPlan } from '@/core/run/runSchema';
import type { RunRow } from '@/core/run/views';
import type { Connection } from './storage';
import { roomReadings, runEvents, runs } from './schema';

/** A run as it is kept: what it carries out, and since when. */
export interface StoredRun extends RunRow {
  plan: RunPlan;
}

const columns = {
  id: runs.id,
  setId: runs.setId,
  batchId: runs.batchId,
  name: runs.name,
  practiceSpeed: runs.practiceSpeed,
  seed: runs.seed,
  begunAt: runs.begunAt,
  overAt: runs.overAt,
};

export const addRun = (db: Connection, run: StoredRun): void => void db.insert(runs).values(run).run();

/** One run with its plan; null when there is none. */
export function getRun(db: Connection, id: string): StoredRun | null {
  const row = db
    .select({ ...columns, plan: runs.plan })
    .from(runs)
    .where(eq(runs.id, id))
    .get();
  return row ? { ...row, plan: runPlanSchema.parse(row.plan) } : null;
}

/** Runs that are under way, the newest first. */
export const openRuns = (db: Connection): RunRow[] =>
  db.select(columns).from(runs).where(isNull(runs.overAt)).orderBy(desc(runs.begunAt)).all();

/** The runs of a set, the newest first. */
export const runsOfSet = (db: Connection, setId: string, most = 20): RunRow[] =>
  db.select(columns).from(runs).where(eq(runs.setId, setId)).orderBy(desc(runs.begunAt)).limit(most).all();

/** The run in earnest that a batch is in; null when it is in none. */
export const runOfBatch = (db: Connection, batchId: string): RunRow | null =>
  db
    .select(columns)
    .from(runs)
    .where(and(eq(runs.batchId, batchId), isNull(runs.overAt), isNull(runs.practiceSpeed)))
    .orderBy(desc(runs.begunAt))
    .get() ?? null;

/** All runs in earnest of a batch, the oldest first. */
export const runsInEarnest = (db: Connection, batchId: string): RunRow[] =>
  db
    .select(columns)
    .from(runs)
    .where(and(eq(runs.batchId, batchId), isNull(runs.practiceSpeed)))
    .orderBy(asc(runs.begunAt))
    .all();

export const endRun = (db: Connection, id: string, at: number): void =>
  void db.update(runs).set({ overAt: at }).where(eq(runs.id, id)).run();

/** The events of a run after the first so many, in the order in which they came. */
export const eventsOf = (db: Connection, runId: string, after = 0): { seq: number; event: RunEvent }[] =>
  db
    .select({ seq: runEvents.seq, data: runEvents.data })
    .from(runEvents)
    .where(and(eq(runEvents.runId, runId), sql`${runEvents.seq} > ${after}`))
    .orderBy(asc(runEvents.seq))
    .all()
    .map(({ seq, data }) => ({ seq, event: runEventSchema.parse(data) }));

/** Adds events to a run; those that are there already are not added again. What was added, with its place. */
export function appendEvents(
  db: Connection,
  runId: string,
  events: readonly RunEvent[],
): { seq: number; event: RunEvent }[] {
  let seq =
    db
      .select({ last: max(runEvents.seq) })
      .from(runEvents)
      .where(eq(runEvents.runId, runId))
      .get()?.last ?? 0;
  return events.flatMap((event) => {
    const { changes } = db
      .insert(runEvents)
      .values({ runId, seq: seq + 1, eventId: event.id, at: event.at, data: event })
      .onConflictDoNothing({ target: [runEvents.runId, runEvents.eventId] })
      .run();
    return changes > 0 ? [{ seq: ++seq, event }] : [];
  });
}

/** A reading of the room. */
export interface RoomReading {
  wallAt: string;
  at: number;
  temperatureC: number;
  humidity: number | null;
}

export const addRoomReading = (db: Connection, reading: RoomReading): void =>
  void db.insert(roomReadings).values(reading).run();

export const lastRoomReading = (db: Connection): RoomReading | null =>
  db
    .select({
      wallAt: roomReadings.wallAt,
      at: roomReadings.at,
      temperatureC: roomReadings.temperatureC,
      humidity: roomReadings.humidity,
    })
    .from(roomReadings)
    .orderBy(desc(roomReadings.id))
    .limit(1)
    .get() ?? null;

/** What the room was like since a time on the wall clock, in order. */
export const roomReadingsSince = (db: Connection, wallAt: string): RoomReading[] =>
  db
    .select({
      wallAt: roomReadings.wallAt,
      at: roomReadings.at,
      temperatureC: roomReadings.temperatureC,
      humidity: roomReadings.humidity,
    })
    .from(roomReadings)
    .where(gte(roomReadings.wallAt, wallAt))
    .orderBy(asc(roomReadings.wallAt))
    .all();
