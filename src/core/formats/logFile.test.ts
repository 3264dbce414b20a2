import { logEntry, type LogEntry, type LogPlace } from '../records/workshopLog';
import { readCsv } from './csv';
import { logFileParts } from './logFile';

const PLACE: LogPlace = {
  key: 'k',
  at: '2026-11-26T20:00',
  setId: 's',
  set: 'Heron, Slack',
  batchId: 'b',
  name: 'Tiles',
  lotId: null,
  runId: null,
  note: null,
};
const ENTRIES: LogEntry[] = [
  logEntry(PLACE, { kind: 'note', text: '=cmd, or "so"\nin two lines' }),
  logEntry(PLACE, {
    kind: 'poured',
    layer: 1,
    product: 'epoxy',
    cups: 1,
    discarded: 0,
    mixedGrams: 50.04,
    lostGrams: 3.26,
    money: 1.756,
    temperatureC: 20,
    pieces: [{ tag: 'HS-1', copies: 2 }],
    notes: [],
  }),
];

test('as CSV it is a line an entry under one line of headings, with plain numbers and no formula', () => {
  const text = [...logFileParts(ENTRIES, 'csv')].join('');
  expect(text).not.toMatch(/(^|,)"?=/m);
  const { columns, rows } = readCsv(text);
  expect(columns.slice(0, 4)).toEqual(['when', 'what', 'set', 'title']);
  expect(rows).toEqual([
    expect.objectContaining({
      what: 'note',
      set: 'Heron, Slack',
      said: '=cmd, or "so"\nin two lines',
      mixed_g: '',
      price: '',
    }),
    expect.objectContaining({ what: 'poured', title: 'Tiles, layer 1', mixed_g: '50', lost_g: '3.3', price: '1.76' }),
  ]);
});
test('as JSON it is one document with every entry as it was', () => {
  const { entries, ...head } = JSON.parse([...logFileParts(ENTRIES, 'json')].join('')) as { entries: LogEntry[] };
  expect(head).toEqual({ format: 'aguada.log', version: 1 });
  expect(entries).toEqual(ENTRIES.map(({ note: _, ...entry }) => entry));
});
test('of nothing it is headings alone, and a document without entries', () => {
  expect([...logFileParts([], 'csv')].join('')).toMatch(/^when,what,set,[\w,]+\n*$/);
  expect(JSON.parse([...logFileParts([], 'json')].join(''))).toMatchObject({ entries: [] });
});
