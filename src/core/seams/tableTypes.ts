import type { PieceRef } from '../model/pieceRef';
import type { TablePlace, TableSide } from '../model/tableSchema';

/** A kind of tile: how many there are, whether it may be turned, and which sides have water. */
export interface TableTile extends PieceRef {
  /** What it is called. */
  tag: string;
  copies: number;
  /** May be laid in any way that its shape allows; else only in the first of them. */
  turnable: boolean;
  /** Water on each side as drawn, anticlockwise from the south. */
  wet: readonly boolean[];
  /** A tile whose water reads one way: the side at which it comes in, as drawn; it goes out at the others. */
  from?: TableSide | undefined;
  /** A measured copy beside others of its design: no second like it can be made. */
  once?: boolean | undefined;
  /** What a further one is called; its own name where that is not said. */
  drawnTag?: string | undefined;
  /** A tile with a pond on it. */
  pond?: boolean | undefined;
}

/** A tile on the table: which kind, turned by how many steps anticlockwise. */
export interface LaidTile extends TablePlace {
  tile: number;
  turns: number;
}

export interface TableLayout {
  laid: LaidTile[];
  /** Pieces that the stock lacks, by kind. */
  extras: { tile: number; count: number }[];
}

/** What a search came to: a layout with as few extras as were allowed; the proof that there is none; or neither, in the steps allowed. */
export type TableResult =
  | { kind: 'found'; layout: TableLayout; fewest: boolean }
  /** `inTheWay`: what alone keeps it from being laid, where that was looked for. */
  | { kind: 'none'; inTheWay?: string[] }
  | { kind: 'gave up' };

/** Whether two sides of two kinds of tile may stand against each other under water. Sides as drawn. */
export type SidesMeet = (tileA: number, sideA: TableSide, tileB: number, sideB: TableSide) => boolean;
