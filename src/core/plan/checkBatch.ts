import { CURE_MODELS } from '../cure/cureModels';
import { COLDEST_C } from '../cure/temperature';
import { advise, type Problem } from '../model/problem';
import { cureTimes } from '../cure/cureLine';
import { curedLayerMm } from '../mixing/layers';
import { mixForPour, pourFromMix, smallestMixGrams } from '../mixing/losses';
import { type Product, setsInTheCup } from '../model/productSchema';
import { pouredDensity, ratioByWeight } from '../mixing/ratio';
import { colourantShares, DROP_TOLERANCE, type RecipeDose } from '../tint/doses';
import { isCloudy } from '../model/recipeSchema';
import { detailsSeenTo } from '../tint/visibility';
import { pourDoses, tintOptics } from '../tint/waterTint';
import { MOST_COLOURANT_SHARE, MOST_WATER_BASED_SHARE } from '../tint/limits';
import { formatMeasure, formatMinutes } from '../units/formatMeasure';
import type { Amounts } from './plan';
import { layerProduct, tintOfRequest, type AmountsRequest } from './request';

const grams = (value: number): string => formatMeasure(value, 'mass');
const percent = (value: number): string => `${(value * 100).toFixed(value < 0.0995 ? 1 : 0)}\u00a0%`;

/** Everything about the mix, the tint and the room that should be said before the first cup is opened. */
export const checkBatch = (request: AmountsRequest, plan: Amounts): Problem[] => [
  ...checkLevel(request, plan),
  ...checkLayers(request, plan),
  ...checkBuild(request, plan),
  ...checkHair(request, plan),
  ...checkCupHair(request, plan),
  ...checkHeat(request, plan),
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

/** Products that stay clear for so many layers only, each by the layers that are poured of it. */
function checkLayers(request: AmountsRequest, { layers }: Amounts): Problem[] {
  const ids = new Set(layers.map(({ productId }) => productId));
  return [...ids].flatMap((productId): Problem[] => {
    const product = layerProduct(request, { productId });
    const own = layers.filter((layer) => layer.productId === productId).length;
    if (product.mostLayers === null || own <= product.mostLayers) return [];
    const most = product.mostLayers * curedLayerMm(product);
    return [
      {
        severity: 'stop',
        code: 'too-many-layers',
        path: ['product'],
        message: `${product.name} stays clear for ${product.mostLayers} layers, ${formatMeasure(most, 'length')} in all; this bed needs ${own}.`,
        mend: advise('Choose another product for this depth, or a shallower bed.'),
      },
    ];
  });
}

/** Coats that no bed is deep enough for, and a finish that is put on too thick. */
function checkBuild({ build, set }: AmountsRequest, { layers, finish }: Amounts): Problem[] {
  if (!build) return [];
  const deepestMm = layers[0] ? set.levelMm - layers[0].fromMm : 0;
  const coatsMm = build.coats.reduce((sum, { thicknessMm }) => sum + thicknessMm, 0);
  const problems: Problem[] = [];
  if (layers.length > 0 && build.coats.length > 0 && coatsMm >= deepestMm - 1e-6)
    problems.push({
      severity: 'warn',
      code: 'coats-fill-all',
      path: ['build'],
      message: `The coats are ${formatMeasure(coatsMm, 'length')} thick together, and the deepest water is ${formatMeasure(deepestMm, 'length')}: nothing is left for the product beneath them.`,
      mend: advise('Make a coat thinner, or leave one out.'),
    });
  if (finish && build.finish && finish.wetMm > build.finish.product.greatestLayerMm + 1e-9)
    problems.push({
      severity: 'warn',
      code: 'finish-too-thick',
      path: ['build'],
      message: `A coat of ${finish.name.toLowerCase()} goes on ${formatMeasure(finish.wetMm, 'length', undefined, 2)} wet; it takes ${formatMeasure(build.finish.product.greatestLayerMm, 'length', undefined, 2)} at most.`,
      mend: advise('Thinner coats, and one more of them.'),
    });
  return problems;
}

/** Water that needs one layer more by no more than this is worth lowering. */
const HAIR_MM = 0.4;

/** A limit missed by a hair: how much lower one layer fewer would do, and what that saves. */
function checkHair(
  { product, room, set, losses }: AmountsRequest,
  { layers, pieces, product: { pouredDensity } }: Amounts,
): Problem[] {
  const first = layers[0];
  if (!first || layers.length < 2 || layers.some(({ productId }) => productId !== undefined)) return [];
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

/** So much of a two-part product in one piece and one layer keeps its heat, when the layer is thick. Typical; labels differ. */
const HOT_GRAMS = 300;
/** A layer is thick from here on, and from this share of what the label allows. */
const HOT_FROM_MM = 8;
const HOT_SHARE = 0.8;

/** A big mass that sets in one go: it heats up, may crack, bow its body or cloud. */
function checkHeat(request: AmountsRequest, { layers, pieces }: Amounts): Problem[] {
  return layers.flatMap((layer, i): Problem[] => {
    const { cureModel, greatestLayerMm, name } = layerProduct(request, layer);
    if (!setsInTheCup(cureModel)) return [];
    if (layer.wetMm < HOT_FROM_MM || layer.wetMm < HOT_SHARE * greatestLayerMm) return [];
    const hot = pieces.filter((piece) => piece.layers[i]!.pouredGrams > HOT_GRAMS);
    const [most] = [...hot].sort((a, b) => b.layers[i]!.pouredGrams - a.layers[i]!.pouredGrams);
    if (!most) return [];
    return [
      {
        severity: 'warn',
        code: 'heats-up',
        path: ['product'],
        message: `Layer ${layer.number} puts ${grams(most.layers[i]!.pouredGrams)} of ${name.toLowerCase()} into ${most.tag} at once, ${formatMeasure(layer.wetMm, 'length')} thick: a mass like that heats up as it sets.`,
        mend: advise(
          'Pour it in two layers, on a cool day, or test a waste mould first. The label’s greatest mass comes first.',
        ),
      },
    ];
  });
}

/** A layer that needs one cup more for no more than this share of a cup is worth lowering, or a larger cup. */
const CUP_HAIR_SHARE = 0.08;

/** A layer that misses one cup fewer by a hair: by how much, and the nearest mend. */
function checkCupHair(request: AmountsRequest, { layers, pieces }: Amounts): Problem[] {
  const { losses, set } = request;
  const surfaceMm2 = pieces.reduce((sum, { copies, water }) => sum + copies * water.surfaceCm2 * 100, 0);
  return layers.flatMap((layer, i): Problem[] => {
    const count = layer.cups.length;
    const product = layerProduct(request, layer);
    const most = layer.mostMix;
    const pours = layer.cups.reduce((sum, cup) => sum + cup.pours.length, 0);
    const over = layer.pouredGrams + pours * losses.perPieceGrams - (count - 1) * pourFromMix(most.grams, 0, losses);
    if (count < 2 || over <= 0 || over > CUP_HAIR_SHARE * most.grams) return [];
    const larger = mixForPour((layer.pouredGrams + pours * losses.perPieceGrams) / (count - 1), 0, losses);
    // Only the top layer gets thinner with the level.
    const lowerMm =
      i === layers.length - 1
        ? Math.ceil((over / (((surfaceMm2 / 1000) * pouredDensity(product)) / (1 - product.shrinkage))) * 10) / 10
        : Infinity;
    const fewer = count === 2 ? 'one does' : `${count - 1} do`;
    const how =
      most.limit === 'cup'
        ? `with a cup that holds ${formatMeasure(Math.ceil(larger), 'mass', undefined, 0)} ${fewer}, if it is poured in time`
        : `a little cooler, or with one piece less, ${fewer}`;
    return [
      {
        severity: 'hint',
        code: 'cup-by-a-hair',
        path: ['bench', 'cupGrams'],
        message: `Layer ${layer.number} misses one cup fewer by ${grams(over)}: ${how}. That saves ${grams(mixForPour(0, 0, losses))} of loss and a cup to stir.`,
        mend:
          lowerMm <= HAIR_MM
            ? {
                label: `Lower the level by ${formatMeasure(lowerMm, 'length')}`,
                target: 'set',
                path: ['levelMm'],
                value: Math.round((set.levelMm - lowerMm) * 100) / 100,
              }
            : advise(most.limit === 'cup' ? 'Take a larger cup for this layer.' : 'Leave one piece to the next batch.'),
      },
    ];
  });
}

function checkMix(request: AmountsRequest, { layers, mix }: Amounts): Problem[] {
  const { product, bench } = request;
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
  const coarse = layers.flatMap((layer) => {
    const { parts } = layerProduct(request, layer);
    const least = parts && smallestMixGrams(ratioByWeight(parts), bench.scaleStepGrams);
    return layer.cups.flatMap(({ mixGrams }) => (least !== null && mixGrams < least ? [{ mixGrams, least }] : []));
  });
  const [worst] = coarse.sort((x, y) => x.mixGrams / x.least - y.mixGrams / y.least);
  if (worst) {
    problems.push({
      severity: 'warn',
      code: 'scale-too-coarse',
      path: ['bench', 'scaleStepGrams'],
      message: `The smallest cup is ${grams(worst.mixGrams)}. A scale that shows ${formatMeasure(bench.scaleStepGrams, 'mass', undefined, 2)} gets the ratio right within 1 % from ${grams(worst.least)} up.`,
      mend: advise('Use a finer scale, or mix more and keep the rest for a base.'),
    });
  }
  return problems;
}

/** Where the lamp loses more than this of its blue light on the way down, what lies there stays soft. */
const LAMP_LOSS = 0.3;

/** How deep the lamp still hardens a tinted product: no deeper than the label has it. Typical; test a thin pour. */
function lampReachMm({ greatestLayerMm }: Pick<Product, 'greatestLayerMm'>, doses: readonly RecipeDose[]): number {
  const { absorption } = tintOptics({ clarity: 'water-clear', doses });
  return Math.min(greatestLayerMm, -Math.log(1 - LAMP_LOSS) / Math.max(absorption.blue, 1e-9));
}

function checkTint(request: AmountsRequest, { layers, mix, pieces }: Amounts): Problem[] {
  const { recipe } = request;
  const tints = layers.map(({ productId, wetMm, strength = 1, own }) => {
    const product = layerProduct(request, { productId });
    const doses = pourDoses(recipe.doses, { strength, own });
    return { product, wetMm, ...colourantShares(doses), reachMm: lampReachMm(product, doses) };
  });
  const total = Math.max(...tints.map((tint) => tint.total), 0);
  const waterBased = Math.max(...tints.map((tint) => tint.waterBased), 0);
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
  const [soft] = tints
    .filter(
      ({ product, total: own, reachMm, wetMm }) =>
        CURE_MODELS[product.cureModel].byLamp && own > 0 && reachMm < wetMm - 0.05,
    )
    .sort((a, b) => a.reachMm - b.reachMm);
  if (soft)
    problems.push({
      severity: 'warn',
      code: 'lamp-too-dark',
      path: ['recipe'],
      message: `Tinted like this the lamp hardens about ${soft.reachMm.toFixed(1)} mm; the layers are ${soft.wetMm.toFixed(1)} mm thick.`,
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
      severity: 'hint',
      code: 'drops-too-coarse',
      path: ['recipe'],
      message: `Whole drops would miss the recipe in ${off.length === 1 ? 'one dose' : `${off.length} doses`}, by ${percent(Math.abs(worst.dose.error))} at worst: ${off.length === 1 ? 'its cup says' : 'their cups say'} what to take instead, a stock tint, a premix or the scale.`,
      mend: advise(`The smallest cup in which drops come out right is ${grams(mix.smallestForDropsGrams)}.`),
    });
  }
  const lost = layers.flatMap((layer) =>
    layer.cups.flatMap((cup) =>
      cup.portions.flatMap(({ way, name }) =>
        way === 'too little' ? [{ name, layer: layer.number, cup: cup.number }] : [],
      ),
    ),
  );
  if (lost.length > 0)
    problems.push({
      severity: 'warn',
      code: 'tint-too-little',
      path: ['recipe'],
      message: `${[...new Set(lost.map(({ name }) => name))].join(', ')} cannot be measured in ${lost.length === 1 ? `layer ${lost[0]!.layer}, cup ${lost[0]!.cup}` : `${lost.length} cups`}: neither drops nor the scale are fine enough. That water stays paler.`,
      mend: advise('Pour it from a larger cup, take a weaker colourant, or a finer scale.'),
    });
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
  if (!setsInTheCup(product.cureModel) || room.temperatureC >= COLDEST_C) return [];
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
