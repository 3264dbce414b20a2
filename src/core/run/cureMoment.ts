import { steadyMinutes } from '../time/clockChanges';
import { climateOf, type Climate, type Conditions } from '../cure/conditions';
import { cureFactor } from '../cure/cureLine';
import { wallMinutes } from '../time/wallTime';
import {
  allCured as curedAll,
  curingOf,
  recoatWindow as windowOf,
  type PouredLayer,
  type RecoatWindow,
} from '../pouring/windows';
import type { CupState } from './cupState';
import type { RunState } from './runState';
import type { RunLayer, RunPlan } from './runSchema';

const MINUTE_MS = 60_000;
/** So far ahead nights are looked up. */
const CLIMATE_DAYS = 50;
const [COLDEST_C, WARMEST_C] = [-20, 60] as const;

/** What moments of a run follow from. */
export type RunMoments = Pick<RunState, 'plan' | 'cups' | 'room' | 'begunAt'>;
type Reading = RunState['room'][number];

/** When the pieces of a layer were poured; null while none is. */
function pouredAt(cups: readonly CupState[], layer: number): { first: number; last: number } | null {
  const all = cups.filter((cup) => cup.layer === layer).flatMap(({ poured }) => poured.map(({ at }) => at));
  return all.length > 0 ? { first: Math.min(...all), last: Math.max(...all) } : null;
}

/** When the last piece of a layer was poured; null while none is. */
export const lastPourAt = (cups: readonly CupState[], layer: number): number | null =>
  pouredAt(cups, layer)?.last ?? null;

const layerPoured = (
  state: RunMoments,
  { product, wetMm }: Pick<RunLayer, 'product' | 'wetMm'>,
  span: { first: number; last: number },
): PouredLayer => ({
  ...span,
  label: product,
  cures: (from, labelMinutes) => cureMoment(from, labelMinutes, product, wetMm, state),
});

/** When the next layer may be poured on one, by the rule of the plan; null while nothing of it is poured. */
export function recoatWindow(
  state: RunMoments,
  layer: Pick<RunLayer, 'number' | 'product' | 'wetMm'>,
): RecoatWindow | null {
  const span = pouredAt(state.cups, layer.number);
  return span && windowOf(layerPoured(state, layer, span));
}

/** When all that was poured has come so far, layers of before the run too, by the rule of the plan. */
export function allCured(state: RunMoments, what: 'demouldMinutes' | 'fullCureMinutes'): number {
  const { plan, cups, begunAt } = state;
  return curedAll(
    [
      ...plan.below.map((layer) => {
        const at = begunAt - layer.minutesBefore * MINUTE_MS;
        return layerPoured(state, layer, { first: at, last: at });
      }),
      ...plan.layers.flatMap((layer) => {
        const span = pouredAt(cups, layer.number);
        return span ? [layerPoured(state, layer, span)] : [];
      }),
    ],
    what,
  );
}

/** Rooms as they go on after a reading, once for each reading of a run. */
const ahead = new WeakMap<NonNullable<RunPlan['climate']>, { key: string; climate: Climate }>();

/**
 * The room from the last reading on: as the workshop's days and nights go, warmer or colder by what was read. Null where nothing of
 * them is known: then it stays as it was read.
 */
function roomAhead({
  plan,
  room,
  begunAt,
}: Pick<RunMoments, 'plan' | 'room' | 'begunAt'>): {
  climate: Climate;
  steady(at: number): number;
  moment(steady: number): number;
} | null {
  const { climate: known } = plan;
  if (!known) return null;
  const begun = steadyMinutes(wallMinutes(known.begunAt), known.clockChanges);
  const steady = (at: number): number => begun + (at - begunAt) / MINUTE_MS;
  const last = room.at(-1)!;
  const key = `${begunAt} ${room.length} ${last.at} ${last.temperatureC} ${last.humidity}`;
  let kept = ahead.get(known);
  if (kept?.key !== key) {
    const from = steady(Math.max(last.at, begunAt));
    const make = (conditions: Conditions): Climate =>
      climateOf(conditions, from, from + CLIMATE_DAYS * 1440, known.clockChanges);
    const read = room.length > 1 || known.read;
    const offC = read ? last.temperatureC - make(known.conditions).roomAt(from).temperatureC : 0;
    kept = { key, climate: make(read ? readRoom(known.conditions, offC, last.humidity) : known.conditions) };
    ahead.set(known, kept);
  }
  return { climate: kept.climate, steady, moment: (at) => begunAt + (at - begun) * MINUTE_MS };
}

function readRoom(conditions: Conditions, offC: number, humidity: number): Conditions {
  const bend = <T extends Conditions['usual']>(day: T): T => ({
    ...day,
    dayC: Math.min(WARMEST_C, Math.max(COLDEST_C, day.dayC + offC)),
    nightC: Math.min(WARMEST_C, Math.max(COLDEST_C, day.nightC + offC)),
    humidity: Math.min(0.95, humidity),
  });
  return { ...conditions, usual: bend(conditions.usual), days: conditions.days.map(bend) };
}

/**
 * When so many label minutes of cure are over, in a room that changed as it was read: each stretch counts by how much slower the cure
 * was in it; after the last reading the room goes on by days and nights (`roomAhead`).
 */
export function cureMoment(
  from: number,
  labelMinutes: number,
  product: RunLayer['product'],
  wetMm: number,
  state: Pick<RunMoments, 'plan' | 'room' | 'begunAt'>,
): number {
  const { room } = state;
  const curing = curingOf(product, wetMm);
  const factorIn = ({ temperatureC, humidity }: Reading): number =>
    Math.max(1e-6, cureFactor(curing, { temperatureC, humidity: Math.min(0.95, humidity) }, curing.wetMm));
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
  const on = roomAhead(state);
  return on
    ? on.moment(on.climate.courseOf(curing).curedAt(on.steady(at), left / MINUTE_MS))
    : at + left * factorIn(now);
}
