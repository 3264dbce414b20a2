import { pieceKey } from '../model/pieceRef';
import { mixForPour, type Losses } from '../mixing/losses';
import type { RunPour } from './runSchema';

/** Grams of a film of 1 mm over 1 cm² at a density of 1 g/ml. */
const GRAMS_PER_CM2_MM = 0.1;

/** Less than this is not missing: no scale on a bench is as sure of a cup. */
export const LEAST_SHORT_GRAMS = 0.3;

/** What can be done about a cup that holds less than the pieces that are left want. */
export interface Shortfall {
  /** What is missing, drips included. 0: nothing is. */
  shortGrams: number;
  /** How much lower the surface of all that are left would stand, cured, mm. An estimate: as wide as at the level. */
  lowerMm: number;
  /** What a fresh mix of what is missing has to be, losses included. */
  freshMixGrams: number;
  /** What is over, when nothing is missing. */
  overGrams: number;
}

/**
 * What is missing in a cup: the grams of the pieces that are left and what drips at each, less what is in it. The same lowering over
 * all of them: short·(1 − shrinkage)/(0.1·density·Σ surface).
 */
export function shortfall(
  inCupGrams: number,
  rest: readonly RunPour[],
  surfaceCm2: (pour: RunPour) => number,
  product: { density: number; shrinkage: number },
  losses: Losses,
): Shortfall {
  const wanted = rest.reduce((sum, { grams }) => sum + grams + losses.perPieceGrams, 0);
  const shortGrams = Math.max(0, wanted - inCupGrams);
  const surface = rest.reduce((sum, pour) => sum + surfaceCm2(pour), 0);
  return {
    shortGrams,
    lowerMm: surface > 0 ? (shortGrams * (1 - product.shrinkage)) / (GRAMS_PER_CM2_MM * product.density * surface) : 0,
    freshMixGrams: shortGrams > 0 ? mixForPour(shortGrams, 1, losses) : 0,
    overGrams: Math.max(0, inCupGrams - wanted),
  };
}

/** What each of the pieces that are left takes when all are filled `mm` lower; none less than nothing. */
export const loweredBy = (
  rest: readonly RunPour[],
  mm: number,
  surfaceCm2: (pour: RunPour) => number,
  product: { density: number; shrinkage: number },
): Map<string, number> =>
  new Map(
    rest.map((pour) => [
      pieceKey(pour),
      Math.max(0, pour.grams - (GRAMS_PER_CM2_MM * product.density * surfaceCm2(pour) * mm) / (1 - product.shrinkage)),
    ]),
  );

/** Shares what a cup still holds among the pieces that are left, in their order: what goes on from it, and what another mix brings. */
export function sharedOut(
  inCupGrams: number,
  rest: readonly RunPour[],
  losses: Losses,
): { now: RunPour[]; later: RunPour[] } {
  const [now, later]: [RunPour[], RunPour[]] = [[], []];
  let left = inCupGrams;
  for (const pour of rest) {
    const takes = Math.min(pour.grams, Math.max(0, left - losses.perPieceGrams));
    left -= takes + losses.perPieceGrams;
    if (takes > 1e-9) now.push({ ...pour, grams: takes });
    if (pour.grams - takes > 1e-9) later.push({ ...pour, grams: pour.grams - takes });
  }
  return { now, later };
}
