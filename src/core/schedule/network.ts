import type { Calendar } from './calendar';

/** How long something waits after a time, which may depend on the room as it then is. Both grow with their argument. */
export interface Wait {
  after(end: number): number;
  /** The earliest end from which `after` comes to `at` or later. */
  before(at: number): number;
}

/** One step as the solver sees it. Times are whole steady minutes. */
export interface NetTask {
  minutes: number;
  /** How many makers it takes; 0: it happens by itself. */
  hands: 0 | 1 | 2;
  mayPause: boolean;
  /** When each maker may do it; of a step for two, when both may. Empty for steps that take no hands. */
  calendars: readonly Calendar[];
  /** It cannot begin before. */
  earliest: number;
  /** When it was done, or where it is held whatever comes. */
  fixed: { from: number; to: number } | null;
  /** Where the maker wants it. */
  pin: number | null;
  /** The choice by which it is only done when a recoat window is missed. */
  onlyIf: number | null;
}

/** `to` begins no sooner than `least` after the end of `from`, and no later than `most` after it. */
export interface NetLink {
  from: number;
  to: number;
  least: Wait | null;
  most: Wait | null;
  /** The choice by which `most` may be given up. */
  choice: number | null;
}

/** A place that is taken from the start of one step to the end of another. */
export interface NetHold {
  place: number;
  amount: number;
  from: number;
  to: number;
}

export interface NetBatch {
  due: number | null;
  /** The step that says the batch is ready. */
  ready: number;
}

/** Everything that is solved. */
export interface Network {
  tasks: readonly NetTask[];
  links: readonly NetLink[];
  holds: readonly NetHold[];
  /** What there is of each place. */
  capacities: readonly number[];
  batches: readonly NetBatch[];
  makers: number;
  /** How many recoat windows may be missed and abraded. */
  choices: number;
  /** Nothing is planned after it. */
  horizon: number;
}

export type Choice = 'open' | 'keep' | 'abrade';

/** One more order that is decided, in the list of a step. */
export interface Arc {
  other: number;
  next: Arc | null;
}

/**
 * How far a plan is decided: which of two steps comes first, who does it, whether a recoat window is kept, and the
 * earliest times that follow.
 */
export interface State {
  start: Float64Array;
  end: Float64Array;
  /** Who does it; -1 while that is open. */
  maker: Int8Array;
  choice: Choice[];
  arcsIn: (Arc | null)[];
  arcsOut: (Arc | null)[];
}

/** What of a state cannot stand: a missed window, two steps for the same hands, a place that is overfull. */
export type Conflict =
  | { kind: 'window'; choice: number }
  | { kind: 'hands'; first: number; then: number; open: number; at: number }
  | { kind: 'place'; holds: NetHold[]; at: number };
