import fc from 'fast-check';
import { piecesToMake } from './makeList';
import { emptyWish, layTable } from './table';
import type { TableTile } from './tableTypes';
import type { TableWish } from '../model/tableSchema';
import { across, all, bend, end, everyLaying, faults, straight } from './testTables';

describe('what to make for a list of tables', () => {
  /** The counts of every layout of a small table. */
  const allCounts = (wish: TableWish, tiles: readonly TableTile[]): number[][] => {
    const plenty = tiles.map((tile) => ({ ...tile, copies: 9 }));
    return [...everyLaying(wish, tiles)]
      .filter((laid) => faults(wish, plenty, all, { laid, extras: [] }).length === 0)
      .map((laid) => tiles.map((_, tile) => laid.filter((other) => other.tile === tile).length));
  };
  const openings = [
    { column: 0, row: 0, side: 3 as const },
    { column: 0, row: 0, side: 0 as const },
    { column: 1, row: 0, side: 1 as const },
    { column: 1, row: 1, side: 2 as const },
  ];
  const known = new Map<string, number[][]>();
  test('is as few as brute force over all layouts finds, with and without a stock', () => {
    const wish = fc
      .uniqueArray(fc.constantFrom(...openings), { minLength: 1, maxLength: 2 })
      .map((chosen): TableWish => ({ ...emptyWish(2, 2), openings: chosen }));
    fc.assert(
      fc.property(wish, wish, fc.nat(2), fc.nat(2), (first, second, straights, bends) => {
        const tiles = [
          { ...straight, copies: straights },
          { ...bend, copies: bends },
          { ...end, copies: 0 },
        ];
        const [a, b] = [first, second].map((one) => {
          const key = JSON.stringify(one.openings);
          const counts = known.get(key) ?? allCounts(one, tiles);
          known.set(key, counts);
          return counts;
        }) as [number[][], number[][]];
        const best = Math.min(
          ...a.flatMap((x) =>
            b.map((y) => tiles.reduce((sum, { copies }, i) => sum + Math.max(0, Math.max(x[i]!, y[i]!) - copies), 0)),
          ),
        );
        const result = piecesToMake([first, second], tiles, all);
        if (result.kind !== 'found') throw new Error(result.kind);
        expect([result.list.make, result.list.exact]).toEqual([best, true]);
        expect(result.list.pieces.reduce((sum, { make }) => sum + make, 0)).toBe(best);
        // With what is then there, each table can be laid.
        const made = tiles.map((tile, i) => ({
          ...tile,
          copies: tile.copies + (result.list.pieces.find((piece) => piece.tile === i)?.make ?? 0),
        }));
        for (const one of [first, second]) expect(layTable(one, made, all).kind).toBe('found');
      }),
      { numRuns: 40 },
    );
  });
  test('two tables share what they can: a bend more, not two', () => {
    const north: TableWish = {
      ...emptyWish(3, 3),
      openings: [
        { column: 0, row: 1, side: 3 },
        { column: 1, row: 2, side: 2 },
      ],
    };
    const south: TableWish = {
      ...north,
      openings: [
        { column: 0, row: 1, side: 3 },
        { column: 1, row: 0, side: 0 },
      ],
    };
    expect(
      piecesToMake(
        [north, south],
        [
          { ...straight, copies: 9 },
          { ...bend, copies: 0 },
        ],
        all,
      ),
    ).toMatchObject({
      kind: 'found',
      list: { make: 1, exact: true, pieces: expect.arrayContaining([{ tile: 1, needed: 1, make: 1 }]) as unknown },
    });
  });
  test('tables that no number of pieces can lay are named', () => {
    const impossible: TableWish = {
      ...across,
      blocked: [
        { column: 1, row: 0 },
        { column: 1, row: 1 },
        { column: 1, row: 2 },
      ],
    };
    expect(piecesToMake([across, impossible], [straight, bend], all, { mostExtras: 3 })).toEqual({
      kind: 'none',
      tables: [1],
    });
  });
});
