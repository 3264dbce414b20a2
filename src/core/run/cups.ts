import { fromBottle, lossesOf } from '../pouring/portions';
import { pieceKey } from '../model/pieceRef';
import { pouredDensity } from '../mixing/ratio';
import type { RunAside } from './aside';
import {
  attemptKey,
  colourToCome,
  cupEnds,
  inCupGrams,
  mixedGrams,
  newCup,
  restOf,
  surfaceOf,
  type CupState,
  type PouredPiece,
} from './cupState';
import { cupForMore, freshCup, mendedCup, mixtureOf, stockLeft } from './remake';
import type { DoneStep } from './runState';
import type { RunCup, RunEventOf, RunLayer, RunPlan, RunPour } from './runSchema';
import { loweredBy, sharedOut } from './shortfall';
import type { RunStep } from './steps';

/** What changes what a cup is to fill. */
export type Recut = RunEventOf<'discard' | 'return' | 'leave' | 'lower' | 'fresh' | 'filler'>;

const MINUTE_MS = 60_000;

/** The cups of a run: what was put into each, what was poured of it, which are thrown away. */
export class RunCups {
  readonly #plan: RunPlan;
  readonly #aside: RunAside;
  /** When the parts of a cup met, whatever was pressed back since. */
  readonly #contacts = new Map<string, number>();
  /** The cups as they stand, in the order of the work. */
  all: CupState[] = [];
  thrownAway: CupState[] = [];
  /** The steps that are done, by id. */
  done = new Map<string, DoneStep>();
  /** When the step in hand began. */
  since = 0;

  constructor(plan: RunPlan, aside: RunAside) {
    this.#plan = plan;
    this.#aside = aside;
  }

  /** Everything as it was before the first step; parts that have met stay met. */
  empty(begunAt: number): void {
    this.all = this.#plan.layers.flatMap(({ number, cups }) => cups.map((cup) => newCup(number, cup)));
    for (const cup of this.all) cup.contactAt = this.#contacts.get(attemptKey(cup)) ?? null;
    this.thrownAway = [];
    this.done = new Map();
    this.since = begunAt;
  }

  /** The parts of a cup meet. */
  meet(cup: CupState, at: number): void {
    const own = attemptKey(cup);
    // The earliest contact stands, whatever was pressed back since: parts that have met stay met.
    const known = this.#contacts.get(own);
    this.#contacts.set(own, known === undefined ? at : Math.min(known, at));
    cup.contactAt = this.#contacts.get(own)!;
  }

  /** The cup of that key as it stands; null where it is none any more. */
  cup(key: string): CupState | null {
    return this.all.find((cup) => cup.key === key) ?? null;
  }

  /** Whether a cup has begun to set at a moment. */
  hasSet(cup: CupState, at: number, whole: boolean): boolean {
    const ends = cupEnds(cup, this.layer(cup.layer), this.#aside.room);
    return ends !== null && at > (whole ? ends.sets : ends.by);
  }

  /** A layer of the plan by its number. */
  layer(number: number): RunLayer {
    return this.#plan.layers.find((layer) => layer.number === number)!;
  }

  /** So many grams of a part went in; `assumed`: nobody read them. */
  weighed(step: Extract<RunStep, { kind: 'weigh' }>, grams: number, assumed: boolean, at: number): void {
    const { part } = step;
    const cup = this.cup(step.cup)!;
    cup.weighed = { ...cup.weighed, [part]: cup.weighed[part] + grams };
    if (!assumed) cup.assumed = false;
    if (part === 'B') this.meet(cup, at);
  }

  /** A cup made up anew for what is in it, and what is to be added to mend it. */
  remake(cup: CupState, { part, mend }: Pick<Extract<RunStep, { kind: 'weigh' }>, 'part' | 'mend'>): void {
    const layer = this.layer(cup.layer);
    const made = mendedCup(cup, part, mend, layer, this.#plan, this.#stockFor(cup));
    cup.plan = made.plan;
    if (made.mend) cup.mends = [...cup.mends, made.mend];
  }

  #stockFor(cup: Pick<CupState, 'key' | 'layer'>): ReturnType<typeof stockLeft> {
    return stockLeft({ cups: this.all, thrownAway: this.thrownAway, done: this.done }, this.layer(cup.layer), cup);
  }

  #fresh(cup: Pick<CupState, 'key' | 'layer'>, pours: readonly RunPour[], number: number): RunCup {
    const layer = this.layer(cup.layer);
    const losses = lossesOf(layer.product, layer.recipe, this.#plan.losses);
    return freshCup(pours, number, mixtureOf(layer, this.#plan), losses, this.#stockFor(cup));
  }

  /** Cups that a stock has too little for, or that was not made, are tinted in another way. Whether there were any. */
  stockIsShort(layer: number): boolean {
    let short = false;
    for (const cup of this.all) {
      if (cup.layer !== layer || cup.closedAt !== null) continue;
      const wants = colourToCome(cup).find(({ way }) => way === 'stock');
      if (!wants) continue;
      const left = this.#stockFor(cup)?.leftGrams ?? 0;
      if (wants.grams <= left + this.#plan.scaleStepGrams / 2) continue;
      const { A, B, all } = cup.weighed;
      const mixture = mixtureOf(this.layer(layer), this.#plan);
      if (B > 0) cup.plan = cupForMore(cup, cup.plan.mixGrams, mixture, this.#stockFor(cup), 0);
      else if (A + all > 0) this.remake(cup, { part: 'A', mend: false });
      else cup.plan = this.#fresh(cup, cup.plan.pours, cup.number);
      short = true;
    }
    return short;
  }

  /** A portion of colour went in, or was left out. */
  dosed(
    { cup: key, portion }: Extract<RunStep, { kind: 'dose' }>,
    { grams: read, roseGrams }: { grams: number | null; roseGrams: number | null },
    drops: number,
    skipped: boolean,
  ): void {
    const cup = this.cup(key)!;
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
        roseGrams: way === 'drops' && !skipped ? roseGrams : null,
      },
    ];
  }

  /** A piece was poured. */
  poured({ cup: key, pour }: Extract<RunStep, { kind: 'pour' }>, { grams, onPiece, at }: RunEventOf<'done'>): void {
    const cup = this.cup(key)!;
    const layer = this.layer(cup.layer);
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
    if (bottle && restOf(cup).length === 0) this.close(cup, 0, at);
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
      minutes: Math.max(0, at - this.since) / MINUTE_MS,
    };
  }

  /** A cup is put away with what is left in it; null: all that it holds. */
  close(cup: CupState, left: number | null, at: number): void {
    const holds = inCupGrams(cup, this.layer(cup.layer));
    cup.leftGrams = Math.min(left ?? holds, holds);
    cup.closedAt = at;
  }

  /** What is in a cup goes; what it was to fill gets another. */
  throwAway(cup: CupState, at: number, why: string): void {
    const rest = restOf(cup);
    const layer = this.layer(cup.layer);
    const left = inCupGrams(cup, layer);
    this.thrownAway = [...this.thrownAway, { ...cup, leftGrams: left, closedAt: at, discarded: { at, why } }];
    const again = newCup(cup.layer, cup.plan, cup.attempt + 1);
    again.contactAt = this.#contacts.get(attemptKey(again)) ?? null;
    this.all = this.all.flatMap((one) => (one !== cup ? [one] : rest.length > 0 ? [again] : []));
    again.plan = this.#fresh(again, rest, cup.number);
    this.stockIsShort(cup.layer);
  }

  /** The cup is empty again, to be weighed anew or left. */
  #putBack(cup: CupState): void {
    const own = `${attemptKey(cup)}.`;
    this.done = new Map([...this.done].filter(([id]) => !id.startsWith(own)));
    Object.assign(cup, newCup(cup.layer, this.#fresh(cup, restOf(cup), cup.number), cup.attempt));
  }

  /** Changes what cups are to fill. */
  recut(event: Recut): void {
    const cup = this.cup(event.cup)!;
    const layer = this.layer(cup.layer);
    if (event.type === 'discard') return this.throwAway(cup, event.at, event.why);
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
      return;
    }
    const numbers = this.all.filter((one) => one.layer === cup.layer).map(({ number }) => number);
    const number =
      Math.max(...numbers, ...this.thrownAway.filter((one) => one.layer === cup.layer).map((one) => one.number)) + 1;
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
    this.all = this.all.flatMap((one) => (one === cup ? [one, next] : [one]));
  }
}
