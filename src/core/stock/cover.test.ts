import fc from 'fast-check';
import { cheapestCover, type Pack } from './cover';

/** Every way to buy at most so many of each. */
function bruteForce(need: number, packs: readonly Pack[]): { price: number; amount: number; count: number } {
  let best = { price: Infinity, amount: Infinity, count: Infinity };
  const walk = (i: number, price: number, amount: number, count: number): void => {
    if (amount >= need) {
      const better =
        price < best.price - 1e-9 ||
        (Math.abs(price - best.price) <= 1e-9 &&
          (amount < best.amount || (amount === best.amount && count < best.count)));
      if (better) best = { price, amount, count };
      return;
    }
    for (let k = i; k < packs.length; k++) walk(k, price + packs[k]!.price, amount + packs[k]!.amount, count + 1);
  };
  walk(0, 0, 0, 0);
  return best;
}

test('the cheapest packs, as by trying all of them', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 60 }),
      fc.array(fc.record({ amount: fc.integer({ min: 5, max: 40 }), price: fc.integer({ min: 1, max: 30 }) }), {
        minLength: 1,
        maxLength: 4,
      }),
      (need, packs) => {
        const cover = cheapestCover(need, packs)!;
        const best = bruteForce(need, packs);
        expect(cover.price).toBeCloseTo(best.price, 9);
        expect(cover.amount).toBe(best.amount);
        expect(cover.counts.reduce((sum, n) => sum + n, 0)).toBe(best.count);
        expect(cover.counts.reduce((sum, n, i) => sum + n * packs[i]!.amount, 0)).toBe(cover.amount);
      },
    ),
  );
});
test('one large pack may be cheaper than what is just enough', () =>
  expect(
    cheapestCover(300, [
      { amount: 100, price: 9 },
      { amount: 1000, price: 24 },
    ]),
  ).toEqual({ counts: [0, 1], amount: 1000, price: 24 }));
test('a fraction over a pack takes another', () =>
  expect(cheapestCover(500.2, [{ amount: 500, price: 20 }])!.counts).toEqual([2]));
test('nothing needed is nothing bought', () => {
  expect(cheapestCover(0, [{ amount: 5, price: 1 }])).toBeNull();
  expect(cheapestCover(-3, [{ amount: 5, price: 1 }])).toBeNull();
  expect(cheapestCover(10, [])).toBeNull();
});
test('a need of a ton is covered all the same, and never short', () => {
  const cover = cheapestCover(900_000.5, [
    { amount: 750, price: 20 },
    { amount: 4500, price: 99 },
  ])!;
  expect(cover.amount).toBeGreaterThanOrEqual(900_000.5);
  expect(cover.price).toBeLessThanOrEqual(99 * Math.ceil(900_000.5 / 4500));
});
