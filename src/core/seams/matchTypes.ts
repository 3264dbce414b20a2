import type { PieceDesign } from '../model/designSchema';
import type { EdgeName } from '../model/outlineSchema';
import type { EdgeStandard } from '../model/edgeStandardSchema';
import type { PieceRef } from '../model/pieceRef';
import type { CornerHeights, MeasuredEdge, RowWish, SeamLimits } from '../model/seamSchema';
import type { Tilt } from '../plan/request';
import type { WaterTint } from '../tint/waterTint';
import type { Seam } from './seam';
import type { SeamEdge } from './seamEdge';

/** A piece as it is matched: a design, or one copy of it with measurements of its own. */
export interface MatchPiece extends PieceRef {
  /** `HS-1`, or `HS-1 #2` for a copy that was measured. */
  tag: string;
  /** How many pieces it stands for, and which copies those are; the first ones where that is not said. */
  copies: number;
  copyNumbers?: number[];
  design: PieceDesign;
  edges: Partial<Record<EdgeName, MeasuredEdge>>;
  /** Strips under its corners: south-west, south-east, north-east, north-west as drawn. */
  shimsMm?: CornerHeights;
  /** What colours its water, where that is not what colours the set's. */
  tint?: WaterTint;
}

export interface MatchRequest {
  pieces: MatchPiece[];
  levelMm: number;
  limits: SeamLimits;
  standards: EdgeStandard[];
  tilt: Tilt;
  tint: WaterTint;
  row: RowWish;
}

/** An edge of the set as its piece stands, shims and all; its profile, and how it keeps to its standard. */
export interface MatchEdge extends SeamEdge, PieceRef {
  wet: boolean;
  standard: string | null;
  /** True when the bed is drawn to the standard over its blend length. */
  drawnTo: boolean;
  /** Where what was carved (or measured) departs most from the standard; null when it keeps to it, or there is none. */
  departs: { atMm: number; offMm: number } | null;
}

/** A seam of the set: which edges, by index, and what it is like. */
export interface MatchSeam extends Seam {
  a: number;
  b: number;
  score: number;
}
