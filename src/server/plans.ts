import { LRUCache } from 'lru-cache';
import {
  bedKey,
  planBatch,
  surveyBed,
  type BedSource,
  type Plan,
  type PlanRequest,
  type SurveyedBed,
} from '@/core/plan';

// A surveyed bed holds up to about 1 MB of sums; what matters is that the designs of a few sets stay.
const beds = new LRUCache<string, SurveyedBed>({ max: 120 });

const cachedBed: BedSource = (design) => {
  const key = bedKey(design);
  const known = beds.get(key);
  if (known) return known;
  const bed = surveyBed(design);
  beds.set(key, bed);
  return bed;
};

/** The plan of a request; beds that were surveyed lately are not built again. */
export const serverPlan = (request: PlanRequest): Plan => planBatch(request, cachedBed);
