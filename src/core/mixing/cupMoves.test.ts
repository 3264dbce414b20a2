import fc from 'fast-check';
import { testPiece } from '../bed/testShapes';
import { testBench, testRequest } from '../plan/testRequest';
import { planAmounts } from '../plan';
import { moveBetweenCups, splitIntoCups, type Pour } from './cups';
import { mixForPour } from './losses';

const pour = (copy: number, grams: number): Pour => ({ designId: 'T', copy, tag: 'T', grams });
const pours = [40, 50, 60, 70, 30].map((grams, i) => pour(i + 1, grams));
const { cups } = splitIntoCups(pours, 140);
const cupOf = (all: typeof cups, copy: number): number =>
  all.find((cup) => cup.pours.some((one) => one.copy === copy))!.number;

test('nothing moved is nothing changed', () => expect(moveBetweenCups(cups, [])).toEqual(cups));
test('a piece that is moved is in its new cup, and what is mixed follows', () => {
  const to = cups.find(({ number }) => number !== cupOf(cups, 1))!.number;
  const moved = moveBetweenCups(cups, [{ designId: 'T', copy: 1, cup: to }]);
  expect(cupOf(moved, 1)).toBe(to);
  for (const cup of moved) {
    expect(cup.pouredGrams).toBeCloseTo(
      cup.pours.reduce((sum, { grams }) => sum + grams, 0),
      9,
    );
    expect(cup.mixGrams).toBeCloseTo(mixForPour(cup.pouredGrams, cup.pours.length), 9);
  }
});
test('a cup that is left empty goes; one number more is a cup of its own', () => {
  const own = moveBetweenCups(cups, [{ designId: 'T', copy: 3, cup: 99 }]);
  expect(own.at(-1)!.pours.map(({ copy }) => copy)).toEqual([3]);
  const all = moveBetweenCups(
    cups,
    pours.map(({ copy }) => ({ designId: 'T', copy, cup: 2 })),
  );
  expect(all).toHaveLength(1);
  expect(all[0]!.number).toBe(1);
  expect(all[0]!.pours.map(({ copy }) => copy)).toEqual(cups.flatMap((cup) => cup.pours.map(({ copy }) => copy)));
});
test('the portions of a piece larger than a cup stay in theirs', () => {
  const { cups: split } = splitIntoCups([pour(1, 300), pour(2, 20)], 140);
  const before = split.map((cup) => cup.pours.filter(({ copy }) => copy === 1).length);
  const moved = moveBetweenCups(split, [
    { designId: 'T', copy: 1, cup: 1 },
    { designId: 'T', copy: 2, cup: 99 },
  ]);
  expect(moved.slice(0, before.length).map((cup) => cup.pours.filter(({ copy }) => copy === 1).length)).toEqual(
    before.filter((count) => count > 0),
  );
  expect(moved.at(-1)!.pours.map(({ copy }) => copy)).toEqual([2]);
});
test('however pieces are moved, each is poured once and no gram is lost', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ copy: fc.integer({ min: 1, max: 7 }), cup: fc.integer({ min: 1, max: 9 }) }), {
        maxLength: 12,
      }),
      (moves) => {
        const moved = moveBetweenCups(
          cups,
          moves.map((move) => ({ designId: 'T', ...move })),
        );
        const copies = moved.flatMap((cup) => cup.pours.map(({ copy }) => copy));
        expect([...copies].sort()).toEqual([1, 2, 3, 4, 5]);
        expect(moved.reduce((sum, cup) => sum + cup.pouredGrams, 0)).toBeCloseTo(250, 9);
        expect(moved.map(({ number }) => number)).toEqual(moved.map((_, i) => i + 1));
      },
    ),
  );
});

describe('in a plan', () => {
  const request = testRequest({
    pieces: [testPiece([{ kind: 'basin', id: 'b', rimMm: 20, depthMm: 4 }], { copies: 6 })],
    bench: testBench({ cupGrams: 130 }),
  });
  const all = (cup: number) => [1, 2, 3, 4, 5, 6].map((copy) => ({ layer: 1, designId: 'T-1', copy, cup }));
  test('a cup made too full by hand is said to be, with how much it holds and may hold', () => {
    const { problems, layers, totals } = planAmounts({ ...request, moves: all(1) });
    expect(layers[0]!.cups).toHaveLength(1);
    expect(problems.find(({ code }) => code === 'cup-overfull')?.message.replace(/\u00a0/g, ' ')).toBe(
      `Layer 1, cup 1 holds ${totals.mixGrams.toFixed(1)} g now; 130.0 g is the most that is poured in time or that the cup takes.`,
    );
    expect(planAmounts(request).problems.map(({ code }) => code)).not.toContain('cup-overfull');
  });
  test('moves of another layer leave this one alone', () => {
    const moved = planAmounts({ ...request, moves: all(1).map((move) => ({ ...move, layer: 2 })) });
    expect(moved.layers[0]!.cups).toEqual(planAmounts(request).layers[0]!.cups);
  });
});

describe('pieces that stand beside each other', () => {
  const request = testRequest({
    pieces: [testPiece([{ kind: 'basin', id: 'b', rimMm: 20, depthMm: 4 }], { copies: 6 })],
    bench: testBench({ cupGrams: 130 }),
  });
  const shared = (standing?: { designId: string; copy: number }[]): number[][] =>
    planAmounts({ ...request, ...(standing && { standing }) }).layers[0]!.cups.map((cup) =>
      cup.pours.map(({ copy }) => copy),
    );
  test('share a mix where cups allow it, in as few cups and as much mix as without', () => {
    const plain = planAmounts(request);
    expect(shared()).not.toContainEqual([1, 6]);
    const order = [1, 6, 2, 5, 3, 4].map((copy) => ({ designId: 'T-1', copy }));
    const standing = planAmounts({ ...request, standing: order });
    expect(standing.layers[0]!.cups.length).toBe(plain.layers[0]!.cups.length);
    expect(standing.totals.mixGrams).toBeCloseTo(plain.totals.mixGrams, 9);
    const cups = shared(order);
    expect(cups.flat()).toEqual([1, 6, 2, 5, 3, 4]);
  });
  test('leave those that stand nowhere where they were, after them', () =>
    expect(shared([{ designId: 'T-1', copy: 4 }]).flat()).toEqual([4, 1, 2, 3, 5, 6]));
});
