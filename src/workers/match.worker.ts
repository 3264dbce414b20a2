import { expose } from 'comlink';
import { LRUCache } from 'lru-cache';
import { bedKey, surveyBed, type SurveyedBed } from '../core/plan';
import { layTable, type TableResult, type TableWish } from '../core/seams/table';
import { meetsOf, type TableStock } from '../core/seams/tableTiles';
import { matchSet, type MatchRequest, type MatchSet } from '../core/seams/matchSet';

const beds = new LRUCache<string, SurveyedBed>({ max: 60 });

/** Placements a layout search may try: some seconds. */
const MOST_STEPS = 1_500_000;

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
  lay: (wish: TableWish, stock: Pick<TableStock, 'tiles' | 'meets'>, seed: number, mostExtras: number): TableResult => layTable(wish, stock.tiles, meetsOf(stock), { seed, mostExtras, mostSteps: MOST_STEPS }),
};
export type Matcher = typeof matcher;

expose(matcher);
