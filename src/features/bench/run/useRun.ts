'use client';

import { useEffect, useState, useSyncExternalStore } from 'react';
import { clocksOf, ringing, type RunClock } from '@/core/run/clocks';
import type { RunEvent } from '@/core/run/runSchema';
import { runMoment, type LiveMessage, type RunView } from '@/core/run/views';
import { newKey } from '@/ui/newKey';
import { listenLive } from '../../desk/liveStream';
import { RunLink, type LinkMeans } from './runLink';

const WINDOW_KEY = 'aguada.window';

/** A name for this window that a reload keeps. */
export function windowName(): string {
  try {
    const known = sessionStorage.getItem(WINDOW_KEY);
    if (known) return known;
    const made = newKey().slice(0, 13);
    sessionStorage.setItem(WINDOW_KEY, made);
    return made;
  } catch {
    return 'window';
  }
}

/** A clock that does not follow the one on the wall, but knows of sleep: when the wall clock runs ahead of it, time has gone by unseen. */
function steadyTicks(): () => number {
  const wallFirst = Date.now();
  let slept = 0;
  return () => {
    const ticks = performance.now();
    const behind = Date.now() - wallFirst - ticks - slept;
    // Some systems stop the steady clock in sleep. A wall clock that is put on looks the same: the server's next word rights it.
    if (behind > 60_000) slept += behind;
    return ticks + slept;
  };
}

function browserMeans(runId: string): LinkMeans {
  const base = `/api/runs/${encodeURIComponent(runId)}`;
  return {
    post: async (events: readonly RunEvent[]) => {
      const response = await fetch(`${base}/events`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(events),
      });
      return { status: response.status, body: (await response.json()) as unknown };
    },
    read: async () => {
      const response = await fetch(base);
      return response.ok ? ((await response.json()) as RunView) : null;
    },
    store: localStorage,
    ticks: steadyTicks(),
    newId: newKey,
    later: (run, ms) => {
      const timer = setTimeout(run, ms);
      return () => clearTimeout(timer);
    },
    window: windowName(),
  };
}

/** On the server a link only shows what came with the page. */
const bareMeans = (serverNow: number): LinkMeans => ({
  post: () => Promise.reject(new Error('away')),
  read: () => Promise.resolve(null),
  store: null,
  ticks: () => serverNow,
  newId: () => '',
  later: () => () => undefined,
  window: '',
});

export type Hear = (message: LiveMessage) => void;

/** The link of this window to a run, alive as long as the page is. `hear` gets every message, readings too. */
export function useRun(view: RunView, hear: Hear): RunLink {
  const [link] = useState(
    () => new RunLink(view, typeof window === 'undefined' ? bareMeans(view.serverNow) : browserMeans(view.run.id)),
  );
  useSyncExternalStore(
    link.subscribe,
    () => link.version,
    () => 0,
  );
  useEffect(() => {
    link.start();
    const stop = listenLive({
      message: (message) => {
        link.hear(message);
        hear(message);
      },
      opened: () => void link.catchUp(),
      lost: () => undefined,
    });
    const woken = (): void => void (document.visibilityState === 'visible' && link.catchUp());
    document.addEventListener('visibilitychange', woken);
    return () => {
      stop();
      link.stop();
      document.removeEventListener('visibilitychange', woken);
    };
  }, [link, hear]);
  return link;
}

const TICK_MS = 200;

/** The moment on the run's clock, five times a second; on the server and in the first paint that of the answer. */
export function useMoment(link: RunLink, view: RunView): number {
  const [now, setNow] = useState(() => runMoment(view.run, view.serverNow));
  useEffect(() => {
    const timer = setInterval(() => setNow(link.now()), TICK_MS);
    return () => clearInterval(timer);
  }, [link]);
  return now;
}

/** A clock of this run or of another that is under way. */
export interface BenchClock {
  key: string;
  runId: string;
  /** Of another run: its set and what it is called. */
  run: string | null;
  name: string;
  words: string;
  kind: RunClock['kind'];
  answers: readonly string[];
  id: string;
  /** On this run's clock. */
  due: number;
  from: number;
  snoozedTo: number | null;
}

/** All clocks that this window minds: of its run, and of the others. */
export function benchClocks(link: RunLink, view: RunView): BenchClock[] {
  const own = clocksOf(link.state).map((clock): BenchClock => ({
    ...clock,
    key: `${view.run.id}/${clock.id}`,
    runId: view.run.id,
    run: null,
  }));
  const others = link.others.flatMap(({ id: runId, set, name, clocks }) =>
    clocks.map((clock): BenchClock => ({
      ...clock,
      key: `${runId}/${clock.id}`,
      runId,
      run: `${set}, ${name}`,
      from: clock.due,
      due: runMoment(view.run, clock.due),
      snoozedTo: clock.snoozedTo === null ? null : runMoment(view.run, clock.snoozedTo),
    })),
  );
  return [...own, ...others].sort((a, b) => (a.snoozedTo ?? a.due) - (b.snoozedTo ?? b.due));
}

export const ringingNow = (clocks: readonly BenchClock[], now: number): BenchClock[] =>
  ringing(clocks as unknown as RunClock[], now) as unknown as BenchClock[];

/** Answers a clock: of this run by a press, of another by a word to it. */
export function answerClock(link: RunLink, view: RunView, clock: BenchClock, did: string | { snooze: number }): void {
  const press =
    typeof did === 'string'
      ? ({ type: 'answer', clock: clock.id, did } as const)
      : ({ type: 'snooze', clock: clock.id, minutes: did.snooze } as const);
  if (clock.runId === view.run.id) return void link.press(press);
  const other = link.others.find(({ id }) => id === clock.runId);
  if (!other) return;
  const event = { ...press, id: newKey(), at: runMoment(other, link.realNow()), by: windowName() };
  void fetch(`/api/runs/${encodeURIComponent(clock.runId)}/events`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify([event]),
  }).catch(() => undefined);
}
