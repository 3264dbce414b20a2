import { closedRuns, DAM_MARGIN_MM, DAM_OVERLAP_MM } from '../bed/dams';
import { DAM_FACTS } from '../model/damMethods';
import { BANK_CONTACT_DEGREES, flatTileMl, wallMlPerMm, wallRiseMm } from '../bed/meniscus';
import { madeByOf } from '../bed/measured';
import { outlineEdges, outlinePolygon } from '../bed/outline';
import { copyName } from '../model/pieceRef';
import { pathLength } from '../bed/profile';
import type { PieceDesign } from '../model/designSchema';
import { cornersToRaise, edgePlace, surfaceAtMm, tiltedSurface, tiltedVolume, tiltSpills } from '../bed/tilt';
import { volumeMl } from '../bed/volumeCurve';
import { waterAt, type WaterFigures } from '../bed/water';
import { debrisMl } from '../bed/features';
import type { LayerLevels } from '../mixing/layers';
import { pouredDensity } from '../mixing/ratio';
import { paintedByDepth } from '../tint/waterLook';
import { surveyWater, type SurveyedBed, type SurveyedWater } from './beds';
import type { PiecePlan, PoolPlan, TiltPlan } from './plan';
import { planBody, planPieceMould, planTwoStage } from './planBody';
import { copiesOfPiece, layerProduct, refOfPiece, tintOfRequest, type AmountsRequest, type PlanPiece } from './request';

/** Everything about the water of one piece of a design. */
export function planPiece(
  design: PlanPiece,
  bed: SurveyedBed,
  levels: readonly LayerLevels[],
  request: AmountsRequest,
): PiecePlan {
  const { set, product } = request;
  const loose = debrisMl(design);
  const full = waterAt(bed.curve, set.levelMm);
  const water = lessDebris(full, loose);
  // Debris lies at the bottom: it takes its room from the first layers.
  const filledMl = (levelMm: number): number => Math.max(0, volumeMl(bed.curve, levelMm) - loose);
  const survey = surveyWater(bed, design, set.levelMm, request.strays);
  const ref = refOfPiece(design);
  const meniscus = meniscusOf(survey);
  const gramsPerMl = pouredDensity(product) / (1 - product.shrinkage);
  const gramsOf = (level: LayerLevels): number => {
    const own = layerProduct(request, level);
    return pouredDensity(own) / (1 - own.shrinkage);
  };
  const layers = levels.map((level) => {
    const { number, fromMm, toMm } = level;
    // What creeps up the walls counts once, at the surface that stays.
    const ml = filledMl(toMm) - filledMl(fromMm) + (number === levels.length ? meniscus.ml : 0);
    return { number, volumeMl: ml, pouredGrams: ml * gramsOf(level) };
  });
  const colourAt = paintedByDepth(design, tintOfRequest(request), water.greatestDepthMm);
  const pouredGrams = layers.reduce((sum, layer) => sum + layer.pouredGrams, 0);
  const body = planBody(design, bed, water, pouredGrams, request);
  return {
    ...ref,
    copyNumbers: copiesOfPiece(design),
    tag: copyName(design.tag, ref.copy),
    name: design.name,
    copies: design.copies,
    cellMm: bed.cellMm,
    outlineCm2: bed.outlineCm2,
    water,
    pouredGrams,
    uncertainGrams: survey.uncertaintyMl * gramsPerMl,
    measured: design.measured !== null,
    madeBy: madeByOf(design),
    layers,
    dams: survey.dams,
    pools: namedPools(survey.pools),
    meniscus,
    tilt: tiltOf(design, bed, full.volumeMl, request, colourAt),
    colour: { shallow: colourAt(1), deepest: colourAt(water.greatestDepthMm) },
    ownLevels: { dry: bed.own?.dry ?? [], joined: bed.own?.joined ?? [], mergers: survey.mergers },
    body,
    flatMl: flatTileMl(bed.outlineCm2 * 100, pathLength(outlinePolygon(design.outline))),
    mould: planPieceMould(design, bed, body, water, request),
    twoStage: planTwoStage(design, bed, survey, request),
  };
}

/** The water that is left beside loose debris. */
function lessDebris(water: WaterFigures, loose: number): WaterFigures {
  const volume = Math.max(0, water.volumeMl - loose);
  return {
    ...water,
    volumeMl: volume,
    meanDepthMm: water.volumeMl > 0 ? (water.meanDepthMm * volume) / water.volumeMl : 0,
  };
}

/** What creeps up dams and upright banks, each at its own contact angle; the lip is the highest at a dam that comes off. */
export function meniscusOf({ dams, bankWallMm }: SurveyedWater): PiecePlan['meniscus'] {
  const closed = closedRuns(dams);
  const ml = closed.reduce(
    (sum, { method, lengthMm }) => sum + lengthMm * wallMlPerMm(DAM_FACTS[method].contactDegrees),
    bankWallMm * wallMlPerMm(BANK_CONTACT_DEGREES),
  );
  const lips = closed
    .filter(({ method }) => method !== 'raised rim')
    .map(({ method }) => wallRiseMm(DAM_FACTS[method].contactDegrees));
  return {
    wallMm: bankWallMm + closed.reduce((sum, { lengthMm }) => sum + lengthMm, 0),
    ml,
    lipMm: Math.max(0, ...lips),
  };
}

/** `Pool A` is the largest. */
const poolName = (index: number): string => `Pool ${index < 26 ? String.fromCharCode(65 + index) : index + 1}`;

/** Pools as plans and files know them: named, the largest first. */
export const namedPools = (pools: SurveyedWater['pools']): PoolPlan[] =>
  pools.map(({ spill, ...pool }, index) => ({
    ...pool,
    name: poolName(index),
    spill: spill && {
      xMm: spill.xMm,
      yMm: spill.yMm,
      levelMm: spill.levelMm,
      over: spill.over,
      edge: spill.edge,
      into: spill.pool === null ? null : poolName(spill.pool),
    },
  }));

/** The water of a piece on a bench that is out of level; pieces without straight edges are too small to mind. */
function tiltOf(
  design: PieceDesign,
  bed: SurveyedBed,
  ml: number,
  { bench, set }: AmountsRequest,
  colourAt: (depthMm: number) => string,
): TiltPlan | null {
  const slope = { east: bench.tilt.eastMmPerM / 1000, north: bench.tilt.northMmPerM / 1000 };
  if ((slope.east === 0 && slope.north === 0) || ml <= 0) return null;
  const { outline } = design;
  if (outlineEdges(outline).length === 0) return null;
  const surface = tiltedSurface(bed.grid, outline, ml, slope);
  const edges = outlineEdges(outline).map((edge) => {
    const level = surfaceAtMm(surface, edgePlace(outline, edge, 0.5));
    const lowest =
      bed.profiles
        .find((profile) => profile.edge === edge)
        ?.profile.heightMm.reduce((a, b) => Math.min(a, b), Infinity) ?? Infinity;
    const deepestMm = Math.max(0, level - lowest);
    return { edge, errorMm: level - set.levelMm, deepestMm, colour: colourAt(deepestMm) };
  });
  return {
    edges,
    deepestMm: tiltedVolume(bed.grid, surface).deepestMm,
    raise: cornersToRaise(outline, slope),
    spills: tiltSpills(bed.profiles, outline, surface, set.levelMm, {
      topMm: set.levelMm + DAM_MARGIN_MM,
      overlapMm: DAM_OVERLAP_MM,
    }),
  };
}
