import type { UnitPreferences } from '../units/formatMeasure';
import type { Reading } from '../model/readingSchema';
import type { RunClock } from './clocks';
import type { RunEvent, RunPlan } from './runSchema';

/** A run in short. */
export interface RunRow {
  id: string;
  setId: string;
  batchId: string;
  name: string;
  /** Null: in earnest. Else practice, so many times faster than real. */
  practiceSpeed: number | null;
  /** Which slips a practice run has thrown in. */
  seed: number;
  /** ms since 1970. */
  begunAt: number;
  overAt: number | null;
}

/** A run as a list shows it: what is next, and the clocks that wait. */
export interface RunSummary extends RunRow {
  /** What its set is called: two sets may both have a “Batch 1”. */
  set: string;
  next: string;
  /** Nobody outside hears of the clocks of practice: it has none here. */
  clocks: Pick<RunClock, 'id' | 'name' | 'words' | 'due' | 'snoozedTo' | 'kind' | 'answers'>[];
}

/** Everything that a window needs to show a run. */
export interface RunView {
  run: RunRow;
  plan: RunPlan;
  /** In the order in which they came. */
  events: { seq: number; event: RunEvent }[];
  /** The server's clock when it answered, ms since 1970. */
  serverNow: number;
  units: UnitPreferences;
  measureBy: 'weight' | 'volume';
  /** The batch was removed, or poured from a changed plan: what is to be said of it. */
  notice: string | null;
  others: RunSummary[];
}

/** The bench of the whole workshop: runs under way, and batches that can be begun, those poured next first. */
export interface WorkshopBenchView {
  runs: RunSummary[];
  batches: {
    id: string;
    setId: string;
    set: string;
    name: string;
    pourAt: string;
    layersPoured: number;
    dry: number;
  }[];
  serverNow: number;
}

/** What the server tells windows while they listen. */
export type LiveMessage =
  | { type: 'events'; runId: string; events: { seq: number; event: RunEvent }[]; serverNow: number }
  | { type: 'reading'; reading: Reading; from: string; trouble: string | null }
  | { type: 'trouble'; trouble: string; from: string }
  | { type: 'runs'; runs: RunSummary[]; serverNow: number };

/** What a run's own clock shows: practice may go faster than real. */
export const runMoment = ({ begunAt, practiceSpeed }: Pick<RunRow, 'begunAt' | 'practiceSpeed'>, now: number): number =>
  Math.round(begunAt + (now - begunAt) * (practiceSpeed ?? 1));

/** The inverse: the real moment of one in the run. */
export const realMoment = (
  { begunAt, practiceSpeed }: Pick<RunRow, 'begunAt' | 'practiceSpeed'>,
  moment: number,
): number => Math.round(begunAt + (moment - begunAt) / (practiceSpeed ?? 1));
