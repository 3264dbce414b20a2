import { closedRuns, damRuns, type DamRun } from '../bed/dams';
import { outlineSize } from '../bed/outline';
import { rockStretches, sectionProfile, type BedProfile, type Stretches } from '../bed/profile';
import type { EdgeName, PieceDesign } from '../model/designSchema';
import { stripCut } from '../bed/stripCut';
import type { Problem } from '../model/problem';
import { atOwnLevel } from '../plan/beds';
import type { Amounts, TiltPlan } from '../plan/plan';
import type { Tilt } from '../plan/request';
import type { WaterTint } from '../tint/waterTint';
import { waterLook, type WaterLook } from '../tint/waterLook';
import {
  levelledPicture,
  overProfile,
  pictureCellMm,
  type LevelledPicture,
  type PictureBed,
  type PictureSource,
} from './bedPicture';

/** Where the pieces of a strip are cut open. `own` is the section line of each design; where it has none, its deepest line. */
export const STRIP_CUTS = ['edge', 'middle', 'deepest', 'own'] as const;
export type StripCutChoice = (typeof STRIP_CUTS)[number];

/** Heights along a cut, evenly spaced, thinned for a picture. */
export interface ThinProfile {
  lengthMm: number;
  heightMm: readonly number[];
}

/** A dam as the strip draws it: to a tenth of a millimetre. */
export type StripDam = Pick<DamRun, 'method' | 'fromMm' | 'toMm' | 'topMm' | 'stripMm'>;

/** One piece as it stands on the table line. */
export interface StripPiece {
  id: string;
  tag: string;
  name: string;
  copies: number;
  profile: ThinProfile;
  place: EdgeName | 'middle' | 'deepest' | 'own';
  look: WaterLook;
  /** Where rocks of a paint of their own stand along the cut, mm, and that paint. */
  rocks: Stretches;
  rockColour: string | null;
  /** The water's surface at the left and right end of the cut; level unless the bench is not. */
  surface: { leftMm: number; rightMm: number };
  /** By how much the water stands over that at each sample, where a pool has a level of its own. */
  overMm: readonly number[] | null;
  /** What closes the edge that is shown. */
  dams: readonly StripDam[];
  /** The worst of what is wrong with it. */
  problem: Problem | null;
}

export interface StripOptions {
  cut?: StripCutChoice;
  /** Samples of each cut. */
  samples?: number;
  /** Steps of the water's colours. */
  colours?: number;
}

const SAMPLES = 141;
/** Samples and colours of a whole strip: many pieces are each drawn small. */
const STRIP_SAMPLES = 1600;
const FEWEST_SAMPLES = 25;
const FEW_PIECES = 12;
const FEW_COLOURS = 4;
const GRADES = { stop: 0, warn: 1, hint: 2 };

/** The pieces of a set as the waterline draws them. */
export function stripPieces(
  designs: readonly { id: string; data: PieceDesign }[],
  levelMm: number,
  tint: WaterTint,
  bedOf: PictureSource,
  { cut = 'edge', samples, colours }: StripOptions = {},
): StripPiece[] {
  const count = samples ?? Math.max(FEWEST_SAMPLES, Math.min(SAMPLES, Math.floor(STRIP_SAMPLES / designs.length)));
  const steps = colours ?? (designs.length > FEW_PIECES ? FEW_COLOURS : undefined);
  return designs.map(({ id, data }) => {
    const bed = bedOf(data, pictureCellMm(data, true));
    const levelled = levelledPicture(data, bed, levelMm);
    const shown = cutOpen(data, levelled, levelMm, cut);
    const drawn = levelled.own ? cutOpen(data, bed, levelMm, cut, shown.place).profile : shown.profile;
    return {
      id,
      tag: data.tag,
      name: data.name,
      copies: data.copies,
      profile: thinned(drawn, count),
      place: shown.place,
      look: waterLook(data, tint, Math.max(0.1, levelMm - levelled.lowestMm), steps),
      rocks: rockStretches(shown.profile).map(([from, to]) => [tenth(from), tenth(to)]),
      rockColour: data.rockColour ?? null,
      surface: { leftMm: levelMm, rightMm: levelMm },
      overMm: levelled.own ? thinned({ ...drawn, heightMm: overProfile(drawn, shown.profile) }, count).heightMm : null,
      dams: closedRuns(
        damRuns(
          levelled.profiles.filter(({ edge }) => edge === shown.place),
          levelMm,
          data.dams,
        ),
      ).map((run) => stripDam(atOwnLevel(run, data.outline, levelled.own))),
      problem: null,
    };
  });
}

/** The pieces of a strip with what the plan says of each: the worst of its problems, and how its water stands on a tilted bench. */
export function flagged(
  strip: readonly StripPiece[],
  plan: Pick<Amounts, 'pieces' | 'problems'> | null,
  levelMm: number,
  tilt: Tilt,
): StripPiece[] {
  if (!plan) return [...strip];
  return strip.map((piece) => {
    const problem =
      plan.problems
        .filter((candidate) => candidate.piece?.designId === piece.id)
        .sort((a, b) => GRADES[a.severity] - GRADES[b.severity])[0] ?? null;
    const tilted = plan.pieces.find(({ designId }) => designId === piece.id)?.tilt ?? null;
    const surface = tilted ? stripSurface(tilted, piece.place, piece.profile.lengthMm, levelMm, tilt) : piece.surface;
    return { ...piece, problem, surface };
  });
}

/** Where a piece is cut: at its edges, across its middle, across its deepest place, or along its own section line. */
function cutOpen(
  design: PieceDesign,
  bed: PictureBed | LevelledPicture,
  levelMm: number,
  choice: StripCutChoice,
  place?: StripPiece['place'],
): { profile: BedProfile; place: StripPiece['place'] } {
  if (choice === 'middle') return { profile: bed.middle, place: 'middle' };
  if (choice === 'own' && design.sectionLine) {
    const { from, to } = design.sectionLine;
    return { profile: sectionProfile(bed.grid, from.xMm, from.yMm, to.xMm, to.yMm), place: 'own' };
  }
  if (choice !== 'edge') {
    const { widthMm } = outlineSize(design.outline);
    const y = deepestRowMm(bed);
    return { profile: sectionProfile(bed.grid, 0, y, widthMm, y), place: 'deepest' };
  }
  const known = place && bed.profiles.find(({ edge }) => edge === place)?.profile;
  if (known && place) return { profile: known, place };
  return place === 'middle' ? { profile: bed.middle, place } : stripCut(bed.profiles, bed.middle, levelMm);
}

/** How far up a piece its deepest place lies: the middle of the rows that reach it. */
function deepestRowMm({ grid, lowestMm }: PictureBed): number {
  const { columns, rows, cellMm, heightMm, coverage } = grid;
  let [first, last] = [-1, -1];
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const i = row * columns + column;
      if (coverage[i]! <= 0 || heightMm[i]! > lowestMm + 0.02) continue;
      if (first < 0) first = row;
      last = row;
      break;
    }
  }
  return first < 0 ? (rows * cellMm) / 2 : ((first + last) / 2 + 0.5) * cellMm;
}

/** What a strip is drawn to. */
export const STRIP_TICK_MM = 0.1;
const tenth = (mm: number): number => Math.round(mm * 10) / 10;

const stripDam = ({ method, fromMm, toMm, topMm, stripMm }: DamRun): StripDam => ({
  method,
  fromMm: tenth(fromMm),
  toMm: tenth(toMm),
  topMm: tenth(topMm),
  stripMm: tenth(stripMm),
});

/** A profile at no more samples than a picture shows, to a tenth of a millimetre. Ends stay ends; between, the nearest sample counts. */
function thinned({ lengthMm, heightMm }: BedProfile, samples: number): ThinProfile {
  const count = Math.min(samples, heightMm.length);
  const last = heightMm.length - 1;
  return {
    lengthMm,
    heightMm: Array.from({ length: count }, (_, i) => tenth(heightMm[Math.round((i * last) / (count - 1))]!)),
  };
}

/** The water's surface along a cut: level, or as the tilted bench makes it. */
function stripSurface(
  tilted: TiltPlan,
  place: StripPiece['place'],
  lengthMm: number,
  levelMm: number,
  tilt: Tilt,
): StripPiece['surface'] {
  const middle = levelMm + (tilted.edges.find(({ edge }) => edge === place)?.errorMm ?? 0);
  const half = (((place === 'west' || place === 'east' ? tilt.northMmPerM : tilt.eastMmPerM) / 1000) * lengthMm) / 2;
  return { leftMm: middle - half, rightMm: middle + half };
}
