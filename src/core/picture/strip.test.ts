import { CLEAR_TINT } from '../tint/waterTint';
import { testDesign } from '../bed/testShapes';
import type { Feature } from '../model/designSchema';
import { makePictureBed } from './bedPicture';
import type { Problem } from '../model/problem';
import { flagged, stripPieces, type StripPiece } from './strip';

/** A tile with a creek along its south and north edges and a deep pond off its middle. */
const creek: Feature = {
  kind: 'channel',
  id: 'c',
  from: { edge: 'south', positionMm: 70 },
  to: { edge: 'north', positionMm: 70 },
  widthMm: 40,
  depthMm: 4,
  section: 'trapezoid',
  bankSlope: 0,
};
const pond: Feature = {
  kind: 'pool',
  id: 'p',
  xMm: 70,
  yMm: 105,
  widthMm: 60,
  lengthMm: 40,
  depthMm: 9,
  section: 'trapezoid',
  bankSlope: 0,
};
const design = testDesign([creek, pond], { sectionLine: { from: { xMm: 0, yMm: 20 }, to: { xMm: 0, yMm: 120 } } });
const strip = (options: Parameters<typeof stripPieces>[4], pieces = [design]): StripPiece[] =>
  stripPieces(
    pieces.map((data, i) => ({ id: `d${i}`, data })),
    15,
    CLEAR_TINT,
    makePictureBed,
    options,
  );
const lowest = ({ profile }: StripPiece): number => Math.min(...profile.heightMm);

describe('where the strip cuts a piece', () => {
  test('at an edge where land and water meet: the creek’s own depth', () => {
    const [piece] = strip({ cut: 'edge' });
    expect(piece!.place).toBe('south');
    expect(lowest(piece!)).toBeCloseTo(11, 1);
  });
  test('across its middle', () => {
    const [piece] = strip({ cut: 'middle' });
    expect([piece!.place, piece!.profile.lengthMm]).toEqual(['middle', 140]);
    expect(lowest(piece!)).toBeCloseTo(11, 1);
  });
  test('across its deepest place: the pond', () => {
    const [piece] = strip({ cut: 'deepest' });
    expect(piece!.place).toBe('deepest');
    expect(lowest(piece!)).toBeCloseTo(6, 1);
  });
  test('along its own line, all on land here and 100 mm long', () => {
    const [piece] = strip({ cut: 'own' });
    expect([piece!.place, piece!.profile.lengthMm]).toEqual(['own', 100]);
    expect(lowest(piece!)).toBeCloseTo(18, 1);
  });
  test('one without a line of its own is cut at its deepest', () =>
    expect(strip({ cut: 'own' }, [testDesign([creek])])[0]!.place).toBe('deepest'));
});

describe('how much of it is carried', () => {
  const samples = (count: number): number =>
    strip(
      {},
      Array.from({ length: count }, (_, i) => ({ ...design, tag: `T-${i}` })),
    )[0]!.profile.heightMm.length;
  test('many pieces are each drawn small, with fewer samples', () => {
    expect(samples(1)).toBeGreaterThan(samples(30));
    expect(samples(30)).toBeGreaterThanOrEqual(31);
  });
  test('heights to a tenth of a millimetre, ends kept', () => {
    const [piece] = strip({ samples: 5 });
    expect(piece!.profile.heightMm).toHaveLength(5);
    for (const mm of piece!.profile.heightMm) expect(Math.abs(mm * 10 - Math.round(mm * 10))).toBeLessThan(1e-9);
    expect([piece!.profile.heightMm[0], piece!.profile.heightMm[4]]).toEqual([18, 18]);
  });
});

describe('what the plan says of it', () => {
  const [one, two] = strip({}, [design, { ...design, tag: 'T-2' }]) as [StripPiece, StripPiece];
  const problem = (severity: Problem['severity'], designId: string | null): Problem =>
    ({
      code: 'x',
      severity,
      message: severity,
      ...(designId && { piece: { designId, copy: null } }),
    }) as unknown as Problem;
  type Says = NonNullable<Parameters<typeof flagged>[1]>;
  const plan = (problems: Problem[], tilted: Says['pieces'][number]['tilt'] = null): Says =>
    ({ problems, pieces: [{ designId: 'd0', tilt: tilted }] }) as unknown as Says;
  const LEVEL_BENCH = { eastMmPerM: 0, northMmPerM: 0 };

  test('nothing while there is none', () => expect(flagged([one, two], null, 15, LEVEL_BENCH)).toEqual([one, two]));
  test('the worst of its own problems, none of the others’ and of those that are no piece’s', () => {
    const said = [problem('hint', 'd0'), problem('stop', 'd0'), problem('warn', 'd0'), problem('warn', null)];
    const [first, second] = flagged([one, two], plan(said), 15, LEVEL_BENCH);
    expect([first!.problem?.severity, second!.problem]).toEqual(['stop', null]);
  });
  test('its surface leans as the bench does along the edge that is shown', () => {
    const tilted = { edges: [{ edge: 'south', errorMm: 0.5 }] } as unknown as Says['pieces'][number]['tilt'];
    const lean = (place: StripPiece['place']) => {
      const [shown] = flagged([{ ...one, place }], plan([], tilted), 15, { eastMmPerM: 10, northMmPerM: -20 });
      return [shown!.surface.leftMm, shown!.surface.rightMm].map((mm) => Math.round(mm * 1000) / 1000);
    };
    // 140 mm long: 0.7 mm to each end by the east, 1.4 by the north.
    expect(lean('south')).toEqual([14.8, 16.2]);
    expect(lean('north')).toEqual([14.3, 15.7]);
    expect(lean('east')).toEqual([16.4, 13.6]);
    expect(lean('west')).toEqual([16.4, 13.6]);
    expect(lean('middle')).toEqual([14.3, 15.7]);
    expect(flagged([two], plan([], tilted), 15, { eastMmPerM: 10, northMmPerM: 0 })[0]!.surface).toEqual(two.surface);
  });
});

test('only the dams of the edge that is shown are drawn, and rocks to a tenth', () => {
  const rock: Feature = { kind: 'rock', id: 'r', xMm: 70.33, yMm: 4, diameterMm: 13.77, heightMm: 20, form: 'dome' };
  const [piece] = strip({}, [testDesign([creek, rock], { rockColour: '#555555' })]);
  expect(piece!.place).toBe('south');
  expect(piece!.dams.every(({ toMm }) => toMm <= 90.1)).toBe(true);
  expect(piece!.dams.length).toBeGreaterThan(0);
  expect(piece!.rocks).toHaveLength(1);
  for (const mm of piece!.rocks.flat()) expect(Math.abs(mm * 10 - Math.round(mm * 10))).toBeLessThan(1e-9);
});
test('a round base is cut where its own bed is deepest, whatever lies outside its rim; a flat one across its middle', () => {
  const outline = { kind: 'oval', widthMm: 60, lengthMm: 60 } as const;
  const hollow: Feature = { ...pond, xMm: 30, yMm: 42, widthMm: 20, lengthMm: 12, depthMm: 5 } as Feature;
  const [round] = strip({ cut: 'deepest' }, [testDesign([hollow], { outline })]);
  expect(lowest(round!)).toBeCloseTo(10, 1);
  expect(lowest(strip({ cut: 'deepest' }, [testDesign([], { outline })])[0]!)).toBeCloseTo(18, 1);
});
