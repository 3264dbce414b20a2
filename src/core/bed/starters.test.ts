import { checkDesign } from './checkDesign';
import { buildBed } from './buildBed';
import { DAM_FACTS } from '../model/damMethods';
import { damRuns } from './dams';
import { outlineProfiles } from './profile';
import { FEATURE_NAMES, pieceDesignSchema, type FeatureKind } from '../model/designSchema';
import { newFeature, nextTag, ownStarter, starters, wantedTile } from './starters';
import { roundLength } from '../units/steps';
import { testDesign } from './testShapes';
import { volumeCurve, volumeMl } from './volumeCurve';

test.each([3, 8, 15, 40])('every starter for a level of %d mm is sound and holds water', (level) => {
  for (const { design } of starters(level, [])) {
    expect(pieceDesignSchema.safeParse(design).error).toBeUndefined();
    expect(checkDesign(design, level).filter(({ severity }) => severity === 'stop')).toEqual([]);
    expect(volumeMl(volumeCurve(buildBed(design, 1)), level)).toBeGreaterThan(0);
  }
});
test('in inches templates are round, ports in the middle, and sound at a level that is round too', () => {
  const units = { length: 'in' as const };
  const levelMm = roundLength(15, units);
  const [straight] = starters(levelMm, [], units);
  expect(straight!.design.outline).toMatchObject({ widthMm: 5.5 * 25.4, lengthMm: 5.5 * 25.4 });
  expect(straight!.design.landMm).toBeCloseTo(levelMm + 25.4 / 8, 9);
  for (const { design } of starters(levelMm, [], units)) {
    expect(pieceDesignSchema.safeParse(design).error).toBeUndefined();
    expect(checkDesign(design, levelMm).filter(({ severity }) => severity === 'stop')).toEqual([]);
    const [channel] = design.features;
    if (channel!.kind === 'channel')
      expect(channel!.from.positionMm).toBeCloseTo(design.outline.kind === 'rectangle' ? 2.75 * 25.4 : 0, 9);
  }
  const pool = newFeature('pool', straight!.design, units);
  expect([pool.xMm, pool.widthMm, pool.depthMm].map((mm) => mm / 25.4)).toEqual(
    [2.75, 2.25, 0.25].map((inches) => expect.closeTo(inches, 9)),
  );
});
test('no starter asks for a dam that bows over its edge', () => {
  for (const { design } of starters(15, [])) {
    const grid = buildBed(design, 1);
    for (const { method, lengthMm } of damRuns(outlineProfiles(grid, design.outline), 15, design.dams))
      expect(lengthMm).toBeLessThanOrEqual(DAM_FACTS[method].longestMm);
  }
});
test.each([
  ['fork', ['south', 'north', 'east']],
  ['pond', ['south', 'north']],
] as const)('a %s tile that a table wants is sound and has water at its sides', (wanted, sides) => {
  const outline = { kind: 'rectangle', widthMm: 139.7, lengthMm: 139.7 } as const;
  const design = wantedTile(wanted, outline, 15, ['T-1']);
  expect(design).toMatchObject({ tag: 'T-2', copies: 1, outline });
  expect(checkDesign(design, 15).filter(({ severity }) => severity === 'stop')).toEqual([]);
  const wet = damRuns(outlineProfiles(buildBed(design, 1), outline), 15, {}).map(({ edge }) => edge);
  expect(new Set(wet).size).toBe(sides.length);
});
test('a piece of the maker’s own is started from as it is drawn, without what holds for its set only', () => {
  const design = {
    ...testDesign([newFeature('channel', testDesign())], { tag: 'HS-1', name: 'Creek straight', copies: 4 }),
    isStart: true,
    edgeStandards: { north: 'standard' },
    copyNumbers: [2],
  };
  const { title, design: start } = ownStarter({ set: 'Heron Slack', design }, ['HS-1', 'HS-2']);
  expect(title).toBe('Creek straight, of Heron Slack');
  expect(start).toMatchObject({ tag: 'HS-3', copies: 4, features: design.features, copyNumbers: null });
  expect(start.isStart).toBeUndefined();
  expect(start.edgeStandards).toBeUndefined();
});
test('tags are the first free ones', () => {
  expect(nextTag('T', ['T-1', 'T-3'])).toBe('T-2');
  expect(starters(15, ['T-1'])[0]!.design.tag).toBe('T-2');
});
test.each(Object.keys(FEATURE_NAMES) as FeatureKind[])(
  'a new %s fits the piece it is added to, with an id of its own',
  (kind) => {
    const first = testDesign([newFeature(kind, testDesign())]);
    const second = { ...first, features: [...first.features, newFeature(kind, first)] };
    expect(checkDesign(second, 15).filter(({ severity }) => severity === 'stop')).toEqual([]);
    expect(new Set(second.features.map(({ id }) => id)).size).toBe(2);
  },
);
