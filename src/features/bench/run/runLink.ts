import { replay } from '@/core/run/replay';
import type { RunState } from '@/core/run/runState';
import { runEventsSchema, type RunEvent } from '@/core/run/runSchema';
import { realMoment, runMoment, type LiveMessage, type RunSummary, type RunView } from '@/core/run/views';

/** What a press says; who, when and under which id is added here. */
export type Press = RunEvent extends infer E ? (E extends RunEvent ? Omit<E, 'id' | 'at' | 'by'> : never) : never;

/** How a link speaks to the server and remembers: given from outside, so that it can be tried without either. */
export interface LinkMeans {
  /** Sends presses; rejects when there is no answer. */
  post: (events: readonly RunEvent[]) => Promise<{ status: number; body: unknown }>;
  /** Reads the whole run again. */
  read: () => Promise<RunView | null>;
  /** Presses that are not sent yet, in this browser. */
  store: Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'> | null;
  /** A clock that only goes on, ms: what is set on the wall does not move it. */
  ticks: () => number;
  newId: () => string;
  later: (run: () => void, ms: number) => () => void;
  /** Which window this is. */
  window: string;
}

export type LinkTrouble = { kind: 'away' | 'refused'; message: string } | null;

const RETRY_MS = [500, 1000, 2000, 4000, 8000] as const;
const prefixOf = (runId: string): string => `aguada.presses.${runId}.`;

/**
 * A window's hold on a run. Presses count at once, here; they are kept in this browser until the server has them, are sent once and in
 * order, and come back with their place among those of other windows.
 */
export class RunLink {
  readonly #means: LinkMeans;
  readonly #view: RunView;
  #confirmed: { seq: number; event: RunEvent }[];
  #waiting: RunEvent[] = [];
  #others: RunSummary[];
  #ahead: number;
  #trouble: LinkTrouble = null;
  #sending = false;
  #tries = 0;
  #stopRetry: (() => void) | null = null;
  #listeners = new Set<() => void>();
  #state: RunState | null = null;
  #version = 0;

  constructor(view: RunView, means: LinkMeans) {
    this.#view = view;
    this.#means = means;
    this.#confirmed = [...view.events];
    this.#others = view.others;
    this.#ahead = view.serverNow - means.ticks();
  }

  /** The server's moment, ms since 1970, as far as this window knows. */
  readonly realNow = (): number => this.#means.ticks() + this.#ahead;
  /** The moment on the run's own clock. */
  readonly now = (): number => runMoment(this.#view.run, this.realNow());
  readonly real = (moment: number): number => realMoment(this.#view.run, moment);

  get version(): number {
    return this.#version;
  }
  get trouble(): LinkTrouble {
    return this.#trouble;
  }
  get waiting(): number {
    return this.#waiting.length;
  }
  get others(): readonly RunSummary[] {
    return this.#others;
  }
  get eventCount(): number {
    return this.#confirmed.length;
  }

  /** The run as it stands for this window: what the server has, and what it will have. */
  get state(): RunState {
    this.#state ??= replay(this.#view.plan, this.#view.run.begunAt, [
      ...this.#confirmed.map(({ event }) => event),
      ...this.#waiting,
    ]);
    return this.#state;
  }

  /** The same, asked for at the moment of a press. */
  readonly stateNow = (): RunState => this.state;

  subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => void this.#listeners.delete(listener);
  };

  /** Takes up what this browser still has from before, and sends it. */
  start(): void {
    this.#waiting = [...this.#kept(), ...this.#waiting];
    if (this.#waiting.length === 0) return;
    this.#changed();
    void this.#flush();
  }

  stop(): void {
    this.#stopRetry?.();
  }

  /** A press: it counts at once, and is sent as soon as it can be. Its id. */
  press(press: Press): string {
    const event = { ...press, id: this.#means.newId(), at: Math.round(this.now()), by: this.#means.window } as RunEvent;
    this.#waiting = [...this.#waiting, event];
    this.#keep();
    this.#changed();
    void this.#flush();
    return event.id;
  }

  /** What the server tells while it is listened to. */
  hear(message: LiveMessage): void {
    if (message.type === 'runs') {
      this.#others = message.runs.filter(({ id }) => id !== this.#view.run.id);
      this.#setClock(message.serverNow);
      this.#changed();
    }
    if (message.type !== 'events' || message.runId !== this.#view.run.id) return;
    this.#setClock(message.serverNow);
    const last = this.#confirmed.at(-1)?.seq ?? 0;
    if ((message.events[0]?.seq ?? 0) > last + 1) void this.catchUp();
    else this.#merge(message.events);
  }

  /** Reads what was missed: after a sleep, a restart, a gap. */
  async catchUp(): Promise<void> {
    try {
      const view = await this.#means.read();
      if (!view) return;
      this.#setClock(view.serverNow);
      this.#others = view.others;
      this.#confirmed = [...view.events];
      this.#drop(new Set(view.events.map(({ event }) => event.id)));
      this.#trouble = null;
      this.#changed();
      if (this.#waiting.length > 0) void this.#flush();
    } catch {
      // Still away: the next try, or the next message, comes here again.
    }
  }

  #setClock(serverNow: number): void {
    const ahead = serverNow - this.#means.ticks();
    // Answers come late, never early: the one that took least time is nearest the truth; a machine that slept shifts it for good.
    if (ahead > this.#ahead || this.#ahead - ahead > 2000) this.#ahead = ahead;
  }

  #merge(events: readonly { seq: number; event: RunEvent }[]): void {
    const last = this.#confirmed.at(-1)?.seq ?? 0;
    const fresh = events.filter(({ seq }) => seq > last);
    if (fresh.length > 0) this.#confirmed = [...this.#confirmed, ...fresh];
    this.#drop(new Set(events.map(({ event }) => event.id)));
    this.#changed();
  }

  #drop(ids: ReadonlySet<string>): void {
    const left = this.#waiting.filter(({ id }) => !ids.has(id));
    if (left.length === this.#waiting.length) return;
    this.#waiting = left;
    this.#keep();
  }

  async #flush(): Promise<void> {
    if (this.#sending || this.#waiting.length === 0) return;
    this.#sending = true;
    this.#stopRetry?.();
    const sent = this.#waiting.slice(0, 500);
    try {
      const { status, body } = await this.#means.post(sent);
      const answer = body as { taken?: { seq: number; event: RunEvent }[]; serverNow?: number; message?: string };
      if (status < 300 && answer.taken) {
        this.#tries = 0;
        this.#trouble = null;
        if (answer.serverNow !== undefined) this.#setClock(answer.serverNow);
        const last = this.#confirmed.at(-1)?.seq ?? 0;
        if ((answer.taken[0]?.seq ?? 0) > last + 1) await this.catchUp();
        else this.#merge(answer.taken);
        // Those that were there already are not given back again.
        this.#drop(new Set(sent.map(({ id }) => id)));
      } else if (status === 422 || status === 404 || status === 409) {
        // It can never be taken: it is said, and no longer stands in the way.
        this.#drop(new Set(sent.map(({ id }) => id)));
        this.#trouble = { kind: 'refused', message: answer.message ?? 'A press was not taken.' };
      } else this.#away(answer.message ?? 'Aguada does not take presses just now.');
    } catch {
      this.#away('Aguada does not answer.');
    }
    this.#sending = false;
    this.#changed();
    if (this.#waiting.length > 0 && this.#trouble?.kind !== 'away') void this.#flush();
  }

  #away(why: string): void {
    this.#trouble = { kind: 'away', message: why };
    const wait = RETRY_MS[Math.min(this.#tries, RETRY_MS.length - 1)]!;
    this.#tries++;
    this.#stopRetry = this.#means.later(() => void this.#flush(), wait);
  }

  #changed(): void {
    this.#state = null;
    this.#version++;
    for (const listener of this.#listeners) listener();
  }

  /** Presses that this browser kept, of this window and of windows that were closed before they could send them. */
  #kept(): RunEvent[] {
    const { store } = this.#means;
    if (!store) return [];
    const found: RunEvent[] = [];
    const have = new Set(this.#confirmed.map(({ event }) => event.id));
    try {
      for (const key of keysOf(store, prefixOf(this.#view.run.id))) {
        const read = runEventsSchema.safeParse(JSON.parse(store.getItem(key) ?? 'null'));
        if (read.success) found.push(...read.data);
      }
    } catch {
      // What cannot be read was never a press.
    }
    const ids = new Set<string>();
    return found.filter(({ id }) => !have.has(id) && !ids.has(id) && ids.add(id)).sort((a, b) => a.at - b.at);
  }

  #keep(): void {
    const { store, window } = this.#means;
    const key = `${prefixOf(this.#view.run.id)}${window}`;
    try {
      if (this.#waiting.length === 0)
        for (const one of keysOf(store, prefixOf(this.#view.run.id))) store?.removeItem(one);
      else store?.setItem(key, JSON.stringify(this.#waiting));
    } catch {
      // A store that is full or forbidden costs a press its safety across a reload, nothing else.
    }
  }
}

const keysOf = (store: LinkMeans['store'], prefix: string): string[] =>
  store
    ? Array.from({ length: store.length }, (_, i) => store.key(i)).filter(
        (key): key is string => key?.startsWith(prefix) ?? false,
      )
    : [];
