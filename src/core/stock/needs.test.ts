import type { Consumable } from '../model/stockSchema';
import { batchNeeds } from './needs';

const product = { id: 'epoxy', name: 'Slow epoxy' };
const ink = { id: 'ink', name: 'Ink' };
type Totals = Parameters<typeof batchNeeds>[1]['totals'];
type Request = Parameters<typeof batchNeeds>[0];

const request = { product, recipe: { doses: [{ colourant: ink, gramsPer100: 0.1 }] } } as unknown as Request;
const totals = (change: Partial<Totals> = {}): Totals =>
  ({
    mixGrams: 200,
    pouredGrams: 180,
    parts: { partAGrams: 120, partBGrams: 80 },
    doses: [
      { ...ink, grams: 0.2 },
      { id: 'old', name: 'Not of the recipe any more', grams: 1 },
    ],
    cups: 5,
    pieces: 12,
    damMm: 900,
    ...change,
  }) as Totals;
const of = (made: Totals, consumables: { id: string; data: Consumable }[] = [], layers = 2) =>
  batchNeeds(
    request,
    {
      totals: made,
      pieces: [
        { copies: 4, uncertainGrams: 3 },
        { copies: 1, uncertainGrams: 8 },
      ] as never,
      layers: Array.from({ length: layers }) as never,
    },
    consumables,
  );

test('the bad case by hand: beds astray on their own, and half as much loss again', () => {
  // √(4·3² + 8²) = 10 g astray, 20 g lost: 200 + 10 + 10 of 200 are 1.1 times the plan.
  const [a, b, tint, ...rest] = of(totals());
  expect(a).toEqual({
    item: { kind: 'product', id: 'epoxy' },
    part: 'A',
    name: 'Slow epoxy, part A',
    likely: 120,
    high: expect.closeTo(132, 9),
  });
  expect(b).toMatchObject({ part: 'B', likely: 80, high: expect.closeTo(88, 9) });
  expect(tint).toEqual({
    item: { kind: 'colourant', id: 'ink' },
    part: 'all',
    name: 'Ink',
    likely: 0.2,
    high: expect.closeTo(0.22, 9),
  });
  expect(rest).toEqual([]);
});
test('a one-part product is needed as one, each product of a build for itself, and none of what is not poured', () => {
  const products = [
    { id: 'gel', name: 'Gel', mixGrams: 30, parts: null },
    { id: 'none', name: 'Not poured', mixGrams: 0, parts: null },
    { id: 'epoxy', name: 'Slow epoxy', mixGrams: 50, parts: { partAGrams: 30, partBGrams: 20 } },
  ] as Totals['products'];
  expect(of(totals({ products, doses: [] })).map(({ item, part, likely }) => [item.id, part, likely])).toEqual([
    ['gel', 'all', 30],
    ['epoxy', 'A', 30],
    ['epoxy', 'B', 20],
  ]);
});
test('of a dry batch nothing is needed', () =>
  expect(of(totals({ mixGrams: 0, pouredGrams: 0, doses: [] }))).toEqual([]));
test('consumables are whole pieces by what they go with', () => {
  const consumable = (per: Consumable['per'], amount: number) => ({
    id: per,
    data: { name: per, per, amount, packCount: 10, packPrice: 1 },
  });
  const each = of(totals({ mixGrams: 0, doses: [] }), [
    consumable('cup', 0.5),
    consumable('layer', 2),
    consumable('batch', 1),
    consumable('piece', 0.25),
    consumable('mm of dam', 0.001),
    { ...consumable('cup', 0), id: 'nothing' },
  ]);
  expect(each.map(({ item, likely, high }) => [item.id, likely, high])).toEqual([
    ['cup', 3, 3],
    ['layer', 4, 4],
    ['batch', 1, 1],
    ['piece', 3, 3],
    ['mm of dam', 1, 1],
  ]);
});
