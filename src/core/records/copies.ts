import type { PieceDesign } from '../model/designSchema';
import type { Stored } from '../model/stored';
import { dayAndMonth, shortTime } from '../time/dayNames';
import type { WallTime } from '../time/wallTime';
import { findingWords } from './inspections';
import type { Batch, CopyFate, CopyInspection } from './recordSchemas';

/** 1, 2, 3 … */
export const firstNumbers = (copies: number, from = 1): number[] => Array.from({ length: copies }, (_, i) => from + i);

/** Which copies of a design a batch takes. */
export const numbersOf = ({ copies, first = 1, numbers }: Batch['items'][number]): number[] =>
  numbers?.length === copies ? numbers : firstNumbers(copies, first);

/** The same item with more or fewer copies: the last of them go, further ones follow on the last. */
export function withCopies(item: Batch['items'][number], copies: number): Batch['items'][number] {
  const numbers = numbersOf(item);
  const more = firstNumbers(Math.max(0, copies - numbers.length), Math.max((item.first ?? 1) - 1, ...numbers) + 1);
  return itemOf(item.designId, [...numbers.slice(0, copies), ...more]);
}

/** The item of a batch that takes these copies, in the order of their numbers. */
export function itemOf(designId: string, wanted: readonly number[]): Batch['items'][number] {
  const numbers = [...wanted].sort((a, b) => a - b);
  const first = numbers[0] ?? 1;
  const follow = numbers.every((number, i) => number === first + i);
  return { designId, copies: numbers.length, ...(first > 1 && { first }), ...(!follow && { numbers }) };
}

/** A copy in a batch: what of the batch's layers it has got, and what became of it. */
export interface CopyInBatch {
  designId: string;
  copy: number;
  batchId: string;
  batchName: string;
  /** The set at whose desk the batch lies, where that is another than the design's. */
  setId: string;
  pourAt: WallTime;
  /** Layers that it has got whole, whether it has a part of the next one, and how many the plan has; 0 before a plan is kept. */
  layers: number;
  partly: boolean;
  of: number;
  lastAt: WallTime | null;
  /** When what it has may be handled, and when that is cured; null: long ago. */
  firmAt: WallTime | null;
  curedAt: WallTime | null;
  /** When its batch was looked over; and the last word on the copy itself. */
  inspectedAt: WallTime | null;
  inspection: Pick<CopyInspection, 'at' | 'findings' | 'outcome'> | null;
  fate: Pick<CopyFate, 'fate' | 'at' | 'why'> | null;
}

/** Where a copy stands, in the order of the work. */
export const COPY_STATES = [
  'open',
  'planned',
  'begun',
  'poured',
  'firm',
  'cured',
  'to mend',
  'inspected',
  'delivered',
  'spoilt',
] as const;
export type CopyState = (typeof COPY_STATES)[number];

/** One copy of a design: where it stands, in which batch, and those in which it was spoilt before. */
export interface Copy {
  designId: string;
  copy: number;
  state: CopyState;
  held: CopyInBatch | null;
  before: CopyInBatch[];
}

function stateOf(held: CopyInBatch | null, now: WallTime): CopyState {
  if (!held) return 'open';
  if (held.fate) return held.fate.fate;
  if (held.layers === 0 && !held.partly) return 'planned';
  if (held.layers < held.of) return 'begun';
  if (held.firmAt !== null && now < held.firmAt) return 'poured';
  if (held.curedAt !== null && now < held.curedAt) return 'firm';
  if (held.inspection?.outcome === 'mend') return 'to mend';
  return held.inspectedAt || held.inspection ? 'inspected' : 'cured';
}

/** Every copy of some designs: those that are wanted, and those that batches have numbered on. `taken`: older batches first. */
export function copiesOfDesigns(
  designs: readonly Stored<Pick<PieceDesign, 'copies'>>[],
  taken: readonly CopyInBatch[],
  now: WallTime,
): Copy[] {
  return designs.flatMap(({ id: designId, data }) => {
    const own = taken.filter((one) => one.designId === designId);
    const numbers = new Set([...firstNumbers(data.copies), ...own.map(({ copy }) => copy)]);
    return [...numbers]
      .sort((a, b) => a - b)
      .map((copy): Copy => {
        const batches = own.filter((one) => one.copy === copy);
        const held = batches.at(-1) ?? null;
        return { designId, copy, state: stateOf(held, now), held, before: batches.slice(0, -1) };
      });
  });
}

const FINISHED: ReadonlySet<CopyState> = new Set(['cured', 'inspected', 'delivered']);
export const isFinished = ({ state }: Pick<Copy, 'state'>): boolean => FINISHED.has(state);
/** Whether any water is in it. */
export const isBegun = ({ state }: Pick<Copy, 'state'>): boolean => state !== 'open' && state !== 'planned';

/** How many copies there are, how many of them are finished, and how many others have water in them. */
export interface CopyCounts {
  of: number;
  finished: number;
  inWork: number;
}
export function countCopies(copies: readonly Pick<Copy, 'state'>[]): CopyCounts {
  const finished = copies.filter(isFinished).length;
  return { of: copies.length, finished, inWork: copies.filter(isBegun).length - finished };
}

/** Where a copy stands, in words. */
export function copyWords({ state, held }: Pick<Copy, 'state' | 'held'>): string {
  if (!held) return 'open: in no batch yet';
  switch (state) {
    case 'open':
    case 'planned':
      return `planned, ${shortTime(held.pourAt)}`;
    case 'begun':
      return held.partly
        ? `layer ${held.layers + 1} of ${held.of} in part`
        : `layer ${held.layers} of ${held.of} poured`;
    case 'poured':
      return `poured, firm ${shortTime(held.firmAt!)}`;
    case 'firm':
      return `firm, cured ${shortTime(held.curedAt!)}`;
    case 'cured':
      return 'cured';
    case 'to mend':
      return `to mend: ${findingWords(held.inspection!.findings)}`;
    case 'inspected':
      return `looked over ${dayAndMonth(held.inspection?.at ?? held.inspectedAt!)}`;
    case 'delivered':
      return `delivered ${dayAndMonth(held.fate!.at)}`;
    case 'spoilt':
      return `spoilt ${dayAndMonth(held.fate!.at)}${held.fate!.why ? `: ${held.fate!.why}` : ''}`;
  }
}

type Taken = readonly Pick<CopyInBatch, 'designId' | 'copy' | 'fate'>[];
type Wanted = readonly Stored<Pick<PieceDesign, 'copies'>>[];

/** The copies that a design has in batches, the last word on each: whether it was spoilt there. */
function standingOf(designId: string, taken: Taken): Map<number, boolean> {
  const last = new Map<number, boolean>();
  for (const one of taken) if (one.designId === designId) last.set(one.copy, one.fate?.fate === 'spoilt');
  return last;
}

/** The copies of each design that no batch has taken yet, and those that were spoilt. `taken`: older batches first. */
export const openItems = (designs: Wanted, taken: Taken): Batch['items'] =>
  designs.flatMap(({ id, data }) => {
    const last = standingOf(id, taken);
    const spoilt = [...last].flatMap(([copy, isSpoilt]) => (isSpoilt ? [copy] : []));
    const item = itemOf(id, [...firstNumbers(data.copies).filter((copy) => !last.has(copy)), ...spoilt]);
    return item.copies > 0 ? [item] : [];
  });

/** What a new batch starts with: all that is open; when nothing is, as many again, numbered on. */
export function remainingItems(designs: Wanted, taken: Taken): Batch['items'] {
  const left = openItems(designs, taken);
  if (left.length > 0) return left;
  return designs.map(({ id, data }) =>
    itemOf(id, firstNumbers(data.copies, Math.max(0, ...standingOf(id, taken).keys()) + 1)),
  );
}
