import { buildBed } from '../bed/buildBed';
import { newFeature, starters } from '../bed/starters';
import { testDesign } from '../bed/testShapes';
import type { LaidTile } from './tableTypes';
import type { TableSide } from '../model/tableSchema';
import { boardCut, tileCut, wayThrough } from './walk';

const lowest = (heights: Float32Array): number => heights.reduce((a, b) => Math.min(a, b), Infinity);

describe('a cut along the walk', () => {
  const shore = {
    ...newFeature('shore', testDesign()),
    landSide: 'north' as const,
    waterlineMm: 60,
    slope: 8,
    depthMm: 6,
  };
  const outline = { kind: 'rectangle', widthMm: 200, lengthMm: 140 } as const;
  const grid = buildBed(
    testDesign([shore, { kind: 'rock', id: 'r', xMm: 150, yMm: 30, diameterMm: 200, heightMm: 10, form: 'block' }], {
      outline,
    }),
    1,
  );
  test('of a board runs through its water, from left to right as it stands', () => {
    const plain = buildBed(testDesign([shore], { outline }), 1);
    const cut = boardCut(plain, outline, 15, false);
    expect(cut.lengthMm).toBe(200);
    expect(lowest(cut.heightMm)).toBeCloseTo(9, 1);
    const there = boardCut(grid, outline, 15, false);
    expect([...boardCut(grid, outline, 15, true).heightMm]).toEqual([...there.heightMm].reverse());
  });
  test('of a tile follows its water round the bend', () => {
    const bend = starters(15, [])
      .map(({ design }) => design)
      .find(
        ({ features }) =>
          (features[0]?.kind === 'channel' && features[0].from.edge !== 'south') ||
          (features[0]?.kind === 'channel' && features[0].to.edge !== 'north'),
      )!;
    const channel = bend.features[0]! as Extract<(typeof bend.features)[number], { kind: 'channel' }>;
    const cut = tileCut(buildBed(bend, 0.5), bend.outline, channel.from.edge, channel.to.edge);
    expect(cut.heightMm.filter((z) => z > 15).length).toBe(0);
    expect(cut.lengthMm).toBeGreaterThan(100);
  });
});

describe('the way through a layout', () => {
  const straight = (column: number, row: number, turns: number): LaidTile => ({ column, row, turns, tile: 0 });
  const wet = (tile: number, side: TableSide): boolean => (tile === 0 ? side === 0 || side === 2 : side !== 3);
  test('comes in at one side and goes out at the other, turned tiles too', () => {
    const laid = [straight(1, 0, 1), straight(0, 0, 3)];
    expect(wayThrough(laid, wet, { column: 0, row: 0, side: 3 }, { column: 1, row: 0, side: 1 }, 'square')).toEqual([
      { laid: 1, from: 0, to: 2 },
      { laid: 0, from: 2, to: 0 },
    ]);
  });
  test('at a fork takes the way to the opening that is asked for; without one, the longest', () => {
    // A fork in the middle: in from the south, out at east and north; one tile further to the north.
    const laid: LaidTile[] = [{ column: 0, row: 0, tile: 1, turns: 0 }, straight(0, 1, 0)];
    expect(wayThrough(laid, wet, { column: 0, row: 0, side: 0 }, { column: 0, row: 0, side: 1 }, 'square')).toEqual([
      { laid: 0, from: 0, to: 1 },
    ]);
    expect(
      wayThrough(laid, wet, { column: 0, row: 0, side: 0 }, null, 'square').map(({ laid: index }) => index),
    ).toEqual([0, 1]);
  });
  test('there is none where nothing lies', () =>
    expect(wayThrough([], wet, { column: 0, row: 0, side: 0 }, null, 'square')).toEqual([]));
});
