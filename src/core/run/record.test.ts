import { layerRecord } from './record';
import { THREADS } from './runSchema';
import { clocksOf } from './clocks';
import { TestBench, testCup, testLayer, testRunPlan } from './testRuns';

const bench = (): TestBench => new TestBench(testRunPlan({ ready: [] }));
/** Goes on, whatever is weighed or poured read from the scale. */
function readUntil(run: TestBench, kind: 'stir' | 'cover'): void {
  for (let i = 0; i < 60 && run.state.current!.kind !== kind; i++) {
    const step = run.state.current!;
    if (step.kind === 'weigh') run.press({ grams: step.targetGrams });
    else if (step.kind === 'pour') run.press({ grams: step.pour.grams + 0.3 });
    else if (step.kind === 'left') run.press({ grams: 2 });
    else run.press();
  }
}
const firstCup = (run: TestBench) => layerRecord(run.state, 1)!.cups[0]!;

test('a cup of which everything was read is read; each piece has the minutes since the press before', () => {
  const run = bench();
  readUntil(run, 'cover');
  const { read, pieceMinutes, stirMinutes } = firstCup(run).bench;
  expect(read).toBe(true);
  expect(pieceMinutes).toHaveLength(firstCup(run).pieces.length);
  const [cup] = run.state.cups;
  expect(pieceMinutes).toEqual(cup!.poured.map(({ minutes }) => minutes));
  expect(pieceMinutes.every((minutes) => minutes! > 0)).toBe(true);
  const stirred = run.state.done.get('L1.C1.1.stir')!;
  expect(stirMinutes).toBeCloseTo((stirred.at - stirred.from) / 60_000, 9);
  expect(stirMinutes!).toBeGreaterThan(0);
});

test('a cup of which something was taken as planned is not read, and its pieces have no minutes', () => {
  const run = bench();
  readUntil(run, 'stir');
  run.until('cover');
  const { read, pieceMinutes } = firstCup(run).bench;
  expect(read).toBe(false);
  expect(pieceMinutes.every((minutes) => minutes === null)).toBe(true);
});

test('a stir that was skipped has no minutes', () => {
  const run = bench();
  readUntil(run, 'stir');
  run.send({ type: 'skip', step: run.state.current!.id, why: 'stirred by machine' });
  readUntil(run, 'cover');
  expect(firstCup(run).bench.stirMinutes).toBeNull();
});

test('drawing threads counts from when the parts met, and of the cup that is in hand', () => {
  const run = bench();
  readUntil(run, 'stir');
  const { contactAt } = run.state.cups[0]!;
  run.send({ type: 'note', text: THREADS });
  const said = run.state.notes.at(-1)!.at;
  readUntil(run, 'cover');
  const [first, ...others] = layerRecord(run.state, 1)!.cups;
  expect(first!.bench.thickMinutes).toBeCloseTo((said - contactAt!) / 60_000, 9);
  expect(first!.bench.thickMinutes!).toBeGreaterThan(0);
  expect(others.every((cup) => cup.bench.thickMinutes === null)).toBe(true);
});

test('stirring on until it is clear is timed by itself; left out it has no minutes', () => {
  const run = bench();
  readUntil(run, 'stir');
  run.until('clear');
  run.press({}, 90);
  run.until('clear');
  run.send({ type: 'skip', step: run.state.current!.id, why: 'it stays milky by nature' });
  readUntil(run, 'cover');
  expect(layerRecord(run.state, 1)!.cups.map((cup) => cup.bench.clearMinutes)).toEqual([1.5, null]);
});

test('drops weigh what the scale rose by, where it rose enough to be read', () => {
  const run = new TestBench(testRunPlan({ ready: [], scaleStepGrams: 0.01 }));
  run.until('dose');
  const step = run.state.current!;
  const counted = step.kind === 'dose' ? step.portion.drops : 0;
  expect(counted).toBeGreaterThan(0);
  for (let i = 0; i < counted; i++) run.send({ type: 'drop', step: step.id, count: 1 }, 1);
  run.press({ roseGrams: 0.16 });
  readUntil(run, 'stir');
  run.until('dose');
  run.press({ roseGrams: 0.04 });
  readUntil(run, 'cover');
  const [first, second] = layerRecord(run.state, 1)!.cups;
  expect(first!.bench.drops).toEqual([{ id: 'ink', count: counted, grams: 0.16 }]);
  expect(second!.bench.drops).toEqual([]);
  // What the recipe wants is booked as drops of the shelf's own weight.
  expect(first!.doses[0]!.grams).toBeCloseTo(counted * 0.035, 9);
});

describe('hardening by touch', () => {
  const MINUTE = 60_000;
  const poured = (): TestBench => {
    const run = bench();
    readUntil(run, 'cover');
    run.press();
    return run;
  };
  const clock = (run: TestBench, id: string) => clocksOf(run.state).find((one) => one.id.startsWith(id))!;

  test('of what nobody touched nothing is noted', () => {
    const run = poured();
    run.send({ type: 'answer', clock: 'L1.firm', did: 'seen' });
    expect(layerRecord(run.state, 1)!.hardened).toEqual([]);
  });

  test('too soft, it rings again; both looks stand against what was reckoned', () => {
    const run = poured();
    const { from, due } = clock(run, 'L1.firm');
    run.now = due;
    run.send({ type: 'answer', clock: 'L1.firm', did: 'not yet' }, 0);
    const again = clock(run, 'L1.firm');
    expect(again.id).toBe('L1.firm.again1');
    expect(again.due - due).toBeCloseTo(0.1 * (due - from), -1);
    run.now = again.due;
    run.send({ type: 'answer', clock: again.id, did: 'so far' }, 0);
    expect(clock(run, 'L1.firm')).toBeUndefined();
    const [look, ...others] = layerRecord(run.state, 1)!.hardened;
    expect(others).toEqual([]);
    expect(look).toMatchObject({ what: 'firm', labelMinutes: run.plan.layers[0]!.product.demouldMinutes });
    expect(look!.reckonedMinutes).toBeCloseTo((due - from) / MINUTE, 3);
    expect(look!.softMinutes).toBeCloseTo((due - from) / MINUTE, 3);
    expect(look!.firmMinutes! / look!.softMinutes!).toBeCloseTo(1.1, 3);
  });

  test('no longer waited for because it is firm already: firm at that moment', () => {
    const run = poured();
    const { from, due } = clock(run, 'L1.firm');
    run.now = from + 0.7 * (due - from);
    run.press({ anyway: 'it is firm already' }, 0);
    const [look] = layerRecord(run.state, 1)!.hardened;
    expect(look!.firmMinutes! / look!.reckonedMinutes).toBeCloseTo(0.7, 3);
    expect(look!.softMinutes).toBeNull();
  });

  test('a layer that another goes on is touched for that', () => {
    const layers = [testLayer(1, [testCup(1, [40])]), testLayer(2, [testCup(1, [40])])];
    const run = new TestBench(testRunPlan({ ready: [], layers }));
    run.until('wait');
    run.send({ type: 'answer', clock: 'L1.opens', did: 'so far' });
    expect(layerRecord(run.state, 1)!.hardened.map(({ what }) => what)).toEqual(['recoat']);
  });
});
