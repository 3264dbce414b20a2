import {
  copiesOfDesigns,
  copyWords,
  countCopies,
  isBegun,
  isFinished,
  itemOf,
  numbersOf,
  remainingItems,
  withCopies,
  type CopyInBatch,
} from './copies';

const NOW = '2026-12-01T12:00';
const design = (id: string, copies: number) => ({ id, version: 1, data: { copies } });
const inBatch = (copy: number, change: Partial<CopyInBatch> = {}): CopyInBatch => ({
  designId: 'd',
  copy,
  batchId: 'b',
  batchName: 'Tiles',
  setId: 's',
  pourAt: '2026-11-28T10:00',
  layers: 2,
  partly: false,
  of: 2,
  lastAt: '2026-11-29T10:00',
  firmAt: null,
  curedAt: null,
  inspectedAt: null,
  inspection: null,
  fate: null,
  ...change,
});
const spoilt = { fate: 'spoilt' as const, at: '2026-11-30T09:00', why: 'a leak' };

test.each<[string, Partial<CopyInBatch>, string]>([
  ['planned', { layers: 0, of: 0 }, 'planned, Sat 28 Nov, 10:00'],
  ['begun', { layers: 0, partly: true }, 'layer 1 of 2 in part'],
  ['begun', { layers: 1 }, 'layer 1 of 2 poured'],
  ['begun', { layers: 1, partly: true }, 'layer 2 of 2 in part'],
  ['poured', { firmAt: '2026-12-01T12:01', curedAt: '2026-12-04T10:00' }, 'poured, firm Tue 1 Dec, 12:01'],
  ['firm', { firmAt: NOW, curedAt: '2026-12-04T10:00' }, 'firm, cured Fri 4 Dec, 10:00'],
  ['firm', { firmAt: NOW, curedAt: '2026-12-04T10:00', inspectedAt: NOW }, 'firm, cured Fri 4 Dec, 10:00'],
  ['cured', { firmAt: NOW, curedAt: NOW }, 'cured'],
  ['cured', {}, 'cured'],
  ['inspected', { inspectedAt: '2026-11-30T09:00' }, 'looked over 30 November'],
  ['delivered', { fate: { fate: 'delivered', at: '2026-11-30T09:00', why: '' } }, 'delivered 30 November'],
  ['spoilt', { fate: spoilt, layers: 1 }, 'spoilt 30 November: a leak'],
])('a copy is %s by what happened: %j', (state, change, words) => {
  const [copy] = copiesOfDesigns([design('d', 1)], [inBatch(1, change)], NOW);
  expect(copy!.state).toBe(state);
  expect(copyWords(copy!)).toBe(words);
  expect(isFinished(copy!)).toBe(['cured', 'inspected', 'delivered'].includes(state));
  expect(isBegun(copy!)).toBe(state !== 'planned');
});

test('copies are those that are wanted and those that were numbered on; what no batch has taken is open', () => {
  const copies = copiesOfDesigns([design('d', 2), design('e', 1)], [inBatch(2), inBatch(5)], NOW);
  expect(copies.map(({ designId, copy, state }) => `${designId}${copy} ${state}`)).toEqual([
    'd1 open',
    'd2 cured',
    'd5 cured',
    'e1 open',
  ]);
  expect(copyWords(copies[0]!)).toBe('open: in no batch yet');
  expect([isBegun(copies[0]!), isFinished(copies[0]!)]).toEqual([false, false]);
});

test('of a spoilt copy the water counts as work, not as finished', () => {
  const copies = copiesOfDesigns(
    [design('d', 5)],
    [inBatch(1), inBatch(2, { layers: 1 }), inBatch(3, { fate: spoilt }), inBatch(4, { layers: 0, of: 0 })],
    NOW,
  );
  expect(countCopies(copies)).toEqual({ of: 5, finished: 1, inWork: 2 });
});

test('a copy that was spoilt and made anew stands where the later batch has it', () => {
  const anew = inBatch(1, { batchId: 'c', layers: 0, of: 0, pourAt: '2026-12-02T10:00' });
  const [copy] = copiesOfDesigns([design('d', 1)], [inBatch(1, { fate: spoilt }), anew], NOW);
  expect(copy).toMatchObject({ state: 'planned', held: { batchId: 'c' } });
  expect(copy!.before.map(({ batchId }) => batchId)).toEqual(['b']);
});

test('items of a batch name a row of copies by its first, others one by one', () => {
  expect(itemOf('d', [1, 2, 3])).toEqual({ designId: 'd', copies: 3 });
  expect(itemOf('d', [6, 5])).toEqual({ designId: 'd', copies: 2, first: 5 });
  expect(itemOf('d', [9, 3, 7])).toEqual({ designId: 'd', copies: 3, first: 3, numbers: [3, 7, 9] });
  for (const numbers of [[1], [4, 5], [2, 9, 11]]) expect(numbersOf(itemOf('d', numbers))).toEqual(numbers);
});

test('more copies follow on the last, fewer are the first of them', () => {
  const made = (numbers: number[], copies: number): number[] => numbersOf(withCopies(itemOf('d', numbers), copies));
  expect(made([1, 2, 3], 5)).toEqual([1, 2, 3, 4, 5]);
  expect(made([5, 6], 1)).toEqual([5]);
  expect(made([3, 7], 3)).toEqual([3, 7, 8]);
  expect(made([3, 7, 9], 2)).toEqual([3, 7]);
  // One that was in no batch yet begins where it is said to.
  expect(numbersOf(withCopies({ designId: 'd', copies: 0, first: 4 }, 2))).toEqual([4, 5]);
  // Numbers that do not go with the count are read as a row.
  expect(numbersOf({ designId: 'd', copies: 2, first: 3, numbers: [9] })).toEqual([3, 4]);
});

describe('a new batch takes', () => {
  const designs = [design('d', 3), design('e', 3)];
  test('what no batch has taken, and what was spoilt in the last that took it', () => {
    expect(remainingItems(designs, [inBatch(1), inBatch(2)])).toEqual([
      { designId: 'd', copies: 1, first: 3 },
      { designId: 'e', copies: 3 },
    ]);
    const third = { ...inBatch(3), designId: 'e' };
    const taken = [inBatch(1, { fate: spoilt }), inBatch(2), third];
    expect(remainingItems(designs, taken)).toEqual([
      { designId: 'd', copies: 2, numbers: [1, 3] },
      { designId: 'e', copies: 2 },
    ]);
    // Made anew it is taken; spoilt again it is not.
    expect(remainingItems([design('d', 2)], [...taken, inBatch(1)])).toEqual([{ designId: 'd', copies: 2, first: 3 }]);
    expect(remainingItems([design('d', 2)], [...taken, inBatch(1), inBatch(1, { fate: spoilt })])).toEqual([
      { designId: 'd', copies: 1 },
    ]);
  });
  test('as many again, numbered on, when none are left', () => {
    const all = [1, 2, 3].flatMap((copy) => [inBatch(copy), { ...inBatch(copy + 1), designId: 'e' }]);
    expect(remainingItems(designs, [...all, { ...inBatch(1), designId: 'e' }])).toEqual([
      { designId: 'd', copies: 3, first: 4 },
      { designId: 'e', copies: 3, first: 5 },
    ]);
  });
});
