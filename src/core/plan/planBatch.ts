import { closedRuns } from '../bed/dams';
import { checkDesign } from '../bed/checkDesign';
import type { PieceDesign } from '../bed/schema';
import { splitIntoCups, type Pour } from '../mixing/cups';
import { splitLayers, type LayerLevels } from '../mixing/layers';
import { smallestMixGrams } from '../mixing/losses';
import { mostMixGrams, potLifeMinutes } from '../mixing/potLife';
import { pouredDensity, ratioByVolume, ratioByWeight, splitParts } from '../mixing/ratio';
import { waterCost } from '../money/cost';
import { cupDoses, smallestDropMixGrams } from '../tint/doses';
import { levelBed, surveyBed, type SurveyedBed } from './beds';
import { checkBatch } from './checkBatch';
import { checkBodies } from './checkBody';
import type { LayerPlan, PiecePlan, Plan } from './plan';
import type { PlanRequest } from './request';
import { checkPieces } from './checkPieces';
import { planPiece } from './planPiece';
import { scheduleLayers } from './schedule';

/** Where beds come from: built anew, or from a cache keyed by `bedKey`. */
export type BedSource = (design: PieceDesign) => SurveyedBed;

/**
 * The whole plan of a batch, from the beds to the cups, the cost and the cure. Pure: the same request gives the same plan.
 * Problems do not stop it; a plan with a `stop` among its problems must not be poured.
 */
export function planBatch(request: PlanRequest, bedOf: BedSource = (design) => surveyBed(design)): Plan {
  const { product, recipe, bench, set } = request;
  const beds = request.pieces.map((design) => levelBed(bedOf(design), design, set.levelMm));
  const deepest = Math.min(...beds.map((bed) => bed.curve.lowestMm));
  const levels = splitLayers(deepest, set.levelMm, product);
  const pieces = request.pieces.map((design, i) => planPiece(design, beds[i]!, levels, request));
  const most = mostMixGrams(product, request.room.temperatureC, bench.cupGrams);
  const uncured = levels.map((layer, index) => planLayer(layer, index, pieces, most.grams, request));
  const { cures, problems } = scheduleLayers(
    request,
    uncured.map((layer) => ({ ...layer, cups: layer.cups.length })),
  );
  const layers: LayerPlan[] = uncured.map((layer, i) => ({ ...layer, cure: cures[i]! }));
  const totals = totalsOf(pieces, layers, request);
  const plan: Plan = {
    format: 'aguada.plan',
    version: 1,
    set,
    product: {
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
    doneAt: layers.reduce<string | null>(
      (last, { cure }) => (last && last > cure.fullCureAt ? last : cure.fullCureAt),
      null,
    ),
    problems: [...request.pieces.flatMap((design) => checkDesign(design, set.levelMm)), ...problems],
  };
  return {
    ...plan,
    problems: [
      ...plan.problems,
      ...checkPieces(request, plan),
      ...checkBodies(request, plan),
      ...checkBatch(request, plan),
    ],
  };
}

/** What stands on the piece: its design's tag and which copy it is. A measured copy's own tag carries its number already. */
function pieceName({ tag, copyNumbers, measured }: PieceDesign, nth: number): Pick<Pour, 'tag' | 'copy'> {
  return { tag: measured ? tag.replace(/ #\d+$/, '') : tag, copy: copyNumbers?.[nth] ?? nth + 1 };
}

function planLayer(
  layer: LayerLevels,
  index: number,
  pieces: readonly PiecePlan[],
  mostGrams: number,
  { pieces: designs, product, recipe, room }: PlanRequest,
): Omit<LayerPlan, 'cure'> {
  const pours: Pour[] = pieces.flatMap((piece, i) =>
    Array.from({ length: piece.copies }, (_, nth) => ({
      ...pieceName(designs[i]!, nth),
      grams: piece.layers[index]!.pouredGrams,
    })),
  );
  const { cups, fewestPossible } = splitIntoCups(pours, mostGrams);
  const sum = (pick: (cup: (typeof cups)[number]) => number): number =>
    cups.reduce((total, cup) => total + pick(cup), 0);
  const mixGrams = sum((cup) => cup.mixGrams);
  return {
    ...layer,
    volumeMl: pieces.reduce((total, piece) => total + piece.copies * piece.layers[index]!.volumeMl, 0),
    pouredGrams: sum((cup) => cup.pouredGrams),
    mixGrams,
    parts: product.parts && splitParts(mixGrams, product.parts),
    doses: cupDoses(recipe.doses, mixGrams),
    fewestCups: fewestPossible,
    cups: cups.map((cup) => ({
      ...cup,
      parts: product.parts && splitParts(cup.mixGrams, product.parts),
      doses: cupDoses(recipe.doses, cup.mixGrams),
      potLifeMinutes: potLifeMinutes(product, room.temperatureC, cup.mixGrams),
    })),
  };
}

function totalsOf(
  pieces: readonly PiecePlan[],
  layers: readonly LayerPlan[],
  { product, recipe }: PlanRequest,
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
    doses: cupDoses(recipe.doses, mixGrams),
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
