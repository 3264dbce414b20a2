import { shortTime } from '../time/dayNames';
import { wallMinutes, type WallTime } from '../time/wallTime';
import { planTimes, type AmountsToPlace } from '../plan/pourTimes';
import { pouredLayers, timesOf } from './buildRequest';
import type { Batch, Settings } from './recordSchemas';
import type { ClockAndRoom, SetCard, SetWork } from './views';

/** A batch that has been poured, as far as the work that is left on it goes. */
export interface PouredWork {
  batchId: string;
  name: string;
  /** Layers that are poured whole; the one that is poured in part, and how many of its pours are still to make. */
  layers: number;
  rest: { layer: number; pours: number } | null;
  of: number;
  /** When the next layer may go on what is poured, and when all of that may be handled and is cured. */
  opensAt: WallTime;
  firmAt: WallTime;
  curedAt: WallTime;
}

/** What the times of a poured batch follow from. */
export interface PouredBatch extends AmountsToPlace {
  batchId: string;
  name: string;
  request: Omit<Parameters<typeof planTimes>[1], 'poured' | 'calendar' | 'clockChanges' | 'conditions'>;
  pours: (Parameters<typeof pouredLayers>[0][number] & { dry: number })[];
  batch: Pick<Batch, 'own' | 'course'>;
}

/** A poured batch with the moments of its plan. */
export function pouredWork(
  { batchId, name, request, pours, batch, ...amounts }: PouredBatch,
  settings: Pick<Settings, 'room' | 'workplace'>,
  known: ClockAndRoom,
): PouredWork {
  const poured = pouredLayers(pours);
  const { cures } = planTimes(amounts, { ...request, poured, ...timesOf(batch, settings, known) });
  const last = cures.findLast((cure) => cure.poured) ?? cures[0]!;
  const partly = pours.find(({ dry }) => dry > 0);
  return {
    batchId,
    name,
    layers: pours.filter(({ dry }) => dry === 0).length,
    rest: partly ? { layer: partly.layer, pours: partly.dry } : null,
    of: amounts.layers.length,
    // What is left of a layer may be poured at once.
    opensAt: partly ? (partly.pouredUntil ?? partly.pouredAt) : last.recoatOpensAt,
    firmAt: last.demouldAt,
    curedAt: last.fullCureAt,
  };
}

/** A batch that is only planned. */
export interface PlannedWork {
  batchId: string;
  name: string;
  pourAt: WallTime;
}

interface WorkInput {
  designs: number;
  poured: readonly PouredWork[];
  planned: readonly PlannedWork[];
  batches: number;
  now: WallTime;
}

/** How many pieces of a layer have got none of it, in words. */
export const piecesDry = (count: number): string => `${count} ${count === 1 ? 'piece' : 'pieces'} still dry`;

/** What comes next on a set: the layer that is waited for, the batch to pour, the batch to plan, the first piece. */
export function nextWork({ designs, poured, planned, batches, now }: WorkInput): SetWork {
  const open = poured.filter(({ layers, of }) => layers < of).sort((a, b) => (a.opensAt < b.opensAt ? -1 : 1))[0];
  const next = [...planned].sort((a, b) => (a.pourAt < b.pourAt ? -1 : 1))[0];
  if (open && (!next || open.opensAt <= next.pourAt)) {
    const at = open.opensAt;
    const when = at > now ? `, from ${shortTime(at)}` : ', the layer below is ready';
    const words = open.rest
      ? `Pour the rest of layer ${open.rest.layer} of ${open.of}: ${open.name}, ${piecesDry(open.rest.pours)}`
      : `Pour layer ${open.layers + 1} of ${open.of}: ${open.name}${when}`;
    return { words, stage: 'pour', batchId: open.batchId, at };
  }
  if (next)
    return {
      words: `Pour ${next.name}, ${next.pourAt < now ? 'planned for ' : ''}${shortTime(next.pourAt)}`,
      stage: 'pour',
      batchId: next.batchId,
      at: next.pourAt,
    };
  if (designs === 0) return { words: 'Draw the first piece', stage: 'shape', batchId: null, at: null };
  return batches === 0
    ? { words: 'Plan a batch', stage: 'pour', batchId: null, at: null }
    : { words: 'Every batch is poured', stage: 'log', batchId: null, at: null };
}

/** What cures at the moment, and until when the last of it does; null when nothing does. */
export function curingNow(poured: readonly PouredWork[], now: WallTime): SetCard['curing'] {
  const curing = poured
    .map(({ name, curedAt: until }) => ({ name, until }))
    .filter(({ until }) => until > now)
    .sort((a, b) => (a.until < b.until ? 1 : -1));
  const last = curing[0];
  if (!last) return null;
  const words = curing.length === 1 ? last.name : `${last.name} and ${curing.length - 1} more`;
  return { words: `${words} until ${shortTime(last.until)}`, until: last.until };
}

/** By what the list of sets is sorted. */
export const SET_ORDERS = ['name', 'next', 'due'] as const;
export type SetOrder = (typeof SET_ORDERS)[number];

/** What a set sorts by; what has no date comes after what has. */
const sortText = ({ set, next }: SetCard, order: SetOrder): string => {
  if (order === 'name') return set.data.name.toLowerCase();
  return (order === 'next' ? next.at : set.data.job?.due) ?? '9999';
};

/** `Set 2` before `Set 10`. */
const asSpoken = new Intl.Collator('en', { numeric: true });

/** Sets by name, by when their next work may be done, or by when they are due; equal ones by name, those put away last. */
export const sortedSets = (sets: readonly SetCard[], order: SetOrder): SetCard[] =>
  [...sets].sort(
    (a, b) =>
      Number(a.set.data.putAway ?? false) - Number(b.set.data.putAway ?? false) ||
      asSpoken.compare(sortText(a, order), sortText(b, order)) ||
      asSpoken.compare(sortText(a, 'name'), sortText(b, 'name')),
  );

/** How far a due day lies ahead, in words. */
export function dueWords(due: string, now: WallTime): { words: string; late: boolean } {
  const days = Math.round((wallMinutes(`${due}T00:00`) - wallMinutes(`${now.slice(0, 10)}T00:00`)) / 1440);
  const count = (n: number): string => `${n} ${n === 1 ? 'day' : 'days'}`;
  if (days < 0) return { words: `${count(-days)} late`, late: true };
  return { words: days === 0 ? 'today' : `in ${count(days)}`, late: false };
}
