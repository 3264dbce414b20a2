import { logEntry, type LogEntry, type LogPlace } from '../records/workshopLog';
import { readCsv } from './csv';
import { logFileParts, readLogFile, readMoment } from './logFile';

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
  expect(columns.slice(0, 4)).toEqual(['when', 'what', 'set', 'batch']);
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

const LOOKED = logEntry(PLACE, {
  kind: 'looked over',
  copies: [
    {
      tag: 'HS-1',
      copy: 3,
      outcome: 'mend',
      findings: [{ kind: 'low', mm: 0.5 }, { kind: 'tacky spots' }],
      note: 'by the wall',
    },
    { tag: 'HS-1', copy: 4, outcome: 'pass', findings: [], note: '' },
  ],
});
const LINES = [
  { what: 'note', at: PLACE.at, set: 'Heron, Slack', text: '=cmd, or "so"\nin two lines' },
  {
    what: 'looked over',
    at: PLACE.at,
    set: 'Heron, Slack',
    batch: 'Tiles',
    piece: 'HS-1 #3',
    findings: [{ kind: 'low', mm: 0.5 }, { kind: 'tacky spots' }],
    outcome: 'mend',
    note: 'by the wall',
  },
  {
    what: 'looked over',
    at: PLACE.at,
    set: 'Heron, Slack',
    batch: 'Tiles',
    piece: 'HS-1 #4',
    findings: [],
    outcome: 'pass',
    note: '',
  },
];

describe('taken in again', () => {
  test.each(['csv', 'json'] as const)(
    'what was handed out as %s: notes and pieces looked over, the rest is counted',
    (file) => {
      const { lines, others, problems } = readLogFile(
        [...logFileParts([...ENTRIES, LOOKED], file)].join(''),
        'day first',
      );
      expect(problems).toEqual([]);
      expect(others).toBe(1);
      expect(lines.map(({ line: _, ...rest }) => rest)).toEqual(LINES);
    },
  );
  test('a table out of a spreadsheet: semicolons, commas for decimals, its own dates, what is found in words', () => {
    const table = [
      '\uFEFFWhen;Set;Batch;Piece;Found;Outcome;Said',
      '26.11.2026 20:05;Slack;Tiles;HS-1 #3;low 0,5 mm; crack;;',
      '27.11.2026;Slack;;;;;"Two geese; one heron"',
      '28.11.2026 9:00;Slack;Tiles;HS-2;;;',
    ];
    // A semicolon within a cell is quoted by spreadsheets.
    table[1] = '26.11.2026 20:05;Slack;Tiles;HS-1 #3;"low by 0,5 mm; crack";;';
    const { lines, problems } = readLogFile(table.join('\r\n'), 'month first');
    expect(problems).toEqual([]);
    expect(lines).toMatchObject([
      { line: 2, at: '2026-11-26T20:05', findings: [{ kind: 'low', mm: 0.5 }, { kind: 'crack' }], outcome: 'mend' },
      { line: 3, what: 'note', at: '2026-11-27T12:00', set: 'Slack', text: 'Two geese; one heron' },
      { line: 4, at: '2026-11-28T09:00', piece: 'HS-2', outcome: 'pass' },
    ]);
  });
  test.each([
    ['when,said\nyesterday,hello', 2, '“yesterday” is no date'],
    ['when,said\n2026-02-30,hello', 2, 'is no date'],
    ['when,said\n2026-11-26,', 2, 'Write something'],
    ['when,piece,found\n2026-11-26,HS-1,wobbly', 2, '“wobbly” is nothing that is found'],
    ['when,piece,batch,found\n2026-11-26,HS-1,Tiles,low', 2, 'Of which set?'],
    ['when,piece,set,batch,outcome\n2026-11-26,HS-1,S,Tiles,maybe', 2, '“maybe” is none of'],
    ['when,piece,set,batch,found\n2026-11-26,HS-1,S,Tiles,low 500', 2, 'At most 100 mm'],
    ['day,text\n1,2', 1, 'must name the columns'],
    ['{"format":"aguada.log"', 1, 'was cut short'],
    ['{"format":"aguada.set","version":1,"entries":[]}', 1, 'no log of Aguada'],
    ['', 1, 'must name the columns'],
  ])('%j says at its line what is wrong', (text, line, words) => {
    const { lines, problems } = readLogFile(text, 'day first');
    expect(lines).toEqual([]);
    expect(problems).toEqual([{ line, message: expect.stringContaining(words) as string }]);
  });
  test.each([
    ['2026-11-05T07:30', 'day first', '2026-11-05T07:30'],
    ['2026/11/5 7:30:59', 'day first', '2026-11-05T07:30'],
    ['5.11.2026', 'month first', '2026-11-05T12:00'],
    ['5/11/2026', 'day first', '2026-11-05T12:00'],
    ['11/5/2026, 19:00', 'month first', '2026-11-05T19:00'],
    ['13/5/2026', 'month first', null],
    ['5.11/2026', 'day first', null],
    ['2026-11-05T25:00', 'day first', null],
  ] as const)('%s, %s, is %s', (text, order, at) => expect(readMoment(text, order)).toBe(at));
});
