import { newFeature } from '../bed/starters';
import { testDesign } from '../bed/testShapes';
import { FIGURE_SCALES_MM } from './request';
import { depthWords, SCALE_RATIO, scaleHints } from './scaleHints';

test.each<[number, string]>([
  [1, 'it wets their soles'],
  [4, 'ankle-deep to them'],
  [8, 'knee-deep to them'],
  [15, 'waist-deep to them'],
  [24, 'chest-deep to them'],
  [30, 'over their heads'],
])('%d mm beside a 28 mm figure: %s', (depthMm, words) => expect(depthWords(depthMm, 28)).toBe(words));

test('the same water is deeper to smaller figures', () => {
  const order = [
    'it wets their soles',
    'ankle-deep to them',
    'knee-deep to them',
    'waist-deep to them',
    'chest-deep to them',
    'over their heads',
  ];
  const ranks = [...FIGURE_SCALES_MM].sort((a, b) => b - a).map((figure) => order.indexOf(depthWords(6, figure)));
  expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
  expect(ranks.at(-1)).toBe(5);
});

test('lengths are those of nature divided by the scale', () => {
  const words = scaleHints(testDesign(), 6, 28)
    .map((hint) => hint.words)
    .join(' ');
  expect(words).toContain(`6.0 mm of water is ${((6 * SCALE_RATIO[28]) / 1000).toFixed(2)} m`);
  expect(words).toContain('Stepping stones: 6.7 mm to 13 mm across, 10 mm from middle to middle.');
  expect(words).toContain('waves on a creek to 5.0 mm');
});

test('what is on the piece is held against it', () => {
  const hint = (features: Parameters<typeof scaleHints>[0]['features'], about: string, grainMm?: number): string =>
    scaleHints({ features, ...(grainMm !== undefined && { grainMm }) }, 6, 28).find((found) => found.about === about)
      ?.words ?? '';
  expect(hint([{ ...newFeature('stone', testDesign()), diameterMm: 30 }], 'stones')).toContain(
    'Yours of 30 mm is 1.8 m',
  );
  expect(hint([{ ...newFeature('stone', testDesign()), diameterMm: 10 }], 'stones')).not.toContain('Yours');
  expect(hint([{ ...newFeature('shore', testDesign()), slope: 3 }], 'slope')).toContain('steep');
  expect(hint([{ ...newFeature('shore', testDesign()), slope: 9 }], 'slope')).toContain('easy beach');
  expect(hint([{ ...newFeature('channel', testDesign()), bankSlope: 0.2 }], 'slope')).toContain('cliffs');
  expect(hint([], 'grit', 0.5)).toContain('gravel of 0.03 m');
  expect(hint([], 'grit', 2)).toContain('cobbles');
});
