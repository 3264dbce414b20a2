import type { EdgeName } from '../model/designSchema';
import type { TablePlace, TableSide, TableGridKind } from '../model/tableSchema';

/** How tiles of one shape lie beside each other. Sides are counted anticlockwise from the south. */
export interface TableShape {
  sides: readonly TableSide[];
  /** The sides by name, of the table as of a tile as drawn. */
  names: readonly EdgeName[];
  /** By how many steps anticlockwise, each a turn from one side to the next, a tile may lie turned. */
  turns: readonly number[];
  /** The place beyond a side of a place. */
  beyond: (place: TablePlace, side: TableSide) => TablePlace;
}

const FOUR: readonly EdgeName[] = ['south', 'east', 'north', 'west'];
const SIX: readonly EdgeName[] = ['south', 'south-east', 'north-east', 'north', 'north-west', 'south-west'];
const DX: readonly number[] = [0, 1, 0, -1];
const DY: readonly number[] = [-1, 0, 1, 0];

const cornered = (turns: readonly number[]): TableShape => ({
  sides: [0, 1, 2, 3],
  names: FOUR,
  turns,
  beyond: ({ column, row }, side) => ({ column: column + DX[side]!, row: row + DY[side]! }),
});

/** Columns to the east or west lie half a place lower for even columns, half a place higher for odd ones. */
const HEX_DX = [0, 1, 1, 0, -1, -1] as const;
const HEX_DY = [
  [-1, -1, 0, 1, 0, -1],
  [-1, 0, 1, 1, 1, 0],
] as const;

export const TABLE_SHAPES: Record<TableGridKind, TableShape> = {
  square: cornered([0, 1, 2, 3]),
  rectangle: cornered([0, 2]),
  'rectangle across': cornered([1, 3]),
  hexagon: {
    sides: [0, 1, 2, 3, 4, 5],
    names: SIX,
    turns: [0, 1, 2, 3, 4, 5],
    beyond: ({ column, row }, side) => ({ column: column + HEX_DX[side]!, row: row + HEX_DY[column & 1]![side]! }),
  },
};

export const opposite = ({ sides }: TableShape, side: number): TableSide =>
  ((side + sides.length / 2) % sides.length) as TableSide;
/** The side of a drawn tile that faces a side of the table when it is turned. */
export const drawnSide = ({ sides }: TableShape, side: number, turns: number): TableSide =>
  ((((side - turns) % sides.length) + sides.length) % sides.length) as TableSide;
/** The side of the table that a drawn side faces when its tile is turned. */
export const tableSide = ({ sides }: TableShape, drawn: number, turns: number): TableSide =>
  ((drawn + turns) % sides.length) as TableSide;

/** A tile's size as drawn; of a hexagon across its flats, south to north, in `lengthMm`. */
export interface TileSize {
  widthMm: number;
  lengthMm: number;
}

/** From one place to the next across and up the table, and what a single place takes, mm. */
export function placePitch(grid: TableGridKind, { widthMm, lengthMm }: TileSize): { acrossMm: number; upMm: number } {
  if (grid === 'hexagon') return { acrossMm: widthMm * 0.75, upMm: lengthMm };
  return grid === 'rectangle across' ? { acrossMm: lengthMm, upMm: widthMm } : { acrossMm: widthMm, upMm: lengthMm };
}

/** How much of a table so many places take. */
export function tableExtent(
  grid: TableGridKind,
  size: TileSize,
  columns: number,
  rows: number,
): { acrossMm: number; upMm: number } {
  const { acrossMm, upMm } = placePitch(grid, size);
  if (grid !== 'hexagon') return { acrossMm: columns * acrossMm, upMm: rows * upMm };
  return { acrossMm: (columns - 1) * acrossMm + size.widthMm, upMm: rows * upMm + (columns > 1 ? upMm / 2 : 0) };
}

/** A tile cut half a millimetre large still fits. */
const SLACK_MM = 0.5;

/** How many places a table of a size has, at least one each way, and the strips that are left over. */
export function placesOn(
  grid: TableGridKind,
  size: TileSize,
  table: { acrossMm: number; upMm: number },
): { columns: number; rows: number; leftAcrossMm: number; leftUpMm: number } {
  const fitting = (fits: (count: number) => boolean): number => {
    let count = 1;
    while (count < 400 && fits(count + 1)) count++;
    return count;
  };
  const columns = fitting((count) => tableExtent(grid, size, count, 1).acrossMm <= table.acrossMm + SLACK_MM);
  const rows = fitting((count) => tableExtent(grid, size, columns, count).upMm <= table.upMm + SLACK_MM);
  const taken = tableExtent(grid, size, columns, rows);
  return { columns, rows, leftAcrossMm: table.acrossMm - taken.acrossMm, leftUpMm: table.upMm - taken.upMm };
}

/** Where a place lies on its table, from the south-west corner, and how large it is, mm. */
export interface PlaceBox {
  xMm: number;
  yMm: number;
  acrossMm: number;
  upMm: number;
}

export function placeBox(grid: TableGridKind, size: TileSize, { column, row }: TablePlace): PlaceBox {
  const { acrossMm, upMm } = placePitch(grid, size);
  const half = grid === 'hexagon' && column % 2 === 1 ? upMm / 2 : 0;
  return {
    xMm: column * acrossMm,
    yMm: row * upMm + half,
    acrossMm: grid === 'hexagon' ? size.widthMm : acrossMm,
    upMm,
  };
}

/** The middle of a side of a place, as shares of its box from its south-west corner. */
export const sideMiddle = (grid: TableGridKind, side: TableSide): { across: number; up: number } =>
  grid === 'hexagon'
    ? { across: [0.5, 0.875, 0.875, 0.5, 0.125, 0.125][side]!, up: [0, 0.25, 0.75, 1, 0.75, 0.25][side]! }
    : { across: [0.5, 1, 0.5, 0][side]!, up: [0, 0.5, 1, 0.5][side]! };

/** Sides of the places of a table at which there is no other place. */
export function tableEdges(grid: TableGridKind, columns: number, rows: number): (TablePlace & { side: TableSide })[] {
  const { sides, beyond } = TABLE_SHAPES[grid];
  const outside = ({ column, row }: TablePlace): boolean => column < 0 || row < 0 || column >= columns || row >= rows;
  return Array.from({ length: columns * rows }, (_, i) => ({
    column: i % columns,
    row: Math.floor(i / columns),
  })).flatMap((place) => sides.filter((side) => outside(beyond(place, side))).map((side) => ({ ...place, side })));
}

/** How a tile lies turned, in words; nothing where it lies as drawn. */
export function turnedWords(grid: TableGridKind, turns: number): string {
  if (turns === 0) return '';
  if (grid === 'hexagon') return turns === 3 ? 'turned by half' : `turned ${turns} ${turns === 1 ? 'sixth' : 'sixths'}`;
  return ['', 'turned a quarter', 'turned by half', 'turned three quarters'][turns]!;
}
