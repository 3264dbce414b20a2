import { fromBottle } from '../pouring/portions';
import { NOTHING } from '../stock/lots';
import type { StockPart } from '../model/stockSchema';
import { expiredLotsTaken } from './expired';
import type { RunBottle } from './runSchema';
import { layerOf, type RunState } from './runState';
import { cupOf } from './say';
import type { RunStep } from './steps';

/** What a step takes out of a bottle: a part of a product, or a colourant. */
export interface FromShelf {
  kind: RunBottle['kind'];
  of: string;
  part: StockPart;
}

/** What a step takes out of a bottle; null for one that takes nothing, or out of a stock that was made before. */
export function takenIn(state: RunState, step: RunStep): FromShelf | null {
  const layer = layerOf(state, step.layer);
  const product = { kind: 'product', of: layer.product.id } as const;
  if (step.kind === 'weigh') return { ...product, part: step.part };
  const cup = step.kind === 'pour' ? cupOf(state, step) : null;
  if (cup && fromBottle(layer, cup.plan)) return { ...product, part: 'all' };
  if (step.kind !== 'dose') return null;
  const { colours, resinGrams } = step.portion;
  return colours.length === 1 && resinGrams === 0 ? { kind: 'colourant', of: colours[0]!.id, part: 'all' } : null;
}

const isOf = ({ kind, of }: RunBottle, thing: FromShelf): boolean => kind === thing.kind && of === thing.of;
const holds = ({ left }: RunBottle, part: StockPart): number => left.find((one) => one.part === part)?.grams ?? 0;

/** Bottles of a thing in the order in which they are used up. What is past its date counts only once it was named. */
export function bottlesOf(state: Pick<RunState, 'plan' | 'done' | 'bottles'>, thing: FromShelf): RunBottle[] {
  const named = new Set([...expiredLotsTaken(state), ...state.bottles.map(({ lot }) => lot)]);
  return state.plan.bottles.filter(
    (bottle) => isOf(bottle, thing) && holds(bottle, thing.part) > NOTHING && (!bottle.past || named.has(bottle.id)),
  );
}

/** The bottle that was named last for a thing, up to a moment. */
const namedFor = ({ plan, bottles }: Pick<RunState, 'plan' | 'bottles'>, thing: FromShelf, at: number): string | null =>
  bottles.findLast(
    ({ lot, at: when }) =>
      when <= at &&
      plan.bottles.some((bottle) => bottle.id === lot && isOf(bottle, thing) && holds(bottle, thing.part)),
  )?.lot ?? null;

const plannedGrams = (step: RunStep): number =>
  step.kind === 'weigh'
    ? step.targetGrams
    : step.kind === 'dose'
      ? step.portion.grams
      : step.kind === 'pour'
        ? step.pour.grams
        : 0;

/**
 * Out of which bottle a thing is taken now, and what of it is left there by what was weighed: the one that was named, else one after the
 * other as they are used up. Null where no bottle of it is known.
 */
export function bottleNow(state: RunState, thing: FromShelf): { bottle: RunBottle; leftGrams: number } | null {
  const order = bottlesOf(state, thing);
  const left = new Map(order.map((bottle) => [bottle.id, holds(bottle, thing.part)]));
  const first = (at: number): RunBottle[] => {
    const named = namedFor(state, thing, at);
    return [...order].sort((a, b) => Number(b.id === named) - Number(a.id === named));
  };
  for (const { step, at, grams, skipped } of state.done.values()) {
    const taken = takenIn(state, step);
    if (skipped || !taken || taken.kind !== thing.kind || taken.of !== thing.of || taken.part !== thing.part) continue;
    let wanted = grams ?? plannedGrams(step);
    for (const { id } of first(at)) {
      const some = Math.min(wanted, left.get(id)!);
      left.set(id, left.get(id)! - some);
      wanted -= some;
    }
  }
  const now = first(Infinity);
  const bottle = now.find(({ id }) => left.get(id)! > NOTHING) ?? now[0];
  return bottle ? { bottle, leftGrams: left.get(bottle.id)! } : null;
}

/** Bottles that were named before something was taken into a cup: what went into it is booked out of those first. */
export function namedBottles(state: RunState, cup: { key: string; attempt: number }): string[] {
  const own = [...state.done.values()].filter(
    ({ step }) => 'cup' in step && step.cup === cup.key && step.id.startsWith(`${cup.key}.${cup.attempt}.`),
  );
  const named = own.flatMap(({ step, at }) => {
    const thing = takenIn(state, step);
    return thing ? (namedFor(state, thing, at) ?? []) : [];
  });
  return [...new Set(named)];
}

/** Lots past their date that were taken all the same: not put aside before, or named at a step. */
export const pastLotsTaken = (state: Pick<RunState, 'plan' | 'done' | 'bottles'>): string[] => [
  ...new Set([
    ...expiredLotsTaken(state),
    ...state.bottles.flatMap(({ lot }) => (state.plan.bottles.some(({ id, past }) => id === lot && past) ? [lot] : [])),
  ]),
];

/** The bottle that is meant by what was typed or scanned: its name or id, or the start of one name alone. */
export function bottleCalled(bottles: readonly RunBottle[], line: string): RunBottle | null {
  const words = line.trim().toLowerCase();
  const exact = bottles.find(({ id, name }) => id === line.trim() || name.toLowerCase() === words);
  if (exact || words === '') return exact ?? null;
  const begun = bottles.filter(({ name }) => name.toLowerCase().startsWith(words));
  return begun.length === 1 ? begun[0]! : null;
}
