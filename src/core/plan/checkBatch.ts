import { CURE_MODELS } from '../cure/cureModels';
import { advise, type Problem } from '../checks/problem';
import { cureTimes } from '../cure/cureLine';
import { curedLayerMm } from '../mixing/layers';
import { atStrength, colourantShares, DROP_TOLERANCE } from '../tint/doses';
import { isCloudy } from '../tint/schema';
import { detailsSeenTo } from '../tint/visibility';
import { tintOptics } from '../tint/waterTint';
import { MOST_COLOURANT_SHARE, MOST_WATER_BASED_SHARE } from '../tint/limits';
import { formatMeasure, formatMinutes } from '../units/formatMeasure';
import type { Amounts } from './plan';
import { tintOfRequest, type AmountsRequest } from './request';

const grams = (value: number): string => formatMeasure(value, 'mass');
const percent = (value: number): string => `${(value * 100).toFixed(value < 0.0995 ? 1 : 0)}\u00a0%`;
/** Below this, most two-part products cure slowly, cloudy, or not right through. */
const COLD_C = 15;

/** Everything about the mix, the tint and the room that should be said before the first cup is opened. */
export const checkBatch = (request: AmountsRequest, plan: Amounts): Problem[] => [
  ...checkLevel(request, plan),
  ...checkLayers(request, plan),
  ...checkHair(request, plan),
  ...checkMix(request, plan),
  ...checkTint(request, plan),
  ...checkRoom(request),
];

function checkLevel({ set }: AmountsRequest, { pieces }: Amounts): Problem[] {
  return pieces
    .filter((piece) => piece.water.volumeMl === 0)
    .map((piece) => ({
      severity: 'stop',
      code: 'dry',
      piece: { designId: piece.designId, copy: piece.copy },
      path: ['levelMm'],
      message: `${piece.tag} stays dry: its bed nowhere lies below the level ${formatMeasure(set.levelMm, 'length')}.`,
      mend: advise('Raise the level of the set, or deepen the bed.'),
    }));
}

function checkLayers({ product }: AmountsRequest, { layers }: Amounts): Problem[] {
  if (product.mostLayers === null || layers.length <= product.mostLayers) return [];
  const most = product.mostLayers * curedLayerMm(product);
  return [
    {
      severity: 'stop',
      code: 'too-many-layers',
      path: ['product'],
      message: `${product.name} stays clear for ${product.mostLayers} layers, ${formatMeasure(most, 'length')} in all; this bed needs ${layers.length}.`,
      mend: advise('Choose another product for this depth, or a shallower bed.'),
    },
  ];
}

/** Water that needs one layer more by no more than this is worth lowering. */
const HAIR_MM = 0.4;

/** A limit missed by a hair: how much lower one layer fewer would do, and what that saves. */
function checkHair(
  { product, room, set, losses }: AmountsRequest,
  { layers, pieces, product: { pouredDensity } }: Amounts,
): Problem[] {
  const first = layers[0];
  if (!first || layers.length < 2) return [];
  const overMm = set.levelMm - first.fromMm - (layers.length - 1) * curedLayerMm(product);
  const lowerMm = Math.ceil(overMm * 10 - 1e-6) / 10;
  if (!(overMm > 0) || lowerMm > HAIR_MM) return [];
  const surfaceMm2 = pieces.reduce((sum, { copies, water }) => sum + copies * water.surfaceCm2 * 100, 0);
  const cupsSaved = layers.at(-1)!.cups.length;
  const gramsLess =
    ((surfaceMm2 * lowerMm) / 1000) * (pouredDensity / (1 - product.shrinkage)) + cupsSaved * losses.perCupGrams;
  const wait = cureTimes(product, room, first.wetMm).recoatOpens;
  const fewer = layers.length === 2 ? 'one layer does' : `${layers.length - 1} layers do`;
  const wetMm = (set.levelMm - first.fromMm) / (1 - product.shrinkage);
  return [
    {
      severity: 'hint',
      code: 'layer-by-a-hair',
      path: ['levelMm'],
      message: `The deepest water takes ${formatMeasure(wetMm, 'length', undefined, 2)} wet, a hair more than ${layers.length === 2 ? 'one layer' : `${layers.length - 1} layers`} of ${product.name.toLowerCase()}. ${formatMeasure(lowerMm, 'length')} lower and ${fewer}: ${formatMinutes(wait)} of waiting and ${grams(gramsLess)} less.`,
      mend: {
        label: `Lower the level by ${formatMeasure(lowerMm, 'length')}`,
        target: 'set',
        path: ['levelMm'],
        value: Math.round((set.levelMm - lowerMm) * 100) / 100,
      },
    },
  ];
}

function checkMix({ product, bench }: AmountsRequest, { layers, mix }: Amounts): Problem[] {
  const cups = layers.flatMap((layer) => layer.cups);
  const problems: Problem[] = [];
  if (mix.limit === 'pot life') {
    problems.push({
      severity: 'hint',
      code: 'pot-life-limits',
      path: ['product'],
      message: `At this temperature one cup of ${product.name.toLowerCase()} may hold ${grams(mix.mostGrams)} at most: more would set before it is poured.`,
      mend: advise('The cups below are sized for that.'),
    });
  }
  const smallest = cups.reduce((least, cup) => Math.min(least, cup.mixGrams), Infinity);
  if (mix.smallestForScaleGrams !== null && smallest < mix.smallestForScaleGrams) {
    problems.push({
      severity: 'warn',
      code: 'scale-too-coarse',
      path: ['bench', 'scaleStepGrams'],
      message: `The smallest cup is ${grams(smallest)}. A scale that shows ${formatMeasure(bench.scaleStepGrams, 'mass', undefined, 2)} gets the ratio right within 1 % from ${grams(mix.smallestForScaleGrams)} up.`,
      mend: advise('Use a finer scale, or mix more and keep the rest for a base.'),
    });
  }
  return problems;
}

/** Where the lamp loses more than this of its blue light on the way down, what lies there stays soft. */
const LAMP_LOSS = 0.3;

/** How deep the lamp still hardens a tinted product: no deeper than the label has it. Typical; test a thin pour. */
function lampReachMm({ product, recipe }: AmountsRequest, strongest: number): number {
  const { absorption } = tintOptics({ clarity: 'water-clear', doses: recipe.doses }, strongest);
  return Math.min(product.greatestLayerMm, -Math.log(1 - LAMP_LOSS) / Math.max(absorption.blue, 1e-9));
}

function checkTint(request: AmountsRequest, { layers, mix, pieces }: Amounts): Problem[] {
  const { recipe, product } = request;
  const strongest = Math.max(...layers.map(({ strength = 1 }) => strength), 0);
  const { total, waterBased } = colourantShares(atStrength(recipe.doses, strongest));
  const problems: Problem[] = [];
  if (total > MOST_COLOURANT_SHARE)
    problems.push({
      severity: 'warn',
      code: 'too-much-colourant',
      path: ['recipe'],
      message: `The recipe is ${percent(total)} colourant; over ${percent(MOST_COLOURANT_SHARE)} most products cure soft.`,
      mend: advise('Use a stronger colourant, or less of it.'),
    });
  if (waterBased > MOST_WATER_BASED_SHARE)
    problems.push({
      severity: 'warn',
      code: 'too-much-water',
      path: ['recipe'],
      message: `The recipe is ${percent(waterBased)} water-based colourant; over ${percent(MOST_WATER_BASED_SHARE)} resin turns cloudy or stays sticky.`,
      mend: advise('Change part of it for an alcohol ink or a resin dye.'),
    });
  const thickest = Math.max(...layers.map(({ wetMm }) => wetMm), 0);
  if (product.cureModel === 'lamp' && total > 0 && lampReachMm(request, strongest) < thickest - 0.05)
    problems.push({
      severity: 'warn',
      code: 'lamp-too-dark',
      path: ['recipe'],
      message: `Tinted like this the lamp hardens about ${lampReachMm(request, strongest).toFixed(1)} mm; the layers are ${thickest.toFixed(1)} mm thick.`,
      mend: advise('Pour thinner layers, tint less, or leave the tint to the painted bed. Test a thin pour first.'),
    });
  problems.push(...checkCloudy(request, pieces));
  const top = recipe.pours && recipe.pours.length > 1 ? recipe.pours[0]!.thicknessMm : null;
  const shallow = top === null ? [] : pieces.filter(({ water }) => water.greatestDepthMm <= top + 0.05);
  if (shallow.length > 0)
    problems.push({
      severity: 'hint',
      code: 'shallower-than-top-pour',
      path: ['recipe'],
      message: `${shallow.map(({ tag }) => tag).join(', ')} ${shallow.length === 1 ? 'is' : 'are'} no deeper than the top pour: there is height for that one only, and none of the darker ones.`,
      mend: advise('Give the top pour less thickness, or these pieces a recipe of their own.'),
    });
  const off = layers
    .flatMap((layer) =>
      layer.cups.flatMap((cup) => cup.doses.map((dose) => ({ layer: layer.number, cup: cup.number, dose }))),
    )
    .filter(({ dose }) => dose.grams > 0 && Math.abs(dose.error) > DROP_TOLERANCE);
  if (off.length > 0 && mix.smallestForDropsGrams !== null) {
    const worst = off.reduce((a, b) => (Math.abs(b.dose.error) > Math.abs(a.dose.error) ? b : a));
    problems.push({
      severity: 'warn',
      code: 'drops-too-coarse',
      path: ['recipe'],
      message: `Whole drops miss the recipe in ${off.length === 1 ? 'one dose' : `${off.length} doses`}; worst is ${worst.dose.name.toLowerCase()} in layer ${worst.layer}, cup ${worst.cup}: ${percent(Math.abs(worst.dose.error))} ${worst.dose.error > 0 ? 'too much' : 'too little'}.`,
      mend: advise(
        `Each such cup says what to do instead: weigh it, or take it from a premix. The smallest cup in which drops come out right is ${grams(mix.smallestForDropsGrams)}.`,
      ),
    });
  }
  return problems;
}

/** Cloudy colourants hide the bed: from which depth on, and what lies deeper is lost. */
function checkCloudy(request: AmountsRequest, pieces: Amounts['pieces']): Problem[] {
  const cloudy = request.recipe.doses.filter(({ colourant, gramsPer100 }) => gramsPer100 > 0 && isCloudy(colourant));
  const bed = request.pieces[0];
  if (cloudy.length === 0 || !bed) return [];
  const deepestMm = Math.max(...pieces.map(({ water }) => water.greatestDepthMm));
  const seen = detailsSeenTo(bed.bedColour, tintOfRequest(request), 'at arm’s length');
  const lostMm = Math.max(seen.dark ?? Infinity, seen.mid ?? Infinity, seen.light ?? Infinity);
  if (lostMm >= deepestMm) return [];
  return [
    {
      severity: 'hint',
      code: 'cloudy-colourant',
      path: ['recipe'],
      message: `${cloudy.map(({ colourant }) => colourant.name).join(' and ')} ${cloudy.length === 1 ? 'makes' : 'make'} the water cloudy: below ${formatMeasure(lostMm, 'length')} nothing of the bed is seen, and the deepest is ${formatMeasure(deepestMm, 'length')}.`,
      mend: advise('Right for silt and glacier melt; for clear water take an ink, an alcohol ink or a resin dye.'),
    },
  ];
}

function checkRoom({ room, product }: AmountsRequest): Problem[] {
  if (!CURE_MODELS[product.cureModel].setsInTheCup || room.temperatureC >= COLD_C) return [];
  return [
    {
      severity: 'warn',
      code: 'cold-room',
      path: ['room', 'temperatureC'],
      message: `At ${formatMeasure(room.temperatureC, 'temperature')} many resins cure cloudy or stay soft.`,
      mend: advise('Warm the room and the bottles to 20 °C or more, and keep them there until demould.'),
    },
  ];
}
