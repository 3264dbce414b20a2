import { testDesign } from '../bed/testShapes';
import type { DeskView } from '../records/views';
import { lookExtent, lookPlaces, surfaceOf } from './lookPlaces';

const designs = [
  { id: 'a', version: 1, data: testDesign([], { tag: 'A' }) },
  { id: 'b', version: 1, data: testDesign([], { tag: 'B' }) },
  { id: 'c', version: 1, data: testDesign([], { tag: 'C', outline: { kind: 'oval', widthMm: 40, lengthMm: 40 } }) },
];
const laid = [
  { piece: { designId: 'a', copy: 1 }, column: 0, row: 0, turns: 0 },
  { piece: { designId: 'b', copy: 1 }, column: 1, row: 0, turns: 1 },
  { piece: { designId: 'gone', copy: 1 }, column: 2, row: 0, turns: 0 },
];
const desk = {
  set: { id: 's', version: 1, data: { levelMm: 15, tables: [{ id: 't', laid, wish: { grid: 'square' } }] } },
  designs,
  pieces: [
    {
      id: 'p',
      version: 1,
      data: {
        designId: 'b',
        copy: 1,
        edges: { south: { levels: [15.8, 15.8, 15.8] }, north: { levels: [16, 16, 16] } },
      },
    },
  ],
} as unknown as DeskView;

test('one piece stands alone in the middle', () =>
  expect(lookPlaces(desk, { kind: 'piece', designId: 'b' })).toMatchObject([
    { designId: 'b', copy: null, xMm: 0, yMm: 0, surfaceMm: 15 },
  ]));
test('all designs stand apart from each other', () => {
  const places = lookPlaces(desk, { kind: 'row' });
  expect(places).toHaveLength(3);
  for (const [i, one] of places.entries())
    for (const other of places.slice(i + 1))
      expect(Math.max(Math.abs(one.xMm - other.xMm), Math.abs(one.yMm - other.yMm))).toBeGreaterThan(90);
});
test('a laid table stands as it was laid: its pitch, its turns, measured copies at their level; what is gone is left out', () => {
  const places = lookPlaces(desk, { kind: 'table', tableId: 't' });
  expect(places.map(({ designId }) => designId)).toEqual(['a', 'b']);
  expect(places[1]!.xMm - places[0]!.xMm).toBeCloseTo(140.4, 6);
  expect(places[1]!.turnRad).toBeCloseTo(Math.PI / 2, 9);
  expect(places.map(({ surfaceMm }) => surfaceMm)).toEqual([15, expect.closeTo(15.9, 9)]);
  expect(lookPlaces(desk, { kind: 'table', tableId: 'none' })).toEqual([]);
  expect(surfaceOf(desk, 'b', 2)).toBe(15);
});
test('the extent holds every piece', () => {
  const { xMm, yMm, radiusMm } = lookExtent(lookPlaces(desk, { kind: 'table', tableId: 't' }));
  expect([xMm, yMm]).toEqual([expect.closeTo(70.2, 6), expect.closeTo(0, 6)]);
  expect(radiusMm).toBeGreaterThan(Math.hypot(140.2, 70) - 1);
  expect(lookExtent([]).radiusMm).toBeGreaterThan(0);
});
test('a row stands as on shelves: a new one in front where the next would be too far out, the whole about twice as wide as deep', () => {
  const tiles = (count: number) =>
    Array.from({ length: count }, (_, i) => ({ id: `t${i}`, version: 1, data: testDesign([], { tag: `T${i}` }) }));
  const stood = (count: number) =>
    lookPlaces({ ...desk, designs: tiles(count) }, { kind: 'row' }).map(({ xMm, yMm }) => [xMm, yMm]);
  // Four tiles are 78,400 mm²: a shelf of √(2.4 × that) = 433.8 mm holds two of 140 mm, 12 mm apart; a third would end at 444.
  expect(stood(4)).toEqual([
    [70, -70],
    [222, -70],
    [70, -222],
    [222, -222],
  ]);
  // Five: 485 mm, three of them.
  expect(stood(5).map(([x]) => x)).toEqual([70, 222, 374, 70, 222]);
  expect(stood(1)).toEqual([[70, -70]]);
  expect(stood(70)).toHaveLength(60);
});
test('a long board beside small ones has a shelf as long as itself, and the next begins in front of the deepest', () => {
  const outline = { kind: 'rectangle', widthMm: 600, lengthMm: 100 } as const;
  const small = { kind: 'oval', widthMm: 30, lengthMm: 30 } as const;
  const of = [outline, small].map((one, i) => ({ id: `d${i}`, version: 1, data: testDesign([], { outline: one }) }));
  expect(lookPlaces({ ...desk, designs: of }, { kind: 'row' }).map(({ xMm, yMm }) => [xMm, yMm])).toEqual([
    [300, -50],
    [15, -127],
  ]);
});
test('of a table whose pieces are all gone nothing stands', () =>
  expect(lookPlaces({ ...desk, designs: [] }, { kind: 'table', tableId: 't' })).toEqual([]));
