import { linearFromHex, linearFromLab, type LinearRgb } from './colour';
import { labDifference, labOf } from './difference';
import type { RecipeDose } from './doses';
import { downhill } from './downhill';
import { overLimit } from './finder';
import { mostGramsPer100 } from './limits';
import { SEEN_FROM, seenToMm } from './visibility';
import { lightByDepth, paintByDepth, type BedPaint } from './waterLook';
import { pourDoses, type WaterTint } from './waterTint';
import { EVEN_POUR, MOST_STRENGTH, type Clarity, type TintPour } from '../model/tintSchema';

/** How water is wished to darken from the shore to the deep, and what it may be poured from. */
export interface GradientWish {
  paint: BedPaint;
  clarity: Clarity;
  /** The recipe's colourants; its doses are where the search begins. */
  doses: readonly RecipeDose[];
  deepestMm: number;
  /** How the water is to look at its deepest. */
  deep: LinearRgb;
  /** The depth at which the tint has done half of its work; nearer to the deepest keeps the shore clear for longer. */
  halfwayMm: number;
  /** How thick each pour is, from the surface down; the last goes on to the bed. */
  thicknessesMm: readonly number[];
  /** The recipe thinned pour by pour, or every pour with doses of its own. */
  by: 'strength' | 'colourant';
  /** From this depth on a painted line between the shore's and the deep's colour must not be told; null where that is no matter. */
  hideLineMm: number | null;
}

/** Pours that come near to a wish, and how near. */
export interface GradientFound {
  pours: TintPour[];
  /** CIEDE2000 between wished and made, on the average over the depths and at its worst, and the depth of that. */
  meanDeltaE: number;
  worstDeltaE: number;
  worstAtMm: number;
}

/** Depths at which a wish is compared. */
const SAMPLES = 14;

/**
 * The wished colour by depth: at the shore the painted bed under clear product, at the deepest the wished colour, between them a
 * mixture in L*a*b* whose share follows a power of the depth that is one half at `halfwayMm`.
 */
export function wishedByDepth({
  paint,
  clarity,
  deepestMm,
  deep,
  halfwayMm,
}: Pick<GradientWish, 'paint' | 'clarity' | 'deepestMm' | 'deep' | 'halfwayMm'>): (depthMm: number) => LinearRgb {
  const clear = overPaint(paint, { clarity, doses: [] }, deepestMm);
  const to = labOf(deep);
  const half = Math.min(0.98, Math.max(0.02, halfwayMm / deepestMm));
  const power = Math.log(0.5) / Math.log(half);
  return (depthMm) => {
    const share = Math.min(1, Math.max(0, depthMm / deepestMm)) ** power;
    const from = labOf(clear(depthMm));
    return linearFromLab({
      l: from.l + (to.l - from.l) * share,
      a: from.a + (to.a - from.a) * share,
      b: from.b + (to.b - from.b) * share,
    });
  };
}

/** What is seen of a painted bed by its depth. */
export function overPaint(paint: BedPaint, tint: WaterTint, deepestMm: number): (depthMm: number) => LinearRgb {
  const paintAt = paintByDepth(paint, deepestMm);
  return (depthMm) => lightByDepth(paintAt(depthMm), tint)(depthMm);
}

/** A bed whose shore and deep are painted apart has a line where they meet. */
export const hasPaintedLine = ({ bedColour, shoreColour, deepColour }: BedPaint): boolean =>
  (shoreColour ?? bedColour) !== (deepColour ?? bedColour);

/** From which depth on a hard line between the shore's and the deep's paint is not told at arm's length; null where it always is. */
export function lineHiddenFromMm({ bedColour, shoreColour, deepColour }: BedPaint, tint: WaterTint): number | null {
  const [shore, deep] = [shoreColour ?? bedColour, deepColour ?? bedColour].map(linearFromHex);
  return seenToMm(deep!, shore!, tint, SEEN_FROM['at arm’s length']);
}

/** What is searched: a number from 0 for each strength, or for each colourant of each pour. */
interface Unknowns {
  start: number[];
  most: number[];
  pours: (at: readonly number[]) => TintPour[];
}

function unknownsOf({ doses, thicknessesMm, by }: GradientWish, from?: readonly TintPour[]): Unknowns {
  const last = thicknessesMm.length - 1;
  const thickness = (i: number): number | null => (i === last ? null : thicknessesMm[i]!);
  if (by === 'strength')
    return {
      start: thicknessesMm.map((_, i) => from?.[i]?.strength ?? 1),
      most: thicknessesMm.map(() => MOST_STRENGTH),
      pours: (at) => at.map((strength, i) => ({ thicknessMm: thickness(i), strength })),
    };
  const width = doses.length;
  return {
    start: thicknessesMm.flatMap((_, i) =>
      pourDoses(doses, from?.[i] ?? EVEN_POUR).map(({ gramsPer100 }) => gramsPer100),
    ),
    most: thicknessesMm.flatMap(() => doses.map(({ colourant }) => mostGramsPer100(colourant))),
    pours: (at) =>
      thicknessesMm.map((_, i) => ({
        thicknessMm: thickness(i),
        strength: 1,
        own: Object.fromEntries(doses.map(({ colourant }, k) => [colourant.id, at[i * width + k]!])),
      })),
  };
}

const OVER_LIMIT_COST = 400;
/** What a painted line that shows costs, for each ΔE over the limit, squared, beside the mean of the squares over the depths. */
const LINE_COST = 100;
/** A line counts as hidden a little below what is told. */
const LINE_HIDDEN = SEEN_FROM['at arm’s length'] * 0.97;
const ROUNDS = 8;
const LATTICE = 10;
const GOLDEN_STEPS = 9;
const GOLDEN = (Math.sqrt(5) - 1) / 2;
/** Steps of the last search for each number that is looked for. */
const STEPS_EACH = 60;

/**
 * The pours that come nearest to a wish: least mean square of CIEDE2000 over the depths, within what colourants may be in a mix.
 * The strengths are searched first, from the surface down, and after that each number by turns along its own line; where each pour
 * may have colourants of its own the best strengths are the start. Not proved to be the least; tested against a dense lattice.
 */
export function solvePours(wish: GradientWish): GradientFound {
  const thinned = descend(wish, unknownsOf({ ...wish, by: 'strength' }));
  const best = wish.by === 'strength' ? thinned : descend(wish, unknownsOf(wish, thinned));
  return { pours: best, ...distance(wish, best) };
}

/** How far pours are from a wish. */
export function distance(wish: GradientWish, pours: readonly TintPour[]): Omit<GradientFound, 'pours'> {
  const wished = wishedByDepth(wish);
  const made = overPaint(wish.paint, { clarity: wish.clarity, doses: wish.doses, pours }, wish.deepestMm);
  const off = depthsOf(wish).map((mm) => ({ mm, off: labDifference(labOf(wished(mm)), labOf(made(mm))) }));
  const worst = off.reduce((a, b) => (b.off > a.off ? b : a));
  return {
    meanDeltaE: off.reduce((sum, one) => sum + one.off, 0) / off.length,
    worstDeltaE: worst.off,
    worstAtMm: worst.mm,
  };
}

const depthsOf = ({ deepestMm }: GradientWish): number[] =>
  Array.from({ length: SAMPLES }, (_, i) => (deepestMm * (i + 1)) / SAMPLES);

/** The cost of pours: nothing where they are the wish itself. */
export function gradientCost(wish: GradientWish): (pours: readonly TintPour[]) => number {
  const { paint, clarity, doses, deepestMm, hideLineMm } = wish;
  const depths = depthsOf(wish);
  const wishedAt = wishedByDepth(wish);
  const wished = depths.map((mm) => labOf(wishedAt(mm)));
  const paintAt = paintByDepth(paint, deepestMm);
  const beds = depths.map(paintAt);
  const colourants = doses.map(({ colourant }) => colourant);
  const ends = [paint.shoreColour ?? paint.bedColour, paint.deepColour ?? paint.bedColour].map(linearFromHex);
  return (pours) => {
    const tint: WaterTint = { clarity, doses, pours };
    let cost = 0;
    depths.forEach((mm, i) => {
      cost += labDifference(labOf(lightByDepth(beds[i]!, tint)(mm)), wished[i]!) ** 2 / depths.length;
    });
    for (const pour of pours) {
      const grams = pourDoses(doses, pour).map(({ gramsPer100 }) => gramsPer100);
      cost += OVER_LIMIT_COST * overLimit(colourants, grams);
    }
    if (hideLineMm !== null) {
      const [shore, deep] = ends.map((end) => labOf(lightByDepth(end, tint)(hideLineMm)));
      cost += LINE_COST * Math.max(0, labDifference(shore!, deep!) - LINE_HIDDEN) ** 2;
    }
    return cost;
  };
}

/** Each number by turns first, then all together, from where that ends. */
function descend(wish: GradientWish, { start, most, pours }: Unknowns): TintPour[] {
  const cost = gradientCost(wish);
  const of = (roots: readonly number[]): TintPour[] => pours(roots.map((root, i) => most[i]! * Math.min(1, root ** 2)));
  const total = (roots: readonly number[]): number => cost(of(roots));
  const at = start.map((value, i) => Math.sqrt(Math.min(1, value / most[i]!)));
  let least = total(at);
  for (let round = 0; round < ROUNDS; round++) {
    const before = least;
    for (let i = 0; i < at.length; i++) {
      const found = leastAlong((root) => total(at.map((other, k) => (k === i ? root : other))), at[i]!, round === 0);
      if (found.value < least) [at[i], least] = [found.at, found.value];
    }
    if (before - least < 1e-3) break;
  }
  const steps = STEPS_EACH * at.length;
  const first = downhill(total, at, 0.15, { steps });
  return of(downhill(total, first.at, 0.05, { steps }).at);
}

/** Where a function of a number from 0 to 1 is least: the whole way on a lattice first, or about where it is. */
function leastAlong(f: (root: number) => number, now: number, whole: boolean): Tried {
  const tried = (root: number): Tried => ({ at: root, value: f(root) });
  const lesser = (a: Tried, b: Tried): Tried => (b.value < a.value ? b : a);
  const lattice = whole ? Array.from({ length: LATTICE + 1 }, (_, i) => i / LATTICE) : [];
  const centre = [...lattice, now].map(tried).reduce(lesser);
  const reach = whole ? 1 / LATTICE : 0.06;
  let [low, high] = [Math.max(0, centre.at - reach), Math.min(1, centre.at + reach)];
  let best = centre;
  for (let i = 0; i < GOLDEN_STEPS; i++) {
    const [a, b] = [high - GOLDEN * (high - low), low + GOLDEN * (high - low)].map(tried);
    best = lesser(best, lesser(a!, b!));
    if (a!.value < b!.value) high = b!.at;
    else low = a!.at;
  }
  return best;
}

interface Tried {
  at: number;
  value: number;
}
