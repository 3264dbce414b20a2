import { outlineSize } from '../bed/outline';
import type { PieceDesign } from '../model/designSchema';
import type { MeasuredEdges } from '../model/seamSchema';
import type { KeptTable } from '../model/tableSchema';
import { placePitch, TABLE_SHAPES } from '../seams/tableShape';

/** A piece as it stands on the table to be looked at: its middle, how far it is turned anticlockwise, where its water stands. */
export interface LookPlace {
  key: string;
  designId: string;
  copy: number | null;
  design: PieceDesign;
  xMm: number;
  yMm: number;
  turnRad: number;
  /** Height of its water over the table, mm: as wished, or as was measured on its edges. */
  surfaceMm: number;
}

/** What is looked at: one piece, all designs together, or a table that was laid. */
export type LookAt = { kind: 'piece'; designId: string } | { kind: 'row' } | { kind: 'table'; tableId: string };

/** More pieces than this are not drawn at once. */
export const MOST_LOOKED_AT = 60;
/** Pieces stand together with a hair between them. */
const HAIR_MM = 0.4;
/** Pieces that are only shown together, not laid, stand apart. */
const APART_MM = 12;

/** What of a set's desk is looked at. */
interface Desk {
  set: { data: { levelMm: number; tables?: readonly KeptTable[] | undefined } };
  designs: readonly { id: string; data: PieceDesign }[];
  pieces: readonly { data: { designId: string; copy: number; edges?: MeasuredEdges | undefined } }[];
}

/** Where the water of a copy stands over the table: its measured levels in the mean, else the set's. */
export function surfaceOf({ set, pieces }: Desk, designId: string, copy: number | null): number {
  const measured = pieces.find(({ data }) => data.designId === designId && data.copy === copy)?.data.edges ?? {};
  const levels = Object.values(measured).flatMap((edge) => edge?.levels ?? []);
  return levels.length > 0 ? levels.reduce((sum, mm) => sum + mm, 0) / levels.length : set.data.levelMm;
}

/** The pieces as they stand, at most `MOST_LOOKED_AT` of them. Empty where the piece or the laid table is gone. */
export function lookPlaces(desk: Desk, at: LookAt): LookPlace[] {
  const { designs, set } = desk;
  const place = (
    design: Desk['designs'][number],
    copy: number | null,
    where: Pick<LookPlace, 'key' | 'xMm' | 'yMm' | 'turnRad'>,
  ): LookPlace => ({
    ...where,
    designId: design.id,
    copy,
    design: design.data,
    surfaceMm: surfaceOf(desk, design.id, copy),
  });
  if (at.kind === 'piece')
    return designs
      .filter(({ id }) => id === at.designId)
      .map((design) => place(design, null, { key: design.id, xMm: 0, yMm: 0, turnRad: 0 }));
  if (at.kind === 'row') {
    const shown = designs.slice(0, MOST_LOOKED_AT).map((design) => ({ design, ...outlineSize(design.data.outline) }));
    // As on shelves, the first at the back: about twice as wide as deep, so that it fills the picture.
    const area = shown.reduce((sum, { widthMm, lengthMm }) => sum + widthMm * lengthMm, 0);
    const most = Math.max(Math.sqrt(area * 2.4), ...shown.map(({ widthMm }) => widthMm));
    let [x, y, deepest] = [0, 0, 0];
    return shown.map(({ design, widthMm, lengthMm }) => {
      if (x > 0 && x + widthMm > most) [x, y, deepest] = [0, y - deepest - APART_MM, 0];
      const where = { key: design.id, xMm: x + widthMm / 2, yMm: y - lengthMm / 2, turnRad: 0 };
      x += widthMm + APART_MM;
      deepest = Math.max(deepest, lengthMm);
      return place(design, null, where);
    });
  }
  const table = set.data.tables?.find(({ id }) => id === at.tableId);
  if (!table?.laid) return [];
  const { grid } = table.wish;
  const first = designs.find(({ id }) => table.laid!.some(({ piece }) => piece.designId === id));
  if (!first) return [];
  const { acrossMm, upMm } = placePitch(grid, outlineSize(first.data.outline));
  const step = (2 * Math.PI) / TABLE_SHAPES[grid].sides.length;
  return table.laid.slice(0, MOST_LOOKED_AT).flatMap(({ piece, column, row, turns }) => {
    const design = designs.find(({ id }) => id === piece.designId);
    if (!design) return [];
    const half = grid === 'hexagon' && column % 2 === 1 ? upMm / 2 : 0;
    return [
      place(design, piece.copy, {
        key: `${column},${row}`,
        xMm: column * (acrossMm + HAIR_MM),
        yMm: row * (upMm + HAIR_MM) + half,
        turnRad: turns * step,
      }),
    ];
  });
}

/** The middle of all that stands, and how far it reaches from there. */
export function lookExtent(places: readonly LookPlace[]): { xMm: number; yMm: number; radiusMm: number } {
  if (places.length === 0) return { xMm: 0, yMm: 0, radiusMm: 100 };
  const reach = ({ design }: LookPlace): number => {
    const { widthMm, lengthMm } = outlineSize(design.outline);
    return Math.hypot(widthMm, lengthMm) / 2;
  };
  const least = (axis: 'xMm' | 'yMm'): number =>
    Math.min(...places.map((place) => place[axis] - reach(place) / Math.SQRT2));
  const most = (axis: 'xMm' | 'yMm'): number =>
    Math.max(...places.map((place) => place[axis] + reach(place) / Math.SQRT2));
  const [west, east, south, north] = [least('xMm'), most('xMm'), least('yMm'), most('yMm')];
  return { xMm: (west + east) / 2, yMm: (south + north) / 2, radiusMm: Math.hypot(east - west, north - south) / 2 };
}
