import { parseMassList } from './parseMassList';

test.each([
  ['60, 60, 45', [60, 60, 45]],
  ['60', [60]],
  ['60; 45.5 30', [60, 45.5, 30]],
  ['1 oz, 60', [28.349523125, 60]],
  ['3*20, 45', [60, 45]],
])('%s', (text, grams) => expect(parseMassList(text)).toEqual(grams));
test.each(['', 'sixty', '60, sixty', Array(41).fill('10').join(', ')])('%j is no list', (text) =>
  expect(parseMassList(text)).toBeNull(),
);
