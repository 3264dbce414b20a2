import type { LogEntry } from '../records/workshopLog';
import { writeCsv } from './csv';

const COLUMNS = ['when', 'what', 'set', 'title', 'facts', 'said', 'mixed_g', 'lost_g', 'price'] as const;

const row = ({ at, kind, set, title, facts, said, mixedGrams, lostGrams, price }: LogEntry) => ({
  when: at,
  what: kind,
  set: set ?? '',
  title,
  facts: facts.join('; '),
  said: said.join(' '),
  mixed_g: mixedGrams === null ? '' : Math.round(mixedGrams * 10) / 10,
  lost_g: lostGrams === null ? '' : Math.round(lostGrams * 10) / 10,
  price: price === null ? '' : Math.round(price * 100) / 100,
});

/** Kinds of file in which the log is handed out. */
export const LOG_FILES = ['csv', 'json'] as const;
export type LogFile = (typeof LOG_FILES)[number];

/** Entries of the log as a file, part by part: a line an entry as CSV, or `aguada.log` as JSON. Grams and money are plain numbers. */
export function* logFileParts(entries: Iterable<LogEntry>, file: LogFile): Generator<string> {
  let first = true;
  if (file === 'json') yield '{"format":"aguada.log","version":1,"entries":[';
  for (const entry of entries) {
    if (file === 'json') {
      const { note: _, ...told } = entry;
      yield `${first ? '\n' : ',\n'}${JSON.stringify(told)}`;
    } else {
      const text = writeCsv(COLUMNS, [row(entry)]);
      // The headings stand over the first line only.
      yield first ? text : text.slice(text.indexOf('\n') + 1);
    }
    first = false;
  }
  if (file === 'json') yield '\n]}\n';
  else if (first) yield writeCsv(COLUMNS, []);
}
