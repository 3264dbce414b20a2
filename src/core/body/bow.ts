/** Stiffness of cured water, GPa, by how it hardens; and the share of its shrinkage that comes after it has gelled and pulls. */
export const WATER_STIFFNESS = {
  'two-part': { modulusGPa: 2.5, pulls: 0.3 },
  lamp: { modulusGPa: 1.5, pulls: 0.4 },
  'water-borne': { modulusGPa: 0.05, pulls: 0.2 },
  'open-air': { modulusGPa: 0.005, pulls: 0.3 },
} as const;

/** Two layers bonded together, one of which has grown shorter. Thicknesses mm, stiffnesses GPa. */
export interface TwoLayers {
  shrinkingMm: number;
  shrinkingGPa: number;
  coreMm: number;
  coreGPa: number;
  /** By what share of its length the one would shrink if it were free. */
  strain: number;
}

/**
 * How strongly two bonded layers bend when one shrinks, 1/mm. Timoshenko's bimetal strip: holds for strips that lie
 * free and stay elastic; a weight on the piece while it cures, or creep, makes it less.
 */
export function bendPerMm({ shrinkingMm, shrinkingGPa, coreMm, coreGPa, strain }: TwoLayers): number {
  const m = shrinkingMm / coreMm;
  const n = shrinkingGPa / coreGPa;
  return (
    (6 * strain * (1 + m) ** 2) / ((shrinkingMm + coreMm) * (3 * (1 + m) ** 2 + (1 + m * n) * (m * m + 1 / (m * n))))
  );
}

/** How far the ends of a strip stand up when it bends evenly, mm. */
export const bowMm = (perMm: number, lengthMm: number): number => (perMm * lengthMm * lengthMm) / 8;
