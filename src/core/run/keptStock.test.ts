import { ofStockGrams } from '../pouring/portions';
import { keptStock, leftOfStock } from './keptStock';
import { balanceOf, layersToLog } from './record';
import type { RunLayer } from './runSchema';
import { stepWords } from './say';
import { GREEN_INK, TestBench, testRunPlan, testTinted } from './testRuns';

const MADE = '2026-11-30T14:00';
const wallAt = (): string => MADE;
const layer = testTinted(
  1,
  [
    [20, 18],
    [21, 15],
  ],
  [{ ...GREEN_INK, gramsPer100: 0.12 }],
);
const bench = (own: RunLayer): TestBench => new TestBench(testRunPlan({ ready: [], layers: [own] }));

/** A run that made its stock, took the first cup's share of it and was given up. */
function givenUp(): TestBench {
  const run = bench(layer);
  run.until('pour');
  run.press();
  run.send({ type: 'give up', why: 'a dam broke' });
  return run;
}
/** The second cup, poured with what the first run left. */
const theRest = (): RunLayer => {
  const kept = keptStock(givenUp().state, 1, MADE, wallAt)!;
  return { ...layer, stockKept: { leftGrams: kept.leftGrams, madeAt: kept.madeAt }, cups: layer.cups.slice(1) };
};

test('what is left is what was made less what went into cups, while it is good', () => {
  const { state } = givenUp();
  const taken = ofStockGrams(state.cups.flatMap(({ putIn }) => putIn));
  expect(taken).toBeGreaterThan(0);
  expect(leftOfStock(state, layer)).toBeCloseTo(layer.stock!.stockGrams - taken, 9);
  expect(keptStock(state, 1, '2026-12-01T14:00', wallAt)).toMatchObject({ madeAt: MADE, stock: layer.stock });
  expect(keptStock(state, 1, '2026-12-01T14:01', wallAt)).toBeNull();
  expect(keptStock(state, 2, MADE, wallAt)).toBeNull();
});

test('a run that made none leaves none', () => {
  const run = bench(layer);
  run.send({ type: 'skip', step: 'L1.stock', why: 'no small cup at hand' });
  run.until('pour');
  expect(keptStock(run.state, 1, MADE, wallAt)).toBeNull();
});

test('the rest stirs it up instead of making one, and takes off what was left over before', () => {
  const first = layersToLog(givenUp().state)[0]!.tintLeft;
  const run = bench(theRest());
  run.until('stock');
  expect(stepWords(run.state, run.state.current!).title).toBe('Stir up the stock tint');
  run.until('cover');
  const [cup] = run.state.cups;
  expect(ofStockGrams(cup!.putIn)).toBeGreaterThan(0);
  const second = layersToLog(run.state)[0]!.tintLeft;
  // Both runs together: one stock, less what both cups took of it.
  const { stockGrams, resinGrams } = layer.stock!;
  const taken = ofStockGrams(givenUp().state.cups.flatMap(({ putIn }) => putIn)) + ofStockGrams(cup!.putIn);
  expect(first.resinGrams + second.resinGrams).toBeCloseTo(resinGrams * (1 - taken / stockGrams), 9);
  const colour = [...first.colours, ...second.colours].reduce((sum, { grams }) => sum + grams, 0);
  expect(colour).toBeCloseTo((stockGrams - resinGrams) * (1 - taken / stockGrams), 9);
  const { mixedGrams, inPiecesGrams, lostGrams, inUseGrams, thrownAwayGrams, tintLeftGrams } = balanceOf(run.state);
  expect(tintLeftGrams).toBeCloseTo(stockGrams - taken, 9);
  expect(inPiecesGrams + lostGrams + inUseGrams + thrownAwayGrams + tintLeftGrams).toBeCloseTo(mixedGrams, 9);
});

test('one that is no longer there is left out: the cup is tinted in another way, and nothing is taken off', () => {
  const run = bench(theRest());
  run.send({ type: 'skip', step: 'L1.stock', why: 'it is no longer there' });
  run.until('cover');
  expect(ofStockGrams(run.state.cups[0]!.putIn)).toBe(0);
  expect(layersToLog(run.state)[0]!.tintLeft.resinGrams).toBeGreaterThanOrEqual(0);
  expect(balanceOf(run.state).tintLeftGrams).toBeGreaterThanOrEqual(0);
});
