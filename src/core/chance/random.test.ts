import { seeded, stream } from './random';

const some = (random: () => number): number[] => Array.from({ length: 2000 }, random);

test('the same seed gives the same numbers, another one others', () => {
  expect(some(seeded(7))).toEqual(some(seeded(7)));
  expect(some(seeded(8))).not.toEqual(some(seeded(7)));
  expect(some(stream(0))).toEqual(some(stream(1)));
});
test('numbers lie from 0 up to 1, evenly, also of small seeds', () => {
  for (const seed of [1, 2, 3]) {
    const numbers = some(seeded(seed));
    expect(Math.min(...numbers)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...numbers)).toBeLessThan(1);
    for (let tenth = 0; tenth < 10; tenth++)
      expect(numbers.filter((one) => Math.floor(one * 10) === tenth).length).toBeGreaterThan(120);
  }
});
