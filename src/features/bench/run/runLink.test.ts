import type { RunEvent } from '@/core/run/runSchema';
import { testRunPlan } from '@/core/run/testRuns';
import type { RunView } from '@/core/run/views';
import { RunLink, type LinkMeans } from './runLink';

/** A server that keeps events, and a browser before it; either can be away. */
class Bench {
  events: { seq: number; event: RunEvent }[] = [];
  away = false;
  /** Takes what comes, but its answer is lost. */
  deaf = false;
  full = false;
  kept = new Map<string, string>();
  timers: (() => void)[] = [];
  now = 1_000_000;
  posts = 0;
  #ids = 0;

  view(): RunView {
    return {
      run: {
        id: 'r',
        setId: 's',
        batchId: 'b',
        name: 'B',
        practiceSpeed: null,
        seed: 0,
        begunAt: 1_000_000,
        overAt: null,
      },
      plan: testRunPlan(),
      events: [...this.events],
      serverNow: this.now,
      units: { length: 'mm', mass: 'g', volume: 'ml', temperature: '°C', currency: '€' },
      measureBy: 'weight',
      notice: null,
      others: [],
    };
  }

  take(events: readonly RunEvent[]): { seq: number; event: RunEvent }[] {
    return events.flatMap((event) => {
      if (this.events.some((one) => one.event.id === event.id)) return [];
      const one = { seq: this.events.length + 1, event };
      this.events.push(one);
      return [one];
    });
  }

  means(window = 'w1'): LinkMeans {
    const { kept } = this;
    return {
      post: (events) => {
        this.posts++;
        if (this.away) return Promise.reject(new Error('away'));
        if (this.full) return Promise.resolve({ status: 507, body: { message: 'The disk is full.' } });
        const taken = this.take(events);
        return this.deaf
          ? Promise.reject(new Error('cut'))
          : Promise.resolve({ status: 200, body: { taken, serverNow: this.now } });
      },
      read: () => (this.away ? Promise.reject(new Error('away')) : Promise.resolve(this.view())),
      store: {
        getItem: (key) => kept.get(key) ?? null,
        setItem: (key, value) => void kept.set(key, value),
        removeItem: (key) => void kept.delete(key),
        key: (i) => [...kept.keys()][i] ?? null,
        get length() {
          return kept.size;
        },
      },
      ticks: () => this.now - 1_000_000,
      newId: () => `press-${String(this.#ids++).padStart(6, '0')}`,
      later: (run) => {
        this.timers.push(run);
        return () => void (this.timers = this.timers.filter((one) => one !== run));
      },
      window,
    };
  }

  async retry(): Promise<void> {
    const due = this.timers;
    this.timers = [];
    for (const run of due) run();
    await settled();
  }
}
const settled = async (): Promise<void> => {
  for (let i = 0; i < 20; i++) await Promise.resolve();
};
const press = (link: RunLink): string => link.press({ type: 'done', step: link.state.current!.id });

test('a press counts at once and is sent once', async () => {
  const bench = new Bench();
  const link = new RunLink(bench.view(), bench.means());
  press(link);
  expect(link.state.current?.id).toBe('ready.cups');
  expect(link.waiting).toBe(1);
  await settled();
  expect([link.waiting, bench.events.length, bench.kept.size]).toEqual([0, 1, 0]);
  expect(link.state.current?.id).toBe('ready.cups');
});

test('while the server is away presses are kept, in order, and sent once when it is back', async () => {
  const bench = new Bench();
  const link = new RunLink(bench.view(), bench.means());
  bench.away = true;
  for (let i = 0; i < 3; i++) press(link);
  await settled();
  expect(link.trouble).toMatchObject({ kind: 'away' });
  expect(link.waiting).toBe(3);
  await bench.retry();
  expect(link.waiting).toBe(3);
  bench.away = false;
  await bench.retry();
  expect(link.trouble).toBeNull();
  expect(bench.events.map(({ event }) => (event as { step?: string }).step)).toEqual([
    'ready.dams',
    'ready.cups',
    'L1.C1.1.A',
  ]);
});

test('an answer that is lost does not double a press', async () => {
  const bench = new Bench();
  const link = new RunLink(bench.view(), bench.means());
  bench.deaf = true;
  press(link);
  await settled();
  expect([bench.events.length, link.waiting]).toEqual([1, 1]);
  bench.deaf = false;
  await bench.retry();
  expect([bench.events.length, link.waiting]).toEqual([1, 0]);
  await link.catchUp();
  expect(link.state.current?.id).toBe('ready.cups');
});

test('presses survive a reload, and those of a closed window are taken up by the next', async () => {
  const bench = new Bench();
  bench.away = true;
  const first = new RunLink(bench.view(), bench.means());
  press(first);
  press(first);
  await settled();
  first.stop();
  bench.away = false;
  const second = new RunLink(bench.view(), bench.means('w2'));
  second.start();
  expect(second.waiting).toBe(2);
  await settled();
  expect([bench.events.length, second.waiting, bench.kept.size]).toEqual([2, 0, 0]);
});

test('a full disk is said, the run goes on, and nothing is lost', async () => {
  const bench = new Bench();
  const link = new RunLink(bench.view(), bench.means());
  bench.full = true;
  press(link);
  await settled();
  expect(link.trouble).toEqual({ kind: 'away', message: 'The disk is full.' });
  press(link);
  expect(link.state.current?.kind).toBe('weigh');
  await settled();
  bench.full = false;
  await bench.retry();
  expect(bench.events).toHaveLength(2);
});

test('what another window pressed is heard; a gap is read anew', async () => {
  const bench = new Bench();
  const one = new RunLink(bench.view(), bench.means('w1'));
  const other = new RunLink(bench.view(), bench.means('w2'));
  press(one);
  await settled();
  other.hear({ type: 'events', runId: 'r', events: [bench.events[0]!], serverNow: bench.now });
  expect(other.state.current?.id).toBe('ready.cups');
  // Both press the same step: one of them is told.
  const [mine, theirs] = [press(one), press(other)];
  await settled();
  one.hear({ type: 'events', runId: 'r', events: [bench.events[2]!], serverNow: bench.now });
  other.hear({ type: 'events', runId: 'r', events: [bench.events[1]!, bench.events[2]!], serverNow: bench.now });
  await settled();
  expect(one.state).toEqual(other.state);
  expect(one.state.done.size).toBe(2);
  expect(one.state.refused.map(({ id }) => id)).toEqual([theirs]);
  expect(mine).not.toBe(theirs);
  press(one);
  await settled();
  const late = new RunLink({ ...bench.view(), events: bench.view().events.slice(0, 1) }, bench.means('w3'));
  late.hear({ type: 'events', runId: 'r', events: [bench.events[3]!], serverNow: bench.now });
  await settled();
  expect(late.eventCount).toBe(4);
});

test('its clock is the server’s: a word that comes late does not put it back, a sleep puts it on', () => {
  const bench = new Bench();
  const means = bench.means();
  const link = new RunLink(bench.view(), means);
  link.hear({ type: 'runs', runs: [], serverNow: bench.now - 800 });
  expect(link.realNow()).toBe(bench.now);
  link.hear({ type: 'runs', runs: [], serverNow: bench.now + 30 });
  expect(link.realNow()).toBe(bench.now + 30);
  // The steady clock of a machine that slept stood still.
  link.hear({ type: 'runs', runs: [], serverNow: bench.now + 3_600_000 });
  expect(link.realNow()).toBe(bench.now + 3_600_000);
});
