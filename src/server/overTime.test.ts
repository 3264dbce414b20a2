import { join } from 'node:path';
import { commandSchema } from '@/core/records/command';
import { logWeeks } from '@/db/workshopLog';
import { temporaryFolder } from '@/db/testDataFile';
import { withData } from './data';
import { besideView, overTimeView } from './overTime';
import { runCommand } from './runCommand';
import { closePool } from './threads/pool';
import { shelfView } from './views';

process.env['AGUADA_DATA'] = join(temporaryFolder(), 'overTime.db');
const inspect = (copy: number, outcome: 'pass' | 'mend', at: string, kind?: 'low') =>
  runCommand(
    commandSchema.parse({
      do: 'inspect',
      setId: 'heron-slack',
      copies: [{ designId: 'hs-1', copy, batchId: 'hs-batch-1' }],
      inspection: { at, outcome, findings: kind ? [{ kind, mm: 0.6 }] : [], note: '' },
    }),
    'set:heron-slack',
  );
const row = (what: string) => besideView({ a: 'hs-batch-1', b: 'hs-batch-2' }).rows.find((one) => one.what === what);

beforeAll(async () => {
  shelfView();
  await runCommand(commandSchema.parse({ do: 'sample' }), 'sets');
}, 60_000);
afterAll(closePool);

test('grams and money over time are the log’s: to 0.1 g and to the cent', () => {
  const { batches } = overTimeView();
  const weeks = withData(logWeeks);
  const sum = <T>(rows: readonly T[], of: (row: T) => number): number => rows.reduce((all, one) => all + of(one), 0);
  expect(batches.length).toBeGreaterThan(1);
  expect(sum(batches, (one) => one.mixedGrams)).toBeCloseTo(
    sum(weeks, (week) => week.mixedGrams),
    1,
  );
  expect(sum(batches, (one) => one.lostGrams)).toBeCloseTo(
    sum(weeks, (week) => week.lostGrams),
    1,
  );
  expect(sum(batches, (one) => one.money ?? 0)).toBeCloseTo(
    sum(weeks, (week) => week.money),
    2,
  );
});

test('the first look counts: a piece that was mended did not pass', async () => {
  await inspect(1, 'mend', '2026-11-20T20:00', 'low');
  await inspect(1, 'pass', '2026-11-24T20:00');
  await inspect(2, 'pass', '2026-11-20T20:00');
  expect(overTimeView().batches.find(({ batchId }) => batchId === 'hs-batch-1')).toMatchObject({
    looked: 2,
    passed: 1,
    offMm: 0.3,
  });
});

test('two batches beside each other: what is most different comes first, what is the same last', () => {
  const { rows, a, b } = besideView({ a: 'hs-batch-1', b: 'hs-batch-2' });
  expect([a?.name, b?.name]).toEqual(['Creek tiles', 'Shore boards']);
  const apart = rows.map((one) => one.apart);
  expect(apart).toEqual([...apart].sort((left, right) => right - left));
  expect(row('Found')).toMatchObject({ a: expect.stringMatching(/ on 1$/), b: 'nothing', apart: 15 });
  expect(row('Product')!.apart).toBe(0);
  expect(row('Pieces')).toMatchObject({ a: '7', b: '4' });
  expect(row('Passed at the first look')).toMatchObject({ a: '50.0 %', b: null, apart: 0 });
  expect(rows.some((one) => one.a === null && one.b === null)).toBe(false);
});

test('an address that names no batch shows the two newest', () => {
  const { a, b } = besideView({ a: 'gone', b: undefined });
  expect(new Set([a?.batchId, b?.batchId])).toEqual(new Set(['hs-batch-1', 'hs-batch-2']));
});
