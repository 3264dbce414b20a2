import { findingWords, lastInspection, toMend, withFate, withInspection } from './inspections';
import type { Batch, Inspection } from './recordSchemas';

const batch: Batch = {
  name: 'Tiles',
  items: [{ designId: 'd', copies: 3 }],
  pourAt: '2026-11-28T10:00',
  benchWindows: null,
};
const one = { designId: 'd', copy: 1 };
const two = { designId: 'd', copy: 2 };
const looked = (at: string, change: Partial<Inspection> = {}): Inspection => ({
  at,
  findings: [],
  outcome: 'pass',
  note: '',
  ...change,
});
const tacky = looked('2026-12-01T19:00', { findings: [{ kind: 'tacky' }], outcome: 'mend' });

test('what is said again on the same day takes the place of what was said; on another day both stand, the last counts', () => {
  const first = withInspection(batch, [one, two], tacky);
  expect(first.inspections).toHaveLength(2);
  const same = withInspection(first, [one], looked('2026-12-01T19:05'));
  expect(same.inspections).toHaveLength(2);
  expect(lastInspection(same, one)).toMatchObject({ outcome: 'pass', at: '2026-12-01T19:05' });
  expect(lastInspection(same, two)).toMatchObject({ outcome: 'mend' });
  const later = withInspection(first, [one], looked('2026-12-03T09:00'));
  expect(later.inspections).toHaveLength(3);
  expect(lastInspection(later, one)!.outcome).toBe('pass');
  const back = withInspection(later, [one], null);
  expect(lastInspection(back, one)!.outcome).toBe('mend');
  expect(withInspection(withInspection(batch, [one], tacky), [one], null)).toEqual(batch);
});

test('a copy to be made anew is spoilt for what was found, and no longer when it is not; delivered stays delivered', () => {
  const findings = [{ kind: 'low' as const, mm: 0.5 }, { kind: 'crack' as const }];
  const anew = withInspection(batch, [one], looked('2026-12-01T19:00', { findings, outcome: 'remake' }));
  expect(anew.fates).toEqual([{ ...one, fate: 'spoilt', at: '2026-12-01T19:00', why: 'low by 0.5 mm, crack' }]);
  const mended = withInspection(anew, [one], looked('2026-12-01T20:00', { findings, outcome: 'mend' }));
  expect(mended.fates).toBeUndefined();
  const delivered = withFate(batch, [one, two], { fate: 'delivered', at: '2026-12-02T10:00', why: '' });
  expect(withInspection(delivered, [one], tacky).fates).toEqual(delivered.fates);
});

test('a fate counts for the copies that it is said of', () => {
  const both = withFate(batch, [one, two], { fate: 'spoilt', at: '2026-12-02T10:00', why: 'fell' });
  const fates = withFate(both, [two], null).fates;
  expect(fates!.map(({ copy }) => copy)).toEqual([1]);
});

test('to mend is what the last word says so of, and what is neither handed over nor to be made anew', () => {
  const mend = withInspection(batch, [one, two], tacky);
  expect(toMend([{ id: 'b', data: mend }]).map(({ batchId, copy }) => [batchId, copy])).toEqual([
    ['b', 1],
    ['b', 2],
  ]);
  const passed = withInspection(mend, [one], looked('2026-12-03T09:00'));
  expect(toMend([{ id: 'b', data: passed }]).map(({ copy }) => copy)).toEqual([2]);
  const delivered = withFate(passed, [two], { fate: 'delivered', at: '2026-12-04T10:00', why: '' });
  expect(toMend([{ id: 'b', data: delivered }])).toEqual([]);
});

test('findings are told short', () => {
  expect(findingWords([])).toBe('');
  expect(findingWords([{ kind: 'darker side' }, { kind: 'wall gap', mm: 0.3 }])).toBe(
    'one side dark, gap at wall by 0.3 mm',
  );
});
