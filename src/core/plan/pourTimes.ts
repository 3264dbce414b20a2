import { advise, type Mend, type Problem } from '../model/problem';
import { nextBenchMinute } from '../time/benchWindows';
import { steadyMinutes, wallFromSteady } from '../time/clockChanges';
import { climateOf, steadyRoom, type Climate } from '../cure/conditions';
import { cureFactor } from '../cure/cureLine';
import { shortTime } from '../time/dayNames';
import { toWallTime, wallMinutes } from '../time/wallTime';
import { FIRST_PIECE_MINUTES, layerHandsOnMinutes, PLANT_MINUTES, SETUP_MINUTES } from '../pouring/handsOn';
import {
  allCured,
  curingOf,
  recoatWindow,
  type CureLabel,
  type Cures,
  type PouredLayer,
  type RecoatWindow,
} from '../pouring/windows';
import { formatMinutes } from '../units/formatMeasure';
import type { Amounts, LayerAmounts, LayerPlan, Times } from './plan';
import { layerProduct, type PlanRequest } from './request';

/** What scheduling needs of a layer: nothing in it depends on when it is poured. */
interface LayerTimes {
  number: number;
  handsOn: number;
  /** From its beginning to its first piece. */
  untilFirst: number;
  label: CureLabel;
  cures: Cures;
  factor: number;
  /** Its first and its last piece, of one that is poured; steady minutes. */
  poured: { first: number; last: number } | null;
  /** When it is begun by the calendar that is kept, on the wall. */
  kept: number | null;
}

/** One layer on the clock: `at` on the wall, the rest steady minutes. */
interface Placed extends PouredLayer, RecoatWindow {
  at: number;
  /** Minutes that its first piece comes after the recoat window of the layer below had closed; null within it. */
  missedBy: number | null;
  /** True when it lies outside bench time, or no bench time is long enough. */
  outside: boolean;
}

/** The clock on the wall as one that is never changed. */
interface Clock {
  bench: PlanRequest['bench'];
  steady(wall: number): number;
  wall(steady: number): number;
}

const clockOf = ({ bench, clockChanges }: Pick<PlanRequest, 'bench' | 'clockChanges'>): Clock => ({
  bench,
  steady: (wall) => steadyMinutes(wall, clockChanges),
  wall: (steady) => wallFromSteady(steady, clockChanges),
});

/** Layers from a first pour on: each next one in the first bench time that is long enough after it may be recoated. */
function placeLayers(begin: number, layers: readonly LayerTimes[], { bench, steady, wall }: Clock): Placed[] {
  const line: Placed[] = [];
  for (const { number, handsOn, untilFirst, label, cures, poured, kept } of layers) {
    const below = line.at(-1);
    const earliest = below ? wall(Math.ceil(below.opens - 1e-6)) : begin;
    const free = nextBenchMinute(bench.windows, earliest, handsOn, bench.exceptions);
    // The calendar is the maker's word; what it would break is said.
    const at = poured ? wall(poured.first) : (kept ?? (number === 1 ? begin : (free ?? earliest)));
    const { first, last } = poured ?? { first: steady(at) + untilFirst, last: steady(at) + handsOn };
    const own = { first, last, label, cures };
    const closes = below?.closes ?? null;
    const late = closes === null ? 0 : first - closes;
    line.push({
      ...own,
      ...recoatWindow(own),
      at,
      missedBy: poured === null && late > 0 ? late : null,
      outside: poured === null && nextBenchMinute(bench.windows, at, handsOn, bench.exceptions) !== at,
    });
  }
  return line;
}

/** How far ahead, and in what steps, a time is looked for at which everything fits. */
const LOOK_AHEAD_MINUTES = 21 * 1440;
const LOOK_STEP_MINUTES = 15;

/**
 * The first time for the first pour, from `from` on, at which every layer falls into bench time and its recoat window.
 * Null when there is none.
 */
function firstFit(from: number, layers: readonly LayerTimes[], when: Clock): number | null {
  const handsOn = layers[0]?.handsOn ?? 0;
  let at = nextBenchMinute(when.bench.windows, from, handsOn, when.bench.exceptions);
  while (at !== null && at < from + LOOK_AHEAD_MINUTES) {
    if (placeLayers(at, layers, when).every(({ missedBy, outside }) => missedBy === null && !outside)) return at;
    const later = Math.floor(at / LOOK_STEP_MINUTES) * LOOK_STEP_MINUTES + LOOK_STEP_MINUTES;
    at = nextBenchMinute(when.bench.windows, later, handsOn, when.bench.exceptions);
  }
  return null;
}

/** A layer, as far as its times go. */
type LayerToPlace = Pick<LayerAmounts, 'number' | 'wetMm' | 'mixGrams' | 'plantsBefore' | 'productId'> & {
  cups: readonly { pours: readonly unknown[] }[];
};

/** What a plan's times follow from. */
export interface AmountsToPlace {
  layers: readonly LayerToPlace[];
  finish?: Pick<NonNullable<Amounts['finish']>, 'wetMm' | 'mixGrams' | 'coats'> | undefined;
  totals: Pick<Amounts['totals'], 'pieces'>;
}

/** So far after the first pour rooms are looked up day by day; later they go on as on the last of these days. */
const CLIMATE_DAYS = 50;

/** What a request says of times. */
type TimesRequest = Pick<
  PlanRequest,
  'product' | 'build' | 'hands' | 'room' | 'conditions' | 'bench' | 'pourAt' | 'poured' | 'calendar' | 'clockChanges'
>;

/**
 * When each layer of a batch is poured and cured, in the room as it goes through days and nights (`recoatWindow`, `allCured`). Layers
 * already poured stay when they were, others where a kept calendar has them; else the first is begun when the maker says and each next
 * one in the first bench time that is long enough after the layer below may be recoated. What is offered has been tried: a time at which
 * all layers fit, or the reason why there is none.
 */
export function planTimes(amounts: AmountsToPlace, request: TimesRequest): Times {
  const { room, conditions = steadyRoom(room), clockChanges } = request;
  const clock = clockOf(request);
  const begin = clock.steady(wallMinutes(request.pourAt));
  const known = request.poured.map(({ at }) => clock.steady(wallMinutes(at)));
  const from = Math.min(begin, ...known);
  const climate = climateOf(conditions, from, Math.max(begin, ...known) + CLIMATE_DAYS * 1440, clockChanges);
  const layers = amounts.layers.map((layer): LayerTimes => {
    const { number, wetMm, plantsBefore } = layer;
    const product = layerProduct(request, layer);
    const curing = curingOf(product, wetMm);
    const plants = plantsBefore ? PLANT_MINUTES * amounts.totals.pieces : 0;
    const handsOn = layerMinutes(layer, request) + plants;
    const untilFirst = FIRST_PIECE_MINUTES + plants;
    const done = request.poured.find((pour) => pour.layer === number);
    const kept = request.calendar?.find((one) => one.layer === number);
    const first = done && clock.steady(wallMinutes(done.at));
    return {
      number,
      handsOn,
      untilFirst,
      label: product,
      cures: climate.courseOf(curing).curedAt,
      factor: cureFactor(curing, room, wetMm),
      poured:
        first === undefined
          ? null
          : { first, last: done?.until ? clock.steady(wallMinutes(done.until)) : first + handsOn - untilFirst },
      kept: kept ? wallMinutes(kept.at) : null,
    };
  });
  const line = placeLayers(wallMinutes(request.pourAt), layers, clock);
  const wallUp = (steady: number): string => toWallTime(clock.wall(Math.ceil(steady - 1e-6)));
  const cures = line.map(({ at, opens, closes }, i): LayerPlan['cure'] => ({
    factor: layers[i]!.factor,
    poured: layers[i]!.poured !== null,
    pouredAt: toWallTime(at),
    recoatOpensAt: wallUp(opens),
    recoatClosesAt: closes === null ? null : toWallTime(clock.wall(Math.floor(closes + 1e-6))),
    demouldAt: wallUp(allCured(line.slice(0, i + 1), 'demouldMinutes')),
    fullCureAt: wallUp(allCured(line.slice(0, i + 1), 'fullCureMinutes')),
  }));
  const finish = finishTimes(amounts.finish, line, request, clock, climate);
  return {
    cures,
    finishAt: finish.at,
    doneAt: [...cures.map(({ fullCureAt }) => fullCureAt), ...finish.done].reduce<string | null>(
      (last, done) => (last && last > done ? last : done),
      null,
    ),
    problems: line.flatMap((_, i) => timeProblems(i, line, layers, request, clock)),
  };
}

/** Minutes at the bench for a layer, its plants left out. */
export function layerMinutes(
  layer: Pick<LayerToPlace, 'mixGrams' | 'productId' | 'cups'>,
  request: Pick<PlanRequest, 'product' | 'build' | 'hands'>,
): number {
  const { mixGrams, cups } = layer;
  const { pourGramsPerMinute, stirMinutes } = layerProduct(request, layer);
  return layerHandsOnMinutes({
    cups: cups.length,
    pours: cups.reduce((sum, { pours }) => sum + pours.length, 0),
    mixGrams,
    pourGramsPerMinute,
    stirMinutes,
    hands: request.hands,
  });
}

/** Minutes at the bench for one coat of a finish. */
export const coatMinutes = (
  { mixGrams, coats }: Pick<NonNullable<Amounts['finish']>, 'mixGrams' | 'coats'>,
  { pourGramsPerMinute }: Pick<PlanRequest['product'], 'pourGramsPerMinute'>,
): number => Math.ceil(SETUP_MINUTES + mixGrams / coats / pourGramsPerMinute - 1e-9);

/** When the coats of the finish go on: the first once all of the water may be handled, each next when the one below may be coated. */
function finishTimes(
  finish: AmountsToPlace['finish'],
  line: readonly Placed[],
  { build, bench }: TimesRequest,
  clock: Clock,
  climate: Climate,
): { at: string[]; done: string[] } {
  const product = build?.finish?.product;
  if (!finish || !product || line.length === 0) return { at: [], done: [] };
  const { curedAt } = climate.courseOf(curingOf(product, finish.wetMm));
  const handsOn = coatMinutes(finish, product);
  const at: number[] = [];
  let free = allCured(line, 'demouldMinutes');
  let last = free;
  for (let i = 0; i < finish.coats; i++) {
    const from = clock.wall(Math.ceil(free - 1e-6));
    const start = nextBenchMinute(bench.windows, from, handsOn, bench.exceptions) ?? from;
    at.push(start);
    last = clock.steady(start) + handsOn;
    free = curedAt(last, product.recoatOpensMinutes);
  }
  return {
    at: at.map(toWallTime),
    done: [toWallTime(clock.wall(Math.ceil(curedAt(last, product.fullCureMinutes) - 1e-6)))],
  };
}

function timeProblems(
  i: number,
  line: readonly Placed[],
  layers: readonly LayerTimes[],
  request: TimesRequest,
  clock: Clock,
): Problem[] {
  const { missedBy, outside, at } = line[i]!;
  const { number, handsOn } = layers[i]!;
  const open = layers.every(({ poured, kept }) => poured === null && kept === null);
  const problems: Problem[] = [];
  if (outside) {
    const { windows, exceptions } = request.bench;
    if (nextBenchMinute(windows, at, handsOn, exceptions) === null) problems.push(noWindow(number, handsOn));
    else if (number === 1) problems.push(outsideWindow(handsOn, pourMend(at, layers, clock)));
  }
  if (missedBy !== null) {
    const fit = open ? firstFit(wallMinutes(request.pourAt), layers, clock) : null;
    problems.push({
      severity: 'warn',
      code: 'recoat-missed',
      path: ['pourAt'],
      message: `Layer ${number} comes ${formatMinutes(missedBy)} after the recoat window of the layer below has closed${open && fit === null ? `: ${whyNone(line[i - 1]!, handsOn, clock)}` : ''}.`,
      mend:
        fit === null
          ? advise('Abrade and wipe the layer below first; widening a bench window would do instead.')
          : pourAtMend(fit),
    });
  }
  return problems;
}

/** The next time at which everything fits; failing that the next in bench time. */
function pourMend(at: number, layers: readonly LayerTimes[], clock: Clock): Mend {
  const { windows, exceptions } = clock.bench;
  const next = nextBenchMinute(windows, at, layers[0]!.handsOn, exceptions) ?? at;
  return pourAtMend(firstFit(at, layers, clock) ?? next);
}

const pourAtMend = (minutes: number): Mend => {
  const time = toWallTime(minutes);
  return { label: `Pour ${shortTime(time)}`, target: 'batch', path: ['pourAt'], value: time };
};

/** Why no first pour lets the next layer fall into its recoat window: what the clock says. */
function whyNone(below: Placed, handsOn: number, { bench, wall }: Clock): string {
  const opensAt = wall(Math.ceil(below.opens - 1e-6));
  const opens = shortTime(toWallTime(opensAt));
  const closes = below.closes === null ? '' : ` and closes ${shortTime(toWallTime(wall(below.closes)))}`;
  const next = nextBenchMinute(bench.windows, opensAt, 0, bench.exceptions);
  const there = next === null ? '' : `, your bench time comes ${shortTime(toWallTime(next))}`;
  return `recoat opens ${opens}${closes}${there}, and the layer takes ${formatMinutes(handsOn)}; no first pour of the next three weeks does better`;
}

const noWindow = (layer: number, handsOn: number): Problem => ({
  severity: 'warn',
  code: 'no-bench-window',
  path: ['bench', 'windows'],
  message: `Layer ${layer} needs ${formatMinutes(handsOn)} at the bench; no window of the week is that long.`,
  mend: advise('Lengthen a bench window, or pour fewer pieces in this batch.'),
});

const outsideWindow = (handsOn: number, mend: Mend): Problem => ({
  severity: 'hint',
  code: 'outside-bench-window',
  path: ['pourAt'],
  message: `The pour takes ${formatMinutes(handsOn)} and does not fit a bench window at that time.`,
  mend,
});
