import { ScanError, type Progress, type Triangles } from './stl';
import { packHeights } from '../bed/scanHeights';
import { MOST_SCAN_SAMPLES, type FeatureOf } from '../model/designSchema';

/** Which of a scan's axes points up on the piece. */
export const UP_AXES = ['z', '-z', 'y', '-y', 'x', '-x'] as const;
export type UpAxis = (typeof UP_AXES)[number];

/** Heights over a rectangle, row by row from the south-west, mm above the lowest point of the scan. */
export interface HeightField {
  columns: number;
  rows: number;
  stepMm: number;
  widthMm: number;
  lengthMm: number;
  heightMm: Float32Array;
  highestMm: number;
  /** Share of the samples with nothing of the scan above them; their heights are taken from beside them. */
  holes: number;
}

/** How a scan is to be taken: what its numbers are in, which way is up, how many quarter turns it is turned anticlockwise. */
export interface ScanView {
  unitMm: number;
  up: UpAxis;
  quarterTurns: number;
}

/** For each up axis the axes that become across, up the plan, and height, with their signs; all right-handed. */
const AXES: Record<UpAxis, readonly [number, number, number, number, number, number]> = {
  z: [0, 1, 1, 1, 2, 1],
  '-z': [0, 1, 1, -1, 2, -1],
  y: [0, 1, 2, -1, 1, 1],
  '-y': [0, 1, 2, 1, 1, -1],
  x: [1, 1, 2, 1, 0, 1],
  '-x': [1, 1, 2, -1, 0, -1],
};

/** The size of a scan in its own units along its three axes. */
export function scanSize(triangles: Triangles): readonly [number, number, number] {
  const { least, most } = bounds(triangles);
  return [most[0]! - least[0]!, most[1]! - least[1]!, most[2]! - least[2]!];
}

function bounds(triangles: Triangles): { least: number[]; most: number[] } {
  const least = [Infinity, Infinity, Infinity];
  const most = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < triangles.length; i++) {
    const axis = i % 3;
    const value = triangles[i]!;
    if (value < least[axis]!) least[axis] = value;
    if (value > most[axis]!) most[axis] = value;
  }
  return { least, most };
}

const LARGEST_MM = 3000;
const HIGHEST_MM = 300;
const PROGRESS_EVERY = 50_000;

/**
 * What a ray from above meets first: the height of the topmost triangle at each sample. The scan need not be closed.
 * Samples lie in the middle of their cells, about as many as a design may keep. Throws a `ScanError` when the scan is
 * flat, or with these units larger than a table.
 */
export function heightField(
  triangles: Triangles,
  { unitMm, up, quarterTurns }: ScanView,
  progress: Progress = () => undefined,
  mostSamples = MOST_SCAN_SAMPLES,
): HeightField {
  const { least, most } = bounds(triangles);
  const [ax, sx, ay, sy, az, sz] = turned(AXES[up], quarterTurns);
  const span = (axis: number): number => (most[axis]! - least[axis]!) * unitMm;
  const [widthMm, lengthMm, highestMm] = [span(ax), span(ay), span(az)];
  if (!(widthMm > 0 && lengthMm > 0 && highestMm > 0))
    throw new ScanError('Seen from above this scan has no size. Choose another way up.');
  if (Math.max(widthMm, lengthMm) > LARGEST_MM || highestMm > HIGHEST_MM)
    throw new ScanError(
      `In these units the scan is ${Math.round(widthMm)} × ${Math.round(lengthMm)} × ${Math.round(highestMm)} mm; at most ${LARGEST_MM} × ${LARGEST_MM} × ${HIGHEST_MM} can be used. Choose smaller units or another way up.`,
    );
  const stepMm = sampleStep(widthMm, lengthMm, mostSamples);
  const [columns, rows] = [
    Math.max(2, Math.ceil(widthMm / stepMm - 1e-6)),
    Math.max(2, Math.ceil(lengthMm / stepMm - 1e-6)),
  ];
  const field = new Float32Array(columns * rows).fill(-1);
  const origin = (axis: number, sign: number): number => (sign > 0 ? least[axis]! : -most[axis]!);
  const [ox, oy, oz] = [origin(ax, sx), origin(ay, sy), origin(az, sz)];
  const count = triangles.length / 9;
  const at = (i: number, corner: number, axis: number, sign: number, from: number): number =>
    (sign * triangles[i * 9 + corner * 3 + axis]! - from) * unitMm;
  for (let i = 0; i < count; i++) {
    if (i % PROGRESS_EVERY === 0) progress(i / count);
    lay(
      field,
      columns,
      rows,
      stepMm,
      at(i, 0, ax, sx, ox),
      at(i, 0, ay, sy, oy),
      at(i, 0, az, sz, oz),
      at(i, 1, ax, sx, ox),
      at(i, 1, ay, sy, oy),
      at(i, 1, az, sz, oz),
      at(i, 2, ax, sx, ox),
      at(i, 2, ay, sy, oy),
      at(i, 2, az, sz, oz),
    );
  }
  const holes = fillHoles(field, columns, rows);
  return { columns, rows, stepMm, widthMm, lengthMm, heightMm: field, highestMm, holes: holes / field.length };
}

function turned(
  [ax, sx, ay, sy, az, sz]: (typeof AXES)[UpAxis],
  quarters: number,
): readonly [number, number, number, number, number, number] {
  let axes = [ax, sx, ay, sy, az, sz] as const;
  // A quarter turn anticlockwise: what ran up the plan now runs to the west.
  for (let i = 0; i < ((quarters % 4) + 4) % 4; i++) axes = [axes[2], -axes[3], axes[0], axes[1], axes[4], axes[5]];
  return axes;
}

/** The step between samples: a round number where that costs little, few enough for a design to keep. */
export function sampleStep(widthMm: number, lengthMm: number, mostSamples = MOST_SCAN_SAMPLES): number {
  const least = Math.max(
    Math.sqrt((widthMm * lengthMm) / (mostSamples * 0.97)),
    Math.max(widthMm, lengthMm) / 1990,
    0.05,
  );
  return Math.ceil(least * 100) / 100;
}

/** Raises the samples under one triangle to it. A hair is added round it, so that no sample falls between two that touch. */
function lay(
  field: Float32Array,
  columns: number,
  rows: number,
  step: number,
  x0: number,
  y0: number,
  z0: number,
  x1: number,
  y1: number,
  z1: number,
  x2: number,
  y2: number,
  z2: number,
): void {
  const area = (x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0);
  if (area === 0) return;
  const firstColumn = Math.max(0, Math.ceil(Math.min(x0, x1, x2) / step - 0.5 - 1e-6));
  const lastColumn = Math.min(columns - 1, Math.floor(Math.max(x0, x1, x2) / step - 0.5 + 1e-6));
  const firstRow = Math.max(0, Math.ceil(Math.min(y0, y1, y2) / step - 0.5 - 1e-6));
  const lastRow = Math.min(rows - 1, Math.floor(Math.max(y0, y1, y2) / step - 0.5 + 1e-6));
  const hair = -1e-6;
  for (let row = firstRow; row <= lastRow; row++) {
    const y = (row + 0.5) * step;
    for (let column = firstColumn; column <= lastColumn; column++) {
      const x = (column + 0.5) * step;
      const w1 = ((x - x0) * (y2 - y0) - (x2 - x0) * (y - y0)) / area;
      const w2 = ((x1 - x0) * (y - y0) - (x - x0) * (y1 - y0)) / area;
      if (w1 < hair || w2 < hair || w1 + w2 > 1 - hair) continue;
      const z = z0 + w1 * (z1 - z0) + w2 * (z2 - z0);
      const index = row * columns + column;
      if (z > field[index]!) field[index] = z;
    }
  }
}

/** Gives samples without a height that of their nearest neighbours, ring by ring. Returns how many there were. */
function fillHoles(field: Float32Array, columns: number, rows: number): number {
  let edge: number[] = [];
  let holes = 0;
  for (let i = 0; i < field.length; i++) {
    if (field[i]! < 0) holes++;
    else edge.push(i);
  }
  if (holes === field.length) throw new ScanError('Nothing of the scan can be seen from above. Choose another way up.');
  while (holes > 0 && edge.length > 0) {
    const next: number[] = [];
    for (const from of edge) {
      const column = from % columns;
      for (const to of [
        column > 0 ? from - 1 : -1,
        column < columns - 1 ? from + 1 : -1,
        from - columns,
        from + columns < columns * rows ? from + columns : -1,
      ]) {
        if (to < 0 || field[to]! >= 0) continue;
        field[to] = field[from]!;
        next.push(to);
      }
    }
    edge = next;
    if (next.length === 0) break;
  }
  return holes;
}

/**
 * A height field as the feature that a design keeps. `liftMm` is added to every height (a scan's lowest point may lie
 * over the underside).
 */
export function scanFeature(
  { columns, rows, stepMm, heightMm }: HeightField,
  id: string,
  liftMm = 0,
): FeatureOf<'scan'> {
  return {
    kind: 'scan',
    id,
    columns,
    rows,
    stepMm,
    heights: packHeights(heightMm),
    ...(liftMm > 0 && { baseMm: liftMm }),
  };
}
