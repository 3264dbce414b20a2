import Papa from 'papaparse';
import fc from 'fast-check';
import { readCsv, writeCsv } from './csv';

test('a text that a spreadsheet would run is guarded in every column, a number is not', () => {
  const text = writeCsv(['a', 'b', 'c'], [{ a: '=1+1', b: -3.5, c: '@x' }]);
  expect(Papa.parse(text.trim()).data).toEqual([
    ['a', 'b', 'c'],
    ["'=1+1", '-3.5', "'@x"],
  ]);
});
test('whatever text stands in a cell comes back, and no cell begins as a formula', () => {
  const cell = fc.oneof(fc.string(), fc.constantFrom('=cmd|x', '+1', '-1', '@a', '\tx', '＝1', "'=a", "it's"));
  fc.assert(
    fc.property(cell, cell, (one, two) => {
      const [a, b] = [one.trim(), two.trim()];
      fc.pre(
        `${a}${b}` !== '' && !/[\r\n]/.test(`${a}${b}`) && !/^'[=+\-@＝＋－＠]/.test(a) && !/^'[=+\-@＝＋－＠]/.test(b),
      );
      const text = writeCsv(['a', 'b'], [{ a, b }]);
      const raw = Papa.parse<string[]>(text.trim()).data[1]!;
      for (const written of raw) expect(written).not.toMatch(/^[=+\-@\t\r＝＋－＠]/);
      const [row] = readCsv(text).rows;
      expect([row?.['a'], row?.['b']]).toEqual([a, b]);
    }),
  );
});
