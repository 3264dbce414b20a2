import { damRuns, type DamRun } from '../bed/dams';
import { buildBed } from '../bed/buildBed';
import { cellFor, previewCellMm, type BedGrid } from '../bed/grid';
import { levelPools, type OwnLevels } from '../bed/poolLevels';
import { middleProfile, outlineProfiles, type BedProfile, type OutlineProfile } from '../bed/profile';
import type { PieceDesign } from '../model/designSchema';
import { atOwnLevel } from '../plan/beds';
import type { WaterTint } from '../tint/waterTint';
import { waterLook, type WaterLook } from '../tint/waterLook';

/** A bed for a picture, with all that its pictures ask of it at any level. */
export interface PictureBed {
  grid: BedGrid;
  lowestMm: number;
  profiles: OutlineProfile[];
  middle: BedProfile;
}

/** Where pictures get their beds: built anew, or kept by their design and cell. */
export type PictureSource = (design: PieceDesign, cellMm: number) => PictureBed;

/** Cells of a bed at rest, and of one that moves or is drawn small. */
const RESTING_CELLS = 90_000;

/** A bed as coarse as a picture of it may be: about 90 000 cells at rest, 12 000 while something moves. */
export const pictureCellMm = ({ outline }: PieceDesign, moving: boolean): number =>
  moving ? previewCellMm(outline) : cellFor(outline, RESTING_CELLS);

export const makePictureBed: PictureSource = (design, cellMm) => pictureOf(buildBed(design, cellMm), design.outline);

function pictureOf(grid: BedGrid, outline: PieceDesign['outline']): PictureBed {
  let lowestMm = Infinity;
  for (let i = 0; i < grid.heightMm.length; i++)
    if (grid.coverage[i]! > 0 && grid.heightMm[i]! < lowestMm) lowestMm = grid.heightMm[i]!;
  return { grid, lowestMm, profiles: outlineProfiles(grid, outline), middle: middleProfile(grid, outline) };
}

/** A bed for a picture with every pool brought to the set's level. */
export interface LevelledPicture extends PictureBed {
  own: OwnLevels | null;
}

/** The picture of a bed whose pools may stand at levels of their own, seen from the set's level. */
export function levelledPicture(design: PieceDesign, bed: PictureBed, levelMm: number): LevelledPicture {
  if (!design.poolLevels?.length) return { ...bed, own: null };
  const own = levelPools(bed.grid, design.poolLevels, levelMm);
  return { ...pictureOf(own.grid, design.outline), own };
}

/** What the plan of one design is drawn from. */
export interface BedPicture {
  /** The bed with every pool brought to the set's level, and as it is. */
  grid: BedGrid;
  drawnGrid: BedGrid;
  look: WaterLook;
  dams: DamRun[];
  deepestMm: number;
}

/** The picture of a design at a level, in the colour of a recipe. */
export function bedPicture(design: PieceDesign, bed: PictureBed, levelMm: number, tint: WaterTint): BedPicture {
  const { grid, lowestMm, profiles, own } = levelledPicture(design, bed, levelMm);
  const deepestMm = Math.max(0, levelMm - lowestMm);
  return {
    grid,
    drawnGrid: bed.grid,
    look: waterLook(design, tint, deepestMm),
    dams: damRuns(profiles, levelMm, design.dams).map((run) => atOwnLevel(run, design.outline, own)),
    deepestMm,
  };
}

/** By how much the water along a cut stands over the set's level: what its pools were moved by. */
export const overProfile = (drawn: BedProfile, levelled: BedProfile): Float32Array =>
  drawn.heightMm.map((height, i) => height - levelled.heightMm[i]!);
