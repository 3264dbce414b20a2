import fc from 'fast-check';
import { lotChanges, outOfLots, type LotLeft } from './lotChange';

const lots: LotLeft[] = [
  { id: 'a', name: 'Kit 1', left: 100 },
  { id: 'b', name: 'Kit 2', left: 500 },
];

test('a need comes out of the first lot until that is empty', () => {
  expect(outOfLots(lots, 130).map(({ name, takes }) => [name, takes])).toEqual([
    ['Kit 1', 100],
    ['Kit 2', 30],
  ]);
  expect(outOfLots(lots, 40).map(({ name }) => name)).toEqual(['Kit 1']);
});
test('no gram of a need is taken twice or from nowhere', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 0, max: 300, noNaN: true }), { maxLength: 6 }),
      fc.nat(2000),
      (held, amount) => {
        const given = outOfLots(
          held.map((left, i) => ({ id: `${i}`, name: `${i}`, left })),
          amount,
        );
        const all = held.reduce((sum, left) => sum + left, 0);
        expect(given.reduce((sum, { takes }) => sum + takes, 0)).toBeCloseTo(Math.min(amount, all), 4);
        for (const { takes, left } of given) expect(takes).toBeLessThanOrEqual(left);
      },
    ),
  );
});
test('the layer is named in which the bottle changes half way, and none where it ends with a layer', () => {
  const layers = (takes: number[]) => takes.map((one, i) => ({ number: i + 1, takes: one }));
  expect(lotChanges(layers([60, 80, 20]), 'A', lots)).toEqual([{ layer: 2, part: 'A', from: 'Kit 1', to: 'Kit 2' }]);
  expect(lotChanges(layers([60, 40, 20]), 'A', lots)).toEqual([]);
  expect(lotChanges(layers([60, 20]), 'A', lots)).toEqual([]);
  // The last bottle runs out: that is a shortage, no change.
  expect(lotChanges(layers([700]), 'A', lots)).toEqual([{ layer: 1, part: 'A', from: 'Kit 1', to: 'Kit 2' }]);
});
