import fc from 'fast-check';
import { buildBed } from './buildBed';
import { transformDesign, TRANSFORMS } from './transform';
import { newFeature } from './starters';
import {
  FEATURE_NAMES,
  pieceDesignSchema,
  type Feature,
  type FeatureKind,
  type Outline,
  type PieceDesign,
} from '../model/designSchema';
import { packHeights } from './scanHeights';
import { testDesign } from './testShapes';

const CELL = 2;

/** The same features, pushed off the middle so that a mirror image shows. */
function lopsided(kind: FeatureKind, design: PieceDesign): Feature {
  const feature = newFeature(kind, design);
  if (feature.kind === 'channel')
    return {
      ...feature,
      from: { edge: 'south', positionMm: 44 },
      to: { edge: 'west', positionMm: 81 },
      via: [{ xMm: 52, yMm: 61, widthMm: 34, depthMm: 4 }],
      toWidthMm: 30,
    };
  if (feature.kind === 'fork') return { ...feature, xMm: 60, yMm: 66 };
  if (feature.kind === 'shore')
    return {
      ...feature,
      line: [
        { alongMm: 20, offMm: 40 },
        { alongMm: 110, offMm: 71 },
      ],
    };
  if (feature.kind === 'terrace') return { ...feature, landSide: 'west' };
  if (feature.kind === 'scan')
    return {
      ...feature,
      columns: 7,
      rows: 7,
      stepMm: 20,
      heights: packHeights(Array.from({ length: 49 }, (_, i) => 6 + (i % 5) + Math.floor(i / 7))),
    };
  if (feature.kind === 'pool')
    return { ...feature, form: 'irregular', seed: 7, xMm: 50, yMm: 82, widthMm: 60, lengthMm: 40 };
  if (feature.kind === 'rock') return { ...feature, form: 'irregular', seed: 3, xMm: 40, yMm: 82, diameterMm: 60 };
  if ('xMm' in feature) return { ...feature, xMm: 49, yMm: 83 };
  return feature;
}

describe.each(Object.keys(FEATURE_NAMES) as FeatureKind[])('a %s', (kind) => {
  const design = testDesign([lopsided(kind, testDesign())]);
  const bed = buildBed(design, CELL);
  const at = (column: number, row: number): number => bed.heightMm[row * bed.columns + column]!;
  const last = bed.columns - 1;
  /** Share of cells that are where they should be: cells cut by a rim may fall either way. */
  const agrees = (other: PieceDesign, where: (column: number, row: number) => number): number => {
    const turned = buildBed(pieceDesignSchema.parse(other), CELL);
    let same = 0;
    for (let row = 0; row < turned.rows; row++)
      for (let column = 0; column < turned.columns; column++)
        if (Math.abs(turned.heightMm[row * turned.columns + column]! - where(column, row)) < 0.06) same++;
    return same / turned.heightMm.length;
  };
  test('mirrored lies left for right', () =>
    expect(agrees(transformDesign(design, 'mirrored'), (column, row) => at(last - column, row))).toBeGreaterThan(0.99));
  test('turned a quarter lies anticlockwise', () =>
    expect(agrees(transformDesign(design, 'quarter turn'), (column, row) => at(row, last - column))).toBeGreaterThan(
      0.99,
    ));
  test('turned by half stands on its head', () =>
    expect(
      agrees(transformDesign(design, 'half turn'), (column, row) => at(last - column, last - row)),
    ).toBeGreaterThan(0.99));
});

test('dams go with their edges; what was measured does not', () => {
  const design = testDesign([], {
    dams: { south: 'tape', west: 'faced board' },
    measured: { atLevelMm: 15, readings: [], fillMl: 30 },
  });
  expect(transformDesign(design, 'quarter turn')).toMatchObject({
    dams: { east: 'tape', south: 'faced board' },
    measured: null,
  });
  expect(transformDesign(design, 'mirrored').dams).toEqual({ south: 'tape', east: 'faced board' });
});

test('four quarter turns, or two mirrorings, bring every outline back', () => {
  const outlines = fc.constantFrom<Outline>(
    { kind: 'rectangle', widthMm: 120, lengthMm: 80, cornerMm: 5 },
    { kind: 'oval', widthMm: 60, lengthMm: 35 },
    { kind: 'regular', sides: 8, acrossMm: 90 },
    {
      kind: 'free',
      points: [
        { xMm: 0, yMm: 0 },
        { xMm: 90, yMm: 10 },
        { xMm: 70, yMm: 60 },
        { xMm: 5, yMm: 40 },
      ],
    },
  );
  fc.assert(
    fc.property(outlines, fc.constantFrom(...TRANSFORMS), (outline, transform) => {
      let design = testDesign([], { outline });
      for (let i = 0; i < 4; i++) design = transformDesign(design, transform);
      expect(JSON.stringify(design.outline)).toBe(JSON.stringify(outline));
    }),
    { numRuns: 30 },
  );
});
