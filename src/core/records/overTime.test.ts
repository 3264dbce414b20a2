import { gramsByMonth, meanStepMm, overTime, type BatchOverTime } from './overTime';

const batch = (i: number, more: Partial<BatchOverTime> = {}): BatchOverTime => ({
  batchId: `b${i}`,
  name: `Batch ${i}`,
  setId: 's',
  set: 'Creek',
  at: `2026-0${1 + i}-10T10:00`,
  mixedGrams: 100,
  lostGrams: 4,
  money: 12,
  pieces: 6,
  looked: 6,
  passed: 6,
  offMm: null,
  colourApart: null,
  timesReckoned: null,
  stepMm: null,
  curedShare: null,
  ...more,
});

test('a batch that says nothing of it is no point', () => {
  const batches = [batch(0, { money: null }), batch(1), batch(2, { pieces: 0 })];
  expect(overTime('cost', batches)!.points.map((point) => [point.batch.batchId, point.value])).toEqual([['b1', 2]]);
  expect(overTime('level', batches)).toBeNull();
});

test('a share of grams is a mean of grams, not of batches', () => {
  const { lately, latelyOf, before } = overTime('waste', [batch(0, { mixedGrams: 300, lostGrams: 6 }), batch(1)])!;
  expect(lately).toBeCloseTo(10 / 400, 12);
  expect([latelyOf, before]).toEqual([2, null]);
});

test('the last five against those before; the mean goes along with the points', () => {
  const batches = [0, 1, 2, 3, 4, 5, 6].map((i) => batch(i, { lostGrams: i < 2 ? 10 : i }));
  const { points, before, lately } = overTime('waste', batches)!;
  expect(before).toBeCloseTo(0.1, 12);
  expect(lately).toBeCloseTo((2 + 3 + 4 + 5 + 6) / 500, 12);
  expect(points[0]!.mean).toBeCloseTo(0.1, 12);
  expect(points[2]!.mean).toBeCloseTo(22 / 300, 12);
  expect(points[6]!.mean).toBeCloseTo(lately, 12);
});

test('pieces that passed count by the pieces that were looked over', () => {
  const batches = [batch(0, { looked: 1, passed: 0 }), batch(1, { looked: 9, passed: 9 })];
  expect(overTime('passed', batches)!.lately).toBeCloseTo(0.9, 12);
});

test('grams by month add up, with empty months between, over the turn of a year', () => {
  const months = gramsByMonth([
    batch(0, { at: '2025-11-30T23:59', mixedGrams: 50, lostGrams: 5 }),
    batch(1, { at: '2026-02-01T00:00' }),
    batch(2, { at: '2026-02-28T10:00', mixedGrams: 60, lostGrams: 0 }),
  ]);
  expect(months).toEqual([
    { month: '2025-11', inPieces: 45, lost: 5 },
    { month: '2025-12', inPieces: 0, lost: 0 },
    { month: '2026-01', inPieces: 0, lost: 0 },
    { month: '2026-02', inPieces: 156, lost: 4 },
  ]);
  expect(gramsByMonth([])).toEqual([]);
});

test('the step between any two pieces: edges of one piece are not held against each other', () => {
  const edges = [
    { piece: 'a', mm: 10 },
    { piece: 'a', mm: 12 },
    { piece: 'b', mm: 11 },
    { piece: 'c', mm: 10.5 },
  ];
  // a–b: 1, 1; a–c: 0.5, 1.5; b–c: 0.5.
  expect(meanStepMm(edges)).toBeCloseTo(4.5 / 5, 12);
  expect(meanStepMm(edges.slice(0, 2))).toBeNull();
});
