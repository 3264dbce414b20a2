import { potLifeMinutes, RESERVE_SHARE } from '../mixing/potLife';
import { formatMinutes } from '../units/formatMeasure';
import { howLines } from './how';
import { kind, TestBench } from './testRuns';

test('the figures of a cup say what they came from: ratio, losses, pot life', () => {
  const bench = new TestBench();
  bench.until('pour');
  const { state } = bench;
  const lines = howLines(state, state.current!);
  expect(lines[0]).toContain('1.14 : 1 by weight; the label says 1 : 1 by volume');
  expect(lines[1]).toContain('1.5');
  const life = potLifeMinutes(kind('coating-epoxy'), 20, state.cups[0]!.plan.mixGrams);
  expect(lines[2]).toContain(`Pot life ${formatMinutes(life)}`);
  expect(lines[2]).toContain(formatMinutes(life * RESERVE_SHARE));
});

test('a wait names the room that it was summed up over', () => {
  const bench = new TestBench();
  bench.until('wait');
  bench.send({ type: 'room', temperatureC: 17.5, humidity: null });
  const [line] = howLines(bench.state, bench.state.current!);
  expect(line).toContain('now 17.5\u00a0°C');
});
