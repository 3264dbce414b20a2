import { wallMinutes } from '../time/wallTime';
import { steadyMore, steadyWork } from './steady';
import { requestOf, inTurn } from './testSchedules';

/** A mould that is filled in half an hour, stands for ten hours and is turned out in ten minutes; the bench is always there. */
const moulds = (capacity: number, windows: { weekday: number; fromMinute: number; toMinute: number }[] = []) =>
  requestOf({
    makers: [{ name: 'Maker', windows }],
    places: [{ id: 'moulds', name: 'moulds', capacity }],
    batches: [
      {
        id: 'b',
        name: 'Bases',
        pieces: 6,
        steps: inTurn(
          { id: 'cut', handsOnMinutes: 60 },
          { id: 'pour', handsOnMinutes: 30 },
          { id: 'off', handsOnMinutes: 10, after: [{ step: 'pour', least: { minutes: 600 } }] },
          { id: 'trim', handsOnMinutes: 5 },
        ),
        holds: [{ place: 'moulds', amount: 1, from: 'pour', to: 'off' }],
      },
    ],
  });

test('one mould with the bench always there: a turn every 640 minutes, six pieces each', () => {
  const steady = steadyWork({ request: moulds(1), batchId: 'b', place: 'moulds' })!;
  expect(steady.turnMinutes).toBeCloseTo(640, 6);
  const perWeek = (7 * 1440) / 640;
  expect(Math.abs(steady.piecesPerWeek - 6 * perWeek)).toBeLessThan(6 / 6 + 0.01);
  // Filling, turning out, trimming: what the turn itself takes; its bodies are ready.
  expect(Math.abs(steady.handsOnMinutesPerWeek - 45 * perWeek)).toBeLessThan(20);
  steady.turns.slice(1).forEach((turn, i) => expect(turn.from >= steady.turns[i]!.freeAt).toBe(true));
});

test('two moulds give twice as many; on evenings a mould turns round once an evening', () => {
  const one = steadyWork({ request: moulds(1), batchId: 'b', place: 'moulds' })!;
  const two = steadyWork({ request: moulds(2), batchId: 'b', place: 'moulds' })!;
  expect(two.sideBySide).toBe(2);
  expect(two.piecesPerWeek / one.piecesPerWeek).toBeGreaterThan(1.9);
  const evenings = [0, 1, 2, 3, 4, 5, 6].map((weekday) => ({ weekday, fromMinute: 1140, toMinute: 1260 }));
  const nightly = steadyWork({ request: moulds(1, evenings), batchId: 'b', place: 'moulds' })!;
  expect(nightly.piecesPerWeek).toBeCloseTo(42, 0);
  nightly.turns.forEach(({ from, freeAt }) => expect(wallMinutes(freeAt) - wallMinutes(from)).toBeLessThan(1440 + 120));
});

test('the bottleneck is what brings most: of another mould and a day more, on a single evening, the mould', () => {
  const sunday = [{ weekday: 6, fromMinute: 600, toMinute: 1260 }];
  const wish = { request: moulds(1, sunday), batchId: 'b', place: 'moulds' };
  const more = steadyMore(wish, [
    { words: 'a second mould', request: moulds(2, sunday) },
    { words: 'an hour more', request: moulds(1, [{ weekday: 6, fromMinute: 600, toMinute: 1265 }]) },
  ]);
  expect(more[0]!.words).toBe('a second mould');
  expect(more[0]!.piecesPerWeek).toBeGreaterThan(more[1]!.piecesPerWeek);
});

test('a place that is too small for one turn, or that the batch does not take, has no steady work', () => {
  expect(steadyWork({ request: moulds(0), batchId: 'b', place: 'moulds' })).toBeNull();
  expect(steadyWork({ request: moulds(1), batchId: 'b', place: 'dam kits' })).toBeNull();
});
