import { join } from 'node:path';
import Papa from 'papaparse';
import { planCommand } from '@/core/formats/planFile';
import { commandSchema } from '@/core/records/command';
import { EDIT_ROUTES } from '@/core/records/editRoutes';
import { planSchema } from '@/core/plan';
import { temporaryFolder } from '@/db/testDataFile';
import { answerEdit } from './answerEdit';
import { batchPlan } from './batchPlan';
import { exportFile } from './exportFile';
import { forPage } from './forPage';
import { closePool } from './threads/pool';
import { runCommand } from './runCommand';
import { deskView, shelfView } from './views';

process.env['AGUADA_DATA'] = join(temporaryFolder(), 'routes.db');
const SET = 'heron-slack';
const BATCH = 'hs-batch-3';

/** Posts a command as the desk of the sample does; the answer's status and body. */
async function fromDesk(
  command: object,
  headers: Record<string, string> = {},
  path: string = EDIT_ROUTES[0].path,
): Promise<{ status: number; body: Record<string, unknown> }> {
  const request = new Request(`http://127.0.0.1${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...headers },
    body: JSON.stringify({ command, wanted: { view: 'desk', setId: SET } }),
  });
  const response = await answerEdit(request);
  return { status: response.status, body: (await response.json()) as Record<string, unknown> };
}

beforeAll(async () => {
  shelfView();
  await runCommand(commandSchema.parse({ do: 'sample' }), 'sets');
}, 60_000);
afterAll(closePool);

describe('exports of a batch', () => {
  const text = async (file: string): Promise<string> => (await exportFile({ setId: SET, batchId: BATCH, file })).text();
  test('the plan is what the command makes of the request', async () => {
    const plan = await text('plan.json');
    expect(planSchema.safeParse(JSON.parse(plan)).error).toBeUndefined();
    expect(planCommand(await text('plan-request.json'))).toEqual({ output: plan, errors: '', exitCode: 0 });
  });
  test('the card’s pours add up to the plan’s', async () => {
    const { data } = Papa.parse<Record<string, string>>(await text('pour-card.csv'), {
      header: true,
      skipEmptyLines: true,
    });
    const plan = (await batchPlan(SET, BATCH))!.plan!;
    // Each of 54 pours is rounded to 0.1 g.
    expect(Math.abs(data.reduce((sum, row) => sum + Number(row['pour_g']), 0) - plan.totals.pouredGrams)).toBeLessThan(
      2,
    );
    expect(new Set(data.map((row) => `${row['layer']}.${row['cup']}`)).size).toBe(plan.totals.cups);
  });
  test('files are named after the batch', async () => {
    const response = await exportFile({ setId: SET, batchId: BATCH, file: 'plan.json' });
    expect(response.headers.get('content-disposition')).toBe(
      'attachment; filename="bases-and-the-last-tiles-plan.json"',
    );
  });
  test.each([
    [{ setId: SET, batchId: BATCH, file: 'plan.exe' }, 404],
    [{ setId: SET, batchId: 'nowhere', file: 'plan.json' }, 404],
    [{ setId: 'nowhere', batchId: BATCH, file: 'plan.json' }, 404],
  ])('%j is %d', async (what, status) => expect((await exportFile(what)).status).toBe(status));
  test('a batch without pieces says so', async () => {
    const { id } = await runCommand(
      commandSchema.parse({
        do: 'add',
        kind: 'batch',
        setId: SET,
        data: { name: 'Empty', items: [], pourAt: '2026-11-28T10:00' },
      }),
      `set:${SET}`,
    );
    expect((await exportFile({ setId: SET, batchId: id!, file: 'plan.json' })).status).toBe(409);
  });
});

describe('answers of the edit route', () => {
  const set = (): NonNullable<ReturnType<typeof deskView>>['set'] => deskView(SET)!.set;
  test('carry the rows that have changed, and what undo would do', async () => {
    const { status, body } = await fromDesk({
      do: 'put',
      kind: 'set',
      id: SET,
      version: set().version,
      data: { ...set().data, levelMm: 14.5 },
    });
    expect(status).toBe(200);
    expect(body).toMatchObject({
      id: SET,
      changes: [{ kind: 'set', id: SET, row: { data: { levelMm: 14.5 } } }],
      history: { undo: { label: 'Change Heron Slack' } },
    });
  });
  test('carry the newer row with a stale edit, and write nothing', async () => {
    const { status, body } = await fromDesk({
      do: 'put',
      kind: 'set',
      id: SET,
      version: 1,
      data: { ...set().data, levelMm: 11 },
    });
    expect(status).toBe(409);
    expect(body).toMatchObject({ error: 'stale', changes: [{ kind: 'set', row: { data: { levelMm: 14.5 } } }] });
    expect(set().data.levelMm).toBe(14.5);
  });
  test('tell what can be undone by now, when what was named was taken back in another window', async () => {
    const { edit } = deskView(SET)!.history.undo!;
    const { status, body } = await fromDesk({ do: 'undo', scope: `set:${SET}`, edit: edit + 1000 });
    expect(status).toBe(409);
    expect(body).toMatchObject({ error: 'refused', changes: [], history: { undo: { edit } } });
  });
  test('undo from the desk brings the level back', async () => {
    await fromDesk({ do: 'undo', scope: `set:${SET}` });
    expect(set().data.levelMm).toBe(15);
  });
  test('a body of three megabytes is not taken, but by the wide route, and there it is looked at', async () => {
    const large = { do: 'put', kind: 'set', id: 'x'.repeat(3_000_000), version: 1, data: {} };
    expect((await fromDesk(large)).status).toBe(413);
    expect((await fromDesk(large, {}, EDIT_ROUTES[1].path)).status).toBe(422);
    expect((await fromDesk({ ...large, id: 'x'.repeat(9_000_000) }, {}, EDIT_ROUTES[1].path)).status).toBe(413);
  });
  test('a batch that names a design twice is refused at its field', async () => {
    const designId = deskView(SET)!.designs[0]!.id;
    const items = [
      { designId, copies: 2 },
      { designId, copies: 1 },
    ];
    const { status, body } = await fromDesk({
      do: 'add',
      kind: 'batch',
      setId: SET,
      data: { name: 'Twice', items, pourAt: '2026-11-28T10:00', benchWindows: null },
    });
    expect(status).toBe(422);
    expect(body).toMatchObject({ fields: [{ field: 'items', message: expect.stringContaining('once in a batch') }] });
  });
  test('a measured copy: stored, planned on its own, refused outside the piece', async () => {
    const measure = (xMm: number): object => ({
      do: 'add',
      kind: 'piece',
      setId: SET,
      data: {
        designId: 'hs-5',
        copy: 1,
        measured: { atLevelMm: 15, readings: [{ xMm, yMm: 40, depthMm: 7 }], fillMl: null },
      },
    });
    const outside = await fromDesk(measure(200));
    expect([outside.status, outside.body['message']]).toEqual([
      422,
      'Reading 1 lies outside the piece, which is 140 × 140 mm.',
    ]);
    expect((await fromDesk(measure(70))).status).toBe(200);
    const { plan } = (await batchPlan(SET, BATCH))!;
    expect(plan!.pieces.filter(({ designId }) => designId === 'hs-5').map(({ copy }) => copy)).toContain(1);
    await fromDesk({ do: 'remove', kind: 'design', id: 'hs-5', version: 1 });
    expect(deskView(SET)!.pieces.map(({ data }) => data.designId)).not.toContain('hs-5');
    await fromDesk({ do: 'undo', scope: `set:${SET}` });
    expect(deskView(SET)!.pieces.map(({ data }) => data.designId)).toContain('hs-5');
  });
  test('a set that removes itself is gone, and everything comes back', async () => {
    const { status, body } = await fromDesk({ do: 'remove', kind: 'set', id: SET, version: set().version });
    expect(status).toBe(200);
    expect(body['changes']).toContainEqual(expect.objectContaining({ kind: 'set', id: SET, row: null }));
    expect(deskView(SET)).toBeNull();
    // From the desk of a set that is gone nothing is done any more, whatever it would reach.
    const gone = await fromDesk({ do: 'undo', scope: 'sets' });
    expect([gone.status, deskView(SET)]).toEqual([404, null]);
    await runCommand({ do: 'undo', scope: 'sets' }, 'sets');
    expect(deskView(SET)!.designs).toHaveLength(11);
  });
});

describe('pages', () => {
  test('trouble that the maker can mend becomes a sentence', async () => {
    process.env['AGUADA_DATA'] = '/dev/null/nowhere.db';
    const page = await forPage(shelfView);
    expect(page).toMatchObject({ ok: false });
    expect(page.ok ? '' : page.message).toContain('cannot be read or opened');
  });
  test('a defect of ours is not hidden', () =>
    expect(
      forPage(() => {
        throw new TypeError('ours');
      }),
    ).rejects.toThrow('ours'));
});
