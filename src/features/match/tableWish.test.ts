import { ref } from '@/core/seams/testTables';
import { emptyWish } from '@/core/seams/table';
import type { TableStock } from '@/core/seams/tableTiles';
import type { TableResult } from '@/core/seams/tableTypes';
import { tableWishSchema, type TableWish } from '@/core/model/tableSchema';
import { newTable } from './useTables';
import { brushed, laidOf, onTable, plain, resized, resultWords, sizeOf, toggledOpening } from './tableWish';

const at = { column: 1, row: 2 };
const stock: TableStock = {
  tiles: [
    { ...ref('a'), tag: 'HS-1', copies: 2, turnable: true, wet: [true, false, true, false] },
    { ...ref('b'), tag: 'HS-3', copies: 1, turnable: true, wet: [true, true, true, false] },
    {
      designId: 'b',
      copy: 2,
      tag: 'HS-3 #2',
      drawnTag: 'HS-3',
      copies: 1,
      turnable: true,
      wet: [true, true, true, false],
    },
  ],
  grids: ['square'],
  sizeMm: { widthMm: 140, lengthMm: 140 },
  meets: new Uint8Array(144),
  scores: new Float32Array(144),
  edges: new Int32Array(12),
  leftOut: [],
};

describe('a press on a place', () => {
  test('says what is wanted there, and a second press takes it back', () => {
    const wanted = brushed(emptyWish(4, 3), at, 'fork');
    expect(wanted.forks).toEqual([at]);
    expect(brushed(wanted, at, 'fork')).toEqual(emptyWish(4, 3));
  });
  test.each(['pass', 'fork', 'pond', 'blocked'] as const)('with %s a place holds one wish at a time', (brush) => {
    let wish: TableWish = { ...emptyWish(4, 3), fixed: [{ ...at, piece: ref('a'), turns: 0 }] };
    for (const before of ['pass', 'fork', 'pond', 'blocked'] as const) wish = brushed(wish, at, before);
    const last = brushed(brushed(wish, at, 'blocked'), at, brush);
    const lists = [last.pass, last.forks, last.ponds, last.blocked, last.fixed];
    expect(lists.reduce((sum, list) => sum + list.length, 0)).toBe(1);
    expect(tableWishSchema.safeParse(last).success).toBe(true);
  });
  test('at the table’s edge lets water in, then out, then shuts it', () => {
    const first = toggledOpening(emptyWish(4, 3), { column: 0, row: 1 }, 3);
    const both = toggledOpening(first, { column: 3, row: 1 }, 1);
    expect(both.openings).toEqual([
      { column: 0, row: 1, side: 3 },
      { column: 3, row: 1, side: 1 },
    ]);
    // With the first one shut the other is where water comes in.
    expect(toggledOpening(both, { column: 0, row: 1 }, 3).openings).toEqual([{ column: 3, row: 1, side: 1 }]);
    // The other side of a corner place is an opening of its own.
    expect(toggledOpening(first, { column: 0, row: 1 }, 0).openings).toHaveLength(2);
  });
});

describe('a table of another size', () => {
  const big: TableWish = {
    ...emptyWish(4, 3),
    pass: [
      { column: 3, row: 0 },
      { column: 1, row: 1 },
    ],
    blocked: [{ column: 0, row: 2 }],
    forks: [{ column: 2, row: 1 }],
    ponds: [{ column: 0, row: 0 }],
    fixed: [{ column: 1, row: 2, piece: ref('a'), turns: 0 }],
    openings: [
      { column: 0, row: 1, side: 3 },
      { column: 3, row: 1, side: 1 },
      { column: 1, row: 2, side: 2 },
    ],
  };
  test('forgets what lay outside it; its openings follow the edges that they are at', () => {
    expect(resized(big, { columns: 2, rows: 2 })).toEqual({
      ...emptyWish(2, 2),
      pass: [{ column: 1, row: 1 }],
      ponds: [{ column: 0, row: 0 }],
      openings: [
        { column: 0, row: 1, side: 3 },
        { column: 1, row: 1, side: 1 },
        { column: 1, row: 1, side: 2 },
      ],
    });
  });
  test('made larger again, none has gone', () =>
    expect(resized(resized(big, { columns: 2, rows: 2 }), { columns: 6, rows: 5 }).openings).toEqual([
      { column: 0, row: 4, side: 3 },
      { column: 5, row: 4, side: 1 },
      { column: 5, row: 4, side: 2 },
    ]));
  test('two that come to lie on one place become one', () => {
    const two = { ...emptyWish(3, 3), openings: [0, 1].map((row) => ({ column: 0, row, side: 3 as const })) };
    expect(resized(two, { columns: 3, rows: 1 }).openings).toEqual([{ column: 0, row: 0, side: 3 }]);
  });
  test('has as many places as there is room for, and keeps its own size', () => {
    const table = onTable(newTable('t', 'T', 'square'), stock, { acrossMm: 600, upMm: 430 });
    expect([table.wish.columns, table.wish.rows]).toEqual([4, 3]);
    expect(sizeOf(table, stock)).toEqual({ acrossMm: 600, upMm: 430 });
    expect(sizeOf(newTable('t', 'T', 'square'), stock)).toEqual({ acrossMm: 560, upMm: 420 });
  });
  test('4 × 6 inch tiles on a 30 inch table: seven by five one way round, five by seven the other', () => {
    const inches = { sizeMm: { widthMm: 101.6, lengthMm: 152.4 } };
    const size = { acrossMm: 762, upMm: 762 };
    const upright = onTable(newTable('t', 'T', 'rectangle'), inches, size);
    const lying = onTable(upright, inches, size, 'rectangle across');
    expect([upright.wish.columns, upright.wish.rows]).toEqual([7, 5]);
    expect([lying.wish.columns, lying.wish.rows]).toEqual([5, 7]);
    // The creek still comes in at the west and goes out at the east.
    expect(lying.wish.openings.map(({ column, side }) => [column, side])).toEqual([
      [0, 3],
      [4, 1],
    ]);
  });
});

describe('a kept layout', () => {
  test('is read by the pieces of today’s tiles, and is gone with one of them', () => {
    const laid = [{ column: 0, row: 0, piece: ref('b'), turns: 1 }];
    expect(laidOf(laid, stock)).toEqual([{ column: 0, row: 0, tile: 1, turns: 1 }]);
    expect(laidOf([...laid, { column: 1, row: 0, piece: ref('gone'), turns: 0 }], stock)).toBeNull();
  });
  test('is the same whatever order its places are in', () => {
    const [a, b] = [
      { column: 0, row: 0, tile: 1, turns: 1 },
      { column: 1, row: 0, tile: 0, turns: 0 },
    ];
    expect(plain([a, b])).toEqual(plain([b, a]));
    expect(plain([a, b])).not.toEqual(plain([a, { ...b, turns: 2 }]));
  });
});

describe('what a search came to', () => {
  const found = (extras: { tile: number; count: number }[], fewest = true): TableResult => ({
    kind: 'found',
    fewest,
    layout: { laid: [{ column: 0, row: 0, tile: 0, turns: 0 }], extras },
  });
  test.each<[TableResult, string]>([
    [found([]), '1 tile, all in stock.'],
    [found([{ tile: 1, count: 2 }]), '1 tile. It needs 2 more HS-3; fewer will not do.'],
    // A measured copy is one piece: what is made is another of its design.
    [found([{ tile: 2, count: 1 }]), '1 tile. It needs 1 more HS-3; fewer will not do.'],
    [
      found(
        [
          { tile: 0, count: 1 },
          { tile: 1, count: 1 },
        ],
        false,
      ),
      '1 tile. It needs 1 more HS-1 and 1 more HS-3.',
    ],
    [{ kind: 'none' }, 'It cannot be laid, not even with 6 pieces more. Free a place, or move an opening.'],
    [
      { kind: 'none', inTheWay: ['the water at column 2, row 1', 'the fork at column 1, row 1'] },
      'It cannot be laid, not even with 6 pieces more. Without the water at column 2, row 1, or without the fork at column 1, row 1 it could: water there has no way on.',
    ],
    [{ kind: 'gave up' }, 'No layout found in the time allowed; there may be one. Try again, or ask for less.'],
  ])('%#', (result, words) => expect(resultWords(result, stock)).toBe(words));
});
