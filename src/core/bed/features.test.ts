import fc from 'fast-check';
import { blob, seeded } from './blob';
import { buildBed } from './buildBed';
import { alongLine, channelCentreline } from './centreline';
import { checkDesign } from './checkDesign';
import { heightAt } from './profile';
import { featureSchema, type Feature, type FeatureOf, type PieceDesign } from '../model/designSchema';
import { packHeights, unpackHeights } from './scanHeights';
import { shoreDepthMm } from './shapers/waters';
import { newFeature } from './starters';
import { formulaGrid, testDesign } from './testShapes';
import { volumeCurve, volumeMl } from './volumeCurve';

const LEVEL = 15;
const volumeOf = (design: PieceDesign): number => volumeMl(volumeCurve(buildBed(design)), LEVEL) * 1000;
const within = (actual: number, expected: number, share = 0.005): void =>
  expect(Math.abs(actual / expected - 1)).toBeLessThan(share);
const first = <K extends Feature['kind']>(kind: K, change: Partial<FeatureOf<K>> = {}): FeatureOf<K> => ({
  ...newFeature(kind, testDesign()),
  ...change,
});
const basin: Feature = { kind: 'basin', id: 'b', rimMm: 0, depthMm: 10 };
const FULL = 140 * 140 * 10;

describe('a channel through points', () => {
  const straight = first('channel', { widthMm: 40, depthMm: 6, bankSlope: 0 });
  test('with its points in line is the channel without them', () => {
    within(
      volumeOf(
        testDesign([
          {
            ...straight,
            via: [
              { xMm: 70, yMm: 40, widthMm: null, depthMm: null },
              { xMm: 70, yMm: 95, widthMm: null, depthMm: null },
            ],
          },
        ]),
      ),
      40 * 6 * 140,
    );
  });
  test('that widens evenly holds the mean of its ends', () =>
    within(volumeOf(testDesign([{ ...straight, toWidthMm: 80 }])), 60 * 6 * 140));
  test('that deepens evenly holds the mean of its ends', () =>
    within(volumeOf(testDesign([{ ...straight, toDepthMm: 10 }])), 40 * 8 * 140));
  test('is as wide and deep at a point as is said there', () => {
    const bed = buildBed(testDesign([{ ...straight, via: [{ xMm: 70, yMm: 70, widthMm: 20, depthMm: 9 }] }]));
    expect(heightAt(bed, 70, 70)).toBeCloseTo(6, 1);
    expect(heightAt(bed, 79, 70)).toBeCloseTo(6, 1);
    expect(heightAt(bed, 82, 70)).toBe(18);
  });
  test('that ends inside has a round end and opens one edge', () => {
    const ends = { ...straight, via: [{ xMm: 70, yMm: 80, widthMm: null, depthMm: null }], endsInside: true };
    within(volumeOf(testDesign([ends])), (40 * 80 + (Math.PI * 400) / 2) * 6);
    const bed = buildBed(testDesign([ends]));
    expect(heightAt(bed, 70, 99)).toBeCloseTo(9, 1);
    expect(heightAt(bed, 70, 102)).toBe(18);
  });
  test('passes through its points, whichever they are', () => {
    const place = fc.integer({ min: 20, max: 120 });
    fc.assert(
      fc.property(fc.array(fc.tuple(place, place), { minLength: 1, maxLength: 5 }), (places) => {
        const via = places.map(([xMm, yMm]) => ({ xMm, yMm, widthMm: null, depthMm: null }));
        const { line, knots } = channelCentreline(testDesign().outline, { ...straight, via }, 5);
        via.forEach(({ xMm, yMm }, i) => {
          expect(line[2 * knots[i + 1]!]).toBeCloseTo(xMm, 9);
          expect(line[2 * knots[i + 1]! + 1]).toBeCloseTo(yMm, 9);
        });
      }),
    );
  });
  test('meets its edges as wide and deep as its ports say, wherever its points pull it', () => {
    const place = fc.integer({ min: 45, max: 95 });
    fc.assert(
      fc.property(place, place, fc.integer({ min: 12, max: 50 }), (x, y, widthMm) => {
        const bed = buildBed(testDesign([{ ...straight, via: [{ xMm: x, yMm: y, widthMm, depthMm: 3 }] }]), 1);
        for (const edge of [0, 140]) {
          const wet = Array.from({ length: 140 }, (_, i) => heightAt(bed, i + 0.5, edge)).filter(
            (height) => height < LEVEL,
          );
          expect(Math.abs(wet.length - 40)).toBeLessThanOrEqual(2);
          expect(Math.max(...wet)).toBeLessThan(9.4);
        }
      }),
      { numRuns: 25 },
    );
  });
  test('that crosses itself is stopped with the place', () => {
    const loop = [
      [110, 60],
      [70, 110],
      [30, 60],
      [120, 80],
    ].map(([xMm, yMm]) => ({ xMm: xMm!, yMm: yMm!, widthMm: null, depthMm: null }));
    expect(
      checkDesign(testDesign([{ ...straight, widthMm: 20, via: loop }]), LEVEL).find(
        ({ code }) => code === 'channel-crosses',
      ),
    ).toMatchObject({
      severity: 'stop',
      message: expect.stringMatching(/crosses itself \d+\.\d\smm across/) as unknown,
    });
  });
  test('with a point off the piece is stopped, the point named', () => {
    expect(
      checkDesign(
        testDesign([
          {
            ...straight,
            via: [
              { xMm: 70, yMm: 50, widthMm: null, depthMm: null },
              { xMm: 190, yMm: 70, widthMm: null, depthMm: null },
            ],
          },
        ]),
        LEVEL,
      ).find(({ code }) => code === 'point-outside'),
    ).toMatchObject({ path: ['features', 0, 'via', '1', 'xMm'] });
  });
  test('measures run evenly between the knots that say one', () => {
    const centreline = {
      line: Float64Array.of(0, 0, 10, 0, 20, 0, 40, 0),
      knots: [0, 1, 3],
      leads: { first: null, last: null },
    };
    expect(Array.from(alongLine(centreline, [10, null, 30]))).toEqual([10, 15, 20, 30]);
    expect(Array.from(alongLine(centreline, [10, 20, null]))).toEqual([10, 20, 20, 20]);
  });
});

describe('a fork', () => {
  const fork = first('fork', {
    stem: { edge: 'south', positionMm: 70 },
    left: { edge: 'west', positionMm: 100 },
    right: { edge: 'east', positionMm: 100 },
    xMm: 70,
    yMm: 50,
    widthMm: 40,
    armWidthMm: 24,
    depthMm: 6,
    bankSlope: 0,
    section: 'trapezoid',
  });
  test('opens three edges, each as wide as its port', () => {
    const bed = buildBed(testDesign([fork]));
    const open = (at: (i: number) => number): number =>
      Array.from({ length: 560 }, (_, i) => at(i / 4)).filter((height) => height < LEVEL).length / 4;
    expect(open((x) => heightAt(bed, x, 0))).toBeCloseTo(40, 0);
    expect(open((y) => heightAt(bed, 0, y))).toBeCloseTo(24, 0);
    expect(open((y) => heightAt(bed, 140, y))).toBeCloseTo(24, 0);
  });
  test('of which both arms go one way is the channel that goes there', () => {
    const merged = {
      ...fork,
      armWidthMm: 40,
      left: { edge: 'north', positionMm: 70 },
      right: { edge: 'north', positionMm: 70 },
      xMm: 70,
      yMm: 60,
    } as const;
    within(volumeOf(testDesign([merged])), 40 * 6 * 140);
    expect(checkDesign(testDesign([merged]), LEVEL).map(({ code }) => code)).toContain('same-edge');
  });
});

describe('shores', () => {
  const shore = first('shore', { landSide: 'north', waterlineMm: 40, slope: 10, depthMm: 6 });
  test('a free waterline through points in line is the straight one', () => {
    within(
      volumeOf(
        testDesign([
          {
            ...shore,
            line: [
              { alongMm: 20, offMm: 40 },
              { alongMm: 110, offMm: 40 },
            ],
          },
        ]),
      ),
      volumeOf(testDesign([shore])),
    );
  });
  test('profiles: what lies over the slope is 1/2, 2/5 and 3/5 of it', () => {
    const over = (profile: NonNullable<FeatureOf<'shore'>['profile']>): number =>
      140 * 100 * 6 - volumeOf(testDesign([{ ...shore, profile }]));
    // ∫(1 − x), ∫(1 − x^⅔), ∫(1 − x^1.5) from 0 to 1.
    within(over('straight'), 140 * 60 * 6 * 0.5);
    within(over('concave'), 140 * 60 * 6 * 0.4);
    within(over('plunging'), 140 * 60 * 6 * 0.6);
  });
  test('beyond a drop-off the bed is at its deepest at once', () => {
    expect(shoreDepthMm({ ...shore, dropOffMm: 20 }, 19.9)).toBeCloseTo(1.99, 6);
    expect(shoreDepthMm({ ...shore, dropOffMm: 20 }, 20)).toBe(6);
    expect(shoreDepthMm(shore, -15)).toBe(-1.5);
  });
  test('a free waterline passes through its points', () => {
    const bed = buildBed(
      testDesign([
        {
          ...shore,
          line: [
            { alongMm: 30, offMm: 30 },
            { alongMm: 70, offMm: 70 },
            { alongMm: 110, offMm: 35 },
          ],
        },
      ]),
    );
    for (const [x, off] of [
      [30, 30],
      [70, 70],
      [110, 35],
    ] as const)
      expect(heightAt(bed, x, 140 - off)).toBeCloseTo(LEVEL, 0);
  });
  test('an undercut bank is refused, and why is said', () => {
    const { error } = featureSchema.safeParse({ ...newFeature('channel', testDesign()), bankSlope: -0.5 });
    expect(error!.issues[0]!.message).toMatch(/undercut.*upright/);
  });
});

describe('pools', () => {
  const pool = first('pool', {
    xMm: 70,
    yMm: 70,
    depthMm: 6,
    section: 'trapezoid',
    bankSlope: 0,
    widthMm: 80,
    lengthMm: 60,
  });
  test('by corners: a square is a box; rounded corners take (4 − π)·r² off', () => {
    const corners = [
      [-30, -30],
      [30, -30],
      [30, 30],
      [-30, 30],
    ].map(([xMm, yMm]) => ({ xMm: xMm!, yMm: yMm! }));
    within(volumeOf(testDesign([{ ...pool, form: 'polygon', corners }])), 3600 * 6);
    within(
      volumeOf(testDesign([{ ...pool, form: 'polygon', corners, cornerMm: 15 }])),
      (3600 - (4 - Math.PI) * 225) * 6,
    );
  });
  test('by corners with sloping banks: a square frustum', () => {
    const corners = [
      [-30, -30],
      [30, -30],
      [30, 30],
      [-30, 30],
    ].map(([xMm, yMm]) => ({ xMm: xMm!, yMm: yMm! }));
    within(
      volumeOf(testDesign([{ ...pool, form: 'polygon', corners, bankSlope: 2 }])),
      (6 / 3) * (3600 + 60 * 36 + 36 * 36),
    );
  });
  test('by corners with a V: a pyramid', () => {
    const corners = [
      [-30, -30],
      [30, -30],
      [30, 30],
      [-30, 30],
    ].map(([xMm, yMm]) => ({ xMm: xMm!, yMm: yMm! }));
    within(volumeOf(testDesign([{ ...pool, form: 'polygon', corners, section: 'v' }])), (3600 * 6) / 3);
  });
  test('irregular: no wildness is the ellipse; the same seed the same pool; another seed another', () => {
    const wild = (seed: number, wildness: number): number =>
      volumeOf(testDesign([{ ...pool, form: 'irregular', seed, wildness }]));
    within(wild(1, 0), Math.PI * 40 * 30 * 6);
    expect(wild(5, 0.4)).toBe(wild(5, 0.4));
    expect(Math.abs(wild(5, 0.4) / wild(6, 0.4) - 1)).toBeGreaterThan(0.01);
  });
  test('an irregular outline stays within its ellipse and reaches it somewhere', () => {
    fc.assert(
      fc.property(fc.nat(9999), fc.double({ min: 0.05, max: 0.6, noNaN: true }), (seed, wildness) => {
        const shares = Array.from({ length: 720 }, (_, i) => blob(seed, wildness)((Math.PI * i) / 360));
        expect(Math.max(...shares)).toBeCloseTo(1, 3);
        expect(Math.min(...shares)).toBeGreaterThanOrEqual(1 - wildness - 1e-9);
      }),
      { numRuns: 20 },
    );
  });
  test('a bank that crosses itself is stopped', () => {
    const corners = [
      [-30, -30],
      [30, 30],
      [30, -30],
      [-30, 30],
    ].map(([xMm, yMm]) => ({ xMm: xMm!, yMm: yMm! }));
    expect(checkDesign(testDesign([{ ...pool, form: 'polygon', corners }]), LEVEL).map(({ code }) => code)).toContain(
      'pool-crosses',
    );
  });
});

test('a moat with a round section is half a torus', () => {
  const [around, round] = [45, 8];
  const grid = formulaGrid({ kind: 'rectangle', widthMm: 140, lengthMm: 140 }, 0.25, (x, y) => {
    const off = Math.hypot(x - 70, y - 70) - around;
    return Math.abs(off) < round ? LEVEL - Math.sqrt(round * round - off * off) : LEVEL + 3;
  });
  within(volumeMl(volumeCurve(grid), LEVEL) * 1000, Math.PI ** 2 * around * round ** 2);
});
test('a hemisphere stands in a cylinder', () => {
  const pool = first('pool', {
    xMm: 70,
    yMm: 70,
    widthMm: 100,
    lengthMm: 100,
    depthMm: 14,
    section: 'trapezoid',
    bankSlope: 0,
  });
  const rock = first('rock', { xMm: 70, yMm: 70, diameterMm: 20, heightMm: 10, form: 'dome' });
  within(volumeOf(testDesign([pool, rock])), Math.PI * 50 ** 2 * 14 - (2 / 3) * Math.PI * 1000);
});

describe('land', () => {
  test('a hill holds a third of its height over its foot', () => {
    const hill = first('hill', { xMm: 70, yMm: 70, widthMm: 80, lengthMm: 60, heightMm: 9 });
    within(FULL - volumeOf(testDesign([basin, hill])), (Math.PI * 40 * 30 * 9) / 3);
  });
  test('a plateau is a frustum over the land', () => {
    const plateau = first('plateau', { xMm: 70, yMm: 70, widthMm: 60, lengthMm: 60, heightMm: 4, bankSlope: 1 });
    const bed = buildBed(testDesign([plateau]));
    const volume = bed.heightMm.reduce((sum, z) => sum + z - 18, 0) * bed.cellMm ** 2;
    within(volume, (Math.PI * 4 * (30 ** 2 + 30 * 34 + 34 ** 2)) / 3);
  });
  test.each([
    ['bowl', (r: number) => 9 + 6 * (r / 20) ** 2],
    ['v', (r: number) => 9 + 6 * (r / 20)],
    ['trapezoid', (r: number) => Math.max(9, 15 - (20 - r) / 2)],
  ] as const)('a %s pool on a hill has its banks up to the top of the hill', (section, height) => {
    // Its banks end where the hill is higher than the land about it: they are not cut off at the land's height.
    const top = first('plateau', { xMm: 70, yMm: 70, widthMm: 130, lengthMm: 130, heightMm: 9, bankSlope: 0 });
    const round = { form: 'ellipse', xMm: 70, yMm: 70, widthMm: 40, lengthMm: 40, depthMm: 6, bankSlope: 2 } as const;
    const bed = buildBed(testDesign([top, first('pool', { ...round, section })]));
    for (let r = 0; r < 60; r += 1.7)
      expect(Math.abs(heightAt(bed, 70 + r, 70) - Math.min(27, height(r)))).toBeLessThan(0.15);
  });
  test('a terrace cuts down what is higher and fills up what is lower', () => {
    const shore = first('shore', { landSide: 'north', waterlineMm: 40, slope: 10, depthMm: 6 });
    const bed = buildBed(
      testDesign([shore, first('terrace', { landSide: 'north', fromMm: 30, toMm: 70, depthMm: 1 })]),
    );
    expect([105, 90, 75].map((y) => heightAt(bed, 70, y))).toEqual([14, 14, 14]);
    expect(
      checkDesign(testDesign([shore, first('terrace', { fromMm: 50, toMm: 50 })]), LEVEL).map(({ code }) => code),
    ).toContain('terrace-empty');
  });
});

describe('solids take up their own room', () => {
  const taken = (solid: Feature): number => FULL - volumeOf(testDesign([basin, solid]));
  test('post: a cylinder up to the level', () =>
    within(taken(first('post', { diameterMm: 12, heightMm: 30 })), Math.PI * 36 * 10, 0.01));
  test('stepping stone: a cylinder up to its top', () =>
    within(taken(first('stone', { diameterMm: 24, topMm: -2 })), Math.PI * 144 * 8, 0.01));
  test('a stepping stone’s top stands over the water', () =>
    expect(heightAt(buildBed(testDesign([basin, first('stone', { topMm: 1.5 })])), 70, 70)).toBe(16.5));
  test('log: half a cylinder and what fills up its sides', () =>
    within(
      taken(first('log', { lengthMm: 60, diameterMm: 8, sunkMm: 0, turnDegrees: 37 })),
      60 * (8 * 4 + (Math.PI * 16) / 2),
      0.01,
    ));
  test('wreck: a box, however it is turned', () =>
    within(taken(first('wreck', { widthMm: 50, lengthMm: 20, heightMm: 6, turnDegrees: 33 })), 50 * 20 * 6, 0.01));
  test('an irregular rock is no higher than it says and stays on its foot', () => {
    const bed = buildBed(
      testDesign([basin, first('rock', { form: 'irregular', seed: 11, wildness: 0.4, diameterMm: 50, heightMm: 9 })]),
    );
    const over = Array.from(bed.heightMm, (z, i) => ({
      z,
      r: Math.hypot(((i % bed.columns) + 0.5) * bed.cellMm - 70, (Math.floor(i / bed.columns) + 0.5) * bed.cellMm - 70),
    }));
    expect(over.reduce((most, { z }) => Math.max(most, z), 0)).toBeCloseTo(14, 0);
    expect(over.filter(({ z, r }) => r > 25 && z !== 5)).toEqual([]);
  });
  test.each(['rock', 'post', 'stone', 'log', 'wreck', 'hill', 'plateau'] as const)(
    'a %s off the piece is stopped',
    (kind) => {
      expect(checkDesign(testDesign([basin, { ...first(kind), xMm: 300 }]), LEVEL)).toContainEqual(
        expect.objectContaining({ code: 'outside-piece', severity: 'stop', path: ['features', 1, 'xMm'] }),
      );
    },
  );
});

describe('a scan', () => {
  test('comes back from its text to 1/200 mm', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 300, noNaN: true }), { minLength: 1, maxLength: 200 }),
        (heights) => {
          const back = unpackHeights(packHeights(heights), heights.length);
          heights.forEach((height, i) => expect(Math.abs(back[i]! - height)).toBeLessThanOrEqual(0.00501));
        },
      ),
    );
  });
  test('lies on the piece as its samples say, straight between them', () => {
    const scan: Feature = {
      kind: 'scan',
      id: 's',
      columns: 14,
      rows: 14,
      stepMm: 10,
      heights: packHeights(Array.from({ length: 196 }, (_, i) => 5 + (i % 14) * 0.5)),
    };
    const bed = buildBed(testDesign([scan]));
    expect(heightAt(bed, 75, 33)).toBeCloseTo(8.5, 2);
    expect(heightAt(bed, 80, 33)).toBeCloseTo(8.75, 2);
  });
  test('that is damaged or of another size is a stop, not a crash', () => {
    const scan: Feature = { kind: 'scan', id: 's', columns: 14, rows: 14, stepMm: 10, heights: packHeights([1, 2, 3]) };
    expect(checkDesign(testDesign([scan]), LEVEL).find(({ code }) => code === 'scan-damaged')!.message).toMatch(
      /196 heights and holds 3/,
    );
    const broken = testDesign([{ ...scan, heights: '!!!!' }]);
    expect(checkDesign(broken, LEVEL).map(({ code }) => code)).toContain('scan-damaged');
    expect(heightAt(buildBed(broken), 70, 70)).toBe(18);
  });
});

test('grains coarse against the water are warned of', () => {
  const design = testDesign([first('channel', { depthMm: 4 })], { grainMm: 3 });
  expect(checkDesign(design, LEVEL).map(({ code }) => code)).toContain('coarse-grain');
  expect(checkDesign({ ...design, grainMm: 1 }, LEVEL).map(({ code }) => code)).not.toContain('coarse-grain');
});

test('seeded numbers are even over their range and repeat', () => {
  const numbers = Array.from({ length: 4000 }, seeded(42));
  expect(numbers.slice(0, 5)).toEqual(Array.from({ length: 5 }, seeded(42)));
  expect(numbers.reduce((sum, x) => sum + x, 0) / 4000).toBeCloseTo(0.5, 1);
  expect(Math.min(...numbers) >= 0 && Math.max(...numbers) < 1).toBe(true);
});
