import fc from 'fast-check';
import { checkWish, emptyWish, layTable, lacking, standsInTheWay } from './table';
import type { SidesMeet, TableTile } from './tableTypes';
import { bestCopies } from './tableCopies';
import type { TableWish } from '../model/tableSchema';
import { across, all, bend, bruteExtras, end, faults, fork, straight } from './testTables';
import { ref, named } from './testTables';

describe('a creek across a table', () => {
  test('is laid from the stock, and keeps everything', () => {
    const result = layTable(across, [straight, bend, fork, end], all);
    expect(result.kind).toBe('found');
    if (result.kind === 'found')
      expect([faults(across, [straight, bend, fork, end], all, result.layout), result.layout.extras]).toEqual([[], []]);
  });
  test('another seed gives other layouts, all of them right', () => {
    const seen = new Set(
      Array.from({ length: 12 }, (_, seed) => {
        const result = layTable(across, [straight, { ...bend, copies: 6 }, fork, end], all, { seed: seed + 1 });
        if (result.kind !== 'found') throw new Error(result.kind);
        expect(faults(across, [straight, { ...bend, copies: 6 }, fork, end], all, result.layout)).toEqual([]);
        return JSON.stringify(result.layout.laid);
      }),
    );
    expect(seen.size).toBeGreaterThan(2);
  });
  test('passes where it must, round what is blocked, and forks', () => {
    const wish: TableWish = {
      ...across,
      rows: 4,
      blocked: [{ column: 1, row: 1 }],
      pass: [{ column: 2, row: 3 }],
      openings: [...across.openings, { column: 2, row: 0, side: 0 }],
    };
    const tiles = [straight, { ...bend, copies: 8 }, { ...fork, copies: 2 }, end];
    const result = layTable(wish, tiles, all, { mostSteps: 2_000_000 });
    expect(result.kind).toBe('found');
    if (result.kind === 'found') expect(faults(wish, tiles, all, result.layout)).toEqual([]);
  });
  test('one that needs another bend says so, and only that', () => {
    const wish: TableWish = {
      ...emptyWish(2, 2),
      blocked: [],
      pass: [],
      openings: [
        { column: 0, row: 0, side: 3 },
        { column: 1, row: 1, side: 1 },
      ],
    };
    const tiles = [
      { ...straight, copies: 4 },
      { ...bend, copies: 1 },
    ];
    expect(layTable(wish, tiles, all)).toEqual({ kind: 'none' });
    const result = layTable(wish, tiles, all, { mostExtras: 3 });
    expect(result).toMatchObject({ kind: 'found', fewest: true, layout: { extras: [{ tile: 1, count: 1 }] } });
  });
  test('sides that may not meet are kept apart', () => {
    const tiles = [
      { ...straight, copies: 2 },
      { ...straight, ...named('deep'), copies: 2 },
    ];
    const apart: SidesMeet = (a, _, b) => a === b;
    const wish: TableWish = { ...across, columns: 4 };
    expect(layTable(wish, tiles, apart)).toEqual({ kind: 'none' });
    expect(layTable(wish, tiles, all).kind).toBe('found');
  });
  test('tiles that run one way point downstream', () => {
    const rapid: TableTile = { ...named('rapid'), copies: 4, turnable: true, wet: [true, false, true, false], from: 0 };
    const result = layTable(across, [rapid], all);
    if (result.kind !== 'found') throw new Error(result.kind);
    // Water comes in at the west: the south side as drawn must face west, a turn of three turns.
    expect(new Set(result.layout.laid.map(({ turns }) => turns))).toEqual(new Set([3]));
    expect(layTable(across, [{ ...rapid, turnable: false }], all)).toEqual({ kind: 'none' });
  });
  const pond: TableTile = { ...named('pond'), copies: 1, turnable: true, wet: [true, false, true, false], pond: true };
  const rich = [{ ...straight, copies: 8 }, { ...bend, copies: 8 }, { ...fork, copies: 2 }, end, pond];
  test.each<[string, Partial<TableWish>]>([
    [
      'a fork at a place',
      { forks: [{ column: 1, row: 1 }], openings: [...across.openings, { column: 1, row: 0, side: 0 }] },
    ],
    ['a pond at a place', { ponds: [{ column: 2, row: 1 }] }],
    ['a fork anywhere', { anyFork: true }],
    ['a pond anywhere', { anyPond: true }],
    ['a tile kept where it lies', { fixed: [{ column: 1, row: 1, piece: ref('bend'), turns: 2 }] }],
    [
      'all of these',
      {
        anyFork: true,
        anyPond: true,
        fixed: [{ column: 0, row: 1, piece: ref('straight'), turns: 1 }],
        blocked: [{ column: 2, row: 1 }],
      },
    ],
  ])('%s', (_, change) => {
    const wish = { ...across, ...change };
    for (const seed of [1, 2, 3]) {
      const result = layTable(wish, rich, all, { seed, mostSteps: 2_000_000 });
      if (result.kind !== 'found') throw new Error(result.kind);
      expect(faults(wish, rich, all, result.layout)).toEqual([]);
    }
  });
  test('kept tiles that do not go together leave nothing to lay', () => {
    const wish: TableWish = {
      ...across,
      fixed: [
        { column: 0, row: 1, piece: ref('straight'), turns: 1 },
        { column: 1, row: 1, piece: ref('straight'), turns: 0 },
      ],
    };
    expect(layTable(wish, rich, all)).toEqual({ kind: 'none' });
  });
  test('what alone keeps a table from being laid is told: the arm that has no way out', () => {
    const few = [{ ...straight, copies: 8 }];
    const wish: TableWish = { ...across, openings: [...across.openings, { column: 1, row: 0, side: 0 }] };
    expect(layTable(wish, few, all)).toEqual({ kind: 'none' });
    expect(standsInTheWay(wish, few, all)).toEqual(['the opening on the south side of column 2, row 1']);
    const away: TableWish = { ...across, pass: [{ column: 1, row: 0 }] };
    expect(layTable(away, few, all)).toEqual({ kind: 'none' });
    expect(standsInTheWay(away, few, all)).toEqual(['the water at column 2, row 1']);
    // Two that are both wrong: letting one go is not enough.
    const both = { ...wish, pass: away.pass, openings: [...wish.openings, { column: 2, row: 0, side: 0 as const }] };
    expect(standsInTheWay(both, few, all)).toEqual([]);
  });
  test('a fork that is not in stock is asked for', () => {
    const result = layTable(
      { ...across, anyFork: true },
      [{ ...straight, copies: 8 }, { ...fork, copies: 0 }, end],
      all,
      { mostExtras: 2 },
    );
    expect(result).toMatchObject({ kind: 'found', fewest: true, layout: { extras: [{ tile: 1, count: 1 }] } });
  });
});

test('small tables: possible or not, and the fewest extras, as brute force finds', () => {
  const cell = fc.record({ column: fc.nat(1), row: fc.nat(1) });
  const border = fc.constantFrom(
    { column: 0, row: 0, side: 3 as const },
    { column: 0, row: 0, side: 0 as const },
    { column: 1, row: 1, side: 1 as const },
    { column: 1, row: 1, side: 2 as const },
    { column: 1, row: 0, side: 0 as const },
    { column: 0, row: 1, side: 3 as const },
  );
  const stock = fc.record({ straight: fc.nat(2), bend: fc.nat(2), end: fc.nat(1), fixed: fc.boolean() });
  const meets = fc.constantFrom<SidesMeet>(all, (a, sideA, b, sideB) => !(a === 0 && b === 0 && sideA === sideB));
  fc.assert(
    fc.property(
      fc.array(cell, { maxLength: 1 }),
      fc.uniqueArray(border, { minLength: 1, maxLength: 2 }),
      fc.option(cell, { nil: undefined }),
      stock,
      meets,
      (pass, openings, block, has, meet) => {
        const wish: TableWish = { ...emptyWish(2, 2), blocked: block ? [block] : [], pass, openings };
        const tiles = [
          { ...straight, copies: has.straight },
          { ...bend, copies: has.bend, turnable: !has.fixed },
          { ...end, copies: has.end },
        ];
        if (checkWish(wish, tiles).length > 0) return;
        const fewest = bruteExtras(wish, tiles, meet);
        const result = layTable(wish, tiles, meet, { mostExtras: 4 });
        if (fewest === null) return expect(result).toEqual({ kind: 'none' });
        if (result.kind !== 'found') throw new Error(`${result.kind}, brute force finds one with ${fewest} extra`);
        expect(faults(wish, tiles, meet, result.layout)).toEqual([]);
        expect(result.layout.extras.reduce((sum, { count }) => sum + count, 0)).toBe(fewest);
        expect(result.fewest).toBe(true);
      },
    ),
    { numRuns: 60 },
  );
});

test('kept tiles, forks, ponds and one-way tiles on small tables: as brute force finds', () => {
  const cell = fc.record({ column: fc.nat(1), row: fc.nat(1) });
  const kept = fc.record({
    column: fc.nat(1),
    row: fc.nat(1),
    piece: fc.constantFrom(ref('rapid'), ref('fork')),
    turns: fc.nat(3),
  });
  const some = { minLength: 0, maxLength: 1 };
  fc.assert(
    fc.property(
      fc.array(cell, some),
      fc.array(cell, some),
      fc.boolean(),
      fc.array(kept, some),
      fc.nat(2),
      fc.nat(1),
      (forks, ponds, anyPond, fixed, rapids, forksHad) => {
        const wish: TableWish = {
          ...emptyWish(2, 2),
          forks,
          ponds,
          anyPond,
          fixed,
          openings: [
            { column: 0, row: 0, side: 3 },
            { column: 1, row: 1, side: 1 },
          ],
        };
        const tiles: TableTile[] = [
          { ...bend, ...named('rapid'), copies: rapids, from: 0, pond: true },
          { ...fork, copies: forksHad },
          { ...end, copies: 1 },
        ];
        if (checkWish(wish, tiles).length > 0) return;
        const fewest = bruteExtras(wish, tiles, all);
        const result = layTable(wish, tiles, all, { mostExtras: 4 });
        if (fewest === null) return expect(result).toEqual({ kind: 'none' });
        if (result.kind !== 'found') throw new Error(`${result.kind}, brute force finds one with ${fewest} extra`);
        expect(faults(wish, tiles, all, result.layout)).toEqual([]);
        expect(result.layout.extras.reduce((sum, { count }) => sum + count, 0)).toBe(fewest);
      },
    ),
    { numRuns: 60 },
  );
});

test('larger tables at random: whatever is found keeps everything, and names no more extras than it uses', () => {
  const kinds: TableTile[] = [
    straight,
    bend,
    { ...fork, copies: 2 },
    end,
    { ...straight, ...named('rapid'), copies: 2, from: 0 },
    { ...bend, ...named('pond'), copies: 1, pond: true },
  ];
  const meets = fc.constantFrom<SidesMeet>(all, (a, _, b) => !(a === 0 && b === 1) && !(a === 1 && b === 0));
  const size = fc.record({ columns: fc.integer({ min: 3, max: 6 }), rows: fc.integer({ min: 2, max: 4 }) });
  const random = size.chain(({ columns, rows }) => {
    const place = fc.record({ column: fc.nat(columns - 1), row: fc.nat(rows - 1) });
    return fc.record({
      wish: fc
        .record({
          blocked: fc.array(place, { maxLength: 2 }),
          pass: fc.array(place, { maxLength: 2 }),
          forks: fc.array(place, { maxLength: 1 }),
          anyPond: fc.boolean(),
          south: fc.nat(columns - 1),
          inRow: fc.nat(rows - 1),
          outRow: fc.nat(rows - 1),
          third: fc.boolean(),
        })
        .map(({ south, inRow, outRow, third, ...rest }): TableWish => ({
          ...emptyWish(columns, rows),
          ...rest,
          openings: [
            { column: 0, row: inRow, side: 3 },
            { column: columns - 1, row: outRow, side: 1 },
            ...(third ? [{ column: south, row: 0, side: 0 as const }] : []),
          ],
        })),
      meet: meets,
      seed: fc.integer({ min: 1, max: 1000 }),
    });
  });
  let found = 0;
  fc.assert(
    fc.property(random, ({ wish, meet, seed }) => {
      if (checkWish(wish, kinds).length > 0) return;
      const result = layTable(wish, kinds, meet, { seed, mostExtras: 2, mostSteps: 30_000 });
      if (result.kind !== 'found') return;
      found++;
      expect(faults(wish, kinds, meet, result.layout)).toEqual([]);
      for (const { tile, count } of result.layout.extras)
        expect(result.layout.laid.filter((place) => place.tile === tile)).toHaveLength(kinds[tile]!.copies + count);
      // Copies put in better places still keep everything.
      const better = bestCopies(
        result.layout,
        kinds,
        meet,
        (a, sideA, b, sideB) => ((a * 7 + sideA) * 5 + b * 3 + sideB) % 11,
        wish.fixed,
        wish.grid,
        seed,
      );
      expect(faults(wish, kinds, meet, better)).toEqual([]);
    }),
    { numRuns: 120 },
  );
  expect(found).toBeGreaterThan(20);
});

test('contradictory wishes are named', () => {
  expect(checkWish({ ...across, pass: [{ column: 9, row: 0 }] }, [straight])[0]).toBe(
    'There is no place at column 10, row 1.',
  );
  expect(checkWish({ ...across, blocked: [{ column: 0, row: 1 }] }, [straight])[0]).toBe(
    'Water is wanted at column 1, row 2, which is blocked.',
  );
  expect(checkWish({ ...across, openings: [{ column: 1, row: 1, side: 0 }] }, [straight])[0]).toBe(
    'The south side of column 2, row 2 is not an edge of the table.',
  );
  expect(checkWish({ ...across, openings: [] }, [straight])[0]).toBe(
    'Say where the water comes in, goes out, or must pass.',
  );
  expect(checkWish(across, [{ ...straight, wet: [false, false, false, false] }])[0]).toBe(
    'No tile of this set has water at its edges.',
  );
  expect(checkWish(across, [])[0]).toBe('There are no tiles to lay. Add some on the Shape stage.');
  expect(checkWish({ ...across, anyFork: true }, [straight])[0]).toBe(
    'A fork is wanted, but no tile has water at three sides.',
  );
  expect(checkWish({ ...across, ponds: [{ column: 1, row: 1 }] }, [straight])[0]).toBe(
    'A pond is wanted, but no tile with water at its edges has a pool on it.',
  );
  expect(lacking({ ...across, anyFork: true, ponds: [{ column: 1, row: 1 }] }, [straight])).toEqual(['fork', 'pond']);
  expect(lacking({ ...across, anyFork: true }, [{ ...straight, wet: [true, true, true, false] }])).toEqual([]);
  const kept = { column: 1, row: 1, piece: ref('straight'), turns: 1 };
  expect(checkWish({ ...across, fixed: [{ ...kept, piece: ref('gone') }] }, [straight])[0]).toMatch(
    /A tile is kept at column 2, row 2, but is no longer/,
  );
  expect(checkWish({ ...across, fixed: [kept, kept] }, [straight])[0]).toBe(
    'Two tiles are kept at column 2, row 2. Free it.',
  );
  expect(checkWish({ ...across, fixed: [kept, { ...kept, column: 2 }] }, [{ ...straight, copies: 1 }])[0]).toMatch(
    /more places than there are copies of it, 1/,
  );
  expect(checkWish({ ...across, fixed: [kept] }, [{ ...straight, turnable: false }])[0]).toBe(
    'straight may not be turned like that. Free column 2, row 2.',
  );
  expect(checkWish({ ...across, columns: 0 }, [straight])[0]).toMatch(/between 1 and 400/);
});

describe('a table that cannot be laid, and is too large to be sure', () => {
  // One opening and no end: water that comes in can never stop. The ways to try are many.
  const wish: TableWish = { ...emptyWish(8, 6), blocked: [], pass: [], openings: [{ column: 0, row: 1, side: 3 }] };
  const tiles = [
    { ...bend, copies: 40 },
    { ...straight, copies: 40 },
  ];
  test('out of steps it says so, and not that there is none', () =>
    expect(layTable(wish, tiles, all, { mostSteps: 5000 })).toEqual({ kind: 'gave up' }));
  test('further apart than there are tiles: a proof at once, on any size of table', () => {
    const wide: TableWish = {
      ...emptyWish(20, 20),
      anyFork: true,
      openings: [
        { column: 0, row: 1, side: 3 },
        { column: 19, row: 18, side: 1 },
      ],
    };
    const told: number[] = [];
    expect(
      layTable(
        wide,
        [
          { ...fork, copies: 20 },
          { ...straight, copies: 10 },
        ],
        all,
        { mostExtras: 6, tick: (steps) => told.push(steps) },
      ),
    ).toEqual({ kind: 'none' });
    expect(told).toEqual([]);
  });
  test('it tells how far it is, and can be stopped there', () => {
    const told: number[] = [];
    layTable(wish, tiles, all, { mostSteps: 9000, tick: (steps) => told.push(steps) });
    expect(told.length).toBeGreaterThan(3);
    expect(told).toEqual(told.map((_, i) => (i + 1) * 2048));
    expect(() =>
      layTable(wish, tiles, all, {
        tick: () => {
          throw new Error('stopped');
        },
      }),
    ).toThrow('stopped');
  });
});
