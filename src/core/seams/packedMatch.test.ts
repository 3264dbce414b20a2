import { CLEAR_TINT } from '../tint/waterTint';
import { LEVEL_BENCH, surveyBed } from '../plan';
import { testDesign } from '../bed/testShapes';
import { newFeature } from '../bed/starters';
import { matchSet } from './matchSet';
import { packMatch, unpackMatch } from './packedMatch';
import { NO_WISH, SEAM_LIMITS } from '../model/seamSchema';
import { compareEdges } from './seam';

test('a match that was packed has the same seams, and compares its edges alike', () => {
  const shore = (tag: string, waterlineMm: number) => ({
    tag,
    designId: tag,
    copy: null,
    copies: 1,
    edges: {},
    design: testDesign([{ ...newFeature('shore', testDesign()), waterlineMm, slope: 8.3, depthMm: 6.1 }], {
      ...({ tag, kind: 'board', outline: { kind: 'rectangle', widthMm: 200, lengthMm: 140 } } as const),
    }),
  });
  const match = matchSet(
    {
      pieces: [shore('A', 60), shore('B', 62.7), shore('C', 75.1)],
      levelMm: 15.3,
      limits: SEAM_LIMITS,
      standards: [],
      tint: CLEAR_TINT,
      row: NO_WISH,
      tilt: { ...LEVEL_BENCH, eastMmPerM: 1.7 },
    },
    (design) => surveyBed(design, 1),
  );
  const packed = packMatch(match);
  const back = unpackMatch(JSON.parse(JSON.stringify(packed)) as typeof packed);
  expect({ ...back, edges: [], seams: [] }).toEqual({ ...match, edges: [], seams: [] });
  expect(back.seams).toHaveLength(match.seams.length);
  back.seams.forEach((seam, i) => {
    for (const [key, value] of Object.entries(match.seams[i]!))
      if (typeof value === 'number') expect(seam[key as 'gapMm']).toBeCloseTo(value, 4);
      else expect(seam[key as 'gapMm']).toEqual(value);
  });
  expect(match.edges.length).toBeGreaterThan(8);
  back.edges.forEach(({ heightMm, ...edge }, i) => {
    const { heightMm: before, ...same } = match.edges[i]!;
    expect(edge).toEqual(same);
    expect(Math.max(...heightMm.map((mm, k) => Math.abs(mm - before[k]!)))).toBeLessThan(0.00051);
  });
  const wet = match.seams.filter(({ stepMm }) => stepMm !== null);
  expect(wet.length).toBeGreaterThan(8);
  for (const { a, b, grade, stepMm, gapMm } of wet) {
    const again = compareEdges(back.edges[a]!, back.edges[b]!, SEAM_LIMITS);
    expect(again.grade).toBe(grade);
    expect(again.stepMm).toBeCloseTo(stepMm!, 2);
    expect(again.gapMm).toBeCloseTo(gapMm!, 2);
  }
});
