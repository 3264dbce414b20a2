import type { LinearRgb } from './colour';
import { labDifference, labOf } from './difference';
import type { RecipeDose } from './doses';
import { downhill } from './downhill';
import { MOST_COLOURANT_SHARE, MOST_WATER_BASED_SHARE, mostGramsPer100 } from './limits';
import { isWaterBased, type Colourant } from '../model/recipeSchema';
import { layerFlux, seenThrough } from './twoFlux';
import { SEEN_FROM, seenToMm } from './visibility';
import { WET } from './waterLook';
import { CHANNELS, CLARITY_OPTICS } from './waterTint';
import type { Clarity } from '../model/tintSchema';

/** What is wanted: a colour at a depth over a bed, from what stands on the shelf. */
export interface FinderAsk {
  target: LinearRgb;
  bed: LinearRgb;
  depthMm: number;
  clarity: Clarity;
  /** Of a coat over cured water: what lies under it is as bright as it is seen. A bed gets darker as it is wetted. */
  dryBed?: boolean;
  /** Of the cups that it is for: recipes whose every dose is a drop of such a cup come before all others. */
  cupGrams?: number;
  colourants: readonly (Colourant & { id: string })[];
}

/** A recipe that comes near, how near (CIEDE2000), and to which depth a pale detail is seen in it at arm's length. */
export interface FoundRecipe {
  doses: RecipeDose[];
  light: LinearRgb;
  deltaE: number;
  seenToMm: number | null;
}

/** Why an answer is offered. */
export type AnswerKind = 'nearest' | 'fewest' | 'clearest';

export interface Findings {
  /** Different recipes, each with all that speaks for it, nearest first. */
  answers: { kinds: AnswerKind[]; recipe: FoundRecipe }[];
  /** Clear water over the bed: what every tint starts from. */
  clear: { light: LinearRgb; deltaE: number };
  /** The colour is brighter than the bed under clear water: no colourant without scattering can make it. */
  brighterThanBed: boolean;
}

export const MOST_IN_RECIPE = 3;
/** A clearer answer may be this much further from the colour than the nearest, one with fewer colourants so much for each less. */
const SPARE_DELTA_E = 1.5;
/** Recipes no further apart than this are as near as each other: the one with fewer colourants is offered. */
const SAME_DELTA_E = 0.02;
/** A dose below this share of what a recipe may hold does nothing. */
const LEAST_SHARE = 1 / 4000;
/** Doses tried at the start, by how many colourants are in it: evenly spaced in their logarithm. */
const TRIED = [0, 40, 14, 8];
/** How many of the starts are followed downhill. */
const FOLLOWED = 3;
const OVER_LIMIT_COST = 400;

/**
 * Recipes of up to three colourants for a colour at a depth over a bed: least CIEDE2000, within the limits of each kind. Every
 * choice of colourants is searched over a coarse lattice of doses and followed downhill from its best places; not proved to be
 * the least, but tested against a dense lattice. The bed counts as wet, and water as seen from above.
 */
export function findRecipes(ask: FinderAsk): Findings {
  const wanted = labOf(ask.target);
  const clearLight = predictor(ask, [])([]);
  const clear = { light: clearLight, deltaE: labDifference(labOf(clearLight), wanted) };
  const found = chosenFrom(ask.colourants, MOST_IN_RECIPE)
    .map((colourants) => nearest(ask, colourants))
    .sort((a, b) => a.deltaE - b.deltaE);
  // A choice that comes to nothing of one of its colourants is found without it as well.
  const whole = thoseThatDo(
    found,
    ({ colourant, gramsPer100 }) => gramsPer100 >= LEAST_SHARE * mostGramsPer100(colourant),
  );
  const pool = thoseThatDo(whole, (dose) => isDrop(dose, ask.cupGrams));
  const [best] = pool;
  const enough = ({ doses }: FoundRecipe): number =>
    best ? best.deltaE + SPARE_DELTA_E * Math.max(1, best.doses.length - doses.length) : 0;
  const good = pool
    .filter((recipe) => recipe.deltaE <= enough(recipe))
    .slice(0, 16)
    .map((recipe): FoundRecipe => ({
      ...recipe,
      seenToMm: seenToMm(ask.bed, PALE, { clarity: ask.clarity, doses: recipe.doses }, SEEN_FROM['at arm’s length']),
    }));
  const by = (kind: AnswerKind, better: (a: FoundRecipe, b: FoundRecipe) => number): [AnswerKind, FoundRecipe][] => {
    const first = [...good].sort(better)[0];
    return first ? [[kind, first]] : [];
  };
  const sameNear = (a: FoundRecipe, b: FoundRecipe): boolean =>
    Math.max(a.deltaE, b.deltaE) <= (best?.deltaE ?? 0) + SAME_DELTA_E;
  const depth = ({ seenToMm: mm }: FoundRecipe): number => mm ?? Infinity;
  const picked = [
    ...by('nearest', (a, b) => (sameNear(a, b) ? a.doses.length - b.doses.length : a.deltaE - b.deltaE)),
    ...by('fewest', (a, b) => a.doses.length - b.doses.length || a.deltaE - b.deltaE),
    ...by('clearest', (a, b) => (depth(a) === depth(b) ? a.deltaE - b.deltaE : depth(b) - depth(a))),
  ];
  const answers: Findings['answers'] = [];
  for (const [kind, recipe] of picked) {
    const same = answers.find((answer) => answer.recipe === recipe);
    if (same) same.kinds.push(kind);
    else answers.push({ kinds: [kind], recipe });
  }
  return { answers, clear, brighterThanBed: wanted.l > labOf(clearLight).l + 0.5 };
}

/** Those recipes of which every dose does; where none does, all of them. */
function thoseThatDo(recipes: readonly FoundRecipe[], does: (dose: RecipeDose) => boolean): readonly FoundRecipe[] {
  const good = recipes.filter(({ doses }) => doses.every(does));
  return good.length > 0 ? good : recipes;
}

/** Whether a dose comes to a drop in a cup, or nearly: less is left out or taken twice over. */
const isDrop = ({ colourant, gramsPer100 }: RecipeDose, cupGrams = Infinity): boolean =>
  (gramsPer100 / 100) * cupGrams >= 0.75 * colourant.dropGrams;

const PALE: LinearRgb = { red: 0.77, green: 0.72, blue: 0.58 };

/** Every choice of one to `most` of some things. */
function chosenFrom<T>(things: readonly T[], most: number): T[][] {
  const grown = (chosen: T[], from: number): T[][] =>
    chosen.length === most
      ? []
      : things.slice(from).flatMap((thing, i) => {
          const next = [...chosen, thing];
          return [next, ...grown(next, from + i + 1)];
        });
  return grown([], 0);
}

/** What some colourants make of the bed at the depth, by their grams in 100 g; the sums are made once. */
function predictor(
  { bed, depthMm, clarity, dryBed }: FinderAsk,
  colourants: readonly Colourant[],
): (grams: readonly number[]) => LinearRgb {
  const own = CLARITY_OPTICS[clarity];
  const wet = dryBed ? 1 : WET;
  return (grams) => {
    const light = { red: 0, green: 0, blue: 0 };
    for (const channel of CHANNELS) {
      let absorption = own.absorption[channel];
      let scattering = own.scattering[channel];
      for (let i = 0; i < colourants.length; i++) {
        absorption += colourants[i]!.absorption[channel] * grams[i]!;
        scattering += (colourants[i]!.scattering?.[channel] ?? 0) * grams[i]!;
      }
      light[channel] = seenThrough(layerFlux(absorption, scattering, depthMm), bed[channel] * wet);
    }
    return light;
  };
}

/** By how much a recipe is over the limits, as a share of them: 0 within. */
export function overLimit(colourants: readonly Pick<Colourant, 'kind'>[], grams: readonly number[]): number {
  let all = 0;
  let water = 0;
  colourants.forEach(({ kind }, i) => {
    all += grams[i]!;
    if (isWaterBased(kind)) water += grams[i]!;
  });
  return Math.max(0, all / (100 * MOST_COLOURANT_SHARE) - 1) + Math.max(0, water / (100 * MOST_WATER_BASED_SHARE) - 1);
}

function nearest(ask: FinderAsk, colourants: readonly (Colourant & { id: string })[]): FoundRecipe {
  const wanted = labOf(ask.target);
  const predict = predictor(ask, colourants);
  const most = colourants.map(mostGramsPer100);
  const grams = (logs: readonly number[]): number[] => logs.map((log, i) => most[i]! * Math.exp(Math.min(0, log)));
  const cost = (logs: readonly number[]): number => {
    const dosed = grams(logs);
    return labDifference(labOf(predict(dosed)), wanted) + OVER_LIMIT_COST * overLimit(colourants, dosed);
  };
  const steps = TRIED[colourants.length]!;
  const lowest = Math.log(LEAST_SHARE);
  const starts: { logs: number[]; value: number }[] = [];
  const places = steps ** colourants.length;
  for (let place = 0; place < places; place++) {
    const logs = colourants.map((_, i) => lowest * (1 - (Math.floor(place / steps ** i) % steps) / (steps - 1)));
    const value = cost(logs);
    if (starts.length < FOLLOWED || value < starts[starts.length - 1]!.value) {
      starts.push({ logs, value });
      starts.sort((a, b) => a.value - b.value);
      starts.length = Math.min(starts.length, FOLLOWED);
    }
  }
  const least = starts
    .map(({ logs }) => downhill(cost, downhill(cost, logs, -lowest / steps / 2).at, 0.1))
    .reduce((a, b) => (b.value < a.value ? b : a));
  const dosed = grams(least.at);
  const light = predict(dosed);
  return {
    doses: colourants.map((colourant, i) => ({ colourant, gramsPer100: dosed[i]! })),
    light,
    deltaE: labDifference(labOf(light), wanted),
    seenToMm: null,
  };
}
