import { testPiece } from '../bed/testShapes';
import { kind } from '../run/testRuns';
import { testRequest } from '../plan/testRequest';
import { planBatch } from '../plan';
import { batchFacts } from '../schedule/facts';
import { buildRun } from '../run/buildRun';
import { runCommand } from './runFile';

const request = testRequest({
  product: kind('coating-epoxy'),
  pieces: [testPiece([{ kind: 'basin', id: 'b', rimMm: 20, depthMm: 4 }])],
});
interface Played {
  said: { at: string; what: string; says: string }[];
  balance: { mixedGrams: number; inPiecesGrams: number; lostGrams: number; inUseGrams: number };
  layers: { cups: { partAGrams: number; partBGrams: number }[] }[];
  waiting: { name: string }[];
}
const play = (lines: object[]): Played => {
  const { output, errors, exitCode } = runCommand(JSON.stringify({ format: 'aguada.run', version: 1, request, lines }));
  expect([errors, exitCode]).toEqual(['', 0]);
  return JSON.parse(output) as Played;
};

const amounts = planBatch(request);
const plan = buildRun({
  name: 'R',
  request,
  amounts,
  facts: batchFacts(request, amounts),
  by: 'weight',
  filler: null,
  now: request.pourAt,
});
const ready = plan.ready.length;

test('a file of presses and readings is played, and what the bench would have said is printed', () => {
  const cup = plan.layers[0]!.cups[0]!;
  const { partAGrams, partBGrams } = amounts.layers[0]!.cups[0]!.parts!;
  let at = 0;
  const press = (rest: object = {}): object => ({ at: (at += 5), press: 'done', ...rest });
  const lines = [
    ...Array.from({ length: ready }, () => press()),
    // The scale tells: part A right, part B 5 g over, mended with A.
    { at: at + 1, scale: partAGrams },
    press(),
    { at: at + 1, scale: partAGrams + partBGrams + 5 },
    press(),
    { at: (at += 5), press: 'mend' },
    { at: at + 1, scale: (partBGrams + 5) * (1 + partAGrams / partBGrams) },
    press(),
    ...Array.from({ length: 3 }, () => ({ at: (at += 180), press: 'done' })),
    ...cup.pours.map(() => press()),
    press(),
    press(),
    { at: at + 601, note: 'all well' },
    { at: at + 602, answer: 'none' },
  ];
  const { said, balance, layers } = play(lines);
  const words = said.map(({ says }) => says).join('\n');
  expect(words).toContain(`stop at ${partAGrams.toFixed(1)} g`);
  expect(words).toContain('is over: accept, mend, discard or more');
  const [{ cups }] = layers as [Played['layers'][number]];
  expect(cups[0]!.partAGrams / cups[0]!.partBGrams).toBeCloseTo(partAGrams / partBGrams, 3);
  expect(said.find(({ what }) => what.startsWith('rings: cup 1, 10 min'))?.says).toContain('bubbles');
  expect(balance.mixedGrams).toBeCloseTo(balance.inPiecesGrams + balance.lostGrams + balance.inUseGrams, 2);
});

test('times are seconds or minutes and seconds; what is not taken says why', () => {
  const { said } = play([
    { at: '0:10', press: 'skip' },
    { at: '1:00', press: 'skip', why: 'was done before' },
    { at: 65, answer: 'seen' },
  ]);
  expect(said.map(({ at }) => at)).toEqual(['0:00:00', '0:00:10', '0:01:00', '0:01:05']);
  expect(said[1]!.says).toContain('Not taken: Say why');
  expect(said[3]!.says).toBe('Nothing rings.');
});

test.each<[string, object, string]>([
  ['another format', { format: 'aguada.plan' }, 'format'],
  ['a press that nobody knows', { lines: [{ at: 1, press: 'jump' }] }, 'lines.0'],
  ['a time that is none', { lines: [{ at: 'soon', press: 'done' }] }, 'lines.0'],
])('%s is refused at its field', (_, change, field) => {
  const { errors, exitCode } = runCommand(
    JSON.stringify({ format: 'aguada.run', version: 1, request, lines: [], ...change }),
  );
  expect(exitCode).toBe(2);
  expect(errors).toContain(field);
});
