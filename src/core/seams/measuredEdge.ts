import type { MeasuredEdge } from '../model/seamSchema';

/** An edge on which nothing was measured yet. */
export const NOT_MEASURED: MeasuredEdge = { bed: [], levels: null };

/** Whether a level of an edge was measured: at its start (0), middle (1) or end (2). */
export const wasMeasured = ({ levels, takenOver = [] }: MeasuredEdge, k: number): boolean =>
  levels !== null && !takenOver.includes(k);

/**
 * An edge with a level measured at its start (0), middle (1) or end (2). Those that were not measured are taken over: from the
 * only one that is, or between the two that are; which they are is kept beside them.
 */
export function withLevel(edge: MeasuredEdge, k: number, value: number): MeasuredEdge {
  const known = [0, 1, 2].filter((i) => i !== k && wasMeasured(edge, i));
  const at = (i: number): number => (i === k ? value : edge.levels![i]!);
  const all = [...known, k].sort();
  const filled = (i: number): number => {
    if (all.includes(i)) return at(i);
    if (all.length === 1) return value;
    // Straight through the two that are known; beyond them as the nearer one.
    return i === 1 ? (at(0) + at(2)) / 2 : at(1);
  };
  const takenOver = [0, 1, 2].filter((i) => !all.includes(i));
  const { takenOver: _, ...rest } = edge;
  return { ...rest, levels: [filled(0), filled(1), filled(2)], ...(takenOver.length > 0 && { takenOver }) };
}
