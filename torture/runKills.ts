import { rmSync } from 'node:fs';
import Sqlite from 'better-sqlite3';
import { layerIsPoured, layerRecord } from '../src/core/run/record';
import { replay } from '../src/core/run/replay';
import { onScale } from '../src/core/run/say';
import type { RunEvent } from '../src/core/run/runSchema';
import type { RunView } from '../src/core/run/views';
import { RunLink } from '../src/features/bench/run/runLink';
import type { Dice } from './dice';
import { kill, pause, sendEdit, serve } from './server';

/** What the kills of a run came to. */
export interface RunKillFigures {
  kills: number;
  presses: number;
  lost: number;
  doubled: number;
  /** Windows that came out elsewhere than the server. */
  astray: number;
  /** By how much the ledger and the run differ over what was poured, grams. */
  gramsOff: number;
  damaged: number;
}

const PAUSE_MS = 15;
const BETWEEN_KILLS_MS = 700;

/** A window of a run outside a browser: it presses, keeps, sends, as one inside does. */
function windowAt(name: string, view: RunView, url: () => string): RunLink {
  const kept = new Map<string, string>();
  let ids = 0;
  const json = { 'content-type': 'application/json' };
  return new RunLink(view, {
    post: async (events: readonly RunEvent[]) => {
      const response = await fetch(`${url()}/api/runs/${view.run.id}/events`, {
        method: 'POST',
        headers: json,
        body: JSON.stringify(events),
      });
      return { status: response.status, body: (await response.json()) as unknown };
    },
    read: async () => (await (await fetch(`${url()}/api/runs/${view.run.id}`)).json()) as RunView,
    store: {
      getItem: (key) => kept.get(key) ?? null,
      setItem: (key, value) => void kept.set(key, value),
      removeItem: (key) => void kept.delete(key),
      key: (i) => [...kept.keys()][i] ?? null,
      get length() {
        return kept.size;
      },
    },
    ticks: () => performance.now(),
    newId: () => `${name}-${String(ids++).padStart(7, '0')}`,
    later: (run, ms) => {
      const timer = setTimeout(run, Math.min(ms, 200));
      return () => clearTimeout(timer);
    },
    window: name,
  });
}

/** A press as a maker in a hurry makes it: mostly on, now and then back, over, noted, thrown away. */
function pressSomething(link: RunLink, dice: Dice): void {
  const state = link.stateNow();
  const { current, pending } = state;
  if (!current) return;
  const step = current.id;
  if (pending)
    return void link.press({ type: 'decide', step, choice: dice.one(['accept', 'mend', 'more', 'discard']) });
  const roll = dice.whole(20);
  if (roll === 0) return void link.press({ type: 'back', step });
  if (roll === 1) return void link.press({ type: 'note', text: `note ${dice.whole(1000)}` });
  if (roll === 2 && current.kind === 'dose') return void link.press({ type: 'drop', step, count: 1 });
  if (current.kind === 'wait' || current.kind === 'end') return void link.press({ type: 'back', step });
  const scale = onScale(state, current);
  const grams = scale && current.kind !== 'left' ? Math.abs(scale.stopGrams - scale.startGrams) : null;
  link.press({
    type: 'done',
    step,
    ...(grams !== null && { grams: grams * (roll === 3 ? 1.2 : 1) }),
    ...(current.kind === 'pour' && { anyway: 'in a hurry' }),
  });
}

/**
 * Two windows press a run without a pause while the server is killed again and again. In the end every press is in the file once, both
 * windows and the server stand at the same step, and what has left the bottles is what the run says it poured.
 */
export async function runKillLoop(data: string, kills: number, dice: Dice): Promise<RunKillFigures> {
  for (const ending of ['', '-wal', '-shm']) rmSync(`${data}${ending}`, { force: true });
  const figures: RunKillFigures = { kills: 0, presses: 0, lost: 0, doubled: 0, astray: 0, gramsOff: 0, damaged: 0 };
  let served = await serve(data);
  await sendEdit(served.url, { do: 'sample' }, { view: 'sets' });
  const begun = await fetch(`${served.url}/api/runs`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ batchId: 'hs-batch-3' }),
  });
  const { id } = (await begun.json()) as { id: string };
  const read = async (): Promise<RunView> => (await (await fetch(`${served.url}/api/runs/${id}`)).json()) as RunView;
  const first = await read();
  const windows = ['window-a', 'window-b'].map((name) => windowAt(name, first, () => served.url));
  const pressed = new Set<string>();
  let over = false;
  const pressing = windows.map(async (link) => {
    while (!over) {
      pressSomething(link, dice);
      figures.presses++;
      await pause(PAUSE_MS + dice.whole(PAUSE_MS));
      // Windows hear of each other.
      if (dice.whole(8) === 0) await link.catchUp();
    }
  });
  for (let round = 0; round < kills; round++) {
    await pause(BETWEEN_KILLS_MS + dice.whole(BETWEEN_KILLS_MS));
    await kill(served);
    figures.kills++;
    served = await serve(data);
  }
  await pause(BETWEEN_KILLS_MS);
  over = true;
  await Promise.all(pressing);
  for (let tries = 0; tries < 200 && windows.some(({ waiting }) => waiting > 0); tries++) await pause(50);
  await Promise.all(windows.map((link) => link.catchUp()));
  const last = await read();
  const state = replay(
    last.plan,
    last.run.begunAt,
    last.events.map(({ event }) => event),
  );
  figures.astray = windows.filter(
    (link) => JSON.stringify([...link.stateNow().done.keys()]) !== JSON.stringify([...state.done.keys()]),
  ).length;
  figures.lost =
    windows.reduce((sum, { waiting }) => sum + waiting, 0) +
    Math.max(
      0,
      figures.presses - last.events.filter(({ event }) => event.by.startsWith('window-')).length - noPress(windows),
    );
  for (const { event } of last.events) {
    if (pressed.has(event.id)) figures.doubled++;
    pressed.add(event.id);
  }
  await kill(served);
  const file = new Sqlite(data);
  figures.damaged = file.pragma('quick_check', { simple: true }) === 'ok' ? 0 : 1;
  const left = file
    .prepare(
      "select coalesce(-sum(amount), 0) from movements where batch_id = 'hs-batch-3' and item_kind = 'product' and kind not in ('reserved', 'released', 'found', 'opened')",
    )
    .pluck()
    .get() as number;
  const logged = file
    .prepare(
      // With what of stock tints and premixes went into no cup.
      `select coalesce(sum(coalesce(json_extract(p.tint_left, '$.resinGrams'), 0) + (
        select sum(w.part_a_grams + coalesce(w.part_b_grams, 0)) from weighings w where w.pour_id = p.id
      )), 0) from current_pours p where p.batch_id = 'hs-batch-3'`,
    )
    .pluck()
    .get() as number;
  file.close();
  const said = last.plan.layers.reduce((sum, { number }) => {
    const record = layerIsPoured(state, number) ? layerRecord(state, number) : null;
    const cups = record?.cups.reduce((all, cup) => all + cup.partAGrams + (cup.partBGrams ?? 0), 0) ?? 0;
    return sum + cups + (record?.tintLeft.resinGrams ?? 0);
  }, 0);
  figures.gramsOff = Math.max(
    Math.abs(left - logged),
    said > 0 && logged > 0 && layersAgree(state) ? Math.abs(said - logged) : 0,
  );
  return figures;
}

/** Presses that were none: the windows stood at the end of their run. */
const noPress = (windows: readonly RunLink[]): number =>
  windows.every((link) => link.stateNow().current) ? 0 : Infinity;

/** A layer that was gone back into after it was logged keeps its entry until it is poured again: then the log is ahead of the run. */
const layersAgree = (state: ReturnType<typeof replay>): boolean =>
  state.plan.layers.every(
    ({ number }) =>
      layerIsPoured(state, number) || !state.cups.some((cup) => cup.layer === number && cup.poured.length > 0),
  );
