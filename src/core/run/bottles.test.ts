import { bottleCalled, bottleNow, bottlesOf, pastLotsTaken, takenIn } from './bottles';
import { layerRecord } from './record';
import type { RunBottle } from './runSchema';
import { kind, testCup, testLayer, testPortions, TestBench, testRunPlan } from './testRuns';

const kit = (id: string, a: number, b: number, change: Partial<RunBottle> = {}): RunBottle => ({
  id,
  name: `Kit ${id}`,
  kind: 'product',
  of: 'coating-epoxy',
  goodUntil: '2027-06-01',
  past: false,
  left: [
    { part: 'A', grams: a },
    { part: 'B', grams: b },
  ],
  ...change,
});
const old = kit('old', 500, 500, { past: true, goodUntil: '2026-01-01' });
const ink = (id: string): RunBottle => ({
  ...kit(id, 0, 0),
  kind: 'colourant',
  of: 'ink',
  left: [{ part: 'all', grams: 20 }],
});
const benchWith = (bottles: RunBottle[]): TestBench => new TestBench(testRunPlan({ ready: [], bottles }));
const here = (bench: TestBench): ReturnType<typeof bottleNow> =>
  bottleNow(bench.state, takenIn(bench.state, bench.state.current!)!);

describe('the bottle of a step', () => {
  test('is of its part or colourant; a step that takes nothing has none', () => {
    const bench = benchWith([kit('1', 300, 200), ink('i')]);
    expect(takenIn(bench.state, bench.state.current!)).toEqual({ kind: 'product', of: 'coating-epoxy', part: 'A' });
    bench.until('dose');
    expect(here(bench)).toMatchObject({ bottle: { id: 'i' }, leftGrams: 20 });
    bench.until('stir');
    expect(takenIn(bench.state, bench.state.current!)).toBeNull();
  });

  test('goes down by what was weighed, part by part; when it is empty the next one is named', () => {
    const bench = benchWith([kit('1', 60, 200), kit('2', 500, 500)]);
    const first = bench.state.current!;
    const targetGrams = first.kind === 'weigh' ? first.targetGrams : 0;
    expect(targetGrams).toBeGreaterThan(0);
    expect(here(bench)).toMatchObject({ bottle: { id: '1' }, leftGrams: 60 });
    bench.press({ grams: targetGrams });
    // Part B of the same kit is untouched.
    expect(here(bench)).toMatchObject({ bottle: { id: '1' }, leftGrams: 200 });
    bench.until('left');
    bench.press();
    const [one] = bench.state.cups;
    const second = here(bench)!;
    expect(second.bottle.id).toBe(one!.weighed.A < 60 ? '1' : '2');
    expect(second.leftGrams).toBeCloseTo(one!.weighed.A < 60 ? 60 - one!.weighed.A : 560 - one!.weighed.A, 9);
  });

  test('is another one by a press, from there on; what was weighed before stays with the first', () => {
    const bench = benchWith([kit('1', 300, 300), kit('2', 400, 400)]);
    bench.press();
    const a = bench.state.cups[0]!.weighed.A;
    expect(bench.send({ type: 'bottle', lot: '2' })).toBeNull();
    expect(here(bench)).toMatchObject({ bottle: { id: '2' }, leftGrams: 400 });
    bench.press();
    const part = { kind: 'product', of: 'coating-epoxy', part: 'A' } as const;
    expect(bottleNow(bench.state, part)).toMatchObject({ bottle: { id: '2' }, leftGrams: 400 });
    bench.send({ type: 'bottle', lot: '1' });
    expect(bottleNow(bench.state, part)!.leftGrams).toBeCloseTo(300 - a, 9);
    expect(bench.send({ type: 'bottle', lot: 'elsewhere' })).toBe('nothing of the kind');
  });

  test('past its date is none until it is named, with a reason; then the log and the ledger know', () => {
    const bench = benchWith([old, kit('1', 300, 300)]);
    expect(here(bench)!.bottle.id).toBe('1');
    expect(bench.send({ type: 'bottle', lot: 'old' })).toBe('a reason is asked for');
    expect(pastLotsTaken(bench.state)).toEqual([]);
    expect(bench.send({ type: 'bottle', lot: 'old', anyway: 'tried, it still sets' })).toBeNull();
    expect(here(bench)!.bottle.id).toBe('old');
    expect(pastLotsTaken(bench.state)).toEqual(['old']);
    // Once it is named it is taken again without a word.
    bench.send({ type: 'bottle', lot: '1' });
    expect(bench.send({ type: 'bottle', lot: 'old' })).toBeNull();
    expect(bottlesOf(bench.state, takenIn(bench.state, bench.state.current!)!).map(({ id }) => id)).toEqual([
      'old',
      '1',
    ]);
    bench.until('left');
    bench.press();
    const record = layerRecord(bench.state, 1)!;
    expect(record.cups[0]!.lots).toEqual(['old']);
    expect(record.note).toContain('past its date, Kit old: tried, it still sets');
  });

  test('is in the log for the cups that were mixed from then on, not for those before', () => {
    const bench = benchWith([kit('1', 300, 300), kit('2', 400, 400)]);
    bench.until('left');
    bench.press();
    bench.send({ type: 'bottle', lot: '2' });
    bench.until('left');
    bench.press();
    expect(layerRecord(bench.state, 1)!.cups.map(({ lots }) => lots)).toEqual([[], ['2']]);
  });

  test('is that of the product itself where it is poured straight out of it', () => {
    const product = kind('clear-drying-glue');
    const cup = testCup(1, [10], { portions: testPortions(12, [], product) });
    const glue = kit('g', 0, 0, { of: product.id, left: [{ part: 'all', grams: 100 }] });
    const plan = testRunPlan({ ready: [], bottles: [glue], layers: [testLayer(1, [cup], { product, wetMm: 1 })] });
    const bench = new TestBench(plan);
    expect(bench.state.current!.kind).toBe('pour');
    expect(here(bench)).toMatchObject({ bottle: { id: 'g' }, leftGrams: 100 });
  });
});

test('a bottle is called by its name, its id, or the start of one name alone', () => {
  const bottles = [kit('1', 1, 1), kit('12', 1, 1), { ...kit('3', 1, 1), name: 'Amber' }];
  expect(bottleCalled(bottles, ' kit 1 ')?.id).toBe('1');
  expect(bottleCalled(bottles, '12')?.id).toBe('12');
  expect(bottleCalled(bottles, 'am')?.id).toBe('3');
  expect(bottleCalled(bottles, 'kit')).toBeNull();
  expect(bottleCalled(bottles, '')).toBeNull();
});
