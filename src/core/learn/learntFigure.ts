import type { Strays } from '../bed/measured';
import type { Losses } from '../mixing/losses';
import { PER_PIECE_MINUTES } from '../mixing/potLife';
import type { Product } from '../model/productSchema';
import type { Colourant } from '../model/recipeSchema';
import type { Stored } from '../model/stored';
import type { StepMinutes } from '../schedule/routes';
import type { WallTime } from '../time/wallTime';
import { learnMean, type Estimate, type Prior } from './estimate';
import type { Learning } from './learningSchema';

/** The figures that the record may correct, as they stand. */
export interface Standing {
  losses: Losses;
  products: readonly Stored<Product>[];
  colourants: readonly Stored<Colourant>[];
  strays: Strays;
  stepMinutes: StepMinutes;
  learning?: Learning | undefined;
}

export const LEARNT_KINDS = [
  'losses',
  'pace',
  'pot life',
  'stirring',
  'recoat',
  'firm',
  'cured',
  'shrinkage',
  'price',
  'drop',
  'stray',
  'step',
] as const;
export type LearntKind = (typeof LEARNT_KINDS)[number];

/** What is the same for all figures of a kind. */
interface KindFacts {
  /** The prior counts as so many observations, which spread by such a share of it. */
  n0: number;
  spread: number;
  /** They spread by no less than this: what a gauge or a scale is off by. */
  leastSpread: number;
  /** How many times too much is as far off as how many times too little: always more than nothing. */
  byRatio: boolean;
  /** One observation is one of these. */
  one: string;
  many: string;
  /** How it comes about, in words. */
  how: string;
}

/** What hardens is learnt alike, whatever it is waited for. */
const HARDENING: KindFacts = {
  n0: 3,
  spread: 0.3,
  leastSpread: 1e-6,
  byRatio: true,
  one: 'layer',
  many: 'layers',
  how: 'When a clock of the run rings, “it is, by touch” and “not yet, by touch” are answers, and “it is firm already” is a reason not to wait. Between two looks close together it hardened at their geometric mean; firm before it was reckoned, at that moment. How long that was against what was reckoned for the room as it was read brings the label’s time to yours; the figure before counts as three layers. Firm long after nobody looked says nothing.',
};

export const LEARNT_KIND_FACTS: Record<LearntKind, KindFacts> = {
  losses: {
    n0: 4,
    spread: 0.4,
    leastSpread: 1e-6,
    byRatio: false,
    one: 'cup',
    many: 'cups',
    how: 'What was mixed in a cup less what reached its pieces is g a cup + a share of the mix + g a piece, by least squares over the cups that were read; the figures before count as four cups of usual size each. A dot is a cup brought to the usual size.',
  },
  pace: {
    n0: 3,
    spread: 0.5,
    leastSpread: 1e-6,
    byRatio: true,
    one: 'piece',
    many: 'pieces',
    how: `A piece takes ${PER_PIECE_MINUTES} min to reach, and its grams at the pace. Minutes a gram are averaged, a large piece counting for more by its grams; the figure before counts as three pieces of the usual size.`,
  },
  'pot life': {
    n0: 2,
    spread: 0.25,
    leastSpread: 1e-6,
    byRatio: true,
    one: 'cup',
    many: 'cups',
    how: 'From when the parts met until “draws threads” was pressed, brought to the label’s cup and temperature by the same law that plans use; the figure before counts as two cups.',
  },
  stirring: {
    n0: 3,
    spread: 0.4,
    leastSpread: 1e-6,
    byRatio: true,
    one: 'cup',
    many: 'cups',
    how: 'Minutes of stirring, and of stirring on until “it is clear” was pressed. A cup that was stirred shorter than is usual says nothing, and never less than the usual time comes out: too little is the commonest cause of sticky spots. The figure before counts as three cups.',
  },
  recoat: HARDENING,
  firm: HARDENING,
  cured: HARDENING,
  shrinkage: {
    n0: 3,
    spread: 0.5,
    // Two tenths of a millimetre over a centimetre.
    leastSpread: 0.02,
    byRatio: false,
    one: 'piece',
    many: 'pieces',
    how: 'A level found low or high after curing, over the mean depth of the piece, says how much of the volume went. Pieces found right count as level. A batch counts once; the figure before counts as three. Assumes that what was planned went in and nothing leaked.',
  },
  price: {
    n0: 1,
    spread: 0.3,
    leastSpread: 1e-6,
    byRatio: true,
    one: 'pack',
    many: 'packs',
    how: 'What was paid, brought to the size of the pack; one bought half a year before the last counts half. The figure before counts as one pack.',
  },
  drop: {
    n0: 2,
    spread: 0.35,
    leastSpread: 1e-6,
    byRatio: true,
    one: 'count',
    many: 'counts',
    how: 'By what the scale rose while drops were counted into the cup on it, over their number; only where it rose by enough of its steps to be read. A long count says more than a short one, by its drops; the figure before counts as two counts of the usual length.',
  },
  stray: {
    n0: 4,
    spread: 0.5,
    leastSpread: 0.02,
    byRatio: true,
    one: 'bed',
    many: 'beds',
    how: 'Depths that were felt in a piece, against its drawing: what all of its readings share is the bed’s offset, what they differ by is its wander (variances, the figures before counted as four beds of as many readings). A dot is a bed’s root mean square. Three readings are the least; close together they make the wander look smaller than it is.',
  },
  step: {
    n0: 2,
    spread: 0.6,
    leastSpread: 1e-6,
    byRatio: true,
    one: 'time',
    many: 'times',
    how: 'Minutes as they were marked against minutes as they were reckoned, for a batch and for each piece alike; the minutes before count as two times.',
  },
};

/** One observation as it is drawn: brought to the unit of its figure. */
export interface LearntDot {
  key: string;
  at: WallTime;
  batchId: string | null;
  value: number;
  /** Far off the others: a clock that was wrong, a pause. Not counted, unless the maker says so. */
  far: boolean;
  counted: boolean;
}

/** A figure of which the record says something. */
export interface LearntFigure {
  id: string;
  kind: LearntKind;
  /** The product or kind of step it is of; null for the workshop. */
  of: string | null;
  name: string;
  /** Unit of the dots. */
  unit: 'g' | 'g/min' | 'g/drop' | 'min' | 'mm' | '%' | '×' | 'money';
  /** The figures themselves, as they stand and as they are learnt; rounded to what they are known to. */
  fields: { name: string; unit: Exclude<LearntFigure['unit'], '×'>; was: number; now: number }[];
  /** The oldest first. */
  dots: LearntDot[];
  /** How many there are, drawn or not. */
  observed: number;
  /** The line as the figure stands, and the one of the record with its standard error, in the dots’ unit. */
  was: number;
  now: Estimate;
  /** The figures before anything was learnt: the next time they are the prior again. */
  before: number[];
  counted: number;
  /** In how many batches those were made; none where they were bought. */
  batches: number;
  /** Offered; taken over and still right; refused until more is known; too little on record; nothing would change. */
  standing: 'offered' | 'taken' | 'refused' | 'too few' | 'the same';
}

/** Rounded to a step, without the dust of floating point. */
export const to = (value: number, step: number): number => Math.round(Math.round(value / step) * step * 1e6) / 1e6;
export const sum = (values: readonly number[]): number => values.reduce((all, value) => all + value, 0);

/** A dot before it is known which are far off, with what it weighs. */
export interface Seen {
  key: string;
  at: WallTime;
  batchId: string | null;
  value: number;
  weight: number;
}

/** How one figure is learnt from what was seen of it. */
export interface FigurePlan {
  id: string;
  kind: LearntKind;
  of: string | null;
  name: string;
  unit: LearntFigure['unit'];
  fields: readonly Omit<LearntFigure['fields'][number], 'now'>[];
  seen: readonly Seen[];
  /** The dots’ value of figures. */
  lineOf: (figures: readonly number[]) => number;
  /** Figures, from the prior ones and the observations that count; not rounded. */
  learn: (before: readonly number[], counted: readonly Seen[]) => { figures: number[]; line: Estimate };
  round: (figures: readonly number[]) => number[];
}

/** A figure before the record speaks, as its kind has it. */
export function priorOf(kind: LearntKind, value: number): Prior {
  const { n0, spread, leastSpread } = LEARNT_KIND_FACTS[kind];
  return { value, n0, spread: Math.max(value * spread, leastSpread) };
}

/** How the observations of a mean become its figure: the mean itself is the line, and `figuresOf` what it makes of the figures. */
export const byMean =
  (kind: LearntKind, figuresOf: (before: readonly number[], line: number) => number[], lineOf: FigurePlan['lineOf']) =>
  (before: readonly number[], counted: readonly Seen[]): { figures: number[]; line: Estimate } => {
    const prior = lineOf(before);
    const line = learnMean(priorOf(kind, prior), counted);
    return { figures: figuresOf(before, line.value), line };
  };
