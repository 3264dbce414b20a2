import { buildBed } from '../bed/buildBed';
import { outlineAreaMm2, outlineSize } from '../bed/outline';
import { newFeature } from '../bed/starters';
import { testDesign } from '../bed/testShapes';
import { bedPng } from './heightMap';
import { openScan, type ScanSource } from './scanFile';
import { bedStl } from './stl';

const source = (bytes: Uint8Array, size = bytes.length, step = 1000): ScanSource => ({
  name: 'a file',
  size,
  chunks: async function* () {
    for (let at = 0; at < bytes.length; at += step) yield await Promise.resolve(bytes.subarray(at, at + step));
  },
});
const text = (words: string): ScanSource => source(new TextEncoder().encode(words));
const design = testDesign([newFeature('channel', testDesign())]);
const bed = buildBed(design, 2);

describe('a file is known by its first bytes', () => {
  test('an STL: its triangles, its size, its heights', async () => {
    const opened = await openScan(source(bedStl(bed, outlineSize(design.outline), 'T')));
    expect(opened.summary).toMatchObject({ kind: 'stl', size: [140, 140, 18] });
    const { heightMm, columns, rows } = opened.field({ up: 'z', quarterTurns: 0, unitMm: 1 });
    expect(columns).toBeGreaterThan(50);
    expect(rows).toBeGreaterThan(50);
    expect(heightMm.reduce((a, b) => Math.max(a, b), 0)).toBeCloseTo(18, 0);
    expect(() => opened.outline(0, 1)).toThrow('This file holds heights, not an outline.');
  });
  test('a picture that the app wrote knows its own scale', async () => {
    const opened = await openScan(source(bedPng(bed)));
    expect(opened.summary).toMatchObject({ kind: 'png', columns: bed.columns, rows: bed.rows, bits: 16 });
    const { summary } = opened;
    if (summary.kind !== 'png' || !summary.scale) throw new Error('no scale in the picture');
    const { heightMm } = opened.field(summary.scale);
    expect(heightMm.reduce((a, b) => Math.max(a, b), 0)).toBeCloseTo(18, 1);
    expect(() => opened.outline(0, 1)).toThrow('not an outline');
  });
  test('a drawing: its shapes, each as an outline in mm', async () => {
    const opened = await openScan(
      text(
        '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" viewBox="0 0 100 60"><rect width="100" height="60"/></svg>',
      ),
    );
    expect(opened.summary).toMatchObject({ kind: 'svg', mmPerUnit: 1, shapes: [{ widthUnits: 100, lengthUnits: 60 }] });
    expect(outlineAreaMm2(opened.outline(0, 1))).toBeCloseTo(6000, 3);
    expect(outlineAreaMm2(opened.outline(0, 0.5))).toBeCloseTo(1500, 3);
    expect(() => opened.outline(3, 1)).toThrow('The drawing has no such shape.');
    expect(() => opened.field({} as never)).toThrow('This file holds an outline, not heights.');
  });
});

describe('what cannot be opened says why', () => {
  test('nothing in it', () => expect(openScan(source(new Uint8Array(0)))).rejects.toThrow('The file is empty.'));
  test('a picture of a size that no page holds', async () => {
    const png = bedPng(bed);
    await expect(openScan(source(png, 130_000_000))).rejects.toThrow('larger than 120 MB');
  });
  test('some other file', () =>
    expect(openScan(text('Dear diary, today the creek set clear.'))).rejects.toThrow(/no STL/));
  test('a picture cut short', async () => {
    const png = bedPng(bed);
    await expect(openScan(source(png.subarray(0, 60)))).rejects.toThrow();
  });
});
