import fc from 'fast-check';
import { buildBed } from './buildBed';
import { checkReadings, largestStrays, madeByOf, strayOf, volumeUncertaintyMl } from './measured';
import type { Measured } from '../model/measuredSchema';
import { MADE_BY, type Feature, type PieceDesign } from '../model/designSchema';
import { newFeature } from './starters';
import { formulaGrid, testDesign } from './testShapes';
import { volumeCurve, volumeMl } from './volumeCurve';

const pool: Feature = {
  kind: 'pool',
  id: 'p',
  xMm: 70,
  yMm: 70,
  widthMm: 100,
  lengthMm: 80,
  depthMm: 7,
  section: 'trapezoid',
  bankSlope: 1,
};
const measured = (change: Partial<Measured> = {}): Measured => ({
  atLevelMm: 15,
  readings: [],
  fillMl: null,
  ...change,
});
const bedOf = (change: Partial<Measured> | null): PieceDesign =>
  testDesign([pool], { measured: change && measured(change) });
const CELL = 1;
const heightIn = (grid: ReturnType<typeof buildBed>, xMm: number, yMm: number): number =>
  grid.heightMm[Math.floor(yMm / CELL) * grid.columns + Math.floor(xMm / CELL)]!;
const place = fc.record({
  xMm: fc.double({ min: 40, max: 100, noNaN: true }),
  yMm: fc.double({ min: 45, max: 95, noNaN: true }),
  depthMm: fc.double({ min: 4, max: 10, noNaN: true }),
});

test('every reading is met exactly, to the height’s tick', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(place, {
        minLength: 1,
        maxLength: 12,
        selector: ({ xMm, yMm }) => `${Math.floor(xMm)} ${Math.floor(yMm)}`,
      }),
      (readings) => {
        const grid = buildBed(bedOf({ readings }), CELL);
        for (const { xMm, yMm, depthMm } of readings)
          expect(Math.abs(heightIn(grid, xMm, yMm) - (15 - depthMm))).toBeLessThan(0.003);
      },
    ),
    { numRuns: 40 },
  );
});
test('readings that agree with the drawing change nothing', () => {
  const drawn = buildBed(bedOf(null), CELL);
  const same = buildBed(
    bedOf({
      readings: [
        { xMm: 60, yMm: 70, depthMm: 7 },
        { xMm: 85, yMm: 60, depthMm: 7 },
      ],
    }),
    CELL,
  );
  drawn.heightMm.forEach((height, i) => expect(Math.abs(same.heightMm[i]! - height)).toBeLessThan(0.003));
});
test('one deep reading deepens its neighbourhood most, and land not at all', () => {
  const drawn = buildBed(bedOf(null), CELL);
  const deep = buildBed(bedOf({ readings: [{ xMm: 50, yMm: 70, depthMm: 8.5 }] }), CELL);
  const change = (x: number, y: number): number => heightIn(deep, x, y) - heightIn(drawn, x, y);
  expect(change(50, 70)).toBeCloseTo(-1.5, 2);
  expect(change(55, 70)).toBeLessThan(change(90, 70));
  expect(change(90, 70)).toBeLessThan(-0.4);
  expect(change(5, 5)).toBe(0);
});
test.each([18, 30, 41.5, 60])('a fill test of %d ml is met within 0.1 %%', (fillMl) => {
  expect(Math.abs(volumeMl(volumeCurve(buildBed(bedOf({ fillMl }), CELL)), 15) / fillMl - 1)).toBeLessThan(0.001);
});
test('readings and a fill test together: the fill has the last word on the volume', () => {
  const grid = buildBed(bedOf({ readings: [{ xMm: 60, yMm: 70, depthMm: 8 }], fillMl: 40 }), CELL);
  expect(Math.abs(volumeMl(volumeCurve(grid), 15) / 40 - 1)).toBeLessThan(0.001);
});

describe('the ± of the volume', () => {
  const spread = [
    [45, 60],
    [60, 85],
    [75, 55],
    [90, 80],
    [60, 65],
    [80, 70],
  ] as const;
  const uncertainty = (count: number, fillMl: number | null = null): number => {
    const design = bedOf({ readings: spread.slice(0, count).map(([xMm, yMm]) => ({ xMm, yMm, depthMm: 7 })), fillMl });
    return volumeUncertaintyMl(buildBed(design, CELL), 15, design.measured);
  };
  test('shrinks with every reading', () => {
    const all = [0, 1, 2, 3, 4, 5, 6].map((count) => uncertainty(count));
    all.slice(1).forEach((value, i) => expect(value).toBeLessThan(all[i]!));
    expect(all[6]!).toBeLessThan(all[0]! / 2);
  });
  test('of a bed as drawn is the closed form of its covariance', () => {
    // Far smaller than the range of the wander, a bed moves as one: 2·A·√(offset² + wander²).
    const small = testDesign([{ ...pool, widthMm: 4, lengthMm: 4, bankSlope: 0 }]);
    const grid = buildBed(small, 0.25);
    expect(
      volumeUncertaintyMl(grid, 15, null) / ((2 * Math.PI * 4 * Math.sqrt(0.5 ** 2 + 0.6 ** 2)) / 1000),
    ).toBeCloseTo(1, 1);
  });
  test('is a fill test’s own when there is one', () => expect(uncertainty(0, 40)).toBeCloseTo(0.8, 6));
});

test('readings outside the piece or against each other are named', () => {
  const at = (xMm: number, yMm: number, depthMm: number): { xMm: number; yMm: number; depthMm: number } => ({
    xMm,
    yMm,
    depthMm,
  });
  expect(
    checkReadings([at(10, 10, 5), at(150, 10, 5), at(10.4, 10, 7)], testDesign().outline).map(({ index }) => index),
  ).toEqual([1, 2]);
  expect(checkReadings([at(10, 10, 5), at(10.4, 10, 5.3)], testDesign().outline)).toEqual([]);
});

test('a bed cut to a template strays less than one carved by hand, a printed one least; a scan counts as scanned', () => {
  const pool: Feature = {
    kind: 'pool',
    id: 'p',
    xMm: 70,
    yMm: 70,
    widthMm: 60,
    lengthMm: 60,
    depthMm: 5,
    section: 'bowl',
    bankSlope: 0,
  };
  const spread = MADE_BY.slice(0, 3).map((madeBy) =>
    volumeUncertaintyMl(buildBed(testDesign([pool]), 1), 15, null, 0, strayOf(testDesign([pool], { madeBy }))),
  );
  expect(spread[1]! / spread[0]!).toBeCloseTo(0.5, 2);
  expect(spread[2]!).toBeLessThan(spread[1]! / 2);
  expect(madeByOf(testDesign([pool]))).toBe('by hand');
  expect(madeByOf(testDesign([newFeature('scan', testDesign())]))).toBe('scanned');
});

test('the places where a measured bed strays most, deeper and shallower', () => {
  const outline = { kind: 'rectangle', widthMm: 40, lengthMm: 20 } as const;
  const drawn = formulaGrid(outline, 1, () => 10);
  const real = formulaGrid(
    outline,
    1,
    (x, y) =>
      10 -
      (Math.abs(x - 30.5) < 0.1 && Math.abs(y - 4.5) < 0.1 ? 2 : 0) +
      (Math.abs(x - 3.5) < 0.1 && Math.abs(y - 15.5) < 0.1 ? 1.5 : 0),
  );
  expect(largestStrays(drawn, real)).toEqual({
    deeper: { deeperMm: 2, xMm: 30.5, yMm: 4.5 },
    shallower: { deeperMm: -1.5, xMm: 3.5, yMm: 15.5 },
  });
  expect(largestStrays(drawn, drawn).deeper.deeperMm).toBe(0);
});
