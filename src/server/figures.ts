import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import { amountsKey, planTimes, withTimes, type Amounts, type Plan, type PlanRequest } from '@/core/plan';
import type { StripOptions, StripPiece } from '@/core/picture/strip';
import { drawnDesigns, setTint } from '@/core/records/buildRequest';
import type { SetDocuments } from '@/core/records/views';
import type { SchedulePlan, ScheduleRequest } from '@/core/schedule/scheduleRequest';
import type { MatchSet } from '@/core/seams/matchSet';
import { amountsOnThreads } from './threads/bedThreads';
import { compute } from './threads/pool';
import type { MatchRequest } from '@/core/seams/matchTypes';

/** Answers that are kept by what was asked, and those on their way: the same question is worked out once. */
function answers<V extends object>(max: number): (asked: string, work: () => Promise<V>) => Promise<V> {
  const done = new LRUCache<string, V>({ max });
  const under = new Map<string, Promise<V>>();
  return (asked, work) => {
    const key = createHash('sha1').update(asked).digest('base64');
    const known = done.get(key);
    if (known) return Promise.resolve(known);
    const running =
      under.get(key) ??
      work()
        .then((value) => {
          done.set(key, value);
          return value;
        })
        .finally(() => under.delete(key));
    under.set(key, running);
    return running;
  };
}

const amounts = answers<Amounts>(200);
const matches = answers<MatchSet>(24);
const schedules = answers<SchedulePlan>(40);
const strips = answers<StripPiece[]>(200);

/** What a request comes to in grams and cups; asked again, and only for another time, it is not worked out anew. */
export const amountsOf = (request: PlanRequest): Promise<Amounts> =>
  amounts(amountsKey(request), () => amountsOnThreads(request));

/** The whole plan of a request. */
export const planOf = async (request: PlanRequest): Promise<Plan> => {
  const known = await amountsOf(request);
  return withTimes(known, planTimes(known, request));
};

export const matchOf = (request: MatchRequest): Promise<MatchSet> =>
  matches(JSON.stringify(request), () => compute('match', request));

/** A calendar. */
export const scheduleOf = (request: ScheduleRequest): Promise<SchedulePlan> =>
  schedules(JSON.stringify(request), () => compute('schedule', request));

/** A first plan of it, for a page that is not to be waited for. */
export const firstScheduleOf = (request: ScheduleRequest): Promise<SchedulePlan> =>
  schedules(`first ${JSON.stringify(request)}`, () => compute('firstSchedule', request));

/** The pieces of a set as its strip shows them. */
export function stripOf(documents: SetDocuments, options: StripOptions): Promise<StripPiece[]> {
  const { levelMm } = documents.set.data;
  const designs = drawnDesigns(documents).map(({ id, data }) => ({ id, data }));
  const asked = { designs, levelMm, tint: setTint(documents), options };
  return strips(JSON.stringify(asked), () => compute('strip', asked));
}

/** How long a page waits for its figures before it goes out without them. */
const PATIENCE_MS = 300;

/** The figures if they come in time; else a promise of them, to be streamed behind their held shape. */
export async function inTime<T>(figures: Promise<T>): Promise<T | { later: Promise<T> }> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<{ later: Promise<T> }>((resolve) => {
    timer = setTimeout(() => resolve({ later: figures }), PATIENCE_MS);
  });
  return Promise.race([figures, late]).finally(() => clearTimeout(timer));
}
