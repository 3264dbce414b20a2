import { closedRuns, type DamRun } from '@/core/bed/dams';
import type { CupPlan } from '@/core/plan';
import { copyNames } from '@/core/model/pieceRef';
import { formatCut, type UnitPreferences } from '@/core/units/formatMeasure';

/** Pours of one cup gathered by design and portion: `HS-1 #1 to #3, 12.4 g each`. */
export interface PourGroup {
  designId: string;
  tag: string;
  copies: number[];
  grams: number;
}

/** Puts equal pours of one design together, in their order. */
export function groupPours(pours: CupPlan['pours']): PourGroup[] {
  const groups: PourGroup[] = [];
  for (const { designId, tag, copy, grams } of pours) {
    const group = groups.find((other) => other.designId === designId && Math.abs(other.grams - grams) < 0.005);
    if (group) group.copies.push(copy);
    else groups.push({ designId, tag, copies: [copy], grams });
  }
  return groups;
}

/** Which pieces a cup fills: `HS-1 #1 to #3, HS-2 #1`. */
export const pourWords = (pours: CupPlan['pours']): string =>
  groupPours(pours)
    .map(({ tag, copies }) => `${tag} ${copyNames(copies)}`)
    .join(', ');

/** Dams in words, equal ones together: `north and south 68 mm × 18 mm`. */
export function damWords(dams: readonly DamRun[], units: UnitPreferences): string {
  const bySize = new Map<string, string[]>();
  for (const { edge, stripMm, topMm } of closedRuns(dams)) {
    const size = `${formatCut(stripMm, units)} × ${formatCut(topMm, units)}`;
    bySize.set(size, [...(bySize.get(size) ?? []), edge]);
  }
  return [...bySize].map(([size, edges]) => `${edges.join(' and ')} ${size}`).join(', ');
}
