import { wrap, type Remote } from 'comlink';
import type { MatchRequest, MatchSet } from '../core/seams/matchSet';
import { latestWins } from './latestWins';
import type { Matcher } from './match.worker';

let remote: Remote<Matcher> | null = null;

/** Matches a set off the main thread; of requests that wait only the newest is worked out. */
export const matchInWorker: (lane: symbol, request: MatchRequest) => Promise<MatchSet | null> = latestWins((request: MatchRequest): Promise<MatchSet | null> => {
  remote ??= wrap<Matcher>(new Worker(new URL('./match.worker.ts', import.meta.url), { type: 'module' }));
  return remote.match(request);
});
