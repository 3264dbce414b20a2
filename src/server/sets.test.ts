import { join } from 'node:path';
import { commandSchema } from '@/core/records/command';
import type { Findable } from '@/core/records/findable';
import { findIn } from '@/core/records/findable';
import type { EditAnswer } from '@/core/records/views';
import { openBatches } from '@/db/openBatches';
import { temporaryFolder } from '@/db/testDataFile';
import { withData } from './data';
import { findableAnswer } from './find';
import { runCommand } from './runCommand';
import { startsAnswer } from './starts';
import { closePool } from './threads/pool';
import { deskView, setsView, shelfView } from './views';

process.env['AGUADA_DATA'] = join(temporaryFolder(), 'sets.db');
const SET = 'heron-slack';
const run = (command: unknown): Promise<EditAnswer> => runCommand(commandSchema.parse(command), 'sets');
const desk = (id = SET): NonNullable<ReturnType<typeof deskView>> => deskView(id)!;

beforeAll(async () => {
  shelfView();
  await run({ do: 'sample' });
}, 60_000);
afterAll(closePool);

test('a set is there once more: its pieces under ids of their own, its tables and standards with them, no batches, no job', async () => {
  const { id } = await run({ do: 'duplicate', setId: SET, measured: true });
  const [was, copy] = [desk(), desk(id!)];
  expect(copy.set.data).toMatchObject({ name: `${was.set.data.name} copy`, job: null, levelMm: was.set.data.levelMm });
  expect(copy.designs.map(({ data }) => data.name)).toEqual(was.designs.map(({ data }) => data.name));
  const [ids, own] = [was, copy].map(({ designs }) => new Set(designs.map((design) => design.id)));
  expect([...ids!].some((one) => own!.has(one))).toBe(false);
  expect(copy.pieces.length).toBe(was.pieces.length);
  expect(was.pieces.length).toBeGreaterThan(0);
  for (const { data } of copy.pieces) expect(own!.has(data.designId)).toBe(true);
  expect(copy.batches).toEqual([]);
  // The shelf is shared.
  expect(copy.set.data).toMatchObject({ productId: was.set.data.productId, recipeId: was.set.data.recipeId });
  const { id: bare } = await run({ do: 'duplicate', setId: SET, measured: false });
  expect(desk(bare!).pieces).toEqual([]);
  await run({ do: 'undo', scope: 'sets' });
  expect(deskView(bare!)).toBeNull();
  await expect(run({ do: 'duplicate', setId: 'nowhere', measured: false })).rejects.toThrow(/no longer there/);
});

test('a set that is put away is last in the list and on no calendar until it is taken out again', async () => {
  const put = (putAway: boolean): Promise<EditAnswer> => {
    const { set } = desk();
    const { putAway: _, ...data } = set.data;
    return run({
      do: 'put',
      kind: 'set',
      id: SET,
      version: set.version,
      data: { ...data, ...(putAway && { putAway }) },
    });
  };
  const open = (): number =>
    withData((db) => openBatches(db, '2026-11-30T10:00')).filter(({ setId }) => setId === SET).length;
  const before = open();
  expect(before).toBeGreaterThan(0);
  await put(true);
  expect(open()).toBe(0);
  const { sets } = await setsView();
  expect(sets.at(-1)!.set).toMatchObject({ id: SET, data: { putAway: true } });
  await put(false);
  expect(open()).toBe(before);
});

test('a piece is offered as a start to every set', async () => {
  const [design] = desk().designs;
  const starts = async (): Promise<object[]> => (await (await startsAnswer()).json()) as object[];
  expect(await starts()).toEqual([]);
  const data = { ...design!.data, isStart: true };
  await run({ do: 'put', kind: 'design', id: design!.id, version: design!.version, data });
  expect(await starts()).toEqual([{ set: desk().set.data.name, design: data }]);
});

test('everything is found where it is: by name, by set, by month, by what was noted', async () => {
  const all = (await (await findableAnswer()).json()) as Findable[];
  expect(new Set(all.map(({ id }) => id)).size).toBe(all.length);
  const first = (line: string): Findable | undefined => findIn(all).of(line)[0];
  const [batch] = desk().batches;
  expect(first('HS-2')).toMatchObject({ kind: 'piece', href: `/sets/${SET}/shape?piece=hs-2` });
  expect(
    findIn(all)
      .of('shore boards')
      .map(({ kind }) => kind),
  ).toEqual(expect.arrayContaining(['batch', 'piece']));
  expect(first(batch!.data.name)).toMatchObject({ kind: 'batch', href: `/sets/${SET}/pour?batch=${batch!.id}` });
  const poured = desk().batches.find((row) => row.poured)!;
  const [year, month] = poured.poured!.lastAt.split('-');
  const name = new Date(Number(year), Number(month) - 1, 1).toLocaleString('en', { month: 'long' });
  expect(
    findIn(all)
      .of(name)
      .map(({ kind }) => kind),
  ).toContain('batch');
  expect(new Set(all.map(({ kind }) => kind))).toEqual(
    new Set(['set', 'piece', 'batch', 'recipe', 'product', 'colourant', 'lot', 'note']),
  );
});
