import { buildBed } from '../bed/buildBed';
import { damRuns, type DamRun } from '../bed/dams';
import { chooseCellMm } from '../bed/grid';
import { outlineAreaMm2 } from '../bed/outline';
import type { PieceDesign } from '../bed/schema';
import { volumeCurve, type VolumeCurve } from '../bed/volumeCurve';

/** What a plan needs to know of a bed; the grid itself is let go. */
export interface SurveyedBed {
  cellMm: number;
  outlineCm2: number;
  curve: VolumeCurve;
  dams: DamRun[];
}

/** Builds a design's bed once and keeps what every later question needs. */
export function surveyBed(design: PieceDesign, levelMm: number, cellMm = chooseCellMm(design.outline)): SurveyedBed {
  const grid = buildBed(design, cellMm);
  return { cellMm, outlineCm2: outlineAreaMm2(design.outline) / 100, curve: volumeCurve(grid), dams: damRuns(grid, design.outline, levelMm) };
}

/** The part of a design that its bed depends on, as a key for caches. */
export const bedKey = ({ outline, landMm, drawnLevelMm, features }: PieceDesign): string => JSON.stringify([outline, landMm, drawnLevelMm, features]);
