import { wrap, type Remote } from 'comlink';
import type { FinderAsk, Findings } from '../core/tint/finder';
import { latestWins } from './latestWins';
import type { Tinter } from './tint.worker';

let remote: Remote<Tinter> | null = null;

/** Finds recipes off the main thread; of asks that wait only the newest is answered, the others come to null. */
export const findInWorker: (lane: symbol, ask: FinderAsk) => Promise<Findings | null> = latestWins((ask: FinderAsk) => {
  remote ??= wrap<Tinter>(new Worker(new URL('./tint.worker.ts', import.meta.url), { type: 'module' }));
  return remote.find(ask);
});
