import type { RecordedStep } from '../learn/recordedWork';
import { learnMean } from '../learn/estimate';
import type { QuoteCase } from '../money/quote';
import type { StepMinutes } from '../schedule/routes';
import type { ScheduleStep } from '../schedule/scheduleRequest';
import { factsOfStep, type StepKind } from '../schedule/stepKinds';
import { wallMinutes, type WallTime } from '../time/wallTime';
import type { CopyPhoto, JobStage, Job } from './recordSchemas';
import type { Stored } from '../model/stored';
import type { WaterSet } from './recordSchemas';
import type { Shelf, ViewState } from './views';

/** To which part of a job a step belongs, and whether a piece is a piece without it. */
const STEPS_OF_JOBS: Record<StepKind, { stage: JobStage; mayGo?: true }> = {
  cut: { stage: 'bodies' },
  seal: { stage: 'bodies' },
  mould: { stage: 'bodies' },
  paint: { stage: 'bed' },
  rocks: { stage: 'bed', mayGo: true },
  'plants before': { stage: 'bed', mayGo: true },
  dam: { stage: 'dams' },
  'leak test': { stage: 'dams' },
  level: { stage: 'dams' },
  pour: { stage: 'pour' },
  bubbles: { stage: 'pour' },
  'leak look': { stage: 'pour' },
  abrade: { stage: 'pour' },
  demould: { stage: 'opened up' },
  trim: { stage: 'opened up', mayGo: true },
  sand: { stage: 'opened up', mayGo: true },
  gloss: { stage: 'opened up' },
  finish: { stage: 'surface', mayGo: true },
  ripples: { stage: 'surface', mayGo: true },
  white: { stage: 'surface', mayGo: true },
  'plants after': { stage: 'surface', mayGo: true },
  varnish: { stage: 'surface', mayGo: true },
  inspect: { stage: 'looked over' },
  cured: { stage: 'looked over' },
  ready: { stage: 'looked over' },
  other: { stage: 'beside' },
};

/** One piece of the work or of the material of a job. */
export interface JobPart {
  stage: JobStage;
  /** Null: of no batch, or of copies that are in none yet. */
  batchId: string | null;
  batch: string;
  what: string;
  minutes: number;
  /** Material, in money: as it went, or in the good, the likely and the bad case. */
  money: { low: number; likely: number; high: number };
  done: boolean;
  /** Minutes by the clock, or as they were reckoned. */
  timed: boolean;
  /** A piece is a piece without it. */
  mayGo: boolean;
}

/** A batch of a job, or its copies that are in none yet. */
export interface JobBatch {
  id: string | null;
  name: string;
  /** Its steps as the calendar has them, those that are done with their times. */
  steps: readonly Pick<ScheduleStep, 'kind' | 'name' | 'handsOnMinutes' | 'done'>[];
  /** What all its layers mix, and what of that is poured. */
  mixGrams: number;
  pouredGrams: number;
  /** What its material costs by its plan. */
  material: Record<'low' | 'likely' | 'high', Pick<QuoteCase, 'product' | 'colourant' | 'consumables'>>;
  /** What it took out of the bottles so far; null where no bottle was ever entered. */
  taken: number | null;
}

const NOTHING = { low: 0, likely: 0, high: 0 };
const same = (money: number): JobPart['money'] => ({ low: money, likely: money, high: money });

/**
 * The work and the material of a batch, done and to come. A step that was marked or poured counts by the clock, one that is known to be
 * done as it was reckoned. Material of layers that are poured is what left the bottles; where none was entered, what was planned.
 */
export function partsOfBatch({ id, name, steps, mixGrams, pouredGrams, material, taken }: JobBatch): JobPart[] {
  const of = { batchId: id, batch: name };
  const work = steps.flatMap(({ kind, name: what, handsOnMinutes, done }): JobPart[] => {
    const byClock = done ? wallMinutes(done.to) - wallMinutes(done.from) : 0;
    const minutes = byClock > 0 ? byClock : handsOnMinutes;
    const { stage, mayGo = false } = STEPS_OF_JOBS[kind];
    return minutes > 0
      ? [{ ...of, stage, what, minutes, money: NOTHING, done: done !== undefined, timed: byClock > 0, mayGo }]
      : [];
  });
  const share = mixGrams > 0 ? Math.min(1, pouredGrams / mixGrams) : 0;
  const cost = (which: 'low' | 'likely' | 'high'): number => {
    const { product, colourant, consumables } = material[which];
    return product + colourant + consumables;
  };
  const part = (what: string, money: JobPart['money'], done: boolean): JobPart[] =>
    money.high > 0
      ? [{ ...of, stage: 'pour', what, minutes: 0, money, done, timed: done && taken !== null, mayGo: false }]
      : [];
  return [
    ...work,
    ...part(
      taken === null ? 'Material, as planned' : 'Material, out of the bottles',
      same(taken ?? share * cost('likely')),
      true,
    ),
    ...part(
      'Material',
      { low: (1 - share) * cost('low'), likely: (1 - share) * cost('likely'), high: (1 - share) * cost('high') },
      false,
    ),
  ];
}

/** What was timed with the stop-watch, or typed in. */
export const timedParts = ({ timed = [] }: Pick<Job, 'timed'>): JobPart[] =>
  timed.map(({ stage, minutes, note }) => ({
    stage,
    batchId: null,
    batch: '',
    what: note || 'By the stop-watch',
    minutes,
    money: NOTHING,
    done: true,
    timed: true,
    mayGo: false,
  }));

/** How hours that are still to come may turn out, as shares of what is reckoned. */
export interface HoursSpread {
  low: number;
  likely: number;
  high: number;
  /** From so many batches; 0: usual. */
  batches: number;
}

/** While fewer batches than this were timed, it is what is usual: a fifth less to two fifths more. */
const LEAST_TIMED = 3;
const USUAL_SPREAD: HoursSpread = { low: 0.8, likely: 1, high: 1.4, batches: 0 };
/** Nine of ten. */
const NINE_TENTHS = 1.2816;

/** Minutes of marked steps, and as they are reckoned in the workshop’s own minutes, by batch. */
export function reckonedByBatch(
  steps: readonly RecordedStep[],
  own: StepMinutes,
): Map<string, { real: number; reckoned: number }> {
  const batches = new Map<string, { real: number; reckoned: number }>();
  for (const { batchId, kind, minutes, pieces } of steps) {
    const { perBatchMinutes, perPieceMinutes } = own[kind] ?? factsOfStep(kind);
    const reckoned = perBatchMinutes + pieces * perPieceMinutes;
    if (batchId === null || reckoned <= 0) continue;
    const sums = batches.get(batchId) ?? { real: 0, reckoned: 0 };
    batches.set(batchId, { real: sums.real + minutes, reckoned: sums.reckoned + reckoned });
  }
  return batches;
}

/**
 * What hours turned out against what was reckoned, batch by batch: the mean with a prior of two batches that came out as reckoned (spread
 * 0.2), and where nine of ten further batches lie: ± 1.28·√(s² + s²/(2 + n)). Reckoned in the workshop’s own minutes, so that what was
 * taken over of them does not count twice.
 */
export function hoursSpread(steps: readonly RecordedStep[], own: StepMinutes): HoursSpread {
  const batches = reckonedByBatch(steps, own);
  if (batches.size < LEAST_TIMED) return USUAL_SPREAD;
  const n0 = 2;
  const { value, plusMinus } = learnMean(
    { value: 1, n0, spread: 0.2 },
    [...batches.values()].map(({ real, reckoned }) => ({ value: real / reckoned, weight: 1 })),
  );
  const off = NINE_TENTHS * plusMinus * Math.sqrt(n0 + batches.size + 1);
  return { low: Math.max(0, value - off), likely: value, high: value + off, batches: batches.size };
}

/** One of the two jars: what is spent of hours or of money, and what is likely to be in the end. */
export interface Jar {
  spent: number;
  low: number;
  likely: number;
  high: number;
  /** The brim; null: no limit was set. */
  limit: number | null;
  /** By how much it is likely to run over; 0 when it is not. */
  over: number;
  /** It runs over in the bad case only. */
  may: boolean;
}

/** What would bring a job back below its brim. */
export interface WayBack {
  what: string;
  batch: string;
  batchId: string | null;
  hours: number;
  money: number;
  /** By itself it is enough for everything that runs over. */
  enough: boolean;
}

/** A job as it stands. Hours; money is material and hours at their rate. */
export interface JobFigures {
  hours: Jar;
  money: Jar;
  material: { spent: number; likely: number };
  stages: { stage: JobStage; spentHours: number; toComeHours: number; spentMoney: number; toComeMoney: number }[];
  ways: WayBack[];
  /** What to ask for it, margin and all, for what it is likely to cost. */
  price: { low: number; likely: number; high: number };
  spread: HoursSpread;
  /** Of the hours that are spent, those by the clock. */
  timedHours: number;
}

const sum = <T>(rows: readonly T[], of: (row: T) => number): number => rows.reduce((all, row) => all + of(row), 0);

/** More ways back than this help nobody. */
const MOST_WAYS = 4;

/** Sums up a job: what is spent, what is to come as hours usually turn out, where it runs over, and what would bring it back. */
export function jobFigures(
  parts: readonly JobPart[],
  {
    ratePerHour,
    margin,
    spread,
    limits,
  }: {
    ratePerHour: number;
    margin: number;
    spread: HoursSpread;
    limits: { hours: number | null; money: number | null };
  },
): JobFigures {
  const [done, toCome] = [parts.filter((part) => part.done), parts.filter((part) => !part.done)];
  const hoursOf = (some: readonly JobPart[]): number => sum(some, ({ minutes }) => minutes) / 60;
  const moneyOf = (some: readonly JobPart[], which: 'low' | 'likely' | 'high'): number =>
    sum(some, ({ money }) => money[which]);
  const spentHours = hoursOf(done);
  const spentMaterial = moneyOf(done, 'likely');
  const hoursIn = (which: 'low' | 'likely' | 'high'): number => spentHours + spread[which] * hoursOf(toCome);
  const moneyIn = (which: 'low' | 'likely' | 'high'): number =>
    spentMaterial + moneyOf(toCome, which) + hoursIn(which) * ratePerHour;
  const jar = (spent: number, to: (which: 'low' | 'likely' | 'high') => number, limit: number | null): Jar => ({
    spent,
    low: to('low'),
    likely: to('likely'),
    high: to('high'),
    limit,
    over: limit === null ? 0 : Math.max(0, to('likely') - limit),
    may: limit !== null && to('likely') <= limit && to('high') > limit,
  });
  const hours = jar(spentHours, hoursIn, limits.hours);
  const money = jar(spentMaterial + spentHours * ratePerHour, moneyIn, limits.money);
  const asked = (which: 'low' | 'likely' | 'high'): number => money[which] * (1 + margin);
  const stages = [...new Set(parts.map(({ stage }) => stage))].map((stage) => {
    const [own, later] = [done, toCome].map((some) => some.filter((part) => part.stage === stage)) as [
      JobPart[],
      JobPart[],
    ];
    return {
      stage,
      spentHours: hoursOf(own),
      toComeHours: spread.likely * hoursOf(later),
      spentMoney: moneyOf(own, 'likely') + hoursOf(own) * ratePerHour,
      toComeMoney: moneyOf(later, 'likely') + spread.likely * hoursOf(later) * ratePerHour,
    };
  });
  return {
    hours,
    money,
    material: { spent: spentMaterial, likely: spentMaterial + moneyOf(toCome, 'likely') },
    stages,
    ways: hours.over > 0 || money.over > 0 ? waysBack(parts, { ratePerHour, spread, hours, money }) : [],
    price: { low: asked('low'), likely: asked('likely'), high: asked('high') },
    spread,
    timedHours: hoursOf(done.filter(({ timed }) => timed)),
  };
}

/** Steps that may be left out, and batches that are not begun: those that save most of what runs over first. */
function waysBack(
  parts: readonly JobPart[],
  { ratePerHour, spread, hours, money }: { ratePerHour: number; spread: HoursSpread; hours: Jar; money: Jar },
): WayBack[] {
  const way = (what: string, some: readonly JobPart[]): WayBack => {
    const saved = (spread.likely * sum(some, ({ minutes }) => minutes)) / 60;
    const saves = sum(some, (part) => part.money.likely) + saved * ratePerHour;
    return {
      what,
      batch: some[0]!.batch,
      batchId: some[0]!.batchId,
      hours: saved,
      money: saves,
      enough: saved >= hours.over && saves >= money.over,
    };
  };
  const steps = parts
    .filter(({ done, mayGo }) => !done && mayGo)
    .map((part) => way(`leave out: ${part.what.toLowerCase()}`, [part]));
  // What the stop-watch timed belongs to no batch.
  const own = parts.filter(({ batch }) => batch !== '');
  const keyOf = ({ batchId, batch }: JobPart): string => batchId ?? batch;
  const all = new Set(own.map(keyOf));
  const begun = new Set(own.flatMap((part) => (part.done ? [keyOf(part)] : [])));
  const whole = [...all].flatMap((key) =>
    all.size > 1 && !begun.has(key)
      ? [
          way(
            'leave unmade',
            own.filter((part) => keyOf(part) === key),
          ),
        ]
      : [],
  );
  const worth = (one: WayBack): number =>
    (hours.over > 0 ? Math.min(1, one.hours / hours.over) : 0) +
    (money.over > 0 ? Math.min(1, one.money / money.over) : 0);
  return [...steps, ...whole].toSorted((a, b) => worth(b) - worth(a) || a.hours - b.hours).slice(0, MOST_WAYS);
}

/** Money shared out in whole cents by weights: the shares add up to the cent. */
export function sharedMoney(whole: number, weights: readonly number[]): number[] {
  if (weights.length === 0) return [];
  const cents = Math.round(whole * 100);
  const all = weights.reduce((a, b) => a + b, 0);
  const exact = weights.map((weight) => (all > 0 ? (cents * weight) / all : cents / weights.length));
  const shares = exact.map(Math.floor);
  const order = exact
    .map((share, i) => ({ i, rest: share - Math.floor(share) }))
    .toSorted((a, b) => b.rest - a.rest || a.i - b.i);
  const left = cents - shares.reduce((a, b) => a + b, 0);
  for (let k = 0; k < left; k++) shares[order[k % order.length]!.i]! += 1;
  return shares.map((share) => share / 100);
}

/** What of a job is still to be approved before its pieces are shown or handed over. */
export const notApproved = (job: Pick<Job, 'approvals'> | null | undefined): string[] =>
  (job?.approvals ?? []).filter(({ given }) => given === null).map(({ what }) => what);

/** A design of a job as it is delivered: how many copies, what each weighs, how much water each took. */
export interface DeliveredDesign {
  designId: string;
  tag: string;
  name: string;
  copies: number;
  finished: number;
  delivered: number;
  /** The newest photo of a copy of it that is not spoilt; null where none was taken. */
  photo: CopyPhoto | null;
  weightGrams: number;
  waterGrams: number;
}

/** A job as its page begins: its set, and what the workshop counts by. */
export interface JobView extends Shelf, ViewState {
  set: Stored<WaterSet>;
}

/** The same in figures, once they are worked out. */
export interface JobWorkedOut {
  figures: JobFigures;
  designs: DeliveredDesign[];
  /** Copies that are in no batch yet; they are in the figures. */
  open: number;
}

/** Minutes since a stop-watch was started. */
export const watchedMinutes = (since: WallTime, now: WallTime): number =>
  Math.max(0, wallMinutes(now) - wallMinutes(since));
