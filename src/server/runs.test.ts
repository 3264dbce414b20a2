import { appendFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { commandSchema } from '@/core/records/command';
import { clocksOf } from '@/core/run/clocks';
import { replay } from '@/core/run/replay';
import type { RunState } from '@/core/run/runState';
import { onScale } from '@/core/run/say';
import type { RunEvent } from '@/core/run/runSchema';
import { balanceOf, layersToLog } from '@/core/run/record';
import { pieceKey } from '@/core/model/pieceRef';
import { batchRequest } from '@/core/records/buildRequest';
import { dryPours } from '@/core/records/rest';
import { leftOfStock } from '@/core/run/keptStock';
import type { BatchRow, EditAnswer } from '@/core/records/views';
import { getBatch } from '@/db/batches';
import { keptPlan } from '@/db/keptPlans';
import { currentPours } from '@/db/pours';
import { openBatches } from '@/db/openBatches';
import { pouredBatches } from '@/db/work';
import { temporaryFolder } from '@/db/testDataFile';
import { closeData, withData } from './data';
import { closePool } from './threads/pool';
import { wallClockNow } from './clock';
import { measuredDays } from './measuredRoom';
import { latestAnswer, takeLines, watchReadings } from './readings';
import { runCommand } from './runCommand';
import { beginRun, openSummaries, runView, setRuns, takeEvents, workshopBench } from './runs';
import { deskView, openBatch, shelfView } from './views';

const FOLDER = temporaryFolder();
process.env['AGUADA_DATA'] = join(FOLDER, 'runs.db');
const BATCH = 'hs-batch-3';
const command = (one: unknown) => runCommand(commandSchema.parse(one), 'sets');

beforeAll(async () => {
  shelfView();
  await command({ do: 'sample' });
}, 60_000);
afterAll(async () => {
  closeData();
  await closePool();
});

const stateOf = (id: string): RunState => {
  const { plan, run, events } = runView(id)!;
  return replay(
    plan,
    run.begunAt,
    events.map(({ event }) => event),
  );
};
let count = 0;
type Rest = Partial<RunEvent> & Record<string, unknown>;
const event = (rest: Rest): RunEvent =>
  ({ id: `test-${String(count++).padStart(8, '0')}`, at: Date.now(), by: 'test', ...rest }) as RunEvent;
const press = async (id: string, rest: Rest = {}): Promise<void> => {
  const step = stateOf(id).current!.id;
  await takeEvents(id, [event({ type: 'done', step, ...rest })]);
};
/** Presses on, weighing what is asked for, until a step of this kind is next. */
async function until(id: string, kind: string): Promise<void> {
  for (let i = 0; i < 200; i++) {
    const state = stateOf(id);
    const { current } = state;
    if (!current || current.kind === kind) return;
    const scale = onScale(state, current);
    const grams = scale && current.kind !== 'left' ? Math.abs(scale.stopGrams - scale.startGrams) : null;
    await press(id, grams === null ? {} : { grams });
  }
  throw new Error(`No step ${kind} came`);
}
/** What has left the bottles for a batch, grams of product. */
const taken = (batchId = BATCH): number =>
  withData((db) =>
    db.$client
      .prepare(
        "select coalesce(-sum(amount), 0) from movements where batch_id = ? and item_kind = 'product' and kind in ('poured', 'lost', 'thrown away')",
      )
      .pluck()
      .get(batchId),
  ) as number;
/** Less what was taken back by an entry that replaced another. */
const net = (batchId = BATCH): number =>
  withData((db) =>
    db.$client
      .prepare(
        "select coalesce(-sum(amount), 0) from movements where batch_id = ? and item_kind = 'product' and kind not in ('reserved', 'released', 'found', 'opened')",
      )
      .pluck()
      .get(batchId),
  ) as number;

test('a run writes its layer into the log, and what it took leaves the bottles, gram by gram', async () => {
  const id = await beginRun(BATCH, null);
  expect(await beginRun(BATCH, null)).toBe(id);
  await until(id, 'cover');
  const pours = withData((db) => currentPours(db, BATCH));
  expect(pours.map(({ layer }) => layer)).toEqual([1]);
  const { cups, tintLeft } = pours[0]!;
  const state = stateOf(id);
  const balance = balanceOf(state);
  const weighed = cups.reduce((sum, cup) => sum + cup.partAGrams + (cup.partBGrams ?? 0), 0);
  // A stock tint serves the batch; what is left of it left its bottles too.
  const left = tintLeft!.resinGrams;
  expect(left).toBeGreaterThan(0);
  const colour = [...cups.flatMap(({ doses = [] }) => doses), ...tintLeft!.colours].reduce(
    (sum, { grams }) => sum + grams,
    0,
  );
  expect(weighed + left + colour).toBeCloseTo(balance.mixedGrams, 1);
  expect(cups.reduce((sum, { pouredGrams = 0 }) => sum + pouredGrams, 0)).toBeCloseTo(balance.inPiecesGrams, 1);
  expect(cups.flatMap(({ pieces = [] }) => pieces).length).toBe(state.cups[0]!.poured.length);
  expect(net()).toBeCloseTo(weighed + left, 1);
  // A press back and on again is a correction, not a second pour.
  await takeEvents(id, [event({ type: 'back', step: stateOf(id).current!.id })]);
  await press(id, { grams: 1 });
  expect(withData((db) => currentPours(db, BATCH))).toHaveLength(1);
  expect(net()).toBeCloseTo(weighed + left, 1);
  expect(taken()).toBeGreaterThan(0);
});

test('of a run that was given up the rest is open everywhere, is poured in a run of its own, and the log is one', async () => {
  const batchId = (await command({ do: 'plan', setId: 'heron-slack', like: BATCH })).id!;
  const first = await beginRun(batchId, null);
  const pieces = runView(first)!.plan.layers[0]!.cups.flatMap(({ pours }) => pours.map(pieceKey));
  await until(first, 'pour');
  await press(first);
  await takeEvents(first, [event({ type: 'give up', why: 'a dam broke' })]);
  const mixedFirst = balanceOf(stateOf(first)).mixedGrams;
  // One piece has its water: the layer is begun, not poured; the count in the database is that of the pours themselves.
  const row = (): BatchRow['poured'] => withData((db) => getBatch(db, batchId)!.poured);
  const entries = () => withData((db) => currentPours(db, batchId));
  expect(row()).toMatchObject({ layers: 0, begun: 1, dry: pieces.length - 1 });
  const { amounts, request } = withData((db) => keptPlan(db, batchId)!);
  expect(dryPours(amounts.layers[0]!, entries()[0]!)).toHaveLength(pieces.length - 1);
  const desk = deskView('heron-slack')!;
  expect(
    batchRequest(
      desk,
      withData((db) => getBatch(db, batchId)!.data),
      openBatch('heron-slack', batchId)!.detail,
    )!.poured,
  ).toEqual([]);
  const works = withData((db) => pouredBatches(db, wallClockNow()).get('heron-slack')!);
  expect(works.find((work) => work.batchId === batchId)!.pours).toMatchObject([{ layer: 1, dry: pieces.length - 1 }]);
  expect(withData((db) => openBatches(db, wallClockNow())).map(({ id }) => id)).toContain(batchId);
  expect(workshopBench().batches.map(({ id }) => id)).toContain(batchId);
  const cups = amounts.layers[1]!.cups.map(({ number }) => ({ number, partAGrams: 1, partBGrams: 1, note: '' }));
  await expect(
    command({ do: 'pour', batchId, version: 1, layer: 2, pour: { ...entries()[0]!, layer: 2, cups } }),
  ).rejects.toThrow('Pour layer 1 first');

  const second = await beginRun(batchId, null);
  const [layer] = runView(second)!.plan.layers;
  const before = entries()[0]!.cups.map(({ number }) => number);
  expect(Math.min(...layer!.cups.map(({ number }) => number))).toBeGreaterThan(Math.max(...before));
  expect(layer!.cups.flatMap(({ pours }) => pours.map(pieceKey)).sort()).toEqual(
    dryPours(amounts.layers[0]!, entries()[0]!).map(pieceKey).sort(),
  );
  await until(second, 'cover');
  expect(row()).toMatchObject({ layers: 1, begun: 1, dry: 0 });
  const [entry, ...none] = entries();
  expect(none).toEqual([]);
  expect(entry!.cups.flatMap(({ pieces: own = [] }) => own.map(pieceKey)).sort()).toEqual([...pieces].sort());
  expect(entry!.note).toContain('given up: a dam broke');
  // Every gram of both runs is in the entry, and has left the bottles once.
  const { tintLeft, cups: mixed } = entry!;
  const product = mixed.reduce((sum, cup) => sum + cup.partAGrams + (cup.partBGrams ?? 0), tintLeft!.resinGrams);
  const colour = [...mixed.flatMap(({ doses = [] }) => doses), ...tintLeft!.colours].reduce(
    (sum, { grams }) => sum + grams,
    0,
  );
  expect(product + colour).toBeCloseTo(mixedFirst + balanceOf(stateOf(second)).mixedGrams, 1);
  expect(net(batchId)).toBeCloseTo(product, 1);
  expect(request.poured).toEqual([]);
  await takeEvents(second, [event({ type: 'give up', why: 'for this test' })]);
});

test('the rest is tinted with what is left of the stock tint, which leaves its bottles once', async () => {
  const { id: batchId } = await command({ do: 'plan', setId: 'heron-slack', like: BATCH });
  const { version, data } = withData((db) => getBatch(db, batchId!)!);
  await command({ do: 'put', kind: 'batch', id: batchId, version, data: { ...data, own: { cupGrams: 30 } } });
  const first = await beginRun(batchId!, null);
  await until(first, 'left');
  await takeEvents(first, [event({ type: 'give up', why: 'called away' })]);
  const [made] = stateOf(first).plan.layers;
  const second = await beginRun(batchId!, null);
  const [layer] = runView(second)!.plan.layers;
  expect(layer!.stock).toEqual(made!.stock);
  expect(layer!.stockKept!.leftGrams).toBeCloseTo(leftOfStock(stateOf(first), made!), 9);
  await until(second, 'cover');
  const { tintLeft, cups } = withData((db) => currentPours(db, batchId!))[0]!;
  expect(tintLeft!.resinGrams).toBeLessThan(layer!.stockKept!.leftGrams);
  const product = cups.reduce((sum, cup) => sum + cup.partAGrams + (cup.partBGrams ?? 0), tintLeft!.resinGrams);
  expect(net(batchId!)).toBeCloseTo(product, 1);
  await takeEvents(second, [event({ type: 'give up', why: 'for this test' })]);
});

test('presses that come twice, from two windows, or all at once, are taken once and in order', async () => {
  const id = await beginRun(BATCH, null);
  const before = stateOf(id);
  const step = before.current!.id;
  const one = event({ type: 'done', step });
  const two = event({ type: 'done', step });
  const [first, again] = await Promise.all([takeEvents(id, [one, one]), takeEvents(id, [one, two])]);
  expect(first!.length + again!.length).toBe(2);
  const after = stateOf(id);
  expect(after.done.size).toBe(before.done.size + 1);
  expect(after.refused.map((refused) => refused.why)).toContain('not this step now');
  const seqs = runView(id)!.events.map(({ seq }) => seq);
  expect(seqs).toEqual(seqs.map((_, i) => i + 1));
});

test('a run goes on when its batch is removed, says so, and the bottles know', async () => {
  const planned = await command({ do: 'plan', setId: 'heron-slack', like: BATCH });
  const batchId = planned.id!;
  const id = await beginRun(batchId, null);
  await until(id, 'pour');
  const version = (planned.changes[0] as { row: { version: number } }).row.version;
  await command({ do: 'remove', kind: 'batch', id: batchId, version });
  expect(runView(id)!.notice).toContain('removed');
  await press(id);
  const mixed = balanceOf(stateOf(id)).mixedGrams;
  const all = (): number =>
    withData((db) =>
      db.$client
        .prepare("select -sum(amount) from movements where item_kind = 'product' and kind <> 'bought'")
        .pluck()
        .get(),
    ) as number;
  const was = all();
  await takeEvents(id, [event({ type: 'give up', why: 'no batch any more' })]);
  expect(all() - was).toBeGreaterThan(mixed - 1);
  expect(openSummaries().some((run) => run.id === id)).toBe(false);
});

describe('a batch, or its set, that is removed while its run is on', () => {
  const remove = async (kind: 'batch' | 'set', id: string): Promise<EditAnswer> => {
    const version = withData((db) =>
      db.$client
        .prepare(`select version from ${kind === 'set' ? 'sets' : 'batches'} where id = ?`)
        .pluck()
        .get(id),
    );
    return command({ do: 'remove', kind, id, version });
  };
  const begun = async (): Promise<{ batchId: string; id: string }> => {
    const batchId = (await command({ do: 'plan', setId: 'heron-slack', like: BATCH })).id!;
    return { batchId, id: await beginRun(batchId, null) };
  };
  /** Product that the run says it weighed, its colourants left out. */
  const weighed = (id: string): number =>
    layersToLog(stateOf(id)).reduce(
      (all, { cups, tintLeft }) =>
        all + cups.reduce((sum, cup) => sum + cup.partAGrams + (cup.partBGrams ?? 0), tintLeft.resinGrams),
      0,
    );

  test.each(['batch', 'set'] as const)('%s: it is said, and what is poured is booked gram by gram', async (kind) => {
    const { batchId, id } = await begun();
    await until(id, 'pour');
    const removed = await remove(kind, kind === 'set' ? 'heron-slack' : batchId);
    expect(removed.note).toMatch(/A run of .* is on\. It goes on/);
    expect(runView(id)!.notice).toContain('removed');
    await until(id, 'cover');
    expect(weighed(id)).toBeGreaterThan(50);
    expect(net(batchId)).toBeCloseTo(weighed(id), 1);
    // Entered again by a press back and on, it is not booked twice.
    await takeEvents(id, [event({ type: 'back', step: stateOf(id).current!.id })]);
    await press(id, { grams: 1 });
    expect(net(batchId)).toBeCloseTo(weighed(id), 1);
    // Back by undo, the log has what was poured meanwhile, and nothing leaves the bottles once more.
    await command({ do: 'undo', scope: kind === 'set' ? 'sets' : 'set:heron-slack' });
    expect(withData((db) => currentPours(db, batchId)).map(({ layer }) => layer)).toEqual([1]);
    expect(net(batchId)).toBeCloseTo(weighed(id), 1);
    expect(runView(id)!.notice).toBeNull();
    await takeEvents(id, [event({ type: 'give up', why: 'enough' })]);
  });
  test('in the second run of a layer: what both have poured is booked once, and the log has both when it comes back', async () => {
    const { batchId, id: first } = await begun();
    await until(first, 'pour');
    await press(first);
    await takeEvents(first, [event({ type: 'give up', why: 'supper' })]);
    const second = await beginRun(batchId, null);
    await remove('batch', batchId);
    await until(second, 'cover');
    expect(net(batchId)).toBeCloseTo(weighed(first) + weighed(second), 1);
    await command({ do: 'undo', scope: 'set:heron-slack' });
    const [entry, ...none] = withData((db) => currentPours(db, batchId));
    expect(none).toEqual([]);
    const inLog = entry!.cups.reduce(
      (sum, cup) => sum + cup.partAGrams + (cup.partBGrams ?? 0),
      entry!.tintLeft!.resinGrams,
    );
    expect(inLog).toBeCloseTo(weighed(first) + weighed(second), 1);
    expect(net(batchId)).toBeCloseTo(inLog, 1);
    await takeEvents(second, [event({ type: 'give up', why: 'enough' })]);
  });
  test('planning it taken back is a removal too', async () => {
    const { batchId, id } = await begun();
    await until(id, 'pour');
    const back = await command({ do: 'undo', scope: 'set:heron-slack' });
    expect(back.note).toContain('is on. It goes on');
    await until(id, 'cover');
    expect(net(batchId)).toBeCloseTo(weighed(id), 1);
    await command({ do: 'redo', scope: 'set:heron-slack' });
    expect(withData((db) => currentPours(db, batchId))).toHaveLength(1);
    await takeEvents(id, [event({ type: 'give up', why: 'enough' })]);
  });
  test('a layer that was struck in the log stays struck', async () => {
    const { batchId, id } = await begun();
    await until(id, 'cover');
    const version = withData((db) => getBatch(db, batchId)!.version);
    await command({ do: 'pour', batchId, version, layer: 1, pour: null });
    await takeEvents(id, [event({ type: 'answer', clock: 'no-clock', did: 'a word' })]);
    const struck = withData((db) => currentPours(db, batchId));
    expect(struck.map(({ layer }) => layer)).toEqual([]);
    expect(net(batchId)).toBeCloseTo(0, 3);
    await takeEvents(id, [event({ type: 'give up', why: 'enough' })]);
  });
});

describe('the clock of the machine', () => {
  test('an hour back in mid-run: no press stands before the last, timers go on, and the run says so', async () => {
    const batchId = (await command({ do: 'plan', setId: 'heron-slack', like: BATCH })).id!;
    const id = await beginRun(batchId, null);
    await until(id, 'pour');
    const before = runView(id)!;
    const real = Date.now;
    const setBack = jest.spyOn(Date, 'now').mockImplementation(() => real() - 3_600_000);
    try {
      await press(id);
      const after = runView(id)!;
      const moments = after.events.map(({ event: { at } }) => at);
      expect(moments).toEqual([...moments].sort((a, b) => a - b));
      expect(after.serverNow).toBeGreaterThanOrEqual(before.serverNow);
      expect(after.serverNow - before.serverNow).toBeLessThan(60_000);
      expect(after.notice).toContain('set back 60 min');
      expect(stateOf(id).notes.filter(({ text }) => text.includes('set back 60 min'))).toHaveLength(1);
      // Said once.
      await takeEvents(id, [event({ type: 'back', step: stateOf(id).current!.id })]);
      expect(stateOf(id).notes.filter(({ text }) => text.includes('set back'))).toHaveLength(1);
    } finally {
      setBack.mockRestore();
    }
    expect(runView(id)!.notice).toBeNull();
    await takeEvents(id, [event({ type: 'give up', why: 'enough' })]);
  });
});

test('a run that is given up before anything reached a piece throws its cup away, once, and logs no pour', async () => {
  const planned = await command({ do: 'plan', setId: 'heron-slack', like: BATCH });
  const batchId = planned.id!;
  const id = await beginRun(batchId, null);
  await until(id, 'stir');
  const { mixedGrams } = balanceOf(stateOf(id));
  await takeEvents(id, [event({ type: 'give up', why: 'the phone' })]);
  expect(withData((db) => currentPours(db, batchId))).toEqual([]);
  const colour = stateOf(id)
    .cups.flatMap(({ putIn }) => putIn)
    .flatMap(({ colours }) => colours)
    .reduce((sum, { grams }) => sum + grams, 0);
  expect(taken(batchId)).toBeCloseTo(mixedGrams - colour, 1);
  await takeEvents(id, [event({ type: 'note', text: 'later' })]);
  expect(taken(batchId)).toBeCloseTo(mixedGrams - colour, 1);
  // Begun anew, the layer has taken that cup too: it stands in the log as thrown away, and does not come back into its bottle.
  const again = await beginRun(batchId, null);
  await until(again, 'cover');
  const [entry] = withData((db) => currentPours(db, batchId));
  expect(entry!.cups.filter(({ discarded }) => discarded)).toHaveLength(1);
  expect(entry!.note).toContain('given up: the phone');
  const product = entry!.cups.reduce(
    (sum, cup) => sum + cup.partAGrams + (cup.partBGrams ?? 0),
    entry!.tintLeft!.resinGrams,
  );
  expect(product).toBeGreaterThan(mixedGrams - colour + 50);
  expect(net(batchId)).toBeCloseTo(product, 1);
  await takeEvents(again, [event({ type: 'give up', why: 'for this test' })]);
});

test('practice leaves nothing on the shelf and nothing in the log', async () => {
  const movements = (): number =>
    withData((db) => db.$client.prepare('select count(*) from movements').pluck().get()) as number;
  const was = movements();
  const pours = withData((db) => currentPours(db, BATCH)).length;
  const id = await beginRun(BATCH, { speed: 10, seed: 3 });
  await until(id, 'wait');
  expect(movements()).toBe(was);
  expect(withData((db) => currentPours(db, BATCH))).toHaveLength(pours);
  expect(setRuns('heron-slack').find((run) => run.id === id)?.practiceSpeed).toBe(10);
  // Its clocks run in its own window; nobody else hears of them.
  expect(clocksOf(stateOf(id)).length).toBeGreaterThan(0);
  expect(openSummaries().find((run) => run.id === id)).toMatchObject({ set: 'Heron Slack', clocks: [] });
});

test('readings of the room are written down, reach what is curing, and become days of the calendar', async () => {
  const id = await beginRun(BATCH, null);
  const now = Date.now();
  for (const [i, value] of [19, 16, 22].entries()) {
    const [one] = await takeLines([{ device: 'room', value, unit: '°C', humidity: 0.5 }], 'test', now + i * 60_000);
    expect(one).toEqual({ ok: true, trouble: null });
  }
  const room = stateOf(id).room.map(({ temperatureC }) => temperatureC);
  expect(room.slice(-3).sort()).toEqual([16, 19, 22]);
  const [day] = measuredDays(wallClockNow());
  expect(day).toMatchObject({ dayC: 22, nightC: 16 });
  expect(await takeLines(['no reading'], 'test', now)).toEqual([
    { ok: false, trouble: 'An instrument sends text that is no reading.' },
  ]);
});

test('a file of readings is followed as it grows', async () => {
  const path = join(FOLDER, 'readings.jsonl');
  writeFileSync(path, '{"device":"scale","value":1}\n');
  process.env['AGUADA_READINGS'] = path;
  const stop = watchReadings();
  const latest = async (): Promise<number | undefined> =>
    ((await (await latestAnswer()).json()) as { latest: { scale?: { grams: number } } }).latest.scale?.grams;
  // What was there before is not news; a line that is not ended yet waits for its end.
  appendFileSync(path, '{"device":"scale","value":42.5}\n{"device":"sc');
  for (let tries = 0; tries < 80 && (await latest()) !== 42.5; tries++)
    await new Promise((resolve) => setTimeout(resolve, 100));
  expect(await latest()).toBe(42.5);
  appendFileSync(path, 'ale","value":7}\n');
  for (let tries = 0; tries < 80 && (await latest()) !== 7; tries++)
    await new Promise((resolve) => setTimeout(resolve, 100));
  expect(await latest()).toBe(7);
  stop();
  delete process.env['AGUADA_READINGS'];
});

test('a word after the pour goes into the log and moves nothing on the shelf', async () => {
  const id = await beginRun(BATCH, null);
  const count = (): number =>
    withData((db) => db.$client.prepare('select count(*) from movements').pluck().get()) as number;
  const was = count();
  await takeEvents(id, [event({ type: 'note', text: 'two bubbles at the bank' })]);
  const [pour] = withData((db) => currentPours(db, BATCH));
  expect(pour!.note).toContain('two bubbles at the bank');
  expect(count()).toBe(was);
});

test('a batch that is wholly poured, or cannot be, is not begun', async () => {
  await expect(beginRun('hs-batch-1', null)).rejects.toThrow('All layers of Creek tiles are poured.');
  await expect(beginRun('nowhere', null)).rejects.toThrow('no longer there');
});
