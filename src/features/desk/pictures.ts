import { LRUCache } from 'lru-cache';
import {
  bedPicture,
  makePictureBed,
  pictureCellMm,
  type BedPicture,
  type PictureBed,
  type PictureSource,
} from '@/core/picture/bedPicture';
import type { PieceDesign } from '@/core/model/designSchema';
import { bedKey } from '@/core/plan';
import type { WaterTint } from '@/core/tint/waterTint';

/** Beds that pictures were drawn from lately: a few dozen small grids. */
const beds = new LRUCache<string, PictureBed>({ max: 140 });

/** A bed for a picture from those kept, or built anew. */
export const keptPicture: PictureSource = (design, cellMm) => {
  const key = `${cellMm} ${bedKey(design)}`;
  const bed = beds.get(key) ?? makePictureBed(design, cellMm);
  beds.set(key, bed);
  return bed;
};

/** The bed of a design for a picture: coarse while something moves, fine when it rests. */
export const pictureBed = (design: PieceDesign, moving: boolean): PictureBed =>
  keptPicture(design, pictureCellMm(design, moving));

/** What a plan of a design is drawn from, at a level, in the colour of a recipe. */
export const pictureOf = (design: PieceDesign, levelMm: number, tint: WaterTint, moving: boolean): BedPicture =>
  bedPicture(design, pictureBed(design, moving), levelMm, tint);
