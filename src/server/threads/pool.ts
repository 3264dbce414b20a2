import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Piscina } from 'piscina';
import type * as tasks from './compute';

/** What the threads can be asked for: each thing that `compute` exports, by its name. */
type Tasks = typeof tasks;
type Asked<T extends keyof Tasks> = Parameters<Tasks[T]>[0];
type Given<T extends keyof Tasks> = ReturnType<Tasks[T]>;

const here = (...path: string[]): string => join(/* turbopackIgnore: true */ process.cwd(), ...path);
/** The worker as `npm run build` bundles it, and from its source for everything else. */
const BUILT = here('.next', 'compute.mjs');
const SOURCE = here('src', 'server', 'threads', 'computeFromSource.mjs');
/** How many threads keep fine beds. */
export const BED_THREADS = Math.max(1, Number(process.env['AGUADA_THREADS'] ?? 2));

/**
 * Which threads do what. Each keeps the beds that it has built, so the same kind of question goes to the same ones: amounts are
 * worked out on fine beds, strips and seams on coarse ones, calendars on none. Of the threads with fine beds it is said which one,
 * as each has beds of its own.
 */
const GROUPS = {
  amounts: 'beds',
  lowestBed: 'beds',
  pieces: 'beds',
  together: 'beds',
  strip: 'pictures',
  match: 'pictures',
  schedule: 'calendar',
  firstSchedule: 'calendar',
  warmUp: 'calendar',
} as const satisfies Record<keyof Tasks, 'beds' | 'pictures' | 'calendar'>;
type BedTask = { [T in keyof Tasks]: (typeof GROUPS)[T] extends 'beds' ? T : never }[keyof Tasks];

// Kept across hot reloads of the development server.
const kept = globalThis as { aguadaPools?: Map<string, Piscina> };

/** A thread of its own, started when it is first asked for. */
function thread(name: string): Piscina {
  const threads = (kept.aguadaPools ??= new Map());
  const built = process.env['NODE_ENV'] === 'production' && existsSync(BUILT);
  const own =
    threads.get(name) ??
    new Piscina({
      filename: pathToFileURL(built ? BUILT : SOURCE).href,
      minThreads: 1,
      maxThreads: 1,
      idleTimeout: 120_000,
    });
  threads.set(name, own);
  return own;
}

/** Has something worked out in a thread of its own. */
export async function compute<T extends Exclude<keyof Tasks, BedTask>>(task: T, asked: Asked<T>): Promise<Given<T>> {
  return (await thread(GROUPS[task]).run(asked, { name: task })) as Given<T>;
}

/** Has something worked out on the beds of one of the threads that keep them, counted from 0. */
export async function computeOnBeds<T extends BedTask>(task: T, asked: Asked<T>, number: number): Promise<Given<T>> {
  return (await thread(`beds ${number}`).run(asked, { name: task })) as Given<T>;
}

/** Starts the threads, so that the first to ask need not wait for one. */
export function warmPool(): void {
  for (let number = 0; number < BED_THREADS; number++) thread(`beds ${number}`);
  thread('pictures');
  void compute('warmUp', undefined).catch(() => undefined);
}

/** Ends the threads. */
export async function closePool(): Promise<void> {
  const threads = [...(kept.aguadaPools?.values() ?? [])];
  delete kept.aguadaPools;
  await Promise.all(threads.map((each) => each.destroy()));
}
