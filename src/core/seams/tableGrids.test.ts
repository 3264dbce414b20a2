import fc from 'fast-check';
import { emptyWish, layTable } from './table';
import type { TableWish, TableGridKind } from '../model/tableSchema';
import {
  drawnSide,
  opposite,
  placeBox,
  placesOn,
  sideMiddle,
  TABLE_SHAPES,
  tableEdges,
  tableExtent,
  tableSide,
  type TileSize,
} from './tableShape';
import type { TableTile } from './tableTypes';
import { all, bruteExtras, faults, named } from './testTables';

const INCHES: TileSize = { widthMm: 101.6, lengthMm: 152.4 };
const HEX: TileSize = { widthMm: 100, lengthMm: 50 * Math.sqrt(3) };
const GRIDS: readonly [TableGridKind, TileSize][] = [
  ['square', { widthMm: 140, lengthMm: 140 }],
  ['rectangle', INCHES],
  ['rectangle across', INCHES],
  ['hexagon', HEX],
];

describe.each(GRIDS)('places of a table of kind %s', (grid, size) => {
  const shape = TABLE_SHAPES[grid];
  test('lie beside each other: the middles of the sides that two places share are one point', () => {
    for (const at of [
      { column: 3, row: 3 },
      { column: 4, row: 3 },
    ])
      for (const side of shape.sides) {
        const [here, there] = [placeBox(grid, size, at), placeBox(grid, size, shape.beyond(at, side))];
        const point = (box: typeof here, s: typeof side): [number, number] => {
          const { across, up } = sideMiddle(grid, s);
          return [box.xMm + across * box.acrossMm, box.yMm + up * box.upMm];
        };
        const [a, b] = [point(here, side), point(there, opposite(shape, side))];
        expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(1e-9);
      }
  });
  test('a step there and a step back end where they began', () => {
    const at = { column: 3, row: 2 };
    for (const side of shape.sides) expect(shape.beyond(shape.beyond(at, side), opposite(shape, side))).toEqual(at);
  });
  test('a side of a turned tile is the side that was drawn', () => {
    for (const turns of shape.turns)
      for (const side of shape.sides) expect(tableSide(shape, drawnSide(shape, side, turns), turns)).toBe(side);
  });
  test('fill the extent that is said of them', () => {
    const boxes = Array.from({ length: 12 }, (_, i) => placeBox(grid, size, { column: i % 4, row: Math.floor(i / 4) }));
    const extent = tableExtent(grid, size, 4, 3);
    expect(Math.max(...boxes.map(({ xMm, acrossMm }) => xMm + acrossMm))).toBeCloseTo(extent.acrossMm, 9);
    expect(Math.max(...boxes.map(({ yMm, upMm }) => yMm + upMm))).toBeCloseTo(extent.upMm, 9);
  });
  test('one place less fits a table a millimetre too small', () => {
    const extent = tableExtent(grid, size, 4, 3);
    expect(placesOn(grid, size, extent)).toMatchObject({ columns: 4, rows: 3, leftAcrossMm: 0, leftUpMm: 0 });
    expect(placesOn(grid, size, { ...extent, acrossMm: extent.acrossMm - 1 }).columns).toBe(3);
  });
});

test('a 30 inch table takes seven by five 4 × 6 inch tiles upright, and a strip of 50.8 mm is left over', () => {
  const table = { acrossMm: 762, upMm: 762 };
  const upright = placesOn('rectangle', INCHES, table);
  expect([upright.columns, upright.rows]).toEqual([7, 5]);
  expect(upright.leftAcrossMm).toBeCloseTo(50.8, 9);
  expect(upright.leftUpMm).toBeCloseTo(0, 9);
  const lying = placesOn('rectangle across', INCHES, table);
  expect([lying.columns, lying.rows]).toEqual([5, 7]);
  expect(lying.leftUpMm).toBeCloseTo(50.8, 9);
});

describe.each(['rectangle', 'rectangle across', 'hexagon'] as const)('a search on places of kind %s', (grid) => {
  const sides = TABLE_SHAPES[grid].sides.length;
  const wet = fc.array(fc.boolean(), { minLength: sides, maxLength: sides });
  const tile = fc
    .tuple(wet, fc.integer({ min: 0, max: 2 }), fc.boolean())
    .map(([sidesWet, copies, turnable]) => ({ wet: sidesWet, copies, turnable }));
  const edges = tableEdges(grid, 3, 2);
  test('keeps everything, and asks for as few extras as there are ways to try', () => {
    let [found, none] = [0, 0];
    fc.assert(
      fc.property(
        fc.array(tile, { minLength: 1, maxLength: 3 }),
        fc.uniqueArray(fc.integer({ min: 0, max: edges.length - 1 }), { minLength: 1, maxLength: 2 }),
        fc.option(fc.record({ column: fc.integer({ min: 0, max: 2 }), row: fc.integer({ min: 0, max: 1 }) })),
        (kinds, open, blocked) => {
          const tiles = kinds.map((kind, i): TableTile => ({ ...named(`t${i}`), ...kind }));
          const wish: TableWish = {
            ...emptyWish(3, 2, grid),
            openings: open.map((i) => edges[i]!),
            blocked: blocked ? [blocked] : [],
          };
          if (blocked && open.some((i) => edges[i]!.column === blocked.column && edges[i]!.row === blocked.row)) return;
          if (!tiles.some((kind) => kind.wet.some(Boolean))) return;
          const result = layTable(wish, tiles, all, { mostExtras: 6 });
          const brute = bruteExtras(wish, tiles, all);
          expect(result.kind).toBe(brute === null ? 'none' : 'found');
          if (result.kind !== 'found') return void none++;
          found++;
          expect(faults(wish, tiles, all, result.layout)).toEqual([]);
          expect(result.layout.extras.reduce((sum, { count }) => sum + count, 0)).toBe(brute);
        },
      ),
      { numRuns: 150 },
    );
    // Both answers were put to the test.
    expect(Math.min(found, none)).toBeGreaterThan(5);
  });
});

test('a measured copy is one piece: it is laid once and never asked for again', () => {
  const straight = { copies: 1, turnable: true, wet: [true, false, true, false] };
  const tiles: TableTile[] = [
    { ...named('drawn'), ...straight },
    { designId: 'drawn', copy: 2, tag: 'drawn #2', once: true, drawnTag: 'drawn', ...straight },
  ];
  // A row of four: two pieces more are needed, and both are further ones of the design.
  const wish: TableWish = {
    ...emptyWish(4, 1),
    openings: [
      { column: 0, row: 0, side: 3 },
      { column: 3, row: 0, side: 1 },
    ],
  };
  const result = layTable(wish, tiles, all, { mostExtras: 4 });
  if (result.kind !== 'found') throw new Error(result.kind);
  expect(result.layout.extras).toEqual([{ tile: 0, count: 2 }]);
  expect(result.layout.laid.filter(({ tile }) => tile === 1)).toHaveLength(1);
  // Where only the measured one would do, nothing can be made in its place.
  expect(layTable(wish, [tiles[1]!], all, { mostExtras: 4 }).kind).toBe('none');
});
