import { pieceKey } from '../model/pieceRef';
import { isQuick, potLifeMinutes, RESERVE_SHARE } from '../mixing/potLife';
import { pouredDensity, ratioByWeight } from '../mixing/ratio';
import { broughtGrams, fromBottle, WAYS, type Portion } from '../pouring/portions';
import type { RunCup, RunLayer, RunPlan, RunPour } from './runSchema';

const MINUTE_MS = 60_000;

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

/** Colour that went into a cup, as it was counted or read. */
export type PutIn = Pick<
  Portion,
  'key' | 'way' | 'name' | 'grams' | 'drops' | 'intoGrams' | 'resinGrams' | 'colours'
> & {
  /** By what the scale rose as drops went in; null where nobody read it. */
  roseGrams: number | null;
};

/** One cup of a run as it stands: what was weighed into it, what went out of it. */
export interface CupState {
  /** `L1.C2`; `attempt` is one more each time that it is thrown away and mixed again. */
  key: string;
  layer: number;
  number: number;
  attempt: number;
  /** What it is to be by now: a cup that got more of a part is planned anew for that. */
  plan: RunCup;
  weighed: Record<Part, number>;
  putIn: readonly PutIn[];
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
  key: cupKey(layer, plan.number),
  layer,
  number: plan.number,
  attempt,
  plan,
  weighed: { A: 0, B: 0, all: 0 },
  putIn: [],
  assumed: true,
  acceptedA: false,
  mends: [],
  contactAt: null,
  poured: [],
  leftGrams: null,
  closedAt: null,
  discarded: null,
});

/** What was mixed in a cup, colourants included. Out of the bottle that is what was poured. */
export function mixedGrams(cup: CupState, layer: Pick<RunLayer, 'product'>): number {
  if (fromBottle(layer, cup.plan)) return cup.poured.reduce((sum, { leftCupGrams }) => sum + leftCupGrams, 0);
  const { A, B, all } = cup.weighed;
  return A + B + all + cup.putIn.reduce((sum, { grams }) => sum + grams, 0);
}

/** What is in a cup now. */
export const inCupGrams = (cup: CupState, layer: Pick<RunLayer, 'product'>): number =>
  cup.leftGrams ??
  Math.max(0, mixedGrams(cup, layer) - cup.poured.reduce((sum, { leftCupGrams }) => sum + leftCupGrams, 0));

/** Whether what is in a cup is as it came: one part, or a product of one part, with nothing stirred into it. */
export const isUnmixed = ({ weighed, putIn, poured, contactAt, closedAt }: CupState): boolean =>
  weighed.A + weighed.all > 0 &&
  weighed.B === 0 &&
  contactAt === null &&
  closedAt === null &&
  putIn.length === 0 &&
  poured.length === 0;

/** The pieces of a cup that are still to be poured. */
export function restOf(cup: CupState): RunPour[] {
  const done = new Set(cup.poured.filter(({ filler }) => !filler).map(({ key }) => key));
  return cup.plan.pours.filter((pour) => !done.has(pieceKey(pour)));
}

/** Colour of a cup that is still to go in. */
export const colourToCome = ({ plan, putIn }: Pick<CupState, 'plan' | 'putIn'>): Portion[] =>
  plan.portions.filter(({ key, way }) => !WAYS[way].product && !putIn.some((one) => one.key === key));

/** What of part A (or the product) is in a cup, or will come along with its tint. */
export const resinIn = (cup: Pick<CupState, 'plan' | 'putIn' | 'weighed'>): number =>
  cup.weighed.A + cup.weighed.all + broughtGrams(cup.putIn) + broughtGrams(colourToCome(cup));

const PART_WAYS = { A: 'part A', B: 'part B', all: 'product' } as const;

/** What is to be weighed of a part: B follows what of A is in the cup, so that the ratio is the label's. */
export function targetGrams(cup: CupState, { product: { parts } }: Pick<RunLayer, 'product'>, part: Part): number {
  const planned = cup.plan.portions.find(({ way }) => way === PART_WAYS[part])?.grams ?? 0;
  return parts && part === 'B' && cup.weighed.A > 0 && !cup.acceptedA ? resinIn(cup) / ratioByWeight(parts) : planned;
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

/**
 * Until when a cup should be poured, and when it sets: the pot life runs from when the parts met, faster or slower as the room was
 * read, and goes on as it was read last. Null for what does not set in the cup, and before the parts have met.
 */
export function cupEnds(
  cup: CupState,
  layer: Pick<RunLayer, 'product'>,
  room: readonly { at: number; temperatureC: number }[],
): { by: number; sets: number } | null {
  if (cup.contactAt === null || !layer.product.parts) return null;
  const lifeIn = (temperatureC: number): number => cupLife(cup, layer, temperatureC)!.lifeMinutes * MINUTE_MS;
  let [at, spent] = [cup.contactAt, 0];
  let now = (room.findLast((one) => one.at <= at) ?? room[0]!).temperatureC;
  const ends: number[] = [];
  const shares = [1 - RESERVE_SHARE, 1];
  for (const next of [...room.filter((one) => one.at > at), null]) {
    const life = lifeIn(now);
    const until = next === null ? Infinity : spent + (next.at - at) / life;
    while (ends.length < 2 && shares[ends.length]! <= until) ends.push(at + (shares[ends.length]! - spent) * life);
    if (next === null) break;
    [at, spent, now] = [next.at, until, next.temperatureC];
  }
  return { by: ends[0]!, sets: ends[1]! };
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
