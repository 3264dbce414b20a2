import { wrap, type Remote } from 'comlink';
import type { FinderAsk, Findings } from '../core/tint/finder';
import type { GradientFound, GradientWish } from '../core/tint/gradient';
import { latestWins } from './latestWins';
import type { Tinter } from './tint.worker';

let remote: Remote<Tinter> | null = null;
function tinter(): Remote<Tinter> {
  remote ??= wrap<Tinter>(new Worker(new URL('./tint.worker.ts', import.meta.url), { type: 'module' }));
  return remote;
}

/** Finds recipes off the main thread; of asks that wait only the newest is answered, the others come to null. */
export const findInWorker: (lane: symbol, ask: FinderAsk) => Promise<Findings | null> = latestWins((ask: FinderAsk) =>
  tinter().find(ask),
);

/** The pours for a wish, in the same way. */
export const solvePoursInWorker: (lane: symbol, wish: GradientWish) => Promise<GradientFound | null> = latestWins(
  (wish: GradientWish) => tinter().solvePours(wish),
);
