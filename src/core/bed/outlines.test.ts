import fc from 'fast-check';
import { checkDesign } from './checkDesign';
import { buildBed } from './buildBed';
import { damRuns } from './dams';
import { chooseCellMm, flatGrid, gridAreaMm2 } from './grid';
import {
  cornerRadiusMm,
  edgePoint,
  inwardOf,
  isInside,
  outlineAreaMm2,
  outlineEdges,
  outlinePolygon,
  outlineSides,
  outlineSize,
  selfCrossing,
} from './outline';
import { findPools } from './pools';
import { outlineProfiles, runPath } from './profile';
import { outlineSchema, pieceDesignSchema, type Outline } from '../model/designSchema';
import { newFeature } from './starters';
import { testDesign } from './testShapes';
import { cornersToRaise, tiltedSurface, tiltedVolume } from './tilt';
import { volumeCurve, volumeMl } from './volumeCurve';

const hexagon: Outline = { kind: 'regular', sides: 6, acrossMm: 120 };
const rounded: Outline = { kind: 'rectangle', widthMm: 140, lengthMm: 90, cornerMm: 20 };
const lobed: Outline = {
  kind: 'free',
  points: [
    { xMm: 0, yMm: 0 },
    { xMm: 120, yMm: 0 },
    { xMm: 120, yMm: 50 },
    { xMm: 60, yMm: 50 },
    { xMm: 60, yMm: 100 },
    { xMm: 0, yMm: 100 },
  ],
};
const arch: Outline = {
  kind: 'free',
  points: [
    { xMm: 0, yMm: 0 },
    { xMm: 100, yMm: 0 },
    ...Array.from({ length: 33 }, (_, i) => ({
      xMm: 50 + 50 * Math.cos((Math.PI * i) / 32),
      yMm: 40 + 50 * Math.sin((Math.PI * i) / 32),
    })),
  ],
};

describe('areas', () => {
  test('of a regular polygon are n·r²·tan(π/n), r the inscribed radius', () => {
    for (const sides of [3, 5, 6, 8, 12])
      expect(outlineAreaMm2({ kind: 'regular', sides, acrossMm: 120 })).toBeCloseTo(
        sides * 3600 * Math.tan(Math.PI / sides),
        6,
      );
  });
  test('rounded corners each take (1 − π/4)·r² off', () =>
    expect(outlineAreaMm2(rounded)).toBeCloseTo(140 * 90 - (4 - Math.PI) * 400, 9));
  test.each<[string, Outline]>([
    ['hexagon', hexagon],
    ['rounded rectangle', rounded],
    ['free outline', lobed],
    ['arch', arch],
  ])('of a %s on the grid are right within 0.1 %%', (_, outline) => {
    expect(
      Math.abs(gridAreaMm2(flatGrid(outline, 18, chooseCellMm(outline))) / outlineAreaMm2(outline) - 1),
    ).toBeLessThan(0.001);
  });
  test('a corner can be no rounder than half the shorter side', () => {
    const round: Outline = { kind: 'rectangle', widthMm: 100, lengthMm: 60, cornerMm: 80 };
    expect(cornerRadiusMm(round)).toBe(30);
    expect(checkDesign(testDesign([newFeature('basin', testDesign())], { outline: round }), 15)).toContainEqual(
      expect.objectContaining({
        code: 'corner-too-round',
        severity: 'hint',
        mend: expect.objectContaining({ value: 30 }) as unknown,
      }),
    );
  });
});

describe('sides', () => {
  test('of a hexagon are named by the way they face', () => {
    expect(outlineEdges(hexagon)).toEqual(['north', 'north-east', 'south-east', 'south', 'south-west', 'north-west']);
    for (const { lengthMm } of outlineSides(hexagon)) expect(lengthMm).toBeCloseTo(120 / Math.sqrt(3), 9);
    expect(outlineSize(hexagon).lengthMm).toBeCloseTo(120, 9);
  });
  test('of a free outline are numbered when two face one way', () =>
    expect(outlineEdges(lobed)).toEqual(['side 1', 'side 2', 'side 3', 'side 4', 'side 5', 'side 6']));
  test('short runs of a curve are no sides: they are its rim', () => {
    expect(outlineEdges(arch)).toEqual(['east', 'south', 'west']);
    expect(outlineProfiles(flatGrid(arch, 18, 1), arch).map(({ edge }) => edge)).toEqual([
      'east',
      'south',
      'west',
      'rim',
    ]);
  });
  test('point into the piece, from their west or south end', () => {
    fc.assert(
      fc.property(fc.constantFrom(hexagon, rounded, lobed, arch), (outline) => {
        for (const side of outlineSides(outline)) {
          const middle = edgePoint(outline, { edge: side.edge, positionMm: side.lengthMm / 2 });
          const [x, y] = inwardOf(outline, side.edge);
          expect(isInside(outlinePolygon(outline), { xMm: middle.xMm + x, yMm: middle.yMm + y })).toBe(true);
          expect(isInside(outlinePolygon(outline), { xMm: middle.xMm - x, yMm: middle.yMm - y })).toBe(false);
          expect(side.from.xMm < side.to.xMm || (side.from.xMm === side.to.xMm && side.from.yMm < side.to.yMm)).toBe(
            true,
          );
        }
      }),
    );
  });
});

describe('water on a hexagon', () => {
  const design = testDesign([], { outline: hexagon });
  const basin = buildBed(testDesign([{ kind: 'basin', id: 'b', rimMm: 10, depthMm: 5 }], { outline: hexagon }));
  test('a basin inside a rim is a smaller hexagon', () => {
    const inner = 6 * 50 ** 2 * Math.tan(Math.PI / 6);
    expect(Math.abs(volumeMl(volumeCurve(basin), 15) / ((inner * 5) / 1000) - 1)).toBeLessThan(0.005);
  });
  test('a channel across flats opens two facing sides, and is as long as the piece is across', () => {
    const channel = newFeature('channel', design);
    expect([channel.from.edge, channel.to.edge]).toEqual(['south', 'north']);
    const bed = buildBed(testDesign([{ ...channel, widthMm: 40, depthMm: 5, bankSlope: 0 }], { outline: hexagon }));
    expect(Math.abs(volumeMl(volumeCurve(bed), 15) / ((40 * 5 * 120) / 1000) - 1)).toBeLessThan(0.005);
    const runs = damRuns(outlineProfiles(bed, hexagon), 15);
    expect(runs.map(({ edge }) => edge)).toEqual(['north', 'south']);
    for (const { lengthMm } of runs) expect(Math.abs(lengthMm - 40)).toBeLessThan(0.6);
  });
  test('a channel between slanted sides leaves both at right angles: its dams are as long as it is wide', () => {
    const channel = {
      ...newFeature('channel', design),
      widthMm: 30,
      depthMm: 5,
      bankSlope: 0,
      from: { edge: 'south', positionMm: 60 / Math.sqrt(3) },
      to: { edge: 'north-east', positionMm: 60 / Math.sqrt(3) },
    } as const;
    const bed = buildBed(testDesign([channel], { outline: hexagon }));
    const runs = damRuns(outlineProfiles(bed, hexagon), 15);
    expect(runs.map(({ edge }) => edge)).toEqual(['north-east', 'south']);
    for (const { lengthMm } of runs) expect(Math.abs(lengthMm - 30)).toBeLessThan(1);
    const pools = findPools(bed, 15, {
      outline: hexagon,
      dammed: new Set(['north-east']),
      damMarginMm: 3,
      damOverlapMm: 5,
    });
    expect(pools[0]!.spill).toMatchObject({ over: 'edge', edge: 'south' });
  });
  test('a tilted bench keeps its volume and names the corner to raise', () => {
    const surface = tiltedSurface(basin, hexagon, 30, { east: 0.004, north: 0.002 });
    expect(tiltedVolume(basin, surface).ml).toBeCloseTo(30, 3);
    const corners = cornersToRaise(hexagon, { east: 0.004, north: 0 });
    expect(corners.map(({ corner }) => corner).sort()).toEqual([
      'east',
      'north-east',
      'north-west',
      'south-east',
      'south-west',
      'west',
    ]);
    expect(corners.reduce((a, b) => (b.raiseMm > a.raiseMm ? b : a)).corner).toBe('east');
  });
});

test('a rim dam runs along the curve only, and its way is as long as it says', () => {
  const bed = buildBed(testDesign([{ kind: 'basin', id: 'b', rimMm: 0, depthMm: 5 }], { outline: arch }));
  const runs = damRuns(outlineProfiles(bed, arch), 15);
  const rim = runs.find(({ edge }) => edge === 'rim')!;
  expect(Math.abs(rim.lengthMm - Math.PI * 50)).toBeLessThan(2);
  const way = runPath(arch, rim);
  const walked = way
    .slice(1)
    .reduce((sum, point, i) => sum + Math.hypot(point.xMm - way[i]!.xMm, point.yMm - way[i]!.yMm), 0);
  expect(Math.abs(walked - rim.lengthMm)).toBeLessThan(2);
});

describe('outlines that cannot be', () => {
  const free = (...points: [number, number][]): unknown => ({
    kind: 'free',
    points: points.map(([xMm, yMm]) => ({ xMm, yMm })),
  });
  test.each<[string, unknown, RegExp]>([
    ['two points', free([0, 0], [9, 9]), /three points/],
    ['no area', free([0, 0], [50, 0], [100, 0]), /enclose nothing/],
    ['no size', { kind: 'regular', sides: 6, acrossMm: 0 }, /more than 0/],
    ['two sides', { kind: 'regular', sides: 2, acrossMm: 50 }, /At least 3/],
    ['off the sheet', free([-5, 0], [50, 0], [50, 50]), /north and east/],
  ])('%s is refused in words', (_, outline, words) =>
    expect(outlineSchema.safeParse(outline).error!.issues[0]!.message).toMatch(words),
  );
  test('one that crosses itself is drawn, and stopped with the place', () => {
    const bow = outlineSchema.parse(free([0, 0], [100, 80], [100, 0], [40, 60]));
    const problem = checkDesign(testDesign([newFeature('basin', testDesign())], { outline: bow }), 15).find(
      ({ code }) => code === 'outline-crosses',
    )!;
    expect(problem).toMatchObject({ severity: 'stop', path: ['outline', 'points'] });
    expect(() =>
      buildBed(testDesign([{ kind: 'basin', id: 'b', rimMm: 2, depthMm: 4 }], { outline: bow })),
    ).not.toThrow();
  });
  test('a thousand features are refused by number, and nothing else is', () => {
    const many = Array.from({ length: 1000 }, (_, i) => ({ ...newFeature('rock', testDesign()), id: `r${i}` }));
    const issues = pieceDesignSchema.safeParse(testDesign(many)).error!.issues;
    expect(issues).toHaveLength(1);
    expect(issues[0]).toMatchObject({
      path: ['features'],
      message: expect.stringMatching(/^At most 40 features/) as unknown,
    });
  });
  test('a port on a side that is gone is named, with a side that is there', () => {
    const design = testDesign([newFeature('channel', testDesign())], {
      outline: { kind: 'regular', sides: 3, acrossMm: 100 },
    });
    expect(checkDesign(design, 15).find(({ code }) => code === 'no-such-edge')).toMatchObject({
      severity: 'stop',
      path: ['features', 0, 'to', 'edge'],
      mend: { target: 'design' },
    });
  });
});

test('a line crosses itself exactly where two of its segments do', () => {
  expect(selfCrossing(Float64Array.of(0, 0, 10, 10, 10, 0, 0, 10), false)).toEqual({ xMm: 5, yMm: 5 });
  expect(selfCrossing(Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10), true)).toBeNull();
});
