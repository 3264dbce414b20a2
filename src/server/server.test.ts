import { join } from 'node:path';
import { commandSchema, editRequestSchema, type Command } from '@/core/records/command';
import type { PieceDesign } from '@/core/model/designSchema';
import { planTimes, withTimes, type Plan } from '@/core/plan';
import { batchRequest, wholeSetRequest } from '@/core/records/buildRequest';
import type { BatchRow, DeskView, EditAnswer, SetCard } from '@/core/records/views';
import { countPieces } from '@/core/records/countPieces';
import { temporaryFolder } from '@/db/testDataFile';
import { withKept } from '@/core/schedule/kept';
import { calendarBatches, stageCalendar, weekSheet } from './calendar';
import { asSeen } from '@/core/records/pieceMeasures';
import { withData } from './data';
import { amountsOf, planOf } from './figures';
import { closePool } from './threads/pool';
import { answer, ownJson, type Refusal } from './respond';
import { runCommand } from './runCommand';
import { deskView, openBatch, setCardsAnswer, setLook, setLooksAnswer, setsView, shelfView } from './views';

process.env['AGUADA_DATA'] = join(temporaryFolder(), 'server.db');
const desk = (id = 'heron-slack'): DeskView => deskView(id)!;
const designs = (): DeskView['designs'] => desk().designs;
/** The sample's batch that is still to be poured. */
const planned = (): BatchRow => desk().batches.find(({ id }) => id === 'hs-batch-3')!;
const run = (command: unknown): Promise<EditAnswer> => runCommand(commandSchema.parse(command), 'sets');
/** Posts to the edit route as the screens do. */
async function post(body: unknown, headers: Record<string, string> = {}): Promise<{ status: number; body: Refusal }> {
  const request = new Request('http://127.0.0.1:3000/api/edits', {
    method: 'POST',
    headers: { 'content-type': 'application/json', host: '127.0.0.1:3000', ...headers },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  });
  const response = await answer(async () =>
    runCommand(editRequestSchema.parse(await ownJson(request)).command, 'sets'),
  );
  return { status: response.status, body: (await response.json()) as Refusal };
}
const edit = (command: unknown): ReturnType<typeof post> => post({ command, wanted: { view: 'sets' } });

beforeAll(async () => {
  shelfView();
  await run({ do: 'sample' });
}, 60_000);
afterAll(closePool);

describe('the edit route', () => {
  const put = (change: Partial<PieceDesign> | object, version = 1, id = 'hs-1'): Command => ({
    do: 'put',
    kind: 'design',
    id,
    version,
    data: { ...designs().find((design) => design.id === id)!.data, ...change } as PieceDesign,
  });

  test('writes an edit and can take it back', async () => {
    await run(put({ name: 'Creek run' }));
    expect(designs()[0]).toMatchObject({ version: 2, data: { name: 'Creek run' } });
    expect(desk().history.undo?.label).toBe('Change Creek run');
    await run({ do: 'undo', scope: 'set:heron-slack' });
    expect(designs()[0]!.data.name).toBe('Creek straight');
  });
  test('tells a stale edit, 409, and writes nothing', async () => {
    const { status, body } = await edit(put({ name: 'Old news' }, 1));
    expect([status, body.error]).toEqual([409, 'stale']);
    expect(designs()[0]!.data.name).toBe('Creek straight');
  });
  test.each<[string, object, string]>([
    ['10⁹ copies', { copies: 1e9 }, 'copies'],
    ['text for a height', { landMm: 'tall' }, 'landMm'],
    ['a negative level', { drawnLevelMm: -2 }, 'drawnLevelMm'],
    ['a depth of 0', { features: [{ kind: 'basin', id: 'b', rimMm: 2, depthMm: 0 }] }, 'features.0.depthMm'],
  ])('%s: 422 at the field', async (_, change, field) => {
    const { status, body } = await edit(put(change));
    expect(status).toBe(422);
    expect(body.fields[0]!.field).toBe(field);
  });
  test.each<[string, unknown, Record<string, string>, number]>([
    ['broken JSON', '{"command":', {}, 400],
    ['another kind of body', 'a=1', { 'content-type': 'application/x-www-form-urlencoded' }, 415],
    ['another site', {}, { origin: 'http://elsewhere.invalid' }, 403],
    ['a nonsense origin', {}, { origin: 'null' }, 403],
    ['no command', { wanted: { view: 'sets' } }, {}, 422],
    ['an unknown command', { command: { do: 'explode' }, wanted: { view: 'sets' } }, {}, 422],
    [
      'a set that is not there',
      { command: { do: 'remove', kind: 'set', id: 'nowhere', version: 1 }, wanted: { view: 'sets' } },
      {},
      404,
    ],
    ['nothing to redo', { command: { do: 'redo', scope: 'shelf' }, wanted: { view: 'shelf' } }, {}, 409],
  ])('%s', async (_, body, headers, status) => expect((await post(body, headers)).status).toBe(status));
  test('a product in use says where', async () => {
    const { status, body } = await edit({ do: 'remove', kind: 'product', id: 'coating-epoxy', version: 1 });
    expect(status).toBe(409);
    expect(body.message).toContain('Heron Slack');
  });
  test('a recipe with a colourant that is not on the shelf is refused at its dose', async () => {
    const { body } = await edit({
      do: 'add',
      kind: 'recipe',
      data: { name: 'Odd', doses: [{ colourantId: 'unicorn', gramsPer100: 1 }] },
    });
    expect(body.fields[0]!.field).toBe('doses.0.colourantId');
  });
  test('a pour with a colourant that its recipe does not hold is refused at its field', async () => {
    const { id, version, data } = desk().shelf.recipes.find((recipe) => recipe.data.doses.length > 0)!;
    const pours = [
      { thicknessMm: 1, strength: 1, own: { 'unheard-of': 0.3 } },
      { thicknessMm: null, strength: 1 },
    ];
    const { status, body } = await edit({ do: 'put', kind: 'recipe', id, version, data: { ...data, pours } });
    expect([status, body.fields[0]!.field]).toEqual([422, 'pours.0.own.unheard-of']);
  });
  test('a set of a product that is not there is refused at its field', async () => {
    const { body } = await edit({ do: 'add', kind: 'set', data: { ...desk().set.data, productId: 'unicorn' } });
    expect(body.fields[0]!.field).toBe('productId');
  });
  test('another batch like one that is there has its pieces under numbers that none has had', async () => {
    const like = planned();
    await run({ do: 'plan', setId: 'heron-slack', like: like.id });
    const another = desk().batches.find(({ data }) => data.name === `${like.data.name} 2`)!;
    expect(another.data.items.map(({ designId, copies }) => [designId, copies])).toEqual(
      like.data.items.map(({ designId, copies }) => [designId, copies]),
    );
    await run({ do: 'plan', setId: 'heron-slack', like: like.id });
    const [third] = desk().batches;
    // Numbered on from the second, not from the one that it is like.
    third!.data.items.forEach(({ first, copies }, i) => expect(first).toBe(another.data.items[i]!.first! + copies));
    await expect(run({ do: 'plan', setId: 'heron-slack', like: 'nowhere' })).rejects.toThrow('no longer there');
    await run({ do: 'undo', scope: 'set:heron-slack' });
    await run({ do: 'undo', scope: 'set:heron-slack' });
  });
  test('a removed design leaves the batches still to pour, and comes back into them', async () => {
    const items = (): string[] => planned().data.items.map(({ designId }) => designId);
    await run({ do: 'remove', kind: 'design', id: 'b-32', version: 1 });
    expect(items()).not.toContain('b-32');
    await run({ do: 'undo', scope: 'set:heron-slack' });
    expect(items()).toContain('b-32');
  });
  test('a removed set comes back with all its pieces', async () => {
    await run({ do: 'remove', kind: 'set', id: 'heron-slack', version: 1 });
    expect((await setsView()).sets).toEqual([]);
    await run({ do: 'undo', scope: 'sets' });
    expect([desk().designs.length, desk().batches.length]).toEqual([11, 3]);
  });
});

describe('measuring many pieces at once', () => {
  type Copy = { designId: string; copy: number } & Record<string, unknown>;
  const measure = (pieces: Copy[], setId = 'heron-slack'): object => ({
    do: 'measure',
    setId,
    pieces: asSeen(desk(), pieces),
    label: 'Measure two tiles',
  });
  const edgesOf = (designId: string, copy: number): unknown =>
    desk().pieces.find(({ data }) => data.designId === designId && data.copy === copy)?.data;
  const north = { north: { bed: [], levels: [14.8, 14.8, 14.8] } };
  test('is one edit, and one undo takes all of it back', async () => {
    const before = desk().pieces.length;
    await run(
      measure([
        { designId: 'hs-1', copy: 2, edges: north },
        { designId: 'hs-2', copy: 1, shimsMm: [0.5, 0.5, 0.5, 0.5] },
      ]),
    );
    expect(edgesOf('hs-1', 2)).toMatchObject({ edges: north });
    expect(edgesOf('hs-2', 1)).toMatchObject({ shimsMm: [0.5, 0.5, 0.5, 0.5] });
    expect(desk().history.undo?.label).toBe('Measure two tiles');
    await run({ do: 'undo', scope: 'set:heron-slack' });
    expect(desk().pieces).toHaveLength(before);
  });
  test('of two windows that measure one copy the second is told', async () => {
    const seen = measure([{ designId: 'hs-1', copy: 2, edges: north }]);
    await run(seen);
    const again = await edit(seen);
    expect([again.status, again.body.error]).toEqual([409, 'stale']);
    await run({ do: 'undo', scope: 'set:heron-slack' });
  });
  test('adds to what is known, and a copy of which nothing is left goes', async () => {
    await run(measure([{ designId: 'hs-1', copy: 2, edges: north }]));
    await run(
      measure([
        {
          designId: 'hs-1',
          copy: 2,
          edges: { south: { bed: [{ atMm: 70, heightMm: 8 }], levels: null } },
          shimsMm: [1, 0, 0, 1],
        },
      ]),
    );
    expect(edgesOf('hs-1', 2)).toMatchObject({ edges: { ...north, south: { levels: null } }, shimsMm: [1, 0, 0, 1] });
    await run(
      measure([
        {
          designId: 'hs-1',
          copy: 2,
          edges: { north: { bed: [], levels: null }, south: { bed: [], levels: null } },
          shimsMm: null,
        },
      ]),
    );
    expect(edgesOf('hs-1', 2)).toBeUndefined();
  });
  test.each<[string, object, string, RegExp]>([
    [
      'a copy that there is not',
      { designId: 'hs-1', copy: 9, edges: north },
      'pieces.1.copy',
      /HS-1 has 4 copies; there is no #9/,
    ],
    [
      'an edge that there is not',
      { designId: 'b-32', copy: 1, edges: north },
      'pieces.1.edges.north',
      /B-32 has no north edge/,
    ],
    ['a design that is gone', { designId: 'gone', copy: 1, edges: north }, 'pieces.1.designId', /no longer there/],
  ])('%s is refused at its field, and nothing is written', async (_, wrong, field, words) => {
    const { status, body } = await edit(measure([{ designId: 'hs-1', copy: 3, edges: north }, wrong as Copy]));
    expect([status, body.fields[0]?.field]).toEqual([422, field]);
    expect(body.fields[0]!.message).toMatch(words);
    expect(edgesOf('hs-1', 3)).toBeUndefined();
  });
});

test('a set keeps its tables, its row and its standards; a bed is drawn to its standard in every plan', async () => {
  const { set } = desk();
  const [a, b] = [
    { designId: 'sh-a', copy: 1 },
    { designId: 'sh-b', copy: 1 },
  ];
  const row = { pins: [{ piece: a, place: 0 }], apart: [[a, b]] };
  await run({ do: 'put', kind: 'set', id: 'heron-slack', version: set.version, data: { ...set.data, row } });
  expect(desk().set.data).toMatchObject({
    row,
    tables: [{ id: 'club-night' }, { id: 'hill' }],
    standards: [{ id: 'creek-mouth', blendMm: 12 }],
  });
  expect(
    wholeSetRequest(desk())!
      .pieces.find(({ tag }) => tag === 'HS-1')!
      .joints!.map(({ edge }) => edge),
  ).toEqual(['south', 'north']);
  expect(desk().designs.every(({ data }) => data.joints === undefined)).toBe(true);
});

describe('the list of sets', () => {
  const others = Array.from({ length: 30 }, (_, i) => `Other ${i}`);
  test('comes with those whose work is next, strips with the first of them; the rest is asked for', async () => {
    const { name: _, ...data } = desk().set.data;
    const ids: string[] = [];
    for (const name of others) ids.push((await run({ do: 'add', kind: 'set', data: { ...data, name } })).id!);
    const view = await setsView();
    expect([view.sets.length, view.setCount]).toEqual([24, 31]);
    expect(view.sets[0]!.set.id).toBe('heron-slack');
    // Sent behind the page when it is not there in time.
    const { look } = view.sets[0]!;
    const own = await setLook('heron-slack');
    if (look) expect(look).toEqual(own);
    expect(own!.pieces).toHaveLength(designs().length);
    expect(own!.strip.pieces).toHaveLength(designs().length);
    expect(await setLook('no-such-set')).toBeNull();
    const all = (await (await setCardsAnswer()).json()) as { sets: SetCard[] };
    expect(all.sets.map(({ set }) => set.id).sort()).toEqual(['heron-slack', ...ids].sort());
    const card = all.sets.find(({ set }) => set.id === 'heron-slack')!;
    expect(countPieces(card.pieces)).toBe(countPieces(designs().map(({ data: design }) => design)));
    const asked = new Request('http://127.0.0.1:3000/api/sets/looks?ids=heron-slack,gone');
    const { looks } = (await (await setLooksAnswer(asked)).json()) as { looks: Record<string, unknown> };
    expect([looks['heron-slack'] !== null, looks['gone']]).toEqual([true, null]);
    for (let i = 0; i < others.length; i++) await run({ do: 'undo', scope: 'sets' });
  });
});

describe('pouring', () => {
  const plan = async (): Promise<Plan> => {
    const { row, detail } = openBatch('heron-slack', 'hs-batch-3')!;
    const request = batchRequest(desk(), row.data, detail)!;
    return detail.kept ? withTimes(detail.kept.amounts, planTimes(detail.kept.amounts, request)) : planOf(request);
  };
  const pour = (layer: number, cups: number, note = ''): object => ({
    do: 'pour',
    batchId: 'hs-batch-3',
    version: planned().version,
    layer,
    pour: {
      layer,
      pouredAt: '2026-11-28T10:00',
      temperatureC: 20,
      note,
      cups: Array.from({ length: cups }, (_, i) => ({ number: i + 1, partAGrams: 20, partBGrams: 17, note: '' })),
    },
  });
  const cupsOf = async (layer: number): Promise<number> => (await plan()).layers[layer - 1]!.cups.length;

  test.each<[string, () => Promise<object>, string]>([
    ['the second layer before the first', async () => pour(2, await cupsOf(2)), 'layer'],
    ['a layer that the plan has not', async () => pour(9, 1), 'layer'],
    ['too few cups', async () => pour(1, (await cupsOf(1)) - 1), 'cups'],
    [
      'a colourant that the recipe does not hold',
      async () => {
        const command = pour(1, await cupsOf(1)) as { pour: { cups: object[] } };
        Object.assign(command.pour.cups[0]!, { doses: [{ id: 'unheard-of', grams: 0.1 }] });
        return command;
      },
      'pour.cups.0.doses.0.id',
    ],
  ])('%s is refused', async (_, command, field) => {
    const { status, body } = await edit(await command());
    expect([status, body.fields[0]!.field]).toEqual([422, field]);
  });
  test('keeps the plan as it was: later edits of the bed and of the losses do not change what the log compares with', async () => {
    const { mixGrams } = (await plan()).totals;
    await run(pour(1, await cupsOf(1)));
    const hs4 = designs().find(({ id }) => id === 'hs-4')!;
    await run({ do: 'put', kind: 'design', id: 'hs-4', version: hs4.version, data: { ...hs4.data, features: [] } });
    const { id, version, data } = desk().shelf.settings;
    const losses = { ...data.losses, perCupGrams: 30 };
    await run({ do: 'put', kind: 'settings', id, version, data: { ...data, losses } });
    expect((await plan()).totals.mixGrams).toBeCloseTo(mixGrams, 9);
    expect((await plan()).layers[0]!.cure).toMatchObject({ poured: true, pouredAt: '2026-11-28T10:00' });
    expect(planned().poured).toMatchObject({ layers: 1, lastAt: '2026-11-28T10:00' });
    await run({ do: 'undo', scope: 'shelf' });
    await run({ do: 'undo', scope: 'set:heron-slack' });
  });
  test('is never undone away: a correction is a further entry, and so is taking it back', async () => {
    const entries = (): number =>
      withData((db) => db.$client.prepare('select count(*) from pours').pluck().get() as number);
    const notes = (): string[] => openBatch('heron-slack', 'hs-batch-3')!.detail.pours.map(({ note }) => note);
    const before = entries();
    await run(pour(1, await cupsOf(1), 'spilt some'));
    expect([notes(), entries()]).toEqual([['spilt some'], before + 1]);
    await run({ do: 'undo', scope: 'set:heron-slack' });
    expect([notes(), entries()]).toEqual([[''], before + 2]);
  });
  test('can be struck, and the batch is only planned again', async () => {
    await run({ do: 'pour', batchId: 'hs-batch-3', version: planned().version, layer: 1, pour: null });
    expect(planned().poured).toBeNull();
    expect(openBatch('heron-slack', 'hs-batch-3')!.detail.pours).toEqual([]);
  });
});

describe('the calendar', () => {
  const course = (id: string): unknown => desk().batches.find((batch) => batch.id === id)!.data.course;
  const version = (id: string): number => desk().batches.find((batch) => batch.id === id)?.version ?? 1;
  test('all that is being made, of every set, with what it is made of and what was done', async () => {
    const batches = await calendarBatches();
    expect(batches.map(({ id }) => id).sort()).toEqual(['hs-batch-1', 'hs-batch-2', 'hs-batch-3']);
    const last = batches.find(({ id }) => id === 'hs-batch-3')!;
    expect(last.facts).toMatchObject({ pieces: 27, moulds: 0 });
    expect(last.facts.layers.map(({ pouredAt }) => pouredAt)).toEqual([null, null]);
    expect(last.course.marks.map(({ step }) => step)).toEqual(['cut', 'seal']);
    expect(batches.find(({ id }) => id === 'hs-batch-2')!.facts.layers[0]!.pouredAt).not.toBeNull();
  });
  test('courses of several batches are one edit, taken back together', async () => {
    const before = [course('hs-batch-1'), course('hs-batch-3')];
    const marks = [{ step: 'trim', pinned: '2026-12-05T10:00' }];
    await run({
      do: 'course',
      label: 'Keep the calendar',
      batches: ['hs-batch-1', 'hs-batch-3'].map((id) => ({ id, version: version(id), course: { marks } })),
    });
    expect([course('hs-batch-1'), course('hs-batch-3')]).toEqual([{ marks }, { marks }]);
    await run({ do: 'undo', scope: 'set:heron-slack' });
    expect([course('hs-batch-1'), course('hs-batch-3')]).toEqual(before);
  });
  test('of two windows the second is told, and what the first wrote stays', async () => {
    const [id, before] = ['hs-batch-3', course('hs-batch-3')];
    const seen = version(id);
    const write = (step: string) =>
      edit({
        do: 'course',
        batches: [{ id, version: seen, course: { marks: [{ step, pinned: '2026-12-05T10:00' }] } }],
      });
    expect((await write('cut')).status).toBe(200);
    const second = await write('trim');
    expect([second.status, second.body.error]).toEqual([409, 'stale']);
    expect(course(id)).toEqual({ marks: [{ step: 'cut', pinned: '2026-12-05T10:00' }] });
    await run({ do: 'undo', scope: 'set:heron-slack' });
    expect(course(id)).toEqual(before);
  });
  test('of a batch that is gone nothing is written, of a time that is none neither', async () => {
    const { status } = await edit({
      do: 'course',
      batches: ['hs-batch-1', 'gone'].map((id) => ({ id, version: version(id), course: { marks: [] } })),
    });
    expect(status).toBe(404);
    const wrong = await edit({
      do: 'course',
      batches: [{ id: 'hs-batch-1', version: 1, course: { marks: [{ step: 'trim', pinned: 'soon' }] } }],
    });
    expect([wrong.status, wrong.body.fields[0]!.field]).toEqual([422, 'batches.0.course.marks.0.pinned']);
  });
  test('a page gets a plan of it, and a kept plan back as it was kept', async () => {
    const view = await stageCalendar('heron-slack');
    const { batches, plan } = view && 'later' in view ? await view.later : view!;
    expect(plan!.steps.length).toBeGreaterThan(10);
    const { now } = desk();
    await run({
      do: 'course',
      batches: batches.map(({ id, version: seen, course: own }) => ({
        id,
        version: seen,
        course: withKept(own, id, plan!, now),
      })),
    });
    const again = await weekSheet('heron-slack');
    expect(again!.kept).toBe(true);
    // Cards and the list of sets go by the first pour of the kept plan.
    const poured = plan!.steps.find(({ batchId, stepId }) => batchId === 'hs-batch-3' && stepId === 'pour 1')!;
    expect(planned().data.pourAt).toBe(poured.from);
    const times = (steps: typeof plan extends null ? never : NonNullable<typeof plan>['steps']): string[] =>
      steps
        .filter(({ done, handsOnMinutes }) => !done && handsOnMinutes > 0)
        .map(({ batchId, stepId, from }) => `${batchId} ${stepId} ${from}`)
        .sort();
    expect(times(again!.plan!.steps)).toEqual(times(plan!.steps));
    await run({ do: 'undo', scope: 'set:heron-slack' });
    expect(await stageCalendar('no-such-set')).toBeNull();
    // Two searches, in a thread that has to start.
  }, 60_000);
});

describe('standards given to many edges', () => {
  const given = (id: string): unknown => designs().find((design) => design.id === id)!.data.edgeStandards;
  const version = (id: string): number => designs().find((design) => design.id === id)!.version;
  test('in one edit, taken back in one', async () => {
    const before = [given('hs-1'), given('hs-2')];
    await run({
      do: 'give',
      setId: 'heron-slack',
      edges: [
        { designId: 'hs-1', version: version('hs-1'), edge: 'east', standardId: 'creek-mouth' },
        { designId: 'hs-1', version: version('hs-1'), edge: 'south', standardId: null },
        { designId: 'hs-2', version: version('hs-2'), edge: 'west', standardId: 'creek-mouth' },
      ],
    });
    expect(given('hs-1')).toMatchObject({ east: 'creek-mouth' });
    expect(given('hs-1')).not.toHaveProperty('south');
    expect(given('hs-2')).toMatchObject({ west: 'creek-mouth' });
    await run({ do: 'undo', scope: 'set:heron-slack' });
    expect([given('hs-1'), given('hs-2')]).toEqual(before);
  });
  test('to a design that another window has changed since, none', async () => {
    const edges = [{ designId: 'hs-1', version: version('hs-1') - 1, edge: 'east', standardId: 'creek-mouth' }];
    const before = given('hs-1');
    expect((await edit({ do: 'give', setId: 'heron-slack', edges })).status).toBe(edges[0]!.version < 1 ? 422 : 409);
    expect(given('hs-1')).toEqual(before);
  });
  test('one that is gone is refused at its edge', async () => {
    const edges = [{ designId: 'hs-1', version: version('hs-1'), edge: 'east', standardId: 'nowhere' }];
    const { status, body } = await edit({ do: 'give', setId: 'heron-slack', edges });
    expect([status, body.fields[0]?.field]).toEqual([422, 'edges.0.standardId']);
  });
});

test('the same request gives the same amounts, from the cache or not, at whatever time it is poured', async () => {
  const request = wholeSetRequest(desk())!;
  const first = await amountsOf(request);
  expect(await amountsOf({ ...request, pourAt: '2027-01-01T08:00' })).toBe(first);
  expect(first.problems.filter(({ severity }) => severity === 'stop')).toEqual([]);
});
