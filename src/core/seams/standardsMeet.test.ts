import { CLEAR_TINT } from '../tint/waterTint';
import fc from 'fast-check';
import { edgeStandardSchema, type EdgeStandard } from '../model/edgeStandardSchema';
import { withJoints } from '../bed/joints';
import type { EdgeName, Feature, PieceDesign } from '../model/designSchema';
import { newFeature } from '../bed/starters';
import { testDesign } from '../bed/testShapes';
import { transformDesign } from '../bed/transform';
import { volumeMl } from '../bed/volumeCurve';
import { LEVEL_BENCH, surveyBed } from '../plan';
import { matchSet } from './matchSet';
import { NO_WISH, SEAM_LIMITS } from '../model/seamSchema';
import { departure, edgeHeights, standardFrom, standardHeights } from './seamEdge';
import { edgeProfile } from '../bed/profile';
import { buildBed } from '../bed/buildBed';
import type { MatchPiece } from './matchTypes';

/** What an edge standard is for: pieces that were drawn differently meet all the same. */
const LEVEL = 15;
const standards = fc
  .record({
    port: fc.integer({ min: 45, max: 95 }),
    width: fc.integer({ min: 24, max: 60 }),
    depth: fc.integer({ min: 2, max: 9 }),
    section: fc.constantFrom('trapezoid' as const, 'bowl' as const, 'v' as const),
    slope: fc.integer({ min: 6, max: 12 }),
    bank: fc.integer({ min: 16, max: 21 }),
  })
  .map(({ port, width, depth, section, slope, bank }): EdgeStandard =>
    edgeStandardSchema.parse({
      id: 'm',
      name: 'Mouth',
      edgeMm: 140,
      portMm: port,
      widthMm: width,
      depthMm: depth,
      section,
      bankSlope: Math.min(slope / 10, width / 2 / depth),
      levelMm: LEVEL,
      bankMm: bank,
      toleranceMm: 0.5,
      blendMm: 12,
    }),
  );
const carved = fc
  .record({
    position: fc.integer({ min: 50, max: 90 }),
    width: fc.integer({ min: 20, max: 60 }),
    depth: fc.integer({ min: 2, max: 9 }),
    land: fc.integer({ min: 16, max: 20 }),
  })
  .map(
    ({ position, width, depth, land }) =>
      (edge: EdgeName): PieceDesign =>
        testDesign(
          [
            {
              ...newFeature('channel', testDesign()),
              from: { edge: 'south', positionMm: 70 },
              to: { edge: 'north', positionMm: position },
              widthMm: width,
              depthMm: depth,
              bankSlope: 1,
            } as Feature,
          ],
          { landMm: land, edgeStandards: { [edge]: 'm' } },
        ),
  );
const piece = (tag: string, design: PieceDesign): MatchPiece => ({
  tag,
  designId: tag,
  copy: null,
  copies: 1,
  design,
  edges: {},
});
const match = (pieces: MatchPiece[], given: EdgeStandard[]): ReturnType<typeof matchSet> =>
  matchSet(
    {
      pieces,
      levelMm: LEVEL,
      limits: SEAM_LIMITS,
      standards: given,
      tilt: LEVEL_BENCH,
      tint: CLEAR_TINT,
      row: NO_WISH,
    },
    (design) => surveyBed(design, 0.5),
  );

test('whatever two pieces were carved like, edges drawn to one standard close when the standard is the same from both sides', () => {
  fc.assert(
    fc.property(standards, carved, carved, (mouth, first, second) => {
      const even = { ...mouth, portMm: 70 };
      const pieces = [piece('A', withJoints(first('north'), [even])), piece('B', withJoints(second('north'), [even]))];
      const { edges, seams } = match(pieces, [even]);
      const seam = seams.find(
        ({ a, b }) => edges[a]!.piece !== edges[b]!.piece && edges[a]!.edge === 'north' && edges[b]!.edge === 'north',
      )!;
      expect([seam.grades.step, seam.grades.gap]).toEqual(['closes', 'closes']);
      expect(seam.wetOverlap).toBeGreaterThan(0.95);
    }),
    { numRuns: 12 },
  );
});
test('the bed just inside a drawn edge keeps to its standard, wherever its port lies', () => {
  fc.assert(
    fc.property(standards, carved, fc.constantFrom<EdgeName>('north', 'south', 'east', 'west'), (mouth, make, edge) => {
      const design = withJoints(make(edge), [mouth]);
      const heights = edgeHeights(design.outline, edge, edgeProfile(buildBed(design, 0.5), design.outline, edge), null);
      expect(departure(heights, mouth)).toBeNull();
    }),
    { numRuns: 20 },
  );
});
test('turned by a quarter with its design, an edge still keeps to it', () => {
  fc.assert(
    fc.property(standards, carved, (mouth, make) => {
      const turned = withJoints(transformDesign(make('north'), 'quarter turn'), [mouth]);
      expect(turned.joints!.map(({ edge }) => edge)).toEqual(['west']);
      const heights = edgeHeights(
        turned.outline,
        'west',
        edgeProfile(buildBed(turned, 0.5), turned.outline, 'west'),
        null,
      );
      expect(departure(heights, mouth)).toBeNull();
    }),
    { numRuns: 10 },
  );
});
test('a standard taken from an edge that was drawn to one is that one again', () => {
  fc.assert(
    fc.property(
      standards.filter(({ section }) => section === 'trapezoid'),
      carved,
      (mouth, make) => {
        const design = withJoints(make('north'), [mouth]);
        const heights = edgeHeights(
          design.outline,
          'north',
          edgeProfile(buildBed(design, 0.5), design.outline, 'north'),
          null,
        );
        const taken = standardFrom(heights, 140, LEVEL, 'Taken', 't');
        expect(Math.abs(taken.portMm - mouth.portMm)).toBeLessThan(1);
        expect(Math.abs(taken.widthMm - mouth.widthMm)).toBeLessThan(1.5);
        expect(taken.depthMm).toBeCloseTo(mouth.depthMm, 0);
        const [again, wanted] = [standardHeights(taken), standardHeights(mouth)];
        expect(again.reduce((sum, z, i) => sum + Math.abs(z - wanted[i]!), 0) / again.length).toBeLessThan(0.4);
      },
    ),
    { numRuns: 20 },
  );
});
test('a piece takes what its standards hold: deeper at the mouth is more, by about what the blend says', () => {
  const plain = testDesign(
    [{ ...newFeature('channel', testDesign()), widthMm: 40, depthMm: 4, bankSlope: 1 } as Feature],
    { edgeStandards: { north: 'm', south: 'm' } },
  );
  const mouth = (depthMm: number): EdgeStandard =>
    edgeStandardSchema.parse({
      id: 'm',
      name: 'Mouth',
      edgeMm: 140,
      portMm: 70,
      widthMm: 40,
      depthMm,
      section: 'trapezoid',
      bankSlope: 1,
      levelMm: LEVEL,
      bankMm: 18,
      toleranceMm: 0.5,
    });
  const ml = (design: PieceDesign): number => volumeMl(surveyBed(design).curve, LEVEL);
  const [shallow, same, deep] = [2, 4, 7].map((depth) => ml(withJoints(plain, [mouth(depth)])));
  expect(same).toBeCloseTo(ml(plain), 0);
  expect(shallow).toBeLessThan(same!);
  expect(deep).toBeGreaterThan(same!);
  // Two mouths of 12 mm, half of each the standard's on the average, 3 mm deeper over about 33 mm: some 2 × 6 × 3 × 33 mm³.
  expect(deep! - same!).toBeGreaterThan(0.6);
  expect(deep! - same!).toBeLessThan(2);
});
