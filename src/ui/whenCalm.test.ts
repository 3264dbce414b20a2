import { whenCalm } from './whenCalm';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('jobs are done later, in their order, each in a task of its own; one that was called off is not', () => {
  const done: string[] = [];
  whenCalm(() => done.push('a'));
  const off = whenCalm(() => done.push('b'));
  whenCalm(() => done.push('c'));
  expect(done).toEqual([]);
  off();
  jest.advanceTimersByTime(30);
  expect(done).toEqual(['a']);
  jest.runAllTimers();
  expect(done).toEqual(['a', 'c']);
  // And once more after all were done.
  whenCalm(() => done.push('d'));
  jest.runAllTimers();
  expect(done).toEqual(['a', 'c', 'd']);
});
