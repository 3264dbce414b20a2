import fc from 'fast-check';
import type { EdgeName } from '../model/designSchema';
import type { CornerHeights } from '../model/seamSchema';
import { addShims, asDrawn, atEdge, onShims, raiseEdge, ROUND } from './standing';

const flat = (edge: EdgeName) => ({
  edge,
  heightMm: Float32Array.from({ length: 5 }, () => 10),
  levelMm: [15, 15, 15] as const,
});
const ends = (edge: EdgeName, corners: CornerHeights): [number, number] => {
  const { heightMm } = onShims(flat(edge), corners);
  return [heightMm[0]! - 10, heightMm.at(-1)! - 10];
};
const height = fc.constantFrom(0, 0.5, 1, 2);

test('seen from the middle: at the left of the south edge lies the south-east corner, and so on round', () => {
  const corners: CornerHeights = [1, 2, 3, 4];
  expect(ROUND.map((edge) => ends(edge, corners))).toEqual([
    [2, 1],
    [3, 2],
    [4, 3],
    [1, 4],
  ]);
});
test('neighbouring edges meet in their corner, whatever lies under it', () => {
  fc.assert(
    fc.property(fc.tuple(height, height, height, height), (corners) => {
      ROUND.forEach((edge, i) => expect(ends(edge, corners)[0]).toBeCloseTo(ends(ROUND[(i + 1) % 4]!, corners)[1], 5));
    }),
  );
});
test('strips under an edge raise that edge and leave the far one', () => {
  expect(ends('north', atEdge('north', [1, 2]))).toEqual([1, 2]);
  expect(ends('south', atEdge('north', [1, 2]))).toEqual([0, 0]);
});
test('the water rises with its edge, its middle by the mean', () => {
  expect(onShims(flat('west'), [0, 0, 0, 1]).levelMm).toEqual([15, 15.5, 16]);
  expect(raiseEdge(flat('west'), 0.3).levelMm).toEqual([15.3, 15.3, 15.3]);
});
test('a side that is none of the four comes up by the mean', () =>
  expect(ends('side 5' as EdgeName, [1, 1, 2, 2])).toEqual([1.5, 1.5]));
test('corners as they stand and as drawn: turned by half, twice is once not', () => {
  expect(asDrawn([1, 2, 3, 4], false)).toEqual([1, 3, 4, 2]);
  const [southWest, southEast, northEast, northWest] = asDrawn([1, 2, 3, 4], true);
  // Turned, its north-east corner stands at the front left.
  expect({ southWest, southEast, northEast, northWest }).toEqual({
    northEast: 1,
    southEast: 2,
    northWest: 3,
    southWest: 4,
  });
});
test('shims on shims add up', () =>
  expect(addShims([0.1, 0, 0, 0.2], [0.2, 0.5, 0.5, 0.2])).toEqual([0.3, 0.5, 0.5, 0.4]));
