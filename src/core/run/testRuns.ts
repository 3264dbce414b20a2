import { PRODUCT_KINDS } from '../mixing/productKinds';
import { mixForPour, TYPICAL_LOSSES } from '../mixing/losses';
import type { Product } from '../model/productSchema';
import { cupPortions, layerPortions, type Mixture, type Portion } from '../pouring/portions';
import { stockPart } from '../pouring/stockTint';
import { RunBook } from './replay';
import type { Refusal, RunState } from './runState';
import { runEventSchema, type RunCup, type RunEvent, type RunLayer, type RunPlan } from './runSchema';
import { onScale } from './say';

export const kind = (id: string): (typeof PRODUCT_KINDS)[number] => PRODUCT_KINDS.find((one) => one.id === id)!;

export const testCup = (number: number, grams: readonly number[], change: Partial<RunCup> = {}): RunCup => {
  const pours = grams.map((one, i) => ({ designId: 'tile', copy: number * 10 + i, tag: 'T', grams: one }));
  const mixGrams = mixForPour(
    grams.reduce((sum, one) => sum + one, 0),
    grams.length,
    TYPICAL_LOSSES,
  );
  return { number, pours, mixGrams, portions: testPortions(mixGrams), ...change };
};

/** Green ink, four drops in 70 g. */
export const GREEN_INK = { id: 'ink', name: 'Green ink', dropGrams: 0.035, gramsPer100: 0.2, pricePerGram: 0.4 };
const mixtureFor = (recipe: Mixture['recipe'], product: Pick<Product, 'parts'>, scaleStepGrams = 0.1): Mixture => ({
  recipe,
  scaleStepGrams,
  resinShare: stockPart(product).share,
});
/** A cup of coating epoxy with green ink, or of what is said. */
export const testPortions = (
  mixGrams: number,
  recipe: Mixture['recipe'] = [GREEN_INK],
  product: Pick<Product, 'parts'> = kind('coating-epoxy'),
): Portion[] => cupPortions(mixGrams, mixtureFor(recipe, product), null);

/** A layer whose cups are made up as the plan would. */
export function testTinted(
  number: number,
  mixes: readonly (readonly number[])[],
  recipe: readonly (typeof GREEN_INK)[],
  change: Partial<RunLayer> & { scaleStepGrams?: number } = {},
): RunLayer {
  const { scaleStepGrams, ...rest } = change;
  const cups = mixes.map((grams, i) => testCup(i + 1, grams));
  const made = layerPortions(
    cups.map(({ mixGrams }) => mixGrams),
    mixtureFor(recipe, rest.product ?? kind('coating-epoxy'), scaleStepGrams),
  );
  return testLayer(
    number,
    cups.map((cup, i) => ({ ...cup, portions: made.cups[i]! })),
    { stock: made.stock, recipe: [...recipe], ...rest },
  );
}

export const testLayer = (number: number, cups: RunCup[], change: Partial<RunLayer> = {}): RunLayer => ({
  number,
  product: kind('coating-epoxy'),
  wetMm: 4,
  fromMm: 0,
  toMm: 4,
  plantsBefore: false,
  stock: null,
  cups,
  recipe: [GREEN_INK],
  ...change,
});

/** A run plan for tests: one layer of coating epoxy, two cups of two pieces, unless told otherwise. */
export const testRunPlan = (change: Partial<RunPlan> = {}): RunPlan => ({
  format: 'aguada.run-plan',
  version: 1,
  name: 'Batch',
  setName: 'Set',
  levelMm: 12,
  by: 'weight',
  scaleStepGrams: 0.1,
  cupGrams: 180,
  roomC: 20,
  humidity: 0.5,
  losses: TYPICAL_LOSSES,
  cautions: [],
  bottles: [],
  ready: [
    { id: 'dams', text: 'Dams on', why: 'An open edge runs out.', must: true },
    { id: 'cups', text: 'Cups laid out', why: 'They are looked for while the clock runs.', must: false },
  ],
  layers: [testLayer(1, [testCup(1, [40, 30]), testCup(2, [25, 20])])],
  below: [],
  climate: null,
  dammed: true,
  moulded: false,
  filler: { designId: 'base', tag: 'Base', grams: 3 },
  pairs: [],
  pieces: [{ designId: 'tile', tag: 'T', surfaceCm2: 100, colour: '#446655', cut: null }],
  ...change,
});

const MINUTE_MS = 60_000;
type Loose = { type: RunEvent['type'] } & Record<string, unknown>;

/** A bench to press at: each press takes `seconds`, ids count up. */
export class TestBench {
  readonly book: RunBook;
  readonly events: RunEvent[] = [];
  now = 0;
  #count = 0;

  constructor(readonly plan: RunPlan = testRunPlan()) {
    this.book = new RunBook(plan, 0);
  }

  get state(): RunState {
    return this.book.state();
  }

  send(event: Loose, seconds = 10): Refusal | null {
    this.now += seconds * 1000;
    const whole = runEventSchema.parse({
      id: `event-${String(this.#count++).padStart(6, '0')}`,
      at: Math.round(this.now),
      by: 'test',
      ...event,
    });
    this.events.push(whole);
    return this.book.apply(whole);
  }

  /** Presses the large button of whatever step it is. */
  press(rest: Record<string, unknown> = {}, seconds = 10): Refusal | null {
    return this.send({ type: 'done', step: this.state.current?.id ?? 'none', ...rest }, seconds);
  }

  /** Presses as a scale would show it, off by so many grams. */
  weigh(offGrams = 0, seconds = 10): Refusal | null {
    const { state } = this;
    const at = onScale(state, state.current!)!;
    return this.press({ grams: Math.abs(at.stopGrams - at.startGrams) + offGrams }, seconds);
  }

  /** Presses on until a step of this kind is next. */
  until(wanted: string, seconds = 10): void {
    for (let i = 0; i < 500; i++) {
      const { current } = this.state;
      if (!current || current.kind === wanted) return;
      this.press(
        current.kind === 'wait' ? { anyway: 'no time' } : {},
        current.kind === 'stir' ? current.minutes * 60 : seconds,
      );
    }
    throw new Error(`No step ${wanted} came`);
  }

  wait(minutes: number): void {
    this.now += minutes * MINUTE_MS;
  }
}
