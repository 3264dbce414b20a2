'use client';

import { useMemo } from 'react';
import { buildBed } from '@/core/bed/buildBed';
import { damRuns, type DamRun } from '@/core/bed/dams';
import { chooseCellMm, previewCellMm, type BedGrid } from '@/core/bed/grid';
import type { PieceDesign } from '@/core/bed/schema';
import { stripCut } from '@/core/bed/stripCut';
import { bedKey, type Plan, type PlanRequest } from '@/core/plan';
import { waterLook, type WaterLook } from '@/core/tint/waterLook';
import type { Stored } from '@/core/records/schema';
import type { StripPiece } from '@/ui/waterline/layoutStrip';

/** Beds for pictures, by their design and cell; a few dozen small grids. */
const pictures = new Map<string, BedGrid>();
const MOST_PICTURES = 80;

/** A bed for a picture: coarse while something moves, about 90 000 cells when it rests. Kept while it is in use. */
export function pictureBed(design: PieceDesign, moving: boolean): BedGrid {
  const cellMm = moving ? previewCellMm(design.outline) : Math.max(chooseCellMm(design.outline), Math.sqrt((design.outline.widthMm * design.outline.lengthMm) / 90_000));
  const key = `${cellMm} ${bedKey(design)}`;
  const bed = pictures.get(key) ?? buildBed(design, cellMm);
  pictures.delete(key);
  pictures.set(key, bed);
  if (pictures.size > MOST_PICTURES) pictures.delete(pictures.keys().next().value as string);
  return bed;
}

/** What the plan of one design is drawn from. */
export interface BedPicture {
  grid: BedGrid;
  look: WaterLook;
  dams: DamRun[];
  deepestMm: number;
}

/** The picture of a design at a level, in the colour of a recipe. */
export function useBedPicture(design: PieceDesign, levelMm: number, recipe: PlanRequest['recipe'] | undefined, moving: boolean): BedPicture {
  return useMemo(() => {
    const grid = pictureBed(design, moving);
    const deepestMm = Math.max(0, levelMm - lowestOf(grid));
    return { grid, look: waterLook(design, recipe?.doses ?? [], deepestMm), dams: damRuns(grid, design.outline, levelMm), deepestMm };
  }, [design, levelMm, recipe, moving]);
}

const lowestOf = ({ heightMm, coverage }: BedGrid): number => heightMm.reduce((lowest, z, i) => (coverage[i]! > 0 && z < lowest ? z : lowest), Infinity);

const GRADES = { stop: 0, warn: 1, hint: 2 };

/** The pieces of a set as the waterline draws them, with what is wrong with each. */
export function stripPieces(designs: readonly Stored<PieceDesign>[], levelMm: number, recipe: PlanRequest['recipe'] | undefined, plan: Plan | null): StripPiece[] {
  return designs.map(({ id, data }) => {
    const grid = pictureBed(data, true);
    const { profile, place } = stripCut(grid, data.outline, levelMm);
    const problem = plan?.problems.filter(({ tag }) => tag === data.tag).sort((a, b) => GRADES[a.severity] - GRADES[b.severity])[0] ?? null;
    return {
      id, profile, place, problem,
      tag: data.tag, name: data.name, copies: data.copies, landColour: data.landColour,
      look: waterLook(data, recipe?.doses ?? [], Math.max(0.1, levelMm - lowestOf(grid))),
      dams: damRuns(grid, data.outline, levelMm).filter(({ edge }) => edge === place),
    };
  });
}
