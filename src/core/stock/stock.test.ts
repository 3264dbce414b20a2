import fc from 'fast-check';
import { cheapestCover } from './cover';
import { goodUntil, inUseOrder, isPast, leftOf, lotUnitPrice, monthsAfter, takeFrom, type LotState } from './lots';
import { haveAndNeed, kitGrams, shoppingList, type StockLevel, priceOfNeeds } from './haveAndNeed';
import { consumableTakes, cupTakes, lotMovements, tintTakes } from './pourMovements';
import { cupsBesidePacks, type Need } from './needs';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { ratioByWeight, splitParts } from '../mixing/ratio';

const state = (id: string, left: number, openedOn: string | null = null, boughtOn = '2026-01-01'): LotState => ({
  id,
  lot: {
    of: { kind: 'product', id: 'p' },
    name: id,
    bought: [{ part: 'A', amount: 1000 }],
    boughtOn,
    openedOn,
    bestBefore: null,
    price: 10,
  },
  left: [{ part: 'A', amount: left }],
});

describe('how long a lot is good', () => {
  test.each([
    ['2026-01-31', 1, '2026-02-28'],
    ['2024-01-31', 1, '2024-02-29'],
    ['2026-11-26', 12, '2027-11-26'],
    ['2026-11-26', 0.5, '2026-12-11'],
  ])('%s and %d months: %s', (day, months, then) => expect(monthsAfter(day, months)).toBe(then));
  test('the earlier of the label and the shelf life; nothing where neither is known', () => {
    expect(goodUntil({ openedOn: '2026-01-01', bestBefore: '2026-05-01' }, 12)).toBe('2026-05-01');
    expect(goodUntil({ openedOn: '2026-01-01', bestBefore: '2028-05-01' }, 12)).toBe('2027-01-01');
    expect(goodUntil({ openedOn: null, bestBefore: null }, 12)).toBeNull();
  });
});

describe('what is taken out of which lot', () => {
  const lots = [
    state('new', 500, null, '2026-10-01'),
    state('open late', 80, '2026-09-01'),
    state('open first', 50, '2026-03-01'),
  ];
  test('open ones first, the oldest first, then the sealed', () =>
    expect(inUseOrder(lots).map(({ id }) => id)).toEqual(['open first', 'open late', 'new']));
  test('each is used up before the next', () =>
    expect(takeFrom(lots, 'A', 200)).toEqual({
      taken: [
        { lotId: 'open first', amount: 50 },
        { lotId: 'open late', amount: 80 },
        { lotId: 'new', amount: 70 },
      ],
      short: 0,
    }));
  test('one that was named comes first, then the others in their order', () => {
    const { taken, short } = takeFrom(lots, 'A', 200, [lots.at(-1)!.id]);
    expect([taken[0]!.lotId, short]).toEqual([lots.at(-1)!.id, 0]);
    const all = takeFrom(lots, 'A', 600, [lots.at(-1)!.id]);
    const plain = takeFrom(lots, 'A', 600);
    expect(all.taken.map(({ lotId }) => lotId).sort()).toEqual(plain.taken.map(({ lotId }) => lotId).sort());
  });
  test('what they do not hold is short', () => expect(takeFrom(lots, 'A', 700).short).toBeCloseTo(70, 9));
  test('movements account for every gram, and no lot falls below nothing on the way', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 300, noNaN: true }), { minLength: 1, maxLength: 4 }),
        fc.array(fc.double({ min: 0.1, max: 200, noNaN: true }), { minLength: 1, maxLength: 8 }),
        (lefts, cups) => {
          const own = lefts.map((left, i) => state(String(i), left, i % 2 ? '2026-01-02' : null));
          const takes = cups.map((grams, i) => ({
            cup: i + 1,
            item: { kind: 'product' as const, id: 'p' },
            part: 'A' as const,
            poured: grams * 0.9,
            lost: grams * 0.1,
          }));
          const movements = lotMovements(takes, () => own);
          const left = new Map(own.map(({ id, left: [one] }) => [id, one!.amount]));
          for (const { lotId, amount } of movements) {
            left.set(lotId, left.get(lotId)! + amount);
            expect(left.get(lotId)!).toBeGreaterThan(-1e-6);
          }
          const sum = (kinds: string[]): number =>
            movements.filter(({ kind }) => kinds.includes(kind)).reduce((all, { amount }) => all + amount, 0);
          const wanted = cups.reduce((all, grams) => all + grams, 0);
          expect(-sum(['poured', 'lost'])).toBeCloseTo(wanted, 6);
          expect(-sum(['poured'])).toBeCloseTo(0.9 * wanted, 6);
          const there = lefts.reduce((all, one) => all + one, 0);
          expect(sum(['found'])).toBeCloseTo(Math.max(0, wanted - there), 4);
        },
      ),
    );
  });
  test('a thing of which no lot was ever entered is left alone', () =>
    expect(
      lotMovements([{ cup: 1, item: { kind: 'colourant', id: 'x' }, part: 'all', poured: 1, lost: 0 }], () => []),
    ).toEqual([]));
});

test('a lot holds nothing of a part that it has not, and costs alike in all of its parts', () => {
  expect(leftOf({ left: [{ part: 'B', amount: 3 }] }, 'A')).toBe(0);
  expect(
    lotUnitPrice({
      price: 30,
      bought: [
        { part: 'A', amount: 400 },
        { part: 'B', amount: 200 },
      ],
    }),
  ).toBe(0.05);
});
test('of lots opened on one day the one bought first is used first, then by their ids', () => {
  const lots = [
    state('c', 1, '2026-02-01', '2026-01-03'),
    state('b', 1, '2026-02-01', '2026-01-02'),
    state('a', 1, '2026-02-01', '2026-01-03'),
  ];
  expect(inUseOrder(lots).map(({ id }) => id)).toEqual(['b', 'a', 'c']);
});
test('a lot is as good as the label says where it was never opened, and to the day where both agree', () => {
  expect(goodUntil({ openedOn: null, bestBefore: '2026-05-01' }, 12)).toBe('2026-05-01');
  expect(goodUntil({ openedOn: '2026-01-01', bestBefore: null }, null)).toBeNull();
  expect(goodUntil({ openedOn: '2025-05-01', bestBefore: '2026-05-01' }, 12)).toBe('2026-05-01');
});
describe('what was found to have been there after all', () => {
  const takes = [{ cup: 1, item: { kind: 'product' as const, id: 'p' }, part: 'A' as const, poured: 90, lost: 10 }];
  const found = (lots: readonly LotState[]) =>
    lotMovements(takes, () => lots).flatMap(({ kind, lotId, amount }) => (kind === 'found' ? [[lotId, amount]] : []));
  test('was in the last of the open bottles', () =>
    expect(found([state('first', 10, '2026-01-01'), state('open', 20, '2026-02-01'), state('sealed', 30)])).toEqual([
      ['open', 40],
    ]));
  test('or in the last of all where none is open', () =>
    expect(found([state('one', 10), state('two', 20)])).toEqual([['two', 70]]));
  test('and nothing where they held it', () => expect(found([state('one', 100)])).toEqual([]));
  test('a kit of which only part B was entered gives no part A', () =>
    expect(lotMovements(takes, () => [{ ...state('b', 0), left: [{ part: 'B', amount: 500 }] }])).toEqual([]));
});
test('consumables are used, neither poured nor lost; parts of a kit are counted apart', () => {
  const cups = { ...state('cups', 50), left: [{ part: 'all' as const, amount: 50 }] };
  const item = { kind: 'consumable' as const, id: 'cups' };
  expect(lotMovements([{ cup: 2, item, part: 'all', poured: 3, lost: 0 }], () => [cups])).toEqual([
    { lotId: 'cups', item, part: 'all', amount: -3, kind: 'used', cup: 2 },
  ]);
  const kit: LotState = {
    ...state('kit', 0),
    left: [
      { part: 'A', amount: 100 },
      { part: 'B', amount: 40 },
    ],
  };
  const of = { kind: 'product' as const, id: 'p' };
  expect(
    lotMovements(
      [
        { cup: 1, item: of, part: 'B', poured: 40, lost: 0 },
        { cup: 1, item: of, part: 'A', poured: 100, lost: 0 },
      ],
      () => [kit],
    ).map(({ part, amount, kind }) => [part, amount, kind]),
  ).toEqual([
    ['B', -40, 'poured'],
    ['A', -100, 'poured'],
  ]);
});
describe('what a cup took, as it was read at the bench', () => {
  const planned = { pouredGrams: 45, mixGrams: 50, doses: [{ id: 'ink', grams: 0.05 }] };
  const of = (read: object) => cupTakes('p', [{ number: 1, planned, partAGrams: 40, partBGrams: 9, ...read }]);
  test('doses as they were put in; of all that is in the cup the share that reached pieces', () =>
    // 40 + 9 + 1 g are in the cup, 40 of them in the pieces.
    expect(of({ pouredGrams: 40, doses: [{ id: 'ink', grams: 1 }] }).map(({ poured, lost }) => [poured, lost])).toEqual(
      [
        [32, expect.closeTo(8, 9)],
        [expect.closeTo(7.2, 9), expect.closeTo(1.8, 9)],
        [0.8, expect.closeTo(0.2, 9)],
      ],
    ));
  test('never more than all of it', () =>
    expect(of({ pouredGrams: 80, doses: [] }).map(({ poured, lost }) => [poured, lost])).toEqual([
      [40, 0],
      [9, 0],
    ]));
  test('a one-part product is all of it, and what was not weighed took nothing', () => {
    expect(of({ partAGrams: 50, partBGrams: null }).map(({ part, poured }) => [part, poured])).toEqual([
      ['all', 45],
      ['all', expect.closeTo(0.045, 9)],
    ]);
    expect(of({ partAGrams: 0, partBGrams: 0, pouredGrams: 0 })).toEqual([]);
    const nothing = { pouredGrams: 0, mixGrams: 0, doses: [] };
    expect(cupTakes('p', [{ number: 1, planned: nothing, partAGrams: 5, partBGrams: null }])).toEqual([
      { cup: 1, item: { kind: 'product', id: 'p' }, part: 'all', poured: 0, lost: 5 },
    ]);
  });
});
test('what is left of a stock tint is lost: of part A, or of the product where there is no other', () => {
  const left = {
    resinGrams: 2,
    colours: [
      { id: 'ink', grams: 0.1 },
      { id: 'none', grams: 0 },
    ],
  };
  expect(tintTakes('p', left, true)).toEqual([
    { cup: null, item: { kind: 'product', id: 'p' }, part: 'A', poured: 0, lost: 2 },
    { cup: null, item: { kind: 'colourant', id: 'ink' }, part: 'all', poured: 0, lost: 0.1 },
  ]);
  expect(tintTakes('p', left, false)[0]!.part).toBe('all');
  expect(tintTakes('p', { resinGrams: 0, colours: [] }, true)).toEqual([]);
});
test('consumables go by cup, layer, batch, piece and length of dam', () => {
  const of = (per: 'cup' | 'piece' | 'mm of dam', amount: number) =>
    consumableTakes([{ id: 'it', data: { name: 'It', per, amount, packCount: 1, packPrice: 1 } }], {
      cups: 3,
      cupsBefore: 2,
      layersBefore: 0,
      pieces: 7,
      damMm: 900,
    }).map(({ poured }) => poured);
  expect([of('cup', 1), of('piece', 0.5), of('mm of dam', 0.01), of('cup', 0)]).toEqual([[3], [4], [9], []]);
});

test('cups take what was weighed, the planned share reaching the pieces; tints follow what was really in the cup', () => {
  const planned = { pouredGrams: 45, mixGrams: 50, doses: [{ id: 'ink', grams: 0.05 }] };
  const takes = cupTakes('p', [{ number: 2, planned, partAGrams: 40, partBGrams: 20 }]);
  expect(takes).toEqual([
    { cup: 2, item: { kind: 'product', id: 'p' }, part: 'A', poured: 36, lost: expect.closeTo(4, 9) },
    { cup: 2, item: { kind: 'product', id: 'p' }, part: 'B', poured: 18, lost: expect.closeTo(2, 9) },
    {
      cup: 2,
      item: { kind: 'colourant', id: 'ink' },
      part: 'all',
      poured: expect.closeTo(0.054, 9),
      lost: expect.closeTo(0.006, 9),
    },
  ]);
});
test('what a batch takes once goes with its first layer only', () => {
  const consumables = [
    { id: 'gloves', data: { name: 'Gloves', per: 'layer' as const, amount: 2, packCount: 100, packPrice: 9 } },
    { id: 'sheet', data: { name: 'Sheet', per: 'batch' as const, amount: 1, packCount: 5, packPrice: 4 } },
  ];
  const counts = { cups: 3, cupsBefore: 0, pieces: 7, damMm: 900 };
  const of = (layersBefore: number) =>
    consumableTakes(consumables, { ...counts, layersBefore }).map(({ item, poured }) => [item.id, poured]);
  expect(of(0)).toEqual([
    ['gloves', 2],
    ['sheet', 1],
  ]);
  expect(of(1)).toEqual([['gloves', 2]]);
});
test('half a stick a cup is rounded once for a batch, however its cups lie in layers', () => {
  const half = [
    { id: 'stick', data: { name: 'Stick', per: 'cup' as const, amount: 0.5, packCount: 100, packPrice: 3 } },
  ];
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 1, maxLength: 6 }), (layers) => {
      let cupsBefore = 0;
      const used = layers.reduce((sum, cups, layersBefore) => {
        const takes = consumableTakes(half, { cups, cupsBefore, layersBefore, pieces: 1, damMm: 0 });
        cupsBefore += cups;
        return sum + takes.reduce((all, { poured }) => all + poured, 0);
      }, 0);
      expect(used).toBe(Math.ceil(cupsBefore / 2));
    }),
  );
});
test('packs cover a need to the hundredth of a gram', () => {
  expect(cheapestCover(40.69, [{ amount: 40.74, price: 5 }])).toMatchObject({ counts: [1], amount: 40.74 });
  expect(cheapestCover(40.75, [{ amount: 40.74, price: 5 }])).toMatchObject({ counts: [2] });
});
test('cups are charged by their packs or by the piece, never both', () => {
  expect(cupsBesidePacks(1.2, [])).toBe(1.2);
  expect(cupsBesidePacks(1.2, [{ data: { per: 'cup' } }])).toBe(0);
  expect(cupsBesidePacks(1.2, [{ data: { per: 'layer' } }])).toBe(1.2);
});
test('a lot past its date is told by its own date or by its shelf life once open', () => {
  expect(isPast({ openedOn: null, bestBefore: '2026-11-20' }, 12, '2026-11-20')).toBe(false);
  expect(isPast({ openedOn: null, bestBefore: '2026-11-20' }, 12, '2026-11-21')).toBe(true);
  expect(isPast({ openedOn: '2025-11-20', bestBefore: null }, 12, '2026-11-21')).toBe(true);
  expect(isPast({ openedOn: null, bestBefore: null }, 12, '2030-01-01')).toBe(false);
});

describe('have and need', () => {
  const item = { kind: 'product' as const, id: 'p' };
  const needs: Need[] = [
    { item, part: 'A', name: 'p, A', likely: 100, high: 120 },
    { item, part: 'B', name: 'p, B', likely: 90, high: 108 },
  ];
  const level = (part: 'A' | 'B', good: number, reservedElsewhere = 0): StockLevel => ({
    item,
    part,
    good,
    expired: 0,
    reservedHere: 0,
    reservedElsewhere,
    known: true,
    pricePerUnit: null,
    lots: [],
  });
  test('cost what the bottles that are there did, and what a new pack does where there are none', () => {
    const packs = () => ({
      packs: [
        { amount: 1000, price: 50 },
        { amount: 250, price: 20 },
      ],
    });
    const there = { ...level('A', 200), pricePerUnit: 0.03 };
    expect(priceOfNeeds(needs, [there, level('B', 200)], packs)).toBeCloseTo(100 * 0.03 + 90 * 0.05, 9);
    expect(priceOfNeeds(needs, [], () => null)).toBe(0);
  });
  test('what others have reserved is not free', () => {
    const [a, b] = haveAndNeed(needs, [level('A', 200, 90), level('B', 200)]);
    expect([a!.free, a!.short, a!.shortHigh, b!.short]).toEqual([110, 0, 10, 0]);
  });
  test('two batches never count on the same gram', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 500, noNaN: true }),
        fc.double({ min: 0, max: 500, noNaN: true }),
        (good, kept) => {
          const [a] = haveAndNeed(needs, [level('A', good, kept)]);
          // What this one may take and what the other has kept are together no more than there is, unless that was already too much.
          expect(a!.free + Math.min(kept, good)).toBeLessThanOrEqual(good + 1e-9);
          expect(a!.short).toBeCloseTo(Math.max(0, 100 - a!.free), 9);
        },
      ),
    );
  });
  test('kits are bought for the part that runs out first', () => {
    const product = PRODUCT_KINDS[1]!;
    const ratio = ratioByWeight(product.parts!);
    const grams = kitGrams(product, [
      { part: 'A', amount: 53 },
      { part: 'B', amount: 10 },
    ]);
    expect(grams).toBeCloseTo((53 * (1 + ratio)) / ratio, 9);
    const { partAGrams, partBGrams } = splitParts(grams, product.parts!);
    expect(partAGrams).toBeCloseTo(53, 9);
    expect(partBGrams).toBeGreaterThan(10);
  });
  test('needs are set against the very part of the very thing', () => {
    const other = { ...level('A', 1000), item: { kind: 'colourant' as const, id: 'p' } };
    const another = { ...level('A', 1000), item: { kind: 'product' as const, id: 'q' } };
    const [a] = haveAndNeed(needs, [other, another, level('B', 5), level('A', 30)]);
    expect(a!.free).toBe(30);
    expect(haveAndNeed(needs, [])[0]).toMatchObject({ free: 0, short: 100, level: { known: false, lots: [] } });
  });
  test('a kit for its part B is larger by what it holds of A', () => {
    const parts = { ratioA: 2, ratioB: 1, ratioBy: 'weight' as const, densityA: 1, densityB: 1 };
    expect(kitGrams({ parts }, [{ part: 'B', amount: 10 }])).toBeCloseTo(30, 9);
    expect(kitGrams({ parts: null }, [{ part: 'all', amount: 10 }])).toBe(10);
    expect(kitGrams({ parts: null }, [])).toBe(0);
  });
  test('what is there in the bad case, or is sold nowhere, is not on the list', () => {
    const packs = () => ({ name: 'p', product: null, packs: [{ amount: 50, price: 6 }] });
    expect(shoppingList(haveAndNeed(needs, [level('A', 120), level('B', 108)]), packs)).toEqual([]);
    expect(shoppingList(haveAndNeed(needs, []), () => null)).toEqual([]);
    const two = [
      ...needs,
      { item: { kind: 'colourant' as const, id: 'p' }, part: 'all' as const, name: 'i', likely: 1, high: 60 },
    ];
    expect(shoppingList(haveAndNeed(two, []), packs).map(({ item }) => item.kind)).toEqual(['product', 'colourant']);
  });
  test('the list names each thing once, with what covers the bad case', () => {
    const list = shoppingList(haveAndNeed(needs, [level('A', 0), level('B', 500)]), () => ({
      name: 'p',
      product: null,
      packs: [{ amount: 50, price: 6 }],
    }));
    expect(list.map(({ name, cover }) => [name, cover.counts])).toEqual([['p', [3]]]);
  });
});
