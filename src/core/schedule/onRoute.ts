import { toWallTime, wallMinutes, type WallTime } from '../time/wallTime';
import type { BenchWindow } from '../time/benchWindows';
import { CURE_MODELS } from '../cure/cureModels';
import { FIRST_PIECE_MINUTES, PLANT_MINUTES } from '../pouring/handsOn';
import type { BatchFacts, ProductFacts } from './facts';
import { abradeMinutes, withRepair } from './repair';
import { IN_ROUTES, looksOf, pourStep, type LayerFacts, type Route, type RouteStep, type StepMark } from './routes';
import type { After, ScheduleBatch, ScheduleStep, ScheduleWait } from './scheduleRequest';
import { factsOfStep, type StepKind } from './stepKinds';

/** Paint and glue on a bed dry as thin water-borne films do; label times hold at 20 °C. */
const FILM = { cureModel: 'water-borne', referenceC: 20, greatestLayerMm: 1, wetMm: 1 } as const;

/** How long a bench is trusted to stay level. */
const LEVEL_HOLDS_MINUTES = 12 * 60;

const label = (minutesOnLabel: number, { curing }: ProductFacts): ScheduleWait => ({ minutes: minutesOnLabel, curing });
const clock = (wait: number): ScheduleWait => ({ minutes: wait });

/** What a place of the workshop is called in requests. */
export const PLACES = {
  level: 'level place',
  dams: 'dam kits',
  moulds: 'moulds',
  dryBox: 'places in the dry box',
} as const;

/** What a batch is called, belongs to and is due. */
export interface BatchNamed {
  id: string;
  name: string;
  set: string;
  due: string | null;
  windows?: BenchWindow[] | null;
}

/** The steps of a batch while they are laid on its route. */
class StepsOnRoute {
  readonly steps: ScheduleStep[] = [];
  /** What the next step waits for. */
  #tail: After[] = [];
  /** What follows the pours waits for this beside: that all layers are firm. */
  #firm: After[] = [];

  constructor(
    readonly facts: BatchFacts,
    readonly route: Route,
  ) {
    for (const own of route.filter(({ on }) => on)) {
      if (IN_ROUTES[own.kind].place === 'beside each pour') continue;
      if (own.kind === 'pour') this.#pours(own);
      else if (own.kind === 'finish' && facts.finish) this.#finish(own, facts.finish);
      else this.#own(own);
    }
    const pours = this.steps.filter(({ kind }) => kind === 'pour');
    if (pours.length > 0)
      this.#add(
        { id: 'cured', kind: 'cured', name: factsOfStep('cured').name, handsOnMinutes: 0 },
        pours.map(({ id }) => ({ step: id, least: label(this.#productOf(id).fullCureMinutes, this.#productOf(id)) })),
      );
  }

  #add(step: Omit<ScheduleStep, 'after'>, after: After[]): ScheduleStep {
    const added = { ...step, after };
    this.steps.push(added);
    return added;
  }

  /** Minutes of a step of the route on all pieces that it is done on. */
  #minutes({ kind, perBatchMinutes, perPieceMinutes }: RouteStep, pieces = IN_ROUTES[kind].pieces(this.facts)): number {
    return perBatchMinutes + perPieceMinutes * pieces;
  }

  #own(own: RouteStep): void {
    const { id, kind, name, dryMinutes } = own;
    const { id: step, handsOnMinutes } = this.#add(
      {
        id,
        kind,
        name,
        handsOnMinutes: this.#minutes(own),
        ...(own.mayPause && { mayPause: true }),
        ...(own.outdoors && { outdoors: true }),
        ...(own.noisy && { noisy: true }),
        ...(own.hands === 2 && { hands: 2 as const }),
      },
      [...this.#tail, ...this.#firm],
    );
    this.#tail = [
      {
        step,
        ...(dryMinutes > 0 && { least: { minutes: dryMinutes, curing: FILM } }),
        // A bench does not stay level for days while one works on it.
        ...(kind === 'level' && {
          most: clock(LEVEL_HOLDS_MINUTES),
          abradeMinutes: handsOnMinutes,
          again: { kind, name: 'Level the bench again' },
        }),
      },
    ];
  }

  /** Coats over the surface, each once the one before may be recoated. */
  #finish({ id, kind, name }: RouteStep, { product, coats, handsOnMinutes }: NonNullable<BatchFacts['finish']>): void {
    for (let coat = 1; coat <= coats; coat++) {
      const coatName = coats === 1 ? name : `${name}, coat ${coat}`;
      const made = this.#add({ id: `${id} ${coat}`, kind, name: coatName, handsOnMinutes }, [
        ...this.#tail,
        ...this.#firm,
      ]);
      const minutes = coat < coats ? product.recoatOpensMinutes : product.demouldMinutes;
      this.#tail = [{ step: made.id, least: label(minutes, product) }];
    }
  }

  #pours(own: RouteStep): void {
    const { layers } = this.facts;
    let waits = this.#tail;
    layers.forEach((layer, i) => {
      const { product, plantsBefore } = layer;
      const many = layers.length > 1 ? ` layer ${layer.number}` : '';
      const { handsOn, untilFirst } = this.#minutesOf(layer);
      const done = this.#doneOf(layer);
      const poured = this.#add(
        {
          id: pourStep(layer.number),
          kind: 'pour',
          name: `${plantsBefore ? 'Set plants, pour' : own.name}${many}`,
          handsOnMinutes: handsOn,
          potLifeMinutes: layer.shortestPotLifeMinutes,
          plannedC: this.facts.roomC,
          ...(this.facts.leastC !== null && { leastC: this.facts.leastC }),
          ...(done && { done }),
        },
        waits,
      );
      const looks = this.#looks(layer, poured, many);
      this.#firm.push({ step: poured.id, least: label(product.demouldMinutes, product) }, ...looks);
      const span = done ? wallMinutes(done.to) - wallMinutes(layer.pouredAt!) : handsOn - untilFirst;
      const next = layers[i + 1];
      const untilNext = next ? this.#minutesOf(next).untilFirst : FIRST_PIECE_MINUTES;
      waits = [this.#recoat(poured.id, product, span, untilNext), ...looks];
    });
    this.#tail = waits.map(({ step }) => ({ step }));
  }

  /** Looks for bubbles after a layer and for leaks after the first: within so many minutes of the pour, from the first to the last. */
  #looks(layer: LayerFacts, poured: ScheduleStep, many: string): After[] {
    const { bubbles, leaks } = looksOf(layer.product, this.facts);
    const wanted = [
      { kind: 'bubbles', id: `bubbles ${layer.number}`, after: many && `,${many}`, minutes: bubbles },
      { kind: 'leak look', id: 'leak look', after: '', minutes: layer.number === 1 ? leaks : [] },
    ] as const;
    const looks: After[] = [];
    for (const { kind, id, after, minutes } of wanted) {
      const own = this.route.find((step) => step.on && step.kind === kind);
      if (!own || minutes.length === 0) continue;
      const within = { least: clock(minutes[0]!), most: clock(minutes.at(-1)!) };
      const look = this.#add(
        {
          id,
          kind,
          name: `${own.name}${after}`,
          handsOnMinutes: this.#minutes(own, this.facts.pieces),
          ...doneWith(poured),
        },
        [{ step: poured.id, ...within }, ...looks],
      );
      looks.push({ step: look.id });
    }
    return looks;
  }

  /** The product of the layer that a pour or its top-up belongs to. */
  #productOf(stepId: string): ProductFacts {
    const layer = Number(/(\d+)$/.exec(stepId)?.[1] ?? 1);
    return (this.facts.layers.find((one) => one.number === layer) ?? this.facts.layers[0]!).product;
  }

  /** Minutes of a layer in all, and to its first piece. */
  #minutesOf({ handsOnMinutes, plantsBefore }: LayerFacts): { handsOn: number; untilFirst: number } {
    const plants = plantsBefore ? PLANT_MINUTES * this.facts.pieces : 0;
    return { handsOn: handsOnMinutes + plants, untilFirst: FIRST_PIECE_MINUTES + plants };
  }

  /** A layer that was poured: from when it was begun, about, to its last piece. */
  #doneOf(layer: LayerFacts): ScheduleStep['done'] | null {
    const { pouredAt, pouredUntil } = layer;
    if (pouredAt === null) return null;
    const { handsOn, untilFirst } = this.#minutesOf(layer);
    const first = wallMinutes(pouredAt);
    return { from: toWallTime(first - untilFirst), to: pouredUntil ?? toWallTime(first + handsOn - untilFirst) };
  }

  /** As in a plan (`recoatWindow`): it opens from the last piece, and the first piece of the next layer has to find that of this one bonding. */
  #recoat(step: string, product: ProductFacts, spanMinutes: number, untilNextMinutes: number): After {
    const { recoatOpensMinutes: opens, recoatClosesMinutes: closes } = product;
    if (closes === null) return { step, least: label(opens, product) };
    return {
      step,
      least: label(opens, product),
      most: { ...label(closes, product), beforeEndMinutes: spanMinutes, afterStartMinutes: untilNextMinutes },
      abradeMinutes: abradeMinutes(this.facts.pieces),
    };
  }
}

/** A step with what the maker has said of it; a layer that was poured is known from the log. */
function withMark(step: ScheduleStep, marks: readonly StepMark[]): ScheduleStep {
  const mark = marks.find((one) => one.step === step.id);
  const done = step.done ?? mark?.done;
  return {
    ...step,
    ...(mark?.minutes !== undefined && { handsOnMinutes: mark.minutes }),
    ...(mark?.pinned && !done && { pinned: mark.pinned }),
    ...(done && { done }),
  };
}

/**
 * A batch as the solver takes it: the steps of its route with all its pieces, the layers of its plan with what lies between them (looks
 * for bubbles and leaks, recoat windows, repairs of layers that failed), full cure, what it occupies, and what has been done.
 */
export function batchOnRoute(
  named: BatchNamed,
  facts: BatchFacts,
  route: Route,
  marks: readonly StepMark[],
): ScheduleBatch {
  const { steps } = new StepsOnRoute(facts, route);
  const whole = marks
    .filter(({ failed }) => failed !== undefined)
    .reduce<ScheduleBatch>((batch, { step }) => withRepair(batch, step), {
      ...named,
      windows: named.windows ?? null,
      pieces: facts.pieces,
      steps,
      holds: holdsOf(facts, steps),
    });
  const begun = facts.layers.flatMap(({ number, begunAt }) =>
    begunAt === null ? [] : [[pourStep(number), begunAt] as const],
  );
  const marked = whole.steps.map((step) => withMark(step, marks));
  return { ...whole, steps: doneBefore(marked, new Map(begun)) };
}

/** What comes before a step that is done, or was begun, is done too, whether anybody said so or not. */
function doneBefore(steps: readonly ScheduleStep[], begun: ReadonlyMap<string, WallTime>): ScheduleStep[] {
  const at = new Map([...begun, ...steps.flatMap(({ id, done }) => (done ? [[id, done.from] as const] : []))]);
  // Steps stand in an order in which none comes before what it waits for.
  for (const { id, after } of [...steps].reverse()) {
    const by = at.get(id);
    if (by === undefined) continue;
    for (const { step } of after) {
      const known = at.get(step);
      if (known === undefined || (known > by && !steps.find((one) => one.id === step)?.done)) at.set(step, by);
    }
  }
  return steps.map((step) => {
    const by = step.done || begun.has(step.id) ? undefined : at.get(step.id);
    return by === undefined ? step : { ...step, done: { from: by, to: by } };
  });
}

/** A look at what has been poured is over once the pour is long done. */
const doneWith = ({ done }: ScheduleStep): Pick<ScheduleStep, 'done'> =>
  done ? { done: { from: done.to, to: done.to } } : {};

/** What a batch occupies, from which step to which; only from what is not done with. */
function holdsOf(facts: BatchFacts, steps: readonly ScheduleStep[]): ScheduleBatch['holds'] {
  const first = (...kinds: StepKind[]): string | undefined => steps.find(({ kind }) => kinds.includes(kind))?.id;
  const pour = first('pour');
  if (!pour) return [];
  const off = first('demould') ?? 'cured';
  const box = facts.layers.some(({ product }) => CURE_MODELS[product.curing.cureModel].wantsDryAir);
  return [
    ...(facts.levelCm2 > 0
      ? [{ place: PLACES.level, amount: facts.levelCm2, from: first('level') ?? pour, to: off }]
      : []),
    ...(facts.dammed > 0 ? [{ place: PLACES.dams, amount: facts.dammed, from: first('dam') ?? pour, to: off }] : []),
    ...(facts.moulds > 0
      ? [{ place: PLACES.moulds, amount: facts.moulds, from: first('mould') ?? pour, to: off }]
      : []),
    ...(box ? [{ place: PLACES.dryBox, amount: facts.pieces, from: pour, to: 'cured' }] : []),
  ];
}
