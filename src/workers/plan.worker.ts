import { expose } from 'comlink';
import { LRUCache } from 'lru-cache';
import { bedKey, planAmounts, surveyBed, type Amounts, type AmountsRequest, type SurveyedBed } from '../core/plan';

/** The beds of the set on the desk; least recently used go first. */
const beds = new LRUCache<string, SurveyedBed>({ max: 60 });
/** Counts the jobs that were overtaken: a job that began before the last one may stop. */
let overtaken = 0;

/** Lets messages in: a worker hears nothing while it computes. */
const breathe = (): Promise<void> =>
  new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port2.onmessage = () => {
      port2.close();
      resolve();
    };
    port1.postMessage(null);
  });

/** What the worker does for the page: amounts on the full grid. Ends with null between two beds when it has been overtaken. */
export const planner = {
  plan: async (request: AmountsRequest): Promise<Amounts | null> => {
    const begun = overtaken;
    for (const design of request.pieces) {
      const key = bedKey(design, request.strays);
      if (beds.has(key)) continue;
      beds.set(key, surveyBed(design, undefined, request.strays));
      await breathe();
      if (overtaken !== begun) return null;
    }
    return planAmounts(
      request,
      (design, strays) => beds.get(bedKey(design, strays)) ?? surveyBed(design, undefined, strays),
    );
  },
  overtake: (): void => void overtaken++,
};
export type Planner = typeof planner;

expose(planner);
