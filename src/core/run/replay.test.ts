import fc from 'fast-check';
import { ratioByWeight } from '../mixing/ratio';
import { clocksOf } from './clocks';
import { inCupGrams, mixedGrams, targetGrams } from './cupState';
import { balanceOf, layerIsPoured, layerRecord, layersBegun } from './record';
import { cureMoment } from './cureMoment';
import { replay, RunBook } from './replay';
import { layerOf } from './runState';
import { stepWords } from './say';
import { runEventSchema, type RunEvent, type RunPlan } from './runSchema';
import { GREEN_INK, kind, testCup, testLayer, testPortions, TestBench, testRunPlan } from './testRuns';

const MINUTE = 60_000;

describe('a run, step by step', () => {
  it('goes from making ready over every part and piece to the full cure', () => {
    const bench = new TestBench();
    const kinds: string[] = [];
    for (let i = 0; i < 60 && bench.state.current; i++) {
      kinds.push(bench.state.current.kind);
      bench.press(bench.state.current.kind === 'wait' ? { anyway: 'test' } : {});
    }
    const cup = ['weigh', 'weigh', 'dose', 'stir', 'scrape', 'clear', 'pour', 'pour', 'left'];
    expect(kinds).toEqual(['ready', 'ready', ...cup, ...cup, 'cover', 'wait', 'dams off', 'wait', 'end']);
    expect(bench.state.over?.how).toBe('finished');
  });

  it('gives each school its own steps', () => {
    const kindsOf = (product: string, doses: boolean): string => {
      const cup = testCup(1, [10], { portions: testPortions(12, doses ? [GREEN_INK] : [], kind(product)) });
      const plan = testRunPlan({
        ready: [],
        dammed: false,
        layers: [testLayer(1, [cup], { product: kind(product), wetMm: 1 })],
      });
      return new TestBench(plan).state.steps.map((step) => step.kind).join(' ');
    };
    expect(kindsOf('five-minute-glue', false)).toBe('weigh weigh stir pour left cover wait end');
    expect(kindsOf('light-cured-resin', false)).toBe('pour look lamp wait end');
    expect(kindsOf('light-cured-resin', true)).toBe('weigh dose stir pour left look lamp wait end');
    expect(kindsOf('clear-drying-glue', false)).toBe('pour cover wait end');
    expect(kindsOf('coating-epoxy', false)).toBe('weigh weigh stir scrape clear pour left cover wait end');
  });

  it('asks why before what must not be left out is left out', () => {
    const bench = new TestBench();
    expect(bench.send({ type: 'skip', step: 'ready.dams' })).toBe('a reason is asked for');
    expect(bench.send({ type: 'skip', step: 'ready.dams', why: 'open water' })).toBeNull();
    expect(bench.send({ type: 'skip', step: 'ready.cups' })).toBeNull();
    expect(bench.state.current?.kind).toBe('weigh');
    expect(bench.send({ type: 'skip', step: bench.state.current!.id, why: 'no' })).toBe('nothing of the kind');
  });

  it('has the words of its school: glue is brushed out of the bottle, losing nothing; a caution is read once', () => {
    const glue = kind('clear-drying-glue');
    const cup = testCup(1, [10, 5], { portions: testPortions(15, [], glue) });
    const plan = testRunPlan({ ready: [], dammed: false, layers: [testLayer(1, [cup], { product: glue, wetMm: 1 })] });
    const bench = new TestBench(plan);
    expect(stepWords(bench.state, bench.state.current!)).toMatchObject({
      title: 'Brush onto T #10',
      under: '10.0\u00a0g, one thin even coat, no puddles',
      press: 'Brushed',
    });
    bench.press();
    bench.press();
    expect(balanceOf(bench.state)).toMatchObject({ mixedGrams: 15, inPiecesGrams: 15, lostGrams: 0 });
    const two = new TestBench();
    const cautions: (string | null)[] = [];
    while (two.state.current && two.state.current.kind !== 'cover') {
      if (two.state.current.kind === 'left') cautions.push(stepWords(two.state, two.state.current).caution);
      two.press();
    }
    expect(cautions).toEqual([expect.stringContaining('cure before it is thrown away'), null]);
  });

  it('puts what is unmixed back into its bottle, on its press or before it is given up; what is tinted or met is not', () => {
    const bench = new TestBench();
    bench.until('weigh');
    const key = bench.state.cups[0]!.key;
    expect(bench.send({ type: 'return', cup: key })).toBe('nothing of the kind');
    const step = bench.state.current!.id;
    bench.press();
    expect(layersBegun(bench.state)).toEqual([1]);
    expect(bench.send({ type: 'return', cup: key })).toBeNull();
    expect(bench.state.current!.id).toBe(step);
    expect(bench.state.cups[0]!.weighed).toEqual({ A: 0, B: 0, all: 0 });
    expect([layersBegun(bench.state), balanceOf(bench.state).mixedGrams]).toEqual([[], 0]);
    // Back takes that away again: it is in the cup.
    bench.send({ type: 'back', step });
    expect(bench.state.cups[0]!.weighed.A).toBeGreaterThan(0);
    bench.until('dose');
    expect(bench.send({ type: 'return', cup: key })).toBe('nothing of the kind');
  });

  it('takes a press once: the second of two windows is told', () => {
    const bench = new TestBench();
    const step = bench.state.current!.id;
    expect(bench.send({ type: 'done', step })).toBeNull();
    expect(bench.send({ type: 'done', step })).toBe('not this step now');
    const same = bench.events[0]!;
    expect(bench.book.apply(same)).toBeNull();
    expect(bench.state.current?.id).toBe('ready.cups');
  });

  it('waits for what the cure needs, or for a reason', () => {
    const bench = new TestBench(
      testRunPlan({ layers: [testLayer(1, [testCup(1, [40])]), testLayer(2, [testCup(1, [40])])] }),
    );
    bench.until('wait');
    expect(bench.press()).toBe('a reason is asked for');
    const { recoatOpensMinutes, recoatClosesMinutes } = kind('coating-epoxy');
    const opens = cureMoment(bench.now, recoatOpensMinutes, kind('coating-epoxy'), 4, bench.state);
    bench.wait((opens - bench.now) / MINUTE + 10);
    expect(bench.press()).toBeNull();
    expect(bench.state.current).toMatchObject({ kind: 'weigh', layer: 2 });
    bench.send({ type: 'back', step: bench.state.current!.id });
    // Past the window it must be abraded: that is said too.
    bench.wait(recoatClosesMinutes! * 3);
    expect(bench.press()).toBe('a reason is asked for');
    expect(bench.press({ anyway: 'abraded and wiped' })).toBeNull();
  });
});

describe('weighing', () => {
  const atB = (offA = 0): TestBench => {
    const bench = new TestBench();
    bench.until('weigh');
    bench.weigh(offA);
    return bench;
  };
  const parts = kind('coating-epoxy').parts!;
  const ratio = ratioByWeight(parts);

  it('holds a weighing that is off until it is decided', () => {
    const bench = new TestBench();
    bench.until('weigh');
    bench.weigh(-4);
    expect(bench.state.pending).toMatchObject({ verdict: 'slow' });
    bench.send({ type: 'decide', step: bench.state.pending!.step, choice: 'more' });
    expect(bench.state.pending).toBeNull();
    bench.weigh(0);
    expect(bench.state.current).toMatchObject({ kind: 'weigh', part: 'B' });
  });

  it('lets part B follow what of part A is in the cup', () => {
    const bench = atB(6);
    bench.send({ type: 'decide', step: bench.state.pending!.step, choice: 'mend' });
    const cup = bench.state.cups[0]!;
    const layer = layerOf(bench.state, 1);
    expect(targetGrams(cup, layer, 'B')).toBeCloseTo(cup.weighed.A / ratio, 9);
    expect(bench.state.current).toMatchObject({ kind: 'weigh', part: 'B', targetGrams: cup.weighed.A / ratio });
  });

  it('keeps part B where it was planned when part A is left as it is', () => {
    const bench = new TestBench();
    bench.until('weigh');
    const planned = targetGrams(bench.state.cups[0]!, layerOf(bench.state, 1), 'B');
    bench.weigh(6);
    bench.send({ type: 'decide', step: bench.state.pending!.step, choice: 'accept' });
    expect(bench.state.current).toMatchObject({ part: 'B', targetGrams: planned });
  });

  it('mends too much of part B with part A, to the label’s ratio, and tints for the new total', () => {
    const bench = atB();
    bench.weigh(5);
    expect(bench.state.pending?.verdict).toBe('over');
    bench.send({ type: 'decide', step: bench.state.pending!.step, choice: 'mend' });
    const { A, B } = bench.state.cups[0]!.weighed;
    expect(bench.state.current).toMatchObject({ kind: 'weigh', part: 'A', mend: true });
    expect((bench.state.current as { targetGrams: number }).targetGrams).toBeCloseTo(B * ratio - A, 9);
    bench.weigh(0);
    const after = bench.state.cups[0]!;
    expect(after.weighed.A / after.weighed.B / ratio).toBeCloseTo(1, 9);
    // The recipe for what is in the cup now, in whole drops.
    const drops = Math.round(((after.weighed.A + after.weighed.B) * 0.002) / 0.035);
    expect(bench.state.current).toMatchObject({ kind: 'dose', portion: { way: 'drops', drops } });
  });

  it('throws a cup away and mixes it again for what is still to be poured', () => {
    const bench = atB();
    bench.weigh(20);
    bench.send({ type: 'decide', step: bench.state.pending!.step, choice: 'discard' });
    const { state } = bench;
    expect(state.thrownAway).toHaveLength(1);
    expect(state.cups[0]).toMatchObject({ key: 'L1.C1', attempt: 2, weighed: { A: 0, B: 0 }, contactAt: null });
    expect(state.current).toMatchObject({ kind: 'weigh', part: 'A' });
    expect(balanceOf(state).thrownAwayGrams).toBeCloseTo(mixedGrams(state.thrownAway[0]!, layerOf(state, 1)), 9);
    bench.send({ type: 'back', step: bench.state.current!.id });
    expect(bench.state.thrownAway).toHaveLength(0);
  });

  it('keeps the pot life running from the first contact, whatever is pressed back', () => {
    const bench = atB();
    bench.send({ type: 'contact', cup: 'L1.C1' }, 3);
    const met = bench.now;
    bench.weigh(0, 40);
    bench.until('stir');
    for (let i = 0; i < 4; i++) bench.send({ type: 'back', step: bench.state.current!.id });
    bench.until('pour');
    expect(bench.state.cups[0]!.contactAt).toBe(met);
    const sets = clocksOf(bench.state).find(({ id }) => id === 'L1.C1.1.sets');
    expect(sets?.from).toBe(met);
  });

  it('counts drops by single presses, and may take one back', () => {
    const bench = atB();
    bench.weigh();
    const step = bench.state.current!.id;
    for (const count of [1, 1, 1, -1, 1, 1, 1]) bench.send({ type: 'drop', step, count });
    expect(bench.state.drops).toBe(5);
    bench.press();
    expect(bench.state.cups[0]!.putIn[0]).toMatchObject({ drops: 5, grams: 5 * 0.035 });
  });
});

describe('pouring', () => {
  const atPour = (plan?: RunPlan): TestBench => {
    const bench = new TestBench(plan);
    bench.until('pour');
    return bench;
  };

  it('refuses more than the cup holds, and whatever has begun to set', () => {
    const bench = atPour();
    expect(bench.press({ grams: 500 })).toBe('more than the cup holds');
    bench.wait(120);
    expect(bench.press({ grams: 40 })).toBe('begun to set');
    expect(bench.press({ grams: 40, anyway: 'it was poured before' })).toBeNull();
  });

  it('refuses leftovers once the pour-by time is over', () => {
    const bench = atPour();
    expect(bench.send({ type: 'filler', cup: 'L1.C1', grams: 1 })).toBeNull();
    bench.wait(60);
    expect(bench.send({ type: 'filler', cup: 'L1.C1', grams: 1 })).toBe('too late to pour leftovers');
  });

  it('leaves pieces for a mix of their own, losses included', () => {
    const bench = atPour();
    bench.weigh();
    bench.send({ type: 'leave', cup: 'L1.C1', pieces: ['11:tile'] });
    const { cups } = bench.state;
    expect(cups.map(({ number }) => number)).toEqual([1, 3, 2]);
    expect(cups[1]!.plan.pours).toHaveLength(1);
    expect(cups[1]!.plan.mixGrams).toBeCloseTo((30 + 0.3 + 1.5) / 0.98, 9);
    expect(bench.state.current?.kind).toBe('left');
    expect(bench.send({ type: 'leave', cup: 'L1.C1', pieces: ['11:tile'] })).toBe('nothing of the kind');
  });

  it('lowers what is left when the cup is short, once', () => {
    const bench = atPour();
    bench.press({ grams: 48 });
    const cup = bench.state.cups[0]!;
    const short = 30 + 0.3 - inCupGrams(cup, layerOf(bench.state, 1));
    expect(short).toBeGreaterThan(1);
    const { densityA, densityB } = kind('coating-epoxy').parts!;
    const r = ratioByWeight(kind('coating-epoxy').parts!);
    const density = (r + 1) / (r / densityA + 1 / densityB);
    const mm = (short * (1 - kind('coating-epoxy').shrinkage)) / (0.1 * density * 100);
    expect(bench.send({ type: 'lower', cup: 'L1.C1', mm })).toBeNull();
    expect(bench.state.cups[0]!.plan.pours[1]!.grams).toBeCloseTo(30 - short, 6);
    expect(bench.send({ type: 'lower', cup: 'L1.C1', mm })).toBe('nothing of the kind');
  });

  it('makes a fresh mix of what is missing', () => {
    const bench = atPour();
    bench.press({ grams: 48 });
    const holds = inCupGrams(bench.state.cups[0]!, layerOf(bench.state, 1));
    bench.send({ type: 'fresh', cup: 'L1.C1' });
    const [first, fresh] = bench.state.cups;
    expect(first!.plan.pours[1]!.grams).toBeCloseTo(holds - 0.3, 9);
    expect(fresh!.plan.pours[0]!.grams).toBeCloseTo(30 - (holds - 0.3), 9);
    bench.until('left');
    expect(bench.state.current).toMatchObject({ cup: 'L1.C1' });
  });

  it('counts what reached the piece, whichever stood on the scale', () => {
    const bench = atPour();
    bench.press({ grams: 40.3 });
    bench.press({ grams: 30, onPiece: true });
    const [first, second] = bench.state.cups[0]!.poured;
    expect([first!.grams, first!.leftCupGrams]).toEqual([40, 40.3]);
    expect([second!.grams, second!.leftCupGrams]).toEqual([30, 30.3]);
  });
});

describe('what the log takes', () => {
  it('names cups that were thrown away apart, pieces, losses, and what was said', () => {
    const bench = new TestBench();
    bench.send({ type: 'skip', step: 'ready.dams', why: 'open water' });
    bench.until('weigh');
    bench.weigh(30);
    bench.send({ type: 'decide', step: bench.state.pending!.step, choice: 'discard' });
    bench.until('cover');
    bench.send({ type: 'note', text: 'bubbles' });
    const record = layerRecord(bench.state, 1)!;
    expect(layerIsPoured(bench.state, 1)).toBe(true);
    expect(record.cups.map(({ number, discarded }) => [number, discarded])).toEqual([
      [1, false],
      [3, true],
      [2, false],
    ]);
    const [first] = record.cups;
    expect(first!.pieces.map(({ grams }) => grams)).toEqual([40, 30]);
    expect(first!.pouredGrams).toBe(70);
    expect(record.note).toContain('bubbles');
    expect(record.note).toContain('skipped, dams on: open water');
  });

  it('of a run that was given up holds what was poured until then, and why', () => {
    const bench = new TestBench();
    bench.until('pour');
    bench.press();
    bench.send({ type: 'give up', why: 'a dam broke' });
    const record = layerRecord(bench.state, 1)!;
    expect(record.cups.map(({ pieces }) => pieces.map(({ tag, copy }) => `${tag} #${copy}`))).toEqual([['T #10']]);
    expect(record.note).toContain('given up: a dam broke');
    expect(bench.press()).toBe('the run is over');
    const { mixedGrams: mixed, inPiecesGrams, inUseGrams } = balanceOf(bench.state);
    expect(inPiecesGrams).toBe(40);
    expect(inUseGrams).toBeGreaterThan(mixed - 42);
  });
});

/** Any event that a window could send, at any time, to any step. */
const anyPress = fc.record({
  which: fc.nat(25),
  off: fc.double({ min: -0.4, max: 0.6, noNaN: true }),
  seconds: fc.integer({ min: 0, max: 900 }),
  early: fc.boolean(),
});

function eventFrom(bench: TestBench, { which, off, early }: { which: number; off: number; early: boolean }): void {
  const { state } = bench;
  const step = early ? (state.steps[which % state.steps.length]?.id ?? 'x') : (state.current?.id ?? 'x');
  const current = state.current;
  const cup = state.cups[which % Math.max(1, state.cups.length)]?.key ?? 'L1.C1';
  const target =
    current && 'targetGrams' in current ? current.targetGrams : current?.kind === 'pour' ? current.pour.grams : 20;
  const send = (event: Parameters<TestBench['send']>[0]): void => void bench.send(event, 0);
  switch (which) {
    case 0:
      return send({ type: 'back', step });
    case 1:
      return send({ type: 'skip', step, why: 'because' });
    case 2:
      return send({ type: 'discard', cup, why: 'looked odd' });
    case 3: {
      const rest = state.cups.find(({ key }) => key === cup)?.plan.pours ?? [];
      const pieces = rest.slice(-1).map(({ copy, designId }) => `${copy}:${designId}`);
      return send({ type: 'leave', cup, pieces: pieces.length > 0 ? pieces : ['none'] });
    }
    case 4:
      return send({ type: 'lower', cup, mm: 0.2 });
    case 5:
      return send({ type: 'fresh', cup });
    case 6:
      return send({ type: 'filler', cup, grams: 2 + off });
    case 7:
      return send({ type: 'contact', cup });
    case 8:
      return send({
        type: 'decide',
        step,
        choice: (['accept', 'mend', 'discard', 'more'] as const)[Math.floor((off + 0.4) * 3.9)]!,
      });
    case 9:
      return send({ type: 'drop', step, count: 1 });
    case 10:
      return send({ type: 'answer', clock: clocksOf(state)[0]?.id ?? 'none', did: 'leak, closed' });
    case 11:
      return send({ type: 'room', temperatureC: 18 + 8 * off, humidity: null });
    case 12:
      return send({ type: 'done', step });
    default:
      return send({
        type: 'done',
        step,
        grams: Math.max(0, target * (1 + (which % 3 === 0 ? off : 0))),
        anyway: 'all the same',
      });
  }
}

describe('whatever is pressed in whatever order', () => {
  const plans = [
    testRunPlan(),
    testRunPlan({
      layers: [
        testLayer(1, [testCup(1, [30, 8, 9])]),
        testLayer(2, [testCup(1, [12], { portions: testPortions(14, [], kind('clear-drying-glue')) })], {
          product: kind('clear-drying-glue'),
          wetMm: 1,
        }),
      ],
    }),
  ];
  const presses = fc.array(anyPress, { maxLength: 120 });

  it('every gram is in a piece, in a cup, lost or thrown away, and none twice', () => {
    fc.assert(
      fc.property(fc.nat(1), presses, (which, list) => {
        const bench = new TestBench(plans[which]!);
        for (const press of list) {
          bench.now += press.seconds * 100;
          eventFrom(bench, press);
        }
        const { state } = bench;
        const balance = balanceOf(state);
        const bottle = [...state.cups, ...state.thrownAway].reduce(
          (sum, cup) => sum + mixedGrams(cup, layerOf(state, cup.layer)),
          0,
        );
        const said = layersBegun(state).flatMap((layer) => layerRecord(state, layer)?.cups ?? []);
        const inLog = said.reduce(
          (sum, cup) =>
            sum + cup.partAGrams + (cup.partBGrams ?? 0) + cup.doses.reduce((all, { grams }) => all + grams, 0),
          0,
        );
        expect(Math.abs(balance.mixedGrams - bottle)).toBeLessThan(1e-6);
        expect(Math.abs(inLog - bottle)).toBeLessThan(0.1);
        const { inPiecesGrams, inUseGrams, lostGrams, thrownAwayGrams } = balance;
        expect(Math.abs(bottle - inPiecesGrams - inUseGrams - lostGrams - thrownAwayGrams)).toBeLessThan(0.1);
        for (const grams of Object.values(balance)) expect(grams).toBeGreaterThanOrEqual(-1e-9);
        // Each piece stands once in a cup, and a cup gives no more than it held.
        for (const cup of [...state.cups, ...state.thrownAway]) {
          const keys = cup.poured.filter(({ filler }) => !filler).map(({ key }) => key);
          expect(new Set(keys).size).toBe(keys.length);
          expect(cup.poured.reduce((sum, { leftCupGrams }) => sum + leftCupGrams, 0)).toBeLessThanOrEqual(
            mixedGrams(cup, layerOf(state, cup.layer)) + 1e-6,
          );
        }
      }),
      { numRuns: 150 },
    );
  });

  it('the same events give the same state, in one go or one by one, sent once or twice', () => {
    fc.assert(
      fc.property(presses, (list) => {
        const bench = new TestBench(plans[0]!);
        for (const press of list) {
          bench.now += press.seconds * 100;
          eventFrom(bench, press);
        }
        const read = bench.events.map((event) => runEventSchema.parse(JSON.parse(JSON.stringify(event)))) as RunEvent[];
        expect(replay(bench.plan, 0, read)).toEqual(bench.state);
        const twice = new RunBook(bench.plan, 0);
        for (const event of read) {
          twice.apply(event);
          twice.apply(event);
        }
        expect(twice.state()).toEqual(bench.state);
      }),
      { numRuns: 60 },
    );
  });

  it('steps come in their order: what is done stands before what is next', () => {
    fc.assert(
      fc.property(presses, (list) => {
        const bench = new TestBench(plans[0]!);
        for (const press of list) eventFrom(bench, press);
        const { steps, current, done } = bench.state;
        const at = steps.findIndex((step) => step.id === current?.id);
        if (at < 0) return;
        expect(steps.slice(0, at).every(({ id }) => done.has(id))).toBe(true);
        expect(done.has(current!.id)).toBe(false);
        expect(new Set(steps.map(({ id }) => id)).size).toBe(steps.length);
      }),
      { numRuns: 100 },
    );
  });
});
