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
test('one that does not read spoils the list, wherever it stands; so do too many', () => {
  expect(parseMassList('60, 5 mm')).toBeNull();
  expect(parseMassList('5 mm, 60')).toBeNull();
  expect(parseMassList(Array.from({ length: 40 }, () => '1').join(','))).toHaveLength(40);
  expect(parseMassList(Array.from({ length: 41 }, () => '1').join(','))).toBeNull();
  expect(parseMassList(' 60; 45 ')).toEqual([60, 45]);
});
