import { climateOf, steadyRoom } from '../cure/conditions';
import { wallMinutes } from '../time/wallTime';
import { curingOf } from '../pouring/windows';
import { cupLife } from './cupState';
import { layerOf } from './runState';
import fc from 'fast-check';
import { temperatureFactor } from '../cure/temperature';
import { potLifeMinutes, RESERVE_SHARE } from '../mixing/potLife';
import { clocksOf, ringing, type RunClock } from './clocks';
import { cureMoment } from './cureMoment';
import { kind, testCup, testPortions, testLayer, TestBench, testRunPlan } from './testRuns';

const MINUTE = 60_000;
const find = (bench: TestBench, id: string): RunClock | undefined =>
  clocksOf(bench.state).find((clock) => clock.id === id);

describe('clocks of a run', () => {
  it('ring when a cup should be poured and when it sets, from the first contact of its parts', () => {
    const bench = new TestBench();
    bench.until('weigh');
    bench.weigh();
    bench.send({ type: 'contact', cup: 'L1.C1' });
    const met = bench.now;
    const cup = bench.state.cups[0]!;
    const life = potLifeMinutes(kind('coating-epoxy'), 20, cup.plan.mixGrams);
    expect((find(bench, 'L1.C1.1.sets')!.due - met) / MINUTE).toBeCloseTo(life, 6);
    expect((find(bench, 'L1.C1.1.by')!.due - met) / MINUTE).toBeCloseTo(life * (1 - RESERVE_SHARE), 6);
    bench.until('cover');
    expect(find(bench, 'L1.C1.1.sets')).toBeUndefined();
  });

  it('look for bubbles after 10 and 15 minutes, for leaks after 10, 30 and 60, each once', () => {
    const bench = new TestBench();
    bench.until('cover');
    const closed = bench.state.cups[0]!.closedAt!;
    const looks = clocksOf(bench.state).filter(({ id }) => id.startsWith('L1.C1.1.look'));
    expect(looks.map(({ due, kind: what }) => [(due - closed) / MINUTE, what])).toEqual([
      [10, 'look'],
      [15, 'look'],
      [30, 'leak look'],
      [60, 'leak look'],
    ]);
    expect(looks[0]!.words).toContain('bubbles and leaks');
    bench.send({ type: 'answer', clock: 'L1.C1.1.look10', did: 'none, dry all round' });
    expect(find(bench, 'L1.C1.1.look10')).toBeUndefined();
    expect(bench.send({ type: 'answer', clock: 'L1.C1.1.look10', did: 'again' })).toBe('nothing of the kind');
    // A leak that was found is looked at again, with what to do about it.
    bench.send({ type: 'answer', clock: 'L1.C1.1.look30', did: 'leak, closed from outside' });
    const again = find(bench, 'L1.C1.1.look30.again')!;
    expect((again.due - bench.now) / MINUTE).toBeCloseTo(10, 6);
    expect(again.words).toContain('Close it from outside');
  });

  it('no bubbles are looked for where they could not be mended', () => {
    const plan = testRunPlan({
      dammed: false,
      ready: [],
      layers: [
        testLayer(1, [testCup(1, [4, 4, 4], { portions: testPortions(14, []) })], {
          product: kind('five-minute-glue'),
        }),
      ],
    });
    const bench = new TestBench(plan);
    bench.until('cover', 5);
    expect(clocksOf(bench.state).filter(({ kind: what }) => what === 'look')).toEqual([]);
  });

  it('are put off, and ring at no other moment', () => {
    const bench = new TestBench();
    bench.send({ type: 'timer', minutes: 3, name: 'kettle' });
    const [clock] = clocksOf(bench.state);
    expect(clock!.due - bench.now).toBe(3 * MINUTE);
    expect(ringing([clock!], clock!.due - 1)).toEqual([]);
    expect(ringing([clock!], clock!.due)).toHaveLength(1);
    bench.send({ type: 'snooze', clock: clock!.id, minutes: 5 }, 200);
    const [later] = clocksOf(bench.state);
    expect(ringing([later!], bench.now + 5 * MINUTE - 1)).toEqual([]);
    expect(ringing([later!], bench.now + 5 * MINUTE)).toHaveLength(1);
    bench.send({ type: 'answer', clock: clock!.id, did: 'done' });
    expect(clocksOf(bench.state)).toEqual([]);
  });

  it('recoat opens and closes by the room as it was read, not as it was planned', () => {
    const plan = testRunPlan({ layers: [testLayer(1, [testCup(1, [40])]), testLayer(2, [testCup(1, [40])])] });
    const bench = new TestBench(plan);
    bench.until('wait');
    const planned = find(bench, 'L1.opens')!.due;
    bench.send({ type: 'room', temperatureC: 12, humidity: null }, 60);
    const colder = find(bench, 'L1.opens')!.due;
    const { recoatOpensMinutes, referenceC } = kind('coating-epoxy');
    const from = bench.state.cups[0]!.poured.at(-1)!.at;
    const gone = (bench.now - from) / MINUTE / temperatureFactor(20, referenceC);
    const whole = (bench.now - from) / MINUTE + (recoatOpensMinutes - gone) * temperatureFactor(12, referenceC);
    expect((colder - from) / MINUTE).toBeCloseTo(whole, 6);
    expect(colder).toBeGreaterThan(planned);
    expect(clocksOf(bench.state).some(({ kind: what }) => what === 'recoat closes')).toBe(true);
  });

  it('a quick coat over a slow layer is firm and cured when that is, in one run or in two', () => {
    const [slow, quick] = [kind('slow-casting-epoxy'), kind('quick-clear-epoxy')];
    const below = testLayer(1, [testCup(1, [40])], { product: slow, wetMm: 9 });
    const above = testLayer(2, [testCup(1, [40])], { product: quick, wetMm: 2 });
    const both = new TestBench(testRunPlan({ layers: [below, above] }));
    both.until('dams off', 60);
    const poured = both.state.cups.find(({ layer }) => layer === 1)!.poured.at(-1)!.at;
    for (const [id, label] of [
      ['L2.firm', 'demouldMinutes'],
      ['L2.cured', 'fullCureMinutes'],
    ] as const) {
      const due = cureMoment(poured, slow[label], slow, 9, both.state);
      expect(find(both, id)!.due).toBeCloseTo(due, 0);
      expect(due).toBeGreaterThan(cureMoment(both.now, quick[label], quick, 2, both.state));
    }
    // The slow layer was poured a day before, in a run of its own.
    const second = new TestBench(
      testRunPlan({ layers: [above], below: [{ product: slow, wetMm: 9, minutesBefore: 1440 }] }),
    );
    second.until('dams off', 60);
    const firm = cureMoment(-1440 * MINUTE, slow.demouldMinutes, slow, 9, second.state);
    expect(find(second, 'L2.firm')!.due).toBeCloseTo(firm, 0);
  });

  it.each([10, 20, 30])(
    'at %i °C the recoat window is said to close an hour of the clock before it does',
    (temperatureC) => {
      const plan = testRunPlan({
        roomC: temperatureC,
        layers: [testLayer(1, [testCup(1, [40]), testCup(2, [30])]), testLayer(2, [testCup(1, [40])])],
      });
      const bench = new TestBench(plan);
      bench.until('wait', 30);
      const product = kind('coating-epoxy');
      const cups = bench.state.cups.filter(({ layer }) => layer === 1);
      const [first, last] = [cups[0]!.poured[0]!.at, cups.at(-1)!.poured.at(-1)!.at];
      expect(last).toBeGreaterThan(first);
      const factor = temperatureFactor(temperatureC, product.referenceC);
      const closes = first + product.recoatClosesMinutes! * factor * MINUTE;
      const opens = last + product.recoatOpensMinutes * factor * MINUTE;
      expect(find(bench, 'L1.opens')!.due).toBeCloseTo(opens, 0);
      expect(find(bench, 'L1.closes')!.due).toBeCloseTo(closes - 60 * MINUTE, 0);
      expect(find(bench, 'L1.closes')!.words).toContain('closes in an hour');
    },
  );

  it('a room that gets warmer in mid-run brings the pot life nearer, for clocks and presses alike', () => {
    const bench = new TestBench(testRunPlan({ roomC: 23 }));
    bench.until('pour');
    const by = find(bench, 'L1.C1.1.by')!.due;
    bench.send({ type: 'room', temperatureC: 35, humidity: 0.5 });
    const [sooner, sets] = [find(bench, 'L1.C1.1.by')!.due, find(bench, 'L1.C1.1.sets')!.due];
    expect(sooner).toBeLessThan(by - MINUTE);
    // What is used up by then was used up in the cooler room.
    const { contactAt } = bench.state.cups[0]!;
    const life = (celsius: number): number =>
      cupLife(bench.state.cups[0]!, layerOf(bench.state, 1), celsius)!.lifeMinutes;
    const spent = (bench.now - contactAt!) / (life(23) * MINUTE);
    expect(sets).toBeCloseTo(bench.now + (1 - spent) * life(35) * MINUTE, -1);
    bench.wait((sets - bench.now) / MINUTE - 0.5);
    expect(bench.press({}, 0)).toBeNull();
    bench.wait(1);
    expect(bench.press({}, 0)).toBe('begun to set');
  });

  it('nights of the workshop count at the bench as in the plan', () => {
    const conditions = { ...steadyRoom({ temperatureC: 20, humidity: 0.5 }) };
    const nights = { ...conditions, usual: { ...conditions.usual, nightC: 12 } };
    const climate = { conditions: nights, clockChanges: [], begunAt: '2026-12-01T18:00', read: false };
    const cold = new TestBench(testRunPlan({ climate }));
    cold.until('dams off', 60);
    const at = cold.state.cups.at(-1)!.poured.at(-1)!.at;
    const { curedAt } = climateOf(nights, wallMinutes('2026-12-01T18:00'), wallMinutes('2026-12-30T00:00')).courseOf(
      curingOf(kind('coating-epoxy'), 4),
    );
    const due = curedAt(wallMinutes('2026-12-01T18:00') + at / MINUTE, kind('coating-epoxy').demouldMinutes);
    expect(find(cold, 'L1.firm')!.due / MINUTE).toBeCloseTo(due - wallMinutes('2026-12-01T18:00'), 3);
  });

  it('the cure in a room that changes is that of a fine sum', () => {
    const product = kind('coating-epoxy');
    const reading = fc.record({ after: fc.integer({ min: 1, max: 300 }), c: fc.integer({ min: 10, max: 30 }) });
    fc.assert(
      fc.property(fc.array(reading, { maxLength: 6 }), fc.integer({ min: 10, max: 2000 }), (list, minutes) => {
        let at = 0;
        const room = [
          { at: 0, temperatureC: 20, humidity: 0.5 },
          ...list.map(({ after, c }) => ({ at: (at += after * MINUTE), temperatureC: c, humidity: 0.5 })),
        ];
        const told = cureMoment(0, minutes, product, 4, { plan: testRunPlan(), begunAt: 0, room });
        let [cured, t] = [0, 0];
        const step = MINUTE / 4;
        while (cured < minutes * MINUTE) {
          const now = room.findLast((one) => one.at <= t)!;
          cured += step / temperatureFactor(now.temperatureC, product.referenceC);
          t += step;
        }
        expect(Math.abs(told - t)).toBeLessThan(MINUTE);
      }),
      { numRuns: 60 },
    );
  });
});
