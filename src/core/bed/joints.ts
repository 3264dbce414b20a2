import type { EdgeStandard } from '../model/edgeStandardSchema';
import { roundHeight, type BedGrid } from './grid';
import { edgeLengthMm, sideOf, startsAtLeft } from './outline';
import type { EdgeName, Outline, PieceDesign } from '../model/designSchema';
import { sectionHeightMm } from './section';
import { visitCells } from './shapers/carve';

/** An edge at which the bed is drawn to a standard. */
export interface Joint {
  edge: EdgeName;
  standard: EdgeStandard;
}

/** Edges and standards whose lengths differ by no more than this belong together. */
export const SAME_LENGTH_MM = 1;

/** The bed above the underside that a standard asks for, at a place along its edge as seen from the middle of the piece, left to right. */
export function standardHeightMm(standard: EdgeStandard, alongMm: number): number {
  if (standard.widthMm === 0) return standard.bankMm;
  const away = Math.abs(alongMm - standard.portMm);
  // Upright walls: the last place on the wall counts as bed.
  const height = sectionHeightMm(
    standard,
    standard.bankSlope === 0 && standard.section === 'trapezoid' ? Math.max(0, away - 1e-9) : away,
  );
  return Math.min(standard.bankMm, Number.isFinite(height) ? height : standard.bankMm);
}

/** 1 at the edge, 0 from the blend's length on, without a kink at either end. */
function share(offMm: number, blendMm: number): number {
  const t = Math.min(1, Math.max(0, 1 - offMm / blendMm));
  return t * t * (3 - 2 * t);
}

/**
 * Brings the bed along an edge to its standard, in place: just inside the edge the bed is the standard's, and over its blend
 * length it runs over into what was drawn. Nothing happens where the edge is not as long as the standard's, or without a blend.
 */
export function drawToStandard(grid: BedGrid, outline: Outline, { edge, standard }: Joint): void {
  const side = sideOf(outline, edge);
  const { blendMm } = standard;
  if (!side || blendMm <= 0 || Math.abs(side.lengthMm - standard.edgeMm) > SAME_LENGTH_MM) return;
  const { from, to, lengthMm, inward } = side;
  const [dx, dy] = [(to.xMm - from.xMm) / lengthMm, (to.yMm - from.yMm) / lengthMm];
  const fromLeft = startsAtLeft(outline, edge);
  const far = blendMm + 2 * grid.cellMm;
  const strip = {
    xMm: (from.xMm + to.xMm) / 2,
    yMm: (from.yMm + to.yMm) / 2,
    reachMm: Math.abs(to.xMm - from.xMm) / 2 + far,
    upMm: Math.abs(to.yMm - from.yMm) / 2 + far,
  };
  visitCells(grid, strip, (index, x, y) => {
    const off = (x - from.xMm) * inward[0] + (y - from.yMm) * inward[1];
    if (off > blendMm + grid.cellMm || off < -grid.cellMm) return;
    const along = (x - from.xMm) * dx + (y - from.yMm) * dy;
    if (along < -grid.cellMm || along > lengthMm + grid.cellMm) return;
    // The outermost cells are what the neighbour meets: they are the standard's in full.
    const weight = share(off - grid.cellMm, blendMm);
    const wanted = standardHeightMm(standard, fromLeft ? along : lengthMm - along);
    grid.heightMm[index] = roundHeight(grid.heightMm[index]! * (1 - weight) + wanted * weight);
  });
}

/**
 * A design with the joints that the set's standards ask of its edges. A scanned bed is taken as it is: it can only be
 * compared. Standards with the wrong length, or without a blend, are compared only, too.
 */
export function withJoints(design: PieceDesign, standards: readonly EdgeStandard[]): PieceDesign {
  const given = Object.entries(design.edgeStandards ?? {}) as [EdgeName, string][];
  if (given.length === 0 || design.features.some(({ kind }) => kind === 'scan')) return design;
  const joints = given.flatMap(([edge, id]): Joint[] => {
    const standard = standards.find((candidate) => candidate.id === id);
    return standard &&
      standard.blendMm > 0 &&
      Math.abs(edgeLengthMm(design.outline, edge) - standard.edgeMm) <= SAME_LENGTH_MM
      ? [{ edge, standard }]
      : [];
  });
  return joints.length > 0 ? { ...design, joints } : design;
}

/** The design as a set keeps it: its joints follow from the standards and are not kept with it. */
export function withoutJoints({ joints: _, ...design }: PieceDesign): PieceDesign {
  return design;
}
