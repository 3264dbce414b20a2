import fc from 'fast-check';
import { checkDesign } from './checkDesign';
import { buildBed } from './buildBed';
import { packHeights } from './scanHeights';
import { landOfScan, scanLand } from './scanLand';
import { testDesign } from './testShapes';
import { replaceAt } from '../records/replaceAt';
import type { FeatureOf } from '../model/featureSchema';
import type { PieceDesign } from '../model/designSchema';

const SIDE = 60;
/** A scan of a tile: land, a creek from south to north across its middle, a hill, and the noise of the scanner. */
const heights = (landMm: number, creekMm: number | null, noise: () => number = () => 0): Float32Array =>
  Float32Array.from({ length: SIDE * SIDE }, (_, i) => {
    const [x, y] = [i % SIDE, Math.floor(i / SIDE)];
    const hill = Math.hypot(x - 12, y - 30) < 9 ? 22 : 0;
    const creek = creekMm !== null && Math.abs(x - 30) < 8;
    return (creek ? creekMm : landMm + hill) + noise();
  });
const scan = (mm: Float32Array, baseMm?: number): FeatureOf<'scan'> => ({
  kind: 'scan',
  id: 's',
  columns: SIDE,
  rows: SIDE,
  stepMm: 2,
  heights: packHeights(mm),
  ...(baseMm !== undefined && { baseMm }),
});
const tile = (feature: FeatureOf<'scan'>): PieceDesign =>
  testDesign([feature], { outline: { kind: 'rectangle', widthMm: 120, lengthMm: 120 }, landMm: 40 });

describe('the land of a scan', () => {
  test('is that of its banks at the rim, whatever hill stands inside and however noisy it is', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 8, max: 40, noNaN: true }),
        fc.double({ min: 2.5, max: 6, noNaN: true }),
        fc.infiniteStream(fc.double({ min: -0.25, max: 0.25, noNaN: true })),
        (landMm, deepMm, noise) => {
          const found = scanLand(
            SIDE,
            SIDE,
            heights(landMm, landMm - deepMm, () => noise.next().value as number),
          );
          expect(Math.abs(found - landMm)).toBeLessThan(0.2);
        },
      ),
      { numRuns: 30 },
    );
  });
  test('of a rim of one height is all of it, and a ramp is land where it is high', () => {
    expect(scanLand(SIDE, SIDE, heights(12.3, null))).toBeCloseTo(12.3, 5);
    const ramp = Float32Array.from({ length: SIDE * SIDE }, (_, i) => 5 + ((i % SIDE) / SIDE) * 20);
    expect(scanLand(SIDE, SIDE, ramp)).toBeGreaterThan(18);
  });
  test('knows the floor laid under it, and says nothing of a damaged one', () => {
    expect(landOfScan(scan(heights(12.3, 6), 5))).toBeCloseTo(17.3, 5);
    expect(landOfScan({ ...scan(heights(12.3, 6)), heights: 'AAAA' })).toBeNull();
  });
});

describe('a level over the land of a scan', () => {
  const low = tile(scan(heights(12.3, 6)));
  const over = (design: PieceDesign, levelMm: number) =>
    checkDesign(design, levelMm).filter(({ code }) => code === 'level-over-land');
  test('is told, and its mend lays a floor that brings the land over the level', () => {
    const [problem] = over(low, 15);
    expect(problem).toMatchObject({ severity: 'stop', path: ['features', 0, 'baseMm'] });
    expect(problem!.message).toMatch(/2\.7\smm over the land/);
    const mended = replaceAt(low, problem!.mend!.path, problem!.mend!.value) as PieceDesign;
    expect(over(mended, 15)).toEqual([]);
    expect(landOfScan(mended.features[0] as FeatureOf<'scan'>)).toBeCloseTo(18, 5);
    // The whole bed stands on it.
    const middle = (design: PieceDesign): number => {
      const { heightMm, columns, rows } = buildBed(design);
      return heightMm[Math.floor(rows / 2) * columns + Math.floor(columns / 2)]!;
    };
    expect(middle(mended) - middle(low)).toBeCloseTo(5.7, 2);
  });
  test('is not where it stays in the hollow', () => expect(over(low, 12)).toEqual([]));
});
