import { CLEAR_TINT } from '../tint/waterTint';
import type { PieceDesign } from '../model/designSchema';
import { sectionHeightMm } from '../bed/section';
import { testDesign } from '../bed/testShapes';
import { LEVEL_BENCH, surveyBed } from '../plan';
import { newFeature } from '../bed/starters';
import { isMeant, matchSet, slimMatch, type MatchSet } from './matchSet';
import { NO_WISH, SEAM_LIMITS } from '../model/seamSchema';
import { standardFrom } from './seamEdge';
import type { MatchPiece } from './matchTypes';

/** Straight creek tiles whose ports stand a little apart: every pair of ends is a seam of its own. */
const tile = (i: number): MatchPiece => {
  const channel = {
    ...newFeature('channel', testDesign()),
    from: { edge: 'south' as const, positionMm: 70 },
    to: { edge: 'north' as const, positionMm: 70 },
    widthMm: 40,
    depthMm: 4 + i * 0.1,
  };
  const design = testDesign([channel as PieceDesign['features'][number]], { tag: `T-${i}` });
  return { tag: design.tag, designId: design.tag, copy: null, copies: 1, design, edges: {} };
};
const matchOf = (count: number): MatchSet =>
  matchSet(
    {
      pieces: Array.from({ length: count }, (_, i) => tile(i)),
      levelMm: 15,
      limits: SEAM_LIMITS,
      standards: [],
      tilt: LEVEL_BENCH,
      tint: CLEAR_TINT,
      row: NO_WISH,
    },
    (design) => surveyBed(design, 2),
  );

describe('a first look at the seams of a set', () => {
  test('of a small one is all of it', () => {
    const match = matchOf(3);
    expect(slimMatch(match)).toBe(match);
    expect(match.partial).toBe(false);
  });
  const whole = matchOf(14);
  const slim = slimMatch(whole);
  test('of a large one is an extract that says so, with the counts of the whole', () => {
    expect(slim.partial).toBe(true);
    expect(slim.edges.length).toBeLessThan(whole.edges.length);
    expect(slim.counts).toBe(whole.counts);
    expect(whole.counts.meant).toBe(whole.seams.filter(isMeant).length);
    expect(Object.values(whole.counts.grades).reduce((a, b) => a + b, 0)).toBe(whole.seams.length);
  });
  test('shows the worst of those that are meant to meet, each of the very edges it was of', () => {
    const worst = whole.seams.filter(isMeant).slice(0, slim.seams.length);
    expect(slim.seams.length).toBeGreaterThan(5);
    slim.seams.forEach((seam, i) => {
      expect(seam.score).toBe(worst[i]!.score);
      expect(slim.edges[seam.a]).toBe(whole.edges[worst[i]!.a]);
      expect(slim.edges[seam.b]).toBe(whole.edges[worst[i]!.b]);
    });
  });
});

describe('a standard taken from an edge', () => {
  /** The bed along an edge of 140 mm with a cut in its middle, 18 mm high beside it. */
  const edge = (section: 'trapezoid' | 'bowl' | 'v'): Float32Array =>
    Float32Array.from({ length: 281 }, (_, i) =>
      Math.min(
        18,
        sectionHeightMm({ section, widthMm: 60, depthMm: 6, levelMm: 15, bankSlope: 1.5 }, Math.abs(i * 0.5 - 70)),
      ),
    );
  test.each(['trapezoid', 'bowl', 'v'] as const)('of a %s is a %s, as wide and as deep', (section) => {
    const standard = standardFrom(edge(section), 140, 15, 'Mouth', 'm');
    expect(standard.section).toBe(section);
    expect(standard).toMatchObject({ portMm: 70, widthMm: 60, depthMm: 6, levelMm: 15, bankMm: 18 });
  });
  test('keeps its figures as they are, not to a tenth', () => {
    const inches = 5.5625 * 25.4;
    const bed = Float32Array.from({ length: 283 }, (_, i) =>
      Math.min(
        18,
        sectionHeightMm(
          { section: 'trapezoid', widthMm: 57.15, depthMm: 6.35, levelMm: 15.875, bankSlope: 1 },
          Math.abs((i * inches) / 282 - inches / 2),
        ),
      ),
    );
    const { edgeMm, widthMm, depthMm, portMm } = standardFrom(bed, inches, 15.875, 'Mouth', 'm');
    expect(edgeMm).toBeCloseTo(inches, 3);
    expect(widthMm).toBeCloseTo(57.15, 3);
    expect(depthMm).toBeCloseTo(6.35, 3);
    expect(portMm).toBeCloseTo(inches / 2, 3);
  });
  test('of a dry edge is a dry one', () =>
    expect(standardFrom(new Float32Array(281).fill(18), 140, 15, 'Dry', 'd')).toMatchObject({
      widthMm: 0,
      depthMm: 0,
    }));
});
