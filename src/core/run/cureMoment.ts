import { CURE_MODELS } from '../cure/cureModels';
import type { CupState } from './cupState';
import type { RunState } from './runState';
import type { RunLayer } from './schema';

const MINUTE_MS = 60_000;

/** When the last piece of a layer was poured; null while none is. */
export function lastPourAt(cups: readonly CupState[], layer: number): number | null {
  const all = cups.filter((cup) => cup.layer === layer).flatMap(({ poured }) => poured.map(({ at }) => at));
  return all.length > 0 ? Math.max(...all) : null;
}

/** When the first piece of a layer was poured; null while none is. */
function firstPourAt(cups: readonly CupState[], layer: number): number | null {
  const all = cups.filter((cup) => cup.layer === layer).flatMap(({ poured }) => poured.map(({ at }) => at));
  return all.length > 0 ? Math.min(...all) : null;
}

/**
 * When the next layer may be poured on one, and from when on that has to be abraded first: it opens from its last piece and closes from
 * its first. Null while nothing of it is poured; `closes` is null where it never does.
 */
export function recoatWindow(
  { cups, room }: Pick<RunState, 'cups' | 'room'>,
  { number, product, wetMm }: Pick<RunLayer, 'number' | 'product' | 'wetMm'>,
): { opens: number; closes: number | null } | null {
  const [first, last] = [firstPourAt(cups, number), lastPourAt(cups, number)];
  if (first === null || last === null) return null;
  const { recoatOpensMinutes, recoatClosesMinutes } = product;
  return {
    opens: cureMoment(last, recoatOpensMinutes, product, wetMm, room),
    closes: recoatClosesMinutes === null ? null : cureMoment(first, recoatClosesMinutes, product, wetMm, room),
  };
}

/**
 * When all that was poured has come so far: each layer by its own product, thickness and pour, those of before the run too. A quick coat
 * over a slow layer is not firm before that is.
 */
export function allCured(
  state: Pick<RunState, 'plan' | 'cups' | 'room' | 'begunAt'>,
  label: 'demouldMinutes' | 'fullCureMinutes',
): number {
  const { plan, cups, room, begunAt } = state;
  return Math.max(
    ...plan.below.map(({ product, wetMm, minutesBefore }) =>
      cureMoment(begunAt - minutesBefore * MINUTE_MS, product[label], product, wetMm, room),
    ),
    ...plan.layers.flatMap(({ number, product, wetMm }) => {
      const from = lastPourAt(cups, number);
      return from === null ? [] : [cureMoment(from, product[label], product, wetMm, room)];
    }),
  );
}

/**
 * When so many label minutes of cure are over, in a room that changed as it was read: each stretch counts by how much slower the cure
 * was in it; the last reading goes on.
 */
export function cureMoment(
  from: number,
  labelMinutes: number,
  product: RunLayer['product'],
  wetMm: number,
  room: RunState['room'],
): number {
  const { factor } = CURE_MODELS[product.cureModel];
  const factorIn = (one: RunState['room'][number]): number =>
    Math.max(1e-6, factor(product, { temperatureC: one.temperatureC, humidity: Math.min(0.95, one.humidity) }, wetMm));
  let left = labelMinutes * MINUTE_MS;
  let at = from;
  let now = room.findLast((one) => one.at <= from) ?? room[0]!;
  for (const next of room) {
    if (next.at <= at) continue;
    const slow = factorIn(now);
    const covers = (next.at - at) / slow;
    if (covers >= left) return at + left * slow;
    left -= covers;
    [at, now] = [next.at, next];
  }
  return at + left * factorIn(now);
}
