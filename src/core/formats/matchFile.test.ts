import { newFeature, starters } from '../bed/starters';
import { testDesign } from '../bed/testShapes';
import { matchRequestSchema, seamsCommand } from './matchFile';

const [straight, bend] = starters(15, []).map(({ design }) => design);
const file = (change: object = {}): string =>
  JSON.stringify({
    format: 'aguada.match-request',
    version: 1,
    levelMm: 15,
    pieces: [{ design: { ...straight!, tag: 'S' } }, { design: { ...bend!, tag: 'B' } }],
    ...change,
  });
const run = (text: string): { [key: string]: unknown } => {
  const { output, errors, exitCode } = seamsCommand(text);
  expect([errors, exitCode]).toEqual(['', 0]);
  return JSON.parse(output) as { [key: string]: unknown };
};

test('seams of two tiles, graded, worst first', () => {
  const { seams, edges, row } = run(file()) as {
    seams: { grade: string; a: { piece: string } }[];
    edges: unknown[];
    row: unknown;
  };
  expect(edges).toHaveLength(8);
  expect(seams).toHaveLength(10);
  expect(new Set(seams.map(({ grade }) => grade))).toEqual(new Set(['closes']));
  expect(row).toBeNull();
});
test('boards: the best row, and the shims that close what was measured', () => {
  const board = (tag: string): object =>
    testDesign([newFeature('shore', testDesign())], {
      tag,
      kind: 'board',
      outline: { kind: 'rectangle', widthMm: 200, lengthMm: 140 },
    });
  const low = { west: { bed: [], levels: [14, 14, 14] }, east: { bed: [], levels: [14, 14, 14] } };
  const { row } = run(
    file({ pieces: [{ design: board('A') }, { design: board('B'), edges: low }], shimsMm: [0.5, 1] }),
  ) as { row: { order: { piece: string }[]; shims: { worstMm: number; beforeMm: number }; exact: boolean } };
  expect(row.order.map(({ piece }) => piece).sort()).toEqual(['A #1', 'B #1']);
  expect(row).toMatchObject({ exact: true, shims: { worstMm: 0, beforeMm: 1 } });
});
test('a table: laid from the stock, or with the fewest extras', () => {
  const table = {
    columns: 3,
    rows: 2,
    openings: [
      { column: 0, row: 0, side: 3 },
      { column: 2, row: 1, side: 1 },
    ],
  };
  expect((run(file({ table })).table as { extras: unknown[] }).extras).toEqual([]);
  const scarce = file({
    table,
    pieces: [{ design: { ...straight!, tag: 'S' } }, { design: { ...bend!, tag: 'B', copies: 1 } }],
  });
  expect(run(scarce).table).toMatchObject({ kind: 'found', fewestExtras: true, extras: [{ piece: 'B', count: 1 }] });
  expect(run(file({ table: { ...table, openings: [] } })).table).toMatchObject({
    kind: 'none',
    problems: ['Say where the water comes in, goes out, or must pass.'],
  });
});
test('rows keep to named rules, and shims may lie under corners apart', () => {
  const board = (tag: string): object =>
    testDesign([newFeature('shore', testDesign())], {
      tag,
      kind: 'board',
      copies: 2,
      outline: { kind: 'rectangle', widthMm: 200, lengthMm: 140 },
    });
  const skew = { west: { bed: [], levels: [14, 14.5, 15] }, east: { bed: [], levels: [15, 15, 15] } };
  const { row } = run(
    file({
      pieces: [{ design: board('A') }, { design: { ...board('B'), copies: 1 }, edges: skew }],
      shimsMm: [1],
      shimCorners: true,
      row: { pins: [{ piece: 'A #2', place: 0 }] },
    }),
  ) as {
    row: {
      order: { piece: string }[];
      shims: { worstMm: number; boards: { piece: string; frontLeft: { raiseMm: number } }[] };
    };
  };
  expect(row.order[0]!.piece).toBe('A #2');
  expect(row.shims.boards.map(({ piece }) => piece)).toEqual(row.order.map(({ piece }) => piece));
  expect(row.shims.worstMm).toBeLessThan(1);
});
test('what to make for two tables', () => {
  const table = (openings: object[]): object => ({ columns: 3, rows: 3, openings });
  const tables = [
    table([
      { column: 0, row: 1, side: 3 },
      { column: 1, row: 2, side: 2 },
    ]),
    table([
      { column: 0, row: 1, side: 3 },
      { column: 1, row: 0, side: 0 },
    ]),
  ];
  const pieces = [{ design: { ...straight!, tag: 'S', copies: 1 } }, { design: { ...bend!, tag: 'B', copies: 1 } }];
  expect(run(file({ pieces, tables })).make).toMatchObject({ kind: 'found', exact: true, make: 1 });
  const walled = {
    ...table([
      { column: 0, row: 1, side: 3 },
      { column: 2, row: 1, side: 1 },
    ]),
    blocked: [0, 1, 2].map((row) => ({ column: 1, row })),
  };
  expect(run(file({ pieces, tables: [tables[0], walled] })).make).toMatchObject({
    kind: 'none',
    problems: ['Table 2 cannot be laid with any number of these pieces.'],
  });
});
test('edges are drawn to the standards given, and say how they were carved', () => {
  const standard = {
    id: 'm',
    name: 'Mouth',
    edgeMm: 140,
    portMm: 70,
    widthMm: 50,
    depthMm: 7,
    section: 'trapezoid',
    bankSlope: 1,
    levelMm: 15,
    bankMm: 18,
    toleranceMm: 0.5,
  };
  const { edges } = run(
    file({ standards: [standard], pieces: [{ design: { ...straight!, tag: 'S', edgeStandards: { north: 'm' } } }] }),
  ) as { edges: { edge: string; drawnTo: boolean; departs: object | null }[] };
  expect(edges.find(({ edge }) => edge === 'north')).toMatchObject({
    drawnTo: true,
    departs: { offMm: expect.any(Number) as unknown },
  });
  expect(edges.find(({ edge }) => edge === 'south')).toMatchObject({ drawnTo: false, departs: null });
});
test('what is wrong is named by its field, exit 2', () => {
  expect(seamsCommand('{')).toMatchObject({ exitCode: 2, output: '' });
  expect(seamsCommand(file({ levelMm: -1 })).errors).toMatch(/^levelMm: /);
  const wide = { ...straight!, features: [{ ...straight!.features[0]!, widthMm: 170 }] };
  expect(seamsCommand(file({ pieces: [{ design: wide }] })).errors).toMatch(
    /^pieces\.0\.design\.features\.0\.widthMm: The channel is 170/,
  );
  expect(matchRequestSchema.safeParse(JSON.parse(file({ pieces: [] }))).error!.issues[0]!.message).toBe(
    'Name at least one piece',
  );
});
