import type { MatchSet } from '@/core/seams/matchSet';
import { seamReason } from '@/core/seams/seam';
import { formatMeasure, type UnitPreferences } from '@/core/units/formatMeasure';
import type { WalkJoint } from '@/ui/waterline/WaterlineWalk';
import type { MatchSeam } from '@/core/seams/matchTypes';

type Edges = Pick<MatchSet, 'edges'>;

export const seamName = ({ edges }: Edges, { a, b }: Pick<MatchSeam, 'a' | 'b'>): string =>
  `${edges[a]!.piece} ${edges[a]!.edge} and ${edges[b]!.piece} ${edges[b]!.edge}`;

/** What decides the grade of a seam, in the maker's units. */
export function seamWords({ edges }: Edges, seam: MatchSeam, units: UnitPreferences): string {
  const say = (mm: number, decimals: number): string => formatMeasure(mm, 'length', units, decimals);
  if (seam.why === 'unequal')
    return `the edges are ${say(edges[seam.a]!.lengthMm, 0)} and ${say(edges[seam.b]!.lengthMm, 0)} long: only equal ones can meet`;
  return seamReason(seam, say);
}

/** A seam as a walk shows it: over the joint stands what decides its grade. */
export function walkJoint(match: Edges, seam: MatchSeam, units: UnitPreferences): WalkJoint {
  const mm = (value: number): string => formatMeasure(Math.abs(value), 'length', units);
  const figures: Record<MatchSeam['why'], string> = {
    closes: 'closes',
    land: 'land',
    unequal: 'unequal',
    step: mm(seam.stepMm ?? 0),
    gap: `bed ${mm(seam.gapMm)}`,
    colour: `colour ${seam.deltaE.toFixed(1)}`,
  };
  return { grade: seam.grade, figure: figures[seam.why], reason: seamWords(match, seam, units) };
}
