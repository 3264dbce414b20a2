import { longHeights, shortHeights } from '../picture/shortHeights';
import type { MatchEdge, MatchSet } from './matchSet';

/** A match on its way to the browser: its profiles as short texts. */
export interface PackedMatch extends Omit<MatchSet, 'edges'> {
  edges: (Omit<MatchEdge, 'heightMm'> & { heights: string })[];
}

/** Finer than anything that is measured or shown: seams worked out again from a packed match come out the same on screen. */
const TICK_MM = 1 / 1000;

/** A match with the profiles of its edges to a thousandth of a millimetre. */
export const packMatch = ({ edges, ...match }: MatchSet): PackedMatch => ({
  ...match,
  edges: edges.map(({ heightMm, ...edge }) => ({ ...edge, heights: shortHeights(heightMm, TICK_MM) })),
});

/** The match again. */
export const unpackMatch = ({ edges, ...match }: PackedMatch): MatchSet => ({
  ...match,
  edges: edges.map(({ heights, ...edge }) => ({ ...edge, heightMm: Float32Array.from(longHeights(heights, TICK_MM)) })),
});
