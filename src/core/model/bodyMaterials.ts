/** What bodies are made of. Typical figures for each kind; the maker's own sheet may differ by a fifth. */
export interface BodyMaterial {
  name: string;
  densityGPerMl: number;
  /** Stiffness in bending, GPa. */
  modulusGPa: number;
  /** Soaks up water-borne products and swells on one side. */
  absorbent: boolean;
  /** A floor thinner than this, under water, bends or lets the resin through. */
  thinFloorMm: number;
}

export const BODY_MATERIALS = {
  'extruded foam': { name: 'Extruded foam', densityGPerMl: 0.035, modulusGPa: 0.015, absorbent: false, thinFloorMm: 4 },
  'expanded foam': {
    name: 'Expanded bead foam',
    densityGPerMl: 0.02,
    modulusGPa: 0.005,
    absorbent: false,
    thinFloorMm: 6,
  },
  'expanded plastic': {
    name: 'Expanded plastic sheet',
    densityGPerMl: 0.55,
    modulusGPa: 1,
    absorbent: false,
    thinFloorMm: 1.5,
  },
  'flooring tile': {
    name: 'Soft flooring tile',
    densityGPerMl: 0.1,
    modulusGPa: 0.003,
    absorbent: false,
    thinFloorMm: 5,
  },
  'foam board': {
    name: 'Paper-faced foam board',
    densityGPerMl: 0.09,
    modulusGPa: 0.1,
    absorbent: true,
    thinFloorMm: 3,
  },
  cork: { name: 'Cork', densityGPerMl: 0.2, modulusGPa: 0.02, absorbent: true, thinFloorMm: 4 },
  hardboard: { name: 'Hardboard', densityGPerMl: 0.85, modulusGPa: 3, absorbent: true, thinFloorMm: 2.5 },
  plywood: { name: 'Plywood', densityGPerMl: 0.6, modulusGPa: 6, absorbent: true, thinFloorMm: 2.5 },
  plaster: { name: 'Plaster', densityGPerMl: 1.2, modulusGPa: 5, absorbent: true, thinFloorMm: 5 },
  'printed plastic': { name: 'Printed plastic', densityGPerMl: 1.2, modulusGPa: 2.5, absorbent: false, thinFloorMm: 1 },
  'cast resin': { name: 'Cast resin', densityGPerMl: 1.1, modulusGPa: 2.5, absorbent: false, thinFloorMm: 1 },
} as const satisfies Record<string, BodyMaterial>;

export type BodyMaterialKey = keyof typeof BODY_MATERIALS;
export const BODY_MATERIAL_KEYS = Object.keys(BODY_MATERIALS) as [BodyMaterialKey, ...BodyMaterialKey[]];
/** What a body is taken to be made of until the maker says. */
export const DEFAULT_MATERIAL: BodyMaterialKey = 'extruded foam';
