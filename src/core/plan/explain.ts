import { DAM_MARGIN_MM, DAM_OVERLAP_MM } from '../bed/dams';
import { DAM_FACTS } from '../model/damMethods';
import { capillaryLengthMm, LIQUID_DENSITY, SURFACE_TENSION } from '../bed/meniscus';
import { pieceKey, samePiece, type PieceRef } from '../model/pieceRef';
import { shortTime } from '../time/dayNames';
import { CURE_MODELS, PER_TEN_DEGREES } from '../cure/cureModels';
import { CUP_EXPONENT, LABEL_CUP_GRAMS, LEAST_LIFE, MOST_LIFE } from '../mixing/potLife';
import { RATIO_WRONG } from '../mixing/ratio';
import { formatMeasure, formatMinutes, formatMoney, type UnitPreferences } from '../units/formatMeasure';
import type { Quantity } from '../units/quantities';
import { BODY_EXPLAINERS, BODY_FIGURES } from './explainBody';
import type { Context, Explanation, PieceContext } from './explanation';
import type { Losses } from '../mixing/losses';
import { colourIn, lossesOf } from '../pouring/portions';
import type { PiecePlan, Plan, PoolPlan } from './plan';
import { productsOf, refOfPiece } from './request';
import { setsInTheCup } from '../model/productSchema';

export const PIECE_FIGURES = [
  'volume',
  'grams',
  'surface',
  'greatestDepth',
  'meanDepth',
  'layers',
  'dams',
  'meniscus',
  'brim',
  'tilt',
  ...BODY_FIGURES,
] as const;
export type PieceFigure = (typeof PIECE_FIGURES)[number];
export const BATCH_FIGURES = [
  'volume',
  'poured',
  'mix',
  'partA',
  'partB',
  'drops',
  'cups',
  'dams',
  'cost',
  'cureFactor',
  'potLife',
  'done',
] as const;
export type BatchFigure = (typeof BATCH_FIGURES)[number];

export const say =
  (prefs: UnitPreferences) =>
  (value: number, quantity: Quantity, decimals?: number): string =>
    formatMeasure(value, quantity, prefs, decimals);
/** What is lost on the way, in words. */
const lossWords = ({ perPieceGrams, perCupGrams, share }: Losses): string =>
  perPieceGrams + perCupGrams > 0
    ? `What reaches the pieces, and what does not: ${perPieceGrams}\u00a0g a pour, ${perCupGrams}\u00a0g a cup and ${percent(share)} of the mix.`
    : `What reaches the pieces, and ${percent(share)} that does not. Straight out of the bottle nothing stays in a cup.`;

const percent = (share: number): string => `${Number((share * 100).toFixed(1))}\u00a0%`;

/** How a bed was made, after “a bed”. */
export const MADE_WORDS: Record<PiecePlan['madeBy'], string> = {
  'by hand': 'carved by hand as drawn',
  'to a template': 'cut to a template',
  printed: 'printed as drawn',
  scanned: 'as scanned',
};

/** How one piece's figure came about. */
export function explainPiece(figure: PieceFigure, ref: PieceRef, context: PieceContext): Explanation {
  const piece = context.plan.pieces.find((candidate) => samePiece(candidate, ref));
  if (!piece) throw new RangeError(`There is no piece ${pieceKey(ref)} in this plan`);
  return PIECE_EXPLAINERS[figure](piece, context);
}

/** Which edges of a piece are drawn to a standard. */
function jointWords(ref: PieceRef, { pieces }: PieceContext['request']): string[] {
  const joints = pieces.find((piece) => samePiece(refOfPiece(piece), ref))?.joints ?? [];
  return joints.length === 0
    ? []
    : [
        `Drawn to a standard: ${joints.map(({ edge, standard }) => `${edge} to ${standard.name} over ${standard.blendMm}\u00a0mm`).join(', ')}.`,
      ];
}

const PIECE_EXPLAINERS: Record<PieceFigure, (piece: PiecePlan, context: PieceContext) => Explanation> = {
  volume: (piece, { request, prefs }) => ({
    title: 'Water in each',
    formula: 'The bed is measured in small cells. Each cell below the level adds its area times its depth.',
    inputs: [
      { label: 'Level above the underside', value: say(prefs)(request.set.levelMm, 'length') },
      { label: 'Cells', value: `${piece.cellMm} × ${piece.cellMm}\u00a0mm` },
      { label: 'Piece', value: say(prefs)(piece.outlineCm2 * 100, 'area') },
    ],
    assumptions: [
      'The bed is as drawn; a hand-carved one differs.',
      ...jointWords(piece, request),
      'Water reaches every part of the bed below the level.',
      'What creeps up walls and dams comes on top.',
    ],
    estimate: true,
  }),
  grams: (piece, { request, plan, prefs }) => ({
    title: 'To pour into each',
    formula:
      'Water in each and what creeps up walls and dams, ÷ (1 − shrinkage) × density of the mix, so that the cured surface reaches the level.',
    inputs: [
      { label: 'Water in each', value: say(prefs)(piece.water.volumeMl, 'volume') },
      { label: 'Creeps up walls and dams', value: say(prefs)(piece.meniscus.ml, 'volume', 2) },
      {
        label: `Density, ${request.product.name.toLowerCase()}`,
        value: `${plan.product.pouredDensity.toFixed(3)}\u00a0g/ml`,
      },
      { label: 'Shrinkage', value: percent(request.product.shrinkage) },
      {
        label: piece.measured ? '± left by what was measured' : `± of a bed ${MADE_WORDS[piece.madeBy]}`,
        value: say(prefs)(piece.uncertainGrams, 'mass'),
      },
    ],
    assumptions: [
      `The ± holds in 19 of 20 cases: a bed ${MADE_WORDS[piece.madeBy]} strays by about ${Math.hypot(request.strays[piece.madeBy].offsetMm, request.strays[piece.madeBy].wanderMm).toFixed(1)} mm, nearby places together; depth readings or a fill test narrow it.`,
      'Density and shrinkage are typical for the kind of product unless you changed them on the shelf.',
    ],
    estimate: true,
  }),
  surface: (piece, { request, prefs }) => ({
    title: 'Surface',
    formula: 'The area of all cells that lie below the level.',
    inputs: [
      { label: 'Level', value: say(prefs)(request.set.levelMm, 'length') },
      { label: 'Whole piece', value: say(prefs)(piece.outlineCm2 * 100, 'area') },
    ],
    assumptions: ['The bed is as drawn.'],
    estimate: false,
  }),
  greatestDepth: (piece, { request, prefs }) => ({
    title: 'Deepest',
    formula: 'Level less the lowest bed.',
    inputs: [
      { label: 'Level', value: say(prefs)(request.set.levelMm, 'length') },
      { label: 'Lowest bed', value: say(prefs)(request.set.levelMm - piece.water.greatestDepthMm, 'length') },
    ],
    assumptions: [],
    estimate: false,
  }),
  meanDepth: (piece, { prefs }) => ({
    title: 'Mean depth',
    formula: 'Water in each ÷ surface.',
    inputs: [
      { label: 'Water in each', value: say(prefs)(piece.water.volumeMl, 'volume') },
      { label: 'Surface', value: say(prefs)(piece.water.surfaceCm2 * 100, 'area') },
    ],
    assumptions: [],
    estimate: false,
  }),
  layers: (piece, { request, plan, prefs }) => ({
    title: 'Layers',
    formula:
      'The deepest bed of the batch, split into equal layers that the product allows. The levels are the same for every piece, so that joined pieces meet layer by layer.',
    inputs: [
      { label: 'Deepest here', value: say(prefs)(piece.water.greatestDepthMm, 'length') },
      { label: 'Greatest layer of the product, wet', value: say(prefs)(request.product.greatestLayerMm, 'length') },
      ...plan.layers.map((layer) => ({
        label: `Layer ${layer.number}`,
        value: `${say(prefs)(layer.fromMm, 'length')} to ${say(prefs)(layer.toMm, 'length')}`,
      })),
    ],
    assumptions: ['The greatest layer is the label’s; thicker ones run hot, crack or stay soft.'],
    estimate: false,
  }),
  dams: (piece, { prefs }) => ({
    title: 'Dams',
    formula: `Every run of edge where the bed is below the level; the strip overlaps ${DAM_OVERLAP_MM}\u00a0mm at each end and stands ${DAM_MARGIN_MM}\u00a0mm over the level.`,
    inputs: piece.dams.map((dam) => ({
      label: `${dam.edge[0]!.toUpperCase()}${dam.edge.slice(1)}${dam.edge === 'rim' ? '' : ' edge'}`,
      value: `${say(prefs)(dam.lengthMm, 'length')} open, strip ${say(prefs)(dam.stripMm, 'length')} × ${say(prefs)(dam.topMm, 'length')}`,
    })),
    assumptions: ['Strip heights are from the underside.'],
    estimate: false,
  }),
  meniscus: (piece, { prefs }) => ({
    title: 'Creeps up walls and dams',
    formula:
      'Capillary length squared × cos of the contact angle, for each mm of wall that the water meets at the level. The lip is the height that it dries on at a dam: a·√(2(1 − sin θ)).',
    inputs: [
      { label: 'Wall and dam at the level', value: say(prefs)(piece.meniscus.wallMm, 'length') },
      ...piece.dams
        .filter(({ method }) => method !== 'none')
        .map(({ edge, method, lengthMm }) => ({
          label: `${edge}, ${method}, ${DAM_FACTS[method].contactDegrees}°`,
          value: say(prefs)(lengthMm, 'length'),
        })),
      { label: 'Capillary length, liquid epoxy', value: `${capillaryLengthMm().toFixed(2)}\u00a0mm` },
    ],
    assumptions: [
      `Surface tension ${SURFACE_TENSION} N/m and density ${LIQUID_DENSITY} kg/m³; contact angles are typical for each kind of dam.`,
      'Counted once, at the last layer.',
    ],
    estimate: true,
  }),
  brim: (piece, { request, prefs }) => ({
    title: 'Would run over at',
    formula:
      'The lowest saddle from the deepest place to an edge, another pool, or the top of a dam: found by letting the water rise cell by cell.',
    inputs: [
      { label: 'Level', value: say(prefs)(request.set.levelMm, 'length') },
      ...piece.pools.map((pool) => ({
        label: `${pool.name}, ${say(prefs)(pool.volumeMl, 'volume')}`,
        value: pool.spill
          ? `${say(prefs)(pool.spill.levelMm, 'length')}, ${spillWords(pool.spill)}`
          : 'holds to above the dams',
      })),
    ],
    assumptions: [
      `Dams stand ${DAM_MARGIN_MM} mm over the level and overlap the bank by ${DAM_OVERLAP_MM} mm at each end.`,
      `Exact to the height between two neighbouring cells, ${piece.cellMm}\u00a0mm apart: a rim that slopes is read in the middle of its last cell, and so a little lower than it is drawn.`,
    ],
    estimate: false,
  }),
  tilt: (piece, { request, prefs }) => ({
    title: 'On this bench',
    formula:
      'The same volume under a level surface, seen from a piece that leans: found by trying surfaces until the volume is right.',
    inputs: [
      { label: 'Falls to the east', value: `${request.bench.tilt.eastMmPerM.toFixed(1)}\u00a0mm/m` },
      { label: 'Falls to the north', value: `${request.bench.tilt.northMmPerM.toFixed(1)}\u00a0mm/m` },
      ...(piece.tilt?.raise
        .filter(({ raiseMm }) => raiseMm > 0)
        .map(({ corner, raiseMm }) => ({
          label: `Raise the ${corner} corner by`,
          value: say(prefs)(raiseMm, 'length'),
        })) ?? []),
    ],
    assumptions: ['The piece itself is flat and lies on the bench as drawn, its north edge to the north.'],
    estimate: false,
  }),
  ...BODY_EXPLAINERS,
};

/** Where a pool runs over, in words. */
export const spillWords = (spill: NonNullable<PoolPlan['spill']>): string =>
  spill.over === 'pool'
    ? `into ${spill.into ?? 'the next pool'}`
    : spill.over === 'dam'
      ? 'over a dam'
      : spill.edge
        ? `over the ${spill.edge === 'rim' ? 'rim' : `${spill.edge} edge`}`
        : 'over the land';

/** How a figure of the whole batch came about. */
export const explainBatch = (figure: BatchFigure, context: Context): Explanation => BATCH_EXPLAINERS[figure](context);

const BATCH_EXPLAINERS: Record<BatchFigure, (context: Context) => Explanation> = {
  volume: ({ plan, prefs }) => ({
    title: 'Water in all',
    formula: 'Water in each piece times its copies, added up.',
    inputs: plan.pieces.map((piece) => ({
      label: `${piece.tag} × ${piece.copies}`,
      value: say(prefs)(piece.water.volumeMl * piece.copies, 'volume'),
    })),
    assumptions: [],
    estimate: true,
  }),
  poured: ({ plan, prefs }) => ({
    title: 'Reaches the pieces',
    formula: 'To pour into each piece times its copies, added up.',
    inputs: plan.pieces.map((piece) => ({
      label: `${piece.tag} × ${piece.copies}`,
      value: say(prefs)(piece.pouredGrams * piece.copies, 'mass'),
    })),
    assumptions: [],
    estimate: true,
  }),
  mix: ({ request: { product, recipe, losses: own }, plan, prefs }) => ({
    title: 'To mix',
    formula: lossWords(lossesOf(product, recipe.doses, own)),
    inputs: [
      { label: 'Reaches the pieces', value: say(prefs)(plan.totals.pouredGrams, 'mass') },
      { label: 'Stays in cups and on sticks', value: say(prefs)(plan.cost.lostGrams, 'mass') },
      { label: 'Cups', value: String(plan.totals.cups) },
    ],
    assumptions: ['Losses are typical until your own log knows better.'],
    estimate: true,
  }),
  partA: (context) => explainPart('A', context),
  partB: (context) => explainPart('B', context),
  drops: ({ request, plan, prefs }) => ({
    title: 'Colourant',
    formula: 'Grams per 100 g of the recipe times the mix, divided by the mass of a drop, rounded to whole drops.',
    inputs: request.recipe.doses.flatMap(({ colourant, gramsPer100 }, i) => [
      { label: `${colourant.name}, per 100 g`, value: say(prefs)(gramsPer100, 'mass', 3) },
      { label: 'In all cups together', value: say(prefs)(inCups(plan, colourant.id), 'mass', 2) },
      ...stays((plan.totals.doses[i]?.grams ?? 0) - inCups(plan, colourant.id), (left) => say(prefs)(left, 'mass', 2)),
      { label: 'A drop', value: say(prefs)(colourant.dropGrams, 'mass', 3) },
    ]),
    assumptions: [
      'A drop weighs what the shelf says: weigh twenty of yours and divide.',
      'Drops are counted cup by cup; the sum of the rounded cups can differ by a drop or two.',
    ],
    estimate: true,
  }),
  cups: ({ request, plan, prefs }) => ({
    title: 'Cups',
    formula:
      'Pieces are shared out so that no cup holds more than it may and no piece is split, with as few cups as possible.',
    inputs: [
      { label: 'A cup holds at most', value: say(prefs)(request.bench.cupGrams, 'mass') },
      {
        label: plan.mix.limit === 'pot life' ? 'Can be poured before it sets' : 'Limited by',
        value: plan.mix.limit === 'pot life' ? say(prefs)(plan.mix.mostGrams, 'mass') : 'the cup',
      },
      ...plan.layers.map((layer) => ({
        label: `Layer ${layer.number}`,
        value: `${layer.cups.length}${layer.cups.length === layer.fewestCups ? ', the fewest possible' : `, at least ${layer.fewestCups} are needed`}`,
      })),
    ],
    assumptions: ['Pot life and pouring speed are typical figures for the kind of product.'],
    estimate: true,
  }),
  dams: ({ plan, prefs }) => ({
    title: 'Dam strip',
    formula: `Every run of open edge of every piece, with ${DAM_OVERLAP_MM}\u00a0mm of overlap at each end.`,
    inputs: plan.pieces
      .filter(({ dams }) => dams.length > 0)
      .map(({ tag, copies, dams }) => ({
        label: `${tag} × ${copies}`,
        value: say(prefs)(copies * dams.reduce((sum, { stripMm }) => sum + stripMm, 0), 'length'),
      })),
    assumptions: ['One barrier. Where a leak would be a disaster, cut it twice.'],
    estimate: false,
  }),
  cureFactor: ({ request, plan, prefs }) => ({
    title: 'Cure takes',
    formula: CURE_MODELS[request.product.cureModel].factorWords,
    inputs: [
      { label: 'Room', value: say(prefs)(request.room.temperatureC, 'temperature') },
      { label: 'The label’s times hold at', value: say(prefs)(request.product.referenceC, 'temperature') },
      ...plan.layers.map((layer) => ({
        label: `Layer ${layer.number}, ${say(prefs)(layer.wetMm, 'length')} wet`,
        value: `× ${layer.cure.factor.toFixed(2)}`,
      })),
    ],
    assumptions: ['Holds from about 10 to 35 °C. In the cold many resins stop short of full cure.'],
    estimate: true,
  }),
  potLife: ({ request, plan, prefs }) => ({
    title: 'Pot life',
    formula: setsInTheCup(request.product.cureModel)
      ? `The label’s pot life for a ${LABEL_CUP_GRAMS} g cup, stretched or shortened by the temperature, and by (${LABEL_CUP_GRAMS} g ÷ cup) to the power ${CUP_EXPONENT}; between ${LEAST_LIFE} and ${MOST_LIFE} of the label’s.`
      : 'The label’s; the size of the cup does not matter for this kind of product.',
    inputs: [
      ...productsOf(request).map(({ name, potLifeMinutes, referenceC }) => ({
        label: `On the label of ${name.toLowerCase()}`,
        value: `${formatMinutes(potLifeMinutes)} at ${say(prefs)(referenceC, 'temperature')}`,
      })),
      ...plan.layers
        .flatMap((layer) =>
          layer.cups.map((cup) => ({
            label: `Layer ${layer.number}, cup ${cup.number}, ${say(prefs)(cup.mixGrams, 'mass')}`,
            value: formatMinutes(cup.potLifeMinutes),
          })),
        )
        .slice(0, 12),
    ],
    assumptions: ['A wide, shallow cup lasts longer than a narrow, deep one.'],
    estimate: true,
  }),
  cost: ({ request, plan, prefs }) => ({
    title: 'Cost of the water',
    formula:
      'Product at its pack price, what is lost of it, colourant at its bottle price, and cups. Your hours are not in it.',
    inputs: [
      ...(plan.totals.products ?? []).map((one) => ({ label: one.name, value: say(prefs)(one.mixGrams, 'mass') })),
      {
        label: `${plan.totals.products ? 'All products' : request.product.name}, in the pieces`,
        value: formatMoney(plan.cost.product, prefs),
      },
      { label: 'Lost in cups', value: formatMoney(plan.cost.lost, prefs) },
      { label: 'Colourant', value: formatMoney(plan.cost.colourant, prefs) },
      { label: 'Cups', value: formatMoney(plan.cost.cups, prefs) },
      { label: 'For each piece', value: formatMoney(plan.cost.perPiece, prefs) },
    ],
    assumptions: ['Prices are those on your shelf.'],
    estimate: true,
  }),
  done: ({ request, plan, prefs }) => ({
    title: 'Done',
    formula:
      'The last layer’s pour plus full cure at the temperature of the room. Each layer waits for the recoat window of the one below and for a bench window.',
    inputs: [
      {
        label: 'Room',
        value: `${say(prefs)(request.room.temperatureC, 'temperature')}, ${percent(request.room.humidity)} humidity`,
      },
      ...productsOf(request).map(({ name, fullCureMinutes, referenceC }) => ({
        label: `Full cure on the label of ${name.toLowerCase()}`,
        value: `${formatMinutes(fullCureMinutes)} at ${say(prefs)(referenceC, 'temperature')}`,
      })),
      ...plan.layers.map((layer) => ({
        label: `Layer ${layer.number}`,
        value: `poured ${shortTime(layer.cure.pouredAt)}, times × ${layer.cure.factor.toFixed(2)}`,
      })),
      ...(plan.finish?.at ?? []).map((at, i) => ({
        label: `${plan.finish!.name}, coat ${i + 1}`,
        value: shortTime(at),
      })),
    ],
    assumptions: [
      `Two-part products take about ${PER_TEN_DEGREES} times as long for every 10 °C less.`,
      'The room stays at this temperature all the while.',
    ],
    estimate: true,
  }),
};

/** What of a colourant goes into all cups together, as it is measured; to the recipe in a first look, which has no cups. */
const inCups = ({ layers }: Pick<Plan, 'layers'>, id: string): number =>
  layers.reduce(
    (sum, { cups, doses }) =>
      sum +
      (cups.length > 0
        ? colourIn(
            cups.flatMap(({ portions }) => portions),
            id,
          )
        : (doses.find((dose) => dose.id === id)?.grams ?? 0)),
    0,
  );

/** What stays of stock tints and premixes, where there are any. */
const stays = (grams: number, say: (value: number) => string): Explanation['inputs'] =>
  grams > 1e-6 ? [{ label: 'Stays of stock tints and premixes', value: say(grams) }] : [];

function explainPart(part: 'A' | 'B', { request, plan, prefs }: Context): Explanation {
  const { parts } = request.product;
  const amounts = plan.totals.parts;
  if (!parts || !amounts)
    return {
      title: `Part ${part}`,
      formula: 'This product has one part only.',
      inputs: [],
      assumptions: [],
      estimate: false,
    };
  const grams = part === 'A' ? amounts.partAGrams : amounts.partBGrams;
  const density = part === 'A' ? parts.densityA : parts.densityB;
  const by = parts.ratioBy;
  const mixed = plan.totals.products?.find(({ id }) => id === request.product.id)?.mixGrams ?? plan.totals.mixGrams;
  const left = plan.layers
    .filter(({ productId = request.product.id }) => productId === request.product.id)
    .reduce((sum, { tintLeft }) => sum + tintLeft.resinGrams, 0);
  return {
    title: `Part ${part}`,
    formula:
      by === 'volume'
        ? 'The label’s ratio is by volume; times the densities of the parts it is the ratio by weight, and that splits the mix.'
        : 'The label’s ratio is by weight and splits the mix; grams divided by the density of the part are ml.',
    inputs: [
      { label: 'Label, A : B', value: `${parts.ratioA} : ${parts.ratioB} by ${by}` },
      { label: 'By weight, A : B', value: `${(plan.product.ratioByWeight ?? 0).toFixed(3)} : 1` },
      { label: 'By volume, A : B', value: `${(plan.product.ratioByVolume ?? 0).toFixed(3)} : 1` },
      { label: 'To mix of it', value: say(prefs)(mixed - left, 'mass') },
      ...(part === 'A' ? stays(left, (value) => say(prefs)(value, 'mass')) : []),
      { label: `Density of part ${part}`, value: `${density}\u00a0g/ml` },
      { label: `Part ${part}`, value: `${say(prefs)(grams, 'mass')} = ${say(prefs)(grams / density, 'volume')}` },
    ],
    assumptions: [
      `Never go by eye: a ratio off by more than ${percent(RATIO_WRONG)} stays sticky.`,
      'The label’s own ratio comes first.',
    ],
    estimate: false,
  };
}
