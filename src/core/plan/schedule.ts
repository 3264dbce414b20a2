import { advise, type Mend, type Problem } from '../checks/problem';
import { nextBenchMinute } from '../cure/benchWindows';
import { minutesLater, steadyMinutes } from '../cure/clockChanges';
import { cureTimes, type CureTimes } from '../cure/cureLine';
import { shortTime } from '../cure/dayNames';
import { toWallTime, wallMinutes } from '../cure/wallTime';
import { STIR_MINUTES, TRANSFER_MINUTES } from '../mixing/potLife';
import { formatMinutes } from '../units/formatMeasure';
import type { Amounts, LayerPlan, Times } from './plan';
import { layerProduct, type PlanRequest } from './request';

/** Setting up, levelling and looking for bubbles, on top of mixing and pouring. */
export const SETUP_MINUTES = 15;

/** Hands-on minutes for one layer: setting up, then for each cup stirring, changing cup and pouring. An estimate. */
export const layerHandsOnMinutes = (cups: number, mixGrams: number, pourGramsPerMinute: number): number =>
  SETUP_MINUTES + cups * (STIR_MINUTES + TRANSFER_MINUTES) + mixGrams / pourGramsPerMinute;

/** Setting plants into one piece, reeds and weed from prepared bunches. An estimate. */
export const PLANT_MINUTES = 2;

/** What scheduling needs of a layer: nothing in it depends on when it is poured. */
interface LayerWork {
  number: number;
  handsOn: number;
  times: CureTimes;
  /** When it was poured, of one that is. */
  pouredAt: number | null;
}

/** One layer on the wall clock. */
interface Poured {
  at: number;
  opens: number;
  closes: number | null;
  /** Minutes after the recoat window of the layer below had closed; null within it. */
  missedBy: number | null;
  /** True when it lies outside bench time, or no bench time is long enough. */
  outside: boolean;
}

type When = Pick<PlanRequest, 'bench' | 'clockChanges'>;

/** Layers from a first pour on: each next one in the first bench time that is long enough after it may be recoated. */
function lineUp(first: number, layers: readonly LayerWork[], { bench, clockChanges }: When): Poured[] {
  const line: Poured[] = [];
  for (const { number, handsOn, times, pouredAt } of layers) {
    const below = line.at(-1);
    const earliest = below ? Math.ceil(below.opens) : first;
    const free = nextBenchMinute(bench.windows, earliest, handsOn, bench.exceptions);
    const at = pouredAt ?? (number === 1 ? first : (free ?? earliest));
    const closes = below?.closes ?? null;
    line.push({
      at,
      opens: minutesLater(at, times.recoatOpens, clockChanges),
      closes: times.recoatCloses === null ? null : minutesLater(at, times.recoatCloses, clockChanges),
      missedBy: pouredAt === null && closes !== null && at > closes ? minutesBetween(closes, at, clockChanges) : null,
      outside: pouredAt === null && free !== at,
    });
  }
  return line;
}

const minutesBetween = (from: number, to: number, changes: When['clockChanges']): number =>
  steadyMinutes(to, changes) - steadyMinutes(from, changes);

/** How far ahead, and in what steps, a time is looked for at which everything fits. */
const LOOK_AHEAD_MINUTES = 21 * 1440;
const LOOK_STEP_MINUTES = 15;

/**
 * The first time for the first pour, from `from` on, at which every layer falls into bench time and its recoat window.
 * Null when there is none.
 */
function firstFit(from: number, layers: readonly LayerWork[], when: When): number | null {
  const handsOn = layers[0]?.handsOn ?? 0;
  let at = nextBenchMinute(when.bench.windows, from, handsOn, when.bench.exceptions);
  while (at !== null && at < from + LOOK_AHEAD_MINUTES) {
    if (lineUp(at, layers, when).every(({ missedBy, outside }) => missedBy === null && !outside)) return at;
    const later = Math.floor(at / LOOK_STEP_MINUTES) * LOOK_STEP_MINUTES + LOOK_STEP_MINUTES;
    at = nextBenchMinute(when.bench.windows, later, handsOn, when.bench.exceptions);
  }
  return null;
}

/**
 * When each layer of a batch is poured and cured. The first is poured when the maker says; each next one in the first bench
 * time that is long enough after the layer below may be recoated. Layers already poured stay when they were. What is offered
 * has been tried: a time at which all layers fit, or the reason why there is none.
 */
export function planTimes(
  amounts: Pick<Amounts, 'layers' | 'finish' | 'plantsFirst' | 'pieces'>,
  request: PlanRequest,
): Times {
  const { room, clockChanges } = request;
  const plantMinutes = PLANT_MINUTES * amounts.pieces.reduce((sum, { copies }) => sum + copies, 0);
  const layers = amounts.layers.map((layer): LayerWork => {
    const { number, wetMm, cups, mixGrams, plantsBefore } = layer;
    const product = layerProduct(request, layer);
    const plants = plantsBefore || (number === 1 && amounts.plantsFirst);
    const done = request.poured.find((pour) => pour.layer === number);
    return {
      number,
      handsOn: layerHandsOnMinutes(cups.length, mixGrams, product.pourGramsPerMinute) + (plants ? plantMinutes : 0),
      times: cureTimes(product, room, wetMm),
      pouredAt: done ? wallMinutes(done.at) : null,
    };
  });
  const line = lineUp(wallMinutes(request.pourAt), layers, request);
  const cures = line.map(({ at, opens, closes }, i): LayerPlan['cure'] => {
    const { times, pouredAt } = layers[i]!;
    // What lies beneath, of a slower product, is as soft as it is: a layer is firm when all under it are.
    const allFirm = (of: (times: CureTimes) => number): string =>
      toWallTime(
        Math.max(...line.slice(0, i + 1).map((below, k) => minutesLater(below.at, of(layers[k]!.times), clockChanges))),
      );
    return {
      factor: times.factor,
      poured: pouredAt !== null,
      pouredAt: toWallTime(at),
      recoatOpensAt: toWallTime(opens),
      recoatClosesAt: closes === null ? null : toWallTime(closes),
      demouldAt: allFirm(({ demould }) => demould),
      fullCureAt: allFirm(({ fullCure }) => fullCure),
    };
  });
  const finish = finishTimes(amounts.finish, line, layers, request);
  return {
    cures,
    finishAt: finish.at,
    doneAt: [...cures.map(({ fullCureAt }) => fullCureAt), ...finish.done].reduce<string | null>(
      (last, done) => (last && last > done ? last : done),
      null,
    ),
    problems: line.flatMap((poured, i) => timeProblems(i, line, layers, request)),
  };
}

/** When the coats of the finish go on: the first once the water may be handled, each next when the one below may be coated. */
function finishTimes(
  finish: Amounts['finish'],
  line: readonly Poured[],
  layers: readonly LayerWork[],
  { build, bench, room, clockChanges }: PlanRequest,
): { at: string[]; done: string[] } {
  const product = build?.finish?.product;
  if (!finish || !product || line.length === 0) return { at: [], done: [] };
  const times = cureTimes(product, room, finish.wetMm);
  const handsOn = SETUP_MINUTES + finish.mixGrams / finish.coats / product.pourGramsPerMinute;
  const at: number[] = [];
  // What is quick to set is still being poured when its first piece may be touched.
  let free = Math.max(
    ...line.map(({ at: poured }, i) =>
      minutesLater(poured, Math.max(layers[i]!.times.demould, layers[i]!.handsOn), clockChanges),
    ),
  );
  for (let i = 0; i < finish.coats; i++) {
    const start = nextBenchMinute(bench.windows, Math.ceil(free), handsOn, bench.exceptions) ?? Math.ceil(free);
    at.push(start);
    free = minutesLater(start, Math.max(times.recoatOpens, handsOn), clockChanges);
  }
  return {
    at: at.map(toWallTime),
    done: [toWallTime(minutesLater(at.at(-1)!, times.fullCure, clockChanges))],
  };
}

function timeProblems(
  i: number,
  line: readonly Poured[],
  layers: readonly LayerWork[],
  request: PlanRequest,
): Problem[] {
  const { missedBy, outside, at } = line[i]!;
  const { number, handsOn } = layers[i]!;
  const open = layers.every(({ pouredAt }) => pouredAt === null);
  const problems: Problem[] = [];
  if (outside) {
    const { windows, exceptions } = request.bench;
    if (nextBenchMinute(windows, at, handsOn, exceptions) === null) problems.push(noWindow(number, handsOn));
    else if (number === 1) problems.push(outsideWindow(handsOn, pourMend(at, layers, request)));
  }
  if (missedBy !== null) {
    const fit = open ? firstFit(wallMinutes(request.pourAt), layers, request) : null;
    problems.push({
      severity: 'warn',
      code: 'recoat-missed',
      path: ['pourAt'],
      message: `Layer ${number} comes ${formatMinutes(missedBy)} after the recoat window of the layer below has closed${open && fit === null ? `: ${whyNone(line[i - 1]!, handsOn, request)}` : ''}.`,
      mend:
        fit === null
          ? advise('Abrade and wipe the layer below first; widening a bench window would do instead.')
          : pourAtMend(fit),
    });
  }
  return problems;
}

/** The next time at which everything fits; failing that the next in bench time. */
function pourMend(at: number, layers: readonly LayerWork[], request: PlanRequest): Mend {
  const { windows, exceptions } = request.bench;
  const next = nextBenchMinute(windows, at, layers[0]!.handsOn, exceptions) ?? at;
  return pourAtMend(firstFit(at, layers, request) ?? next);
}

const pourAtMend = (minutes: number): Mend => {
  const time = toWallTime(minutes);
  return { label: `Pour ${shortTime(time)}`, target: 'batch', path: ['pourAt'], value: time };
};

/** Why no first pour lets the next layer fall into its recoat window: what the clock says. */
function whyNone(below: Poured, handsOn: number, { bench }: PlanRequest): string {
  const opens = shortTime(toWallTime(Math.ceil(below.opens)));
  const closes = below.closes === null ? '' : ` and closes ${shortTime(toWallTime(below.closes))}`;
  const next = nextBenchMinute(bench.windows, below.opens, 0, bench.exceptions);
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
