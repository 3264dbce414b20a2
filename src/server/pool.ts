import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Piscina } from 'piscina';
import type { StripOptions, StripPiece } from '@/core/picture/strip';
import type { PieceDesign } from '@/core/bed/schema';
import type { Amounts, AmountsRequest } from '@/core/plan';
import type { MatchRequest, MatchSet } from '@/core/seams/matchSet';
import type { RecipeDose } from '@/core/tint/doses';

/** What the threads can be asked for. */
interface Tasks {
  amounts: { asked: AmountsRequest; given: Amounts };
  match: { asked: MatchRequest; given: MatchSet };
  strip: {
    asked: {
      designs: readonly { id: string; data: PieceDesign }[];
      levelMm: number;
      doses: readonly RecipeDose[];
      options: StripOptions;
    };
    given: StripPiece[];
  };
}

const here = (...path: string[]): string => join(/* turbopackIgnore: true */ process.cwd(), ...path);
/** The worker as `npm run build` bundles it, and from its source for everything else. */
const BUILT = here('.next', 'compute.mjs');
const SOURCE = here('src', 'workers', 'server', 'computeFromSource.mjs');
const THREADS = Number(process.env['AGUADA_THREADS'] ?? 2);

// Kept across hot reloads of the development server.
const kept = globalThis as { aguadaPool?: Piscina };

function pool(): Piscina {
  if (kept.aguadaPool) return kept.aguadaPool;
  const built = process.env['NODE_ENV'] === 'production' && existsSync(BUILT);
  return (kept.aguadaPool = new Piscina({
    filename: pathToFileURL(built ? BUILT : SOURCE).href,
    minThreads: 1,
    maxThreads: Math.max(1, THREADS),
    idleTimeout: 120_000,
  }));
}

/** Has something worked out in a thread of its own. */
export async function compute<T extends keyof Tasks>(task: T, asked: Tasks[T]['asked']): Promise<Tasks[T]['given']> {
  return (await pool().run(asked, { name: task })) as Tasks[T]['given'];
}

/** Starts a thread, so that the first to ask need not wait for it. */
export const warmPool = (): void => void pool();

/** Ends the threads. */
export async function closePool(): Promise<void> {
  await kept.aguadaPool?.destroy();
  delete kept.aguadaPool;
}
