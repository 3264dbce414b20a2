import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Piscina } from 'piscina';
import type { StripOptions, StripPiece } from '@/core/picture/strip';
import type { PieceDesign } from '@/core/bed/schema';
import type { Amounts, AmountsRequest } from '@/core/plan';
import type { SchedulePlan, ScheduleRequest } from '@/core/schedule/schema';
import type { MatchRequest, MatchSet } from '@/core/seams/matchSet';
import type { WaterTint } from '@/core/tint/waterTint';

/** What the threads can be asked for. */
interface Tasks {
  amounts: { asked: AmountsRequest; given: Amounts };
  match: { asked: MatchRequest; given: MatchSet };
  firstSchedule: { asked: ScheduleRequest; given: SchedulePlan };
  schedule: { asked: ScheduleRequest; given: SchedulePlan };
  warmUp: { asked: null; given: void };
  strip: {
    asked: {
      designs: readonly { id: string; data: PieceDesign }[];
      levelMm: number;
      tint: WaterTint;
      options: StripOptions;
    };
    given: StripPiece[];
  };
}

const here = (...path: string[]): string => join(/* turbopackIgnore: true */ process.cwd(), ...path);
/** The worker as `npm run build` bundles it, and from its source for everything else. */
const BUILT = here('.next', 'compute.mjs');
const SOURCE = here('src', 'workers', 'server', 'computeFromSource.mjs');
/** How many threads may work out amounts at a time. */
const THREADS = Math.max(1, Number(process.env['AGUADA_THREADS'] ?? 2));

/**
 * Which threads do what. Each keeps the beds that it has built, so the same kind of question goes to the same ones: amounts are
 * worked out on fine beds, strips and seams on coarse ones, calendars on none.
 */
const GROUPS = {
  amounts: 'amounts',
  strip: 'pictures',
  match: 'pictures',
  schedule: 'calendar',
  firstSchedule: 'calendar',
  warmUp: 'calendar',
} as const satisfies Record<keyof Tasks, string>;
type Group = (typeof GROUPS)[keyof Tasks];
const MOST_THREADS: Record<Group, number> = { amounts: THREADS, pictures: 1, calendar: 1 };

// Kept across hot reloads of the development server.
const kept = globalThis as { aguadaPools?: Partial<Record<Group, Piscina>> };

function pool(group: Group): Piscina {
  const pools = (kept.aguadaPools ??= {});
  const built = process.env['NODE_ENV'] === 'production' && existsSync(BUILT);
  return (pools[group] ??= new Piscina({
    filename: pathToFileURL(built ? BUILT : SOURCE).href,
    minThreads: 1,
    maxThreads: MOST_THREADS[group],
    idleTimeout: 120_000,
  }));
}

/** Has something worked out in a thread of its own. */
export async function compute<T extends keyof Tasks>(task: T, asked: Tasks[T]['asked']): Promise<Tasks[T]['given']> {
  return (await pool(GROUPS[task]).run(asked, { name: task })) as Tasks[T]['given'];
}

/** Starts the threads, so that the first to ask need not wait for one. */
export function warmPool(): void {
  pool('amounts');
  pool('pictures');
  void compute('warmUp', null).catch(() => undefined);
}

/** Ends the threads. */
export async function closePool(): Promise<void> {
  const pools = Object.values(kept.aguadaPools ?? {});
  delete kept.aguadaPools;
  await Promise.all(pools.map((each) => each.destroy()));
}
