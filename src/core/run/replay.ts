import { fromBottle, lossesOf } from '../pouring/portions';
import { pieceKey } from '../model/pieceRef';
import {
  attemptKey,
  cupEnds,
  inCupGrams,
  isUnmixed,
  mixedGrams,
  newCup,
  colourToCome,
  restOf,
  surfaceOf,
  type CupState,
  type PouredPiece,
} from './cupState';
import { allCured, recoatWindow } from './cureMoment';
import { expiredLotsTaken } from './expired';
import type { DoneStep, Pending, Refusal, RunNote, RunState } from './runState';
import type { RunCup, RunEvent, RunEventOf, RunLayer, RunPlan, RunPour } from './runSchema';
import { LEAST_SHORT_GRAMS, loweredBy, sharedOut, shortfall } from './shortfall';
import { cupSteps, LIVE_STEPS, runSteps, type RunStep } from './steps';
import { cupForMore, freshCup, mendedCup, mixtureOf, stockLeft } from './remake';
import { PART_TOLERANCE, weighVerdict } from './overPoured';
import { pouredDensity } from '../mixing/ratio';

type Acting = RunEventOf<'done' | 'skip' | 'decide' | 'discard' | 'return' | 'leave' | 'lower' | 'fresh' | 'filler'>;

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
const MINUTE_MS = 60_000;

/** Builds a run's state up, event by event. What the rules do not allow changes nothing and is noted as refused. */
export class RunBook {
  readonly #plan: RunPlan;
  readonly #begunAt: number;
  #deeds: Deed[] = [];
  #cups: CupState[] = [];
  #thrown: CupState[] = [];
  #steps: RunStep[] = [];
  #done = new Map<string, DoneStep>();
  #next = 0;
  #since: number;
  #pending: Pending | null = null;
  #drops = new Map<string, number>();
  #contacts = new Map<string, number>();
  #seen = new Set<string>();
  #notes: RunNote[] = [];
  #answers = new Map<string, { at: number; did: string }>();
  #snoozed = new Map<string, number>();
  #bottles: RunState['bottles'] = [];
  #timers: { id: string; name: string; at: number; minutes: number }[] = [];
  #room: { at: number; temperatureC: number; humidity: number }[];
  #slips: { slip: string; at: number; seconds: number }[] = [];
  #refused: { id: string; why: Refusal }[] = [];
  #over: RunState['over'] = null;

  constructor(plan: RunPlan, begunAt: number) {
    this.#plan = plan;
    this.#begunAt = begunAt;
    this.#since = begunAt;
    this.#room = [{ at: begunAt, temperatureC: plan.roomC, humidity: plan.humidity }];
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
      since: this.#since,
      current: this.#over ? null : (this.#steps[this.#next] ?? null),
      cups: [...this.#cups],
      thrownAway: [...this.#thrown],
      done: new Map(this.#done),
      pending: this.#pending,
      drops: this.#drops.get(this.#steps[this.#next]?.id ?? '') ?? 0,
      notes: [...this.#notes],
      answers: new Map(this.#answers),
      snoozed: new Map(this.#snoozed),
      bottles: this.#bottles,
      timers: [...this.#timers],
      room: [...this.#room],
      slips: [...this.#slips],
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
        const cup = this.#cups.find(({ key }) => key === event.cup);
        if (!cup || cup.closedAt !== null) return 'nothing of the kind';
        this.#meet(cup, event.at);
        return null;
      }
      case 'answer':
        if (this.#answers.has(event.clock)) return 'nothing of the kind';
        this.#answers.set(event.clock, { at: event.at, did: event.did });
        this.#snoozed.delete(event.clock);
        return null;
      case 'snooze':
        if (this.#answers.has(event.clock)) return 'nothing of the kind';
        this.#snoozed.set(event.clock, event.at + event.minutes * MINUTE_MS);
        return null;
      case 'bottle': {
        const bottle = this.#plan.bottles.find(({ id }) => id === event.lot);
        if (!bottle) return 'nothing of the kind';
        const known = [...expiredLotsTaken({ done: this.#done }), ...this.#bottles.map(({ lot }) => lot)];
        if (bottle.past && !event.anyway && !known.includes(bottle.id)) return 'a reason is asked for';
        this.#bottles = [...this.#bottles, { lot: event.lot, at: event.at, anyway: event.anyway ?? null }];
        return null;
      }
      case 'timer':
        this.#timers.push({ id: `timer.${event.id}`, name: event.name, at: event.at, minutes: event.minutes });
        return null;
      case 'room': {
        const { at, temperatureC, humidity } = event;
        // One that comes late takes its place in time.
        const last = this.#room.at(-1)!;
        const place = this.#room.findLastIndex((one) => one.at <= at) + 1;
        const reading = { at: Math.max(at, this.#begunAt), temperatureC, humidity: humidity ?? last.humidity };
        this.#room.splice(Math.max(1, place), 0, reading);
        return null;
      }
      case 'note':
        this.#notes.push({ at: event.at, text: event.text, own: true });
        return null;
      case 'slip':
        this.#slips.push({ slip: event.slip, at: event.at, seconds: event.seconds ?? 0 });
        return null;
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

  #meet(cup: CupState, at: number): void {
    const own = attemptKey(cup);
    // The earliest contact stands, whatever was pressed back since: parts that have met stay met.
    const known = this.#contacts.get(own);
    this.#contacts.set(own, known === undefined ? at : Math.min(known, at));
    cup.contactAt = this.#contacts.get(own)!;
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
    this.#cups = this.#plan.layers.flatMap(({ number, cups }) => cups.map((cup) => newCup(number, cup)));
    for (const cup of this.#cups) cup.contactAt = this.#contacts.get(attemptKey(cup)) ?? null;
    this.#thrown = [];
    this.#done = new Map();
    this.#deeds = [];
    this.#pending = null;
    this.#since = this.#begunAt;
    this.#restep();
    for (const deed of deeds) this.#make(deed);
  }

  #restep(): void {
    this.#steps = runSteps(this.#plan, this.#cups);
    this.#next = 0;
    this.#advance();
  }

  /** The steps of one cup anew: what is weighed into it changes nothing of the others. */
  #restepCup(cup: CupState): void {
    const from = this.#steps.findIndex((step) => 'cup' in step && step.cup === cup.key);
    let to = from;
    while (to < this.#steps.length && 'cup' in this.#steps[to]! && (this.#steps[to] as { cup: string }).cup === cup.key)
      to++;
    const own = cupSteps(cup, this.#layer(cup.layer), this.#plan.scaleStepGrams);
    this.#steps = [...this.#steps.slice(0, from), ...own, ...this.#steps.slice(to)];
    this.#next = Math.min(this.#next, from);
    this.#advance();
  }

  #advance(): void {
    while (this.#next < this.#steps.length && this.#done.has(this.#steps[this.#next]!.id)) this.#next++;
  }

  #cup(key: string): CupState | null {
    return this.#cups.find((cup) => cup.key === key) ?? null;
  }

  /** Whether a cup has begun to set at a moment. */
  #hasSet(cup: CupState, at: number, whole: boolean): boolean {
    const ends = cupEnds(cup, this.#layer(cup.layer), this.#room);
    return ends !== null && at > (whole ? ends.sets : ends.by);
  }

  #layer(number: number): RunLayer {
    return this.#plan.layers.find((layer) => layer.number === number)!;
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
    const cup = this.#cup(event.cup);
    if (!cup || cup.closedAt !== null) return 'nothing of the kind';
    const layer = this.#layer(cup.layer);
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
      if (this.#hasSet(cup, event.at, false)) return 'too late to pour leftovers';
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
      if (current.part === 'B' || current.mend) this.#meet(this.#cup(current.cup)!, event.at);
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
      const cup = this.#cup(current.cup)!;
      const layer = this.#layer(cup.layer);
      if (this.#hasSet(cup, event.at, true) && !event.anyway) return 'begun to set';
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
    const state = { plan: this.#plan, cups: this.#cups, room: this.#room, begunAt: this.#begunAt };
    const window = recoatWindow(state, this.#layer(layer));
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
    else this.#recut(event);
    this.#since = event.at;
  }

  #finish(step: RunStep, { event, drops = 0 }: Deed): void {
    const own = event as RunEventOf<'done' | 'skip'>;
    const skipped = own.type === 'skip';
    const grams = own.type === 'done' ? (own.grams ?? null) : null;
    const why = own.type === 'done' ? (own.anyway ?? null) : (own.why ?? null);
    this.#done.set(step.id, { step, from: this.#since, at: own.at, grams, skipped, why });
    if (step.kind === 'weigh') {
      this.#weighed(step, grams ?? step.targetGrams, grams === null, own.at);
      // A coarse scale calls right what tint and part B have to follow.
      const drift = Math.abs((grams ?? step.targetGrams) - step.targetGrams) > PART_TOLERANCE * step.targetGrams;
      if (drift && step.part !== 'B' && !step.mend) this.#remake(this.#cup(step.cup)!, step);
    }
    if (step.kind === 'dose') this.#dosed(step, grams, drops, skipped);
    else if (step.kind === 'pour' && own.type === 'done') this.#poured(step, own);
    else if (step.kind === 'left') this.#close(this.#cup(step.cup)!, grams, own.at);
    if ((step.kind === 'stock' || step.kind === 'dose') && this.#stockIsShort(step.layer)) this.#restep();
    else if (step.kind === 'weigh' || (step.kind === 'dose' && step.portion.resinGrams > 0))
      this.#restepCup(this.#cup(step.cup)!);
    else this.#advance();
    if (step.kind === 'end') this.#over = { at: own.at, how: 'finished', why: null };
  }

  #weighed(step: Extract<RunStep, { kind: 'weigh' }>, grams: number, assumed: boolean, at: number): void {
    const { part } = step;
    const cup = this.#cup(step.cup)!;
    cup.weighed = { ...cup.weighed, [part]: cup.weighed[part] + grams };
    if (!assumed) cup.assumed = false;
    if (part === 'B') this.#meet(cup, at);
  }

  /** A cup made up anew for what is in it, and what is to be added to mend it. */
  #remake(cup: CupState, { part, mend }: Pick<Extract<RunStep, { kind: 'weigh' }>, 'part' | 'mend'>): void {
    const layer = this.#layer(cup.layer);
    const made = mendedCup(cup, part, mend, layer, this.#plan, this.#stockFor(cup));
    cup.plan = made.plan;
    if (made.mend) cup.mends = [...cup.mends, made.mend];
  }

  #stockFor(cup: Pick<CupState, 'key' | 'layer'>): ReturnType<typeof stockLeft> {
    return stockLeft({ cups: this.#cups, thrownAway: this.#thrown, done: this.#done }, this.#layer(cup.layer), cup);
  }

  #fresh(cup: Pick<CupState, 'key' | 'layer'>, pours: readonly RunPour[], number: number): RunCup {
    const layer = this.#layer(cup.layer);
    const losses = lossesOf(layer.product, layer.recipe, this.#plan.losses);
    return freshCup(pours, number, mixtureOf(layer, this.#plan), losses, this.#stockFor(cup));
  }

  /** Cups that a stock has too little for, or that was not made, are tinted in another way. Whether there were any. */
  #stockIsShort(layer: number): boolean {
    let short = false;
    for (const cup of this.#cups) {
      if (cup.layer !== layer || cup.closedAt !== null) continue;
      const wants = colourToCome(cup).find(({ way }) => way === 'stock');
      if (!wants) continue;
      const left = this.#stockFor(cup)?.leftGrams ?? 0;
      if (wants.grams <= left + this.#plan.scaleStepGrams / 2) continue;
      const { A, B, all } = cup.weighed;
      const mixture = mixtureOf(this.#layer(layer), this.#plan);
      if (B > 0) cup.plan = cupForMore(cup, cup.plan.mixGrams, mixture, this.#stockFor(cup), 0);
      else if (A + all > 0) this.#remake(cup, { part: 'A', mend: false });
      else cup.plan = this.#fresh(cup, cup.plan.pours, cup.number);
      short = true;
    }
    return short;
  }

  #dosed(
    { cup: key, portion }: Extract<RunStep, { kind: 'dose' }>,
    read: number | null,
    drops: number,
    skipped: boolean,
  ): void {
    const cup = this.#cup(key)!;
    const { way, grams, intoGrams } = portion;
    const counted = skipped ? 0 : way === 'drops' && drops > 0 ? drops : portion.drops;
    // What of the portion went in. Left out: noted as nothing, so that nothing is waited for.
    const share = skipped ? 0 : way === 'drops' ? counted / portion.drops : grams > 0 ? (read ?? grams) / grams : 0;
    cup.putIn = [
      ...cup.putIn,
      {
        key: portion.key,
        way,
        name: portion.name,
        drops: counted,
        intoGrams: skipped ? 0 : intoGrams,
        grams: grams * share,
        resinGrams: portion.resinGrams * share,
        colours: portion.colours.map((colour) => ({ id: colour.id, grams: colour.grams * share })),
      },
    ];
  }

  #poured({ cup: key, pour }: Extract<RunStep, { kind: 'pour' }>, { grams, onPiece, at }: RunEventOf<'done'>): void {
    const cup = this.#cup(key)!;
    const layer = this.#layer(cup.layer);
    const bottle = fromBottle(layer, cup.plan);
    const perPieceGrams = bottle ? 0 : this.#plan.losses.perPieceGrams;
    const holds = bottle ? Infinity : inCupGrams(cup, layer);
    // Out of the cup: what is read and what drips; in the piece: what does not drip.
    const out = Math.min(
      holds,
      grams === undefined ? pour.grams + perPieceGrams : onPiece ? grams + perPieceGrams : grams,
    );
    const inPiece = grams !== undefined && onPiece ? Math.min(grams, out) : Math.max(0, out - perPieceGrams);
    cup.poured = [
      ...cup.poured,
      this.#piece(cup, { ...pour, grams: inPiece }, pour.grams, out, at, grams === undefined),
    ];
    if (bottle && restOf(cup).length === 0) this.#close(cup, 0, at);
  }

  #piece(
    cup: CupState,
    pour: PouredPiece | CupState['plan']['pours'][number],
    plannedGrams: number,
    leftCupGrams: number,
    at: number,
    assumed: boolean,
    filler = false,
  ): PouredPiece {
    const { designId, copy, tag, grams } = pour;
    const from = this.#since;
    return {
      designId,
      copy,
      tag,
      grams,
      key: pieceKey({ designId, copy }),
      plannedGrams,
      leftCupGrams,
      at,
      assumed,
      filler,
      minutes: Math.max(0, at - from) / MINUTE_MS,
    };
  }

  #close(cup: CupState, left: number | null, at: number): void {
    const holds = inCupGrams(cup, this.#layer(cup.layer));
    cup.leftGrams = Math.min(left ?? holds, holds);
    cup.closedAt = at;
  }

  #decided(step: RunStep, { event, grams = 0 }: Deed): void {
    if (step.kind !== 'weigh' || event.type !== 'decide') return;
    const cup = this.#cup(step.cup)!;
    this.#done.set(step.id, { step, from: this.#since, at: event.at, grams, skipped: false, why: event.choice });
    const contact = step.part === 'B' || step.mend;
    if (contact) this.#meet(cup, event.at);
    this.#weighed(step, grams, false, event.at);
    if (event.choice === 'discard') return this.#throwAway(cup, event.at, 'over-poured');
    if (event.choice === 'accept' && step.part === 'A' && !step.mend) cup.acceptedA = true;
    // More or less of a product of one part wants nothing but its tint.
    if (event.choice === 'mend' || step.part === 'all') this.#remake(cup, step);
    this.#restepCup(cup);
  }

  #throwAway(cup: CupState, at: number, why: string): void {
    const rest = restOf(cup);
    const layer = this.#layer(cup.layer);
    const left = inCupGrams(cup, layer);
    this.#thrown = [...this.#thrown, { ...cup, leftGrams: left, closedAt: at, discarded: { at, why } }];
    const again = newCup(cup.layer, cup.plan, cup.attempt + 1);
    again.contactAt = this.#contacts.get(attemptKey(again)) ?? null;
    this.#cups = this.#cups.flatMap((one) => (one !== cup ? [one] : rest.length > 0 ? [again] : []));
    again.plan = this.#fresh(again, rest, cup.number);
    this.#stockIsShort(cup.layer);
    this.#restep();
  }

  /** The cup is empty again, to be weighed anew or left. */
  #putBack(cup: CupState): void {
    const own = `${attemptKey(cup)}.`;
    this.#done = new Map([...this.#done].filter(([id]) => !id.startsWith(own)));
    Object.assign(cup, newCup(cup.layer, this.#fresh(cup, restOf(cup), cup.number), cup.attempt));
    this.#restep();
  }

  /** Changes what cups are to fill. */
  #recut(event: Exclude<Acting, { type: 'done' | 'skip' | 'decide' }>): void {
    const cup = this.#cup(event.cup)!;
    const layer = this.#layer(cup.layer);
    if (event.type === 'discard') return this.#throwAway(cup, event.at, event.why);
    if (event.type === 'return') return this.#putBack(cup);
    const rest = restOf(cup);
    if (event.type === 'filler') {
      const { designId, tag } = this.#plan.filler!;
      const out = Math.min(event.grams, inCupGrams(cup, layer));
      cup.poured = [
        ...cup.poured,
        this.#piece(cup, { designId, tag, copy: 0, grams: out }, out, out, event.at, false, true),
      ];
      return;
    }
    const poured = cup.plan.pours.filter((pour) => !rest.includes(pour));
    if (event.type === 'lower') {
      const { product } = layer;
      const lowered = loweredBy(rest, event.mm, surfaceOf(this.#plan), { ...product, density: pouredDensity(product) });
      const pours = cup.plan.pours.map((pour) =>
        rest.includes(pour) ? { ...pour, grams: lowered.get(pieceKey(pour)) ?? pour.grams } : pour,
      );
      cup.plan = { ...cup.plan, pours };
      this.#restep();
      return;
    }
    const numbers = this.#cups.filter((one) => one.layer === cup.layer).map(({ number }) => number);
    const number =
      Math.max(...numbers, ...this.#thrown.filter((one) => one.layer === cup.layer).map((one) => one.number)) + 1;
    const [now, later] =
      event.type === 'leave'
        ? [
            rest.filter((pour) => !event.pieces.includes(pieceKey(pour))),
            rest.filter((pour) => event.pieces.includes(pieceKey(pour))),
          ]
        : (({ now: some, later: others }) => [some, others])(
            sharedOut(inCupGrams(cup, layer), rest, this.#plan.losses),
          );
    if (later.length === 0) return;
    const mixed = mixedGrams(cup, layer) > 0 || cup.contactAt !== null;
    const pours = [...poured, ...now];
    cup.plan = mixed ? { ...cup.plan, pours } : this.#fresh(cup, pours, cup.number);
    const next = newCup(cup.layer, { ...cup.plan, number });
    next.plan = this.#fresh(next, later, number);
    next.contactAt = this.#contacts.get(attemptKey(next)) ?? null;
    this.#cups = this.#cups.flatMap((one) => (one === cup ? [one, next] : [one]));
    this.#restep();
  }
}

/** The state that events, in their order, make of a plan. */
export function replay(plan: RunPlan, begunAt: number, events: readonly RunEvent[]): RunState {
  const book = new RunBook(plan, begunAt);
  for (const event of events) book.apply(event);
  return book.state();
}
