import { mixForPour, type Losses } from '../mixing/losses';
import {
  broughtGrams,
  colourOrder,
  colourPortions,
  cupPortions,
  ofStockGrams,
  WAYS,
  withReadings,
  type Mixture,
  type Portion,
  type StockLeft,
} from '../pouring/portions';
import { stockPart } from '../pouring/stockTint';
import { colourToCome, resinIn, type CupState, type Part } from './cupState';
import type { RunState } from './runState';
import type { RunCup, RunLayer, RunPlan, RunPour } from './runSchema';
import { stockTaken } from './keptStock';
import { afterOverPour } from './overPoured';

/**
 * Cups that are made up anew at the bench: for fewer pieces, for what was really weighed, for a mend. How they are tinted is decided
 * by the same rule as in the plan.
 */

/** What the cups of a layer are made of. */
export const mixtureOf = (
  { product, recipe }: Pick<RunLayer, 'product' | 'recipe'>,
  { scaleStepGrams }: Pick<RunPlan, 'scaleStepGrams'>,
): Mixture => ({ recipe, resinShare: stockPart(product).share, scaleStepGrams });

/** What of a layer's stock a cup may still take: what was made, less what went into cups and what the others are waiting for. */
export function stockLeft(
  { cups, thrownAway, done }: Pick<RunState, 'cups' | 'thrownAway' | 'done'>,
  layer: RunLayer,
  cup: Pick<CupState, 'key'>,
): StockLeft | null {
  const { stock, number } = layer;
  if (!stock || done.get(`L${number}.stock`)?.skipped) return null;
  const promised = cups
    .filter(({ layer: of, key, closedAt }) => of === number && key !== cup.key && closedAt === null)
    .reduce((sum, one) => sum + ofStockGrams(colourToCome(one)), 0);
  const all = layer.stockKept?.leftGrams ?? stock.stockGrams;
  return { stock, leftGrams: all - stockTaken({ cups, thrownAway }, layer) - promised };
}

/** A cup for these pieces, mixed from nothing. */
export function freshCup(
  pours: readonly RunPour[],
  number: number,
  mixture: Mixture,
  losses: Losses,
  stock: StockLeft | null,
): RunCup {
  const mixGrams = mixForPour(
    pours.reduce((sum, { grams }) => sum + grams, 0),
    pours.length,
    losses,
  );
  return { number, mixGrams, pours: [...pours], portions: cupPortions(mixGrams, mixture, stock) };
}

/** What goes along with a part that is weighed changes with it; so often is it gone over until both agree. */
const ROUNDS = 8;

/** The same cup for what of part A (or of the product) was weighed into it before any colour: part B and tint follow. */
export function cupForWeighed(plan: RunCup, weighedGrams: number, mixture: Mixture, stock: StockLeft | null): RunCup {
  let mixGrams = weighedGrams / mixture.resinShare;
  let portions: Portion[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    portions = cupPortions(mixGrams, mixture, stock);
    const next = (weighedGrams + broughtGrams(portions)) / mixture.resinShare;
    if (Math.abs(next - mixGrams) < 1e-9) break;
    mixGrams = next;
  }
  return { ...plan, mixGrams, portions };
}

/** No more than this share of a part that is added may come along with the tint that it wants. */
const BROUGHT_WITH_MEND = 0.9;

/**
 * The same cup for a larger mix: what is in it stays, what is not in yet is decided anew, and what is missing of the rest is topped up.
 * `roomGrams`: of part A that is still to be added.
 */
export function cupForMore(
  cup: Pick<CupState, 'plan' | 'putIn'>,
  mixGrams: number,
  mixture: Mixture,
  stock: StockLeft | null,
  roomGrams: number,
): RunCup {
  const have = new Map<string, number>();
  for (const { id, grams } of cup.putIn.flatMap(({ colours }) => colours)) have.set(id, (have.get(id) ?? 0) + grams);
  const taken = new Set(cup.putIn.map(({ key }) => key));
  const more = colourPortions(mixGrams, mixture, stock, { have, roomGrams: roomGrams * BROUGHT_WITH_MEND }).map(
    (portion) => {
      let { key } = portion;
      while (taken.has(key)) key = `${key}+`;
      taken.add(key);
      return { ...portion, key };
    },
  );
  const kept = cup.plan.portions.filter(
    ({ key, way }) => WAYS[way].product || cup.putIn.some((one) => one.key === key),
  );
  const { first, last } = colourOrder(more);
  return { ...cup.plan, mixGrams, portions: withReadings([...kept, ...first, ...last]) };
}

/** A cup after a weighing that was off. */
export interface Remade {
  plan: RunCup;
  /** What is to be added of the other part. */
  mend: { part: 'A' | 'B'; grams: number } | null;
}

/**
 * What becomes of a cup in which a part is off, that part weighed in already. Too much of part A, or of the product: the whole cup is
 * made for it. Too much of what came after: as much of the other part as the label's ratio asks for, the tint topped up.
 */
export function mendedCup(
  cup: Pick<CupState, 'plan' | 'putIn' | 'weighed'>,
  part: Part,
  afterMend: boolean,
  layer: RunLayer,
  plan: Pick<RunPlan, 'scaleStepGrams' | 'cupGrams' | 'roomC'>,
  stock: StockLeft | null,
): Remade {
  const mixture = mixtureOf(layer, plan);
  if (part !== 'B' && !afterMend)
    return { plan: cupForWeighed(cup.plan, cup.weighed.A + cup.weighed.all, mixture, stock), mend: null };
  const { addPart, addGrams, newTotalGrams } = afterOverPour({
    product: layer.product,
    part,
    pourGrams: 0,
    colourCost: 0,
    aGrams: resinIn({ ...cup, plan: { ...cup.plan, portions: [] } }),
    bGrams: cup.weighed.B,
    cupGrams: plan.cupGrams,
    roomC: plan.roomC,
  });
  const next = cupForMore(cup, newTotalGrams, mixture, stock, addPart === 'A' ? addGrams : 0);
  const grams = addPart === 'A' ? addGrams - broughtGrams(colourToCome({ ...cup, plan: next })) : addGrams;
  return { plan: next, mend: addPart && grams >= plan.scaleStepGrams ? { part: addPart, grams } : null };
}
