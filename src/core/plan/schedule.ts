import { advise, type Problem } from '../checks/problem';
import { nextBenchMinute } from '../cure/benchWindows';
import { cureTimes } from '../cure/cureLine';
import { toWallTime, wallMinutes } from '../cure/wallTime';
import type { LayerLevels } from '../mixing/layers';
import { STIR_MINUTES, TRANSFER_MINUTES } from '../mixing/potLife';
import { formatMinutes } from '../units/formatMeasure';
import type { LayerPlan } from './plan';
import type { PlanRequest } from './request';

/** Setting up, levelling and looking for bubbles, on top of mixing and pouring. */
export const SETUP_MINUTES = 15;

/** Hands-on minutes for one layer: setting up, then for each cup stirring, changing cup and pouring. An estimate. */
export const layerHandsOnMinutes = (cups: number, mixGrams: number, pourGramsPerMinute: number): number =>
  SETUP_MINUTES + cups * (STIR_MINUTES + TRANSFER_MINUTES) + mixGrams / pourGramsPerMinute;

/**
 * The cure line of each layer. The first is poured when the maker says; each next one in the first bench window
 * that is long enough after the layer below may be recoated. Layers already poured stay when they were.
 */
export function scheduleLayers(
  request: PlanRequest,
  layers: readonly (LayerLevels & { cups: number; mixGrams: number })[],
): { cures: LayerPlan['cure'][]; problems: Problem[] } {
  const { product, room, bench } = request;
  const cures: LayerPlan['cure'][] = [];
  const problems: Problem[] = [];
  let earliest = wallMinutes(request.pourAt);
  let closes: number | null = null;
  for (const layer of layers) {
    const done = request.poured.find((pour) => pour.layer === layer.number);
    const handsOn = layerHandsOnMinutes(layer.cups, layer.mixGrams, product.pourGramsPerMinute);
    let at = done ? wallMinutes(done.at) : earliest;
    if (!done && layer.number > 1) {
      const free = nextBenchMinute(bench.windows, earliest, handsOn);
      if (free === null) problems.push(noWindow(layer.number, handsOn));
      at = free ?? earliest;
    } else if (!done && nextBenchMinute(bench.windows, at, handsOn) !== at) {
      problems.push(outsideWindow(request, at, handsOn));
    }
    if (closes !== null && at > closes && !done) problems.push(recoatMissed(layer.number, at, closes));
    const times = cureTimes(product, room, layer.wetMm);
    closes = times.recoatCloses === null ? null : at + times.recoatCloses;
    cures.push({
      factor: times.factor,
      poured: done !== undefined,
      pouredAt: toWallTime(at),
      recoatOpensAt: toWallTime(at + times.recoatOpens),
      recoatClosesAt: closes === null ? null : toWallTime(closes),
      demouldAt: toWallTime(at + times.demould),
      fullCureAt: toWallTime(at + times.fullCure),
    });
    earliest = Math.ceil(at + times.recoatOpens);
  }
  return { cures, problems };
}

const noWindow = (layer: number, handsOn: number): Problem => ({
  severity: 'warn',
  code: 'no-bench-window',
  path: ['bench', 'windows'],
  message: `Layer ${layer} needs ${formatMinutes(handsOn)} at the bench; no window of the week is that long.`,
  mend: advise('Lengthen a bench window, or pour fewer pieces in this batch.'),
});

function outsideWindow(request: PlanRequest, at: number, handsOn: number): Problem {
  const next = nextBenchMinute(request.bench.windows, at, handsOn);
  if (next === null) return noWindow(1, handsOn);
  const nextTime = toWallTime(next);
  return {
    severity: 'hint',
    code: 'outside-bench-window',
    path: ['pourAt'],
    message: `The pour takes ${formatMinutes(handsOn)} and does not fit a bench window at that time.`,
    mend: { label: `Pour at ${nextTime.replace('T', ' ')}`, target: 'batch', path: ['pourAt'], value: nextTime },
  };
}

const recoatMissed = (layer: number, at: number, closes: number): Problem => ({
  severity: 'warn',
  code: 'recoat-missed',
  path: ['pourAt'],
  message: `Layer ${layer} comes ${formatMinutes(at - closes)} after the recoat window of the layer below has closed.`,
  mend: advise('Abrade and wipe the layer below first, or pour earlier so that the window falls into bench time.'),
});
