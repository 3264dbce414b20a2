import { formulaGrid } from '@/core/bed/testShapes';
import { contourIntervalMm, depthContours } from './contours';

const points = (path: string): [number, number][] =>
  path
    .split(/[MLZ]/)
    .filter(Boolean)
    .map((pair) => pair.split(' ').map(Number) as [number, number]);
const bowl = formulaGrid(
  { kind: 'rectangle', widthMm: 100, lengthMm: 100 },
  1,
  (x, y) => 5 + 0.2 * Math.hypot(x - 50, y - 50),
);

test('contours lie where the depth is theirs', () => {
  for (const { depthMm, path } of depthContours(bowl, 12, 7, 8)) {
    const radius = (12 - depthMm - 5) / 0.2;
    const inner = points(path).filter(([x, y]) => x > 1 && y > 1 && x < 99 && y < 99);
    expect(inner.length).toBeGreaterThan(8);
    for (const [x, y] of inner) expect(Math.abs(Math.hypot(x - 50, y - 50) - radius)).toBeLessThan(0.35);
  }
});
test('the waterline comes first, then ever deeper, none below the bed', () => {
  expect(depthContours(bowl, 12, 7, 8).map(({ depthMm }) => depthMm)).toEqual([0, 1, 2, 3, 4, 5, 6]);
  expect(depthContours(bowl, 12, 7, 3).map(({ depthMm }) => depthMm)).toEqual([0, 5]);
});
test.each([
  [0.3, 0.5],
  [4, 0.5],
  [6.8, 1],
  [12, 2],
  [90, 20],
])('%d mm deep: every %d mm', (deepest, interval) => expect(contourIntervalMm(deepest, 8)).toBe(interval));
test('outside an oval there is nothing to trace', () => {
  const round = formulaGrid({ kind: 'oval', widthMm: 40, lengthMm: 40 }, 1, () => 9);
  const [waterline] = depthContours(round, 12, 3, 8);
  for (const [x, y] of points(waterline!.path).filter(([px, py]) => px > 0 && py > 0 && px < 40 && py < 40))
    expect(Math.hypot(x - 20, y - 20)).toBeGreaterThan(18);
});
