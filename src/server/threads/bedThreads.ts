import { LRUCache } from 'lru-cache';
import { cellCount } from '@/core/bed/grid';
import { bedKey, type Amounts, type AmountsRequest, type PiecePlan } from '@/core/plan';
import { BED_THREADS, computeOnBeds } from './pool';

/** In which thread a bed is kept. More than the threads keep themselves: one that is built again goes where it was. */
const homes = new LRUCache<string, number>({ max: 400 });

/** The thread of each piece of a request: the one that has its bed; new beds are shared out evenly, the largest first. */
function threadsOf({ pieces, strays }: AmountsRequest): number[] {
  const beds = pieces.map((design, place) => ({
    place,
    key: bedKey(design, strays),
    cells: cellCount(design.outline),
  }));
  const load = Array.from({ length: BED_THREADS }, () => 0);
  const threads = new Array<number>(pieces.length);
  for (const { place, key, cells } of beds.sort((a, b) => b.cells - a.cells || a.place - b.place)) {
    const home = homes.get(key) ?? load.indexOf(Math.min(...load));
    // A bed that is there costs nothing.
    if (!homes.has(key)) load[home]! += cells;
    homes.set(key, home);
    threads[place] = home;
  }
  return threads;
}

/** The amounts of a request, each bed in the thread that keeps it. The same as the core gives in one. */
export async function amountsOnThreads(request: AmountsRequest): Promise<Amounts> {
  const threads = threadsOf(request);
  const parts = [...new Set(threads)].map((number) => {
    const places = threads.flatMap((thread, place) => (thread === number ? [place] : []));
    return { number, places, request: { ...request, pieces: places.map((place) => request.pieces[place]!) } };
  });
  const [first] = parts;
  if (!first || parts.length === 1) return computeOnBeds('amounts', request, first?.number ?? 0);
  const depths = await Promise.all(parts.map((part) => computeOnBeds('lowestBed', part.request, part.number)));
  const lowestMm = Math.min(...depths);
  const pieces = new Array<PiecePlan>(request.pieces.length);
  await Promise.all(
    parts.map(async (part) => {
      const plans = await computeOnBeds('pieces', { request: part.request, lowestMm }, part.number);
      part.places.forEach((place, i) => (pieces[place] = plans[i]!));
    }),
  );
  return computeOnBeds('together', { request, lowestMm, pieces }, first.number);
}
