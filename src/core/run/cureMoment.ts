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
