import { whenCalm } from './whenCalm';

const FRAME_MS = 16;
let frames = true;
beforeEach(() => {
  jest.useFakeTimers();
  Object.assign(globalThis, {
    requestAnimationFrame: (paint: () => void) => (frames ? setTimeout(paint, FRAME_MS) : 0),
    cancelAnimationFrame: clearTimeout,
  });
});
afterEach(() => {
  jest.useRealTimers();
  frames = true;
});

test('jobs are done later, in their order, each in a task of its own; one that was called off is not', () => {
  const done: string[] = [];
  whenCalm(() => done.push('a'));
  const off = whenCalm(() => done.push('b'));
  whenCalm(() => done.push('c'));
  expect(done).toEqual([]);
  off();
  // Not before a frame was painted and a moment after it.
  jest.advanceTimersByTime(30);
  expect(done).toEqual([]);
  jest.advanceTimersByTime(FRAME_MS);
  expect(done).toEqual(['a']);
  jest.runAllTimers();
  expect(done).toEqual(['a', 'c']);
  // And once more after all were done.
  whenCalm(() => done.push('d'));
  jest.runAllTimers();
  expect(done).toEqual(['a', 'c', 'd']);
});
test('a page that is not painted does them all the same', () => {
  frames = false;
  const done: string[] = [];
  whenCalm(() => done.push('a'));
  jest.advanceTimersByTime(500);
  expect(done).toEqual([]);
  jest.advanceTimersByTime(200);
  expect(done).toEqual(['a']);
  jest.runAllTimers();
});
test('one that fails holds none of the others up', () => {
  const done: string[] = [];
  whenCalm(() => {
    throw new Error('broken');
  });
  whenCalm(() => done.push('a'));
  expect(() => jest.runAllTimers()).toThrow('broken');
  jest.runAllTimers();
  expect(done).toEqual(['a']);
});
