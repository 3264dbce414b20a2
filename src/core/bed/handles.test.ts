import { designHandles, moveHandle } from './handles';
import type { Feature } from '../model/designSchema';
import { testDesign } from './testShapes';

const channel: Feature = {
  kind: 'channel',
  id: 'c',
  from: { edge: 'south', positionMm: 70 },
  to: { edge: 'north', positionMm: 70 },
  widthMm: 58,
  depthMm: 6,
  section: 'bowl',
  bankSlope: 0,
};
const shore = (landSide: 'north' | 'east' | 'south' | 'west'): Feature => ({
  kind: 'shore',
  id: 's',
  landSide,
  waterlineMm: 40,
  slope: 5,
  depthMm: 6,
});
const pool: Feature = {
  kind: 'pool',
  id: 'p',
  xMm: 70,
  yMm: 60,
  widthMm: 40,
  lengthMm: 30,
  depthMm: 4,
  section: 'bowl',
  bankSlope: 0,
};

test('a channel has a handle at each port, a pool at its centre and by its size, a shore on its waterline, a basin on its rim', () => {
  const design = testDesign([channel, pool, shore('north'), { kind: 'basin', id: 'b', rimMm: 3, depthMm: 3 }]);
  expect(designHandles(design).map(({ grip, xMm, yMm }) => [grip, xMm, yMm])).toEqual([
    ['from', 70, 0],
    ['to', 70, 140],
    ['bank', 99, 0],
    ['centre', 70, 60],
    ['width', 90, 60],
    ['length', 70, 75],
    ['waterline', 70, 100],
    ['rim', 3, 70],
  ]);
});
test.each(['north', 'east', 'south', 'west'] as const)(
  'moving a handle to where it is changes nothing (shore, land %s)',
  (landSide) => {
    const design = testDesign([channel, pool, shore(landSide)]);
    for (const handle of designHandles(design)) expect(moveHandle(design, handle, handle)).toEqual(design);
  },
);
test('a port slides along its edge, stops before the corner, and goes round it to a free edge', () => {
  const port = (x: number, y: number): unknown =>
    (
      moveHandle(testDesign([channel]), { feature: 0, grip: 'from' }, { xMm: x, yMm: y }).features[0] as Extract<
        Feature,
        { kind: 'channel' }
      >
    ).from;
  expect(port(81.3, 4)).toEqual({ edge: 'south', positionMm: 81.5 });
  expect(port(3, 1)).toEqual({ edge: 'south', positionMm: 29 });
  expect(port(2, 60)).toEqual({ edge: 'west', positionMm: 60 });
  expect(port(60, 139)).toEqual({ edge: 'west', positionMm: 111 });
});
test('a pool stays on the piece', () => {
  expect(
    moveHandle(testDesign([pool]), { feature: 0, grip: 'centre' }, { xMm: -20, yMm: 999 }).features[0],
  ).toMatchObject({ xMm: 0, yMm: 140 });
});
