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
