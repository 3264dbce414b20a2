import { emptyWish, layTable } from './table';
import type { TableLayout, TableTile } from './tableTypes';
import { bestCopies, laidSeams, type SideScore } from './tableCopies';
import type { TableWish } from '../model/tableSchema';
import { all, faults, straight } from './testTables';
import { named } from './testTables';

describe('copies in their best places', () => {
  // Four straights whose ends stand at levels of their own, in a row of four.
  const row: TableWish = {
    ...emptyWish(4, 1),
    openings: [
      { column: 0, row: 0, side: 3 },
      { column: 3, row: 0, side: 1 },
    ],
  };
  const singles = [0, 1, 2, 3].map((i): TableTile => ({ ...straight, ...named(`s${i}`), copies: 1 }));
  const levels = [
    [0, 3],
    [1, 0],
    [3, 2],
    [2, 1],
  ];
  const score: SideScore = (a, sideA, b, sideB) =>
    Math.abs(levels[a]![sideA === 0 ? 0 : 1]! - levels[b]![sideB === 0 ? 0 : 1]!);
  const result = layTable(row, singles, all);
  if (result.kind !== 'found') throw new Error(result.kind);
  const worst = ({ laid }: TableLayout): number =>
    Math.max(
      ...laidSeams(laid, singles, 'square').map(({ a, b, sideA, sideB }) =>
        score(laid[a]!.tile, sideA, laid[b]!.tile, sideB),
      ),
    );
  test('are no worse than before, and each is used once', () => {
    const better = bestCopies(result.layout, singles, all, score, [], 'square');
    expect(worst(better)).toBeLessThanOrEqual(worst(result.layout));
    expect(new Set(better.laid.map(({ tile }) => tile)).size).toBe(4);
    expect(faults(row, singles, all, better)).toEqual([]);
  });
  test('a kept place keeps its copy; a copy that was left over may come in', () => {
    const spare = [...singles, { ...straight, ...named('s4'), copies: 1 }];
    const flat: SideScore = (a, _, b) => (a === 4 || b === 4 ? 0 : 1);
    const kept = result.layout.laid[0]!;
    const better = bestCopies(result.layout, spare, all, flat, [kept], 'square');
    expect(better.laid[0]).toEqual(kept);
    expect(better.laid.some(({ tile }) => tile === 4)).toBe(true);
  });
});
