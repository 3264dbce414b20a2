import { polygonCoverage } from './coverage';
import { outlinePolygon, outlineSize } from './outline';
import type { Outline } from '../model/designSchema';

/**
 * The bed as a height field. Row 0 lies along the south edge, column 0 along the west edge;
 * cell (column, row) has its centre at ((column + ½)·cellMm, (row + ½)·cellMm).
 */
export interface BedGrid {
  cellMm: number;
  columns: number;
  rows: number;
  /** Height of the bed above the underside, mm, rounded to `HEIGHT_TICKS_PER_MM`. */
  heightMm: Float32Array;
  /** Share of each cell inside the outline, 0 to 1. */
  coverage: Float32Array;
  /** 1 where a solid stands on the bed; only where solids have a paint of their own. */
  rock?: Uint8Array;
}

/** Heights are kept to 1/512 mm (2 µm): far below what a bench can measure, and it makes every level query exact. */
export const HEIGHT_TICKS_PER_MM = 512;
export const MOST_CELLS = 1_500_000;

/** A height rounded to the grid's tick. */
export const roundHeight = (mm: number): number => Math.round(mm * HEIGHT_TICKS_PER_MM) / HEIGHT_TICKS_PER_MM;

/** The default cell: about 1/500 of the longer side, between 0.25 and 1 mm, larger only when the piece would exceed `MOST_CELLS`. */
export function chooseCellMm(outline: Outline): number {
  const { widthMm, lengthMm } = outlineSize(outline);
  const longest = Math.max(widthMm, lengthMm);
  const wished = [0.25, 0.5, 1].find((cell) => longest / cell <= 600) ?? 1;
  const cells = (widthMm * lengthMm) / (wished * wished);
  return cells <= MOST_CELLS ? wished : wished * Math.sqrt(cells / MOST_CELLS);
}

/** How many cells the grid of an outline has by default. */
export function cellCount(outline: Outline): number {
  const { widthMm, lengthMm } = outlineSize(outline);
  return (widthMm * lengthMm) / chooseCellMm(outline) ** 2;
}

/** The coarse cell used while something is being dragged: about 12 000 cells a piece. */
export const previewCellMm = (outline: Outline): number => cellFor(outline, 12_000);

/** A cell that gives at most so many cells, not finer than the default one. */
export function cellFor(outline: Outline, mostCells: number): number {
  const { widthMm, lengthMm } = outlineSize(outline);
  return Math.max(chooseCellMm(outline), Math.sqrt((widthMm * lengthMm) / mostCells));
}

/** A grid over an outline, every height set to `landMm`. */
export function flatGrid(outline: Outline, landMm: number, cellMm: number): BedGrid {
  const { widthMm, lengthMm } = outlineSize(outline);
  const columns = Math.max(1, Math.ceil(widthMm / cellMm - 1e-9));
  const rows = Math.max(1, Math.ceil(lengthMm / cellMm - 1e-9));
  const heightMm = new Float32Array(columns * rows).fill(roundHeight(landMm));
  return { cellMm, columns, rows, heightMm, coverage: polygonCoverage(outlinePolygon(outline), columns, rows, cellMm) };
}

/** Area inside the outline as the grid sees it, mm². */
export function gridAreaMm2(grid: BedGrid): number {
  let sum = 0;
  for (const share of grid.coverage) sum += share;
  return sum * grid.cellMm * grid.cellMm;
}
