import { CURE_MODELS } from '../cure/cureModels';
import type { BedGrid } from '../bed/grid';
import type { Product } from '../model/productSchema';
import { BODY_MATERIALS, type BodyMaterialKey } from '../model/bodyMaterials';

/** Loose debris: stones, slate chips, shells, g/ml. */
export const DEBRIS_DENSITY = 2;

/** What a body takes up between its underside and its bed, ml; solids on the bed included. */
export function bodyMl({ heightMm, coverage, cellMm }: BedGrid): number {
  let sum = 0;
  for (let i = 0; i < heightMm.length; i++) sum += coverage[i]! * heightMm[i]!;
  return (sum * cellMm * cellMm) / 1000;
}

/** Mass that is left of what was poured: water-borne products give off their water, resins keep their mass. */
export const curedGrams = (
  pouredGrams: number,
  { cureModel, shrinkage }: Pick<Product, 'cureModel' | 'shrinkage'>,
): number => (CURE_MODELS[cureModel].givesOff ? pouredGrams * (1 - shrinkage) : pouredGrams);

export interface PieceWeight {
  bodyGrams: number;
  waterGrams: number;
  debrisGrams: number;
  extrasGrams: number;
  totalGrams: number;
}

/** Weight of a finished piece. Solids are taken to be of the body's material. */
export function pieceWeight(
  ml: number,
  material: BodyMaterialKey,
  waterGrams: number,
  debrisMl: number,
  extrasGrams: number,
): PieceWeight {
  const bodyGrams = ml * BODY_MATERIALS[material].densityGPerMl;
  const debrisGrams = debrisMl * DEBRIS_DENSITY;
  return {
    bodyGrams,
    waterGrams,
    debrisGrams,
    extrasGrams,
    totalGrams: bodyGrams + waterGrams + debrisGrams + extrasGrams,
  };
}
