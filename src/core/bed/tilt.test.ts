import fc from 'fast-check';
import { buildBed } from './buildBed';
import { outlineProfiles } from './profile';
import type { Outline } from '../model/designSchema';
import { formulaGrid, testDesign } from './testShapes';
import { cornersToRaise, surfaceAtMm, tiltedSurface, tiltedVolume, tiltSpills } from './tilt';

const outline: Outline = { kind: 'rectangle', widthMm: 100, lengthMm: 60 };
const box = formulaGrid(outline, 0.5, () => 5);

describe('a tilted plane in a box', () => {
  test('all wet: the level over the middle stays', () => {
    const surface = tiltedSurface(box, outline, (100 * 60 * 8) / 1000, { east: 0.02, north: -0.01 });
    expect(surface.middleMm).toBeCloseTo(13, 6);
    expect(surfaceAtMm(surface, { xMm: 100, yMm: 0 })).toBeCloseTo(13 + 1 + 0.3, 6);
  });
  test('partly dry: the wedge of its closed form', () => {
    // Slope 0.2 to the east; a wedge b long holds ½·b²·0.2 for each mm of breadth.
    const length = 70;
    const surface = tiltedSurface(box, outline, (0.5 * length ** 2 * 0.2 * 60) / 1000, { east: 0.2, north: 0 });
    expect(Math.abs(surfaceAtMm(surface, { xMm: 100, yMm: 30 }) - (5 + 0.2 * length))).toBeLessThan(0.02);
  });
});

test('the volume is the same before and after, within 0.1 %', () => {
  const bed = buildBed(
    testDesign([
      { kind: 'pool', id: 'p', xMm: 60, yMm: 70, widthMm: 90, lengthMm: 70, depthMm: 8, section: 'bowl', bankSlope: 0 },
      { kind: 'rock', id: 'r', xMm: 50, yMm: 70, diameterMm: 20, heightMm: 9, form: 'cone' },
    ]),
    1,
  );
  const tile: Outline = { kind: 'rectangle', widthMm: 140, lengthMm: 140 };
  fc.assert(
    fc.property(
      fc.double({ min: 0.5, max: 40, noNaN: true }),
      fc.double({ min: -0.05, max: 0.05, noNaN: true }),
      fc.double({ min: -0.05, max: 0.05, noNaN: true }),
      (ml, east, north) => {
        const surface = tiltedSurface(bed, tile, ml, { east, north });
        expect(Math.abs(tiltedVolume(bed, surface).ml / ml - 1)).toBeLessThan(0.001);
      },
    ),
    { numRuns: 60 },
  );
});

test('the low corner is raised most, the highest not at all', () => {
  const raise = Object.fromEntries(
    cornersToRaise(outline, { east: 0.01, north: -0.02 }).map(({ corner, raiseMm }) => [corner, raiseMm]),
  );
  expect(raise['north-west']).toBe(0);
  expect(raise['south-west']).toBeCloseTo(1.2);
  expect(raise['south-east']).toBeCloseTo(2.2);
  expect(raise['north-east']).toBeCloseTo(1);
});

test('a spill names the edge and the place', () => {
  const design = testDesign([{ kind: 'basin', id: 'b', rimMm: 4, depthMm: 6 }], { landMm: 15.5 });
  const profiles = outlineProfiles(buildBed(design, 1), design.outline);
  const surface = { middleMm: 15, slope: { east: 0.02, north: 0.005 }, middle: { xMm: 70, yMm: 70 } };
  const spills = tiltSpills(profiles, design.outline, surface, 15, { topMm: 18, overlapMm: 5 });
  const east = spills.find(({ edge }) => edge === 'east')!;
  expect(east.overMm).toBeCloseTo(15 + 1.4 + 0.35 - 15.5, 2);
  expect(east.atMm).toBeCloseTo(140, 0);
  expect(spills.map(({ edge }) => edge)).not.toContain('west');
});
