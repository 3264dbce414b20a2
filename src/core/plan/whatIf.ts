import { deltaE } from '../tint/difference';
import { linearFromHex } from '../tint/colour';
import type { Amounts } from './plan';
import { layerMinutes, planTimes } from './pourTimes';
import type { PlanRequest } from './request';

/** Hands-on minutes of all layers of a batch. An estimate. */
export const handsOnMinutes = (
  { layers }: { layers: readonly Parameters<typeof layerMinutes>[0][] },
  request: Pick<PlanRequest, 'product' | 'build' | 'hands'>,
): number => layers.reduce((sum, layer) => sum + layerMinutes(layer, request), 0);

/** All that a batch takes of its products, finish and what stays of stock tints too, and what a gram of it costs on the average. */
export const waterGrams = ({
  cost,
}: Pick<Amounts, 'cost'>): { mixGrams: number; pouredGrams: number; pricePerGram: number } => ({
  mixGrams: cost.productGrams,
  pouredGrams: cost.productGrams - cost.lostGrams,
  pricePerGram: cost.productGrams > 0 ? (cost.product + cost.lost) / cost.productGrams : 0,
});

/** A batch with so many more copies of a design, numbered on from the last. Null where the design is not poured as drawn in it. */
export function withMore(request: PlanRequest, designId: string, more: number): PlanRequest | null {
  const at = request.pieces.findIndex((piece) => piece.designId === designId && piece.measured === null);
  const piece = request.pieces[at];
  if (!piece) return null;
  const taken = request.pieces
    .filter((other) => other.designId === designId)
    .flatMap(({ copies, copyNumbers }) => copyNumbers ?? Array.from({ length: copies }, (_, i) => i + 1));
  const next = Math.max(0, ...taken);
  const own = piece.copyNumbers ?? Array.from({ length: piece.copies }, (_, i) => i + 1);
  const numbers = [...own, ...Array.from({ length: more }, (_, i) => next + 1 + i)];
  const straight = numbers.every((number, i) => number === i + 1);
  const pieces = [...request.pieces];
  pieces[at] = { ...piece, copies: numbers.length, copyNumbers: straight ? null : numbers };
  return { ...request, pieces };
}

/** A batch with its level moved; null where it would stand in the underside. */
export const withLevel = (request: PlanRequest, byMm: number): PlanRequest | null =>
  request.set.levelMm + byMm > 0 ? { ...request, set: { ...request.set, levelMm: request.set.levelMm + byMm } } : null;

/** What another plan takes more (or less) than the one there is. */
export interface Difference {
  mixGrams: number;
  money: number;
  cups: number;
  layers: number;
  minutes: number;
  /** Of all finished pieces together. */
  weightGrams: number;
  /** When the whole is cured, before and with it. */
  doneAt: { before: string | null; after: string | null };
  /** CIEDE2000 between the deep of the first piece before and with it. */
  deepDeltaE: number;
}

/** One plan against another. Money counts product, colourants and cups; hours are told as minutes. */
export function planDifference(
  before: { request: PlanRequest; amounts: Amounts },
  after: { request: PlanRequest; amounts: Amounts },
): Difference {
  const weight = ({ pieces }: Amounts): number =>
    pieces.reduce((sum, { copies, body }) => sum + copies * body.totalGrams, 0);
  const deep = ({ pieces }: Amounts): ReturnType<typeof linearFromHex> =>
    linearFromHex(pieces[0]?.colour.deepest ?? '#000000');
  const [a, b] = [before.amounts, after.amounts];
  return {
    mixGrams: b.totals.mixGrams - a.totals.mixGrams,
    money: b.cost.total - a.cost.total,
    cups: b.totals.cups - a.totals.cups,
    layers: b.layers.length - a.layers.length,
    minutes: handsOnMinutes(b, after.request) - handsOnMinutes(a, before.request),
    weightGrams: weight(b) - weight(a),
    doneAt: { before: planTimes(a, before.request).doneAt, after: planTimes(b, after.request).doneAt },
    deepDeltaE: deltaE(deep(a), deep(b)),
  };
}
