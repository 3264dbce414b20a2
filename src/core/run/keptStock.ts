import { CURE_MODELS } from '../cure/cureModels';
import { ofStockGrams, type StockLeft } from '../pouring/portions';
import { toWallTime, wallMinutes, type WallTime } from '../time/wallTime';
import type { RunLayer } from './runSchema';
import type { RunState } from './runState';

/** What is left of a stock tint, and when it was made. */
export interface KeptStock extends StockLeft {
  madeAt: WallTime;
}

/** Until when a stock tint in a covered cup is taken to be good. */
export const stockGoodUntil = ({ product }: Pick<RunLayer, 'product'>, madeAt: WallTime): WallTime =>
  toWallTime(wallMinutes(madeAt) + CURE_MODELS[product.cureModel].tintKeepsHours * 60);

/** What of a layer's stock was at hand in a run before any went into a cup, grams: made in it, or kept from before. 0 where there was none. */
export function stockAtHand({ done }: Pick<RunState, 'done'>, { number, stock, stockKept }: RunLayer): number {
  const step = done.get(`L${number}.stock`);
  return stock && step && !step.skipped ? (stockKept?.leftGrams ?? stock.stockGrams) : 0;
}

/** What a run has taken of the stock of a layer, grams. */
export const stockTaken = (
  { cups, thrownAway }: Pick<RunState, 'cups' | 'thrownAway'>,
  { number }: Pick<RunLayer, 'number'>,
): number =>
  [...cups, ...thrownAway].reduce((sum, { layer, putIn }) => (layer === number ? sum + ofStockGrams(putIn) : sum), 0);

/** What a run leaves of the stock tint of a layer, grams; 0 for less than can be weighed. */
export function leftOfStock(state: RunState, layer: RunLayer): number {
  const left = stockAtHand(state, layer) - stockTaken(state, layer);
  return left < LEAST_GRAMS ? 0 : left;
}
const LEAST_GRAMS = 0.05;

/**
 * What a run leaves of the stock tint of a layer, while it is good; null where none was made, none is left, or it is too old.
 * `wallAt`: the time on the wall at a moment of the run.
 */
export function keptStock(
  state: RunState,
  number: number,
  now: WallTime,
  wallAt: (moment: number) => WallTime,
): KeptStock | null {
  const layer = state.plan.layers.find((one) => one.number === number);
  const leftGrams = layer ? leftOfStock(state, layer) : 0;
  if (!layer?.stock || leftGrams === 0) return null;
  const madeAt = layer.stockKept?.madeAt ?? wallAt(state.done.get(`L${number}.stock`)!.at);
  return now <= stockGoodUntil(layer, madeAt) ? { stock: layer.stock, leftGrams, madeAt } : null;
}
