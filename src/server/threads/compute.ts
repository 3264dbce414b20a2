import { LRUCache } from 'lru-cache';
import { makePictureBed, type PictureBed, type PictureSource } from '@/core/picture/bedPicture';
import { stripPieces, type StripOptions, type StripPiece } from '@/core/picture/strip';
import type { PieceDesign } from '@/core/model/designSchema';
import {
  amountsOfPieces,
  bedKey,
  lowestBedMm,
  planAmounts,
  planPieces,
  surveyBed,
  type Amounts,
  type AmountsRequest,
  type BedSource,
  type PiecePlan,
  type SurveyedBed,
} from '@/core/plan';
import { matchBed, matchSet, type MatchSet } from '@/core/seams/matchSet';
import type { WaterTint } from '@/core/tint/waterTint';
import type { MatchRequest } from '@/core/seams/matchTypes';

/*
 * What the server computes, in threads of its own: never on the one that answers. Each thread keeps the beds that it has built
 * lately; a surveyed bed holds up to about 1 MB of sums.
 */

const surveyed = new LRUCache<string, SurveyedBed>({ max: 80 });
const matched = new LRUCache<string, SurveyedBed>({ max: 60 });
const pictures = new LRUCache<string, PictureBed>({ max: 400 });

function kept<B extends object>(cache: LRUCache<string, B>, key: string, make: () => B): B {
  const bed = cache.get(key) ?? make();
  cache.set(key, bed);
  return bed;
}

const keptBed: BedSource = (design, strays) =>
  kept(surveyed, bedKey(design, strays), () => surveyBed(design, undefined, strays));
const keptMatchBed = (design: PieceDesign): SurveyedBed => kept(matched, bedKey(design), () => matchBed(design));
const keptPicture: PictureSource = (design, cellMm) =>
  kept(pictures, `${cellMm} ${bedKey(design)}`, () => makePictureBed(design, cellMm));

export const amounts = (request: AmountsRequest): Amounts => planAmounts(request, keptBed);
export const lowestBed = (request: AmountsRequest): number => lowestBedMm(request, keptBed);
export const pieces = ({ request, lowestMm }: { request: AmountsRequest; lowestMm: number }): PiecePlan[] =>
  planPieces(request, lowestMm, keptBed);
export const together = (of: { request: AmountsRequest; lowestMm: number; pieces: PiecePlan[] }): Amounts =>
  amountsOfPieces(of.request, of.lowestMm, of.pieces);

export const match = (request: MatchRequest): MatchSet => matchSet(request, keptMatchBed);

export { firstSchedule, schedule } from '@/core/schedule/solve';
export { warmUp } from './warmUp';

export const strip = ({
  designs,
  levelMm,
  tint,
  options,
}: {
  designs: readonly { id: string; data: PieceDesign }[];
  levelMm: number;
  tint: WaterTint;
  options: StripOptions;
}): StripPiece[] => stripPieces(designs, levelMm, tint, keptPicture, options);
