import type { CupState } from './cupState';
import type { RunLayer, RunPlan } from './runSchema';
import type { RunStep } from './steps';
import type { WeighVerdict } from './overPoured';

/** A step that is over: when, since when, and why it was not done as it should have been. */
export interface DoneStep {
  step: RunStep;
  from: number;
  at: number;
  grams: number | null;
  skipped: boolean;
  why: string | null;
}

/** A weighing over or under its tolerance, waiting for what becomes of it. */
export interface Pending {
  step: string;
  grams: number;
  verdict: Exclude<WeighVerdict, 'right'>;
}

export type Refusal =
  | 'not this step now'
  | 'the run is over'
  | 'a reason is asked for'
  | 'begun to set'
  | 'more than the cup holds'
  | 'nothing on the scale'
  | 'nothing was poured'
  | 'nothing of the kind'
  | 'too late to pour leftovers'
  | 'nothing to go back to';

export interface RunNote {
  at: number;
  text: string;
  /** What the maker wrote or pressed; the rest is noted by the run itself. */
  own: boolean;
}

/** How a run stands: what its events, in their order, have made of its plan. */
export interface RunState {
  plan: RunPlan;
  steps: readonly RunStep[];
  /** The step that is next; null once the run is over. */
  current: RunStep | null;
  /** When the current step became the current one. */
  since: number;
  begunAt: number;
  cups: readonly CupState[];
  /** Cups that were thrown away, as they were then. */
  thrownAway: readonly CupState[];
  done: ReadonlyMap<string, DoneStep>;
  pending: Pending | null;
  /** Drops counted into the current step. */
  drops: number;
  notes: readonly RunNote[];
  answers: ReadonlyMap<string, { at: number; did: string }>;
  snoozed: ReadonlyMap<string, number>;
  /** Bottles as they were named. */
  bottles: readonly { lot: string; at: number; anyway: string | null }[];
  timers: readonly { id: string; name: string; at: number; minutes: number }[];
  room: readonly { at: number; temperatureC: number; humidity: number }[];
  slips: readonly { slip: string; at: number; seconds: number }[];
  refused: readonly { id: string; why: Refusal }[];
  over: { at: number; how: 'finished' | 'given up'; why: string | null } | null;
}

export const layerOf = ({ plan }: Pick<RunState, 'plan'>, number: number): RunLayer =>
  plan.layers.find((layer) => layer.number === number)!;
