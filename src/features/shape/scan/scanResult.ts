import type { PieceDesign } from '@/core/model/designSchema';

/** What the maker has settled on: a change to a design, in words. */
export interface ScanResult {
  /** Null while it cannot be used; `complaint` says why. */
  change: ((design: PieceDesign) => PieceDesign) | null;
  what: string;
}
