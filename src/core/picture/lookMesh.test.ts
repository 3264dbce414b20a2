import { buildBed } from '../bed/buildBed';
import { newFeature } from '../bed/starters';
import { testDesign } from '../bed/testShapes';
import { lookMesh } from './lookMesh';

const LEVEL = 15;
const channel = newFeature('channel', testDesign());
const grid = buildBed(testDesign([channel]), 2);

/** Area of triangles seen from above, mm²; upward ones count plus. */
function areaFromAbove(positions: Float32Array, triangles: Uint32Array): number {
  let sum = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => triangles[i + k]! * 3);
    const [ax, ay] = [positions[a!]!, positions[a! + 1]!];
    sum += ((positions[b!]! - ax) * (positions[c! + 1]! - ay) - (positions[c!]! - ax) * (positions[b! + 1]! - ay)) / 2;
  }
  return sum;
}
/** Area of walls, from triangles of three corners each. */
function wallArea(corners: Float32Array): number {
  let sum = 0;
  for (let i = 0; i < corners.length; i += 9) {
    const side = (k: number): number[] => [0, 1, 2].map((axis) => corners[i + k * 3 + axis]! - corners[i + axis]!);
    const [p, q] = [side(1), side(2)];
    sum += Math.hypot(p[1]! * q[2]! - p[2]! * q[1]!, p[2]! * q[0]! - p[0]! * q[2]!, p[0]! * q[1]! - p[1]! * q[0]!) / 2;
  }
  return sum;
}

test('the upper side covers the piece once, faces up, and stands about its middle', () => {
  const mesh = lookMesh(grid, LEVEL);
  expect(areaFromAbove(mesh.positions, mesh.triangles)).toBeCloseTo(140 * 140, 3);
  const xs = [...mesh.positions].filter((_, i) => i % 3 === 0);
  expect([Math.min(...xs), Math.max(...xs)]).toEqual([-70, 70]);
  for (let i = 0; i < mesh.normals.length; i += 3) {
    expect(mesh.normals[i + 2]).toBeGreaterThan(0);
    expect(Math.hypot(mesh.normals[i]!, mesh.normals[i + 1]!, mesh.normals[i + 2]!)).toBeCloseTo(1, 5);
  }
});
test('its sides and the open faces of its water close what lies under the level all round', () => {
  const mesh = lookMesh(grid, LEVEL);
  // South and north are cut by the channel: bed and water together reach the level there, the land beside it 18 mm.
  const wet = lookMesh(grid, LEVEL).faces;
  const dry = lookMesh(grid, 0).faces;
  expect(dry.length).toBe(0);
  const [sides, faces] = [wallArea(mesh.sides), wallArea(wet)];
  expect(faces).toBeGreaterThan(2 * 50 * 5);
  expect(sides + faces).toBeLessThan(4 * 140 * 18);
  expect(sides + faces).toBeGreaterThan(4 * 140 * 15);
});
test('a round base has no corner outside its rim, and keeps the lowest of its bed', () => {
  const round = buildBed(
    testDesign([newFeature('basin', testDesign())], { outline: { kind: 'oval', widthMm: 50, lengthMm: 50 } }),
    1,
  );
  const mesh = lookMesh(round, LEVEL);
  expect(areaFromAbove(mesh.positions, mesh.triangles)).toBeCloseTo(Math.PI * 25 * 25, -2);
  for (const corner of mesh.triangles)
    expect(Math.hypot(mesh.positions[corner * 3]!, mesh.positions[corner * 3 + 1]!)).toBeLessThan(26.5);
  expect(mesh.lowestMm).toBeLessThan(LEVEL);
});
test('a corner has the mean height of the cells of the piece round it; the field has each cell’s height and how much of it is inside', () => {
  // Two rows of three cells; the last is no part of the piece.
  const small = {
    cellMm: 10,
    columns: 3,
    rows: 2,
    heightMm: Float32Array.from([1, 2, 4, 8, 16, 32]),
    coverage: Float32Array.from([1, 0.5, 1, 1, 1, 0.4]),
    rock: Uint8Array.from([0, 0, 0, 1, 0, 0]),
  };
  const mesh = lookMesh(small, 0);
  const heights = [...mesh.positions].filter((_, i) => i % 3 === 2);
  expect(heights).toEqual([1, 1.5, 3, 4, 4.5, 6.75, 22 / 3, 4, 8, 12, 16, 0].map((mm) => expect.closeTo(mm, 5)));
  expect([...mesh.field]).toEqual([1, 1, 2, 0.5, 4, 1, 8, 3, 16, 1, 32, expect.closeTo(0.4, 6)]);
  expect([...mesh.rockCorners]).toEqual([0, 0, 0, 0, 1, 1, 0, 0, 1, 1, 0, 0]);
});
test('water stands open where the lower end of a side is under its level, and only there', () => {
  const column = (heights: number[]) => ({
    cellMm: 10,
    columns: 1,
    rows: heights.length,
    heightMm: Float32Array.from(heights),
    coverage: new Float32Array(heights.length).fill(1),
  });
  const walls = (heights: number[], levelMm: number): number => lookMesh(column(heights), levelMm).faces.length / 18;
  expect(walls([10], 10)).toBe(0);
  expect(walls([10], 10.5)).toBe(4);
  // Of two cells the sides at the join slope from their own height to the mean: only the lower cell's and the higher's lower ends are wet.
  expect(walls([4, 12], 5)).toBe(3);
  expect(walls([4, 12], 9)).toBe(5);
});
