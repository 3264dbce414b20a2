import type { EdgeName } from '../model/designSchema';
import type { CornerHeights, MeasuredEdge } from '../model/seamSchema';
import type { PieceRecord } from './recordSchemas';
import type { Stored } from '../model/stored';

/** A copy with what was measured on some of its edges (an edge with no reading is forgotten) and the shims it stands on (null: none). */
export function withMeasures(
  piece: PieceRecord,
  edges: Partial<Record<EdgeName, MeasuredEdge>> | undefined,
  shimsMm: CornerHeights | null | undefined,
): PieceRecord {
  const { edges: oldEdges, shimsMm: oldShims, ...rest } = piece;
  const merged = Object.fromEntries(
    Object.entries({ ...oldEdges, ...edges }).filter(
      ([, edge]) => edge !== undefined && (edge.bed.length > 0 || edge.levels !== null),
    ),
  ) as PieceRecord['edges'];
  const shims = shimsMm === undefined ? oldShims : shimsMm?.some((mm) => mm > 0) ? shimsMm : undefined;
  return {
    ...rest,
    ...(merged && Object.keys(merged).length > 0 && { edges: merged }),
    ...(shims && { shimsMm: shims }),
  };
}

/** True while anything is known of a copy that its design does not say. */
export const isKnown = ({ measured, edges, shimsMm, water }: PieceRecord): boolean =>
  measured.readings.length > 0 ||
  measured.fillMl !== null ||
  edges !== undefined ||
  shimsMm !== undefined ||
  water !== undefined;

/** Copies to be measured, each with the version of what a screen knows of it; null where it knows nothing. */
export const asSeen = <T extends { designId: string; copy: number }>(
  { pieces }: { pieces: readonly Stored<PieceRecord>[] },
  copies: readonly T[],
): (T & { version: number | null })[] =>
  copies.map((one) => ({
    ...one,
    version: pieces.find(({ data }) => data.designId === one.designId && data.copy === one.copy)?.version ?? null,
  }));
