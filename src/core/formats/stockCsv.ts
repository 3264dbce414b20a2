import { z } from 'zod';
import { lotSchema, type Lot, type StockItem } from '../model/stockSchema';
import type { LotRow } from '../records/views';
import { readCsv, writeCsv } from './csv';

/** What a thing of the shelf is called, for files: people write names, not ids. */
export interface NamedItem {
  item: StockItem;
  name: string;
}

const COLUMNS = [
  'kind',
  'what',
  'lot',
  'bought on',
  'opened on',
  'best before',
  'price',
  'held',
  'held B',
  'left',
  'left B',
] as const;
type Column = (typeof COLUMNS)[number];

const partOf = (parts: readonly { part: string; amount: number }[], second: boolean): string => {
  const one = parts.find(({ part }) => (second ? part === 'B' : part !== 'B'));
  return one ? String(Math.round(one.amount * 100) / 100) : '';
};

/** Every lot as a line of a table: grams (or pieces) held and left; of a kit part A first, part B in columns of its own. */
export function stockCsv(lots: readonly LotRow[], items: readonly NamedItem[]): string {
  const rows = lots.map(({ data, left }): Record<Column, string | number> => ({
    kind: data.of.kind,
    what: items.find(({ item }) => item.kind === data.of.kind && item.id === data.of.id)?.name ?? data.of.id,
    lot: data.name,
    'bought on': data.boughtOn,
    'opened on': data.openedOn ?? '',
    'best before': data.bestBefore ?? '',
    price: data.price,
    held: partOf(data.bought, false),
    'held B': partOf(data.bought, true),
    left: partOf(left, false),
    'left B': partOf(left, true),
  }));
  return writeCsv(COLUMNS, rows);
}

/** A lot out of a file, and what was left in it where the file says so. */
export interface ReadLot {
  lot: Lot;
  left: { part: Lot['bought'][number]['part']; amount: number }[];
}

export interface StockFileProblem {
  line: number;
  message: string;
}

const amountText = z
  .string()
  .trim()
  .transform((text) => (text === '' ? null : Number(text.replace(',', '.'))))
  .refine((value) => value === null || (Number.isFinite(value) && value >= 0), { error: 'is not an amount' });

/** Reads such a table. Lines that cannot be read are named and left out; nothing is guessed. */
export function readStockCsv(
  text: string,
  items: readonly NamedItem[],
): { lots: ReadLot[]; problems: StockFileProblem[] } {
  const { columns, rows } = readCsv(text);
  const lots: ReadLot[] = [];
  const problems: StockFileProblem[] = [];
  const missing = (['what', 'held'] as const).filter((name) => !columns.includes(name));
  if (missing.length > 0)
    return { lots, problems: [{ line: 1, message: `There is no column ${missing.join(' and no column ')}.` }] };
  rows.forEach((row, i) => {
    const line = i + 2;
    const cell = (name: string): string => (row[name] ?? '').trim();
    const fail = (message: string): void => void problems.push({ line, message });
    const named = items.filter(
      ({ item, name }) =>
        name.toLowerCase() === cell('what').toLowerCase() && (cell('kind') === '' || cell('kind') === item.kind),
    );
    if (named.length !== 1)
      return fail(
        `${cell('what') || 'A line without a name'} is ${named.length === 0 ? 'not' : 'more than once'} on the shelf.`,
      );
    const amounts = (['held', 'held b', 'left', 'left b'] as const).map((name) => ({
      name,
      read: amountText.safeParse(cell(name)),
    }));
    const bad = amounts.find(({ read }) => !read.success);
    if (bad) return fail(`${cell(bad.name)} in column ${bad.name} is not an amount.`);
    const [held, heldB, left, leftB] = amounts.map(({ read }) => read.data ?? null);
    const two = heldB !== null && heldB !== undefined;
    const parts = (a: number | null | undefined, b: number | null | undefined): ReadLot['left'] => [
      ...(a === null || a === undefined ? [] : [{ part: two ? ('A' as const) : ('all' as const), amount: a }]),
      ...(b === null || b === undefined ? [] : [{ part: 'B' as const, amount: b }]),
    ];
    const price = amountText.safeParse(cell('price'));
    if (!price.success)
      return fail(`${cell('price')} is not a price. Prices are plain numbers in the workshop’s own currency.`);
    const lot = lotSchema.safeParse({
      of: named[0]!.item,
      name: cell('lot') || 'Lot',
      bought: parts(held, heldB),
      boughtOn: cell('bought on'),
      openedOn: cell('opened on') || null,
      bestBefore: cell('best before') || null,
      price: price.data ?? 0,
    });
    if (!lot.success) return fail(`${lot.error.issues[0]!.path.join(' ')}: ${lot.error.issues[0]!.message}`);
    lots.push({ lot: lot.data, left: parts(left, leftB) });
  });
  return { lots, problems };
}
