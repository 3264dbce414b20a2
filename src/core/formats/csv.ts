import Papa from 'papaparse';

/** What a spreadsheet takes for a formula. */
const FORMULA = /^[=+\-@\t\r＝＋－＠]/;
const GUARDED = /^'(?=[=+\-@\t\r＝＋－＠])/;

type Cell = string | number;

/**
 * A table as CSV, its columns in their order. A text that a spreadsheet would run as a formula gets an apostrophe before it; numbers
 * are plain decimals with a point.
 */
export const writeCsv = <C extends string>(columns: readonly C[], rows: readonly Readonly<Record<C, Cell>>[]): string =>
  `${Papa.unparse(
    { fields: [...columns], data: rows.map((row) => columns.map((column) => row[column])) },
    { newline: '\n', escapeFormulae: FORMULA },
  )}\n`;

/** Reads a table with a line of headings, in small letters; the guard against formulas is taken off again. */
export function readCsv(text: string): { columns: string[]; rows: Record<string, string>[] } {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, '').trim(), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (name) => name.trim().toLowerCase(),
    transform: (value) => value.replace(GUARDED, ''),
  });
  return { columns: meta.fields ?? [], rows: data };
}
