import { readCsv } from './csv';
import { invoiceCsv } from './invoiceFile';

const head = { set: 'Heron Slack', customer: '=cmd', price: 100.01, currency: '€' };
const design = (tag: string, copies: number, waterGrams: number) => ({ tag, name: 'Tile', copies, waterGrams });

test('amounts add up to the price to the cent; half by pieces, half by water', () => {
  const { rows } = readCsv(invoiceCsv([design('A', 3, 10), design('B', 1, 30), design('C', 0, 9)], head));
  expect(rows.map((row) => row['line'])).toEqual(['A Tile', 'B Tile']);
  // A: three quarters of the pieces, half of the water.
  expect(rows.map((row) => row['amount'])).toEqual(['62.51', '37.50']);
  expect(rows.reduce((sum, row) => sum + Math.round(Number(row['amount']) * 100), 0)).toBe(10_001);
});
test('a customer that a spreadsheet would run is guarded', () =>
  expect(invoiceCsv([design('A', 1, 1)], head)).toContain("'=cmd"));
test('of nothing there is the line of headings', () =>
  expect(invoiceCsv([], head).trim()).toBe('set,customer,line,copies,each,amount,currency'));
