import { distanceToPolyline } from '../distance';
import { roundHeight, type BedGrid } from '../grid';
import type { Polygon } from '../outline';
import type { FeatureKind, FeatureOf, PieceDesign } from '../../model/designSchema';
import { sectionHeightMm, sectionReachMm, type CrossSection } from '../section';

/** How one kind of feature changes the bed, in place. */
export type Shaper<K extends FeatureKind> = (grid: BedGrid, feature: FeatureOf<K>, design: PieceDesign) => void;

/** A box of cells round a place: as far as `reachMm` from it, northwards and southwards as far as `upMm` if that is given. */
interface Around {
  xMm: number;
  yMm: number;
  reachMm: number;
  upMm?: number;
}

/** Calls `visit` for every cell whose centre lies within reach of a place (all cells without one). */
export function visitCells(
  { cellMm, columns, rows }: BedGrid,
  around: Around | null,
  visit: (index: number, x: number, y: number) => void,
): void {
  const clamp = (value: number, most: number): number => Math.max(0, Math.min(most, Math.floor(value / cellMm)));
  const upMm = around?.upMm ?? around?.reachMm ?? 0;
  const [fromRow, toRow] = around
    ? [clamp(around.yMm - upMm, rows - 1), clamp(around.yMm + upMm, rows - 1)]
    : [0, rows - 1];
  const [fromColumn, toColumn] = around
    ? [clamp(around.xMm - around.reachMm, columns - 1), clamp(around.xMm + around.reachMm, columns - 1)]
    : [0, columns - 1];
  for (let row = fromRow; row <= toRow; row++) {
    const y = (row + 0.5) * cellMm;
    for (let column = fromColumn; column <= toColumn; column++)
      visit(row * columns + column, (column + 0.5) * cellMm, y);
  }
}

/** The length of a way of dx and dy. In cells of a bed `Math.hypot` would be most of the work. */
export const lengthOf = (dx: number, dy: number): number => Math.sqrt(dx * dx + dy * dy);

/** The highest cell of a bed. */
export function highest({ heightMm }: BedGrid): number {
  let most = -Infinity;
  for (let i = 0; i < heightMm.length; i++) if (heightMm[i]! > most) most = heightMm[i]!;
  return most;
}

/** Lowers the bed to `height(x, y)` wherever that is lower, round a place or everywhere. */
export function carve(
  grid: BedGrid,
  height: (x: number, y: number, index: number) => number,
  around: Around | null = null,
): void {
  const { heightMm } = grid;
  visitCells(grid, around, (index, x, y) => {
    const cut = height(x, y, index);
    if (cut < heightMm[index]!) heightMm[index] = roundHeight(cut);
  });
}

/** Raises the bed to `height(x, y)` wherever that is higher, round a place. */
export function raise(grid: BedGrid, around: Around, height: (x: number, y: number) => number): void {
  const { heightMm } = grid;
  visitCells(grid, around, (index, x, y) => {
    const top = height(x, y);
    if (top > heightMm[index]!) heightMm[index] = roundHeight(top);
  });
}

/** Height of the bed at the cell of a point, the nearest one for points outside. */
export function bedAt({ cellMm, columns, rows, heightMm }: BedGrid, xMm: number, yMm: number): number {
  const clamp = (value: number, most: number): number => Math.max(0, Math.min(most, Math.floor(value / cellMm)));
  return heightMm[clamp(yMm, rows - 1) * columns + clamp(xMm, columns - 1)]!;
}

/** Carves one cross-section all along a line. */
export function carveAlong(grid: BedGrid, line: Polygon, closed: boolean, cut: CrossSection, landMm: number): void {
  const distance = distanceToPolyline(grid, line, closed, sectionReachMm(cut, landMm));
  const { heightMm } = grid;
  for (let i = 0; i < heightMm.length; i++) {
    if (distance[i] === Infinity) continue;
    const height = sectionHeightMm(cut, distance[i]!);
    if (height < heightMm[i]!) heightMm[i] = roundHeight(height);
  }
}

/** Carves along a line a cross-section whose width and depth change from vertex to vertex. */
export function carveChanging(
  grid: BedGrid,
  line: Polygon,
  widthsMm: Float32Array,
  depthsMm: Float32Array,
  cut: CrossSection,
  landMm: number,
): void {
  let reach = 0;
  for (let i = 0; i < widthsMm.length; i++)
    reach = Math.max(reach, sectionReachMm({ ...cut, widthMm: widthsMm[i]!, depthMm: depthsMm[i]! }, landMm));
  const along = new Float32Array(grid.heightMm.length);
  const distance = distanceToPolyline(grid, line, false, reach, along);
  const { heightMm } = grid;
  const here = { ...cut };
  for (let i = 0; i < heightMm.length; i++) {
    if (distance[i] === Infinity) continue;
    const vertex = Math.min(widthsMm.length - 2, Math.floor(along[i]!));
    const share = along[i]! - vertex;
    here.widthMm = widthsMm[vertex]! + share * (widthsMm[vertex + 1]! - widthsMm[vertex]!);
    here.depthMm = depthsMm[vertex]! + share * (depthsMm[vertex + 1]! - depthsMm[vertex]!);
    const height = sectionHeightMm(here, distance[i]!);
    if (height < heightMm[i]!) heightMm[i] = roundHeight(height);
  }
}
