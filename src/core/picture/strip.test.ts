import { CLEAR_TINT } from '../tint/waterTint';
import { testDesign } from '../bed/testShapes';
import type { Feature } from '../model/designSchema';
import { makePictureBed } from './bedPicture';
import { stripPieces, type StripPiece } from './strip';

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
