import fc from 'fast-check';
import { checkWish, layTable, type LaidTile, type SidesMeet, type TableLayout, type TableSide, type TableTile, type TableWish } from './table';

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
  for (const { column, row } of [...wish.pass, ...wish.openings]) if (!at.has(`${column},${row}`)) found.push('a wanted place is empty');
  for (const place of laid) {
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

/** Every assignment of a small table, empty places included; the fewest extras of those that keep all. */
function bruteExtras(wish: TableWish, tiles: readonly TableTile[], meet: SidesMeet): number | null {
  const cells = Array.from({ length: wish.columns * wish.rows }, (_, i) => ({ column: i % wish.columns, row: Math.floor(i / wish.columns) }));
  let fewest: number | null = null;
  const place = (i: number, laid: LaidTile[]): void => {
    if (i === cells.length) {
      if (laid.length === 0) return;
      const extras = tiles.flatMap(({ copies }, tile) => {
        const over = laid.filter((other) => other.tile === tile).length - copies;
        return over > 0 ? [{ tile, count: over }] : [];
      });
      if (faults(wish, tiles, meet, { laid, extras }).length > 0) return;
      const sum = extras.reduce((total, { count }) => total + count, 0);
      fewest = fewest === null ? sum : Math.min(fewest, sum);
      return;
    }
    place(i + 1, laid);
    tiles.forEach(({ turnable }, tile) => {
      for (let quarters = 0; quarters < (turnable ? 4 : 1); quarters++) place(i + 1, [...laid, { ...cells[i]!, tile, quarters }]);
    });
  };
  place(0, []);
  return fewest;
}

const across: TableWish = { columns: 4, rows: 3, blocked: [], pass: [], openings: [{ column: 0, row: 1, side: 3 }, { column: 3, row: 1, side: 1 }] };

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
    const wish: TableWish = { columns: 2, rows: 2, blocked: [], pass: [], openings: [{ column: 0, row: 0, side: 3 }, { column: 1, row: 1, side: 1 }] };
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
    const rapid: TableTile = { tag: 'rapid', copies: 4, turnable: true, wet: [true, false, true, false], flow: { from: 0, to: 2 } };
    const result = layTable(across, [rapid], all);
    if (result.kind !== 'found') throw new Error(result.kind);
    // Water comes in at the west: the south side as drawn must face west, a turn of three quarters.
    expect(new Set(result.layout.laid.map(({ quarters }) => quarters))).toEqual(new Set([3]));
    expect(layTable(across, [{ ...rapid, turnable: false }], all)).toEqual({ kind: 'none' });
  });
});

test('small tables: possible or not, and the fewest extras, as brute force finds', () => {
  const cell = fc.record({ column: fc.nat(1), row: fc.nat(1) });
  const border = fc.constantFrom({ column: 0, row: 0, side: 3 as const }, { column: 0, row: 0, side: 0 as const }, { column: 1, row: 1, side: 1 as const }, { column: 1, row: 1, side: 2 as const }, { column: 1, row: 0, side: 0 as const }, { column: 0, row: 1, side: 3 as const });
  const stock = fc.record({ straight: fc.nat(2), bend: fc.nat(2), end: fc.nat(1), fixed: fc.boolean() });
  const meets = fc.constantFrom<SidesMeet>(all, (a, sideA, b, sideB) => !(a === 0 && b === 0 && sideA === sideB));
  fc.assert(fc.property(fc.array(cell, { maxLength: 1 }), fc.uniqueArray(border, { minLength: 1, maxLength: 2 }), fc.option(cell, { nil: undefined }), stock, meets, (pass, openings, block, has, meet) => {
    const wish: TableWish = { columns: 2, rows: 2, blocked: block ? [block] : [], pass, openings };
    const tiles = [{ ...straight, copies: has.straight }, { ...bend, copies: has.bend, turnable: !has.fixed }, { ...end, copies: has.end }];
    if (checkWish(wish, tiles).length > 0) return;
    const fewest = bruteExtras(wish, tiles, meet);
    const result = layTable(wish, tiles, meet, { mostExtras: 4 });
    if (fewest === null) return expect(result).toEqual({ kind: 'none' });
    if (result.kind !== 'found') throw new Error(`${result.kind}, brute force finds one with ${fewest} extra`);
    expect(faults(wish, tiles, meet, result.layout)).toEqual([]);
    expect(result.layout.extras.reduce((sum, { count }) => sum + count, 0)).toBe(fewest);
    expect(result.fewest).toBe(true);
  }), { numRuns: 14 });
});

test('contradictory wishes are named', () => {
  expect(checkWish({ ...across, pass: [{ column: 9, row: 0 }] }, [straight])[0]).toBe('There is no place at column 10, row 1.');
  expect(checkWish({ ...across, blocked: [{ column: 0, row: 1 }] }, [straight])[0]).toBe('Water is wanted at column 1, row 2, which is blocked.');
  expect(checkWish({ ...across, openings: [{ column: 1, row: 1, side: 0 }] }, [straight])[0]).toBe('The south side of column 2, row 2 is not an edge of the table.');
  expect(checkWish({ ...across, openings: [] }, [straight])[0]).toBe('Say where the water comes in, goes out, or must pass.');
  expect(checkWish(across, [{ ...straight, wet: [false, false, false, false] }])[0]).toBe('No tile of this set has water at its edges.');
  expect(checkWish({ ...across, columns: 0 }, [straight])[0]).toMatch(/between 1 and 400/);
});

describe('a table that cannot be laid, and is too large to be sure', () => {
  // One opening and no end: water that comes in can never stop. The ways to try are many.
  const wish: TableWish = { columns: 8, rows: 6, blocked: [], pass: [], openings: [{ column: 0, row: 1, side: 3 }] };
  const tiles = [{ ...bend, copies: 40 }, { ...straight, copies: 40 }];
  test('out of steps it says so, and not that there is none', () => expect(layTable(wish, tiles, all, { mostSteps: 5000 })).toEqual({ kind: 'gave up' }));
  test('it tells how far it is, and can be stopped there', () => {
    const told: number[] = [];
    layTable(wish, tiles, all, { mostSteps: 9000, tick: (steps) => told.push(steps) });
    expect(told.length).toBeGreaterThan(3);
    expect(told).toEqual(told.map((_, i) => (i + 1) * 2048));
    expect(() => layTable(wish, tiles, all, { tick: () => { throw new Error('stopped'); } })).toThrow('stopped');
  });
});
