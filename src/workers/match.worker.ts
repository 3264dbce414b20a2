import { expose } from 'comlink';
import { LRUCache } from 'lru-cache';
import { bedKey, type SurveyedBed } from '../core/plan';
import { piecesToMake, type MakeResult } from '../core/seams/makeList';
import { matchBed, matchSet, type MatchSet } from '../core/seams/matchSet';
import { layTable, standsInTheWay } from '../core/seams/table';
import type { TableResult } from '../core/seams/tableTypes';
import type { TableWish } from '../core/model/tableSchema';
import { meetsOf, settled, type TableStock } from '../core/seams/tableTiles';
import type { MatchRequest } from '@/core/seams/matchTypes';

const beds = new LRUCache<string, SurveyedBed>({ max: 60 });

/** Placements a layout search may try: some seconds. */
const MOST_STEPS = 1_500_000;
/** What searches need of the stock. */
export type SearchStock = Pick<TableStock, 'tiles' | 'meets' | 'scores'>;
type Progress = (share: number) => void;

/**
 * What the worker does for the Match stage: every seam of a set and the best row of its boards; layouts of tiles; what
 * to make. It is ended to stop it.
 */
export const matcher = {
  match: (request: MatchRequest, progress: Progress): MatchSet =>
    matchSet(
      request,
      (design) => {
        const key = bedKey(design);
        const bed = beds.get(key) ?? matchBed(design);
        beds.set(key, bed);
        return bed;
      },
      progress,
    ),
  lay: (wish: TableWish, stock: SearchStock, seed: number, mostExtras: number, progress: Progress): TableResult => {
    const result = layTable(wish, stock.tiles, meetsOf(stock), {
      seed,
      mostExtras,
      mostSteps: MOST_STEPS,
      tick: (steps) => progress(steps),
    });
    if (result.kind === 'none')
      return { ...result, inTheWay: standsInTheWay(wish, stock.tiles, meetsOf(stock), { mostExtras }) };
    return result.kind === 'found' ? { ...result, layout: settled(result.layout, stock, wish, seed) } : result;
  },
  make: (wishes: TableWish[], stock: SearchStock, mostExtras: number, progress: Progress): MakeResult =>
    piecesToMake(wishes, stock.tiles, meetsOf(stock), { mostExtras, tick: progress }),
};
export type Matcher = typeof matcher;

expose(matcher);
