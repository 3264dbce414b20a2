import { rmSync } from 'node:fs';
import Sqlite from 'better-sqlite3';
import { layersToLog } from '../src/core/run/record';
import { replay } from '../src/core/run/replay';
import { onScale } from '../src/core/run/say';
import type { RunState } from '../src/core/run/runState';
import type { RunView } from '../src/core/run/views';
import type { Dice } from './dice';
import { end, pause, sendEdit, serve, type Served } from './server';

/** What two windows, removals in mid-run and a clock that is set back came to. */
export interface WindowFigures {
  /** Marks of the calendar that were acknowledged, and how many of them are not there. */
  marks: number;
  marksLost: number;
  /** Runs whose batch was removed while they were on, and by how much ledger and run differ at the most, grams. */
  removed: number;
  gramsOff: number;
  /** Presses of a run that stand before the one before them. */
  before: number;
  /** Runs in which the clock jumped and that do not say so. */
  silent: number;
}

const BATCH = 'hs-batch-3';
const DESK = { view: 'desk', setId: 'heron-slack' };
const json = { 'content-type': 'application/json' };

/** The machine's clock of a server goes an hour back, or forth again, at a signal. */
const CLOCK = `--import=data:text/javascript,${encodeURIComponent(
  'let back = 0; const real = Date.now; Date.now = () => real() - back; process.on("SIGUSR2", () => (back = back ? 0 : 3600000));',
)}`;

export async function windows(data: string, rounds: number, dice: Dice): Promise<WindowFigures> {
  for (const ending of ['', '-wal', '-shm']) rmSync(`${data}${ending}`, { force: true });
  const figures: WindowFigures = { marks: 0, marksLost: 0, removed: 0, gramsOff: 0, before: 0, silent: 0 };
  const served = await serve(data, { NODE_OPTIONS: CLOCK });
  try {
    await sendEdit(served.url, { do: 'sample' }, { view: 'sets' });
    await twoWindows(served, rounds, dice, figures);
    for (let i = 0; i < rounds / 4; i++) await removedInRun(served, data, dice, figures);
    for (let i = 0; i < rounds / 4; i++) await clockBack(served, dice, figures);
  } finally {
    await end(served);
  }
  return figures;
}

interface Calendar {
  batches: { id: string; version: number; course: { marks: { step: string; pinned?: string }[] } }[];
}
const calendar = async ({ url }: Served): Promise<Calendar> =>
  (await (await fetch(`${url}/api/calendar`)).json()) as Calendar;

/** Two windows hold steps of one batch; each begins from what it read, and reads again when it is told that it is late. */
async function twoWindows(served: Served, rounds: number, dice: Dice, figures: WindowFigures): Promise<void> {
  const made = new Map<string, string>();
  const steps = ['cut', 'seal', 'trim', 'level', 'dams', 'paint'];
  const one = async (step: string, window: number): Promise<void> => {
    for (let i = 0; i < rounds; i++) {
      const { version, course } = (await calendar(served)).batches.find(({ id }) => id === BATCH)!;
      await pause(dice.whole(20));
      const pinned = `2026-12-0${1 + dice.whole(8)}T1${window}:0${i % 10}`;
      const marks = [...course.marks.filter((mark) => mark.step !== step), { step, pinned }];
      const reply = await sendEdit(
        served.url,
        { do: 'course', batches: [{ id: BATCH, version, course: { ...course, marks } }] },
        DESK,
      );
      if (reply?.status === 200) {
        made.set(step, pinned);
        figures.marks++;
      }
    }
  };
  await Promise.all([one(steps[0]!, 0), one(steps[1]!, 1), one(steps[2]!, 2)]);
  const { marks } = (await calendar(served)).batches.find(({ id }) => id === BATCH)!.course;
  for (const [step, pinned] of made)
    if (marks.find((mark) => mark.step === step)?.pinned !== pinned) figures.marksLost++;
}

let ids = 0;
async function press(served: Served, id: string, rest: object): Promise<void> {
  const event = { id: `torture-${String(ids++).padStart(8, '0')}`, at: Date.now(), by: 'torture', ...rest };
  await fetch(`${served.url}/api/runs/${id}/events`, { method: 'POST', headers: json, body: JSON.stringify([event]) });
}
const view = async (served: Served, id: string): Promise<RunView> =>
  (await (await fetch(`${served.url}/api/runs/${id}`)).json()) as RunView;
const stateOf = ({ plan, run, events }: RunView): RunState =>
  replay(
    plan,
    run.begunAt,
    events.map(({ event }) => event),
  );

/** Plans a batch like the sample's and begins it. */
async function begun(served: Served): Promise<{ batchId: string; version: number; id: string }> {
  const planned = await sendEdit(served.url, { do: 'plan', setId: 'heron-slack', like: BATCH }, DESK);
  const batchId = planned!.body.id!;
  const run = await fetch(`${served.url}/api/runs`, {
    method: 'POST',
    headers: json,
    body: JSON.stringify({ batchId }),
  });
  return { batchId, version: 1, id: ((await run.json()) as { id: string }).id };
}

/** Presses on until a step of this kind is next, or nothing is. */
async function until(served: Served, id: string, kind: string): Promise<void> {
  for (let i = 0; i < 150; i++) {
    const state = stateOf(await view(served, id));
    if (!state.current || state.current.kind === kind) return;
    const scale = onScale(state, state.current);
    const grams = scale && state.current.kind !== 'left' ? Math.abs(scale.stopGrams - scale.startGrams) : null;
    await press(served, id, { type: 'done', step: state.current.id, ...(grams !== null && { grams }) });
  }
}

async function removedInRun(served: Served, data: string, dice: Dice, figures: WindowFigures): Promise<void> {
  const { batchId, version, id } = await begun(served);
  await until(served, id, dice.one(['stir', 'pour', 'cover']));
  await sendEdit(served.url, { do: 'remove', kind: 'batch', id: batchId, version }, DESK);
  await sendEdit(served.url, { do: 'undo', scope: 'set:heron-slack' }, DESK);
  if (dice.whole(2) === 0) await sendEdit(served.url, { do: 'redo', scope: 'set:heron-slack' }, DESK);
  await until(served, id, 'cover');
  await press(served, id, { type: 'give up', why: 'enough' });
  figures.removed++;
  // With what of stock tints and premixes went into no cup.
  const weighed = layersToLog(stateOf(await view(served, id))).reduce(
    (sum, { cups, tintLeft }) =>
      cups.reduce((all, { partAGrams, partBGrams }) => all + partAGrams + (partBGrams ?? 0), sum + tintLeft.resinGrams),
    0,
  );
  const file = new Sqlite(data, { readonly: true });
  const left = file
    .prepare(
      "select coalesce(-sum(amount), 0) from movements where batch_id = ? and item_kind = 'product' and kind not in ('reserved', 'released', 'found', 'opened')",
    )
    .pluck()
    .get(batchId) as number;
  file.close();
  figures.gramsOff = Math.max(figures.gramsOff, Math.abs(left - weighed));
}

async function clockBack(served: Served, dice: Dice, figures: WindowFigures): Promise<void> {
  const { id } = await begun(served);
  await until(served, id, dice.one(['stir', 'pour']));
  served.process.kill('SIGUSR2');
  await pause(50);
  // A window whose own clock went back with it.
  const state = stateOf(await view(served, id));
  await press(served, id, { type: 'done', step: state.current!.id, at: Date.now() - 3_600_000 });
  const after = await view(served, id);
  if (!after.notice?.includes('set back')) figures.silent++;
  served.process.kill('SIGUSR2');
  await pause(50);
  await press(served, id, { type: 'give up', why: 'enough' });
  const moments = (await view(served, id)).events.map(({ event }) => event.at);
  figures.before += moments.filter((at, i) => i > 0 && at < moments[i - 1]!).length;
}
