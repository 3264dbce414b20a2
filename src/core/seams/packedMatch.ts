import { longHeights, shortHeights } from '../bed/shortHeights';
import type { MatchSet } from './matchSet';
import { GRADES } from '../model/seamSchema';
import type { MatchEdge, MatchSeam } from './matchTypes';

/** A match on its way to the browser: its profiles as short texts, the figures of its seams no finer than they are known. */
export interface PackedMatch extends Omit<MatchSet, 'edges' | 'seams'> {
  edges: (Omit<MatchEdge, 'heightMm'> & { heights: string })[];
  seams: (Omit<MatchSeam, 'grades'> & { grades: string })[];
}

/** Finer than anything that is measured or shown: seams worked out again from a packed match come out the same on screen. */
const TICK_MM = 1 / 1000;

const short = (value: number): number => Math.round(value * 1e4) / 1e4;
const shortFigures = <T extends object>(row: T): T =>
  Object.fromEntries(
    Object.entries(row).map(([key, value]) => [key, typeof value === 'number' ? short(value) : (value as unknown)]),
  ) as T;

/** A match with the profiles of its edges to a thousandth of a millimetre, its figures to a ten-thousandth. */
export const packMatch = ({ edges, seams, ...match }: MatchSet): PackedMatch => ({
  ...match,
  seams: seams.map(({ grades: { step, gap, colour }, ...seam }) => ({
    ...shortFigures(seam),
    grades: [step, gap, colour].map((grade) => GRADES.indexOf(grade)).join(''),
  })),
  edges: edges.map(({ heightMm, ...edge }) => ({ ...edge, heights: shortHeights(heightMm, TICK_MM) })),
});

/** The match again. */
export const unpackMatch = ({ edges, seams, ...match }: PackedMatch): MatchSet => ({
  ...match,
  seams: seams.map(({ grades, ...seam }) => {
    const [step, gap, colour] = [...grades].map((grade) => GRADES[Number(grade)]!);
    return { ...seam, grades: { step: step!, gap: gap!, colour: colour! } };
  }),
  edges: edges.map(({ heights, ...edge }) => ({ ...edge, heightMm: Float32Array.from(longHeights(heights, TICK_MM)) })),
});
