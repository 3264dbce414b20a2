import fc from 'fast-check';
import { checkWish, emptyWish, layTable, type LaidTile, type SidesMeet, type TableLayout, type TableTile } from './table';
import { bestCopies, laidSeams, type SideScore } from './tableCopies';
import { piecesToMake } from './makeList';
import type { TablePlace, TableSide, TableWish } from './tableSchema';

const straight: TableTile = { tag: 'straight', copies: 4, turnable: true, wet: [true, false, true, false] };
const bend: TableTile = { tag: 'bend', copies: 4, turnable: true, wet: [true, true, false, false] };
const fork: TableTile = { tag: 'fork', copies: 1, turnable: true, wet: [true, true, true, false] };
const end: TableTile = { tag: 'end', copies: 2, turnable: true, wet: [true, false, false, false] };
const all: SidesMeet = () => true;
const DX = [0, 1, 0, -1];
const DY = [-1, 0, 1, 0];

/** Written apart from the search: everything that a layout must keep. */
function faults(wish: TableWish, tiles: readonly TableTile[], meet: SidesMeet, { laid, extras }: TableLayout): string[] {
  const at = new Map(laid.map((place) => [`${place.column},${place.row}`, place]));
  const side = (place: LaidTile, table: number): TableSide => ((table - place.quarters + 8) % 4) as TableSide;
  const wet = (place: LaidTile, table: number): boolean => tiles[place.tile]!.wet[side(place, table)]!;
  const found: string[] = [];
  if (at.size !== laid.length) found.push('two tiles in one place');
  for (const { column, row } of wish.blocked) if (at.has(`${column},${row}`)) found.push('a tile on a blocked place');
  for (const { column, row } of [...wish.pass, ...wish.openings, ...wish.forks, ...wish.ponds, ...wish.fixed]) if (!at.has(`${column},${row}`)) found.push('a wanted place is empty');
  const holds = (place: TablePlace, what: (tile: TableTile) => boolean): boolean => {
    const there = at.get(`${place.column},${place.row}`);
    return there !== undefined && what(tiles[there.tile]!);
  };
  const isFork = ({ wet: sides }: TableTile): boolean => sides.filter(Boolean).length > 2;
  if (!wish.forks.every((place) => holds(place, isFork)) || (wish.anyFork && !laid.some((place) => holds(place, isFork)))) found.push('no fork where one is wanted');
  if (!wish.ponds.every((place) => holds(place, ({ pond }) => pond === true)) || (wish.anyPond && !laid.some((place) => holds(place, ({ pond }) => pond === true)))) found.push('no pond where one is wanted');
  for (const place of wish.fixed) if (!laid.some((other) => other.column === place.column && other.row === place.row && other.quarters === place.quarters && tiles[other.tile]!.tag === place.piece)) found.push('a kept tile is gone');
  // The way the water of a one-way tile runs over a side of the table: 1 out of the tile, -1 into it, 0 either way.
  const runs = (place: LaidTile, table: number): number => {
    const { from } = tiles[place.tile]!;
    return from === undefined ? 0 : side(place, table) === from ? -1 : 1;
  };
  // How many tiles lie on the shortest way from the first opening.
  const source = wish.openings[0];
  const away = new Map(source ? [[`${source.column},${source.row}`, 0]] : []);
  for (let round = 0; round < laid.length; round++) {
    for (const place of laid) {
      for (let s = 0; s < 4; s++) {
        const there = away.get(`${place.column + DX[s]!},${place.row + DY[s]!}`);
        const here = away.get(`${place.column},${place.row}`) ?? Infinity;
        if (wet(place, s) && there !== undefined && there + 1 < here) away.set(`${place.column},${place.row}`, there + 1);
      }
    }
  }
  for (const place of laid) {
    const isSource = source?.column === place.column && source.row === place.row;
    const upstream = [0, 1, 2, 3].find((s) => runs(place, s) === -1);
    if (source && !isSource && upstream !== undefined && away.get(`${place.column + DX[upstream]!},${place.row + DY[upstream]!}`) !== away.get(`${place.column},${place.row}`)! - 1) found.push('points upstream');
    for (let s = 0; s < 4; s++) {
      const other = at.get(`${place.column + DX[s]!},${place.row + DY[s]!}`);
      if (other && wet(place, s) && runs(place, s) !== 0 && runs(place, s) === runs(other, (s + 2) % 4)) found.push('two streams head on');
      const opening = wish.openings.findIndex((o) => o.column === place.column && o.row === place.row && o.side === s);
      if (opening >= 0 && runs(place, s) === (opening === 0 ? 1 : -1)) found.push('against the stream at the table’s edge');
    }
    if (!tiles[place.tile]!.turnable && place.quarters !== 0) found.push('turned, and may not be');
    for (let s = 0; s < 4; s++) {
      const [column, row] = [place.column + DX[s]!, place.row + DY[s]!];
      const outside = column < 0 || row < 0 || column >= wish.columns || row >= wish.rows;
      const opening = wish.openings.some((o) => o.column === place.column && o.row === place.row && o.side === s);
      const other = at.get(`${column},${row}`);
      if (outside && wet(place, s) !== opening) found.push('water at the table’s edge');
      if (!outside && wet(place, s) && (!other || !wet(other, (s + 2) % 4))) found.push('water against land');
      if (other && wet(place, s) && wet(other, (s + 2) % 4) && !meet(place.tile, side(place, s), other.tile, side(other, (s + 2) % 4))) found.push('sides that may not meet');
    }
  }
  tiles.forEach(({ copies }, tile) => {
    const used = laid.filter((place) => place.tile === tile).length;
    if (used > copies + (extras.find((extra) => extra.tile === tile)?.count ?? 0)) found.push('more than the stock');
  });
  const seen = new Set<string>();
  const walk = (key: string): void => {
    const place = at.get(key);
    if (!place || seen.has(key)) return;
    seen.add(key);
    for (let s = 0; s < 4; s++) if (wet(place, s)) walk(`${place.column + DX[s]!},${place.row + DY[s]!}`);
  };
  if (laid[0]) walk(`${laid[0].column},${laid[0].row}`);
  if (seen.size !== laid.length) found.push('water that hangs apart');
  return found;
}

/** Every way to lay a small table in which no water meets land or leaves the table where it should not, empty places included. */
function* everyLaying(wish: TableWish, tiles: readonly TableTile[], laid: LaidTile[] = [], i = 0): Generator<LaidTile[]> {
  if (i === wish.columns * wish.rows) {
    if (laid.length > 0) yield laid;
    return;
  }
  const [column, row] = [i % wish.columns, Math.floor(i / wish.columns)];
  const wetAt = (place: LaidTile | undefined, table: number): boolean => place !== undefined && tiles[place.tile]!.wet[(table - place.quarters + 8) % 4]!;
  const opens = (side: number): boolean => wish.openings.some((o) => o.column === column && o.row === row && o.side === side);
  const [west, south] = [laid.find((p) => p.column === column - 1 && p.row === row), laid.find((p) => p.column === column && p.row === row - 1)];
  const fits = (place: LaidTile | undefined): boolean =>
    wetAt(place, 3) === (column === 0 ? opens(3) : wetAt(west, 1)) && wetAt(place, 0) === (row === 0 ? opens(0) : wetAt(south, 2)) &&
    (column < wish.columns - 1 || wetAt(place, 1) === opens(1)) && (row < wish.rows - 1 || wetAt(place, 2) === opens(2));
  if (fits(undefined)) yield* everyLaying(wish, tiles, laid, i + 1);
  for (const [tile, { turnable }] of tiles.entries()) {
    for (let quarters = 0; quarters < (turnable ? 4 : 1); quarters++) {
      const place = { column, row, tile, quarters };
      if (fits(place)) yield* everyLaying(wish, tiles, [...laid, place], i + 1);
    }
  }
}

/** The fewest extras of all ways to lay a small table that keep everything. */
function bruteExtras(wish: TableWish, tiles: readonly TableTile[], meet: SidesMeet): number | null {
  let fewest: number | null = null;
  for (const laid of everyLaying(wish, tiles)) {
    const extras = tiles.flatMap(({ copies }, tile) => {
      const over = laid.filter((other) => other.tile === tile).length - copies;
      return over > 0 ? [{ tile, count: over }] : [];
    });
    if (faults(wish, tiles, meet, { laid, extras }).length > 0) continue;
    const sum = extras.reduce((total, { count }) => total + count, 0);
    fewest = fewest === null ? sum : Math.min(fewest, sum);
  }
  return fewest;
}

const across: TableWish = { ...emptyWish(4, 3), blocked: [], pass: [], openings: [{ column: 0, row: 1, side: 3 }, { column: 3, row: 1, side: 1 }] };

describe('a creek across a table', () => {
  test('is laid from the stock, and keeps everything', () => {
    const result = layTable(across, [straight, bend, fork, end], all);
    expect(result.kind).toBe('found');
    if (result.kind === 'found') expect([faults(across, [straight, bend, fork, end], all, result.layout), result.layout.extras]).toEqual([[], []]);
  });
  test('another seed gives other layouts, all of them right', () => {
    const seen = new Set(Array.from({ length: 12 }, (_, seed) => {
      const result = layTable(across, [straight, { ...bend, copies: 6 }, fork, end], all, { seed: seed + 1 });
      if (result.kind !== 'found') throw new Error(result.kind);
      expect(faults(across, [straight, { ...bend, copies: 6 }, fork, end], all, result.layout)).toEqual([]);
      return JSON.stringify(result.layout.laid);
    }));
    expect(seen.size).toBeGreaterThan(2);
  });
  test('passes where it must, round what is blocked, and forks', () => {
    const wish: TableWish = { ...across, rows: 4, blocked: [{ column: 1, row: 1 }], pass: [{ column: 2, row: 3 }], openings: [...across.openings, { column: 2, row: 0, side: 0 }] };
    const tiles = [straight, { ...bend, copies: 8 }, { ...fork, copies: 2 }, end];
    const result = layTable(wish, tiles, all, { mostSteps: 2_000_000 });
    expect(result.kind).toBe('found');
    if (result.kind === 'found') expect(faults(wish, tiles, all, result.layout)).toEqual([]);
  });
  test('one that needs another bend says so, and only that', () => {
    const wish: TableWish = { ...emptyWish(2, 2), blocked: [], pass: [], openings: [{ column: 0, row: 0, side: 3 }, { column: 1, row: 1, side: 1 }] };
    const tiles = [{ ...straight, copies: 4 }, { ...bend, copies: 1 }];
    expect(layTable(wish, tiles, all)).toEqual({ kind: 'none' });
    const result = layTable(wish, tiles, all, { mostExtras: 3 });
    expect(result).toMatchObject({ kind: 'found', fewest: true, layout: { extras: [{ tile: 1, count: 1 }] } });
  });
  test('sides that may not meet are kept apart', () => {
    const tiles = [{ ...straight, copies: 2 }, { ...straight, tag: 'deep', copies: 2 }];
    const apart: SidesMeet = (a, _, b) => a === b;
    const wish: TableWish = { ...across, columns: 4 };
    expect(layTable(wish, tiles, apart)).toEqual({ kind: 'none' });
    expect(layTable(wish, tiles, all).kind).toBe('found');
  });
  test('tiles that run one way point downstream', () => {
    const rapid: TableTile = { tag: 'rapid', copies: 4, turnable: true, wet: [true, false, true, false], from: 0 };
    const result = layTable(across, [rapid], all);
    if (result.kind !== 'found') throw new Error(result.kind);
    // Water comes in at the west: the south side as drawn must face west, a turn of three quarters.
    expect(new Set(result.layout.laid.map(({ quarters }) => quarters))).toEqual(new Set([3]));
    expect(layTable(across, [{ ...rapid, turnable: false }], all)).toEqual({ kind: 'none' });
  });
  const pond: TableTile = { tag: 'pond', copies: 1, turnable: true, wet: [true, false, true, false], pond: true };
  const rich = [{ ...straight, copies: 8 }, { ...bend, copies: 8 }, { ...fork, copies: 2 }, end, pond];
  test.each<[string, Partial<TableWish>]>([
    ['a fork at a place', { forks: [{ column: 1, row: 1 }], openings: [...across.openings, { column: 1, row: 0, side: 0 }] }],
    ['a pond at a place', { ponds: [{ column: 2, row: 1 }] }],
    ['a fork anywhere', { anyFork: true }],
    ['a pond anywhere', { anyPond: true }],
    ['a tile kept where it lies', { fixed: [{ column: 1, row: 1, piece: 'bend', quarters: 2 }] }],
    ['all of these', { anyFork: true, anyPond: true, fixed: [{ column: 0, row: 1, piece: 'straight', quarters: 1 }], blocked: [{ column: 2, row: 1 }] }],
  ])('%s', (_, change) => {
    const wish = { ...across, ...change };
    for (const seed of [1, 2, 3]) {
      const result = layTable(wish, rich, all, { seed, mostSteps: 2_000_000 });
      if (result.kind !== 'found') throw new Error(result.kind);
      expect(faults(wish, rich, all, result.layout)).toEqual([]);
    }
  });
  test('kept tiles that do not go together leave nothing to lay', () => {
    const wish: TableWish = { ...across, fixed: [{ column: 0, row: 1, piece: 'straight', quarters: 1 }, { column: 1, row: 1, piece: 'straight', quarters: 0 }] };
    expect(layTable(wish, rich, all)).toEqual({ kind: 'none' });
  });
  test('a fork that is not in stock is asked for', () => {
    const result = layTable({ ...across, anyFork: true }, [{ ...straight, copies: 8 }, { ...fork, copies: 0 }, end], all, { mostExtras: 2 });
    expect(result).toMatchObject({ kind: 'found', fewest: true, layout: { extras: [{ tile: 1, count: 1 }] } });
  });
});

test('small tables: possible or not, and the fewest extras, as brute force finds', () => {
  const cell = fc.record({ column: fc.nat(1), row: fc.nat(1) });
  const border = fc.constantFrom({ column: 0, row: 0, side: 3 as const }, { column: 0, row: 0, side: 0 as const }, { column: 1, row: 1, side: 1 as const }, { column: 1, row: 1, side: 2 as const }, { column: 1, row: 0, side: 0 as const }, { column: 0, row: 1, side: 3 as const });
  const stock = fc.record({ straight: fc.nat(2), bend: fc.nat(2), end: fc.nat(1), fixed: fc.boolean() });
  const meets = fc.constantFrom<SidesMeet>(all, (a, sideA, b, sideB) => !(a === 0 && b === 0 && sideA === sideB));
  fc.assert(fc.property(fc.array(cell, { maxLength: 1 }), fc.uniqueArray(border, { minLength: 1, maxLength: 2 }), fc.option(cell, { nil: undefined }), stock, meets, (pass, openings, block, has, meet) => {
    const wish: TableWish = { ...emptyWish(2, 2), blocked: block ? [block] : [], pass, openings };
    const tiles = [{ ...straight, copies: has.straight }, { ...bend, copies: has.bend, turnable: !has.fixed }, { ...end, copies: has.end }];
    if (checkWish(wish, tiles).length > 0) return;
    const fewest = bruteExtras(wish, tiles, meet);
    const result = layTable(wish, tiles, meet, { mostExtras: 4 });
    if (fewest === null) return expect(result).toEqual({ kind: 'none' });
    if (result.kind !== 'found') throw new Error(`${result.kind}, brute force finds one with ${fewest} extra`);
    expect(faults(wish, tiles, meet, result.layout)).toEqual([]);
    expect(result.layout.extras.reduce((sum, { count }) => sum + count, 0)).toBe(fewest);
    expect(result.fewest).toBe(true);
  }), { numRuns: 60 });
});

test('kept tiles, forks, ponds and one-way tiles on small tables: as brute force finds', () => {
  const cell = fc.record({ column: fc.nat(1), row: fc.nat(1) });
  const kept = fc.record({ column: fc.nat(1), row: fc.nat(1), piece: fc.constantFrom('rapid', 'fork'), quarters: fc.nat(3) });
  const some = { minLength: 0, maxLength: 1 };
  fc.assert(fc.property(fc.array(cell, some), fc.array(cell, some), fc.boolean(), fc.array(kept, some), fc.nat(2), fc.nat(1), (forks, ponds, anyPond, fixed, rapids, forksHad) => {
    const wish: TableWish = { ...emptyWish(2, 2), forks, ponds, anyPond, fixed, openings: [{ column: 0, row: 0, side: 3 }, { column: 1, row: 1, side: 1 }] };
    const tiles: TableTile[] = [{ ...bend, tag: 'rapid', copies: rapids, from: 0, pond: true }, { ...fork, copies: forksHad }, { ...end, copies: 1 }];
    if (checkWish(wish, tiles).length > 0) return;
    const fewest = bruteExtras(wish, tiles, all);
    const result = layTable(wish, tiles, all, { mostExtras: 4 });
    if (fewest === null) return expect(result).toEqual({ kind: 'none' });
    if (result.kind !== 'found') throw new Error(`${result.kind}, brute force finds one with ${fewest} extra`);
    expect(faults(wish, tiles, all, result.layout)).toEqual([]);
    expect(result.layout.extras.reduce((sum, { count }) => sum + count, 0)).toBe(fewest);
  }), { numRuns: 60 });
});

test('larger tables at random: whatever is found keeps everything, and names no more extras than it uses', () => {
  const kinds: TableTile[] = [straight, bend, { ...fork, copies: 2 }, end, { ...straight, tag: 'rapid', copies: 2, from: 0 }, { ...bend, tag: 'pond', copies: 1, pond: true }];
  const meets = fc.constantFrom<SidesMeet>(all, (a, _, b) => !(a === 0 && b === 1) && !(a === 1 && b === 0));
  const size = fc.record({ columns: fc.integer({ min: 3, max: 6 }), rows: fc.integer({ min: 2, max: 4 }) });
  const random = size.chain(({ columns, rows }) => {
    const place = fc.record({ column: fc.nat(columns - 1), row: fc.nat(rows - 1) });
    return fc.record({
      wish: fc.record({ blocked: fc.array(place, { maxLength: 2 }), pass: fc.array(place, { maxLength: 2 }), forks: fc.array(place, { maxLength: 1 }), anyPond: fc.boolean(), south: fc.nat(columns - 1), inRow: fc.nat(rows - 1), outRow: fc.nat(rows - 1), third: fc.boolean() }).map(({ south, inRow, outRow, third, ...rest }): TableWish => ({
        ...emptyWish(columns, rows), ...rest, openings: [{ column: 0, row: inRow, side: 3 }, { column: columns - 1, row: outRow, side: 1 }, ...(third ? [{ column: south, row: 0, side: 0 as const }] : [])],
      })),
      meet: meets, seed: fc.integer({ min: 1, max: 1000 }),
    });
  });
  let found = 0;
  fc.assert(fc.property(random, ({ wish, meet, seed }) => {
    if (checkWish(wish, kinds).length > 0) return;
    const result = layTable(wish, kinds, meet, { seed, mostExtras: 2, mostSteps: 30_000 });
    if (result.kind !== 'found') return;
    found++;
    expect(faults(wish, kinds, meet, result.layout)).toEqual([]);
    for (const { tile, count } of result.layout.extras) expect(result.layout.laid.filter((place) => place.tile === tile)).toHaveLength(kinds[tile]!.copies + count);
    // Copies put in better places still keep everything.
    const better = bestCopies(result.layout, kinds, meet, (a, sideA, b, sideB) => ((a * 7 + sideA) * 5 + b * 3 + sideB) % 11, wish.fixed, seed);
    expect(faults(wish, kinds, meet, better)).toEqual([]);
  }), { numRuns: 120 });
  expect(found).toBeGreaterThan(20);
});

test('contradictory wishes are named', () => {
  expect(checkWish({ ...across, pass: [{ column: 9, row: 0 }] }, [straight])[0]).toBe('There is no place at column 10, row 1.');
  expect(checkWish({ ...across, blocked: [{ column: 0, row: 1 }] }, [straight])[0]).toBe('Water is wanted at column 1, row 2, which is blocked.');
  expect(checkWish({ ...across, openings: [{ column: 1, row: 1, side: 0 }] }, [straight])[0]).toBe('The south side of column 2, row 2 is not an edge of the table.');
  expect(checkWish({ ...across, openings: [] }, [straight])[0]).toBe('Say where the water comes in, goes out, or must pass.');
  expect(checkWish(across, [{ ...straight, wet: [false, false, false, false] }])[0]).toBe('No tile of this set has water at its edges.');
  expect(checkWish(across, [])[0]).toBe('There are no tiles to lay. Add some on the Shape stage.');
  expect(checkWish({ ...across, anyFork: true }, [straight])[0]).toBe('A fork is wanted, but no tile has water at three sides.');
  expect(checkWish({ ...across, ponds: [{ column: 1, row: 1 }] }, [straight])[0]).toBe('A pond is wanted, but no tile with water at its edges has a pool on it.');
  const kept = { column: 1, row: 1, piece: 'straight', quarters: 1 };
  expect(checkWish({ ...across, fixed: [{ ...kept, piece: 'gone' }] }, [straight])[0]).toMatch(/gone is kept at column 2, row 2, but is no longer/);
  expect(checkWish({ ...across, fixed: [kept, kept] }, [straight])[0]).toBe('Two tiles are kept at column 2, row 2. Free it.');
  expect(checkWish({ ...across, fixed: [kept, { ...kept, column: 2 }] }, [{ ...straight, copies: 1 }])[0]).toMatch(/more places than there are copies of it, 1/);
  expect(checkWish({ ...across, fixed: [kept] }, [{ ...straight, turnable: false }])[0]).toBe('straight may not be turned. Free column 2, row 2.');
  expect(checkWish({ ...across, columns: 0 }, [straight])[0]).toMatch(/between 1 and 400/);
});

describe('a table that cannot be laid, and is too large to be sure', () => {
  // One opening and no end: water that comes in can never stop. The ways to try are many.
  const wish: TableWish = { ...emptyWish(8, 6), blocked: [], pass: [], openings: [{ column: 0, row: 1, side: 3 }] };
  const tiles = [{ ...bend, copies: 40 }, { ...straight, copies: 40 }];
  test('out of steps it says so, and not that there is none', () => expect(layTable(wish, tiles, all, { mostSteps: 5000 })).toEqual({ kind: 'gave up' }));
  test('further apart than there are tiles: a proof at once, on any size of table', () => {
    const wide: TableWish = { ...emptyWish(20, 20), anyFork: true, openings: [{ column: 0, row: 1, side: 3 }, { column: 19, row: 18, side: 1 }] };
    const told: number[] = [];
    expect(layTable(wide, [{ ...fork, copies: 20 }, { ...straight, copies: 10 }], all, { mostExtras: 6, tick: (steps) => told.push(steps) })).toEqual({ kind: 'none' });
    expect(told).toEqual([]);
  });
  test('it tells how far it is, and can be stopped there', () => {
    const told: number[] = [];
    layTable(wish, tiles, all, { mostSteps: 9000, tick: (steps) => told.push(steps) });
    expect(told.length).toBeGreaterThan(3);
    expect(told).toEqual(told.map((_, i) => (i + 1) * 2048));
    expect(() => layTable(wish, tiles, all, { tick: () => { throw new Error('stopped'); } })).toThrow('stopped');
  });
});

describe('what to make for a list of tables', () => {
  /** The counts of every layout of a small table. */
  const allCounts = (wish: TableWish, tiles: readonly TableTile[]): number[][] => {
    const plenty = tiles.map((tile) => ({ ...tile, copies: 9 }));
    return [...everyLaying(wish, tiles)].filter((laid) => faults(wish, plenty, all, { laid, extras: [] }).length === 0).map((laid) => tiles.map((_, tile) => laid.filter((other) => other.tile === tile).length));
  };
  const openings = [{ column: 0, row: 0, side: 3 as const }, { column: 0, row: 0, side: 0 as const }, { column: 1, row: 0, side: 1 as const }, { column: 1, row: 1, side: 2 as const }];
  const known = new Map<string, number[][]>();
  test('is as few as brute force over all layouts finds, with and without a stock', () => {
    const wish = fc.uniqueArray(fc.constantFrom(...openings), { minLength: 1, maxLength: 2 }).map((chosen): TableWish => ({ ...emptyWish(2, 2), openings: chosen }));
    fc.assert(fc.property(wish, wish, fc.nat(2), fc.nat(2), (first, second, straights, bends) => {
      const tiles = [{ ...straight, copies: straights }, { ...bend, copies: bends }, { ...end, copies: 0 }];
      const [a, b] = [first, second].map((one) => {
        const key = JSON.stringify(one.openings);
        const counts = known.get(key) ?? allCounts(one, tiles);
        known.set(key, counts);
        return counts;
      }) as [number[][], number[][]];
      const best = Math.min(...a.flatMap((x) => b.map((y) => tiles.reduce((sum, { copies }, i) => sum + Math.max(0, Math.max(x[i]!, y[i]!) - copies), 0))));
      const result = piecesToMake([first, second], tiles, all);
      if (result.kind !== 'found') throw new Error(result.kind);
      expect([result.list.make, result.list.exact]).toEqual([best, true]);
      expect(result.list.pieces.reduce((sum, { make }) => sum + make, 0)).toBe(best);
      // With what is then there, each table can be laid.
      const made = tiles.map((tile, i) => ({ ...tile, copies: tile.copies + (result.list.pieces.find((piece) => piece.tile === i)?.make ?? 0) }));
      for (const one of [first, second]) expect(layTable(one, made, all).kind).toBe('found');
    }), { numRuns: 40 });
  });
  test('two tables share what they can: a bend more, not two', () => {
    const north: TableWish = { ...emptyWish(3, 3), openings: [{ column: 0, row: 1, side: 3 }, { column: 1, row: 2, side: 2 }] };
    const south: TableWish = { ...north, openings: [{ column: 0, row: 1, side: 3 }, { column: 1, row: 0, side: 0 }] };
    expect(piecesToMake([north, south], [{ ...straight, copies: 9 }, { ...bend, copies: 0 }], all)).toMatchObject({ kind: 'found', list: { make: 1, exact: true, pieces: expect.arrayContaining([{ tile: 1, needed: 1, make: 1 }]) as unknown } });
  });
  test('tables that no number of pieces can lay are named', () => {
    const impossible: TableWish = { ...across, blocked: [{ column: 1, row: 0 }, { column: 1, row: 1 }, { column: 1, row: 2 }] };
    expect(piecesToMake([across, impossible], [straight, bend], all, { mostExtras: 3 })).toEqual({ kind: 'none', tables: [1] });
  });
});

describe('copies in their best places', () => {
  // Four straights whose ends stand at levels of their own, in a row of four.
  const row: TableWish = { ...emptyWish(4, 1), openings: [{ column: 0, row: 0, side: 3 }, { column: 3, row: 0, side: 1 }] };
  const singles = [0, 1, 2, 3].map((i): TableTile => ({ ...straight, tag: `s${i}`, copies: 1 }));
  const levels = [[0, 3], [1, 0], [3, 2], [2, 1]];
  const score: SideScore = (a, sideA, b, sideB) => Math.abs(levels[a]![sideA === 0 ? 0 : 1]! - levels[b]![sideB === 0 ? 0 : 1]!);
  const result = layTable(row, singles, all);
  if (result.kind !== 'found') throw new Error(result.kind);
  const worst = ({ laid }: TableLayout): number => Math.max(...laidSeams(laid, singles).map(({ a, b, sideA, sideB }) => score(laid[a]!.tile, sideA, laid[b]!.tile, sideB)));
  test('are no worse than before, and each is used once', () => {
    const better = bestCopies(result.layout, singles, all, score, []);
    expect(worst(better)).toBeLessThanOrEqual(worst(result.layout));
    expect(new Set(better.laid.map(({ tile }) => tile)).size).toBe(4);
    expect(faults(row, singles, all, better)).toEqual([]);
  });
  test('a kept place keeps its copy; a copy that was left over may come in', () => {
    const spare = [...singles, { ...straight, tag: 's4', copies: 1 }];
    const flat: SideScore = (a, _, b) => (a === 4 || b === 4 ? 0 : 1);
    const kept = result.layout.laid[0]!;
    const better = bestCopies(result.layout, spare, all, flat, [kept]);
    expect(better.laid[0]).toEqual(kept);
    expect(better.laid.some(({ tile }) => tile === 4)).toBe(true);
  });
});
