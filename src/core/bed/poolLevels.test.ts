import { TEST_DEFAULTS, testPiece } from './testShapes';
import fc from 'fast-check';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { LEVEL_BENCH, planBatch, type PlanRequest } from '../plan';
import { findOwnPools, levelPools, overLevelMm } from './poolLevels';
import { formulaGrid } from './testShapes';
import type { Feature, Outline, PieceDesign } from '../model/designSchema';
import { volumeCurve, volumeMl } from './volumeCurve';

const LEVEL = 15;
const outline: Outline = { kind: 'rectangle', widthMm: 160, lengthMm: 80 };
/** Two cones, 1 in 3, at x = 40 and x = 120, their floors at 6 and 9 mm, in land at 20 mm. */
const cones = formulaGrid(outline, 0.5, (x, y) =>
  Math.min(20, 6 + Math.hypot(x - 40, y - 40) / 3, 9 + Math.hypot(x - 120, y - 40) / 3),
);
const coneMl = (depth: number): number => (Math.PI * (3 * depth) ** 2 * depth) / 3 / 1000;
const options = { outline, dammed: new Set([]), damMarginMm: 3, damOverlapMm: 5 } as const;
const west = { xMm: 40, yMm: 40, levelMm: 12 };
const east = { xMm: 120, yMm: 40, levelMm: 17 };

describe('two cones at two levels', () => {
  const own = levelPools(cones, [west, east], LEVEL);
  test('hold what each holds at its own level, within 0.5 %', () => {
    expect(Math.abs(volumeMl(volumeCurve(own.grid), LEVEL) / (coneMl(12 - 6) + coneMl(17 - 9)) - 1)).toBeLessThan(
      0.005,
    );
  });
  test('fill layer by layer: each is as much below its own surface', () => {
    const curve = volumeCurve(own.grid);
    for (const under of [1, 2.5, 4])
      expect(Math.abs(volumeMl(curve, LEVEL - under) / (coneMl(6 - under) + coneMl(8 - under)) - 1)).toBeLessThan(0.01);
  });
  test('are two pools, each with its own level, its volume and the saddle between them as its spill', () => {
    const { pools } = findOwnPools(cones, own, LEVEL, options);
    expect(pools.map(({ levelMm }) => levelMm)).toEqual([17, 12]);
    // On the line between them the beds meet where 6 + x/3 = 9 + (80 − x)/3: at 20.8 mm, over the land.
    expect(pools.map(({ spill }) => spill && [spill.over, spill.levelMm, spill.pool])).toEqual([['pool', 20, 1], null]);
    expect(Math.abs(pools[0]!.volumeMl / coneMl(8) - 1)).toBeLessThan(0.01);
  });
  test('the water stands over the level as much as it was asked to, and nowhere else', () => {
    expect([west, east, { xMm: 2, yMm: 2 }].map((point) => overLevelMm(own, point))).toEqual([-3, 2, 0]);
  });
});

describe('with a saddle between them', () => {
  // The same cones with land at 20 but a gap at 16 mm between them.
  const gap = formulaGrid(outline, 0.5, (x, y) =>
    Math.min(
      20,
      6 + Math.hypot(x - 40, y - 40) / 3,
      9 + Math.hypot(x - 120, y - 40) / 3,
      Math.abs(y - 40) < 4 && x > 40 && x < 120 ? 16 : 20,
    ),
  );
  test('the upper overflows into the lower at the saddle', () => {
    const { pools, mergers } = findOwnPools(
      gap,
      levelPools(gap, [{ ...east, levelMm: 15.5 }, west], LEVEL),
      LEVEL,
      options,
    );
    const upper = pools.findIndex(({ levelMm }) => levelMm === 15.5);
    expect(pools[upper]!.spill).toMatchObject({ over: 'pool', levelMm: 16 });
    expect(pools[pools[upper]!.spill!.pool!]!.levelMm).toBe(12);
    expect(mergers).toEqual([]);
  });
  test('an upper level over the saddle has run over it: the place is told', () => {
    expect(
      findOwnPools(gap, levelPools(gap, [{ ...east, levelMm: 16.4 }], LEVEL), LEVEL, options).mergers,
    ).toMatchObject([{ mark: 0, saddleMm: 16 }]);
  });
  test('marks in one hollow are told: both lie below the saddle’s water', () => {
    expect(
      levelPools(
        gap,
        [
          { ...west, levelMm: 17 },
          { ...east, levelMm: 16.5 },
        ],
        LEVEL,
      ).joined,
    ).toEqual([[0, 1]]);
    expect(levelPools(gap, [west, east], LEVEL).joined).toEqual([[0, 1]]);
    expect(
      levelPools(
        gap,
        [
          { ...west, levelMm: 12 },
          { ...east, levelMm: 15.9 },
        ],
        LEVEL,
      ).joined,
    ).toEqual([]);
  });
});

test('a mark on land moves nothing and is told', () => {
  const own = levelPools(cones, [{ xMm: 5, yMm: 5, levelMm: 12 }], LEVEL);
  expect(own.dry).toEqual([0]);
  expect(own.grid.heightMm).toEqual(cones.heightMm);
});

test('marks at the set’s own level change no volume, whatever the bed', () => {
  const place = fc.record({ xMm: fc.integer({ min: 0, max: 159 }), yMm: fc.integer({ min: 0, max: 79 }) });
  fc.assert(
    fc.property(fc.array(place, { minLength: 1, maxLength: 3 }), (places) => {
      const own = levelPools(
        cones,
        places.map((point) => ({ ...point, levelMm: LEVEL })),
        LEVEL,
      );
      expect(volumeMl(volumeCurve(own.grid), LEVEL)).toBeCloseTo(volumeMl(volumeCurve(cones), LEVEL), 2);
    }),
  );
});

describe('in a plan', () => {
  const stream: Feature = {
    kind: 'channel',
    id: 'c',
    from: { edge: 'south', positionMm: 40 },
    to: { edge: 'north', positionMm: 40 },
    widthMm: 30,
    depthMm: 5,
    section: 'trapezoid',
    bankSlope: 0,
  };
  const pond: Feature = {
    kind: 'pool',
    id: 'p',
    xMm: 105,
    yMm: 70,
    widthMm: 40,
    lengthMm: 40,
    depthMm: 8,
    section: 'trapezoid',
    bankSlope: 0,
  };
  const request = (change: Partial<PieceDesign>): PlanRequest => ({
    format: 'aguada.plan-request',
    version: 1,
    set: { name: 'Set', figureScaleMm: 28, levelMm: LEVEL },
    pieces: [testPiece([stream, pond], change)],
    product: PRODUCT_KINDS.find(({ parts }) => parts !== null)!,
    recipe: { id: 'recipe', name: 'Clear', doses: [] },
    room: { temperatureC: 23, humidity: 0.5 },
    bench: { windows: [], exceptions: [], cupGrams: 180, scaleStepGrams: 0.1, pricePerCup: 0, tilt: LEVEL_BENCH },
    pourAt: '2026-11-28T10:00',
    poured: [],
    ...TEST_DEFAULTS,
  });
  test('a stream above and a pond below: grams, depths, dams and body are those of both levels', () => {
    const piece = planBatch(
      request({
        poolLevels: [
          { xMm: 40, yMm: 70, levelMm: 17 },
          { xMm: 105, yMm: 70, levelMm: 11 },
        ],
      }),
    ).pieces[0]!;
    expect(Math.abs(piece.water.volumeMl / ((30 * 7 * 140 + Math.PI * 400 * 4) / 1000) - 1)).toBeLessThan(0.006);
    expect(piece.pools.map(({ name, levelMm }) => [name, levelMm])).toEqual([
      ['Pool A', 17],
      ['Pool B', 11],
    ]);
    for (const { topMm, lowestBedMm } of piece.dams) expect([topMm, lowestBedMm]).toEqual([20, 10]);
    expect(piece.body.floorMm).toBeCloseTo(7, 2);
  });
  test('a level over the land is a stop; one over a saddle a warning with the level that holds', () => {
    const find = (change: Partial<PieceDesign>, code: string) =>
      planBatch(request(change)).problems.find((problem) => problem.code === code);
    expect(find({ poolLevels: [{ xMm: 105, yMm: 70, levelMm: 18.5 }] }, 'level-over-land')).toMatchObject({
      severity: 'stop',
      path: ['poolLevels', 0, 'levelMm'],
      mend: { value: 17.5 },
    });
    const ditch: Feature = {
      kind: 'pool',
      id: 'd',
      xMm: 72,
      yMm: 70,
      widthMm: 60,
      lengthMm: 8,
      depthMm: 0.5,
      section: 'trapezoid',
      bankSlope: 0,
    };
    const found = find(
      {
        drawnLevelMm: 16.7,
        features: [ditch, { ...stream, depthMm: 6.7 }, { ...pond, depthMm: 9.7 }],
        poolLevels: [{ xMm: 105, yMm: 70, levelMm: 17 }],
      },
      'overflows',
    );
    expect(found).toMatchObject({
      severity: 'warn',
      path: ['poolLevels', 0, 'levelMm'],
      mend: { label: 'Lower it to 15.7\u00a0mm', value: 15.7 },
    });
    expect(found!.message).toMatch(/saddle .* across, [67]\d\.\d\smm up, which is 16\.2/);
  });
  test('marks on land and in one hollow are told', () => {
    const codes = (poolLevels: PieceDesign['poolLevels']): string[] =>
      planBatch(request({ poolLevels })).problems.map(({ code }) => code);
    expect(codes([{ xMm: 75, yMm: 10, levelMm: 12 }])).toContain('level-on-land');
    expect(
      codes([
        { xMm: 40, yMm: 10, levelMm: 14 },
        { xMm: 40, yMm: 120, levelMm: 16 },
      ]),
    ).toContain('levels-join');
  });
});
