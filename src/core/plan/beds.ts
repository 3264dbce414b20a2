import { buildBed } from '../bed/buildBed';
import { DAM_MARGIN_MM, DAM_OVERLAP_MM, damRuns, closedRuns, type DamRun } from '../bed/dams';
import { chooseCellMm, type BedGrid } from '../bed/grid';
import { wallLengthMm } from '../bed/meniscus';
import { strayOf, STRAYS, volumeUncertaintyMl, type Strays } from '../bed/measured';
import { outlineAreaMm2, type PointMm } from '../bed/outline';
import { findOwnPools, levelPools, overLevelMm, type OwnLevels, type OwnPools } from '../bed/poolLevels';
import { findPools } from '../bed/pools';
import { outlineProfiles, runPath, type OutlineProfile } from '../bed/profile';
import type { PieceDesign } from '../model/designSchema';
import { volumeCurve, type VolumeCurve } from '../bed/volumeCurve';

/** What a plan needs to know of a bed, at any level. */
export interface SurveyedBed {
  cellMm: number;
  outlineCm2: number;
  /** The bed as it is. */
  drawn: BedGrid;
  /** The bed with every pool brought to the set's level; the drawn one when no pool has a level of its own. */
  grid: BedGrid;
  own: OwnLevels | null;
  curve: VolumeCurve;
  profiles: OutlineProfile[];
  /** The same bed with pools at their own levels, by those and the set's. */
  levelled: Map<string, SurveyedBed>;
  /** Waters looked up lately, by level and dams. */
  waters: Map<string, SurveyedWater>;
}

/** What depends on the level and the dams: too dear to find anew when only a price has changed. */
export interface SurveyedWater {
  dams: DamRun[];
  pools: OwnPools['pools'];
  mergers: OwnPools['mergers'];
  /** Upright banks of the piece itself that the water meets, without the dams. */
  bankWallMm: number;
  /** What the volume may be off by in 19 of 20 cases. */
  uncertaintyMl: number;
}

/** Builds a design's bed once and keeps what every later question needs. */
export function surveyBed(
  design: PieceDesign,
  cellMm = chooseCellMm(design.outline),
  strays: Strays = STRAYS,
): SurveyedBed {
  const grid = buildBed(design, cellMm, strays);
  return {
    cellMm,
    drawn: grid,
    grid,
    own: null,
    levelled: new Map(),
    outlineCm2: outlineAreaMm2(design.outline) / 100,
    curve: volumeCurve(grid),
    profiles: outlineProfiles(grid, design.outline),
    waters: new Map(),
  };
}

const KEPT_WATERS = 4;

/** The bed of a design whose pools may stand at levels of their own, seen from the set's level. The last few are remembered. */
export function levelBed(bed: SurveyedBed, { outline, poolLevels = [] }: PieceDesign, levelMm: number): SurveyedBed {
  if (poolLevels.length === 0) return bed;
  const key = JSON.stringify([levelMm, poolLevels]);
  const known = bed.levelled.get(key);
  if (known) return known;
  const own = levelPools(bed.drawn, poolLevels, levelMm);
  const levelled: SurveyedBed = {
    ...bed,
    own,
    grid: own.grid,
    curve: volumeCurve(own.grid),
    profiles: outlineProfiles(own.grid, outline),
    waters: new Map(),
  };
  bed.levelled.set(key, levelled);
  if (bed.levelled.size > KEPT_WATERS) bed.levelled.delete(bed.levelled.keys().next().value as string);
  return levelled;
}

/** Dams, pools and walls of a bed at a level; the last few are remembered. */
export function surveyWater(
  bed: SurveyedBed,
  design: PieceDesign,
  levelMm: number,
  strays: Strays = STRAYS,
): SurveyedWater {
  const { outline, dams: methods, measured, grainMm } = design;
  const stray = strayOf(design, strays);
  const key = JSON.stringify([levelMm, methods, grainMm, stray]);
  const known = bed.waters.get(key);
  if (known) return known;
  const dams = damRuns(bed.profiles, levelMm, methods).map((run) => atOwnLevel(run, outline, bed.own));
  const dammed = new Set(closedRuns(dams).map(({ edge }) => edge));
  const options = { outline, dammed, damMarginMm: DAM_MARGIN_MM, damOverlapMm: DAM_OVERLAP_MM };
  const found = bed.own
    ? findOwnPools(bed.drawn, bed.own, levelMm, options)
    : { pools: findPools(bed.grid, levelMm, options).map((pool) => ({ ...pool, levelMm })), mergers: [] };
  const water = {
    dams,
    ...found,
    bankWallMm: wallLengthMm(bed.grid, levelMm),
    uncertaintyMl: volumeUncertaintyMl(bed.grid, levelMm, measured, grainMm, stray),
  };
  bed.waters.set(key, water);
  if (bed.waters.size > KEPT_WATERS) bed.waters.delete(bed.waters.keys().next().value as string);
  return water;
}

/** A dam in front of a pool with a level of its own stands as much higher or lower. */
export function atOwnLevel(run: DamRun, outline: PieceDesign['outline'], own: OwnLevels | null): DamRun {
  if (!own) return run;
  const way = runPath(outline, run, -own.grid.cellMm);
  const over = overLevelMm(own, way.length === 2 ? midway(way) : way[Math.floor(way.length / 2)]!);
  return over === 0 ? run : { ...run, topMm: run.topMm + over, lowestBedMm: run.lowestBedMm + over };
}

const midway = (way: readonly PointMm[]): PointMm => ({
  xMm: (way[0]!.xMm + way.at(-1)!.xMm) / 2,
  yMm: (way[0]!.yMm + way.at(-1)!.yMm) / 2,
});

/** The part of a design that its bed depends on, as a key for caches. */
export const bedKey = (design: PieceDesign, strays: Strays = STRAYS): string => {
  const { outline, landMm, drawnLevelMm, features, joints = [], measured, rockColour } = design;
  // Only readings are weighed by how far such a bed strays.
  const weighed = measured ? [strayOf(design, strays)] : [];
  // Where rocks have a paint of their own the bed notes where they stand.
  const rocks = rockColour ? ['rocks'] : [];
  return JSON.stringify([outline, landMm, drawnLevelMm, features, joints, measured, ...weighed, ...rocks]);
};
