import { expose } from 'comlink';
import { LRUCache } from 'lru-cache';
import { bedKey, surveyBed, type SurveyedBed } from '../core/plan';
import { matchSet, type MatchRequest, type MatchSet } from '../core/seams/matchSet';

const beds = new LRUCache<string, SurveyedBed>({ max: 60 });

/** What the worker does for the Match stage: every seam of a set and the best row of its boards. It is ended to stop it. */
export const matcher = {
  match: (request: MatchRequest, progress?: (share: number) => void): MatchSet =>
    matchSet(
      request,
      (design) => {
        const key = bedKey(design);
        const bed = beds.get(key) ?? surveyBed(design);
        beds.set(key, bed);
        return bed;
      },
      progress,
    ),
};
export type Matcher = typeof matcher;

expose(matcher);
