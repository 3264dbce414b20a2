import type { BedGrid } from '../bed/grid';

/** A piece as a solid to look at: triangles of its upper side and of its cut sides, and its heights as a picture. Millimetres. */
export interface LookMesh {
  /** Corners of the upper side, x y z each, the piece's middle at x = y = 0. */
  positions: Float32Array;
  /** Upward normals, one a corner. */
  normals: Float32Array;
  triangles: Uint32Array;
  /** Corners of the sides, from the underside up to the bed. */
  sides: Float32Array;
  /** Corners of the water's open faces, from the bed up to its level. */
  faces: Float32Array;
  /** Height and coverage of each cell, two numbers each, row by row from the south; on rock the coverage counts `ROCK` more. */
  field: Float32Array;
  columns: number;
  rows: number;
  cellMm: number;
  lowestMm: number;
  /** For each corner of the upper side whether it is rock. */
  rockCorners: Uint8Array;
}

/** What is added to the coverage of a cell of rock. */
export const ROCK = 2;

/** A cell counts to the piece from half of it on. */
const INSIDE = 0.5;

/**
 * The solid of a bed, every corner of a cell at the mean of the cells of the piece round it; sides wherever a cell of the piece
 * has none beside it. The water's open faces stand there where the bed is under `levelMm`.
 */
export function lookMesh({ columns, rows, cellMm, heightMm, coverage, rock }: BedGrid, levelMm: number): LookMesh {
  const inside = (column: number, row: number): boolean =>
    column >= 0 && row >= 0 && column < columns && row < rows && coverage[row * columns + column]! >= INSIDE;
  const across = columns + 1;
  const corners = across * (rows + 1);
  const positions = new Float32Array(corners * 3);
  const normals = new Float32Array(corners * 3);
  const rockCorners = new Uint8Array(corners);
  const xOf = (column: number): number => (column - columns / 2) * cellMm;
  const yOf = (row: number): number => (row - rows / 2) * cellMm;
  for (let row = 0; row <= rows; row++)
    for (let column = 0; column <= columns; column++) {
      let sum = 0;
      let count = 0;
      for (const [c, r] of [
        [column - 1, row - 1],
        [column, row - 1],
        [column - 1, row],
        [column, row],
      ] as const)
        if (inside(c, r)) {
          sum += heightMm[r * columns + c]!;
          count++;
          if (rock?.[r * columns + c]) rockCorners[row * across + column] = 1;
        }
      const at = (row * across + column) * 3;
      positions[at] = xOf(column);
      positions[at + 1] = yOf(row);
      positions[at + 2] = count > 0 ? sum / count : 0;
    }
  const height = (column: number, row: number): number =>
    positions[(Math.min(rows, Math.max(0, row)) * across + Math.min(columns, Math.max(0, column))) * 3 + 2]!;
  for (let row = 0; row <= rows; row++)
    for (let column = 0; column <= columns; column++) {
      const east = (height(column + 1, row) - height(column - 1, row)) / (2 * cellMm);
      const north = (height(column, row + 1) - height(column, row - 1)) / (2 * cellMm);
      const length = Math.hypot(east, north, 1);
      normals.set([-east / length, -north / length, 1 / length], (row * across + column) * 3);
    }
  const triangles: number[] = [];
  const sides: number[] = [];
  const faces: number[] = [];
  let lowestMm = Infinity;
  const wall = (
    into: number[],
    a: readonly number[],
    b: readonly number[],
    low: readonly number[],
    high: readonly number[],
  ): void => {
    const [ax, ay, bx, by] = [a[0]!, a[1]!, b[0]!, b[1]!];
    into.push(ax, ay, low[0]!, bx, by, low[1]!, bx, by, high[1]!, ax, ay, low[0]!, bx, by, high[1]!, ax, ay, high[0]!);
  };
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      if (!inside(column, row)) continue;
      lowestMm = Math.min(lowestMm, heightMm[row * columns + column]!);
      const a = row * across + column;
      triangles.push(a, a + 1, a + across + 1, a, a + across + 1, a + across);
      // Each open side, its corners as one walks round the piece with it to the left.
      for (const [c, r, from, to] of [
        [column, row - 1, [column, row], [column + 1, row]],
        [column + 1, row, [column + 1, row], [column + 1, row + 1]],
        [column, row + 1, [column + 1, row + 1], [column, row + 1]],
        [column - 1, row, [column, row + 1], [column, row]],
      ] as const) {
        if (inside(c, r)) continue;
        const [p, q] = [
          [xOf(from[0]), yOf(from[1])],
          [xOf(to[0]), yOf(to[1])],
        ];
        const bed = [height(from[0], from[1]), height(to[0], to[1])];
        wall(sides, p, q, [0, 0], bed);
        if (Math.min(...bed) < levelMm)
          wall(faces, p, q, bed, [Math.max(levelMm, bed[0]!), Math.max(levelMm, bed[1]!)]);
      }
    }
  const field = new Float32Array(columns * rows * 2);
  for (let i = 0; i < columns * rows; i++) {
    field[2 * i] = heightMm[i]!;
    field[2 * i + 1] = coverage[i]! + (rock?.[i] ? ROCK : 0);
  }
  return {
    positions,
    normals,
    rockCorners,
    field,
    columns,
    rows,
    cellMm,
    triangles: Uint32Array.from(triangles),
    sides: Float32Array.from(sides),
    faces: Float32Array.from(faces),
    lowestMm: Number.isFinite(lowestMm) ? lowestMm : 0,
  };
}
