import { pieceKey } from '../model/pieceRef';
import { closedRuns } from '../bed/dams';
import { checkDesign } from '../bed/checkDesign';
import type { Strays } from '../bed/measured';
import type { PieceDesign } from '../model/designSchema';
import { advise, type Problem } from '../model/problem';
import { moveBetweenCups, splitIntoCups, type Cup, type CupSplit, type InTime, type Pour } from '../mixing/cups';
import { splitLayers, type LayerLevels } from '../mixing/layers';
import { mixForPour, pourFromMix, smallestMixGrams } from '../mixing/losses';
import { mostMixGrams, potLifeMinutes, pouredInTime, usualPace, type MostMix } from '../mixing/potLife';
import type { Parts } from '../model/productSchema';
import { pouredDensity, ratioByVolume, ratioByWeight, splitParts, type PartAmounts } from '../mixing/ratio';
import { waterCost } from '../money/cost';
import { lossesOf, colourIn, layerPortions, type LayerTint, type Portion } from '../pouring/portions';
import { stockPart, tintings } from '../pouring/stockTint';
import { colourantShares, cupDoses, smallestDropMixGrams, type CupDose, type RecipeDose } from '../tint/doses';
import { pourDoses } from '../tint/waterTint';
import { formatMeasure } from '../units/formatMeasure';
import { bedKey, levelBed, surveyBed, type SurveyedBed } from './beds';
import { checkBatch } from './checkBatch';
import { checkBodies } from './checkBody';
import { withTimes, type Amounts, type LayerAmounts, type PiecePlan, type Plan, type ProductTotal } from './plan';
import {
  layerProduct,
  refOfPiece,
  requestOfLayer,
  stretchesOfRequest,
  type AmountsRequest,
  type PlanRequest,
} from './request';
import { checkPieces } from './checkPieces';
import { planPiece } from './planPiece';
import { planTimes } from './pourTimes';
import { EVEN_POUR, type PourTint } from '../model/tintSchema';

/** Where beds come from: built as they are asked for, or known from before. */
export type BedSource = (design: PieceDesign, strays: Strays) => SurveyedBed;

/** A source that builds each bed when it is first asked for, and keeps it for as long as it is held itself. */
export function bedsBuiltOnce(): BedSource {
  const beds = new Map<string, SurveyedBed>();
  return (design, strays) => {
    const key = bedKey(design, strays);
    const bed = beds.get(key) ?? surveyBed(design, undefined, strays);
    beds.set(key, bed);
    return bed;
  };
}

/**
 * The whole plan of a batch, from the beds to the cups, the cost and the cure. Pure: the same request gives the same plan.
 * Problems do not stop it; a plan with a `stop` among its problems must not be poured.
 */
export function planBatch(request: PlanRequest, bedOf = bedsBuiltOnce()): Plan {
  const amounts = planAmounts(request, bedOf);
  return withTimes(amounts, planTimes(amounts, request));
}

/** What is poured, mixed and spent: all of a plan that does not depend on when it is poured. */
export function planAmounts(request: AmountsRequest, bedOf = bedsBuiltOnce()): Amounts {
  const lowestMm = lowestBedMm(request, bedOf);
  return amountsOfPieces(request, lowestMm, planPieces(request, lowestMm, bedOf));
}

/*
 * The same in three steps, for beds that lie in several threads: each thread tells how deep its beds go, then plans its pieces in
 * the layers that follow for all of them, and the whole is put together from those.
 */

const levelBeds = ({ pieces, strays, set }: AmountsRequest, bedOf: BedSource): SurveyedBed[] =>
  pieces.map((design) => levelBed(bedOf(design, strays), design, set.levelMm));

/** How deep the beds of a request go, mm above the underside; Infinity without any. */
export const lowestBedMm = (request: AmountsRequest, bedOf: BedSource): number =>
  levelBeds(request, bedOf).reduce((least, { curve }) => Math.min(least, curve.lowestMm), Infinity);

const layersFrom = (request: AmountsRequest, lowestMm: number): LayerLevels[] =>
  splitLayers(lowestMm, request.set.levelMm, request.product, stretchesOfRequest(request));

/** What each piece of a request takes, in the layers of a batch whose beds go as deep as `lowestMm`. */
export function planPieces(request: AmountsRequest, lowestMm: number, bedOf: BedSource): PiecePlan[] {
  const levels = layersFrom(request, lowestMm);
  const beds = levelBeds(request, bedOf);
  return request.pieces.map((design, i) => planPiece(design, beds[i]!, levels, request));
}

/** The amounts of a batch from what its pieces take, which come in the order of the request. */
export function amountsOfPieces(request: AmountsRequest, lowestMm: number, pieces: PiecePlan[]): Amounts {
  const { product, recipe, bench, set } = request;
  const levels = layersFrom(request, lowestMm);
  const most = mostMixOf(requestOfLayer(request, {}), recipe.doses);
  const planned = levels.map((layer, index) => planLayer(layer, index, pieces, requestOfLayer(request, layer)));
  const layers = planned.map(({ layer }) => layer);
  const finish = planFinish(pieces, request);
  const totals = totalsOf(pieces, layers, finish, request);
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
      smallestForDropsGrams: smallestForAllPours(request),
    },
    totals,
    ...(finish && { finish }),
    ...(request.build?.plantsFirst && { plantsFirst: true }),
    cost: waterCost({
      water: productTotals(layers, finish, request).map(({ id, mixGrams, pouredGrams }) => {
        const { packPrice, packGrams } = productOf(request, id);
        return { mixGrams, pouredGrams, pricePerGram: packPrice / packGrams };
      }),
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

/** The mix in which whole drops are right in every pour of a recipe; null where all are clear. */
function smallestForAllPours({ recipe }: AmountsRequest): number | null {
  const smallest = (recipe.pours?.length ? recipe.pours : [EVEN_POUR]).flatMap(
    (pour) => smallestDropMixGrams(pourDoses(recipe.doses, pour)) ?? [],
  );
  return smallest.length > 0 ? Math.max(...smallest) : null;
}

/** More cups than this in one layer are no batch any more. */
const MOST_CUPS = 1000;

function planLayer(
  level: LayerLevels,
  index: number,
  pieces: readonly PiecePlan[],
  { pieces: designs, product, recipe, room, bench, losses: own, hands = 1, moves = [], standing = [] }: AmountsRequest,
): { layer: LayerAmounts; problems: Problem[] } {
  const doses = pourDoses(recipe.doses, level);
  const losses = lossesOf(product, doses, own);
  const { grams: mostGrams, limit } = mostMixOf({ product, room, bench, hands }, doses);
  const pace = usualPace(product, hands);
  const inTime: InTime = (mix, count) => pouredInTime(product, room.temperatureC, mix, count, pace);
  const pouredGrams = pieces.reduce((sum, piece) => sum + piece.copies * piece.layers[index]!.pouredGrams, 0);
  const roughly = Math.ceil(pouredGrams / mostGrams);
  // What a cup keeps for itself leaves nothing to pour.
  const tooSmall = pourFromMix(mostGrams, 1, losses) <= 0;
  const tooMany = tooSmall || roughly > MOST_CUPS;
  const pours: Pour[] = tooMany
    ? []
    : pieces.flatMap(({ designId, copyNumbers, layers }, i) =>
        copyNumbers.map((copy) => ({ designId, copy, tag: designs[i]!.tag, grams: layers[index]!.pouredGrams })),
      );
  const { cups: split, fewestPossible } = tooMany
    ? NO_CUPS
    : splitIntoCups(asTheyStand(pours, standing), mostGrams, losses, inTime);
  const moved = moves.filter((move) => move.layer === level.number);
  const cups = moveBetweenCups(split, moved, losses);
  const made = inCups({ product, recipe, room, bench, hands }, level, cups);
  const layer = {
    ...level,
    volumeMl: pieces.reduce((total, piece) => total + piece.copies * piece.layers[index]!.volumeMl, 0),
    pouredGrams,
    ...made,
    ...(tooMany && sumOfMix(mixForPour(pouredGrams, roughly, losses), doses, product)),
    fewestCups: tooMany ? roughly : fewestPossible,
  };
  const overfull = cups.filter(
    (cup) => moved.length > 0 && (cup.mixGrams > mostGrams + 0.05 || !inTime(cup.mixGrams, cup.pours.length)),
  );
  return {
    layer,
    problems: [
      ...(tooSmall
        ? [tooSmallCup(level.number, mostGrams, limit)]
        : tooMany
          ? [tooManyCups(level.number, pouredGrams, roughly)]
          : []),
      ...overfull.map((cup) => overfullCup(level.number, cup, mostGrams)),
    ],
  };
}

/** What a mix of so many grams takes of the parts of a product and of colourants. */
const sumOfMix = (
  mixGrams: number,
  doses: readonly RecipeDose[],
  { parts }: AmountsRequest['product'],
): Pick<LayerAmounts, 'mixGrams' | 'parts' | 'doses'> => ({
  mixGrams,
  parts: parts && splitParts(mixGrams, parts),
  doses: cupDoses(doses, mixGrams),
});

/** The cups of a layer with all that goes into each, and their sums. */
function inCups(
  request: Pick<AmountsRequest, 'product' | 'recipe' | 'room' | 'bench' | 'hands'>,
  tint: PourTint,
  cups: readonly Cup[],
): Pick<LayerAmounts, 'mixGrams' | 'parts' | 'doses' | 'cups' | keyof LayerTint | 'mostMix'> {
  const { product, room } = request;
  const doses = pourDoses(request.recipe.doses, tint);
  const { portions, ...made } = madeUp(
    request,
    tint,
    cups.map((cup) => cup.mixGrams),
  );
  return {
    ...sumOfMix(
      cups.reduce((total, cup) => total + cup.mixGrams, 0),
      doses,
      product,
    ),
    ...made,
    cups: cups.map((cup, i) => ({
      ...cup,
      ...sumOfMix(cup.mixGrams, doses, product),
      portions: portions[i]!,
      potLifeMinutes: potLifeMinutes(product, room.temperatureC, cup.mixGrams),
    })),
  };
}

/** A layer of a plan for some of its pours only, shared among cups of their own; the first of them has the number `firstCup`. */
export function restOfLayer(
  request: AmountsRequest,
  layer: LayerAmounts,
  pours: readonly Pour[],
  firstCup: number,
): LayerAmounts {
  const own = requestOfLayer(request, layer);
  const { product, room, hands } = own;
  const doses = pourDoses(own.recipe.doses, { strength: 1, ...layer });
  const losses = lossesOf(product, doses, own.losses);
  const { grams: mostGrams } = mostMixOf(own, doses);
  const pace = usualPace(product, hands);
  const { cups, fewestPossible } = splitIntoCups(pours, mostGrams, losses, (mix, count) =>
    pouredInTime(product, room.temperatureC, mix, count, pace),
  );
  const pouredGrams = pours.reduce((sum, { grams }) => sum + grams, 0);
  return {
    ...layer,
    ...inCups(
      own,
      { strength: 1, ...layer },
      cups.map((cup, i) => ({ ...cup, number: firstCup + i })),
    ),
    volumeMl: layer.pouredGrams > 0 ? (layer.volumeMl * pouredGrams) / layer.pouredGrams : 0,
    pouredGrams,
    fewestCups: fewestPossible,
  };
}

/** The most that one mix of a layer may hold, its colourants counted in. */
export const mostMixOf = (
  { product, room, bench, hands }: Pick<AmountsRequest, 'product' | 'room' | 'bench' | 'hands'>,
  doses: readonly RecipeDose[],
): MostMix =>
  mostMixGrams(product, room.temperatureC, bench.cupGrams, colourantShares(doses).total, usualPace(product, hands));

/** What the cups of a layer are made up of: a request of that layer's own product, its tint, and what each cup holds. */
export function madeUp(
  { recipe, ...request }: Pick<AmountsRequest, 'product' | 'recipe' | 'room' | 'bench' | 'hands'>,
  tint: PourTint,
  cupsGrams: readonly number[],
): LayerTint & { mostMix: MostMix; portions: Portion[][] } {
  const doses = pourDoses(recipe.doses, tint);
  const { cups: portions, ...made } = layerPortions(cupsGrams, {
    recipe: tintings(doses),
    resinShare: stockPart(request.product).share,
    scaleStepGrams: request.bench.scaleStepGrams,
  });
  return { ...made, mostMix: mostMixOf(request, doses), portions };
}

/** Pours in the order in which their pieces stand; those that stand nowhere come after, as they were. */
function asTheyStand(pours: readonly Pour[], standing: readonly { designId: string; copy: number }[]): readonly Pour[] {
  if (standing.length === 0) return pours;
  const places = new Map(standing.map((piece, i) => [pieceKey(piece), i]));
  const placeOf = ({ designId, copy }: Pour): number => places.get(pieceKey({ designId, copy })) ?? Infinity;
  return pours
    .map((pour, i) => ({ pour, place: placeOf(pour), i }))
    .sort((a, b) => (a.place === b.place ? a.i - b.i : a.place - b.place))
    .map(({ pour }) => pour);
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

/** A cup that its own losses would use up; where the pot life makes it so small, the field of that. */
const tooSmallCup = (layer: number, mostGrams: number, limit: 'cup' | 'pot life'): Problem => ({
  severity: 'stop',
  code: 'too-many-cups',
  path: limit === 'pot life' ? ['product', 'potLifeMinutes'] : ['losses', 'perCupGrams'],
  message: `Layer ${layer}: a cup may hold ${mostGrams.toFixed(1)}\u00a0g${limit === 'pot life' ? ' before it sets' : ''}, and as much stays in it: nothing is left to pour.`,
  mend: advise(
    limit === 'pot life'
      ? 'Check the pot life against the label, or take a slower product.'
      : 'Check what stays in a cup, or take a larger cup.',
  ),
});

const NO_CUPS: CupSplit = { cups: [], fewestPossible: 0 };

const tooManyCups = (layer: number, grams: number, cups: number): Problem => ({
  severity: 'stop',
  code: 'too-many-cups',
  path: ['bench', 'cupGrams'],
  message: `Layer ${layer} takes ${(grams / 1000).toFixed(0)}\u00a0kg in about ${cups} cups; a batch takes at most ${MOST_CUPS} cups a layer.`,
  mend: advise('Take fewer copies into this batch, or a larger cup.'),
});

/** What all layers take of each colourant as it is measured, what is left of stocks and premixes with it; drops are those of the sum. */
function totalDoses(recipe: readonly RecipeDose[], layers: readonly LayerAmounts[]): CupDose[] {
  return recipe.flatMap(({ colourant }) => {
    const grams = layers.reduce(
      (sum, { cups, tintLeft }) =>
        cups.reduce(
          (all, { portions }) => all + colourIn(portions, colourant.id),
          sum + colourIn([tintLeft], colourant.id),
        ),
      0,
    );
    return cupDoses([{ colourant, gramsPer100: grams }], 100);
  });
}

/** The film that goes over the surface at the end; a brush and its pot lose as a cup and a piece do. Undefined where there is none. */
function planFinish(pieces: readonly PiecePlan[], { build, losses }: AmountsRequest): Amounts['finish'] {
  if (!build?.finish) return undefined;
  const { product, filmMm, coats } = build.finish;
  const wetMm = filmMm / (1 - product.shrinkage);
  const surfaceMm2 = pieces.reduce((sum, { copies, water }) => sum + copies * water.surfaceCm2 * 100, 0);
  const count = pieces.reduce((sum, { copies }) => sum + copies, 0);
  const eachGrams = ((surfaceMm2 * wetMm) / 1000) * pouredDensity(product);
  return {
    productId: product.id,
    name: product.name,
    coats,
    filmMm,
    wetMm,
    pouredGrams: coats * eachGrams,
    mixGrams: surfaceMm2 > 0 ? coats * mixForPour(eachGrams, count, losses) : 0,
  };
}

/** A product of a request by its id. */
export const productOf = (request: AmountsRequest, id: string): AmountsRequest['product'] =>
  request.build?.finish?.product.id === id ? request.build.finish.product : layerProduct(request, { productId: id });

/** What each product of a batch comes to: the one that fills the bed first, then its coats, then the finish. */
function productTotals(
  layers: readonly LayerAmounts[],
  finish: Amounts['finish'],
  request: AmountsRequest,
): ProductTotal[] {
  const poured = layers.map(({ productId = request.product.id, pouredGrams, mixGrams, tintLeft }) => ({
    productId,
    pouredGrams,
    mixGrams,
    leftGrams: tintLeft.resinGrams,
  }));
  const all = finish ? [...poured, { ...finish, leftGrams: 0 }] : poured;
  const ids = new Set([request.product.id, ...all.map(({ productId }) => productId)]);
  return [...ids].map((id) => {
    const own = all.filter(({ productId }) => productId === id);
    const { name, parts } = productOf(request, id);
    const inCups = own.reduce((sum, layer) => sum + layer.mixGrams, 0);
    const leftGrams = own.reduce((sum, layer) => sum + layer.leftGrams, 0);
    return {
      id,
      name,
      mixGrams: inCups + leftGrams,
      pouredGrams: own.reduce((sum, layer) => sum + layer.pouredGrams, 0),
      parts: parts && withPartA(splitParts(inCups, parts), leftGrams, parts),
    };
  });
}

/** Parts with so much more of part A: what stocks and premixes keep for themselves. */
const withPartA = (amounts: PartAmounts, grams: number, { densityA }: Parts): PartAmounts => ({
  ...amounts,
  partAGrams: amounts.partAGrams + grams,
  partAMl: amounts.partAMl + grams / densityA,
});

function totalsOf(
  pieces: readonly PiecePlan[],
  layers: readonly LayerAmounts[],
  finish: Amounts['finish'],
  request: AmountsRequest,
): Plan['totals'] {
  const { product, recipe } = request;
  const products = productTotals(layers, finish, request);
  const overPieces = (pick: (piece: PiecePlan) => number): number =>
    pieces.reduce((sum, piece) => sum + piece.copies * pick(piece), 0);
  const mixGrams = layers.reduce((sum, layer) => sum + layer.mixGrams, 0);
  return {
    pieces: overPieces(() => 1),
    volumeMl: overPieces((piece) => piece.water.volumeMl),
    surfaceCm2: overPieces((piece) => piece.water.surfaceCm2),
    pouredGrams: layers.reduce((sum, layer) => sum + layer.pouredGrams, 0),
    mixGrams,
    parts: products.find(({ id }) => id === product.id)?.parts ?? null,
    // One that is only mixed and poured is said by the totals themselves.
    ...((products.length > 1 || products[0]!.mixGrams !== mixGrams) && { products }),
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
