import type { BedProfile, OutlineProfile } from './profile';
import type { EdgeName } from '../model/designSchema';

/** Where a piece is cut open for the waterline: along an edge, or through the middle when no edge is wet. */
export interface StripCut {
  profile: BedProfile;
  place: EdgeName | 'middle';
}

const EDGE_ORDER: readonly EdgeName[] = ['south', 'west', 'north', 'east'];

/**
 * The cut that shows most: an edge where land and water meet, else any edge with water, the south edge before others;
 * else the one through the middle.
 */
export function stripCut(profiles: readonly OutlineProfile[], middle: BedProfile, levelMm: number): StripCut {
  const cuts = EDGE_ORDER.flatMap((place) => {
    const profile = profiles.find(({ edge }) => edge === place)?.profile;
    if (!profile) return [];
    const lowest = profile.heightMm.reduce((a, b) => Math.min(a, b), Infinity);
    const highest = profile.heightMm.reduce((a, b) => Math.max(a, b), -Infinity);
    return [{ place, profile, wet: lowest < levelMm, both: lowest < levelMm && highest >= levelMm }];
  });
  const best = cuts.find(({ both }) => both) ?? cuts.find(({ wet }) => wet);
  return best ? { profile: best.profile, place: best.place } : { profile: middle, place: 'middle' };
}
