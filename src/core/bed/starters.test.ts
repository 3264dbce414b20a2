import { checkDesign } from './checkDesign';
import { buildBed } from './buildBed';
import { DAM_FACTS } from '../model/damMethods';
import { damRuns } from './dams';
import { outlineProfiles } from './profile';
import { FEATURE_NAMES, pieceDesignSchema, type FeatureKind } from '../model/designSchema';
import { newFeature, nextTag, starters } from './starters';
import { testDesign } from './testShapes';
import { volumeCurve, volumeMl } from './volumeCurve';

test.each([3, 8, 15, 40])('every starter for a level of %d mm is sound and holds water', (level) => {
  for (const { design } of starters(level, [])) {
    expect(pieceDesignSchema.safeParse(design).error).toBeUndefined();
    expect(checkDesign(design, level).filter(({ severity }) => severity === 'stop')).toEqual([]);
    expect(volumeMl(volumeCurve(buildBed(design, 1)), level)).toBeGreaterThan(0);
  }
});
test('no starter asks for a dam that bows over its edge', () => {
  for (const { design } of starters(15, [])) {
    const grid = buildBed(design, 1);
    for (const { method, lengthMm } of damRuns(outlineProfiles(grid, design.outline), 15, design.dams))
      expect(lengthMm).toBeLessThanOrEqual(DAM_FACTS[method].longestMm);
  }
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
