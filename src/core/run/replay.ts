import { fromBottle } from '../pouring/portions';
import { pouredDensity } from '../mixing/ratio';
import { pieceKey } from '../model/pieceRef';
import { RunAside } from './aside';
import { RunCups, type Recut } from './cups';
import { inCupGrams, isUnmixed, mixedGrams, restOf, surfaceOf, type CupState } from './cupState';
import { allCured, recoatWindow } from './cureMoment';
import { PART_TOLERANCE, weighVerdict } from './overPoured';
import type { Pending, Refusal, RunState } from './runState';
import type { RunEvent, RunEventOf, RunPlan } from './runSchema';
import { LEAST_SHORT_GRAMS, shortfall } from './shortfall';
import { cupSteps, LIVE_STEPS, runSteps, type RunStep } from './steps';

type Acting = RunEventOf<'done' | 'skip' | 'decide'> | Recut;

/** What was done, in order: going back takes the last of these away again. */
interface Deed {
  event: Acting;
  /** The grams that a `decide` is about. */
  grams?: number;
  drops?: number;
}

/** A piece or portion that got less than this share of its grams was not poured: the press came too early, or the scale was not under the cup. */
const LEAST_POURED_SHARE = 0.05;
/** What may be read too much of a cup before it is refused: a drop of tint, a scale that drifted. */
const READING_SLACK_GRAMS = 1;

/** Builds a run's state up, event by event. What the rules do not allow changes nothing and is noted as refused. */
export class RunBook {
  readonly #plan: RunPlan;
  readonly #begunAt: number;
  readonly #aside: RunAside;
  readonly #cups: RunCups;
  #deeds: Deed[] = [];
  #steps: RunStep[] = [];
  #next = 0;
  #pending: Pending | null = null;
  #drops = new Map<string, number>();
  #seen = new Set<string>();
  #refused: { id: string; why: Refusal }[] = [];
  #over: RunState['over'] = null;

  constructor(plan: RunPlan, begunAt: number) {
    this.#plan = plan;
    this.#begunAt = begunAt;
    this.#aside = new RunAside(plan, begunAt);
    this.#cups = new RunCups(plan, this.#aside);
    this.#build();
  }

  /** Takes one event; null when it was taken, else why not. One that was taken before is not taken again. */
  apply(event: RunEvent): Refusal | null {
    if (this.#seen.has(event.id)) return null;
    this.#seen.add(event.id);
    const why = this.#take(event);
    if (why) this.#refused.push({ id: event.id, why });
    return why;
  }

  state(): RunState {
    return {
      plan: this.#plan,
      begunAt: this.#begunAt,
      steps: this.#steps,
      since: this.#cups.since,
      current: this.#over ? null : (this.#steps[this.#next] ?? null),
      cups: [...this.#cups.all],
      thrownAway: [...this.#cups.thrownAway],
      done: new Map(this.#cups.done),
      pending: this.#pending,
      drops: this.#drops.get(this.#steps[this.#next]?.id ?? '') ?? 0,
      ...this.#aside.state(),
      refused: [...this.#refused],
      over: this.#over,
    };
  }

  #take(event: RunEvent): Refusal | null {
    if (this.#over && event.type !== 'note' && event.type !== 'answer' && event.type !== 'room')
      return 'the run is over';
    switch (event.type) {
      case 'done':
      case 'skip':
      case 'decide':
      case 'discard':
      case 'return':
      case 'leave':
      case 'lower':
      case 'fresh':
      case 'filler':
        return this.#act(event);
      case 'drop':
        return this.#drop(event);
      case 'back':
        return this.#back(event);
      case 'contact': {
        const cup = this.#cups.cup(event.cup);
        if (!cup || cup.closedAt !== null) return 'nothing of the kind';
        this.#cups.meet(cup, event.at);
        return null;
      }
      case 'answer':
      case 'snooze':
      case 'bottle':
      case 'timer':
      case 'room':
      case 'note':
      case 'slip':
        return this.#aside.take(event, this.#cups.done);
      case 'give up':
        this.#over = { at: event.at, how: 'given up', why: event.why };
        return null;
      case 'finish': {
        const current = this.#steps[this.#next];
        if (current && !LIVE_STEPS[current.kind].mayEnd) return 'not this step now';
        this.#over = { at: event.at, how: 'finished', why: null };
        return null;
      }
    }
  }

  #drop({ step, count }: RunEventOf<'drop'>): Refusal | null {
    const current = this.#steps[this.#next];
    if (current?.id !== step || current.kind !== 'dose') return 'not this step now';
    this.#drops.set(step, Math.max(0, (this.#drops.get(step) ?? 0) + count));
    return null;
  }

  #back({ step }: RunEventOf<'back'>): Refusal | null {
    const current = this.#steps[this.#next];
    if (current && current.id !== step) return 'not this step now';
    if (this.#pending) {
      this.#pending = null;
      return null;
    }
    if (this.#deeds.length === 0) return 'nothing to go back to';
    this.#deeds.pop();
    this.#build();
    return null;
  }

  /** Everything anew from what was done. */
  #build(): void {
    const deeds = this.#deeds;
    this.#cups.empty(this.#begunAt);
    this.#deeds = [];
    this.#pending = null;
    this.#restep();
    for (const deed of deeds) this.#make(deed);
  }

  #restep(): void {
    this.#steps = runSteps(this.#plan, this.#cups.all);
    this.#next = 0;
    this.#advance();
  }

  /** The steps of one cup anew: what is weighed into it changes nothing of the others. */
  #restepCup(cup: CupState): void {
    const from = this.#steps.findIndex((step) => 'cup' in step && step.cup === cup.key);
    let to = from;
    while (to < this.#steps.length && 'cup' in this.#steps[to]! && (this.#steps[to] as { cup: string }).cup === cup.key)
      to++;
    const own = cupSteps(cup, this.#cups.layer(cup.layer), this.#plan.scaleStepGrams);
    this.#steps = [...this.#steps.slice(0, from), ...own, ...this.#steps.slice(to)];
    this.#next = Math.min(this.#next, from);
    this.#advance();
  }

  #advance(): void {
    while (this.#next < this.#steps.length && this.#cups.done.has(this.#steps[this.#next]!.id)) this.#next++;
  }

  #act(event: Acting): Refusal | null {
    const current = this.#steps[this.#next];
    if (event.type === 'done') return this.#press(event, current);
    if (event.type === 'skip') {
      if (current?.id !== event.step) return 'not this step now';
      const { skip } = LIVE_STEPS[current.kind];
      if (skip === 'never') return 'nothing of the kind';
      const asks = skip === 'with a reason' || (current.kind === 'ready' && current.item.must);
      if (asks && !event.why) return 'a reason is asked for';
      this.#make({ event });
      return null;
    }
    if (event.type === 'decide') {
      const pending = this.#pending;
      if (!pending || pending.step !== event.step || current?.id !== event.step) return 'not this step now';
      this.#pending = null;
      if (event.choice === 'more') return null;
      this.#make({ event, grams: pending.grams });
      return null;
    }
    const cup = this.#cups.cup(event.cup);
    if (!cup || cup.closedAt !== null) return 'nothing of the kind';
    const layer = this.#cups.layer(cup.layer);
    const rest = restOf(cup);
    if (event.type === 'discard') {
      if (mixedGrams(cup, layer) <= 0 && cup.contactAt === null) return 'nothing of the kind';
    } else if (event.type === 'return') {
      if (!isUnmixed(cup)) return 'nothing of the kind';
    } else if (event.type === 'leave') {
      const keys = new Set(rest.map(pieceKey));
      if (event.pieces.some((key) => !keys.has(key)) || fromBottle(layer, cup.plan)) return 'nothing of the kind';
      // Nothing that is left and nothing that was poured: that is no cup any more.
      if (event.pieces.length >= rest.length && cup.poured.length === 0) return 'nothing of the kind';
    } else if (event.type === 'filler') {
      if (!this.#plan.filler || event.grams <= 0) return 'nothing of the kind';
      if (this.#cups.hasSet(cup, event.at, false)) return 'too late to pour leftovers';
      if (event.grams > inCupGrams(cup, layer) + READING_SLACK_GRAMS) return 'more than the cup holds';
    } else {
      // Two windows that press at once lower once: then nothing is missing any more.
      const { density, shrinkage } = { density: pouredDensity(layer.product), shrinkage: layer.product.shrinkage };
      const missing = shortfall(
        inCupGrams(cup, layer),
        rest,
        surfaceOf(this.#plan),
        { density, shrinkage },
        this.#plan.losses,
      );
      if (rest.length === 0 || mixedGrams(cup, layer) <= 0 || missing.shortGrams < LEAST_SHORT_GRAMS)
        return 'nothing of the kind';
    }
    this.#make({ event });
    return null;
  }

  #press(event: RunEventOf<'done'>, current: RunStep | undefined): Refusal | null {
    if (!current || current.id !== event.step) return 'not this step now';
    const { grams } = event;
    if (current.kind === 'weigh' && grams !== undefined) {
      if (grams <= 0) return 'nothing on the scale';
      const verdict = weighVerdict(grams, current.targetGrams, current.toleranceGrams);
      if (current.part === 'B' || current.mend) this.#cups.meet(this.#cups.cup(current.cup)!, event.at);
      if (verdict !== 'right') {
        this.#pending = { step: current.id, grams, verdict };
        return null;
      }
    }
    // A stock tint that was not poured would be missing in the ratio.
    const wanted = current.kind === 'pour' ? current.pour.grams : current.kind === 'dose' ? current.portion.grams : 0;
    const none = grams !== undefined && !event.anyway && grams < wanted * LEAST_POURED_SHARE;
    if (current.kind === 'dose' && none) return 'nothing was poured';
    if (current.kind === 'pour') {
      const cup = this.#cups.cup(current.cup)!;
      const layer = this.#cups.layer(cup.layer);
      if (this.#cups.hasSet(cup, event.at, true) && !event.anyway) return 'begun to set';
      if (none) return 'nothing was poured';
      if (grams !== undefined && !fromBottle(layer, cup.plan)) {
        if (grams > inCupGrams(cup, layer) + READING_SLACK_GRAMS) return 'more than the cup holds';
      }
    }
    if (current.kind === 'wait' && !this.#isOpen(current, event.at) && !event.anyway) return 'a reason is asked for';
    this.#make({ event, drops: this.#drops.get(current.id) ?? 0 });
    return null;
  }

  /** Whether what a waiting step waits for has come; a missed recoat window asks for a word too. */
  #isOpen({ layer, until }: Extract<RunStep, { kind: 'wait' }>, at: number): boolean {
    const state = { plan: this.#plan, cups: this.#cups.all, room: this.#aside.room, begunAt: this.#begunAt };
    const window = recoatWindow(state, this.#cups.layer(layer));
    if (window === null) return true;
    if (until === 'recoat') return at >= window.opens && (window.closes === null || at <= window.closes);
    return at >= allCured(state, until === 'firm' ? 'demouldMinutes' : 'fullCureMinutes');
  }

  /** Carries out what is allowed. */
  #make(deed: Deed): void {
    const { event } = deed;
    const current = this.#steps[this.#next];
    this.#deeds.push(deed);
    if (event.type === 'done' || event.type === 'skip') this.#finish(current!, deed);
    else if (event.type === 'decide') this.#decided(current!, deed);
    else {
      this.#cups.recut(event);
      if (event.type !== 'filler') this.#restep();
    }
    this.#cups.since = event.at;
  }

  #finish(step: RunStep, { event, drops = 0 }: Deed): void {
    const own = event as RunEventOf<'done' | 'skip'>;
    const skipped = own.type === 'skip';
    const grams = own.type === 'done' ? (own.grams ?? null) : null;
    const why = own.type === 'done' ? (own.anyway ?? null) : (own.why ?? null);
    this.#cups.done.set(step.id, { step, from: this.#cups.since, at: own.at, grams, skipped, why });
    if (step.kind === 'weigh') {
      this.#cups.weighed(step, grams ?? step.targetGrams, grams === null, own.at);
      // A coarse scale calls right what tint and part B have to follow.
      const drift = Math.abs((grams ?? step.targetGrams) - step.targetGrams) > PART_TOLERANCE * step.targetGrams;
      if (drift && step.part !== 'B' && !step.mend) this.#cups.remake(this.#cups.cup(step.cup)!, step);
    }
    if (step.kind === 'dose')
      this.#cups.dosed(step, { grams, roseGrams: (own.type === 'done' && own.roseGrams) || null }, drops, skipped);
    else if (step.kind === 'pour' && own.type === 'done') this.#cups.poured(step, own);
    else if (step.kind === 'left') this.#cups.close(this.#cups.cup(step.cup)!, grams, own.at);
    if ((step.kind === 'stock' || step.kind === 'dose') && this.#cups.stockIsShort(step.layer)) this.#restep();
    else if (step.kind === 'weigh' || (step.kind === 'dose' && step.portion.resinGrams > 0))
      this.#restepCup(this.#cups.cup(step.cup)!);
    else this.#advance();
    if (step.kind === 'end') this.#over = { at: own.at, how: 'finished', why: null };
  }

  #decided(step: RunStep, { event, grams = 0 }: Deed): void {
    if (step.kind !== 'weigh' || event.type !== 'decide') return;
    const cup = this.#cups.cup(step.cup)!;
    this.#cups.done.set(step.id, {
      step,
      from: this.#cups.since,
      at: event.at,
      grams,
      skipped: false,
      why: event.choice,
    });
    const contact = step.part === 'B' || step.mend;
    if (contact) this.#cups.meet(cup, event.at);
    this.#cups.weighed(step, grams, false, event.at);
    if (event.choice === 'discard') {
      this.#cups.throwAway(cup, event.at, 'over-poured');
      return this.#restep();
    }
    if (event.choice === 'accept' && step.part === 'A' && !step.mend) cup.acceptedA = true;
    // More or less of a product of one part wants nothing but its tint.
    if (event.choice === 'mend' || step.part === 'all') this.#cups.remake(cup, step);
    this.#restepCup(cup);
  }
}

/** The state that events, in their order, make of a plan. */
export function replay(plan: RunPlan, begunAt: number, events: readonly RunEvent[]): RunState {
  const book = new RunBook(plan, begunAt);
  for (const event of events) book.apply(event);
  return book.state();
}
