import { quote } from './quote';
import { waterCost } from './cost';

test('water is charged by hand: what reaches the pieces, what stays in the cups, colour, cups', () => {
  const cost = waterCost({
    water: [
      { mixGrams: 100, pouredGrams: 90, pricePerGram: 0.05 },
      { mixGrams: 40, pouredGrams: 30, pricePerGram: 0.1 },
    ],
    colourants: [
      { grams: 0.5, pricePerGram: 0.4 },
      { grams: 0.1, pricePerGram: 3 },
    ],
    cups: 4,
    pricePerCup: 0.25,
    pieces: 10,
  });
  expect(cost).toEqual({
    productGrams: 140,
    lostGrams: 20,
    product: 7.5,
    lost: 1.5,
    colourant: 0.5,
    cups: 1,
    total: 10.5,
    perPiece: 1.05,
  });
});
test('nothing made costs nothing, and nothing a piece', () => {
  const cost = waterCost({ water: [], colourants: [], cups: 0, pricePerCup: 1, pieces: 0 });
  expect([cost.total, cost.perPiece]).toEqual([0, 0]);
});
test('a quote for no mix and no pieces is its hours and consumables, with finite figures', () => {
  const { low, likely } = quote({
    pieces: 0,
    mixGrams: 0,
    pouredGrams: 0,
    highMixGrams: 0,
    pricePerGram: 0.02,
    colourantPrice: 1,
    consumablesPrice: 2,
    pourMinutes: 60,
    work: { ratePerHour: 10, minutesPerPiece: 5, margin: 0 },
  });
  expect(likely).toMatchObject({ product: 0, colourant: 1, hours: 1, cost: 13, price: 13, pricePerPiece: 0 });
  expect(low).toMatchObject({ colourant: 1, hours: 0.8 });
});
