import { layerRecord } from './record';
import { THREADS } from './runSchema';
import { TestBench, testRunPlan } from './testRuns';

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
