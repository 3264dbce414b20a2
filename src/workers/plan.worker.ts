import { expose } from 'comlink';
import { bedKey, planBatch, surveyBed, type BedSource, type Plan, type PlanRequest, type SurveyedBed } from '../core/plan';

// The beds of the set on the desk; least recently used go first.
const beds = new Map<string, SurveyedBed>();
const MOST_BEDS = 60;

const keptBed: BedSource = (design) => {
  const key = bedKey(design);
  const bed = beds.get(key) ?? surveyBed(design);
  beds.delete(key);
  beds.set(key, bed);
  if (beds.size > MOST_BEDS) beds.delete(beds.keys().next().value as string);
  return bed;
};

/** What the worker does for the page: whole plans on the full grid. */
export const planner = { plan: (request: PlanRequest): Plan => planBatch(request, keptBed) };
export type Planner = typeof planner;

expose(planner);
