import { expose } from 'comlink';
import { LRUCache } from 'lru-cache';
import { bedKey, planBatch, surveyBed, type Plan, type PlanRequest, type SurveyedBed } from '../core/plan';

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

/** What the worker does for the page: whole plans on the full grid. Ends with null between two beds when it has been overtaken. */
export const planner = {
  plan: async (request: PlanRequest): Promise<Plan | null> => {
    const begun = overtaken;
    for (const design of request.pieces) {
      const key = bedKey(design);
      if (beds.has(key)) continue;
      beds.set(key, surveyBed(design));
      await breathe();
      if (overtaken !== begun) return null;
    }
    return planBatch(request, (design) => beds.get(bedKey(design)) ?? surveyBed(design));
  },
  overtake: (): void => void overtaken++,
};
export type Planner = typeof planner;

expose(planner);
