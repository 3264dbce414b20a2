'use client';

import { useMemo } from 'react';
import { buildBed } from '@/core/bed/buildBed';
import { damRuns, type DamRun } from '@/core/bed/dams';
import { cellFor, previewCellMm, type BedGrid } from '@/core/bed/grid';
import type { PieceDesign } from '@/core/bed/schema';
import { middleProfile, outlineProfiles, type BedProfile, type OutlineProfile } from '@/core/bed/profile';
import { stripCut } from '@/core/bed/stripCut';
import { levelPools, type OwnLevels } from '@/core/bed/poolLevels';
import { atOwnLevel, bedKey, LEVEL_BENCH, type Plan, type PlanRequest, type Tilt, type TiltPlan } from '@/core/plan';
import type { RecipeDose } from '@/core/tint/doses';
import { waterLook, type WaterLook } from '@/core/tint/waterLook';
import type { Stored } from '@/core/records/schema';
import type { StripPiece } from '@/ui/waterline/layoutStrip';

/** A bed for a picture, with all that its pictures ask of it at any level. */
export interface PictureBed {
  grid: BedGrid;
  lowestMm: number;
  profiles: OutlineProfile[];
  middle: BedProfile;
}

/** Kept by their design and cell; a few dozen small grids. */
const pictures = new Map<string, PictureBed>();
const MOST_PICTURES = 80;

/** A bed for a picture: coarse while something moves, about 90 000 cells when it rests. Kept while it is in use. */
export function pictureBed(design: PieceDesign, moving: boolean): PictureBed {
  const { outline } = design;
  const cellMm = moving ? previewCellMm(outline) : cellFor(outline, 90_000);
  const key = `${cellMm} ${bedKey(design)}`;
  const bed = pictures.get(key) ?? makePictureBed(design, cellMm);
  pictures.delete(key);
  pictures.set(key, bed);
  if (pictures.size > MOST_PICTURES) pictures.delete(pictures.keys().next().value as string);
  return bed;
}

const makePictureBed = (design: PieceDesign, cellMm: number): PictureBed =>
  pictureOf(buildBed(design, cellMm), design.outline);

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
export function levelledPicture(design: PieceDesign, levelMm: number, moving: boolean): LevelledPicture {
  const bed = pictureBed(design, moving);
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
export function useBedPicture(
  design: PieceDesign,
  levelMm: number,
  recipe: PlanRequest['recipe'] | undefined,
  moving: boolean,
): BedPicture {
  return useMemo(() => {
    const { grid, lowestMm, profiles, own } = levelledPicture(design, levelMm, moving);
    const deepestMm = Math.max(0, levelMm - lowestMm);
    const dams = damRuns(profiles, levelMm, design.dams).map((run) => atOwnLevel(run, design.outline, own));
    return {
      grid,
      drawnGrid: pictureBed(design, moving).grid,
      look: waterLook(design, recipe?.doses ?? [], deepestMm),
      dams,
      deepestMm,
    };
  }, [design, levelMm, recipe, moving]);
}

const NO_DOSES: readonly RecipeDose[] = [];
/** Looks of a recipe by bed and depth to 0.1 mm: most pieces of a set share a few. */
const looks = new WeakMap<readonly RecipeDose[], Map<string, WaterLook>>();

function keptLook(bedColour: string, doses: readonly RecipeDose[], deepestMm: number): WaterLook {
  const tenths = Math.max(1, Math.ceil(deepestMm * 10));
  const known = looks.get(doses) ?? new Map<string, WaterLook>();
  looks.set(doses, known);
  const key = `${bedColour} ${tenths}`;
  const look = known.get(key) ?? waterLook({ bedColour }, doses, tenths / 10);
  known.set(key, look);
  return look;
}

const GRADES = { stop: 0, warn: 1, hint: 2 };

/** The pieces of a set as the waterline draws them, with what is wrong with each. */
export function stripPieces(
  designs: readonly Stored<PieceDesign>[],
  levelMm: number,
  recipe: PlanRequest['recipe'] | undefined,
  plan: Plan | null,
  tilt: Tilt = LEVEL_BENCH,
): StripPiece[] {
  return designs.map(({ id, data }) => {
    const { lowestMm, profiles, middle, own } = levelledPicture(data, levelMm, true);
    const { profile: levelled, place } = stripCut(profiles, middle, levelMm);
    const drawn = own ? pictureBed(data, true) : null;
    const profile = drawn ? (drawn.profiles.find(({ edge }) => edge === place)?.profile ?? drawn.middle) : levelled;
    const problem =
      plan?.problems
        .filter(({ tag }) => tag === data.tag || tag?.startsWith(`${data.tag} #`))
        .sort((a, b) => GRADES[a.severity] - GRADES[b.severity])[0] ?? null;
    return {
      id,
      profile,
      place,
      problem,
      overMm: drawn && overProfile(profile, levelled),
      surface: stripSurface(
        plan?.pieces.find(({ tag }) => tag === data.tag || tag.startsWith(`${data.tag} #`))?.tilt ?? null,
        place,
        profile.lengthMm,
        levelMm,
        tilt,
      ),
      tag: data.tag,
      name: data.name,
      copies: data.copies,
      landColour: data.landColour,
      look: keptLook(data.bedColour, recipe?.doses ?? NO_DOSES, levelMm - lowestMm),
      dams: damRuns(
        profiles.filter(({ edge }) => edge === place),
        levelMm,
        data.dams,
      ).map((run) => atOwnLevel(run, data.outline, own)),
    };
  });
}

/** By how much the water along a cut stands over the set's level: what its pools were moved by. */
export const overProfile = (drawn: BedProfile, levelled: BedProfile): Float32Array =>
  drawn.heightMm.map((height, i) => height - levelled.heightMm[i]!);

/** The water's surface along a cut: level, or as the tilted bench makes it. */
function stripSurface(
  tilted: TiltPlan | null,
  place: StripPiece['place'],
  lengthMm: number,
  levelMm: number,
  tilt: Tilt,
): StripPiece['surface'] {
  if (!tilted) return { leftMm: levelMm, rightMm: levelMm };
  const middle = levelMm + (tilted.edges.find(({ edge }) => edge === place)?.errorMm ?? 0);
  const half = (((place === 'west' || place === 'east' ? tilt.northMmPerM : tilt.eastMmPerM) / 1000) * lengthMm) / 2;
  return { leftMm: middle - half, rightMm: middle + half };
}
