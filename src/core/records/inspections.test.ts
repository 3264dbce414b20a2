import {
  findingWords,
  lastInspection,
  levelOffMm,
  outcomeOf,
  toMend,
  withColour,
  withFate,
  withInspection,
  withInspectionsTakenIn,
  withLevelOff,
} from './inspections';
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

test('what comes of a piece: nothing found passes, a new finding is to be mended, else what was said of it stays', () => {
  const low = { kind: 'low' as const, mm: 0.5 };
  const crack = { kind: 'crack' as const };
  expect(outcomeOf(null, [])).toBe('pass');
  expect(outcomeOf(null, [low])).toBe('mend');
  expect(outcomeOf({ findings: [low], outcome: 'pass' }, [{ ...low, mm: 0.7 }])).toBe('pass');
  expect(outcomeOf({ findings: [low, crack], outcome: 'remake' }, [crack])).toBe('remake');
  expect(outcomeOf({ findings: [low], outcome: 'pass' }, [low, crack])).toBe('mend');
  expect(outcomeOf({ findings: [low], outcome: 'mend' }, [])).toBe('pass');
});

test('a level that was read is low, high or as planned, and takes the place of what was found before', () => {
  const found = withLevelOff([{ kind: 'tacky' }, { kind: 'high', mm: 2 }], -0.456);
  expect(found).toEqual([{ kind: 'low', mm: 0.46 }, { kind: 'tacky' }]);
  expect(levelOffMm(found)).toBe(-0.46);
  expect(levelOffMm(withLevelOff([], 0.3))).toBe(0.3);
  expect(withLevelOff(found, 0.1)).toEqual([{ kind: 'tacky' }]);
  expect(withLevelOff([], 0.11)).toEqual([{ kind: 'high', mm: 0.11 }]);
  expect(levelOffMm([{ kind: 'low' }])).toBe(0);
});

test('a colour another shade from the recipe is off', () => {
  const colour = (apart: number) => ({ seen: '#123456', apart });
  expect(withColour([{ kind: 'low' }], colour(5))).toEqual([{ kind: 'low' }, { kind: 'off colour' }]);
  expect(withColour([{ kind: 'off colour' }], colour(12))).toEqual([{ kind: 'off colour' }]);
  expect(withColour([{ kind: 'off colour' }], colour(4.9))).toEqual([]);
});

describe('taken in afterwards', () => {
  const at = (day: string, change: Partial<Inspection> = {}) => ({ ...one, ...looked(day, change) });
  const now = withInspection(batch, [one], tacky);
  test('what is older goes before, and the newest stays the last word', () => {
    const both = withInspectionsTakenIn(now, [at('2026-11-30T10:00'), at('2026-11-29T10:00')]);
    expect(both.inspections!.map((each) => each.at)).toEqual(['2026-11-29T10:00', '2026-11-30T10:00', tacky.at]);
    expect(lastInspection(both, one)!.outcome).toBe('mend');
    expect(lastInspection(withInspectionsTakenIn(now, [at('2026-12-05T10:00')]), one)!.outcome).toBe('pass');
  });
  test('of two that disagree on one day the later stands, in whatever order they come', () => {
    const [early, late] = [at('2026-12-01T08:00'), at('2026-12-01T23:00')];
    expect(withInspectionsTakenIn(now, [early]).inspections).toEqual(now.inspections);
    expect(lastInspection(withInspectionsTakenIn(now, [late, early]), one)!.at).toBe(late.at);
  });
  test('an older word does not bring back what is to be made anew, a newer one does', () => {
    const anew = withInspection(batch, [one], { ...tacky, outcome: 'remake' });
    expect(withInspectionsTakenIn(anew, [at('2026-11-30T10:00')]).fates).toEqual(anew.fates);
    expect(withInspectionsTakenIn(anew, [at('2026-12-03T10:00')]).fates).toBeUndefined();
    const old = at('2026-11-30T10:00', { outcome: 'remake', findings: [{ kind: 'crack' }] });
    expect(withInspectionsTakenIn(batch, [old]).fates).toMatchObject([{ fate: 'spoilt', why: 'crack' }]);
  });
});
