import { Allowance } from './allowance';

test('a burst is taken, then as many as come back', () => {
  const allowance = new Allowance(10, 30);
  const taken = (ticks: number): number => {
    let count = 0;
    while (allowance.take(1, ticks)) count++;
    return count;
  };
  expect([taken(0), taken(0), taken(1000), taken(1050), taken(100_000)]).toEqual([30, 0, 10, 0, 30]);
});
test('what is refused uses nothing up', () => {
  const allowance = new Allowance(10, 30);
  expect([allowance.take(31, 0), allowance.take(30, 0)]).toEqual([false, true]);
});
