import { edgeStandardSchema } from '../model/edgeStandardSchema';
import { newFeature } from '../bed/starters';
import { testDesign } from '../bed/testShapes';
import { drawnDesigns, matchPieces } from './buildRequest';
import { isKnown, withMeasures } from './pieceMeasures';
import type { PieceRecord, WaterSet } from './recordSchemas';
import type { Stored } from '../model/stored';

const bare: PieceRecord = { designId: 'd', copy: 2, measured: { atLevelMm: 15, readings: [], fillMl: null } };
const north = { north: { bed: [{ atMm: 70, heightMm: 8 }], levels: null } };

describe('what is known of one copy', () => {
  test('edges are added to those that were measured before', () => {
    const both = withMeasures(
      withMeasures(bare, north, undefined),
      { south: { bed: [], levels: [14, 14, 14] } },
      undefined,
    );
    expect(Object.keys(both.edges!)).toEqual(['north', 'south']);
  });
  test('an edge without a reading is forgotten, and the last one with it', () => {
    const forgotten = withMeasures(
      withMeasures(bare, north, undefined),
      { north: { bed: [], levels: null } },
      undefined,
    );
    expect(forgotten).toEqual(bare);
    expect(isKnown(forgotten)).toBe(false);
  });
  test('shims stay until they are taken out; none at all is none', () => {
    const shimmed = withMeasures(bare, undefined, [1, 0, 0, 1]);
    expect(withMeasures(shimmed, north, undefined).shimsMm).toEqual([1, 0, 0, 1]);
    expect(withMeasures(shimmed, undefined, null)).toEqual(bare);
    expect(withMeasures(shimmed, undefined, [0, 0, 0, 0])).toEqual(bare);
  });
  test.each<[string, Partial<PieceRecord>, boolean]>([
    ['nothing', {}, false],
    ['an edge', { edges: north }, true],
    ['shims', { shimsMm: [1, 1, 1, 1] }, true],
    ['a depth', { measured: { ...bare.measured, readings: [{ xMm: 1, yMm: 1, depthMm: 1 }] } }, true],
    ['a fill', { measured: { ...bare.measured, fillMl: 20 } }, true],
  ])('%s: known %s', (_, change, known) => expect(isKnown({ ...bare, ...change })).toBe(known));
});

describe('a set as it is matched', () => {
  const standard = edgeStandardSchema.parse({
    id: 's',
    name: 'Creek',
    edgeMm: 140,
    portMm: 70,
    widthMm: 50,
    depthMm: 6,
    section: 'bowl',
    bankSlope: 0,
    levelMm: 15,
    bankMm: 18,
    toleranceMm: 0.5,
  });
  const data = testDesign([newFeature('channel', testDesign())], {
    tag: 'T',
    copies: 3,
    edgeStandards: { north: 's' },
  });
  const set = { id: 'set', version: 1, data: { standards: [standard] } as WaterSet };
  const view = (pieces: Stored<PieceRecord>[]): Parameters<typeof matchPieces>[0] => ({
    set,
    designs: [{ id: 'd', version: 1, data }],
    pieces,
  });
  test('a measured copy stands by itself, the others keep their numbers', () => {
    const pieces = matchPieces(view([{ id: 'p', version: 1, data: { ...bare, edges: north, shimsMm: [1, 1, 1, 1] } }]));
    expect(pieces.map(({ tag, copy, copies, copyNumbers }) => [tag, copy, copies, copyNumbers])).toEqual([
      ['T', null, 2, [1, 3]],
      ['T #2', 2, 1, undefined],
    ]);
    expect(pieces[1]).toMatchObject({ edges: north, shimsMm: [1, 1, 1, 1] });
  });
  test('a copy beyond those there are is left out', () =>
    expect(matchPieces(view([{ id: 'p', version: 1, data: { ...bare, copy: 9 } }]))).toHaveLength(1));
  test('beds are drawn to the set’s standards; a design without one is the very same', () => {
    const [drawn] = drawnDesigns(view([]));
    expect(drawn!.data.joints).toEqual([{ edge: 'north', standard }]);
    const plain = { id: 'p', version: 1, data: testDesign() };
    expect(drawnDesigns({ set, designs: [plain] })[0]).toBe(plain);
  });
});
