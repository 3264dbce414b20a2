import type { EdgeName } from '@/core/model/designSchema';
import type { DeskView } from '@/core/records/views';
import type { MatchSet } from '@/core/seams/matchSet';
import type { MeasuredEdge } from '@/core/model/seamSchema';

/** One edge of one copy on the bench list. */
export interface BenchRow {
  designId: string;
  copy: number;
  edge: EdgeName;
  name: string;
  lengthMm: number;
  measured: MeasuredEdge | null;
  /** What it is measured against: the water as planned. */
  plannedMm: readonly [number, number, number];
}

/** Every wet edge of every copy, piece after piece: the order in which they are measured. */
export function benchRows(
  match: Pick<MatchSet, 'edges'> | null,
  { designs, pieces }: Pick<DeskView, 'designs' | 'pieces'>,
): BenchRow[] {
  return designs.flatMap(({ id, data }) => {
    const edges = (match?.edges ?? []).filter(
      (edge, i, all) =>
        edge.designId === id &&
        edge.wet &&
        all.findIndex((other) => other.designId === id && other.edge === edge.edge) === i,
    );
    return Array.from({ length: data.copies }, (_, i) => i + 1).flatMap((copy) =>
      edges.map(({ edge, lengthMm, levelMm }): BenchRow => ({
        designId: id,
        copy,
        edge,
        lengthMm,
        plannedMm: levelMm,
        name: `${data.tag} #${copy}`,
        measured:
          pieces.find((piece) => piece.data.designId === id && piece.data.copy === copy)?.data.edges?.[edge] ?? null,
      })),
    );
  });
}
