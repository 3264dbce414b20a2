import { emptyWish, type TableResult } from '@/core/seams/table';
import { tableWishSchema, type TableWish } from '@/core/seams/tableSchema';
import { brushed, laidOf, plain, resized, resultWords, toggledOpening } from './tableWish';

const at = { column: 1, row: 2 };
const tiles = [
  { tag: 'HS-1', copies: 2, turnable: true, wet: [true, false, true, false] as const },
  { tag: 'HS-3', copies: 1, turnable: true, wet: [true, true, true, false] as const },
];
const stock = {
  tiles: [...tiles],
  designIds: ['a', 'b'],
  sizeMm: 140,
  meets: new Uint8Array(64),
  scores: new Float32Array(64),
  edges: new Int32Array(8),
  leftOut: [],
};

describe('a press on a place', () => {
  test('says what is wanted there, and a second press takes it back', () => {
    const wanted = brushed(emptyWish(4, 3), at, 'fork');
    expect(wanted.forks).toEqual([at]);
    expect(brushed(wanted, at, 'fork')).toEqual(emptyWish(4, 3));
  });
  test.each(['pass', 'fork', 'pond', 'blocked'] as const)('with %s a place holds one wish at a time', (brush) => {
    let wish: TableWish = { ...emptyWish(4, 3), fixed: [{ ...at, piece: 'HS-1', turns: 0 }] };
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

test('a smaller table forgets what lay outside it, and openings that are no longer at its edge', () => {
  const wish: TableWish = {
    ...emptyWish(2, 2),
    pass: [
      { column: 3, row: 0 },
      { column: 1, row: 1 },
    ],
    blocked: [{ column: 0, row: 2 }],
    forks: [{ column: 2, row: 1 }],
    ponds: [{ column: 0, row: 0 }],
    fixed: [{ column: 1, row: 2, piece: 'HS-1', turns: 0 }],
    openings: [
      { column: 3, row: 1, side: 1 },
      { column: 1, row: 1, side: 1 },
      { column: 1, row: 0, side: 0 },
      { column: 0, row: 1, side: 1 },
    ],
  };
  expect(resized(wish)).toEqual({
    ...emptyWish(2, 2),
    pass: [{ column: 1, row: 1 }],
    ponds: [{ column: 0, row: 0 }],
    openings: [
      { column: 1, row: 1, side: 1 },
      { column: 1, row: 0, side: 0 },
    ],
  });
});

describe('a kept layout', () => {
  test('is read by the tags of today’s tiles, and is gone with one of them', () => {
    const laid = [{ column: 0, row: 0, piece: 'HS-3', turns: 1 }];
    expect(laidOf(laid, stock)).toEqual([{ column: 0, row: 0, tile: 1, turns: 1 }]);
    expect(laidOf([...laid, { column: 1, row: 0, piece: 'HS-9', turns: 0 }], stock)).toBeNull();
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
    [{ kind: 'gave up' }, 'No layout found in the time allowed; there may be one. Try again, or ask for less.'],
  ])('%#', (result, words) => expect(resultWords(result, stock)).toBe(words));
});
