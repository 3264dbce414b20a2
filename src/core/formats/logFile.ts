import { z } from 'zod';
import { FINDING_KINDS, FINDINGS } from '../findings/findingKinds';
import { findingSchema, OUTCOMES, type Finding } from '../records/recordSchemas';
import { logLineSchema, MOST_LOG_LINES, type LogEntry, type LogLine, type LookedPiece } from '../records/workshopLog';
import { wallTimeSchema, type WallTime } from '../time/wallTime';
import { readCsv, writeCsv } from './csv';

const COLUMNS = [
  'when',
  'what',
  'set',
  'batch',
  'piece',
  'title',
  'facts',
  'found',
  'outcome',
  'said',
  'mixed_g',
  'lost_g',
  'price',
] as const;
type Row = Record<(typeof COLUMNS)[number], string | number>;

const found = (findings: readonly Finding[]): string =>
  findings.map(({ kind, mm }) => (mm === undefined ? kind : `${kind} ${mm}`)).join('; ');

/** The lines of an entry: one, or where pieces were looked over one for each. */
function rowsOf(entry: LogEntry): Row[] {
  const { at, kind, set, batchId, name, title, facts, said, mixedGrams, lostGrams, price, looked } = entry;
  const row: Row = {
    when: at,
    what: kind,
    set: set ?? '',
    batch: batchId === null ? '' : name,
    piece: '',
    title,
    facts: facts.join('; '),
    found: '',
    outcome: '',
    said: said.join(' '),
    mixed_g: mixedGrams === null ? '' : Math.round(mixedGrams * 10) / 10,
    lost_g: lostGrams === null ? '' : Math.round(lostGrams * 10) / 10,
    price: price === null ? '' : Math.round(price * 100) / 100,
  };
  const ofPiece = ({ piece, findings, outcome, note }: LookedPiece): Row => ({
    ...row,
    piece,
    facts: '',
    found: found(findings),
    outcome,
    said: note,
  });
  return looked.length > 0 ? looked.map(ofPiece) : [row];
}

/** Kinds of file in which the log is handed out, and taken in. */
export const LOG_FILES = ['csv', 'json'] as const;
export type LogFile = (typeof LOG_FILES)[number];

/**
 * Entries of the log as a file, part by part: as CSV a line an entry, or a piece that was looked over; or `aguada.log` as JSON. Grams
 * and money are plain numbers.
 */
export function* logFileParts(entries: Iterable<LogEntry>, file: LogFile): Generator<string> {
  let first = true;
  if (file === 'json') yield '{"format":"aguada.log","version":1,"entries":[';
  for (const entry of entries) {
    if (file === 'json') {
      const { note: _, ...told } = entry;
      yield `${first ? '\n' : ',\n'}${JSON.stringify(told)}`;
    } else {
      const text = writeCsv(COLUMNS, rowsOf(entry));
      // The headings stand over the first line only.
      yield first ? text : text.slice(text.indexOf('\n') + 1);
    }
    first = false;
  }
  if (file === 'json') yield '\n]}\n';
  else if (first) yield writeCsv(COLUMNS, []);
}

/** A file of the log as it was read: what can be taken in, how much of it Aguada records itself, and what is wrong with which line. */
export interface ReadLog {
  lines: LogLine[];
  others: number;
  problems: { line: number; message: string }[];
}

export type DateOrder = 'day first' | 'month first' | 'year first';

/**
 * A moment as people and spreadsheets write it: with the year first, or else in the workshop’s own order; with points between its parts
 * the day comes first. Without a time it is noon. Null when it is none.
 */
export function readMoment(text: string, order: DateOrder): WallTime | null {
  const [, first = '', sign, second = '', third = '', hours = '12', minutes = '00'] =
    /^(\d{1,4})([-./])(\d{1,2})\2(\d{1,4})(?:[T ,]+(\d{1,2}):(\d\d)(?::\d\d)?)?$/.exec(text.trim()) ?? [];
  const [year, month, day] =
    first.length === 4
      ? [first, second, third]
      : order === 'month first' && sign === '/'
        ? [third, first, second]
        : [third, second, first];
  const two = (part: string): string => part.padStart(2, '0');
  return wallTimeSchema.safeParse(`${year}-${two(month)}-${two(day)}T${two(hours)}:${minutes}`).data ?? null;
}

/** Findings as they stand in a cell: kinds with their size, `low 0.5; crack`. What is none is given back. */
function readFindings(text: string): Finding[] | string {
  const findings: Finding[] = [];
  for (const part of text.split(/[;|]/).map((one) => one.trim())) {
    if (part === '') continue;
    const [, words = part, size] = /^(.*?)(?:\s+(?:by\s+)?(\d+(?:[.,]\d+)?)(?:\s*mm)?)?$/.exec(part) ?? [];
    const kind = FINDINGS.find((one) => [one, FINDING_KINDS[one].short].includes(words.toLowerCase()));
    if (!kind) return part;
    findings.push({ kind, ...(size !== undefined && { mm: Number(size.replace(',', '.')) }) });
  }
  return findings;
}

type Told = Record<'when' | 'what' | 'set' | 'batch' | 'piece' | 'found' | 'outcome' | 'said', string>;

/** One told line, or what is wrong with it; null where Aguada records such things itself. */
function lineOf(told: Told, line: number, order: DateOrder): LogLine | string | null {
  const at = readMoment(told.when, order);
  const what = told.what.trim().toLowerCase() || (told.piece.trim() ? 'looked over' : 'note');
  if (what !== 'note' && what !== 'looked over') return null;
  if (at === null) return `“${told.when}” is no date such as 2026-11-26 20:00.`;
  const findings = readFindings(told.found);
  if (typeof findings === 'string')
    return `“${findings}” is nothing that is found on pieces. It is one of: ${FINDINGS.join(', ')}.`;
  const outcome = told.outcome.trim().toLowerCase() || (findings.length > 0 ? 'mend' : 'pass');
  if (!(OUTCOMES as readonly string[]).includes(outcome))
    return `“${told.outcome}” is none of: ${OUTCOMES.join(', ')}.`;
  const read = logLineSchema.safeParse(
    what === 'note'
      ? { what, line, at, set: told.set.trim() || null, text: told.said }
      : { what, line, at, set: told.set, batch: told.batch, piece: told.piece, findings, outcome, note: told.said },
  );
  return read.success ? read.data : read.error.issues[0]!.message;
}

/** Reads a file of the log: what Aguada hands out itself, as CSV or JSON, or a table of one’s own with the same headings. */
export function readLogFile(text: string, order: DateOrder): ReadLog {
  const told = text.trimStart().startsWith('{') ? toldInJson(text) : toldInCsv(text);
  if (typeof told === 'string') return { lines: [], others: 0, problems: [{ line: 1, message: told }] };
  const read: ReadLog = { lines: [], others: 0, problems: [] };
  for (const { line, ...one } of told) {
    const taken = lineOf(one, line, order);
    if (taken === null) read.others++;
    else if (typeof taken === 'string') read.problems.push({ line, message: taken });
    else read.lines.push(taken);
  }
  if (read.lines.length > MOST_LOG_LINES)
    read.problems.push({ line: 1, message: `At most ${MOST_LOG_LINES} lines are taken in at once.` });
  return read;
}

type ToldLine = Told & { line: number };

function toldInCsv(text: string): ToldLine[] | string {
  const { columns, rows } = readCsv(text);
  if (!columns.includes('when') || !(columns.includes('said') || columns.includes('piece')))
    return 'The first line must name the columns when and said, and for pieces set, batch, piece, found, outcome.';
  const cell = (row: Record<string, string>, name: keyof Told): string => row[name] ?? '';
  return rows.map((row, i) => ({
    line: i + 2,
    when: cell(row, 'when'),
    what: cell(row, 'what'),
    set: cell(row, 'set'),
    batch: cell(row, 'batch'),
    piece: cell(row, 'piece'),
    found: cell(row, 'found'),
    outcome: cell(row, 'outcome'),
    said: cell(row, 'said'),
  }));
}

const logJsonSchema = z.object({
  format: z.literal('aguada.log'),
  version: z.literal(1),
  entries: z.array(
    z.object({
      at: z.string(),
      kind: z.string(),
      set: z.string().nullable(),
      name: z.string(),
      said: z.array(z.string()).default([]),
      looked: z
        .array(
          z.object({
            piece: z.string(),
            findings: z.array(findingSchema),
            outcome: z.enum(OUTCOMES),
            note: z.string(),
          }),
        )
        .default([]),
    }),
  ),
});

function toldInJson(text: string): ToldLine[] | string {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return 'This is not JSON, or was cut short.';
  }
  const read = logJsonSchema.safeParse(json);
  if (!read.success) {
    const [issue] = read.error.issues;
    return `This is no log of Aguada: ${issue?.path.join('.') ?? ''} ${issue?.message ?? ''}`.trim();
  }
  return read.data.entries.flatMap(({ at, kind, set, name, said, looked }, i): ToldLine[] => {
    const entry = { line: i + 1, when: at, what: kind, set: set ?? '', batch: name, piece: '', found: '', outcome: '' };
    return looked.length === 0
      ? [{ ...entry, said: said.join(' ') }]
      : looked.map(({ piece, findings, outcome, note }) => ({
          ...entry,
          piece,
          found: found(findings),
          outcome,
          said: note,
        }));
  });
}
