import { wrap, type Remote } from 'comlink';
import type { MatchRequest, MatchSet } from '../core/seams/matchSet';
import type { TableResult, TableWish } from '../core/seams/table';
import type { TableStock } from '../core/seams/tableTiles';
import { latestWins } from './latestWins';
import type { Matcher } from './match.worker';

let remote: Remote<Matcher> | null = null;
const startWorker = (): Worker => new Worker(new URL('./match.worker.ts', import.meta.url), { type: 'module' });

/** Matches a set off the main thread; of requests that wait only the newest is worked out. */
export const matchInWorker: (lane: symbol, request: MatchRequest) => Promise<MatchSet | null> = latestWins((request: MatchRequest): Promise<MatchSet | null> => {
  remote ??= wrap<Matcher>(startWorker());
  return remote.match(request);
});

/** A search for a layout in a worker of its own; `end` stops it, whatever it is at. */
export function layInWorker(wish: TableWish, stock: Pick<TableStock, 'tiles' | 'meets'>, seed: number, mostExtras: number): { result: Promise<TableResult>; end: () => void } {
  const worker = startWorker();
  const result = wrap<Matcher>(worker).lay(wish, stock, seed, mostExtras);
  return { result: result.finally(() => worker.terminate()), end: () => worker.terminate() };
}
