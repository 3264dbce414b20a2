import { pieceKey } from '../bed/pieceRef';
import { mixForPour, type Losses } from '../mixing/losses';
import { isQuick, potLifeMinutes, RESERVE_SHARE } from '../mixing/potLife';
import { pouredDensity, ratioByWeight } from '../mixing/ratio';
import type { RunCup, RunDose, RunLayer, RunPlan, RunPour } from './schema';

export type Part = 'A' | 'B' | 'all';

/** A piece as it was poured. */
export interface PouredPiece extends RunPour {
  key: string;
  /** What was to go in; `grams` is what did. */
  plannedGrams: number;
  /** What left the cup for it, drips included. */
  leftCupGrams: number;
  /** Minutes since the press before. */
  minutes: number;
  at: number;
  /** Nothing was read: taken to be as planned. */
  assumed: boolean;
  filler: boolean;
}

/** One cup of a run as it stands: what was weighed into it, what went out of it. */
export interface CupState {
  /** `L1.C2`; `attempt` is one more each time that it is thrown away and mixed again. */
  key: string;
  layer: number;
  number: number;
  attempt: number;
  plan: RunCup;
  weighed: Record<Part, number>;
  /** Part A (or the product) that came along with a premix or a stock tint. */
  resinGrams: number;
  doses: { id: string; grams: number; drops: number; colours: { id: string; grams: number }[] }[];
  /** True while nothing of it was read from a scale. */
  assumed: boolean;
  /** Part A went over and was left so: part B keeps its own target. */
  acceptedA: boolean;
  /** Parts that are still to be added to bring the ratio back, in order. */
  mends: { part: 'A' | 'B'; grams: number }[];
  contactAt: number | null;
  poured: PouredPiece[];
  /** What stayed in it; null while it is in use. */
  leftGrams: number | null;
  closedAt: number | null;
  discarded: { at: number; why: string } | null;
}

export const cupKey = (layer: number, number: number): string => `L${layer}.C${number}`;
export const attemptKey = ({ key, attempt }: Pick<CupState, 'key' | 'attempt'>): string => `${key}.${attempt}`;

export const newCup = (layer: number, plan: RunCup, attempt = 1): CupState => ({
  ...{ key: cupKey(layer, plan.number), layer, number: plan.number, attempt, plan },
  ...{ weighed: { A: 0, B: 0, all: 0 }, resinGrams: 0, doses: [], assumed: true, acceptedA: false, mends: [] },
  ...{ contactAt: null, poured: [], leftGrams: null, closedAt: null, discarded: null },
});

/** It is poured straight out of the bottle: nothing is mixed in a cup. */
export const fromBottle = ({ product }: Pick<RunLayer, 'product'>, { doses }: Pick<RunCup, 'doses'>): boolean =>
  product.parts === null && doses.length === 0;

const colourGrams = ({ doses }: Pick<CupState, 'doses'>): number =>
  doses.reduce((sum, { colours }) => sum + colours.reduce((all, { grams }) => all + grams, 0), 0);

/** What was mixed in a cup, colourants included. Out of the bottle that is what was poured. */
export function mixedGrams(cup: CupState, layer: Pick<RunLayer, 'product'>): number {
  if (fromBottle(layer, cup.plan)) return cup.poured.reduce((sum, { leftCupGrams }) => sum + leftCupGrams, 0);
  const { A, B, all } = cup.weighed;
  return A + B + all + cup.resinGrams + colourGrams(cup);
}

/** What is in a cup now. */
export const inCupGrams = (cup: CupState, layer: Pick<RunLayer, 'product'>): number =>
  cup.leftGrams ??
  Math.max(0, mixedGrams(cup, layer) - cup.poured.reduce((sum, { leftCupGrams }) => sum + leftCupGrams, 0));

/** The pieces of a cup that are still to be poured. */
export function restOf(cup: CupState): RunPour[] {
  const done = new Set(cup.poured.filter(({ filler }) => !filler).map(({ key }) => key));
  return cup.plan.pours.filter((pour) => !done.has(pieceKey(pour)));
}

/** Resin that premixes and the stock bring into a cup, as planned. */
const plannedResin = ({ doses }: Pick<RunCup, 'doses'>): number =>
  doses.reduce((sum, { resinGrams }) => sum + resinGrams, 0);

/** Part A of a planned cup, what premixes and stock bring along counted in. */
const plannedPartA = ({ mixGrams }: RunCup, { product }: Pick<RunLayer, 'product'>): number => {
  if (!product.parts) return mixGrams;
  const ratio = ratioByWeight(product.parts);
  return (mixGrams * ratio) / (1 + ratio);
};

/** By how much more than planned of part A is in the cup, and meant to be: what is mixed into it goes along. */
export function scaleOfA(cup: CupState, layer: Pick<RunLayer, 'product'>): number {
  const asked = plannedPartA(cup.plan, layer) - plannedResin(cup.plan);
  const weighed = layer.product.parts ? cup.weighed.A : cup.weighed.all;
  return weighed > 0 && asked > 0 && !cup.acceptedA ? weighed / asked : 1;
}

/** What of part A premixes and stock have brought, or will bring, into a cup. */
export function resinIn(cup: CupState, layer: Pick<RunLayer, 'product'>): number {
  const done = new Set(cup.doses.map(({ id }) => id));
  const toCome = cup.plan.doses.filter(({ id }) => !done.has(id)).reduce((sum, dose) => sum + dose.resinGrams, 0);
  return cup.resinGrams + toCome * scaleOfA(cup, layer);
}

/** What is to be weighed of a part: B follows what of A is in the cup, so that the ratio is the label's. */
export function targetGrams(cup: CupState, layer: Pick<RunLayer, 'product'>, part: Part): number {
  const { parts } = layer.product;
  const plannedA = plannedPartA(cup.plan, layer);
  if (!parts || part !== 'B') return Math.max(0, plannedA - plannedResin(cup.plan));
  const inA = cup.weighed.A > 0 && !cup.acceptedA ? cup.weighed.A + resinIn(cup, layer) : plannedA;
  return inA / ratioByWeight(parts);
}

/** By how much more (or less) than planned is in a cup: its colourants go along. */
export function doseScale(cup: CupState, layer: Pick<RunLayer, 'product'>): number {
  const { A, B, all } = cup.weighed;
  if (A + B + all <= 0 || cup.plan.mixGrams <= 0) return 1;
  // Before B is in, it is taken to follow.
  const b = layer.product.parts && B === 0 ? targetGrams(cup, layer, 'B') : B;
  return (A + b + all + resinIn(cup, layer)) / cup.plan.mixGrams;
}

/** Whole drops of a dose for what is in the cup. */
export const dropsFor = (dose: RunDose, scale: number): number =>
  dose.how === 'drops'
    ? Math.max(dose.drops > 0 ? 1 : 0, Math.round((dose.grams * scale) / dose.dropGrams))
    : dose.drops;

/** The same cup for other pieces: parts and colourants in proportion to the new mix. */
export function cupFor(plan: RunCup, pours: readonly RunPour[], number: number, losses: Losses): RunCup {
  const mixGrams = mixForPour(
    pours.reduce((sum, { grams }) => sum + grams, 0),
    pours.length,
    losses,
  );
  const share = plan.mixGrams > 0 ? mixGrams / plan.mixGrams : 0;
  return {
    ...{ number, mixGrams, pours: [...pours] },
    doses: plan.doses.map((dose) => ({
      ...dose,
      ...{ grams: dose.grams * share, resinGrams: dose.resinGrams * share, intoGrams: dose.intoGrams * share },
      drops: dose.how === 'drops' ? Math.max(1, Math.round((dose.grams * share) / dose.dropGrams)) : dose.drops,
      colours: dose.colours.map(({ id, grams }) => ({ id, grams: grams * share })),
    })),
  };
}

/** Pot life of a cup as it is, minutes from when the parts met; null for what does not set in the cup. */
export function cupLife(
  cup: CupState,
  layer: Pick<RunLayer, 'product'>,
  roomC: number,
): { lifeMinutes: number; byMinutes: number } | null {
  if (!layer.product.parts) return null;
  const grams = Math.max(cup.plan.mixGrams, mixedGrams(cup, layer), 1);
  const lifeMinutes = potLifeMinutes(layer.product, roomC, grams);
  return { lifeMinutes, byMinutes: lifeMinutes * (1 - RESERVE_SHARE) };
}

export const isQuickLayer = ({ product }: Pick<RunLayer, 'product'>): boolean =>
  product.parts !== null && isQuick(product.potLifeMinutes);

/** ml of so many grams of a part, for who measures by volume. */
export function partMl(grams: number, { product }: Pick<RunLayer, 'product'>, part: Part): number {
  const { parts } = product;
  if (!parts || part === 'all') return grams / pouredDensity(product);
  return grams / (part === 'A' ? parts.densityA : parts.densityB);
}

export const surfaceOf =
  (plan: Pick<RunPlan, 'pieces'>) =>
  ({ designId }: RunPour): number =>
    plan.pieces.find((piece) => piece.designId === designId)?.surfaceCm2 ?? 0;
