import type { WallTime } from '../time/wallTime';
import type { Shelf, ViewState } from './views';

/** A batch as it went: what it took, what became of it. Null where that was not recorded. */
export interface BatchOverTime {
  batchId: string;
  name: string;
  setId: string;
  set: string;
  /** Its first pour. */
  at: WallTime;
  mixedGrams: number;
  lostGrams: number;
  /** What left the bottles for it, in money. */
  money: number | null;
  pieces: number;
  /** Pieces that were looked over, and those of them that passed at the first look. */
  looked: number;
  passed: number;
  /** How far levels were off on the average, up or down. */
  offMm: number | null;
  /** How far its water was from the recipe in photos, ΔE on the average. */
  colourApart: number | null;
  /** Minutes of marked steps against what was reckoned. */
  timesReckoned: number | null;
  /** By how much the water differs between any two of its pieces, at edges that were measured, on the average. */
  stepMm: number | null;
  /** How long it took to harden, by touch, against what was reckoned. */
  curedShare: number | null;
}

/** The figures over time as their page begins. */
export interface OverTimeView extends Shelf, ViewState {
  batches: BatchOverTime[];
}

export const OVER_TIME = ['waste', 'cost', 'hours', 'passed', 'level', 'step', 'colour', 'cured'] as const;
export type OverTimeKind = (typeof OVER_TIME)[number];

/** What a chart shows of a batch; null where the batch says nothing of it. */
const VALUES: Record<OverTimeKind, (batch: BatchOverTime) => number | null> = {
  waste: ({ mixedGrams, lostGrams }) => (mixedGrams > 0 ? lostGrams / mixedGrams : null),
  cost: ({ money, pieces }) => (money !== null && money > 0 && pieces > 0 ? money / pieces : null),
  hours: ({ timesReckoned }) => timesReckoned,
  passed: ({ looked, passed }) => (looked > 0 ? passed / looked : null),
  level: ({ offMm }) => offMm,
  step: ({ stepMm }) => stepMm,
  colour: ({ colourApart }) => colourApart,
  cured: ({ curedShare }) => curedShare,
};

/** How much a batch says: grams for what is a share of grams, pieces for what is told of pieces. */
const WEIGHTS: Record<OverTimeKind, (batch: BatchOverTime) => number> = {
  waste: ({ mixedGrams }) => mixedGrams,
  cost: ({ pieces }) => pieces,
  hours: () => 1,
  passed: ({ looked }) => looked,
  level: ({ looked }) => looked,
  step: () => 1,
  colour: () => 1,
  cured: () => 1,
};

/** How far levels at edges of different pieces lie apart on the average: the step of a seam between any two; null for fewer than two pieces. */
export function meanStepMm(edges: readonly { piece: string; mm: number }[]): number | null {
  let [sum, pairs] = [0, 0];
  edges.forEach((a, i) => {
    for (const b of edges.slice(i + 1))
      if (a.piece !== b.piece) {
        sum += Math.abs(a.mm - b.mm);
        pairs++;
      }
  });
  return pairs > 0 ? sum / pairs : null;
}

/** A batch in a chart, and the mean of the last few up to it. */
export interface OverTimePoint {
  batch: BatchOverTime;
  value: number;
  mean: number;
}

/** One chart: its points, the oldest first, and how the last few stand against those before. */
export interface OverTime {
  kind: OverTimeKind;
  points: OverTimePoint[];
  /** Null while there are no more than the last few. */
  before: number | null;
  lately: number;
  latelyOf: number;
}

/** So many batches are lately. */
export const LATELY = 5;

function meanOf(kind: OverTimeKind, batches: readonly BatchOverTime[]): number {
  const weight = batches.reduce((sum, batch) => sum + WEIGHTS[kind](batch), 0);
  return weight > 0 ? batches.reduce((sum, batch) => sum + WEIGHTS[kind](batch) * VALUES[kind](batch)!, 0) / weight : 0;
}

/** A chart of batches, the oldest first; null where none says anything of it. */
export function overTime(kind: OverTimeKind, batches: readonly BatchOverTime[]): OverTime | null {
  const told = batches.filter((batch) => VALUES[kind](batch) !== null);
  if (told.length === 0) return null;
  const last = told.slice(-LATELY);
  return {
    kind,
    points: told.map((batch, i) => ({
      batch,
      value: VALUES[kind](batch)!,
      mean: meanOf(kind, told.slice(Math.max(0, i + 1 - LATELY), i + 1)),
    })),
    before: told.length > LATELY ? meanOf(kind, told.slice(0, -LATELY)) : null,
    lately: meanOf(kind, last),
    latelyOf: last.length,
  };
}

/** A month of what was mixed, and what of that reached no piece. */
export interface MonthOfGrams {
  month: string;
  inPieces: number;
  lost: number;
}

/** Grams by month, from the first to the last with the empty ones between. */
export function gramsByMonth(batches: readonly BatchOverTime[]): MonthOfGrams[] {
  const sums = new Map<string, MonthOfGrams>();
  for (const { at, mixedGrams, lostGrams } of batches) {
    const month = at.slice(0, 7);
    const sum = sums.get(month) ?? { month, inPieces: 0, lost: 0 };
    sums.set(month, { month, inPieces: sum.inPieces + mixedGrams - lostGrams, lost: sum.lost + lostGrams });
  }
  const months = [...sums.keys()].toSorted();
  const [first, last] = [months[0], months.at(-1)];
  const row: MonthOfGrams[] = [];
  for (let month = first; month !== undefined && last !== undefined && month <= last; month = nextMonth(month))
    row.push(sums.get(month) ?? { month, inPieces: 0, lost: 0 });
  return row;
}

function nextMonth(month: string): string {
  const [year, of] = month.split('-').map(Number) as [number, number];
  return of === 12 ? `${year + 1}-01` : `${year}-${String(of + 1).padStart(2, '0')}`;
}
