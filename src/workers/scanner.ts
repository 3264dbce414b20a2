import { proxy, wrap, type Remote } from 'comlink';
import type { PieceDesign } from '../core/model/designSchema';
import type { ScanSummary } from '../core/formats/scanFile';
import type { Scanner } from './scan.worker';

/** A file that is being read, or has been, in a worker of its own. */
export interface ScanJob {
  summary: Promise<ScanSummary>;
  remote: Remote<Scanner>;
  /** Ends the worker, whatever it is at. */
  end: () => void;
}

const startWorker = (): Worker => new Worker(new URL('./scan.worker.ts', import.meta.url), { type: 'module' });

/** Opens a file off the main thread; `progress` hears the share that is read. */
export function openScanJob(file: File, progress: (share: number) => void): ScanJob {
  const worker = startWorker();
  const remote = wrap<Scanner>(worker);
  return { summary: remote.open(file, proxy(progress)), remote, end: () => worker.terminate() };
}

/** A bed as a file's bytes, worked out off the main thread. */
export async function exportBed(design: PieceDesign, as: 'stl' | 'png'): Promise<Uint8Array<ArrayBuffer>> {
  const worker = startWorker();
  try {
    return (await wrap<Scanner>(worker)[as](design)) as Uint8Array<ArrayBuffer>;
  } finally {
    worker.terminate();
  }
}
