import fc from 'fast-check';
import { SEAM_LIMITS } from '../model/seamSchema';
import { compareEdges, seamScore } from './seam';
import { SEAM_STEP_MM, type SeamEdge } from './seamEdge';
import { raiseEdge } from './standing';

/** Laws that hold of any two edges, whatever their beds and levels. */
const look = { colours: ['#ffffff', '#9db39d', '#55775a', '#1e3a22'], stepMm: 2 };
const COUNT = 61;
const edge = fc
  .record({
    heights: fc.array(fc.integer({ min: 40, max: 200 }), { minLength: 7, maxLength: 7 }),
    levels: fc.tuple(
      fc.integer({ min: 130, max: 165 }),
      fc.integer({ min: 130, max: 165 }),
      fc.integer({ min: 130, max: 165 }),
    ),
  })
  .map(({ heights, levels }): SeamEdge => ({
    piece: 'P',
    edge: 'north',
    lengthMm: (COUNT - 1) * SEAM_STEP_MM,
    measured: true,
    look,
    heightMm: Float32Array.from({ length: COUNT }, (_, i) => heights[Math.floor(i / 10)]! / 10 + OFF_TENTHS),
    levelMm: [levels[0] / 10, levels[1] / 10, levels[2] / 10],
  }));
/** The edge as it looks from the other end. */
const mirrored = (one: SeamEdge): SeamEdge => ({
  ...one,
  heightMm: one.heightMm.slice().reverse(),
  levelMm: [one.levelMm[2], one.levelMm[1], one.levelMm[0]],
});
/** Beds never lie exactly at a level, where rounding would decide what is wet. */
const OFF_TENTHS = 0.037;
const RUNS = { numRuns: 120 };

test('against its own mirror image an edge closes, wet or dry', () => {
  fc.assert(
    fc.property(edge, (one) => {
      const seam = compareEdges(one, mirrored(one), SEAM_LIMITS);
      expect([seam.grade, seam.gapMm, seam.bankOffsetMm]).toEqual(['closes', 0, 0]);
      expect(seam.stepMm === null || Math.abs(seam.stepMm) < 1e-9).toBe(true);
      expect(seamScore(seam, SEAM_LIMITS)).toBeCloseTo(0, 9);
    }),
    RUNS,
  );
});
test('which of the two is named first makes no difference but to the sign', () => {
  fc.assert(
    fc.property(edge, edge, (a, b) => {
      const [there, back] = [compareEdges(a, b, SEAM_LIMITS), compareEdges(b, a, SEAM_LIMITS)];
      expect(back.grades).toEqual(there.grades);
      expect(back.wetOverlap).toBeCloseTo(there.wetOverlap, 9);
      expect(back.deltaE).toBeCloseTo(there.deltaE, 9);
      expect(back.gapMm).toBeCloseTo(there.gapMm, 5);
      if (there.stepMm === null) expect(back.stepMm).toBeNull();
      else expect(Math.abs(back.stepMm!)).toBeCloseTo(Math.abs(there.stepMm), 9);
    }),
    RUNS,
  );
});
test('both pieces on the same shim are as they were without', () => {
  fc.assert(
    fc.property(edge, edge, fc.integer({ min: 1, max: 30 }), (a, b, tenths) => {
      const [flat, raised] = [
        compareEdges(a, b, SEAM_LIMITS),
        compareEdges(raiseEdge(a, tenths / 10), raiseEdge(b, tenths / 10), SEAM_LIMITS),
      ];
      expect(raised.gapMm).toBeCloseTo(flat.gapMm, 3);
      if (flat.stepMm !== null && raised.stepMm !== null)
        expect(Math.abs(raised.stepMm)).toBeCloseTo(Math.abs(flat.stepMm), 3);
    }),
    RUNS,
  );
});
test('figures keep within what they can be', () => {
  fc.assert(
    fc.property(edge, edge, (a, b) => {
      const seam = compareEdges(a, b, SEAM_LIMITS);
      expect(seam.wetOverlap).toBeGreaterThanOrEqual(0);
      expect(seam.wetOverlap).toBeLessThanOrEqual(1);
      expect(seam.gapRmsMm).toBeLessThanOrEqual(seam.gapMm + 1e-6);
      expect(seam.stepAtMm).toBeLessThanOrEqual(a.lengthMm);
      expect(seam.gapAtMm).toBeLessThanOrEqual(a.lengthMm);
      expect(seam.bankOffsetMm).toBeLessThanOrEqual(a.lengthMm);
      expect(seam.deltaE).toBeGreaterThanOrEqual(0);
      // A step can be no larger than the levels lie apart.
      if (seam.stepMm !== null)
        expect(Math.abs(seam.stepMm)).toBeLessThanOrEqual(
          Math.max(...a.levelMm, ...b.levelMm) - Math.min(...a.levelMm, ...b.levelMm) + 1e-9,
        );
    }),
    RUNS,
  );
});
test('a worse grade never has the better score', () => {
  const order = { closes: 0, passes: 1, shows: 2 };
  fc.assert(
    fc.property(edge, edge, edge, (a, b, c) => {
      const [one, other] = [compareEdges(a, b, SEAM_LIMITS), compareEdges(a, c, SEAM_LIMITS)];
      if (order[one.grade] < order[other.grade] && one.wetOverlap > 0)
        expect(seamScore(one, SEAM_LIMITS)).toBeLessThanOrEqual(seamScore(other, SEAM_LIMITS) + 1e-9);
    }),
    RUNS,
  );
});
test('wider limits never make a grade worse', () => {
  const order = { closes: 0, passes: 1, shows: 2 };
  fc.assert(
    fc.property(edge, edge, fc.integer({ min: 1, max: 20 }), (a, b, tenths) => {
      const wide = {
        stepMm: SEAM_LIMITS.stepMm.map((mm) => mm + tenths / 10) as [number, number],
        gapMm: SEAM_LIMITS.gapMm.map((mm) => mm + tenths / 10) as [number, number],
        deltaE: SEAM_LIMITS.deltaE.map((value) => value + tenths) as [number, number],
      };
      expect(order[compareEdges(a, b, wide).grade]).toBeLessThanOrEqual(order[compareEdges(a, b, SEAM_LIMITS).grade]);
    }),
    RUNS,
  );
});
