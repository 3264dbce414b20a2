import { LABEL_CUP_GRAMS, RESERVE_SHARE } from '../mixing/potLife';
import { ratioByWeight } from '../mixing/ratio';
import { lossesOf } from '../pouring/portions';
import { formatMeasure, formatMinutes, METRIC, type UnitPreferences } from '../units/formatMeasure';
import { cupLife, mixedGrams } from './cupState';
import { layerOf, type RunState } from './runState';
import { cupOf } from './say';
import type { RunStep } from './steps';

/** How the figures of a step came about, a line each: what went into them, in words, and what they suppose. */
export function howLines(state: RunState, step: RunStep, units: UnitPreferences = METRIC): string[] {
  const layer = layerOf(state, step.layer);
  const { product } = layer;
  const losses = lossesOf(product, layer.recipe, state.plan.losses);
  const grams = (value: number): string => formatMeasure(value, 'mass', units);
  const degrees = (value: number): string => formatMeasure(value, 'temperature', units);
  const roomC = state.room.at(-1)!.temperatureC;
  const cup = cupOf(state, step);
  const life = cup && cupLife(cup, layer, roomC);
  const lines: string[] = [];
  if (cup && product.parts) {
    const { ratioA, ratioB, ratioBy } = product.parts;
    lines.push(
      `Parts: ${grams(cup.plan.mixGrams)} of mix at ${ratioByWeight(product.parts).toFixed(2)} : 1 by weight; the label says ${ratioA} : ${ratioB} by ${ratioBy}. Part B follows what of part A is in the cup.`,
    );
  }
  if (cup && losses.perCupGrams + losses.perPieceGrams > 0)
    lines.push(
      `Mix: what the pieces take, ${grams(losses.perPieceGrams)} for each, ${grams(losses.perCupGrams)} and ${Math.round(losses.share * 100)} % of the cup for what stays in it.`,
    );
  if (cup && life)
    lines.push(
      `Pot life ${formatMinutes(life.lifeMinutes)}: the label’s ${formatMinutes(product.potLifeMinutes)} hold for ${grams(LABEL_CUP_GRAMS)} at ${degrees(product.referenceC)}; this is ${grams(Math.max(cup.plan.mixGrams, mixedGrams(cup, layer)))} at ${degrees(roomC)}. A fifth of it (${formatMinutes(life.lifeMinutes * RESERVE_SHARE)}) is kept in hand. An estimate.`,
    );
  if (step.kind === 'wait')
    lines.push(
      `Waits are the label’s at ${degrees(product.referenceC)}, summed up over the room as it was read, now ${degrees(roomC)}, from the last piece poured. Estimates: the label and a test piece come first.`,
    );
  return lines;
}
