import type { EdgeStandard } from '../model/edgeStandardSchema';
import { standardHeightMm } from '../bed/joints';
import { edgeLengthMm, startsAtLeft } from '../bed/outline';
import { rockStretches, type BedProfile, type Stretches } from '../bed/profile';
import { sectionSchema } from '../model/featureSchema';
import type { EdgeName, Outline, Section } from '../model/designSchema';
import { sectionHeightMm, type CrossSection } from '../bed/section';
import type { MeasuredEdge } from '../model/seamSchema';

/** Spacing of the samples along an edge. */
export const SEAM_STEP_MM = 0.5;

/** One edge of one piece, as seen from the middle of the piece: from its left end to its right. */
export interface SeamEdge {
  /** What its piece is called, as in `HS-1 #2`. */
  piece: string;
  edge: EdgeName;
  lengthMm: number;
  /** Bed above the underside, every `SEAM_STEP_MM`. */
  heightMm: Float32Array;
  /** The water's level at the left end, the middle, the right end. */
  levelMm: readonly [number, number, number];
  measured: boolean;
  /** Where rocks of a paint of their own stand, mm from its left end. */
  rocks?: Stretches;
  /** The water's colour by depth, over the bed and over such rocks. */
  look: { colours: readonly string[]; stepMm: number; rock?: readonly string[] };
}

/** The rocks along an edge as seen from within the piece, from its left end. */
export function edgeRocks(outline: Outline, edge: EdgeName, profile: BedProfile): Stretches {
  const stretches = rockStretches(profile);
  if (startsAtLeft(outline, edge)) return stretches;
  return stretches.map(([from, to]) => [profile.lengthMm - to, profile.lengthMm - from] as const).reverse();
}

const samples = (lengthMm: number): number => Math.max(2, Math.round(lengthMm / SEAM_STEP_MM) + 1);

/** The height of a profile at a place along it, straight between its samples. */
function heightAlong({ heightMm, stepMm }: BedProfile, atMm: number): number {
  const at = Math.max(0, Math.min(heightMm.length - 1, atMm / stepMm));
  const i = Math.min(heightMm.length - 2, Math.floor(at));
  return heightMm[i]! + (at - i) * (heightMm[i + 1]! - heightMm[i]!);
}

/**
 * The bed along an edge from left to right: as designed, brought to what was measured on it. Between readings the
 * difference runs straight, beyond the outermost it stays as it is there; exact at each reading.
 */
export function edgeHeights(
  outline: Outline,
  edge: EdgeName,
  profile: BedProfile,
  measured: MeasuredEdge | null,
): Float32Array {
  const lengthMm = edgeLengthMm(outline, edge);
  const count = samples(lengthMm);
  const readings = [...(measured?.bed ?? [])]
    .sort((a, b) => a.atMm - b.atMm)
    .map(({ atMm, heightMm }) => ({ atMm, off: heightMm - heightAlong(profile, atMm) }));
  const forward = startsAtLeft(outline, edge);
  return Float32Array.from({ length: count }, (_, i) => {
    const along = (lengthMm * i) / (count - 1);
    const atMm = forward ? along : lengthMm - along;
    return heightAlong(profile, atMm) + offAt(readings, atMm);
  });
}

function offAt(readings: readonly { atMm: number; off: number }[], atMm: number): number {
  if (readings.length === 0) return 0;
  const next = readings.findIndex((reading) => reading.atMm >= atMm);
  if (next === 0) return readings[0]!.off;
  if (next < 0) return readings.at(-1)!.off;
  const [a, b] = [readings[next - 1]!, readings[next]!];
  return a.off + ((b.off - a.off) * (atMm - a.atMm)) / (b.atMm - a.atMm || 1);
}

/** Three levels along an edge, given from its west or south end, as from its left end. */
export const edgeLevels = (
  outline: Outline,
  edge: EdgeName,
  [start, middle, end]: readonly [number, number, number],
): readonly [number, number, number] => (startsAtLeft(outline, edge) ? [start, middle, end] : [end, middle, start]);

/** The bed that a standard asks for along its edge, left to right. */
export function standardHeights(standard: EdgeStandard): Float32Array {
  const count = samples(standard.edgeMm);
  return Float32Array.from({ length: count }, (_, i) =>
    standardHeightMm(standard, (standard.edgeMm * i) / (count - 1)),
  );
}

/** Where an edge departs most from its standard, from its left end; null while it keeps within the tolerance. */
export function departure(heightMm: Float32Array, standard: EdgeStandard): { atMm: number; offMm: number } | null {
  const wanted = standardHeights(standard);
  if (wanted.length !== heightMm.length) return { atMm: 0, offMm: Infinity };
  // An upright bank may lie a sample to either side: only what no neighbour explains counts.
  let worst = { atMm: 0, offMm: 0 };
  for (let i = 0; i < wanted.length; i++) {
    const near = [wanted[i]!, wanted[Math.max(0, i - 1)]!, wanted[Math.min(wanted.length - 1, i + 1)]!];
    const [low, high] = [Math.min(...near), Math.max(...near)];
    const off = heightMm[i]! < low ? heightMm[i]! - low : heightMm[i]! > high ? heightMm[i]! - high : 0;
    if (Math.abs(off) > Math.abs(worst.offMm)) worst = { atMm: i * SEAM_STEP_MM, offMm: off };
  }
  return Math.abs(worst.offMm) > standard.toleranceMm ? worst : null;
}

/**
 * A standard taken from an edge: its port from where the bed crosses the level, its depth and banks from the bed. Null
 * when the edge is dry.
 */
export function standardFrom(
  heightMm: Float32Array,
  lengthMm: number,
  levelMm: number,
  name: string,
  id: string,
): EdgeStandard {
  const step = lengthMm / (heightMm.length - 1);
  const crossing = (i: number): number =>
    (i - 1 + (levelMm - heightMm[i - 1]!) / (heightMm[i]! - heightMm[i - 1]!)) * step;
  let [from, to, lowest] = [-1, -1, Infinity];
  for (let i = 0; i < heightMm.length; i++) {
    if (!(heightMm[i]! < levelMm)) continue;
    if (from < 0) from = i === 0 ? 0 : crossing(i);
    to = i === heightMm.length - 1 ? lengthMm : crossing(i + 1);
    lowest = Math.min(lowest, heightMm[i]!);
  }
  const bankMm = Math.max(
    levelMm,
    heightMm.reduce((a, b) => Math.max(a, b), 0),
  );
  // As it is, but for the last digits of a sum.
  const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;
  const common = { id, name, edgeMm: round(lengthMm), levelMm, bankMm: round(bankMm), toleranceMm: 0.5, blendMm: 12 };
  if (from < 0)
    return { ...common, section: 'trapezoid', portMm: round(lengthMm / 2), widthMm: 0, depthMm: 0, bankSlope: 1 };
  const [widthMm, depthMm] = [to - from, levelMm - lowest];
  // The floor is what lies within a tenth of the depth of the deepest.
  const floor = heightMm.reduce((sum, z) => sum + (z < lowest + depthMm * 0.1 ? step : 0), 0);
  const bankSlope = Math.max(0, Math.min((widthMm - floor) / 2 / (depthMm * 0.9), widthMm / 2 / depthMm));
  const cut = { widthMm, depthMm, levelMm, bankSlope: Math.floor(bankSlope * 1e4) / 1e4 };
  const portMm = (from + to) / 2;
  return {
    ...common,
    section: likestSection(
      cut,
      (i) => heightMm[i]!,
      (i) => Math.abs(i * step - portMm),
      [from / step, to / step],
    ),
    portMm: round(portMm),
    widthMm: round(widthMm),
    depthMm: round(depthMm),
    bankSlope: cut.bankSlope,
  };
}

/** Of the sections that there are the one that lies closest to a bed between its banks, by the sum of squares. */
function likestSection(
  cut: Omit<CrossSection, 'section'>,
  height: (i: number) => number,
  off: (i: number) => number,
  [from, to]: readonly [number, number],
): Section {
  const strays = (section: Section): number => {
    let sum = 0;
    for (let i = Math.ceil(from); i <= to; i++) {
      const z = Math.min(cut.levelMm, sectionHeightMm({ ...cut, section }, off(i)));
      sum += (z - height(i)) ** 2;
    }
    return sum;
  };
  return sectionSchema.options.reduce((best, section) => (strays(section) < strays(best) ? section : best));
}
