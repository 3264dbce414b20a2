import fc from 'fast-check';
import { quote, type QuoteInput } from './quote';

const input: QuoteInput = {
  pieces: 10,
  mixGrams: 500,
  pouredGrams: 450,
  highMixGrams: 560,
  pricePerGram: 0.02,
  colourantPrice: 0.5,
  consumablesPrice: 2,
  pourMinutes: 60,
  work: { ratePerHour: 12, minutesPerPiece: 30, margin: 0.25 },
};

test('the likely case by hand', () => {
  const { likely } = quote(input);
  // 500 g at 0.02, half of one for colour, two for cups; an hour of pouring and five at the pieces.
  expect(likely).toEqual({
    product: 10,
    colourant: 0.5,
    consumables: 2,
    hours: 6,
    work: 72,
    cost: 84.5,
    price: expect.closeTo(105.625, 9),
    pricePerPiece: expect.closeTo(10.5625, 9),
  });
});
test('good and bad cases by hand', () => {
  const { low, high } = quote(input);
  expect(low.product).toBeCloseTo(475 * 0.02, 9);
  expect(low.hours).toBeCloseTo(4.8, 9);
  expect(high.product).toBeCloseTo(560 * 0.02, 9);
  expect(high.colourant).toBeCloseTo((0.5 * 560) / 500, 9);
  expect(high.hours).toBeCloseTo(8.4, 9);
});
test('good is never dearer than likely, nor likely than bad; nothing is negative', () => {
  const amount = fc.double({ min: 0, max: 1000, noNaN: true });
  fc.assert(
    fc.property(
      amount,
      amount,
      amount,
      amount,
      amount,
      fc.integer({ min: 0, max: 300 }),
      (poured, lost, off, price, minutes, pieces) => {
        const { low, likely, high } = quote({
          ...input,
          pieces,
          pouredGrams: poured,
          mixGrams: poured + lost,
          highMixGrams: poured + lost + off,
          pricePerGram: price,
          pourMinutes: minutes,
        });
        expect(low.price).toBeLessThanOrEqual(likely.price + 1e-9);
        expect(likely.price).toBeLessThanOrEqual(high.price + 1e-9);
        expect(low.cost).toBeGreaterThanOrEqual(0);
      },
    ),
  );
});
