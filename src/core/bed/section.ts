import type { Section } from '../model/designSchema';

/** The cut across a channel or ring, all heights above the underside. */
export interface CrossSection {
  section: Section;
  /** Width and depth of the water when it stands at `levelMm`. */
  widthMm: number;
  depthMm: number;
  levelMm: number;
  /** Run per rise of the banks; trapezoid only. */
  bankSlope: number;
}

/** Half the width of a trapezoid's flat floor; negative when the banks would meet above the floor. */
export const floorHalfWidthMm = ({
  widthMm,
  depthMm,
  bankSlope,
}: Pick<CrossSection, 'widthMm' | 'depthMm' | 'bankSlope'>): number => widthMm / 2 - bankSlope * depthMm;

/** Height of the bed at a distance from the centreline; `Infinity` outside upright walls. */
export function sectionHeightMm(cut: CrossSection, distanceMm: number): number {
  const floor = cut.levelMm - cut.depthMm;
  const across = (2 * distanceMm) / cut.widthMm;
  if (cut.section === 'bowl') return floor + cut.depthMm * across * across;
  if (cut.section === 'v') return floor + cut.depthMm * across;
  const beyond = distanceMm - floorHalfWidthMm(cut);
  if (beyond <= 0) return floor;
  return cut.bankSlope > 0 ? floor + beyond / cut.bankSlope : Infinity;
}

/** Distance from the centreline at which the banks reach `landMm`. */
export function sectionReachMm(cut: CrossSection, landMm: number): number {
  const rise = Math.max(landMm, cut.levelMm) - (cut.levelMm - cut.depthMm);
  if (cut.section === 'bowl') return (cut.widthMm / 2) * Math.sqrt(rise / cut.depthMm);
  if (cut.section === 'v') return (cut.widthMm / 2) * (rise / cut.depthMm);
  return floorHalfWidthMm(cut) + cut.bankSlope * rise;
}

/** Area of water in the cut at its own level, mm²: closed forms, shown beside the grid's figure. */
export function sectionAreaMm2(cut: CrossSection): number {
  if (cut.section === 'bowl') return (2 / 3) * cut.widthMm * cut.depthMm;
  if (cut.section === 'v') return (cut.widthMm * cut.depthMm) / 2;
  return cut.depthMm * (cut.widthMm - cut.bankSlope * cut.depthMm);
}
