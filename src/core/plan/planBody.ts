import { debrisMl } from '../bed/features';
import { DAM_FACTS } from '../model/damMethods';
import { wallMlPerMm, wallRiseMm } from '../bed/meniscus';
import { outlinePolygon, outlineSize } from '../bed/outline';
import { pathLength } from '../bed/profile';
import type { PieceDesign } from '../model/designSchema';
import { volumeMl } from '../bed/volumeCurve';
import { bendPerMm, bowMm } from '../body/bow';
import { CURE_MODELS } from '../cure/cureModels';
import { BODY_MATERIALS, DEFAULT_MATERIAL } from '../model/bodyMaterials';
import { planMould } from '../body/mould';
import { packBox } from '../body/packing';
import { twoStageFill } from '../body/twoStage';
import { bodyMl, curedGrams, pieceWeight } from '../body/weight';
import { cureFactor } from '../cure/cureLine';
import { pouredDensity } from '../mixing/ratio';
import type { SurveyedBed, SurveyedWater } from './beds';
import type { BodyPlan, PieceMouldPlan, PiecePlan } from './plan';
import type { AmountsRequest } from './request';

/** Weight, height, stiffness and packing of a finished piece. */
export function planBody(
  design: PieceDesign,
  bed: SurveyedBed,
  water: PiecePlan['water'],
  pouredGrams: number,
  { product, set, bench }: AmountsRequest,
): BodyPlan {
  const material = design.body?.material ?? DEFAULT_MATERIAL;
  const { widthMm, lengthMm } = outlineSize(design.outline);
  const ml = bodyMl(bed.drawn);
  const heightMm = Math.max(set.levelMm, highestMm(bed), ...(design.poolLevels ?? []).map(({ levelMm }) => levelMm));
  const floorMm = water.greatestDepthMm > 0 ? lowestMm(bed) : 0;
  const bowOverMm = Math.sqrt(water.surfaceCm2 * 100);
  const { modulusGPa, pulls } = CURE_MODELS[product.cureModel].stiffness;
  const bends = water.meanDepthMm > 0 && floorMm > 0;
  const perMm = bends
    ? bendPerMm({
        shrinkingMm: water.meanDepthMm,
        shrinkingGPa: modulusGPa,
        coreMm: Math.max(0.5, set.levelMm - water.meanDepthMm),
        coreGPa: BODY_MATERIALS[material].modulusGPa,
        strain: (product.shrinkage / 3) * pulls,
      })
    : 0;
  return {
    material,
    stated: design.body !== undefined,
    bodyMl: ml,
    ...pieceWeight(ml, material, curedGrams(pouredGrams, product), debrisMl(design), design.body?.extrasGrams ?? 0),
    floorMm,
    heightMm,
    bowMm: bowMm(perMm, bowOverMm),
    bowOverMm,
    box: bench.box ? packBox(widthMm, lengthMm, heightMm, bench.box) : null,
  };
}

function highestMm({ drawn: grid }: SurveyedBed): number {
  let highest = 0;
  for (let i = 0; i < grid.heightMm.length; i++)
    if (grid.coverage[i]! > 0 && grid.heightMm[i]! > highest) highest = grid.heightMm[i]!;
  return highest;
}

function lowestMm({ drawn: grid }: SurveyedBed): number {
  let lowest = Infinity;
  for (let i = 0; i < grid.heightMm.length; i++)
    if (grid.coverage[i]! > 0 && grid.heightMm[i]! < lowest) lowest = grid.heightMm[i]!;
  return lowest;
}

/** The mould of a design: for the whole piece, or for its water alone. */
export function planPieceMould(
  design: PieceDesign,
  bed: SurveyedBed,
  body: BodyPlan,
  water: PiecePlan['water'],
  { product }: AmountsRequest,
): PieceMouldPlan | null {
  if (!design.mould) return null;
  const size = outlineSize(design.outline);
  const perimeterMm = pathLength(outlinePolygon(design.outline));
  const whole = design.mould.cast === 'piece';
  const master = {
    ...size,
    perimeterMm,
    areaMm2: bed.outlineCm2 * 100,
    heightMm: whole ? highestMm(bed) : water.greatestDepthMm,
    ml: whole ? body.bodyMl : water.volumeMl,
  };
  const plan = planMould(master, design.mould);
  return { ...plan, castGrams: (plan.castMl * pouredDensity(product)) / (1 - product.shrinkage) };
}

/** A second fill inside the lip, where something is turned out of a mould. */
export function planTwoStage(
  design: PieceDesign,
  bed: SurveyedBed,
  { dams, bankWallMm }: SurveyedWater,
  { product, room, set }: AmountsRequest,
): PiecePlan['twoStage'] {
  const moulded = dams.filter(({ method }) => method === 'mould').reduce((sum, { lengthMm }) => sum + lengthMm, 0);
  const wallMm = design.mould ? pathLength(outlinePolygon(design.outline)) + bankWallMm : moulded;
  if (wallMm === 0) return null;
  const { contactDegrees } = DAM_FACTS.mould;
  const wait = product.recoatOpensMinutes * cureFactor(product, room, product.greatestLayerMm);
  return twoStageFill(
    (level) => volumeMl(bed.curve, level),
    set.levelMm,
    { wallMm, wallMl: wallMm * wallMlPerMm(contactDegrees), lipMm: wallRiseMm(contactDegrees) },
    wait,
  );
}
