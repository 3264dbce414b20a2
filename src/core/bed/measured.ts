import { z } from 'zod';
import type { BedGrid } from './grid';
import { roundHeight } from './grid';
import type { DepthReading, Measured } from '../model/measuredSchema';
import { outlineSize, type PointMm } from './outline';
import type { Outline } from '../model/outlineSchema';
import { MADE_BY, type MadeBy } from '../model/madeBy';
import type { PieceDesign } from '../model/designSchema';
import { volumeCurve, volumeMl } from './volumeCurve';

/**
 * How a bed strays from its drawing by the way it is made: an offset that the whole bed shares, and a wander that places
 * near each other share, mm, one standard deviation. Typical figures.
 */
export const straySchema = z.object({ offsetMm: z.number().min(0).max(20), wanderMm: z.number().min(0).max(20) });
export type Stray = z.infer<typeof straySchema>;
export const straysSchema = z.record(z.enum(MADE_BY), straySchema);
export type Strays = z.infer<typeof straysSchema>;
export const STRAYS: Strays = {
  'by hand': { offsetMm: 0.5, wanderMm: 0.6 },
  'to a template': { offsetMm: 0.25, wanderMm: 0.3 },
  printed: { offsetMm: 0.1, wanderMm: 0.1 },
  scanned: { offsetMm: 0.1, wanderMm: 0.15 },
};
export const WANDER_RANGE_MM = 25;
/** How well a fill test knows the volume. */
const FILL_SHARE = 0.01;
const FILL_LEAST_ML = 0.3;

/** What two places share of the wander, 1 at one place. The plain root: `Math.hypot` would be half the work. */
const shared = (dx: number, dy: number): number => Math.exp(-Math.sqrt(dx * dx + dy * dy) / WANDER_RANGE_MM);

const covariance = ({ offsetMm, wanderMm }: Stray, a: PointMm, b: PointMm): number =>
  offsetMm * offsetMm + wanderMm * wanderMm * shared(a.xMm - b.xMm, a.yMm - b.yMm);

/** How a design's bed strays: as the maker says it is made; a scanned one as scans do, else by hand. */
export const strayOf = (
  { madeBy, features }: Pick<PieceDesign, 'madeBy' | 'features'>,
  strays: Strays = STRAYS,
): Stray => strays[madeByOf({ madeBy, features })];
export const madeByOf = ({ madeBy, features }: Pick<PieceDesign, 'madeBy' | 'features'>): MadeBy =>
  madeBy ?? (features.some(({ kind }) => kind === 'scan') ? 'scanned' : 'by hand');

/** Readings brought to the middle of their cells; several in one cell become their mean. */
export interface CellReading {
  cell: number;
  xMm: number;
  yMm: number;
  /** Measured less drawn bed height. */
  residualMm: number;
}

/** Readings of a grid’s cells, against the bed that the grid holds. */
export function cellReadings(
  { columns, rows, cellMm, heightMm }: BedGrid,
  { readings, atLevelMm }: Measured,
): CellReading[] {
  const byCell = new Map<number, number[]>();
  for (const { xMm, yMm, depthMm } of readings) {
    const column = Math.min(columns - 1, Math.max(0, Math.floor(xMm / cellMm)));
    const row = Math.min(rows - 1, Math.max(0, Math.floor(yMm / cellMm)));
    const cell = row * columns + column;
    byCell.set(cell, [...(byCell.get(cell) ?? []), atLevelMm - depthMm]);
  }
  return [...byCell].map(([cell, heights]) => ({
    cell,
    xMm: ((cell % columns) + 0.5) * cellMm,
    yMm: (Math.floor(cell / columns) + 0.5) * cellMm,
    residualMm: heights.reduce((sum, height) => sum + height, 0) / heights.length - heightMm[cell]!,
  }));
}

/** Lower triangle L with L·Lᵀ = the covariance among readings, row by row. */
function cholesky(readings: readonly CellReading[], stray: Stray): Float64Array[] {
  const rows: Float64Array[] = [];
  readings.forEach((a, i) => {
    const row = new Float64Array(i + 1);
    for (let j = 0; j <= i; j++) {
      const b = readings[j]!;
      let sum = covariance(stray, a, b);
      for (let k = 0; k < j; k++) sum -= row[k]! * (j === i ? row[k]! : rows[j]![k]!);
      row[j] = j === i ? Math.sqrt(Math.max(sum, 1e-12)) : sum / rows[j]![j]!;
    }
    rows.push(row);
  });
  return rows;
}

/** Solves L·v = values. */
function forward(lower: readonly Float64Array[], values: ArrayLike<number>): Float64Array {
  const solution = new Float64Array(lower.length);
  lower.forEach((row, i) => {
    let sum = values[i]!;
    for (let k = 0; k < i; k++) sum -= row[k]! * solution[k]!;
    solution[i] = sum / row[i]!;
  });
  return solution;
}

/** Solves Lᵀ·w = values. */
function backward(lower: readonly Float64Array[], values: Float64Array): Float64Array {
  const solution = Float64Array.from(values);
  for (let i = lower.length - 1; i >= 0; i--) {
    solution[i] = solution[i]! / lower[i]![i]!;
    for (let k = 0; k < i; k++) solution[k] = solution[k]! - lower[i]![k]! * solution[i]!;
  }
  return solution;
}

/**
 * Brings a drawn bed to what was measured, in place. Between readings the difference is the best linear estimate from
 * them (kriging with the covariance above), exact at each reading, fading into the shared offset far from all.
 * Land that was not carved (`landMm`) stays unless a reading lies on it. A fill test then scales all depths below its
 * level so that the volume is what was filled in.
 */
export function correctBed(grid: BedGrid, measured: Measured, landMm: number, stray = STRAYS['by hand']): void {
  const readings = cellReadings(grid, measured);
  if (readings.length > 0) applyReadings(grid, readings, landMm, stray);
  if (measured.fillMl !== null) scaleToFill(grid, measured.atLevelMm, measured.fillMl);
}

function applyReadings(grid: BedGrid, readings: readonly CellReading[], landMm: number, stray: Stray): void {
  const { columns, cellMm, heightMm } = grid;
  const lower = cholesky(readings, stray);
  const weights = backward(
    lower,
    forward(
      lower,
      readings.map(({ residualMm }) => residualMm),
    ),
  );
  const offset = stray.offsetMm ** 2 * weights.reduce((sum, weight) => sum + weight, 0);
  const land = roundHeight(landMm);
  for (let i = 0; i < heightMm.length; i++) {
    if (heightMm[i]! >= land) continue;
    const x = ((i % columns) + 0.5) * cellMm;
    const y = (Math.floor(i / columns) + 0.5) * cellMm;
    let wander = 0;
    for (let k = 0; k < readings.length; k++)
      wander += weights[k]! * shared(x - readings[k]!.xMm, y - readings[k]!.yMm);
    heightMm[i] = roundHeight(Math.max(0, heightMm[i]! + offset + stray.wanderMm ** 2 * wander));
  }
  for (const { cell, residualMm } of readings)
    if (heightMm[cell]! >= land) heightMm[cell] = roundHeight(heightMm[cell]! + residualMm);
}

function scaleToFill(grid: BedGrid, levelMm: number, fillMl: number): void {
  const has = volumeMl(volumeCurve(grid), levelMm);
  if (!(has > 0)) return;
  const factor = fillMl / has;
  const { heightMm } = grid;
  for (let i = 0; i < heightMm.length; i++)
    if (heightMm[i]! < levelMm) heightMm[i] = roundHeight(Math.max(0, levelMm - factor * (levelMm - heightMm[i]!)));
}

/** How well the mean height of a grainy bed is known, as a share of its grain. */
const GRAIN_SHARE = 0.25;

/** Places that stand for the wet bed when its volume's uncertainty is worked out. */
const SAMPLES = 140;

/** Some of a bed's wet cells, evenly taken from the first to the last. */
function wetCells({ heightMm, coverage }: BedGrid, levelMm: number, wet: number): number[] {
  const stride = Math.max(1, wet / SAMPLES);
  const cells: number[] = [];
  const most = Math.min(SAMPLES, wet);
  for (let i = 0, seen = 0; cells.length < most; i++) {
    if (!(heightMm[i]! < levelMm) || !(coverage[i]! > 0)) continue;
    if (seen++ === Math.floor((cells.length + 0.5) * stride)) cells.push(i);
  }
  return cells;
}

/**
 * Twice the standard deviation of the volume at a level, in ml: what the bed as drawn, or as measured, may be off by in
 * 19 of 20 cases. From the covariance that the readings leave, averaged over pairs of wet places; a fill test caps it.
 * Sand or gravel laid by hand has a mean height unknown by a quarter of its grain, which readings on grains do not narrow.
 */
export function volumeUncertaintyMl(
  grid: BedGrid,
  levelMm: number,
  measured: Measured | null,
  grainMm = 0,
  stray = STRAYS['by hand'],
): number {
  const { columns, cellMm, heightMm, coverage } = grid;
  let wet = 0;
  let area = 0;
  for (let i = 0; i < heightMm.length; i++) {
    if (!(heightMm[i]! < levelMm) || !(coverage[i]! > 0)) continue;
    wet++;
    area += coverage[i]! * cellMm * cellMm;
  }
  if (wet === 0) return 0;
  const readings = measured ? cellReadings(grid, measured) : [];
  const lower = cholesky(readings, stray);
  const samples = wetCells(grid, levelMm, wet).map((cell) => {
    const xMm = ((cell % columns) + 0.5) * cellMm;
    const yMm = (Math.floor(cell / columns) + 0.5) * cellMm;
    return {
      xMm,
      yMm,
      known: forward(
        lower,
        readings.map((reading) => covariance(stray, { xMm, yMm }, reading)),
      ),
    };
  });
  let sum = 0;
  samples.forEach((a, i) => {
    // Each pair once, and counted twice: it is the same either way round.
    for (let j = 0; j <= i; j++) {
      const b = samples[j]!;
      let left = covariance(stray, a, b);
      for (let k = 0; k < readings.length; k++) left -= a.known[k]! * b.known[k]!;
      sum += j === i ? left : 2 * left;
    }
  });
  const twoSigma = (2 * area * Math.sqrt(Math.max(0, sum / samples.length ** 2) + (GRAIN_SHARE * grainMm) ** 2)) / 1000;
  return measured?.fillMl == null
    ? twoSigma
    : Math.min(twoSigma, Math.max(FILL_LEAST_ML, 2 * FILL_SHARE * measured.fillMl));
}

/** Readings nearer than this that differ by more cannot both be right. */
const SAME_PLACE_MM = 1;
const CONTRADICTION_MM = 1;

/** What is wrong with readings before they are used: outside the piece, or contradicting each other. By index. */
export function checkReadings(
  readings: readonly DepthReading[],
  outline: Outline,
): { index: number; message: string }[] {
  const { widthMm, lengthMm } = outlineSize(outline);
  return readings.flatMap(({ xMm, yMm, depthMm }, index) => {
    if (xMm > widthMm || yMm > lengthMm)
      return [{ index, message: `Reading ${index + 1} lies outside the piece, which is ${widthMm} × ${lengthMm} mm.` }];
    const twin = readings
      .slice(0, index)
      .findIndex(
        (other) =>
          Math.hypot(other.xMm - xMm, other.yMm - yMm) < SAME_PLACE_MM &&
          Math.abs(other.depthMm - depthMm) > CONTRADICTION_MM,
      );
    return twin < 0
      ? []
      : [
          {
            index,
            message: `Readings ${twin + 1} and ${index + 1} are at one place but ${Math.abs(readings[twin]!.depthMm - depthMm).toFixed(1)} mm apart. Take one of them out.`,
          },
        ];
  });
}

/** Where a measured bed strays most from its drawing; positive where it is deeper. */
export interface Difference {
  deeperMm: number;
  xMm: number;
  yMm: number;
}

/** The largest difference between two grids of one outline, first the deeper, then the shallower. */
export function largestStrays(drawn: BedGrid, real: BedGrid): { deeper: Difference; shallower: Difference } {
  const { columns, cellMm } = drawn;
  const at = (index: number): Difference => ({
    deeperMm: drawn.heightMm[index]! - real.heightMm[index]!,
    xMm: ((index % columns) + 0.5) * cellMm,
    yMm: (Math.floor(index / columns) + 0.5) * cellMm,
  });
  let [deepest, shallowest] = [0, 0];
  for (let i = 0; i < drawn.heightMm.length; i++) {
    const difference = drawn.heightMm[i]! - real.heightMm[i]!;
    if (difference > drawn.heightMm[deepest]! - real.heightMm[deepest]!) deepest = i;
    if (difference < drawn.heightMm[shallowest]! - real.heightMm[shallowest]!) shallowest = i;
  }
  return { deeper: at(deepest), shallower: at(shallowest) };
}
