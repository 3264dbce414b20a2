import fc from 'fast-check';
import { testDesign } from '../bed/testShapes';
import type { PieceRecord } from '../records/recordSchemas';
import { edgeCsv, parseEdgeCsv } from './edgeCsv';
import type { Stored } from '../model/stored';

const designs = [
  { id: 'a', version: 1, data: testDesign([], { tag: 'HS-1', copies: 3 }) },
  {
    id: 'b',
    version: 1,
    data: testDesign([], { tag: 'SH-A', outline: { kind: 'rectangle', widthMm: 450, lengthMm: 300 } }),
  },
];
const HEAD = 'piece,edge,reading,along_mm,height_mm\n';
const parse = (rows: string): ReturnType<typeof parseEdgeCsv> => parseEdgeCsv(HEAD + rows, designs);

test('readings of several pieces, in any order', () => {
  const { copies, errors } = parse(
    'HS-1 #2,north,level,0,15.2\nSH-A,west,bed,120,9.5\nHS-1 #2,north,bed,70,8.1\nHS-1 #2,north,level,140,14.8\nHS-1 #2,north,bed,20,17',
  );
  expect(errors).toEqual([]);
  expect(copies).toEqual([
    {
      designId: 'a',
      copy: 2,
      edges: {
        north: {
          bed: [
            { atMm: 20, heightMm: 17 },
            { atMm: 70, heightMm: 8.1 },
          ],
          levels: [15.2, 15, 14.8],
        },
      },
    },
    { designId: 'b', copy: 1, edges: { west: { bed: [{ atMm: 120, heightMm: 9.5 }], levels: null } } },
  ]);
});
test('a tag that begins like a formula is guarded in the file, and read back', () => {
  const odd = [{ id: 'o', version: 1, data: testDesign([], { tag: '=HS', copies: 2 }) }];
  const edges = { south: { bed: [{ atMm: 10, heightMm: 8 }], levels: null } };
  const text = edgeCsv([{ id: 'p', version: 1, data: { designId: 'o', copy: 2, edges } as PieceRecord }], odd);
  expect(text).toContain(`"'=HS #2"`);
  expect(parseEdgeCsv(text, odd).copies).toEqual([{ designId: 'o', copy: 2, edges }]);
});
test('one level stands for the whole edge', () =>
  expect(parse('SH-A #1,west,level,150,14.5').copies[0]!.edges.west!.levels).toEqual([14.5, 14.5, 14.5]));
test.each<[string, RegExp]>([
  ['XX #1,north,bed,1,1', /Line 2: There is no piece XX #1/],
  ['HS-1,north,bed,1,1', /Say which copy of HS-1/],
  ['HS-1 #4,north,bed,1,1', /HS-1 has 3 copies; there is no #4/],
  ['HS-1 #1,up,bed,1,1', /HS-1 has no up edge/],
  ['HS-1 #1,north,depth,1,1', /must be bed or level, not “depth”/],
  ['HS-1 #1,north,bed,one,1', /“one” is not a number/],
  ['HS-1 #1,north,bed,1,', /“” is not a number/],
  ['HS-1 #1,north,bed,141,1', /141 mm lies past the end of the edge, which is 140.0 mm/],
  ['HS-1 #1,north,bed,1,900', /At most 300 mm/],
])('%s', (row, words) => {
  const { copies, errors } = parse(`${row}\nHS-1 #1,south,bed,1,1`);
  expect(errors[0]!.message).toMatch(words);
  expect(copies).toEqual([]);
});
test('a file without its columns, and one without readings', () => {
  expect(parseEdgeCsv('piece,edge\nHS-1 #1,north', designs).errors[0]!.message).toMatch(
    /reading and along_mm and height_mm are missing/,
  );
  expect(parseEdgeCsv(HEAD, designs).errors[0]!.message).toMatch(/no readings/);
});
test('what is written is read back', () => {
  const mm = fc.integer({ min: 0, max: 3000 }).map((hundredths) => hundredths / 100);
  const bed = fc
    .uniqueArray(fc.integer({ min: 0, max: 140 }), { maxLength: 5 })
    .chain((places) =>
      fc.tuple(...places.sort((a, b) => a - b).map((atMm) => mm.map((heightMm) => ({ atMm, heightMm })))),
    );
  fc.assert(
    fc.property(bed, fc.tuple(mm, mm, mm), fc.integer({ min: 1, max: 3 }), (readings, levels, copy) => {
      const pieces: Stored<PieceRecord>[] = [
        {
          id: 'p',
          version: 1,
          data: {
            designId: 'a',
            copy,
            measured: { atLevelMm: 15, readings: [], fillMl: null },
            edges: { east: { bed: readings, levels } },
          },
        },
      ];
      expect(parseEdgeCsv(edgeCsv(pieces, designs), designs)).toEqual({
        errors: [],
        copies: [{ designId: 'a', copy, edges: { east: { bed: readings, levels } } }],
      });
    }),
    { numRuns: 40 },
  );
});
