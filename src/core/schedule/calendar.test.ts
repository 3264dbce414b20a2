import fc from 'fast-check';
import { Calendar, common, joined, without, type Span } from './calendar';

const spansArb = fc
  .array(fc.record({ from: fc.integer({ min: 0, max: 200 }), length: fc.integer({ min: 1, max: 40 }) }), {
    maxLength: 8,
  })
  .map((spans) => spans.map(({ from, length }) => ({ from, to: from + length })));
const minutesOf = (spans: readonly Span[]): Set<number> =>
  new Set(spans.flatMap(({ from, to }) => Array.from({ length: to - from }, (_, i) => from + i)));

test('joined, shared and taken out: minute by minute what sets of minutes say', () => {
  fc.assert(
    fc.property(spansArb, spansArb, (a, b) => {
      const [whole, other] = [minutesOf(a), minutesOf(b)];
      expect(minutesOf(joined(a))).toEqual(whole);
      expect(minutesOf(common(joined(a), joined(b)))).toEqual(new Set([...whole].filter((at) => other.has(at))));
      expect(minutesOf(without(a, b))).toEqual(new Set([...whole].filter((at) => !other.has(at))));
      const order = without(a, b);
      order.slice(1).forEach((span, i) => expect(span.from).toBeGreaterThan(order[i]!.to - 1));
    }),
  );
});

test('the first start that fits is the first minute from which all minutes are open', () => {
  fc.assert(
    fc.property(spansArb, fc.integer({ min: 0, max: 240 }), fc.integer({ min: 1, max: 50 }), (spans, at, minutes) => {
      const open = minutesOf(spans);
      let first = Infinity;
      for (let start = at; start < 260 && first === Infinity; start++)
        if (Array.from({ length: minutes }, (_, i) => start + i).every((one) => open.has(one))) first = start;
      expect(new Calendar(joined(spans)).fit(at, minutes, false)).toBe(first);
    }),
  );
});

test('work that may be paused goes on in the next span, is not begun for a few minutes, and needs as long as it needs', () => {
  const calendar = new Calendar([
    { from: 0, to: 30 },
    { from: 100, to: 160 },
    { from: 200, to: 210 },
  ]);
  expect(calendar.fit(20, 50, true)).toBe(100);
  expect(calendar.fit(10, 50, true)).toBe(10);
  expect(calendar.endOf(10, 50, true)).toBe(130);
  expect(calendar.partsOf(10, 85)).toEqual([
    { from: 10, to: 30 },
    { from: 100, to: 160 },
    { from: 200, to: 205 },
  ]);
  // A step shorter than the least part may be begun anywhere it fits whole.
  expect(calendar.fit(195, 8, true)).toBe(200);
  expect(calendar.fit(0, 101, true)).toBe(Infinity);
  expect(calendar.longest()).toBe(60);
  expect(calendar.minutesBetween(10, 110)).toBe(30);
});
