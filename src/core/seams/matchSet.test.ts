import fc from 'fast-check';
import type { PieceDesign } from '../bed/schema';
import { newFeature } from '../bed/starters';
import { testDesign } from '../bed/testShapes';
import { LEVEL_BENCH, surveyBed } from '../plan';
import { matchSet, type MatchPiece, type MatchRequest } from './matchSet';
import { SEAM_LIMITS } from './schema';
import { LEAST_FILM_MM, shimRow, topUp, type EndLevels } from './shims';

const bedOf = (design: PieceDesign) => surveyBed(design, 1);
const board = (tag: string, waterlineMm: number, change: Partial<MatchPiece> = {}): MatchPiece => {
  const design = testDesign([{ ...newFeature('shore', testDesign()), waterlineMm, slope: 8, depthMm: 6 }], { tag, kind: 'board', outline: { kind: 'rectangle', widthMm: 200, lengthMm: 140 } });
  return { tag, designId: tag, copy: null, copies: 1, design, edges: {}, ...change };
};
const request = (pieces: MatchPiece[], change: Partial<MatchRequest> = {}): MatchRequest => ({ pieces, levelMm: 15, limits: SEAM_LIMITS, standards: [], tilt: LEVEL_BENCH, doses: [], row: {}, ...change });

describe('a set', () => {
  test('boards of one drawing close in any order that keeps the land on one side', () => {
    const { row, seams, problems } = matchSet(request([board('A', 60, { copies: 3 })]), bedOf);
    expect(problems).toEqual([]);
    expect(row!.result).toMatchObject({ exact: true, worst: 0 });
    // All three one way, or all three turned: 3! orders each; turned among unturned puts land against water.
    expect([row!.result.passing, row!.result.all]).toEqual([12, 48]);
    expect(row!.seams.map(({ grade }) => grade)).toEqual(['closes', 'closes']);
    expect(row!.lengthMm).toBe(600);
    expect(seams[0]!.grade).toBe('shows');
  });
  test('a measured level makes the step, in the row and in the list', () => {
    const low = board('A #2', 60, { designId: 'A', copy: 2, edges: { west: { bed: [], levels: [14.2, 14.2, 14.2] }, east: { bed: [], levels: [14.4, 14.4, 14.4] } } });
    const { row, edges } = matchSet(request([board('A', 60), low]), bedOf);
    expect(row!.result.worst).toBeGreaterThan(1);
    const seam = row!.seams[0]!;
    expect([edges[seam.a]!.piece, edges[seam.b]!.piece].sort()).toEqual(['A', 'A #2']);
    expect(Math.abs(seam.stepMm!)).toBeCloseTo(0.6, 6);
    expect(seam.reason).toBe('the levels differ by 0.6 mm');
  });
  test('a bench out of level puts a step between boards that stand the same way', () => {
    const { row } = matchSet(request([board('A', 60, { copies: 2 })], { tilt: { eastMmPerM: 5, northMmPerM: 0 } }), bedOf);
    // Each stands 0.5 mm high at its east end and low at its west end: a full millimetre where they meet.
    expect(Math.abs(row!.seams[0]!.stepMm!)).toBeCloseTo(1, 1);
  });
  test('the board that spoils the row is named', () => {
    const { row } = matchSet(request([board('A', 60, { copies: 2 }), board('B', 75), board('C', 60)]), bedOf);
    expect(row!.boards[row!.spoiler!.board]!.tag).toBe('B');
    expect(row!.spoiler!.withoutWorst).toBe(0);
  });
  test('rules that contradict each other are told, and there is no row', () => {
    const found = matchSet(request([board('A', 60, { copies: 3 })], { row: { pins: [{ board: 0, place: 0 }, { board: 1, place: 0 }] } }), bedOf);
    expect(found.row).toBeNull();
    expect(found.problems[0]).toMatch(/Two boards are pinned/);
  });
  test('bases have no seams, and nothing is said of them', () => {
    const base: MatchPiece = { ...board('B', 60), design: testDesign([{ ...newFeature('basin', testDesign()) }], { kind: 'base', outline: { kind: 'oval', widthMm: 40, lengthMm: 40 } }) };
    expect(matchSet(request([base]), bedOf)).toEqual({ edges: [], seams: [], row: null, problems: [] });
  });
  test('an edge that departs from its standard says where', () => {
    const standard = { id: 's', name: 'Creek', edgeMm: 140, portMm: 70, widthMm: 40, depthMm: 6, section: 'trapezoid' as const, bankSlope: 0, levelMm: 15, bankMm: 18, toleranceMm: 0.5, blendMm: 12 };
    const design = testDesign([{ ...newFeature('channel', testDesign()), widthMm: 40, depthMm: 5, bankSlope: 0 }], { edgeStandards: { north: 's' } });
    const { edges } = matchSet(request([{ tag: 'T', designId: 'T', copy: null, copies: 1, design, edges: {} }], { standards: [standard] }), bedOf);
    const north = edges.find(({ edge }) => edge === 'north')!;
    expect(north.standard).toBe('Creek');
    expect(north.departs!.offMm).toBeCloseTo(1, 1);
    expect(edges.find(({ edge }) => edge === 'south')!.departs).toBeNull();
  });
});

describe('shims', () => {
  const level = fc.integer({ min: 130, max: 170 }).map((tenths) => tenths / 10);
  const boards = fc.array(fc.record({ leftMm: level, rightMm: level }), { minLength: 1, maxLength: 4 });
  const brute = (row: readonly EndLevels[], sums: readonly number[]): { worst: number; sum: number } => {
    let best = { worst: Infinity, sum: Infinity };
    const walk = (i: number, raised: number[], worst: number): void => {
      if (i === row.length) {
        const sum = raised.reduce((a, b) => a + b, 0);
        if (worst < best.worst - 1e-9 || (worst <= best.worst + 1e-9 && sum < best.sum - 1e-9)) best = { worst, sum };
        return;
      }
      for (const raise of sums) walk(i + 1, [...raised, raise], i === 0 ? 0 : Math.max(worst, Math.abs(row[i - 1]!.rightMm + raised[i - 1]! - row[i]!.leftMm - raise)));
    };
    walk(0, [], 0);
    return best;
  };
  test('the worst step is what brute force leaves', () => {
    fc.assert(fc.property(boards, fc.uniqueArray(fc.constantFrom(0.3, 0.5, 1, 1.5), { minLength: 1, maxLength: 2 }), (row, strips) => {
      const sums = [...new Set([0, ...strips, ...strips.flatMap((a) => strips.map((b) => Math.round((a + b) * 1000) / 1000))])];
      const plan = shimRow(row, strips, 2);
      expect(plan.worstMm).toBeCloseTo(brute(row, sums).worst, 9);
      const real = row.slice(1).reduce((worst, right, i) => Math.max(worst, Math.abs(row[i]!.rightMm + plan.shims[i]!.raiseMm - right.leftMm - plan.shims[i + 1]!.raiseMm)), 0);
      expect(real).toBeCloseTo(plan.worstMm, 9);
      for (const { raiseMm, strips: used } of plan.shims) expect(used.reduce((a, b) => a + b, 0)).toBeCloseTo(raiseMm, 9);
      expect(plan.worstMm).toBeLessThanOrEqual(plan.beforeMm + 1e-9);
    }), { numRuns: 80 });
  });
  test('no strips, nothing to do', () => expect(shimRow([{ leftMm: 15, rightMm: 15 }, { leftMm: 14, rightMm: 14 }], [])).toMatchObject({ worstMm: 1, beforeMm: 1 }));
});

test('a top-up is area × rise × density, and too thin below a film', () => {
  expect(topUp(80, 1.2, 1.09, 0.015).grams).toBeCloseTo((80 * 0.12 * 1.09) / 0.985, 9);
  expect(topUp(80, LEAST_FILM_MM - 0.1, 1, 0).tooThin).toBe(true);
  expect(topUp(80, LEAST_FILM_MM, 1, 0).tooThin).toBe(false);
});
