import fc from 'fast-check';
import { designHandles, moveHandle } from './handles';
import { outlineSides } from './outline';
import { insertPoint, LEVEL_MARKS, movePoint, nearestDrawn, OUTLINE, pointList, removePoint } from './pointLists';
import { portSnaps, snapped, standardSnaps } from './snaps';
import { newFeature } from './starters';
import { testDesign } from './testShapes';
import type { PieceDesign } from '../model/designSchema';

const square = [
  [-20, -20],
  [20, -20],
  [20, 20],
  [-20, 20],
].map(([xMm, yMm]) => ({ xMm: xMm!, yMm: yMm! }));
const drawn: PieceDesign = testDesign(
  [
    {
      ...newFeature('channel', testDesign()),
      via: [
        { xMm: 60, yMm: 40, widthMm: 30, depthMm: null },
        { xMm: 90, yMm: 100, widthMm: null, depthMm: 3 },
      ],
    },
    {
      ...newFeature('shore', testDesign()),
      line: [
        { alongMm: 30, offMm: 40 },
        { alongMm: 100, offMm: 60 },
      ],
    },
    { ...newFeature('pool', testDesign()), form: 'polygon', corners: square, xMm: 40, yMm: 90 },
  ],
  {
    outline: {
      kind: 'free',
      points: [
        { xMm: 0, yMm: 0 },
        { xMm: 140, yMm: 0 },
        { xMm: 140, yMm: 140 },
        { xMm: 0, yMm: 140 },
      ],
    },
    poolLevels: [
      { xMm: 10, yMm: 12, levelMm: 14 },
      { xMm: 30, yMm: 40, levelMm: 16 },
    ],
  },
);
const lists = [0, 1, 2, OUTLINE, LEVEL_MARKS];

describe.each(lists)('the points of list %d', (feature) => {
  const points = pointList(drawn, feature)!.points;
  test('a point put in lies where it was put, and taking it out again leaves the design as it was', () => {
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 135 }), fc.integer({ min: 5, max: 135 }), (xMm, yMm) => {
        const put = insertPoint(drawn, feature, { xMm, yMm })!;
        const there = pointList(put.design, feature)!.points;
        expect(there).toHaveLength(points.length + 1);
        expect(there[put.point]!.xMm).toBeCloseTo(xMm, 6);
        expect(there[put.point]!.yMm).toBeCloseTo(yMm, 6);
        const back = pointList(removePoint(put.design, feature, put.point)!, feature)!.points;
        back.forEach((point, i) =>
          expect([point.xMm, point.yMm]).toEqual([
            expect.closeTo(points[i]!.xMm, 6),
            expect.closeTo(points[i]!.yMm, 6),
          ]),
        );
      }),
      { numRuns: 25 },
    );
  });
  test('moving one point leaves the others', () => {
    const moved = pointList(movePoint(drawn, feature, 1, { xMm: 77, yMm: 33 }), feature)!.points;
    expect([moved[1]!.xMm, moved[1]!.yMm]).toEqual([expect.closeTo(77, 6), expect.closeTo(33, 6)]);
    expect(moved[0]!.xMm).toBeCloseTo(points[0]!.xMm, 6);
  });
});

test('what a point says besides its place stays with it', () => {
  const taken = removePoint(drawn, 0, 0)!.features[0];
  expect(taken).toMatchObject({ via: [{ xMm: 90, widthMm: null, depthMm: 3 }] });
  expect(removePoint(drawn, LEVEL_MARKS, 0)!.poolLevels).toEqual([{ xMm: 30, yMm: 40, levelMm: 16 }]);
});
test('the fewest points of an outline or polygon cannot be taken out', () => {
  const triangle = removePoint(drawn, OUTLINE, 0)!;
  expect(removePoint(triangle, OUTLINE, 0)).toBeNull();
  expect(pointList(testDesign([newFeature('rock', testDesign())]), 0)).toBeNull();
});
test('a double-click finds the line it is on: a channel before the far outline, nothing on bare land', () => {
  expect(nearestDrawn(drawn, { xMm: 61, yMm: 41 })).toBe(0);
  expect(nearestDrawn(drawn, { xMm: 2, yMm: 130 })).toBe(OUTLINE);
  expect(nearestDrawn(drawn, { xMm: 60, yMm: 90 })).toBe(2);
  expect(nearestDrawn(testDesign([newFeature('basin', testDesign())]), { xMm: 70, yMm: 70 })).toBeNull();
});
test('every handle of every kind moves what it belongs to, and only that', () => {
  for (const handle of designHandles(drawn)) {
    const moved = moveHandle(
      drawn,
      handle,
      { xMm: handle.xMm + (handle.xMm > 70 ? -6 : 6), yMm: handle.yMm + (handle.yMm > 70 ? -6 : 6) },
      { free: true },
    );
    expect(JSON.stringify(moved)).not.toBe(JSON.stringify(drawn));
    moved.features.forEach((feature, i) => i !== handle.feature && expect(feature).toEqual(drawn.features[i]));
  }
});
test('sizes follow their handles; a log is turned by its end', () => {
  const log = testDesign([{ ...newFeature('log', testDesign()), xMm: 70, yMm: 70 }]);
  expect(moveHandle(log, { feature: 0, grip: 'turn' }, { xMm: 70, yMm: 95 }).features[0]).toMatchObject({
    lengthMm: 50,
    turnDegrees: 90,
  });
  const rock = testDesign([{ ...newFeature('rock', testDesign()), xMm: 70, yMm: 70 }]);
  expect(moveHandle(rock, { feature: 0, grip: 'width' }, { xMm: 85, yMm: 70 }).features[0]).toMatchObject({
    diameterMm: 30,
  });
});

test('banks, rims and steps follow their handles', () => {
  const moved = (
    feature: PieceDesign['features'][number],
    grip: 'bank' | 'rim' | 'near' | 'far',
    xMm: number,
    yMm: number,
  ): unknown => moveHandle(testDesign([feature]), { feature: 0, grip }, { xMm, yMm }).features[0];
  expect(moved(newFeature('channel', testDesign()), 'bank', 90, 1)).toMatchObject({ widthMm: 40 });
  expect(moved(newFeature('basin', testDesign()), 'rim', 12, 70)).toMatchObject({ rimMm: 12 });
  expect(moved(newFeature('terrace', testDesign()), 'far', 70, 40)).toMatchObject({ toMm: 100 });
});

describe('ports are caught', () => {
  const at = (positionMm: number) => ({
    ...newFeature('channel', testDesign()),
    widthMm: 30,
    from: { edge: 'south' as const, positionMm },
    to: { edge: 'north' as const, positionMm: 70 },
  });
  const snaps = portSnaps([testDesign([at(50)])]);
  test('by the set’s ports on edges as long, also as a neighbour turned round sees them, and by the middle', () => {
    expect([48, 52.9, 91, 68, 60].map((place) => snapped(place, 140, snaps))).toEqual([50, 50, 90, 70, 60]);
    expect(snapped(48, 100, snaps)).toBe(50);
    expect(snapped(40, 100, snaps)).toBe(40);
  });
  test('by the set’s edge standards, read from either end; not by dry ones', () => {
    const standards = standardSnaps([
      { edgeMm: 140, portMm: 45, widthMm: 30 },
      { edgeMm: 140, portMm: 20, widthMm: 0 },
    ]);
    expect([44, 94, 21].map((place) => snapped(place, 140, standards))).toEqual([45, 95, 21]);
  });
  test('when dragged, not when nudged', () => {
    const design = testDesign([at(70)]);
    const from = (place: number, free: boolean): unknown =>
      (
        moveHandle(design, { feature: 0, grip: 'from' }, { xMm: place, yMm: 2 }, { snaps, free })
          .features[0] as ReturnType<typeof at>
      ).from.positionMm;
    expect([from(52, false), from(52, true)]).toEqual([50, 52]);
  });
});

test('ports slide along slanted sides too, and stay off the ends', () => {
  const outline = { kind: 'regular', sides: 6, acrossMm: 120 } as const;
  const design = testDesign([{ ...newFeature('channel', testDesign([], { outline })), widthMm: 30 }], { outline });
  const side = outlineSides(outline).find(({ edge }) => edge === 'north-east')!;
  const moved = moveHandle(design, { feature: 0, grip: 'from' }, side.from, { free: true }).features[0] as {
    from: { edge: string; positionMm: number };
  };
  expect(moved.from).toEqual({ edge: 'north-east', positionMm: 15 });
});
