import fc from 'fast-check';
import { buildBed } from './buildBed';
import { chooseCellMm, flatGrid, gridAreaMm2, MOST_CELLS } from './grid';
import { outlineAreaMm2 } from './outline';
import type { Feature, Outline, PieceDesign } from '../model/designSchema';
import { sectionAreaMm2 } from './section';
import { formulaGrid, testDesign } from './testShapes';
import { levelForMl, surfaceMm2, volumeCurve, volumeMl } from './volumeCurve';
import { waterAt } from './water';

const LEVEL = 15;
const within = (actual: number, expected: number, share: number): void => {
  expect(Math.abs(actual / expected - 1)).toBeLessThan(share);
};
const volumeOf = (design: PieceDesign, level = LEVEL): number => volumeMl(volumeCurve(buildBed(design)), level);
const round = (diameterMm: number): Outline => ({ kind: 'oval', widthMm: diameterMm, lengthMm: diameterMm });
const channel = (change: Partial<Extract<Feature, { kind: 'channel' }>> = {}): Feature => ({
  kind: 'channel',
  id: 'c',
  from: { edge: 'south', positionMm: 70 },
  to: { edge: 'north', positionMm: 70 },
  widthMm: 58,
  depthMm: 6.8,
  section: 'trapezoid',
  bankSlope: 1,
  ...change,
});

describe('outline areas at the default cell size', () => {
  const outlines: [string, Outline][] = [
    ['32 mm round base', round(32)],
    ['25 mm round base', round(25)],
    ['60 × 35 oval base', { kind: 'oval', widthMm: 60, lengthMm: 35 }],
    ['5½ inch tile, not a whole number of cells', { kind: 'rectangle', widthMm: 139.7, lengthMm: 139.7 }],
    ['450 × 300 board', { kind: 'rectangle', widthMm: 450, lengthMm: 300 }],
    ['1200 × 900 board', { kind: 'rectangle', widthMm: 1200, lengthMm: 900 }],
  ];
  test.each(outlines)('%s is right within 0.1 %%', (_, outline) => {
    const grid = flatGrid(outline, 18, chooseCellMm(outline));
    within(gridAreaMm2(grid), outlineAreaMm2(outline), 0.001);
  });
  test('nothing outside the outline is covered, not even by a rounding error', () => {
    const grid = flatGrid(round(90), 18, 0.25);
    grid.coverage.forEach((share, i) => {
      const r = Math.hypot(((i % grid.columns) + 0.5) * 0.25 - 45, (Math.floor(i / grid.columns) + 0.5) * 0.25 - 45);
      if (r > 45.3 && share !== 0) throw new Error(`cell ${i} is ${r} mm from the middle and covered ${share}`);
      if (r < 44.7 && Math.abs(share - 1) > 1e-6)
        throw new Error(`cell ${i} is ${r} mm from the middle and covered only ${share}`);
    });
    expect(grid.coverage[0]).toBe(0);
  });
  test('stays within the most cells for the largest piece', () => {
    const grid = flatGrid(
      { kind: 'rectangle', widthMm: 3000, lengthMm: 2000 },
      18,
      chooseCellMm({ kind: 'rectangle', widthMm: 3000, lengthMm: 2000 }),
    );
    expect(grid.heightMm.length).toBeLessThan(MOST_CELLS * 1.01);
  });
});

describe('volumes against closed forms, within 0.5 % at the default cell size', () => {
  test('prism: a rectangular basin inside a rim', () => {
    within(volumeOf(testDesign([{ kind: 'basin', id: 'b', rimMm: 4, depthMm: 6 }])), (132 * 132 * 6) / 1000, 0.005);
  });
  test.each([25, 32, 50, 120])('cylinder: a basin inside the rim of a %d mm round base', (diameter) => {
    const design = testDesign([{ kind: 'basin', id: 'b', rimMm: 2, depthMm: 4 }], { outline: round(diameter) });
    within(volumeOf(design), (Math.PI * (diameter / 2 - 2) ** 2 * 4) / 1000, 0.005);
  });
  test('cone: a pool with a V section', () => {
    const pool: Feature = {
      kind: 'pool',
      id: 'p',
      xMm: 70,
      yMm: 70,
      widthMm: 90,
      lengthMm: 90,
      depthMm: 9,
      section: 'v',
      bankSlope: 0,
    };
    within(volumeOf(testDesign([pool])), (Math.PI * 45 ** 2 * 9) / 3 / 1000, 0.005);
  });
  test('frustum: a pool with a flat floor and sloping banks', () => {
    const pool: Feature = {
      kind: 'pool',
      id: 'p',
      xMm: 70,
      yMm: 70,
      widthMm: 90,
      lengthMm: 90,
      depthMm: 6,
      section: 'trapezoid',
      bankSlope: 2,
    };
    within(volumeOf(testDesign([pool])), (((Math.PI * 6) / 3) * (45 ** 2 + 45 * 33 + 33 ** 2)) / 1000, 0.005);
  });
  test('ellipse: a paraboloid pool', () => {
    const pool: Feature = {
      kind: 'pool',
      id: 'p',
      xMm: 70,
      yMm: 60,
      widthMm: 100,
      lengthMm: 60,
      depthMm: 8,
      section: 'bowl',
      bankSlope: 0,
    };
    within(volumeOf(testDesign([pool])), (Math.PI * 50 * 30 * 8) / 2 / 1000, 0.005);
  });
  test('spherical cap as a bed', () => {
    const [radius, depth] = [60, 12];
    const centre = LEVEL - depth + radius;
    const grid = formulaGrid({ kind: 'rectangle', widthMm: 140, lengthMm: 140 }, 0.25, (x, y) => {
      const r = Math.hypot(x - 70, y - 70);
      return r < radius ? centre - Math.sqrt(radius * radius - r * r) : centre;
    });
    within(volumeMl(volumeCurve(grid), LEVEL), (Math.PI * depth * depth * (3 * radius - depth)) / 3 / 1000, 0.005);
  });
  test('spherical cap as a rock: what it displaces', () => {
    const basin: Feature = { kind: 'basin', id: 'b', rimMm: 4, depthMm: 12 };
    const rock: Feature = { kind: 'rock', id: 'r', xMm: 70, yMm: 70, diameterMm: 60, heightMm: 10, form: 'dome' };
    const displaced = volumeOf(testDesign([basin])) - volumeOf(testDesign([basin, rock]));
    within(displaced, (((Math.PI * 10) / 6) * (3 * 30 ** 2 + 10 ** 2)) / 1000, 0.005);
  });
  test.each(['trapezoid', 'bowl', 'v'] as const)('straight channel with a %s section: length × cut', (section) => {
    const cut = { section, widthMm: 58, depthMm: 6.8, bankSlope: 1, levelMm: LEVEL };
    within(volumeOf(testDesign([channel({ section })])), (140 * sectionAreaMm2(cut)) / 1000, 0.005);
  });
  test('bend: the cut swept round a quarter circle (Pappus)', () => {
    const bend = channel({
      from: { edge: 'south', positionMm: 70 },
      to: { edge: 'west', positionMm: 70 },
      section: 'v',
    });
    within(volumeOf(testDesign([bend])), ((Math.PI / 2) * 70 * (58 * 6.8)) / 2 / 1000, 0.005);
  });
  test('ring: the cut swept round a circle (Pappus)', () => {
    const ring: Feature = {
      kind: 'ring',
      id: 'r',
      xMm: 70,
      yMm: 70,
      widthMm: 100,
      lengthMm: 100,
      ringMm: 20,
      depthMm: 5,
      bankSlope: 1,
    };
    within(volumeOf(testDesign([ring])), (2 * Math.PI * 40 * 5 * (20 - 5)) / 1000, 0.005);
  });
  test('shore: wedge and flat', () => {
    const shore: Feature = { kind: 'shore', id: 's', landSide: 'north', waterlineMm: 80, slope: 8, depthMm: 10 };
    const board = testDesign([shore], { outline: { kind: 'rectangle', widthMm: 450, lengthMm: 300 } });
    within(volumeOf(board), (450 * (0.5 * 80 * 10 + (220 - 80) * 10)) / 1000, 0.005);
  });
  test.each([
    ['north', 450],
    ['east', 300],
  ] as const)('a shore with its land to the %s has the right surface', (landSide, alongMm) => {
    const board = testDesign([{ kind: 'shore', id: 's', landSide, waterlineMm: 80, slope: 8, depthMm: 10 }], {
      outline: { kind: 'rectangle', widthMm: 450, lengthMm: 300 },
    });
    const acrossMm = landSide === 'north' ? 300 : 450;
    within(waterAt(volumeCurve(buildBed(board)), LEVEL).surfaceCm2, (alongMm * (acrossMm - 80)) / 100, 0.005);
  });
});

describe('the volume curve', () => {
  const beds = fc.record({
    seed: fc.array(fc.double({ min: 0, max: 20, noNaN: true }), { minLength: 36, maxLength: 36 }),
    outline: fc.constantFrom<Outline>(round(12), { kind: 'rectangle', widthMm: 12, lengthMm: 12 }),
  });
  const curveOf = ({ seed, outline }: { seed: number[]; outline: Outline }): ReturnType<typeof volumeCurve> =>
    volumeCurve(formulaGrid(outline, 2, (x, y) => seed[Math.floor(y / 2) * 6 + Math.floor(x / 2)]!));

  test('never falls as the level rises', () => {
    fc.assert(
      fc.property(
        beds,
        fc.double({ min: -5, max: 40, noNaN: true }),
        fc.double({ min: 0, max: 10, noNaN: true }),
        (bed, level, rise) => {
          const curve = curveOf(bed);
          expect(volumeMl(curve, level + rise)).toBeGreaterThanOrEqual(volumeMl(curve, level));
          expect(surfaceMm2(curve, level + rise)).toBeGreaterThanOrEqual(surfaceMm2(curve, level));
        },
      ),
    );
  });
  test('level and volume are each other’s inverse', () => {
    fc.assert(
      fc.property(beds, fc.double({ min: 0.001, max: 30, noNaN: true }), (bed, ml) => {
        const curve = curveOf(bed);
        expect(volumeMl(curve, levelForMl(curve, ml))).toBeCloseTo(ml, 8);
        const level = curve.lowestMm + ml;
        expect(levelForMl(curve, volumeMl(curve, level))).toBeCloseTo(level, 8);
      }),
    );
  });
  test('equals the sum over the cells', () => {
    fc.assert(
      fc.property(beds, fc.double({ min: 0, max: 25, noNaN: true }), ({ seed, outline }, level) => {
        const grid = formulaGrid(
          outline,
          2,
          (x, y) => Math.round(seed[Math.floor(y / 2) * 6 + Math.floor(x / 2)]! * 512) / 512,
        );
        let sum = 0;
        grid.heightMm.forEach((z, i) => (sum += grid.coverage[i]! * 4 * Math.max(0, level - z)));
        expect(volumeMl(volumeCurve(grid), level)).toBeCloseTo(sum / 1000, 8);
      }),
    );
  });
  test('is 0 at and below the lowest bed', () => {
    const curve = volumeCurve(buildBed(testDesign([channel()])));
    expect(volumeMl(curve, curve.lowestMm)).toBe(0);
    expect(volumeMl(curve, -3)).toBe(0);
    expect(levelForMl(curve, 0)).toBe(curve.lowestMm);
  });
  test('refuses a negative volume', () => {
    expect(() => levelForMl(volumeCurve(buildBed(testDesign())), -1)).toThrow('cannot be negative');
  });
  test('the drawn depth and width appear in the water figures', () => {
    const water = waterAt(volumeCurve(buildBed(testDesign([channel()]))), LEVEL);
    expect(water.greatestDepthMm).toBeCloseTo(6.8, 2);
    within(water.surfaceCm2, (58 * 140) / 100, 0.005);
    expect(water.meanDepthMm).toBeCloseTo((6.8 * (58 - 6.8)) / 58, 1);
  });
});
