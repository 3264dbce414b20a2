import fc from 'fast-check';
import { farOff, learnLinear, learnMean, median } from './estimate';

const values = fc.array(fc.double({ min: -50, max: 50, noNaN: true }), { minLength: 1, maxLength: 40 });
const equal = (observed: readonly number[]) => observed.map((value) => ({ value, weight: 1 }));

describe('a mean with a prior', () => {
  test('is the prior while nothing is observed, as sure as its own observations make it', () => {
    expect(learnMean({ value: 3, n0: 4, spread: 2 }, [])).toEqual({ value: 3, plusMinus: 1 });
  });

  test('of one observation and a prior of one lies in the middle; its error follows from their distance', () => {
    // s² = (1·0² + 0 + 1/2·(6 − 2)²)/2 = 4, of a mean of two: 2/√2.
    const { value, plusMinus } = learnMean({ value: 2, n0: 1, spread: 0 }, equal([6]));
    expect(value).toBe(4);
    expect(plusMinus).toBeCloseTo(Math.SQRT2, 12);
  });

  test('learnt one after another is the same as learnt at once', () => {
    fc.assert(
      fc.property(values, fc.double({ min: 0.5, max: 9, noNaN: true }), (observed, n0) => {
        const once = learnMean({ value: 7, n0, spread: 1.5 }, equal(observed));
        let [value, n, spread] = [7, n0, 1.5];
        for (const one of observed) {
          const next = learnMean({ value, n0: n, spread }, equal([one]));
          [value, n] = [next.value, n + 1];
          spread = next.plusMinus * Math.sqrt(n);
        }
        expect(value).toBeCloseTo(once.value, 6);
        expect(spread / Math.sqrt(n)).toBeCloseTo(once.plusMinus, 6);
      }),
    );
  });

  test('an observation of weight 2 counts like two of it', () => {
    const prior = { value: 1, n0: 3, spread: 0.5 };
    const twice = learnMean(prior, equal([4, 4, 2]));
    const heavy = learnMean(prior, [
      { value: 4, weight: 2 },
      { value: 2, weight: 1 },
    ]);
    expect(heavy.value).toBeCloseTo(twice.value, 12);
    expect(heavy.plusMinus).toBeCloseTo(twice.plusMinus, 12);
  });

  test('many observations outweigh any prior', () => {
    expect(learnMean({ value: 100, n0: 4, spread: 1 }, equal(Array(4000).fill(2))).value).toBeCloseTo(2.098, 3);
  });
});

describe('several terms at once', () => {
  test('without rows are what was supposed', () => {
    expect(learnLinear([1.5, 0.02], 4, [])).toEqual([1.5, 0.02]);
  });

  test('one term is the weighted mean of its observations with the prior', () => {
    // (4·1·2 + 5 + 8)/(4 + 2) with every x = 1.
    const rows = [
      { x: [1], y: 5 },
      { x: [1], y: 8 },
    ];
    expect(learnLinear([2], 4, rows)[0]).toBeCloseTo(21 / 6, 12);
  });

  test('two terms and two rows, solved by hand', () => {
    // Scales² 1 and (1 + 9)/2 = 5; normal equations with n0 = 1 and prior (1, 1): [3, 4; 4, 15]·a = [2 + 8 + 1; 2 + 24 + 5].
    const rows = [
      { x: [1, 1], y: 2 },
      { x: [1, 3], y: 8 },
    ];
    const [a, b] = learnLinear([1, 1], 1, rows);
    expect(a).toBeCloseTo((11 * 15 - 4 * 31) / 29, 12);
    expect(b).toBeCloseTo((3 * 31 - 4 * 11) / 29, 12);
  });

  test('exact data of three terms are found again once they outweigh the prior', () => {
    const rows = Array.from({ length: 3000 }, (_, i) => {
      const x = [1, 40 + ((i * 37) % 200), 1 + (i % 7)];
      return { x, y: 0.9 * x[0]! + 0.011 * x[1]! + 0.2 * x[2]! };
    });
    const [a, b, c] = learnLinear([1.5, 0.02, 0.3], 0.01, rows);
    expect(a).toBeCloseTo(0.9, 3);
    expect(b).toBeCloseTo(0.011, 5);
    expect(c).toBeCloseTo(0.2, 3);
  });

  test('no term is negative, and the others fit what is left', () => {
    const rows = [
      { x: [1, 10], y: 1 },
      { x: [1, 20], y: 4 },
      { x: [1, 30], y: 7 },
    ];
    const fitted = learnLinear([0, 0.1], 1e-6, rows);
    expect(fitted[0]).toBe(0);
    // Through nothing: Σxy/Σx² = (10 + 80 + 210)/1400.
    expect(fitted[1]).toBeCloseTo(300 / 1400, 5);
  });
});

describe('what is far off', () => {
  const prior = { value: 10, spread: 2 };

  test('of few is measured from what was supposed', () => {
    expect(farOff(prior, [17.9, 18.1, 2.1, 1.9])).toEqual([false, true, false, true]);
  });

  test('of many is measured from their middle, and never closer than two usual spreads', () => {
    // All but one lie at 30: the median deviation is 0, half a usual spread stands in for it.
    expect(farOff(prior, [30, 30, 30, 30, 30, 33.9, 34.1])).toEqual([false, false, false, false, false, false, true]);
  });

  test('one slip among many does not hide itself', () => {
    const many = Array.from({ length: 21 }, (_, i) => 8 + (i % 5));
    expect(farOff(prior, [...many, 61]).at(-1)).toBe(true);
    expect(farOff(prior, [...many, 61]).slice(0, -1)).not.toContain(true);
  });

  test('the middle of some values', () => {
    expect(median([5, 1, 9])).toBe(5);
    expect(median([5, 1, 9, 6])).toBe(5.5);
  });
});
