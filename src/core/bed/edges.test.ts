import { buildBed } from './buildBed';
import { checkDesign } from './checkDesign';
import { damRuns } from './dams';
import { edgeProfile, middleProfile, outlineProfiles, sectionProfile } from './profile';
import { stripCut } from './stripCut';
import { pieceDesignSchema, type Feature, type PieceDesign } from '../model/designSchema';
import { testDesign } from './testShapes';

const channel = (
  change: Partial<Extract<Feature, { kind: 'channel' }>> = {},
): Extract<Feature, { kind: 'channel' }> => ({
  kind: 'channel',
  id: 'c',
  from: { edge: 'south', positionMm: 70 },
  to: { edge: 'west', positionMm: 60 },
  widthMm: 58,
  depthMm: 6,
  section: 'trapezoid',
  bankSlope: 1,
  ...change,
});
const dams = (design: PieceDesign, level = 15): ReturnType<typeof damRuns> =>
  damRuns(outlineProfiles(buildBed(design), design.outline), level);

describe('edge profiles', () => {
  const grid = buildBed(testDesign([channel()]));
  test('a port shows its own section, square to the edge, on both edges', () => {
    for (const [edge, centre] of [
      ['south', 70],
      ['west', 60],
    ] as const) {
      const { heightMm, stepMm } = edgeProfile(grid, testDesign().outline, edge);
      const at = (mm: number): number => heightMm[Math.round(mm / stepMm)]!;
      expect(at(centre)).toBeCloseTo(9, 1);
      expect(at(centre - 29)).toBeCloseTo(15, 0);
      expect(at(centre + 29)).toBeCloseTo(15, 0);
      expect(at(centre - 40)).toBe(18);
    }
  });
  test('samples lie half a millimetre apart from end to end', () => {
    const profile = edgeProfile(grid, testDesign().outline, 'north');
    expect(profile.heightMm).toHaveLength(281);
    expect(profile.stepMm).toBeCloseTo(0.5);
    expect(Math.min(...profile.heightMm)).toBe(18);
  });
  test('a section anywhere follows the bed', () => {
    const straight = buildBed(testDesign([channel({ to: { edge: 'north', positionMm: 70 }, section: 'v' })]));
    const { heightMm } = sectionProfile(straight, 41, 70, 99, 70, 1);
    heightMm.forEach((z, i) => expect(z).toBeCloseTo(9 + (6 * Math.abs(i - 29)) / 29, 1));
  });
});

describe('where a piece is cut for the waterline', () => {
  const place = (features: Feature[], change: Partial<PieceDesign> = {}): string => {
    const design = testDesign(features, change);
    const grid = buildBed(design, 1);
    return stripCut(outlineProfiles(grid, design.outline), middleProfile(grid, design.outline), 15).place;
  };
  test('through a port, the south one first', () => {
    expect(place([channel()])).toBe('south');
    expect(place([channel({ from: { edge: 'north', positionMm: 70 } })])).toBe('west');
  });
  test('across a shore rather than along its water', () =>
    expect(place([{ kind: 'shore', id: 's', landSide: 'north', waterlineMm: 60, slope: 5, depthMm: 8 }])).toBe('west'));
  test('through the middle when no edge is wet, or there is none', () => {
    expect(place([{ kind: 'basin', id: 'b', rimMm: 5, depthMm: 4 }])).toBe('middle');
    expect(
      place([{ kind: 'basin', id: 'b', rimMm: 0, depthMm: 4 }], {
        outline: { kind: 'oval', widthMm: 40, lengthMm: 30 },
      }),
    ).toBe('middle');
  });
});

describe('dams', () => {
  test('one for each port, as long as the water is wide there', () => {
    const runs = dams(testDesign([channel()]));
    expect(runs.map(({ edge }) => edge)).toEqual(['south', 'west']);
    for (const run of runs) {
      expect(Math.abs(run.lengthMm - 58)).toBeLessThan(0.6);
      expect(run.stripMm).toBeCloseTo(run.lengthMm + 10);
      expect(run.topMm).toBe(18);
      expect(run.lowestBedMm).toBeCloseTo(9, 1);
    }
    expect(Math.abs(runs[0]!.fromMm - 41)).toBeLessThan(0.5);
  });
  test('a higher level needs a longer dam', () => {
    expect(dams(testDesign([channel()]), 16)[0]!.lengthMm).toBeCloseTo(60, 0);
  });
  test('a basin inside a rim needs none', () => {
    expect(dams(testDesign([{ kind: 'basin', id: 'b', rimMm: 3, depthMm: 5 }]))).toEqual([]);
  });
  test('a shore needs its water edge and both sides', () => {
    const runs = dams(
      testDesign([{ kind: 'shore', id: 's', landSide: 'north', waterlineMm: 60, slope: 5, depthMm: 8 }]),
    );
    expect(Object.fromEntries(runs.map(({ edge, lengthMm }) => [edge, Math.round(lengthMm)]))).toEqual({
      east: 80,
      south: 140,
      west: 80,
    });
  });
  test('an oval without a rim needs its whole circumference; water at one side only that arc', () => {
    const outline = { kind: 'oval', widthMm: 50, lengthMm: 50 } as const;
    const all = dams(testDesign([{ kind: 'basin', id: 'b', rimMm: 0, depthMm: 4 }], { outline }));
    expect(all).toHaveLength(1);
    expect(all[0]!.lengthMm).toBeCloseTo(Math.PI * 50, 0);
    // The land side is west, so the run crosses the rim's start at the east and must come out as one.
    const part = dams(
      testDesign([{ kind: 'shore', id: 's', landSide: 'west', waterlineMm: 25, slope: 2, depthMm: 6 }], { outline }),
    );
    expect(part).toHaveLength(1);
    expect(Math.abs(part[0]!.lengthMm - (Math.PI * 50) / 2)).toBeLessThan(1.5);
  });
});

describe('what is wrong with a design', () => {
  const codes = (design: PieceDesign, level = 15): string[] => checkDesign(design, level).map(({ code }) => code);
  test('a sound one has nothing', () => expect(codes(testDesign([channel()]))).toEqual([]));
  test.each<[string, Feature, string, string]>([
    ['a channel wider than its edge', channel({ widthMm: 170 }), 'wider-than-edge', 'features.0.widthMm'],
    [
      'a port past the end',
      channel({ from: { edge: 'south', positionMm: 130 } }),
      'port-outside-edge',
      'features.0.from.positionMm',
    ],
    ['both ends on one edge', channel({ to: { edge: 'south', positionMm: 70 } }), 'same-edge', 'features.0.to.edge'],
    ['banks that meet', channel({ bankSlope: 10 }), 'banks-meet', 'features.0.depthMm'],
    ['a bed through the underside', channel({ depthMm: 15 }), 'through-underside', 'features.0.depthMm'],
    ['a thin floor', channel({ depthMm: 14 }), 'thin-floor', 'features.0.depthMm'],
    [
      'a rim as wide as the piece',
      { kind: 'basin', id: 'b', rimMm: 70, depthMm: 4 },
      'rim-too-wide',
      'features.0.rimMm',
    ],
    [
      'a pool outside',
      {
        kind: 'pool',
        id: 'p',
        xMm: 200,
        yMm: 10,
        widthMm: 20,
        lengthMm: 20,
        depthMm: 4,
        section: 'bowl',
        bankSlope: 0,
      },
      'outside-piece',
      'features.0.xMm',
    ],
    [
      'a ring without a middle',
      { kind: 'ring', id: 'r', xMm: 70, yMm: 70, widthMm: 40, lengthMm: 40, ringMm: 20, depthMm: 4, bankSlope: 1 },
      'ring-too-broad',
      'features.0.ringMm',
    ],
    [
      'a waterline off the board',
      { kind: 'shore', id: 's', landSide: 'north', waterlineMm: 150, slope: 5, depthMm: 4 },
      'waterline-outside',
      'features.0.waterlineMm',
    ],
  ])('%s is named at its field', (_, feature, code, path) => {
    const found = checkDesign(testDesign([feature]), 15).find((problem) => problem.code === code);
    expect(found?.path.join('.')).toBe(path);
  });
  test('a level over the land is a stop, and its mend raises the land', () => {
    const [problem] = checkDesign(testDesign([channel()]), 19);
    expect(problem).toMatchObject({ severity: 'stop', code: 'level-over-land', mend: { path: ['landMm'], value: 22 } });
  });
  test('taking the mend mends it', () => {
    const design = testDesign([channel({ from: { edge: 'south', positionMm: 130 } })]);
    const mend = checkDesign(design, 15)[0]!.mend!;
    expect(mend.path).toEqual(['features', 0, 'from', 'positionMm']);
    expect(codes(testDesign([channel({ from: { edge: 'south', positionMm: Number(mend.value) } })]))).toEqual([]);
  });
});

describe('the schema refuses nonsense at its field', () => {
  const issue = (design: unknown): string =>
    pieceDesignSchema
      .safeParse(design)
      .error?.issues.map(({ path }) => path.join('.'))
      .join(' ') ?? 'fine';
  test.each<[string, unknown, string]>([
    ['a sound design', testDesign([channel()]), 'fine'],
    ['zero depth', testDesign([channel({ depthMm: 0 })]), 'features.0.depthMm'],
    ['negative width', testDesign([channel({ widthMm: -4 })]), 'features.0.widthMm'],
    ['10⁹ copies', testDesign([], { copies: 1e9 }), 'copies'],
    ['half a copy', testDesign([], { copies: 1.5 }), 'copies'],
    ['text for a number', { ...testDesign(), landMm: 'high' }, 'landMm'],
    ['not a number', testDesign([], { landMm: NaN }), 'landMm'],
    ['no size', testDesign([], { outline: { kind: 'rectangle', widthMm: 0, lengthMm: 10 } }), 'outline.widthMm'],
    ['no such colour', testDesign([], { bedColour: 'sand' }), 'bedColour'],
  ])('%s', (_, design, expected) => expect(issue(design)).toBe(expected));
});
