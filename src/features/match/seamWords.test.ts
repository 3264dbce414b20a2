import type { MatchSet } from '@/core/seams/matchSet';
import type { UnitPreferences } from '@/core/units/formatMeasure';
import { seamName, seamWords, walkJoint } from './seamWords';
import type { MatchSeam } from '@/core/seams/matchTypes';

const metric: UnitPreferences = { length: 'mm', mass: 'g', volume: 'ml', temperature: '°C' } as UnitPreferences;
const inches = { ...metric, length: 'in' } as UnitPreferences;
const match = {
  edges: [
    { piece: 'A', edge: 'north', lengthMm: 140 },
    { piece: 'B', edge: 'south', lengthMm: 300 },
  ],
} as unknown as Pick<MatchSet, 'edges'>;
const seam = (change: Partial<MatchSeam>): MatchSeam =>
  ({
    a: 0,
    b: 1,
    stepMm: 0.9,
    gapMm: 1.4,
    gapAtMm: 60.2,
    deltaE: 5.4,
    grade: 'passes',
    why: 'step',
    ...change,
  }) as MatchSeam;
const plain = (text: string): string => text.replace(/\u00a0/g, ' ');

test('a seam is named by its edges', () => expect(seamName(match, seam({}))).toBe('A north and B south'));
test.each<[MatchSeam['why'], string, string]>([
  ['step', 'the levels differ by 0.9 mm', '0.9 mm'],
  ['gap', 'the beds differ by 1.4 mm, 60 mm from the left', 'bed 1.4 mm'],
  ['colour', 'the colours differ by 5.4', 'colour 5.4'],
  ['land', 'water meets land', 'land'],
  ['closes', 'closes', 'closes'],
  ['unequal', 'the edges are 140 mm and 300 mm long: only equal ones can meet', 'unequal'],
])('%s: %s', (why, words, figure) => {
  expect(plain(seamWords(match, seam({ why }), metric))).toBe(words);
  expect(plain(walkJoint(match, seam({ why }), metric).figure)).toBe(figure);
});
test('in inches no figure is left in mm', () => {
  for (const why of ['step', 'gap', 'unequal'] as const)
    expect(seamWords(match, seam({ why }), inches)).not.toMatch(/mm/);
});
