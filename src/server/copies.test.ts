import { join } from 'node:path';
import { commandSchema } from '@/core/records/command';
import { copiesOfDesigns } from '@/core/records/copies';
import type { EditAnswer } from '@/core/records/views';
import { temporaryFolder } from '@/db/testDataFile';
import { copiesAnswer, copiesNow } from './copies';
import { withData } from './data';
import { runCommand } from './runCommand';
import { closePool } from './threads/pool';
import { deskView, openBatch, shelfView } from './views';

process.env['AGUADA_DATA'] = join(temporaryFolder(), 'copies.db');
const SET = 'heron-slack';
const run = (command: unknown): Promise<EditAnswer> => runCommand(commandSchema.parse(command), 'sets');
const taken = (): ReturnType<typeof copiesNow> => withData((db) => copiesNow(db, SET));
const stateOf = (batchId: string, copy: number): string | undefined =>
  copiesOfDesigns(deskView(SET)!.designs, taken(), '2026-12-24T12:00').find(
    ({ held, copy: number }) => held?.batchId === batchId && number === copy,
  )?.state;
const fate = (copies: object[], what: string | null, why = ''): Promise<EditAnswer> =>
  run({ do: 'fate', setId: SET, copies, fate: what && { fate: what, at: '2026-12-02T10:00', why } });

beforeAll(async () => {
  shelfView();
  await run({ do: 'sample' });
}, 60_000);
afterAll(closePool);

test('a spoilt copy is made anew by the next batch that is planned, and is what that batch makes of it', async () => {
  const poured = deskView(SET)!.batches.find((row) => row.poured)!;
  const { designId } = poured.data.items[0]!;
  const piece = { designId, copy: 1, batchId: poured.id };
  await fate([piece], 'spoilt', 'a leak');
  expect(stateOf(poured.id, 1)).toBe('spoilt');
  expect(deskView(SET)!.history.undo?.label).toBe('Say what became of copies');
  const { id } = await run({ do: 'plan', setId: SET });
  const { items } = openBatch(SET, id)!.row.data;
  expect(items).toContainEqual({ designId, copies: 1 });
  expect(stateOf(id!, 1)).toBe('planned');
  // Its pour stays in the log of the batch before.
  expect(openBatch(SET, poured.id)!.row.data.fates).toMatchObject([
    { designId, copy: 1, fate: 'spoilt', why: 'a leak' },
  ]);
  await run({ do: 'undo', scope: `set:${SET}` });
  await run({ do: 'undo', scope: `set:${SET}` });
  expect(openBatch(SET, poured.id)!.row.data.fates).toBeUndefined();
});

test('a word on one copy leaves those on others, and can be taken back', async () => {
  const poured = deskView(SET)!.batches.find((row) => row.poured && row.data.items[0]!.copies > 1)!;
  const { designId, first = 1 } = poured.data.items[0]!;
  const piece = (copy: number): object => ({ designId, copy, batchId: poured.id });
  await fate([piece(first), piece(first + 1)], 'delivered');
  await fate([piece(first)], null);
  expect(openBatch(SET, poured.id)!.row.data.fates).toMatchObject([{ copy: first + 1, fate: 'delivered' }]);
  await fate([piece(first + 1)], null);
  expect(openBatch(SET, poured.id)!.row.data.fates).toBeUndefined();
});

test('nothing becomes of what is not poured, or lies in another batch', async () => {
  const planned = deskView(SET)!.batches.find((row) => !row.poured)!;
  const { designId, first = 1 } = planned.data.items[0]!;
  await expect(fate([{ designId, copy: first, batchId: planned.id }], 'delivered')).rejects.toThrow(/not poured yet/);
  const poured = deskView(SET)!.batches.find((row) => row.poured)!;
  await expect(fate([{ designId, copy: 400, batchId: poured.id }], 'delivered')).rejects.toThrow(/does not hold/);
  await expect(fate([{ designId, copy: 1, batchId: 'gone' }], 'delivered')).rejects.toThrow(/no longer there/);
});

test('of a set that is not there is said so', async () => expect((await copiesAnswer('nowhere')).status).toBe(404));
