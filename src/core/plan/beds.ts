import { buildBed } from '../bed/buildBed';
import { chooseCellMm } from '../bed/grid';
import { outlineAreaMm2 } from '../bed/outline';
import { outlineProfiles, type OutlineProfile } from '../bed/profile';
import type { PieceDesign } from '../bed/schema';
import { volumeCurve, type VolumeCurve } from '../bed/volumeCurve';

/** What a plan needs to know of a bed, at any level; the grid itself is let go. */
export interface SurveyedBed {
  cellMm: number;
  outlineCm2: number;
  curve: VolumeCurve;
  profiles: OutlineProfile[];
}

/** Builds a design's bed once and keeps what every later question needs. */
export function surveyBed(design: PieceDesign, cellMm = chooseCellMm(design.outline)): SurveyedBed {
  const grid = buildBed(design, cellMm);
  return { cellMm, outlineCm2: outlineAreaMm2(design.outline) / 100, curve: volumeCurve(grid), profiles: outlineProfiles(grid, design.outline) };
}

/** The part of a design that its bed depends on, as a key for caches. */
export const bedKey = ({ outline, landMm, drawnLevelMm, features }: PieceDesign): string => JSON.stringify([outline, landMm, drawnLevelMm, features]);
