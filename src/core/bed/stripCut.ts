import type { BedGrid } from './grid';
import { outlineEdges } from './outline';
import { edgeProfile, sectionProfile, type BedProfile } from './profile';
import type { EdgeName, Outline } from './schema';

/** Where a piece is cut open for the waterline: along an edge, or through the middle when no edge is wet. */
export interface StripCut {
  profile: BedProfile;
  place: EdgeName | 'middle';
}

/** An edge must be this much lower than the south edge to be shown instead of it. */
const LOWER_BY_MM = 0.2;

/** The cut that shows most: the edge with the lowest bed, the south edge when it is as low as any; else west to east through the middle. */
export function stripCut(grid: BedGrid, outline: Outline, levelMm: number): StripCut {
  let best: { edge: EdgeName; profile: BedProfile; lowest: number } | null = null;
  for (const edge of ['south', ...outlineEdges(outline).filter((name) => name !== 'south')] as EdgeName[]) {
    if (outlineEdges(outline).length === 0) break;
    const profile = edgeProfile(grid, outline, edge);
    const lowest = profile.heightMm.reduce((a, b) => Math.min(a, b), Infinity);
    if (lowest < levelMm && (!best || lowest < best.lowest - LOWER_BY_MM)) best = { edge, profile, lowest };
  }
  if (best) return { profile: best.profile, place: best.edge };
  return { profile: sectionProfile(grid, 0, outline.lengthMm / 2, outline.widthMm, outline.lengthMm / 2), place: 'middle' };
}
