import { buildBed } from '../bed/buildBed';
import { DAM_MARGIN_MM, DAM_OVERLAP_MM, damRuns, closedRuns, type DamRun } from '../bed/dams';
import { chooseCellMm, type BedGrid } from '../bed/grid';
import { wallLengthMm } from '../bed/meniscus';
import { volumeUncertaintyMl } from '../bed/measured';
import { outlineAreaMm2 } from '../bed/outline';
import { findPools, type Pool } from '../bed/pools';
import { outlineProfiles, type OutlineProfile } from '../bed/profile';
import type { PieceDesign } from '../bed/schema';
import { volumeCurve, type VolumeCurve } from '../bed/volumeCurve';

/** What a plan needs to know of a bed, at any level. */
export interface SurveyedBed {
  cellMm: number;
  outlineCm2: number;
  grid: BedGrid;
  curve: VolumeCurve;
  profiles: OutlineProfile[];
  /** Waters looked up lately, by level and dams. */
  waters: Map<string, SurveyedWater>;
}

/** What depends on the level and the dams: too dear to find anew when only a price has changed. */
export interface SurveyedWater {
  dams: DamRun[];
  pools: Pool[];
  /** Upright banks of the piece itself that the water meets, without the dams. */
  bankWallMm: number;
  /** What the volume may be off by in 19 of 20 cases. */
  uncertaintyMl: number;
}

/** Builds a design's bed once and keeps what every later question needs. */
export function surveyBed(design: PieceDesign, cellMm = chooseCellMm(design.outline)): SurveyedBed {
  const grid = buildBed(design, cellMm);
  return { cellMm, grid, outlineCm2: outlineAreaMm2(design.outline) / 100, curve: volumeCurve(grid), profiles: outlineProfiles(grid, design.outline), waters: new Map() };
}

const KEPT_WATERS = 4;

/** Dams, pools and walls of a bed at a level; the last few are remembered. */
export function surveyWater(bed: SurveyedBed, { outline, dams: methods, measured, grainMm }: PieceDesign, levelMm: number): SurveyedWater {
  const key = JSON.stringify([levelMm, methods, grainMm]);
  const known = bed.waters.get(key);
  if (known) return known;
  const dams = damRuns(bed.profiles, levelMm, methods);
  const dammed = new Set(closedRuns(dams).map(({ edge }) => edge));
  const water = { dams, pools: findPools(bed.grid, levelMm, { outline, dammed, damMarginMm: DAM_MARGIN_MM, damOverlapMm: DAM_OVERLAP_MM }), bankWallMm: wallLengthMm(bed.grid, levelMm), uncertaintyMl: volumeUncertaintyMl(bed.grid, levelMm, measured, grainMm) };
  bed.waters.set(key, water);
  if (bed.waters.size > KEPT_WATERS) bed.waters.delete(bed.waters.keys().next().value as string);
  return water;
}

/** The part of a design that its bed depends on, as a key for caches. */
export const bedKey = ({ outline, landMm, drawnLevelMm, features, measured }: PieceDesign): string => JSON.stringify([outline, landMm, drawnLevelMm, features, measured]);
