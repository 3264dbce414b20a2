import fc from 'fast-check';
import Papa from 'papaparse';
import type { LotRow } from '../records/views';
import { readStockCsv, stockCsv, type NamedItem } from './stockCsv';

const items: NamedItem[] = [
  { item: { kind: 'product', id: 'p' }, name: 'Coating epoxy' },
  { item: { kind: 'colourant', id: 'c' }, name: 'Green ink, "deep"' },
  { item: { kind: 'consumable', id: 'cups' }, name: 'Paper cups' },
];
const row = (change: Partial<LotRow['data']>, left: LotRow['left']): LotRow => ({
  id: 'l',
  version: 1,
  left,
  lastAt: null,
  data: {
    of: items[0]!.item,
    name: 'Kit 1',
    boughtOn: '2026-10-01',
    openedOn: '2026-10-05',
    bestBefore: null,
    bought: [
      { part: 'A', amount: 530 },
      { part: 'B', amount: 470 },
    ],
    price: 26.5,
    ...change,
  },
});

test('names that begin like formulas are guarded in the file, and read back', () => {
  const odd: NamedItem[] = [{ item: { kind: 'product', id: 'p' }, name: '=HYPERLINK("x")' }];
  const text = stockCsv([row({ name: '+Kit' }, [])], odd);
  const cells = Papa.parse<string[]>(text.trim()).data[1]!;
  expect(cells.slice(1, 3)).toEqual([`'=HYPERLINK("x")`, "'+Kit"]);
  expect(readStockCsv(text, odd).lots.map(({ lot }) => lot.name)).toEqual(['+Kit']);
});

test('lots go to a table and come back as they were', () => {
  const rows = [
    row({}, [
      { part: 'A', amount: 212.5 },
      { part: 'B', amount: 190 },
    ]),
    row(
      {
        of: items[1]!.item,
        name: 'Bottle; 2',
        bought: [{ part: 'all', amount: 30 }],
        openedOn: null,
        bestBefore: '2027-05-01',
      },
      [{ part: 'all', amount: 28.25 }],
    ),
  ];
  const { lots, problems } = readStockCsv(stockCsv(rows, items), items);
  expect(problems).toEqual([]);
  expect(lots).toEqual(rows.map(({ data, left }) => ({ lot: data, left })));
});
test('any text in a cell gives a line of its own trouble or a lot, never a crash', () => {
  fc.assert(
    fc.property(fc.array(fc.array(fc.string(), { minLength: 5, maxLength: 5 }), { maxLength: 5 }), (cells) => {
      const text = [
        'what,lot,bought on,price,held',
        ...cells.map((line) => line.map((cell) => JSON.stringify(cell)).join()),
      ].join('\n');
      const { lots, problems } = readStockCsv(text, items);
      expect(lots.length + problems.length).toBeLessThanOrEqual(text.split('\n').length);
    }),
  );
});
test.each([
  ['Moon dust,Tin,2026-11-01,1,10', 'Moon dust is not on the shelf.'],
  ['Paper cups,Pack,2026-11-01,1,ten', 'ten in column held is not an amount.'],
  ['Paper cups,Pack,2026-11-01,£4,50', '£4 is not a price. Prices are plain numbers in the workshop’s own currency.'],
  ['Paper cups,Pack,yesterday,4,50', 'boughtOn: A date such as 2026-12-12'],
  ['Paper cups,Pack,2026-11-01,4,-5', '-5 in column held is not an amount.'],
])('%s', (line, message) => {
  const { lots, problems } = readStockCsv(
    `what,lot,bought on,price,held\n${line}\nPaper cups,Good,2026-11-01,4,50\n`,
    items,
  );
  expect(problems).toEqual([{ line: 2, message }]);
  expect(lots).toHaveLength(1);
});
test('a table without the columns says which', () =>
  expect(readStockCsv('a,b\n1,2\n', items).problems).toEqual([
    { line: 1, message: 'There is no column what and no column held.' },
  ]));
