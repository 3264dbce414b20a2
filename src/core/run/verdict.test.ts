import { clocksOf } from './clocks';
import { SLIPS, slipsFor } from './practice';
import { onScale, REFUSAL_WORDS, stepWords } from './say';
import { kind, testCup, testLayer, TestBench, testRunPlan } from './testRuns';
import { verdictOf } from './verdict';

const whats = (bench: TestBench): string[] => verdictOf(bench.state, bench.now).findings.map(({ what }) => what);

/** Everything as it should be: weighed to the gram, stirred, looked after. */
function careful(bench: TestBench): void {
  for (let i = 0; i < 200; i++) {
    const { current } = bench.state;
    if (!current || current.kind === 'wait') break;
    if (current.kind === 'stir') bench.press({}, current.minutes * 60);
    else if (onScale(bench.state, current) && current.kind !== 'left') bench.weigh(0, 20);
    else bench.press({}, 20);
  }
  for (const minutes of [10, 15, 30, 60])
    for (const cup of bench.state.cups)
      bench.send({ type: 'answer', clock: `${cup.key}.1.look${minutes}`, did: 'none, dry all round' }, 0);
  bench.wait(120);
}

describe('the verdict on a practice run', () => {
  it('finds nothing in a run as it should be', () => {
    const bench = new TestBench();
    careful(bench);
    const verdict = verdictOf(bench.state, bench.now);
    expect(verdict.findings).toEqual([]);
    expect(verdict).toMatchObject({ overshoots: 0, thrownAwayGrams: 0 });
    expect(verdict.meanPourErrorGrams).toBeCloseTo(0, 6);
  });

  it('counts what went over, and what that costs the ratio when it is left so', () => {
    const bench = new TestBench();
    bench.until('weigh');
    bench.weigh();
    bench.weigh(6);
    bench.send({ type: 'decide', step: bench.state.pending!.step, choice: 'accept' });
    careful(bench);
    const verdict = verdictOf(bench.state, bench.now);
    expect([verdict.overshoots, verdict.overGrams]).toEqual([1, expect.closeTo(6, 6)]);
    expect(whats(bench)).toContain('Cup 1 stays sticky');
  });

  it('names a stir that was too short, a cup that was not scraped, what was left out, what nobody looked at', () => {
    const bench = new TestBench();
    bench.send({ type: 'skip', step: 'ready.dams', why: 'no time' });
    bench.until('stir');
    bench.press({}, 20);
    bench.send({ type: 'skip', step: bench.state.current!.id, why: 'no cup' });
    bench.until('wait');
    bench.wait(60);
    expect(whats(bench)).toEqual(
      expect.arrayContaining([
        'An open edge runs out.',
        'Streaks and sticky spots',
        'Sticky spots at the edge',
        'Bubbles set in',
        'A leak is found in the morning',
      ]),
    );
  });

  it('says who was poured too late', () => {
    const bench = new TestBench();
    bench.until('pour');
    bench.wait(45);
    bench.press({ anyway: 'still thin' });
    bench.press({ anyway: 'still thin' });
    bench.until('wait');
    expect(whats(bench).some((what) => what.startsWith('T #10 ') || what.startsWith('T #10,'))).toBe(true);
  });

  it('a leak that was thrown in is a finding until it is answered as one', () => {
    const bench = new TestBench();
    careful(bench);
    bench.send({ type: 'slip', slip: 'leak' });
    expect(whats(bench)).toEqual(['The leak runs on overnight']);
    bench.send({ type: 'timer', minutes: 1, name: 'x' });
    bench.send({ type: 'answer', clock: clocksOf(bench.state)[0]!.id, did: 'leak, closed from outside' });
    expect(whats(bench)).toEqual([]);
  });
});

describe('slips', () => {
  it('come by their seed, one of a kind, within the cups there are', () => {
    const plan = testRunPlan();
    const all = Array.from({ length: 40 }, (_, seed) => slipsFor(plan, seed + 1));
    expect(slipsFor(plan, 7)).toEqual(slipsFor(plan, 7));
    for (const slips of all) {
      expect(new Set(slips.map(({ slip }) => slip)).size).toBe(slips.length);
      expect(slips.every(({ cup, amount }) => cup >= 0 && cup < 2 && amount > 0)).toBe(true);
    }
    for (const slip of SLIPS) expect(all.some((slips) => slips.some((one) => one.slip === slip))).toBe(true);
  });
});

describe('what a step says', () => {
  it('by weight what the scale shows, by volume the mark of the cup', () => {
    const bench = new TestBench(testRunPlan({ ready: [] }));
    const { current } = bench.state;
    expect(stepWords(bench.state, current!).title).toBe('Weigh in part A');
    const grams = (current as { targetGrams: number }).targetGrams;
    expect(onScale(bench.state, current!)).toEqual({ startGrams: 0, stopGrams: grams, falls: false });
    bench.weigh();
    expect(onScale(bench.state, bench.state.current!)!.startGrams).toBeCloseTo(grams, 9);
    const volume = new TestBench(testRunPlan({ ready: [], by: 'volume' }));
    const words = stepWords(volume.state, volume.state.current!);
    expect(words.title).toBe('Fill in part A');
    expect(words.under).toContain((grams / kind('coating-epoxy').parts!.densityA).toFixed(1));
    volume.until('pour');
    expect(stepWords(volume.state, volume.state.current!).under).toMatch(/the cup falls to the mark of \d/);
  });

  it('of a cup it falls, of a piece on the scale it rises', () => {
    const bench = new TestBench();
    bench.until('pour');
    const { state } = bench;
    const cup = onScale(state, state.current!)!;
    expect(cup.falls).toBe(true);
    expect(cup.startGrams - cup.stopGrams).toBeCloseTo(40.3, 9);
    expect(onScale(state, state.current!, true)).toEqual({ startGrams: 0, stopGrams: 40, falls: false });
  });

  it('every kind of step has a title and a press, whatever it is made of', () => {
    const products = ['coating-epoxy', 'five-minute-glue', 'light-cured-resin', 'clear-drying-glue', 'clear-sealant'];
    for (const product of products)
      for (const by of ['weight', 'volume'] as const) {
        const layers = [1, 2].map((number) =>
          testLayer(number, [testCup(1, [4, 5])], { product: kind(product), wetMm: 1, plantsBefore: number === 2 }),
        );
        const bench = new TestBench(testRunPlan({ by, layers }));
        for (let i = 0; i < 200 && bench.state.current; i++) {
          const { title, press, under } = stepWords(bench.state, bench.state.current);
          for (const text of [title, press, under]) expect(text).toMatch(/\S/);
          expect(`${title} ${under}`).not.toMatch(/NaN|undefined|Infinity/);
          bench.press(bench.state.current.kind === 'wait' ? { anyway: 'test' } : {});
        }
        expect(bench.state.over).not.toBeNull();
      }
  });

  it('every refusal has its words', () => {
    for (const words of Object.values(REFUSAL_WORDS)) expect(words).toMatch(/\.$|\?$/);
  });
});
