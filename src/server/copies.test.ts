import { join } from 'node:path';
import { commandSchema } from '@/core/records/command';
import { copiesOfDesigns } from '@/core/records/copies';
import type { EditAnswer } from '@/core/records/views';
import type { Why } from '@/core/records/why';
import { withMark } from '@/core/schedule/kept';
import { pourStep } from '@/core/schedule/routes';
import { openBatches } from '@/db/openBatches';
import { temporaryFolder } from '@/db/testDataFile';
import { copiesAnswer, copiesNow } from './copies';
import { withData } from './data';
import { runCommand } from './runCommand';
import { whyAnswer } from './why';
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

describe('a copy that is looked over', () => {
  const batch = () => deskView(SET)!.batches.find((row) => row.id === 'hs-batch-1')!;
  const piece = () => ({ designId: batch().data.items[0]!.designId, copy: 1, batchId: batch().id });
  const inspect = (inspection: object | null): Promise<EditAnswer> =>
    run({ do: 'inspect', setId: SET, copies: [piece()], inspection });
  const asked = (finding: string, more: object = {}): Promise<Response> =>
    whyAnswer(
      new Request(
        `http://here/api/why?${new URLSearchParams({ batch: batch().id, design: piece().designId, copy: '1', finding, ...more }).toString()}`,
      ),
    );
  const tacky = { at: '2026-12-02T10:00', findings: [{ kind: 'tacky' }], outcome: 'mend' };

  test('is to mend, looked over or to be made anew, and what was said is taken back', async () => {
    await inspect(tacky);
    expect(stateOf(batch().id, 1)).toBe('to mend');
    await inspect({ ...tacky, outcome: 'pass' });
    expect(batch().data.inspections).toHaveLength(1);
    expect(stateOf(batch().id, 1)).toBe('inspected');
    await inspect({ ...tacky, outcome: 'remake' });
    expect(stateOf(batch().id, 1)).toBe('spoilt');
    expect(batch().data.fates).toMatchObject([{ copy: 1, fate: 'spoilt', why: 'tacky' }]);
    await inspect(null);
    expect(batch().data.inspections).toBeUndefined();
    expect(batch().data.fates).toBeUndefined();
    expect(deskView(SET)!.history.undo?.label).toBe('Look copies over');
  });

  test('has causes by what is on record: the ratio that was weighed leads once it is off', async () => {
    await inspect(tacky);
    const before = (await (await asked('tacky')).json()) as Why;
    const of = (why: Why, id: string) => why.causes.find((cause) => cause.id === id)!;
    expect(of(before, 'ratio').now).toBeLessThan(of(before, 'ratio').before);
    const { detail, row } = openBatch(SET, batch().id)!;
    const [entry] = detail.pours;
    const cups = entry!.cups.map((cup) => ({ ...cup, partBGrams: cup.partBGrams! * 0.88 }));
    await run({ do: 'pour', batchId: row.id, version: row.version, layer: 1, pour: { ...entry!, cups } });
    const after = (await (await asked('tacky')).json()) as Why;
    expect(after.causes[0]).toMatchObject({ id: 'ratio' });
    expect(after.enough).toBe(true);
    // The maker's own weights are taken.
    const { id, version, data } = shelfView().settings;
    const causeWeights = { strongly: 1, speaks: 1, against: 1, neighboursFor: 1, neighboursAgainst: 1 };
    await run({ do: 'put', kind: 'settings', id, version, data: { ...data, causeWeights } });
    const flat = (await (await asked('tacky')).json()) as Why;
    expect(flat.enough).toBe(false);
    for (const cause of flat.causes) expect(cause.now).toBeCloseTo(cause.before, 9);
    await run({ do: 'put', kind: 'settings', id, version: version + 1, data });
    expect(after.causes[0]!.evidence.map(({ words }) => words)).toContainEqual(
      expect.stringMatching(/14 % off, too much A/),
    );
    await run({ do: 'undo', scope: `set:${SET}` });
    await inspect(null);
  });

  test('whose layer is to be repaired is on the calendar again, however long ago it was poured', async () => {
    const open = (now: string): string[] => withData((db) => openBatches(db, now).map(({ id }) => id));
    expect(open('2027-02-01T10:00')).not.toContain(batch().id);
    const { id, version, data } = batch();
    const failed = { at: '2027-01-30T10:00', why: 'tacky, HS-1 #1' };
    const course = withMark(data.course ?? { marks: [] }, pourStep(2), { failed });
    await run({ do: 'course', label: 'Mend it', batches: [{ id, version, course }] });
    expect(open('2027-02-01T10:00')).toContain(id);
    expect(open('2027-02-20T10:00')).not.toContain(id);
    await run({ do: 'undo', scope: `set:${SET}` });
  });

  test('a finding that nobody knows, a batch that is not poured: said in words', async () => {
    expect((await asked('rust')).status).toBe(422);
    const planned = deskView(SET)!.batches.find((row) => !row.poured)!;
    expect((await asked('tacky', { batch: planned.id })).status).toBe(404);
    expect(() => inspect({ ...tacky, findings: [{ kind: 'tacky' }, { kind: 'tacky' }] })).toThrow(/stands once/);
  });
});

test('of a set that is not there is said so', async () => expect((await copiesAnswer('nowhere')).status).toBe(404));
