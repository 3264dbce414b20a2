import type { BedGrid } from './grid';
import { outlineEdges } from './outline';
import { edgeProfile, sectionProfile, type BedProfile } from './profile';
import type { EdgeName, Outline } from './schema';

/** Where a piece is cut open for the waterline: along an edge, or through the middle when no edge is wet. */
export interface StripCut {
  profile: BedProfile;
  place: EdgeName | 'middle';
}

const EDGE_ORDER: readonly EdgeName[] = ['south', 'west', 'north', 'east'];

/**
 * The cut that shows most: an edge where land and water meet, else any edge with water, the south edge before others;
 * else west to east through the middle.
 */
export function stripCut(grid: BedGrid, outline: Outline, levelMm: number): StripCut {
  const edges = outlineEdges(outline);
  const cuts = EDGE_ORDER.filter((edge) => edges.includes(edge)).map((edge) => {
    const profile = edgeProfile(grid, outline, edge);
    const lowest = profile.heightMm.reduce((a, b) => Math.min(a, b), Infinity);
    const highest = profile.heightMm.reduce((a, b) => Math.max(a, b), -Infinity);
    return { place: edge, profile, wet: lowest < levelMm, both: lowest < levelMm && highest >= levelMm };
  });
  const best = cuts.find(({ both }) => both) ?? cuts.find(({ wet }) => wet);
  if (best) return { profile: best.profile, place: best.place };
  return { profile: sectionProfile(grid, 0, outline.lengthMm / 2, outline.widthMm, outline.lengthMm / 2), place: 'middle' };
}
