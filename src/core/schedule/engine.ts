import { Earliest } from './earliest';
import type { Choice, Conflict, NetHold, NetLink, Network, State } from './network';

/** Updates of one step beyond which its times chase each other without end. */
const MOST_UPDATES = 400;

/** The engine under the search: the earliest times that follow from what is decided, and what is still in conflict. */
export class Engine {
  private readonly linksIn: NetLink[][];
  private readonly linksOut: NetLink[][];
  private readonly taskOfChoice: number[] = [];
  /** Nothing is looked for after it: the horizon, or sooner. */
  limit: number;
  /** The tasks among which conflicts are looked for; null: all. */
  within: Uint8Array | null = null;

  constructor(readonly net: Network) {
    this.limit = net.horizon;
    this.linksIn = net.tasks.map(() => []);
    this.linksOut = net.tasks.map(() => []);
    for (const link of net.links) {
      this.linksIn[link.to]!.push(link);
      this.linksOut[link.from]!.push(link);
    }
    net.tasks.forEach(({ onlyIf }, i) => onlyIf !== null && (this.taskOfChoice[onlyIf] = i));
  }

  /** Nothing decided. Null when even so nothing fits. */
  root(): State | null {
    const { tasks, makers, choices } = this.net;
    const state: State = {
      start: Float64Array.from(tasks, ({ earliest, fixed }) => fixed?.from ?? earliest),
      end: Float64Array.from(tasks, ({ earliest, fixed }) => fixed?.to ?? earliest),
      maker: new Int8Array(tasks.length).fill(makers === 1 ? 0 : -1),
      choice: Array.from({ length: choices }, () => 'open'),
      arcsIn: tasks.map(() => null),
      arcsOut: tasks.map(() => null),
    };
    return this.settle(
      state,
      tasks.map((_, i) => i),
    )
      ? state
      : null;
  }

  copy(state: State): State {
    return {
      start: state.start.slice(),
      end: state.end.slice(),
      maker: state.maker.slice(),
      choice: [...state.choice],
      arcsIn: [...state.arcsIn],
      arcsOut: [...state.arcsOut],
    };
  }

  /** One more thing decided: `first` ends before `then` begins. Null when that cannot be. */
  ordered(state: State, first: number, then: number): State | null {
    if (first === then || this.comesBefore(state, then, first)) return null;
    const next = this.copy(state);
    this.addArc(next, first, then);
    return this.settle(next, [then, first]) ? next : null;
  }

  /** Many orders at once, as a plan that is there has them. */
  orderedAll(state: State, pairs: readonly (readonly [number, number])[]): State | null {
    const next = this.copy(state);
    for (const [first, then] of pairs) this.addArc(next, first, then);
    return this.settle(next, [...new Set(pairs.flat())]) ? next : null;
  }

  assigned(state: State, task: number, maker: number): State | null {
    const next = this.copy(state);
    next.maker[task] = maker;
    return this.settle(next, [task]) ? next : null;
  }

  chosen(state: State, choice: number, as: Choice): State | null {
    const next = this.copy(state);
    next.choice[choice] = as;
    const touched = this.net.links.flatMap((link) => (link.choice === choice ? [link.from, link.to] : []));
    const extra = this.taskOfChoice[choice];
    return this.settle(next, extra === undefined ? touched : [...touched, extra]) ? next : null;
  }

  private addArc(state: State, first: number, then: number): void {
    state.arcsIn[then] = { other: first, next: state.arcsIn[then] ?? null };
    state.arcsOut[first] = { other: then, next: state.arcsOut[first] ?? null };
  }

  /** True when `a` must be over before `b` by what is decided so far. */
  comesBefore(state: State, a: number, b: number): boolean {
    const seen = new Uint8Array(this.net.tasks.length);
    const stack = [a];
    while (stack.length > 0) {
      const at = stack.pop()!;
      if (at === b) return true;
      if (seen[at]) continue;
      seen[at] = 1;
      // A step that is held or done stands where it is, whatever should have come before it.
      for (const { to } of this.linksOut[at]!) if (!this.net.tasks[to]!.fixed) stack.push(to);
      for (let arc = state.arcsOut[at] ?? null; arc; arc = arc.next) stack.push(arc.other);
    }
    return false;
  }

  /** True when a step is done at all: repairs of recoat windows are only where one is missed. */
  isDone(state: State, task: number): boolean {
    const { onlyIf } = this.net.tasks[task]!;
    return onlyIf === null || state.choice[onlyIf] === 'abrade';
  }

  private fit(state: State, task: number, at: number): { start: number; end: number } {
    const { calendars, minutes, mayPause, hands } = this.net.tasks[task]!;
    if (hands === 0 || minutes === 0 || !this.isDone(state, task))
      return { start: at, end: at + (this.isDone(state, task) ? minutes : 0) };
    const maker = hands === 2 ? 0 : state.maker[task]!;
    let best = { start: Infinity, end: Infinity };
    for (let i = maker < 0 ? 0 : maker; i < (maker < 0 ? calendars.length : maker + 1); i++) {
      const start = calendars[i]!.fit(at, minutes, mayPause);
      if (start === Infinity) continue;
      const end = calendars[i]!.endOf(start, minutes, mayPause);
      // Of several makers each bound is the least that any of them allows.
      best = { start: Math.min(best.start, start), end: Math.min(best.end, end) };
    }
    return best;
  }

  /** The earliest start from which a step ends at `end` or later. */
  private startFor(state: State, task: number, end: number, from: number): number {
    const { minutes, mayPause } = this.net.tasks[task]!;
    const done = this.isDone(state, task) ? minutes : 0;
    if (!mayPause) return end - done;
    let low = from;
    let high = Math.max(from, end);
    while (low < high) {
      const middle = Math.floor((low + high) / 2);
      if (this.fit(state, task, middle).end >= end) high = middle;
      else low = middle + 1;
    }
    return low;
  }

  /** Raises times until everything decided holds; false when that goes past the horizon or a pin. */
  private settle(state: State, dirty: readonly number[]): boolean {
    const { tasks } = this.net;
    const { start, end } = state;
    // Earliest first: what comes before has mostly settled by the time its followers are looked at.
    const queue = new Earliest(start);
    const updates = new Uint16Array(tasks.length);
    for (const task of dirty) queue.push(task);
    for (let i = queue.pop(); i >= 0; i = queue.pop()) {
      const { fixed, pin } = tasks[i]!;
      if (fixed) continue;
      const wanted = this.earliestStart(state, i);
      if (pin !== null && wanted > pin) return false;
      const fitted = this.fit(state, i, pin ?? wanted);
      if (fitted.end > this.limit || (pin !== null && fitted.start > pin)) return false;
      if (this.missesDone(state, i, fitted.start)) return false;
      const moved = fitted.start !== start[i] || fitted.end !== end[i];
      if (!moved && updates[i]! > 0) continue;
      start[i] = fitted.start;
      end[i] = fitted.end;
      if (++updates[i]! > MOST_UPDATES || !this.pushFollowers(state, i, queue)) return false;
    }
    return true;
  }

  private isKept(state: State, choice: number | null): boolean {
    return choice === null || state.choice[choice] === 'keep';
  }

  /** The earliest start of a task after all that comes before it, and late enough that the windows it opens are kept. */
  private earliestStart(state: State, i: number): number {
    const { tasks } = this.net;
    const { start, end } = state;
    let at = Math.max(start[i]!, tasks[i]!.earliest);
    for (const { from, least } of this.linksIn[i]!) at = Math.max(at, least ? least.after(end[from]!) : end[from]!);
    for (let arc = state.arcsIn[i] ?? null; arc; arc = arc.next) at = Math.max(at, end[arc.other]!);
    for (const { to, most, choice } of this.linksOut[i]!)
      if (most && !tasks[to]!.fixed && this.isKept(state, choice) && start[to]! > most.after(end[i]!))
        at = Math.max(at, this.startFor(state, i, most.before(start[to]!), start[i]!));
    return at;
  }

  /** Whether a start is too late for a window that something done has opened: that cannot move to keep it open. */
  private missesDone(state: State, i: number, at: number): boolean {
    return this.linksIn[i]!.some(
      ({ from, most, choice }) =>
        most !== null &&
        this.net.tasks[from]!.fixed !== null &&
        this.isKept(state, choice) &&
        at > most.after(state.end[from]!),
    );
  }

  /** Has looked at again what a task that has moved may move: false where that is done already. */
  private pushFollowers(state: State, i: number, queue: Earliest): boolean {
    const { tasks } = this.net;
    const push = (task: number): void => {
      if (!tasks[task]!.fixed) queue.push(task);
    };
    for (const { to } of this.linksOut[i]!) push(to);
    for (const { from, most, choice } of this.linksIn[i]!)
      if (most && this.isKept(state, choice) && state.start[i]! > most.after(state.end[from]!)) push(from);
    for (let arc = state.arcsOut[i] ?? null; arc; arc = arc.next) {
      if (tasks[arc.other]!.fixed && state.end[i]! > state.start[arc.other]!) return false;
      push(arc.other);
    }
    return true;
  }

  private counts(task: number): boolean {
    return this.within === null || this.within[task] === 1;
  }

  /** What of a state cannot stand, earliest first; null when it is a plan. */
  conflict(state: State): Conflict | null {
    const missed = this.missedWindow(state);
    if (missed !== null) return { kind: 'window', choice: missed };
    const hands = this.handsConflict(state);
    const place = this.placeConflict(state);
    if (hands && place) return hands.at <= place.at ? hands : place;
    return hands ?? place ?? this.unassigned(state);
  }

  /** A step with pauses whose earliest start and earliest end are those of different makers. */
  private unassigned(state: State): Conflict | null {
    const task = this.net.tasks.findIndex(
      ({ fixed, hands, minutes }, i) =>
        !fixed && this.counts(i) && hands === 1 && minutes > 0 && state.maker[i]! < 0 && this.makerFor(state, i) < 0,
    );
    return task < 0 ? null : { kind: 'hands', first: task, then: task, open: task, at: state.start[task]! };
  }

  /** Who does a step of a plan: who was chosen, or the first who can at that time; -1 where nobody can. */
  makerFor(state: State, task: number): number {
    if (state.maker[task]! >= 0) return state.maker[task]!;
    const { calendars, minutes, mayPause } = this.net.tasks[task]!;
    const from = state.start[task]!;
    return calendars.findIndex(
      (calendar) =>
        calendar.fit(from, minutes, mayPause) === from && calendar.endOf(from, minutes, mayPause) === state.end[task],
    );
  }

  private missedWindow(state: State): number | null {
    let first: { choice: number; at: number } | null = null;
    for (const { from, to, most, choice } of this.net.links) {
      if (!most || choice === null || state.choice[choice] !== 'open' || this.net.tasks[to]!.fixed) continue;
      if (!this.counts(to)) continue;
      if (state.start[to]! > most.after(state.end[from]!) && (!first || state.start[to]! < first.at))
        first = { choice, at: state.start[to]! };
    }
    return first?.choice ?? null;
  }

  private handsConflict(state: State): (Conflict & { kind: 'hands' }) | null {
    const { tasks, makers } = this.net;
    const { start, end, maker } = state;
    const busy: number[] = [];
    tasks.forEach(({ hands }, i) => {
      if (hands > 0 && end[i]! > start[i]! && this.counts(i) && this.isDone(state, i)) busy.push(i);
    });
    busy.sort((a, b) => start[a]! - start[b]! || a - b);
    let active: number[] = [];
    for (const i of busy) {
      active = active.filter((j) => end[j]! > start[i]!);
      for (const j of active) {
        if (tasks[i]!.fixed && tasks[j]!.fixed) continue;
        const both = tasks[i]!.hands === 2 || tasks[j]!.hands === 2;
        if (!both && maker[i]! >= 0 && maker[j]! >= 0 && maker[i] !== maker[j]) continue;
        const open = both || makers === 1 ? -1 : maker[j]! < 0 ? j : maker[i]! < 0 ? i : -1;
        return { kind: 'hands', first: j, then: i, open, at: start[i]! };
      }
      active.push(i);
    }
    return null;
  }

  private placeConflict(state: State): (Conflict & { kind: 'place' }) | null {
    const { holds, capacities, tasks } = this.net;
    let first: (Conflict & { kind: 'place' }) | null = null;
    for (let place = 0; place < capacities.length; place++) {
      const capacity = capacities[place]!;
      const here = holds
        .filter(
          (hold) => hold.place === place && this.counts(hold.from) && state.end[hold.to]! > state.start[hold.from]!,
        )
        .sort((a, b) => state.start[a.from]! - state.start[b.from]!);
      let active: NetHold[] = [];
      for (const hold of here) {
        const at = state.start[hold.from]!;
        if (first && at >= first.at) break;
        active = [...active.filter(({ to }) => state.end[to]! > at), hold];
        let sum = active.reduce((all, { amount }) => all + amount, 0);
        // What stands there already stands there, however full that is.
        if (sum <= capacity || tasks[hold.from]!.fixed) continue;
        // As few of them as are too many with this one.
        let set = [...active].sort((a, b) => a.amount - b.amount);
        for (const one of [...set]) {
          if (one !== hold && set.length > 2 && sum - one.amount > capacity) {
            set = set.filter((other) => other !== one);
            sum -= one.amount;
          }
        }
        first = { kind: 'place', holds: set, at };
        break;
      }
    }
    return first;
  }

  /** Every way in which a conflict can be solved, as far as it can. */
  ways(state: State, conflict: Conflict): State[] {
    const found: (State | null)[] = [];
    if (conflict.kind === 'window') {
      found.push(this.chosen(state, conflict.choice, 'keep'), this.chosen(state, conflict.choice, 'abrade'));
    } else if (conflict.kind === 'hands') {
      const { first, then, open } = conflict;
      if (open >= 0)
        for (let maker = 0; maker < this.net.makers; maker++) found.push(this.assigned(state, open, maker));
      else found.push(this.ordered(state, first, then), this.ordered(state, then, first));
    } else {
      for (const a of conflict.holds)
        for (const b of conflict.holds)
          if (a !== b && !this.net.tasks[b.from]!.fixed) found.push(this.ordered(state, a.to, b.from));
    }
    return found.filter((way) => way !== null);
  }
}
