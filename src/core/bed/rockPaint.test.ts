import { lookMesh, ROCK } from '../picture/lookMesh';
import { colourByDepth, waterLook } from '../tint/waterLook';
import { CLEAR_TINT } from '../tint/waterTint';
import { bedKey } from '../plan/beds';
import { buildBed } from './buildBed';
import { rockStretches, sectionProfile } from './profile';
import { newFeature } from './starters';
import { testDesign } from './testShapes';
import type { Feature } from '../model/designSchema';

const ROCK_AT_MIDDLE: Feature = {
  kind: 'rock',
  id: 'rock',
  form: 'block',
  xMm: 70,
  yMm: 70,
  diameterMm: 20,
  heightMm: 4,
};
const CELL_MM = 0.5;
const painted = (features: Feature[]): ReturnType<typeof buildBed> =>
  buildBed(testDesign(features, { rockColour: '#555555' }), CELL_MM);
const rockMm2 = ({ rock }: ReturnType<typeof buildBed>): number =>
  rock!.reduce((sum, one) => sum + one, 0) * CELL_MM * CELL_MM;

test('rock is where a solid stands: a disc of its own area, in its own place', () => {
  const bed = painted([ROCK_AT_MIDDLE]);
  expect(rockMm2(bed)).toBeGreaterThan(0.98 * Math.PI * 100);
  expect(rockMm2(bed)).toBeLessThan(1.02 * Math.PI * 100);
  const at = (x: number, y: number): number =>
    bed.rock![Math.floor(y / CELL_MM) * bed.columns + Math.floor(x / CELL_MM)]!;
  expect([at(70, 70), at(79, 70), at(81, 70), at(10, 10)]).toEqual([1, 1, 0, 0]);
});
test('what is carved out of a rock later is bed again', () => {
  const basin = { ...newFeature('basin', testDesign()), depthMm: 8 } as Feature;
  const carved = buildBed(testDesign([ROCK_AT_MIDDLE, basin], { rockColour: '#555555' }), CELL_MM);
  expect(carved.rock![Math.floor(70 / CELL_MM) * carved.columns + Math.floor(70 / CELL_MM)]).toBe(0);
});
test('without a paint of its own nothing is noted of rock, and the bed is the same to the tick', () => {
  const plain = buildBed(testDesign([ROCK_AT_MIDDLE]), CELL_MM);
  expect(plain.rock).toBeUndefined();
  expect(plain.heightMm).toEqual(painted([ROCK_AT_MIDDLE]).heightMm);
});
test('over rock the water has the rock’s colour, by the same predictor', () => {
  const look = waterLook({ bedColour: '#c0a080', rockColour: '#555555' }, CLEAR_TINT, 12);
  expect(look.rock).toEqual(look.colours.map((_, i) => colourByDepth('#555555', CLEAR_TINT)(i * look.stepMm)));
  expect(waterLook({ bedColour: '#c0a080' }, CLEAR_TINT, 12).rock).toBeUndefined();
});
test('the solid to look at knows its rock by corner and by cell', () => {
  const bed = painted([ROCK_AT_MIDDLE]);
  const mesh = lookMesh(bed, 15);
  const middle = Math.floor(bed.rows / 2) * bed.columns + Math.floor(bed.columns / 2);
  expect([mesh.field[2 * middle + 1], mesh.field[1]]).toEqual([1 + ROCK, 1]);
  const corners = mesh.rockCorners.reduce((sum, one) => sum + one, 0);
  expect(corners * CELL_MM * CELL_MM).toBeGreaterThan(0.98 * Math.PI * 100);
  expect(corners * CELL_MM * CELL_MM).toBeLessThan(1.25 * Math.PI * 100);
});

test('a cut over a rock knows where it runs, to half a sample', () => {
  const [stretch, ...others] = rockStretches(sectionProfile(painted([ROCK_AT_MIDDLE]), 0, 70, 140, 70));
  expect(others).toEqual([]);
  expect(Math.abs(stretch![0] - 60)).toBeLessThan(0.51);
  expect(Math.abs(stretch![1] - 80)).toBeLessThan(0.51);
  expect(rockStretches(sectionProfile(painted([ROCK_AT_MIDDLE]), 0, 40, 140, 40))).toEqual([]);
  expect(rockStretches(sectionProfile(buildBed(testDesign([ROCK_AT_MIDDLE]), CELL_MM), 0, 70, 140, 70))).toEqual([]);
});
test('a bed that notes its rocks is kept apart from one that does not', () => {
  const [plain, stony] = [testDesign([ROCK_AT_MIDDLE]), testDesign([ROCK_AT_MIDDLE], { rockColour: '#555555' })];
  expect(bedKey(plain)).not.toBe(bedKey(stony));
  expect(bedKey(stony)).toBe(bedKey({ ...stony, rockColour: '#888888' }));
});
