import fc from 'fast-check';
import { buildBed } from '../bed/buildBed';
import { outlineEdges, startsAtLeft } from '../bed/outline';
import { edgeProfile } from '../bed/profile';
import type { EdgeName, Outline, PieceDesign } from '../model/designSchema';
import { newFeature } from '../bed/starters';
import { testDesign } from '../bed/testShapes';
import { transformDesign } from '../bed/transform';
import { bestRow, checkRowRules, MOST_EXACT, type RowPlace, type RowRules, type SeamCost } from './row';
import { edgeStandardSchema, type EdgeStandard } from '../model/edgeStandardSchema';
import { SEAM_LIMITS, type MeasuredEdge } from '../model/seamSchema';
import { canMeet, compareEdges, gradeOf, seamScore } from './seam';
import { departure, edgeHeights, edgeLevels, standardFrom, standardHeights, type SeamEdge } from './seamEdge';

const look = { colours: ['#ffffff', '#88aa88', '#336633', '#002200'], stepMm: 2 };
const edgeOf = (design: PieceDesign, edge: EdgeName, measured: MeasuredEdge | null = null): SeamEdge => {
  const heightMm = edgeHeights(
    design.outline,
    edge,
    edgeProfile(buildBed(design, 0.5), design.outline, edge),
    measured,
  );
  const levels = measured?.levels ? edgeLevels(design.outline, edge, measured.levels) : ([15, 15, 15] as const);
  return {
    piece: `${design.tag} #1`,
    edge,
    lengthMm: 140,
    heightMm,
    levelMm: levels,
    measured: measured !== null,
    look,
  };
};
const channel = (positionMm: number, to: EdgeName = 'north', change: object = {}): PieceDesign =>
  testDesign([
    {
      ...newFeature('channel', testDesign()),
      widthMm: 40,
      depthMm: 5,
      bankSlope: 0,
      from: { edge: 'south', positionMm },
      to: { edge: to, positionMm: 70 },
      ...change,
    },
  ]);

describe('an edge is seen from the middle of its piece', () => {
  test.each<[EdgeName, boolean]>([
    ['north', true],
    ['west', true],
    ['south', false],
    ['east', false],
  ])('%s: its west or south end is left: %s', (edge, left) =>
    expect(startsAtLeft(testDesign().outline, edge)).toBe(left),
  );
  test('turning a piece does not change how its edges look from within', () => {
    const design = channel(50, 'west');
    const turned = transformDesign(design, 'quarter turn');
    // The south edge has come to the east, the west edge to the south.
    for (const [before, after] of [
      ['south', 'east'],
      ['west', 'south'],
    ] as const) {
      const [a, b] = [edgeOf(design, before).heightMm, edgeOf(turned, after).heightMm];
      const differing = a.filter((height, i) => Math.abs(height - b[i]!) > 0.05).length;
      expect(differing).toBeLessThanOrEqual(4);
    }
  });
  test('every side of a hexagon has a left and a right', () => {
    const hexagon: Outline = { kind: 'regular', sides: 6, acrossMm: 100 };
    expect(outlineEdges(hexagon).map((edge) => startsAtLeft(hexagon, edge))).toEqual([
      true,
      true,
      false,
      false,
      false,
      true,
    ]);
  });
});

describe('two edges face to face', () => {
  test('a piece closes with the next of its kind, and with itself turned round only when its port is in the middle', () => {
    const [middle, off] = [channel(70), channel(50, 'north', { to: { edge: 'north', positionMm: 50 } })];
    expect(compareEdges(edgeOf(middle, 'north'), edgeOf(middle, 'south'), SEAM_LIMITS)).toMatchObject({
      grade: 'closes',
      wetOverlap: 1,
      stepMm: 0,
      deltaE: 0,
    });
    expect(compareEdges(edgeOf(middle, 'north'), edgeOf(middle, 'north'), SEAM_LIMITS).grade).toBe('closes');
    expect(compareEdges(edgeOf(off, 'north'), edgeOf(off, 'south'), SEAM_LIMITS).grade).toBe('closes');
    const wrong = compareEdges(edgeOf(off, 'north'), edgeOf(off, 'north'), SEAM_LIMITS);
    expect(wrong).toMatchObject({
      grade: 'shows',
      reason: expect.stringContaining('the beds differ by 8.0 mm') as unknown,
    });
    // Ports at 50 and 90 of 40 mm just touch; each bank is 40 mm from the other's.
    expect(wrong.wetOverlap).toBeLessThan(0.02);
    expect(wrong.bankOffsetMm).toBeCloseTo(40, 0);
  });
  test('is the same seam from either side', () => {
    fc.assert(
      fc.property(fc.integer({ min: 30, max: 110 }), fc.integer({ min: 30, max: 110 }), (p, q) => {
        const [a, b] = [edgeOf(channel(p), 'south'), edgeOf(channel(q), 'south')];
        const [there, back] = [compareEdges(a, b, SEAM_LIMITS), compareEdges(b, a, SEAM_LIMITS)];
        expect(back.gapMm).toBeCloseTo(there.gapMm, 5);
        expect(back.gapRmsMm).toBeCloseTo(there.gapRmsMm, 5);
        expect([back.grade, back.bankOffsetMm]).toEqual([there.grade, there.bankOffsetMm]);
      }),
      { numRuns: 12 },
    );
  });
  test('measured levels make the step, at the end where it is', () => {
    const flat: MeasuredEdge = { bed: [], levels: [15, 15, 15] };
    const tilted: MeasuredEdge = { bed: [], levels: [15, 15.4, 15.8] };
    // North is read west to east, south faced east to west: their west ends meet.
    const seam = compareEdges(edgeOf(channel(70), 'north', tilted), edgeOf(channel(70), 'south', flat), SEAM_LIMITS);
    expect(seam.stepMm).toBeCloseTo(15 + 0.8 * (90 / 140) - 15, 1);
    expect(seam.stepAtMm).toBeCloseTo(90, 0);
    expect(seam).toMatchObject({ grade: 'passes', reason: 'the levels differ by 0.5 mm' });
  });
  test('readings of the bed are met exactly, and lie straight between', () => {
    const measured: MeasuredEdge = {
      bed: [
        { atMm: 60, heightMm: 9 },
        { atMm: 80, heightMm: 11 },
      ],
      levels: null,
    };
    const { heightMm } = edgeOf(channel(70), 'north', measured);
    expect([heightMm[120], heightMm[140], heightMm[160]]).toEqual([9, 10, 11]);
  });
  test('water against land shows; land against land closes', () => {
    const [wet, dry] = [edgeOf(channel(70), 'north'), edgeOf(channel(70), 'west')];
    expect(compareEdges(wet, dry, SEAM_LIMITS)).toMatchObject({
      grade: 'shows',
      reason: 'water meets land',
      wetOverlap: 0,
    });
    expect(compareEdges(dry, dry, SEAM_LIMITS)).toMatchObject({ grade: 'closes', wetOverlap: 1, stepMm: null });
    expect(seamScore(compareEdges(wet, dry, SEAM_LIMITS), SEAM_LIMITS)).toBeGreaterThanOrEqual(100);
  });
  test('deeper water on one side is another colour', () => {
    const seam = compareEdges(
      edgeOf(channel(70), 'north'),
      edgeOf(channel(70, 'north', { depthMm: 3 }), 'south'),
      SEAM_LIMITS,
    );
    expect(seam.gapMm).toBeCloseTo(2, 1);
    expect(seam.deltaE).toBeGreaterThan(5);
    expect(seam.grades).toEqual({ step: 'closes', gap: 'passes', colour: 'shows' });
  });
  test('edges of different length do not meet', () =>
    expect(canMeet(edgeOf(channel(70), 'north'), { ...edgeOf(channel(70), 'north'), lengthMm: 145 })).toBe(false));
  test('grades and scores agree', () => {
    expect([0.5, 0.51, 1.6, 1.61].map((step) => gradeOf(step, SEAM_LIMITS.stepMm))).toEqual([
      'closes',
      'passes',
      'passes',
      'shows',
    ]);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 5, noNaN: true }), (step) => {
        const score = seamScore(
          {
            stepMm: step,
            gapMm: 0,
            deltaE: 0,
            wetOverlap: 1,
            grades: { step: 'closes', gap: 'closes', colour: 'closes' },
          },
          SEAM_LIMITS,
        );
        expect(gradeOf(step, SEAM_LIMITS.stepMm)).toBe(
          score <= 1 + 1e-6 ? 'closes' : score <= 2 + 1e-6 ? 'passes' : 'shows',
        );
      }),
    );
  });
});

describe('edge standards', () => {
  const creek: EdgeStandard = edgeStandardSchema.parse({
    id: 'c',
    name: 'Creek mouth',
    edgeMm: 140,
    portMm: 70,
    widthMm: 40,
    depthMm: 5,
    section: 'trapezoid',
    bankSlope: 0,
    levelMm: 15,
    bankMm: 18,
    toleranceMm: 0.5,
  });
  test('a design that keeps to it is not flagged, one that departs is, with where and how much', () => {
    expect(departure(edgeOf(channel(70), 'north').heightMm, creek)).toBeNull();
    const shallow = departure(edgeOf(channel(70, 'north', { depthMm: 4 }), 'north').heightMm, creek)!;
    expect(shallow.offMm).toBeCloseTo(1, 1);
    expect(shallow.atMm).toBeGreaterThan(49);
    expect(Math.abs(departure(edgeOf(channel(60), 'south').heightMm, creek)!.offMm)).toBeCloseTo(8, 1);
  });
  test('taken from an edge it describes that edge', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 40, max: 100 }),
        fc.integer({ min: 2, max: 7 }),
        fc.constantFrom(0, 0.5, 1),
        (port, depthMm, bankSlope) => {
          const edge = edgeOf(channel(port, 'north', { depthMm, bankSlope }), 'south');
          const taken = edgeStandardSchema.parse(standardFrom(edge.heightMm, 140, 15, 'Taken', 't'));
          expect(Math.abs(taken.portMm - (140 - port))).toBeLessThan(0.6);
          expect(Math.abs(taken.widthMm - 40)).toBeLessThan(1.1);
          expect(taken.depthMm).toBeCloseTo(depthMm, 1);
          expect(departure(edge.heightMm, { ...taken, toleranceMm: 1 })).toBeNull();
        },
      ),
      { numRuns: 20 },
    );
  });
  test('a dry edge is its bank', () => {
    const dry = standardFrom(edgeOf(channel(70), 'west').heightMm, 140, 15, 'Dry bank', 'd');
    expect(dry.widthMm).toBe(0);
    expect(new Set(standardHeights(dry))).toEqual(new Set([18]));
  });
  test.each<[string, Partial<EdgeStandard>, RegExp]>([
    ['a port past the end', { portMm: 10 }, /past the end/],
    ['banks that meet', { bankSlope: 5 }, /banks meet/],
    ['a bed through the underside', { depthMm: 16, widthMm: 40 }, /underside/],
    ['a bank below the level', { bankMm: 12 }, /above the level/],
  ])('%s is refused in words', (_, change, words) =>
    expect(edgeStandardSchema.safeParse({ ...creek, ...change }).error!.issues[0]!.message).toMatch(words),
  );
});

describe('the best row', () => {
  const costOf =
    (ends: readonly (readonly [number, number])[]): SeamCost =>
    (left, right) => {
      const rightEnd = ends[left.board]![left.turned ? 0 : 1];
      const leftEnd = ends[right.board]![right.turned ? 1 : 0];
      return Math.abs(rightEnd! - leftEnd!);
    };
  const keeps = (row: readonly RowPlace[], { pins = [], apart = [], facing }: RowRules): boolean =>
    pins.every(({ board, place }) => row[place]?.board === board) &&
    row.every(({ board, turned }) => (facing?.[board] ?? turned) === turned) &&
    apart.every(
      ([a, b]) => Math.abs(row.findIndex(({ board }) => board === a) - row.findIndex(({ board }) => board === b)) !== 1,
    );
  const height = fc.integer({ min: 0, max: 60 }).map((tenths) => tenths / 10);
  const cases = fc
    .integer({ min: 1, max: 7 })
    .chain((count) =>
      fc.record({
        ends: fc.array(fc.tuple(height, height), { minLength: count, maxLength: count }),
        pin: fc.option(fc.record({ board: fc.nat(count - 1), place: fc.nat(count - 1) }), { nil: undefined }),
        apart: fc.option(fc.tuple(fc.nat(count - 1), fc.nat(count - 1)), { nil: undefined }),
        fixed: fc.option(fc.nat(count - 1), { nil: undefined }),
      }),
    );
  /** Every order and turning, one by one, without a list of them. */
  const bruteRow = (
    ends: readonly (readonly [number, number])[],
    { pins = [], apart = [], facing }: RowRules,
    pass: number,
  ): { worst: number; sum: number; all: number; passing: number } => {
    const count = ends.length;
    const used = new Array<boolean>(count).fill(false);
    const apartOf = (a: number, b: number): boolean =>
      apart.some(([x, y]) => (x === a && y === b) || (x === b && y === a));
    const best = { worst: Infinity, sum: Infinity, all: 0, passing: 0 };
    const walk = (place: number, last: number, rightEnd: number, worst: number, sum: number): void => {
      if (place === count) {
        best.all++;
        if (worst <= pass) best.passing++;
        if (worst < best.worst - 1e-9 || (worst <= best.worst + 1e-9 && sum < best.sum))
          Object.assign(best, { worst, sum });
        return;
      }
      for (let board = 0; board < count; board++) {
        if (
          used[board] ||
          (last >= 0 && apartOf(last, board)) ||
          pins.some((pin) => (pin.board === board) !== (pin.place === place))
        )
          continue;
        used[board] = true;
        for (const turned of [false, true]) {
          if ((facing?.[board] ?? turned) !== turned) continue;
          const [left, right] = turned ? [ends[board]![1], ends[board]![0]] : ends[board]!;
          const seam = last < 0 ? 0 : Math.abs(rightEnd - left);
          walk(place + 1, board, right, Math.max(worst, seam), sum + seam);
        }
        used[board] = false;
      }
    };
    walk(0, -1, 0, 0, 0);
    return best;
  };
  test('is what brute force finds for up to seven boards, rules and counts included', () => {
    fc.assert(
      fc.property(cases, ({ ends, pin, apart, fixed }) => {
        const rules: RowRules = {
          ...(pin && { pins: [pin] }),
          ...(apart && apart[0] !== apart[1] && { apart: [apart] }),
          ...(fixed !== undefined && { facing: ends.map((_, board) => (board === fixed ? board % 2 === 1 : null)) }),
        };
        const { worst, sum, all, passing } = bruteRow(ends, rules, 1);
        const found = bestRow(ends.length, costOf(ends), 1, rules);
        if (all === 0) return expect(found).toBeNull();
        expect(found).toMatchObject({ exact: true, all, passing });
        expect([found!.worst, found!.sum]).toEqual([expect.closeTo(worst, 9), expect.closeTo(sum, 9)]);
        expect(keeps(found!.places, rules)).toBe(true);
      }),
      { numRuns: 150 },
    );
  });
  test('many boards: says it is not exact unless the bound is met, keeps the rules, and the bound holds', () => {
    const ends = Array.from({ length: 24 }, (_, i) => [((i * 37) % 50) / 10, ((i * 53) % 50) / 10] as const);
    const rules: RowRules = {
      pins: [{ board: 5, place: 0 }],
      facing: ends.map((_, board) => (board % 3 === 0 ? false : null)),
    };
    const found = bestRow(24, costOf(ends), 1, rules)!;
    expect(found.worst).toBeGreaterThanOrEqual(found.bound - 1e-9);
    expect(found.exact).toBe(found.worst <= found.bound + 1e-9);
    expect(new Set(found.places.map(({ board }) => board)).size).toBe(24);
    expect(keeps(found.places, rules)).toBe(true);
    expect(found.worst).toBeCloseTo(
      Math.max(...found.places.slice(1).map((place, i) => costOf(ends)(found.places[i]!, place))),
      9,
    );
  });
  test('the bound of a small row is never above its best', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(height, height), { minLength: 2, maxLength: MOST_EXACT - 6 }), (ends) => {
        const many = [...ends, ...ends, ...ends].slice(0, MOST_EXACT + 1);
        if (many.length <= MOST_EXACT) return;
        const found = bestRow(many.length, costOf(many), 1)!;
        expect(found.bound).toBeLessThanOrEqual(found.worst + 1e-9);
      }),
      { numRuns: 10 },
    );
  });
  test('contradictory rules are named', () => {
    expect(checkRowRules(0, {})).toEqual(['There are no boards to arrange.']);
    expect(
      checkRowRules(3, {
        pins: [
          { board: 0, place: 1 },
          { board: 2, place: 1 },
        ],
      })[0],
    ).toMatch(/Two boards are pinned to place 2/);
    expect(
      checkRowRules(3, {
        pins: [
          { board: 0, place: 1 },
          { board: 0, place: 2 },
        ],
      })[0],
    ).toMatch(/places 2 and 3/);
    expect(
      checkRowRules(3, {
        pins: [
          { board: 0, place: 0 },
          { board: 1, place: 1 },
        ],
        apart: [[0, 1]],
      })[0],
    ).toMatch(/side by side/);
    expect(checkRowRules(3, { pins: [{ board: 0, place: 7 }] })[0]).toMatch(/Place 8 is not in a row of 3/);
    expect(checkRowRules(2, { apart: [[0, 1]] })[0]).toMatch(/no row/);
  });
  test('it can be stopped', () =>
    expect(() =>
      bestRow(12, costOf(Array.from({ length: 12 }, () => [1, 2] as const)), 1, {}, () => {
        throw new Error('stopped');
      }),
    ).toThrow('stopped'));
});
