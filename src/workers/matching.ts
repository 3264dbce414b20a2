import { proxy, wrap, type Remote } from 'comlink';
import type { MakeResult } from '../core/seams/makeList';
import type { MatchSet } from '../core/seams/matchSet';
import type { TableResult } from '../core/seams/tableTypes';
import type { TableWish } from '../core/model/tableSchema';
import { latestWins } from './latestWins';
import type { Matcher, SearchStock } from './match.worker';
import type { MatchRequest } from '@/core/seams/matchTypes';

type Progress = (share: number) => void;
let kept: { worker: Worker; remote: Remote<Matcher> } | null = null;
const startWorker = (): Worker => new Worker(new URL('./match.worker.ts', import.meta.url), { type: 'module' });

/** A match to be worked out, and who is told how far it is. */
export interface MatchJob {
  request: MatchRequest;
  progress: Progress;
}

/** Matches a set off the main thread; of requests that wait only the newest is worked out. */
export const matchInWorker: (lane: symbol, job: MatchJob) => Promise<MatchSet | null> = latestWins(
  ({ request, progress }: MatchJob): Promise<MatchSet> => {
    if (!kept) {
      const worker = startWorker();
      kept = { worker, remote: wrap<Matcher>(worker) };
    }
    const { remote } = kept;
    return new Promise((resolve, reject) => {
      abandon = () => reject(new Stopped());
      remote.match(request, proxy(progress)).then(resolve, reject);
    });
  },
);

/** The maker has stopped it. */
export class Stopped extends Error {}
let abandon: () => void = () => undefined;

/** Stops the match that is being worked out: its promise is rejected with `Stopped`. */
export function stopMatching(): void {
  kept?.worker.terminate();
  kept = null;
  abandon();
}

/** A search in a worker of its own. */
export interface Search<T> {
  result: Promise<T>;
  /** Stops it, whatever it is at. */
  end: () => void;
}

/**
 * Has something worked out in a worker of its own. Progress goes by another port than the result and may come in after it: then it
 * is no news any more, and is not told.
 */
function inOwnWorker<T>(
  progress: Progress,
  ask: (remote: Remote<Matcher>, progress: Progress) => Promise<T>,
): Search<T> {
  const worker = startWorker();
  let running = true;
  const end = (): void => {
    running = false;
    worker.terminate();
  };
  const told = proxy((share: number) => {
    if (running) progress(share);
  });
  return { result: ask(wrap<Matcher>(worker), told).finally(end), end };
}

const bare = ({ tiles, meets, scores }: SearchStock): SearchStock => ({ tiles, meets, scores });

/** A search for a layout; `progress` is told how many placements were tried. */
export const layInWorker = (
  wish: TableWish,
  stock: SearchStock,
  seed: number,
  mostExtras: number,
  progress: Progress,
): Search<TableResult> =>
  inOwnWorker(progress, async (remote, told): Promise<TableResult> =>
    remote.lay(wish, bare(stock), seed, mostExtras, told),
  );

/** What to make for a list of tables. */
export const makeInWorker = (
  wishes: TableWish[],
  stock: SearchStock,
  mostExtras: number,
  progress: Progress,
): Search<MakeResult> =>
  inOwnWorker(progress, async (remote, told): Promise<MakeResult> =>
    remote.make(wishes, bare(stock), mostExtras, told),
  );
