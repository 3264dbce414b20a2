import fc from 'fast-check';
import { mixForPour, TYPICAL_LOSSES } from '../mixing/losses';
import { RATIO_GOOD, ratioByWeight } from '../mixing/ratio';
import { broughtGrams } from '../pouring/portions';
import { colourToCome, mixedGrams, resinIn, type CupState } from './cupState';
import { balanceOf } from './record';
import { layerOf, type RunState } from './runState';
import type { RunLayer } from './runSchema';
import { GREEN_INK, kind, TestBench, testRunPlan, testTinted } from './testRuns';

const ink = (gramsPer100: number, id = 'ink'): typeof GREEN_INK => ({ ...GREEN_INK, id, name: id, gramsPer100 });
const benchOf = (layer: RunLayer, scaleStepGrams = 0.1): TestBench =>
  new TestBench(testRunPlan({ ready: [], layers: [layer], scaleStepGrams }));
const errorOf = (state: RunState, cup: CupState): number => {
  const { parts } = layerOf(state, cup.layer).product;
  return (cup.weighed.A + broughtGrams(cup.putIn)) / cup.weighed.B / ratioByWeight(parts!) - 1;
};
/** What a colourant in a cup comes to, against the recipe for what is in it. */
const tintOf = (state: RunState, cup: CupState, id: string): number => {
  const layer = layerOf(state, cup.layer);
  const has = cup.putIn
    .flatMap(({ colours }) => colours)
    .reduce((sum, one) => sum + (one.id === id ? one.grams : 0), 0);
  const mix = resinIn(cup) + cup.weighed.B;
  return (100 * has) / mix / layer.recipe.find((one) => one.id === id)!.gramsPer100;
};
const stockTaken = (state: RunState, layer: number): number =>
  [...state.cups, ...state.thrownAway]
    .filter((cup) => cup.layer === layer)
    .flatMap(({ putIn }) => putIn)
    .reduce((sum, { way, grams }) => sum + (way === 'stock' ? grams : 0), 0);
const decide = (bench: TestBench, choice: string): void =>
  void bench.send({ type: 'decide', step: bench.state.pending!.step, choice });

describe('a cup with a premix', () => {
  const layer = testTinted(1, [[38]], [ink(0.1, 'a')]);

  it('that got too much of part A takes more premix, and no more of it than was made', () => {
    const bench = benchOf(layer);
    bench.weigh(4);
    decide(bench, 'mend');
    const { current } = bench.state;
    if (current?.kind !== 'dose') throw new Error(current?.kind);
    const { grams, intoGrams, drops, way } = current.portion;
    expect(way).toBe('premix');
    expect(grams).toBeLessThanOrEqual(intoGrams + drops * GREEN_INK.dropGrams + 1e-9);
    bench.until('stir');
    const [cup] = bench.state.cups;
    expect(Math.abs(errorOf(bench.state, cup!))).toBeLessThan(1e-9);
    expect(tintOf(bench.state, cup!, 'a')).toBeCloseTo(1, 6);
  });

  it('that is mixed again for less keeps the recipe, whatever is left to pour', () => {
    const bench = benchOf(testTinted(1, [[20, 18, 6]], [ink(0.1, 'a')]));
    bench.until('pour');
    bench.press();
    bench.press();
    bench.send({ type: 'discard', cup: 'L1.C1', why: 'dropped it' });
    bench.until('stir');
    const [cup] = bench.state.cups;
    expect(cup).toMatchObject({ attempt: 2 });
    expect(cup!.plan.mixGrams).toBeCloseTo(mixForPour(6, 1, TYPICAL_LOSSES), 9);
    // 8 g want a quarter of a drop: whole drops would be four times as much.
    expect(cup!.putIn[0]!.way).toBe('premix');
    expect(tintOf(bench.state, cup!, 'a')).toBeCloseTo(1, 6);
  });

  it('that nothing measures says so, and is poured paler', () => {
    const bench = benchOf(testTinted(1, [[2]], [ink(0.02, 'a')]));
    bench.until('dose');
    expect(bench.state.current).toMatchObject({ portion: { way: 'too little', grams: 0 } });
    bench.press();
    expect(bench.state.cups[0]!.putIn[0]).toMatchObject({ way: 'too little', grams: 0 });
  });
});

describe('a stock tint', () => {
  const layer = testTinted(
    1,
    [
      [20, 18],
      [21, 15],
      [17, 16],
    ],
    [ink(0.12, 'a'), ink(0.05, 'b')],
  );

  it('serves its cups; one that got too much of part B is topped up out of it', () => {
    const bench = benchOf(layer);
    expect(layer.stock).not.toBeNull();
    bench.until('stir');
    bench.until('weigh');
    bench.press();
    bench.press();
    // Part B of the second cup.
    bench.weigh(6);
    decide(bench, 'mend');
    bench.until('stir');
    const cup = bench.state.cups[1]!;
    expect(cup.mends).toHaveLength(1);
    expect(Math.abs(errorOf(bench.state, cup))).toBeLessThan(1e-6);
    for (const id of ['a', 'b']) expect(Math.abs(tintOf(bench.state, cup, id) - 1)).toBeLessThan(0.16);
    expect(stockTaken(bench.state, 1)).toBeLessThanOrEqual(layer.stock!.stockGrams + 1e-9);
  });

  it('is waited for while the scale shows none of it, as its part A would be missing in the ratio', () => {
    const bench = benchOf(layer);
    bench.until('dose');
    const { current } = bench.state;
    expect(current).toMatchObject({ portion: { way: 'stock' } });
    expect(bench.press({ grams: 0 })).toBe('nothing was poured');
    expect(bench.state.current).toEqual(current);
    expect(bench.press({ grams: 0, anyway: 'it went in before' })).toBeNull();
    expect(bench.state.current).not.toEqual(current);
  });

  it('is never asked for more than is left of it: after three cups thrown away others are tinted by themselves', () => {
    const bench = benchOf(layer);
    for (let i = 0; i < 3; i++) {
      bench.until('stir');
      bench.send({ type: 'discard', cup: 'L1.C1', why: 'cloudy' });
      expect(stockTaken(bench.state, 1)).toBeLessThanOrEqual(layer.stock!.stockGrams + 0.05 + 1e-9);
    }
    const ways = bench.state.cups.flatMap((cup) => colourToCome(cup).map(({ way }) => way));
    expect(ways).toContain('premix');
    bench.until('cover');
    expect(stockTaken(bench.state, 1)).toBeLessThanOrEqual(layer.stock!.stockGrams + 0.05 + 1e-9);
    for (const cup of bench.state.cups) {
      expect(Math.abs(errorOf(bench.state, cup))).toBeLessThan(1e-6);
      expect(Math.abs(tintOf(bench.state, cup, 'a') - 1)).toBeLessThan(0.16);
    }
  });

  it('that is not made is not asked for', () => {
    const bench = benchOf(layer);
    bench.until('stock');
    bench.send({ type: 'skip', step: bench.state.current!.id, why: 'no small cup' });
    bench.until('cover');
    expect(stockTaken(bench.state, 1)).toBe(0);
    for (const cup of bench.state.cups) expect(Math.abs(tintOf(bench.state, cup, 'a') - 1)).toBeLessThan(0.1 + 1e-9);
    const balance = balanceOf(bench.state);
    // Premixes are made of product too, and what is left of them is told.
    expect(balance.tintLeftGrams).toBeGreaterThan(0);
  });
});

it('pieces that are left before anything is weighed are not mixed for', () => {
  const bench = benchOf(testTinted(1, [[20, 12, 16]], [ink(0.2)]));
  bench.send({ type: 'leave', cup: 'L1.C1', pieces: ['12:tile'] });
  const [now, later] = bench.state.cups;
  expect(now!.plan.mixGrams).toBeCloseTo(mixForPour(32, 2, TYPICAL_LOSSES), 9);
  expect(later!.plan.mixGrams).toBeCloseTo(mixForPour(16, 1, TYPICAL_LOSSES), 9);
  bench.until('stir');
  expect(mixedGrams(bench.state.cups[0]!, layerOf(bench.state, 1))).toBeCloseTo(
    now!.plan.portions.at(-1)!.showsGrams,
    9,
  );
});

it('whatever is over-poured, thrown away or left: no cup ends off its ratio, and no tint is lost without a word', () => {
  const recipes = fc
    .array(fc.double({ min: 0.01, max: 1.5, noNaN: true }), { maxLength: 3 })
    .map((all) => all.map((grams, i) => ink(grams, `c${i}`)));
  const mixes = fc.array(fc.array(fc.double({ min: 2, max: 60, noNaN: true }), { minLength: 1, maxLength: 4 }), {
    minLength: 1,
    maxLength: 4,
  });
  const product = fc.constantFrom('coating-epoxy', 'quick-clear-epoxy', 'five-minute-glue', 'slow-casting-epoxy');
  const turn = fc.record({
    what: fc.constantFrom('as asked', 'as asked', 'as asked', 'over', 'discard', 'leave', 'fresh'),
    by: fc.double({ min: -1, max: 1, noNaN: true }),
  });
  fc.assert(
    fc.property(
      recipes,
      mixes,
      product,
      fc.constantFrom(0.01, 0.1, 1),
      fc.array(turn, { minLength: 5, maxLength: 60 }),
      (recipe, pieces, id, scaleStepGrams, turns) => {
        const layer = testTinted(1, pieces, recipe, { product: kind(id), scaleStepGrams });
        const bench = benchOf(layer, scaleStepGrams);
        for (let i = 0; i < 400 && bench.state.current?.kind !== 'cover'; i++) {
          const { state } = bench;
          const step = state.current!;
          const { what, by } = turns[i % turns.length]!;
          const cup = 'cup' in step ? step.cup : null;
          // Turns come round again and again: nothing is thrown away for ever.
          const free = i < 120;
          if (state.pending) decide(bench, state.pending.verdict === 'over' ? 'mend' : 'more');
          else if (what === 'discard' && cup && free) {
            if (bench.send({ type: 'discard', cup, why: 'test' })) bench.press();
          } else if (what === 'leave' && cup && free) {
            const key = state.cups.find((one) => one.key === cup)!.plan.pours.at(-1)!;
            bench.send({ type: 'leave', cup, pieces: [`${key.copy}:${key.designId}`] });
            bench.press();
          } else if (what === 'fresh' && cup && free) {
            if (bench.send({ type: 'fresh', cup })) bench.press();
          } else if (step.kind === 'weigh') {
            const off =
              what === 'over' && free ? Math.abs(by) * step.targetGrams * 0.4 : by * step.toleranceGrams * 0.99;
            bench.press({ grams: Math.max(0.001, step.targetGrams + off) });
          } else bench.press();
        }
        const { state } = bench;
        expect(state.current?.kind).toBe('cover');
        for (const one of state.cups) {
          const smaller = Math.min(one.weighed.A + broughtGrams(one.putIn), one.weighed.B);
          // As exact as the scale allows.
          expect(Math.abs(errorOf(state, one))).toBeLessThanOrEqual(
            Math.max(RATIO_GOOD, (1.5 * scaleStepGrams) / smaller) + 1e-6,
          );
          for (const { id: colour } of recipe) {
            const said = one.putIn.some(
              ({ way, colours }) => way === 'too little' && colours.some((all) => all.id === colour),
            );
            if (!said)
              expect(Math.abs(tintOf(state, one, colour) - 1)).toBeLessThan(0.2 + (2 * scaleStepGrams) / smaller);
          }
        }
        if (layer.stock)
          expect(stockTaken(state, 1)).toBeLessThanOrEqual(layer.stock.stockGrams + state.cups.length * scaleStepGrams);
      },
    ),
    { numRuns: 200 },
  );
});
