import { buildBed } from './buildBed';
import { edgeStandardSchema, type EdgeStandard } from '../model/edgeStandardSchema';
import { standardHeightMm, withJoints, withoutJoints } from './joints';
import { heightAt } from './profile';
import { pieceDesignSchema, type Feature, type PieceDesign } from '../model/designSchema';
import { newFeature } from './starters';
import { testDesign } from './testShapes';
import { transformDesign } from './transform';
import { volumeCurve, volumeMl } from './volumeCurve';

const mouth: EdgeStandard = edgeStandardSchema.parse({
  id: 'm',
  name: 'Creek mouth',
  edgeMm: 140,
  portMm: 60,
  widthMm: 50,
  depthMm: 7,
  section: 'trapezoid',
  bankSlope: 1,
  levelMm: 15,
  bankMm: 19,
  toleranceMm: 0.5,
});
const channel: Feature = { ...newFeature('channel', testDesign()), widthMm: 40, depthMm: 5, bankSlope: 0 } as Feature;
const given = (change: Partial<PieceDesign> = {}, features: Feature[] = [channel]): PieceDesign =>
  testDesign(features, { edgeStandards: { north: 'm' }, ...change });
const CELL = 0.5;

describe('a bed drawn to a standard', () => {
  const drawn = withJoints(given(), [mouth]);
  const [bed, plain] = [buildBed(drawn, CELL), buildBed(testDesign([channel]), CELL)];
  test('is the standard just inside the edge, seen from within: left is west on the north edge', () => {
    for (let x = 1; x < 140; x += 3)
      expect(heightAt(bed, x, 140 - CELL / 2)).toBeCloseTo(standardHeightMm(mouth, x), 0);
    expect(heightAt(bed, 60, 139.75)).toBeCloseTo(8, 2);
    expect(heightAt(bed, 5, 139.75)).toBeCloseTo(19, 2);
  });
  test('on the south edge left is east', () => {
    const south = buildBed(withJoints(given({ edgeStandards: { south: 'm' } }), [mouth]), CELL);
    expect(heightAt(south, 140 - 60, 0.25)).toBeCloseTo(8, 2);
    expect(heightAt(south, 140 - 60 + 25, 0.25)).toBeGreaterThan(14);
  });
  test('runs over into what was drawn, and beyond the blend is exactly that', () => {
    const inside = (i: number): boolean => 140 - (Math.floor(i / bed.columns) + 0.5) * CELL > 12 + 2 * CELL;
    expect(bed.heightMm.filter((height, i) => inside(i) && height !== plain.heightMm[i]).length).toBe(0);
    const [edge, middle, far] = [0.25, 6.5, 13.5].map((off) => heightAt(bed, 60, 140 - off)) as [
      number,
      number,
      number,
    ];
    expect(edge).toBeLessThan(middle);
    expect(middle).toBeLessThan(far);
    expect(middle).toBeCloseTo((8 + 10) / 2, 0);
  });
  test('takes more or less water accordingly', () => {
    expect(volumeMl(volumeCurve(bed), 15)).toBeGreaterThan(volumeMl(volumeCurve(plain), 15));
  });
  test('the same standard at the same profile changes nothing', () => {
    const same = { ...mouth, portMm: 70, widthMm: 40, depthMm: 5, bankSlope: 0, bankMm: 18 };
    const again = buildBed(withJoints(given(), [same]), CELL);
    const moved = again.heightMm.filter((height, i) => Math.abs(height - plain.heightMm[i]!) > 0.01).length;
    // Upright walls may fall a cell to either side.
    expect(moved).toBeLessThan(2 * 2 * (14 / CELL));
  });
  test('solids that come last stand on it', () => {
    const rock: Feature = { kind: 'rock', id: 'r', xMm: 60, yMm: 136, diameterMm: 6, heightMm: 9, form: 'block' };
    expect(heightAt(buildBed(withJoints(given({}, [channel, rock]), [mouth]), CELL), 60, 136)).toBeGreaterThan(16);
  });
});

describe('what is drawn to a standard, and what is only compared', () => {
  test.each<[string, PieceDesign, EdgeStandard[]]>([
    ['without a standard', testDesign([channel]), [mouth]],
    ['a standard of another length', given(), [{ ...mouth, edgeMm: 150 }]],
    ['no blend', given(), [{ ...mouth, blendMm: 0 }]],
    ['a standard that is gone', given(), []],
    [
      'a scanned bed',
      given({}, [{ kind: 'scan', id: 's', columns: 2, rows: 2, stepMm: 70, heights: 'AAAA' }]),
      [mouth],
    ],
  ])('%s: nothing is drawn', (_, design, standards) => expect(withJoints(design, standards)).toBe(design));
  test('joints are part of a request, and are left out of what is kept', () => {
    const drawn = withJoints(given(), [mouth]);
    expect(pieceDesignSchema.parse(drawn).joints).toEqual([{ edge: 'north', standard: mouth }]);
    expect(withoutJoints(drawn)).toEqual(given());
  });
  test('a turned piece takes its standards and its flow along', () => {
    expect(transformDesign(given({ flowsFrom: 'south' }), 'quarter turn')).toMatchObject({
      edgeStandards: { west: 'm' },
      flowsFrom: 'east',
    });
    expect(transformDesign(given({ edgeStandards: { east: 'm' } }), 'mirrored').edgeStandards).toEqual({ west: 'm' });
  });
});
