import { Moments } from './moments';

let wall = 0;
let ticks = 0;
const pass = (ms: number, wallMs = ms): void => {
  ticks += ms;
  wall += wallMs;
};
const HOUR = 3_600_000;
const begin = (): Moments => {
  [wall, ticks] = [1_000_000_000, 500];
  const moments = new Moments(
    () => wall,
    () => ticks,
  );
  moments.now();
  return moments;
};

test('the machine’s clock, as long as that is right', () => {
  const moments = begin();
  pass(60_000);
  expect([moments.now(), moments.behindMs]).toEqual([wall, 0]);
});
test('kept right by a second, either way, it is followed', () => {
  const moments = begin();
  pass(60_000, 59_000);
  expect(moments.now()).toBe(wall);
  pass(60_000, 61_000);
  expect([moments.now(), moments.behindMs]).toEqual([wall, 0]);
});
test('set back an hour, moments go on; put right again, they are the clock’s', () => {
  const moments = begin();
  const before = moments.now();
  pass(10_000, 10_000 - HOUR);
  expect(moments.now()).toBe(before + 10_000);
  pass(10_000);
  expect([moments.now(), moments.behindMs]).toEqual([before + 20_000, HOUR]);
  pass(10_000, 10_000 + HOUR);
  expect([moments.now(), moments.behindMs]).toEqual([before + 30_000, 0]);
  expect(moments.now()).toBe(wall);
});
test('a machine that slept has been away: the time went by', () => {
  const moments = begin();
  const before = moments.now();
  pass(1000, 8 * HOUR);
  expect(moments.now()).toBe(before + 8 * HOUR);
});
test('after a new start they are not before what happened', () => {
  const moments = begin();
  moments.notBefore(wall + HOUR);
  expect([moments.now(), moments.behindMs]).toEqual([wall + HOUR, HOUR]);
  moments.notBefore(wall - HOUR);
  expect(moments.now()).toBe(wall + HOUR);
});
