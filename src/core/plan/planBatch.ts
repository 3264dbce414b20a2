import { closedRuns } from '../bed/dams';
import { checkDesign } from '../bed/checkDesign';
import type { Strays } from '../bed/measured';
import type { PieceDesign } from '../bed/schema';
import { advise, type Problem } from '../checks/problem';
import { moveBetweenCups, splitIntoCups, type Pour } from '../mixing/cups';
import { splitLayers, type LayerLevels } from '../mixing/layers';
import { mixForPour, smallestMixGrams } from '../mixing/losses';
import { mostMixGrams, potLifeMinutes } from '../mixing/potLife';
import { pouredDensity, ratioByVolume, ratioByWeight, splitParts } from '../mixing/ratio';
import { waterCost } from '../money/cost';
import { atStrength, cupDoses, smallestDropMixGrams, type CupDose, type RecipeDose } from '../tint/doses';
import { formatMeasure } from '../units/formatMeasure';
import { levelBed, surveyBed, type SurveyedBed } from './beds';
import { checkBatch } from './checkBatch';
import { checkBodies } from './checkBody';
import { withTimes, type Amounts, type LayerAmounts, type PiecePlan, type Plan } from './plan';
import { refOfPiece, type AmountsRequest, type PlanRequest } from './request';
import { checkPieces } from './checkPieces';
import { planPiece } from './planPiece';
import { planTimes } from './schedule';

/** Where beds come from: built anew, or from a cache keyed by `bedKey`. */
export type BedSource = (design: PieceDesign, strays: Strays) => SurveyedBed;

const freshBed: BedSource = (design, strays) => surveyBed(design, undefined, strays);

/**
 * The whole plan of a batch, from the beds to the cups, the cost and the cure. Pure: the same request gives the same plan.
 * Problems do not stop it; a plan with a `stop` among its problems must not be poured.
 */
export function planBatch(request: PlanRequest, bedOf: BedSource = freshBed): Plan {
  const amounts = planAmounts(request, bedOf);
  return withTimes(amounts, planTimes(amounts, request));
}

/** What is poured, mixed and spent: all of a plan that does not depend on when it is poured. */
export function planAmounts(request: AmountsRequest, bedOf: BedSource = freshBed): Amounts {
  const { product, recipe, bench, set } = request;
  const beds = request.pieces.map((design) => levelBed(bedOf(design, request.strays), design, set.levelMm));
  const deepest = beds.reduce((least, bed) => Math.min(least, bed.curve.lowestMm), Infinity);
  const levels = splitLayers(deepest, set.levelMm, product, recipe.pours);
  const pieces = request.pieces.map((design, i) => planPiece(design, beds[i]!, levels, request));
  const most = mostMixGrams(product, request.room.temperatureC, bench.cupGrams);
  const planned = levels.map((layer, index) => planLayer(layer, index, pieces, most.grams, request));
  const layers = planned.map(({ layer }) => layer);
  const totals = totalsOf(pieces, layers, request);
  const amounts: Amounts = {
    format: 'aguada.plan',
    version: 1,
    set,
    product: {
      id: product.id,
      name: product.name,
      pouredDensity: pouredDensity(product),
      ratioByWeight: product.parts && ratioByWeight(product.parts),
      ratioByVolume: product.parts && ratioByVolume(product.parts),
    },
    pieces,
    layers,
    mix: {
      mostGrams: most.grams,
      limit: most.limit,
      smallestForScaleGrams: product.parts && smallestMixGrams(ratioByWeight(product.parts), bench.scaleStepGrams),
      smallestForDropsGrams: smallestDropMixGrams(recipe.doses),
    },
    totals,
    cost: waterCost({
      mixGrams: totals.mixGrams,
      pouredGrams: totals.pouredGrams,
      pricePerGram: product.packPrice / product.packGrams,
      colourants: recipe.doses.map(({ colourant }, i) => ({
        grams: totals.doses[i]!.grams,
        pricePerGram: colourant.bottlePrice / colourant.bottleGrams,
      })),
      cups: totals.cups,
      pricePerCup: bench.pricePerCup,
      pieces: totals.pieces,
    }),
    problems: [],
  };
  return {
    ...amounts,
    problems: [
      ...request.pieces.flatMap((design) =>
        checkDesign(design, set.levelMm).map((problem) => ({ ...problem, piece: refOfPiece(design) })),
      ),
      ...planned.flatMap(({ problems }) => problems),
      ...checkPieces(request, amounts),
      ...checkBodies(request, amounts),
      ...checkBatch(request, amounts),
    ],
  };
}

/** More cups than this in one layer are no batch any more. */
const MOST_CUPS = 1000;

function planLayer(
  level: LayerLevels,
  index: number,
  pieces: readonly PiecePlan[],
  mostGrams: number,
  { pieces: designs, product, recipe, room, losses, moves = [] }: AmountsRequest,
): { layer: LayerAmounts; problems: Problem[] } {
  const pouredGrams = pieces.reduce((sum, piece) => sum + piece.copies * piece.layers[index]!.pouredGrams, 0);
  const roughly = Math.ceil(pouredGrams / mostGrams);
  const tooMany = roughly > MOST_CUPS;
  const pours: Pour[] = tooMany
    ? []
    : pieces.flatMap(({ designId, copyNumbers, layers }, i) =>
        copyNumbers.map((copy) => ({ designId, copy, tag: designs[i]!.tag, grams: layers[index]!.pouredGrams })),
      );
  const { cups: split, fewestPossible } = splitIntoCups(pours, mostGrams, losses);
  const moved = moves.filter((move) => move.layer === level.number);
  const cups = moveBetweenCups(split, moved, losses);
  const mixGrams = tooMany
    ? mixForPour(pouredGrams, roughly, losses)
    : cups.reduce((total, cup) => total + cup.mixGrams, 0);
  const doses = atStrength(recipe.doses, level.strength);
  const layer = {
    ...level,
    volumeMl: pieces.reduce((total, piece) => total + piece.copies * piece.layers[index]!.volumeMl, 0),
    pouredGrams,
    mixGrams,
    parts: product.parts && splitParts(mixGrams, product.parts),
    doses: cupDoses(doses, mixGrams),
    fewestCups: tooMany ? roughly : fewestPossible,
    cups: cups.map((cup) => ({
      ...cup,
      parts: product.parts && splitParts(cup.mixGrams, product.parts),
      doses: cupDoses(doses, cup.mixGrams),
      potLifeMinutes: potLifeMinutes(product, room.temperatureC, cup.mixGrams),
    })),
  };
  const overfull = cups.filter((cup) => moved.length > 0 && cup.mixGrams > mostGrams + 0.05);
  return {
    layer,
    problems: [
      ...(tooMany ? [tooManyCups(level.number, pouredGrams, roughly)] : []),
      ...overfull.map((cup) => overfullCup(level.number, cup, mostGrams)),
    ],
  };
}

const overfullCup = (
  layer: number,
  { number, mixGrams }: { number: number; mixGrams: number },
  most: number,
): Problem => ({
  severity: 'warn',
  code: 'cup-overfull',
  path: ['moves'],
  message: `Layer ${layer}, cup ${number} holds ${formatMeasure(mixGrams, 'mass')} now; ${formatMeasure(most, 'mass')} is the most that is poured in time or that the cup takes.`,
  mend: advise('Move a piece on to another cup, or let Aguada share them out again.'),
});

const tooManyCups = (layer: number, grams: number, cups: number): Problem => ({
  severity: 'stop',
  code: 'too-many-cups',
  path: ['bench', 'cupGrams'],
  message: `Layer ${layer} takes ${(grams / 1000).toFixed(0)}\u00a0kg in about ${cups} cups; a batch takes at most ${MOST_CUPS} cups a layer.`,
  mend: advise('Take fewer copies into this batch, or a larger cup.'),
});

/** What all layers take of each colourant, their strengths counted; the whole drops are those of the sum. */
function totalDoses(recipe: readonly RecipeDose[], layers: readonly LayerAmounts[]): CupDose[] {
  const atFull = layers.reduce((sum, { mixGrams, strength = 1 }) => sum + mixGrams * strength, 0);
  return cupDoses(recipe, atFull);
}

function totalsOf(
  pieces: readonly PiecePlan[],
  layers: readonly LayerAmounts[],
  { product, recipe }: AmountsRequest,
): Plan['totals'] {
  const overPieces = (pick: (piece: PiecePlan) => number): number =>
    pieces.reduce((sum, piece) => sum + piece.copies * pick(piece), 0);
  const mixGrams = layers.reduce((sum, layer) => sum + layer.mixGrams, 0);
  return {
    pieces: overPieces(() => 1),
    volumeMl: overPieces((piece) => piece.water.volumeMl),
    surfaceCm2: overPieces((piece) => piece.water.surfaceCm2),
    pouredGrams: layers.reduce((sum, layer) => sum + layer.pouredGrams, 0),
    mixGrams,
    parts: product.parts && splitParts(mixGrams, product.parts),
    doses: totalDoses(recipe.doses, layers),
    cups: layers.reduce((sum, layer) => sum + layer.cups.length, 0),
    damMm: overPieces((piece) => closedRuns(piece.dams).reduce((sum, dam) => sum + dam.stripMm, 0)),
    cutList: cutListOf(pieces),
  };
}

/** Strips to cut for the whole batch, equal ones together, the longest first. Strips are cut to whole mm. */
function cutListOf(pieces: readonly PiecePlan[]): Plan['totals']['cutList'] {
  const list: Plan['totals']['cutList'] = [];
  for (const { dams, copies } of pieces) {
    for (const { method, stripMm, topMm } of closedRuns(dams)) {
      const strip = { method, stripMm: Math.ceil(stripMm - 0.05), topMm: Math.ceil(topMm - 0.05) };
      const same = list.find(
        (other) => other.method === strip.method && other.stripMm === strip.stripMm && other.topMm === strip.topMm,
      );
      if (same) same.count += copies;
      else list.push({ ...strip, count: copies });
    }
  }
  return list.sort((a, b) => b.stripMm - a.stripMm);
}
