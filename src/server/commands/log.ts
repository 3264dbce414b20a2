import type { Command } from '@/core/records/command';
import { numbersOf } from '@/core/records/copies';
import { withInspectionsTakenIn } from '@/core/records/inspections';
import type { Batch, CopyInspection } from '@/core/records/recordSchemas';
import type { LogLine } from '@/core/records/workshopLog';
import { listBatches } from '@/db/batches';
import { listDocuments } from '@/db/documents';
import { edit } from '@/db/journal';
import type { Database } from '@/db/storage';
import type { BatchRow } from '@/core/records/views';
import type { Stored } from '@/core/model/stored';
import { type Done } from '../changes';
import { FieldProblem } from '../fieldProblem';

type LookedLine = Extract<LogLine, { what: 'looked over' }>;
type NoteLine = Extract<LogLine, { what: 'note' }>;
type NewInspection = Omit<CopyInspection, 'colour'>;

const MOST_BATCHES = 100_000;
const count = (n: number, one: string, more = `${one}s`): string => `${n} ${n === 1 ? one : more}`;

/**
 * Takes lines of a log in: notes, and pieces as they were looked over. What is there already, word by word, is not put there again.
 * A set, batch or piece that is not there, or of which there are two, is told with its line, and nothing is written.
 */
export function takeInLog(
  db: Database,
  { lines, label = 'Take in a log' }: Extract<Command, { do: 'take in log' }>,
  now: string,
): Done {
  const names = namesOf(db);
  const notes = newNotes(
    db,
    lines.filter((line) => line.what === 'note'),
    names,
  );
  const looked = lookedPieces(
    lines.filter((line) => line.what === 'looked over'),
    names,
  );
  let pieces = 0;
  const touched = edit(db, 'log', label, now, (writer) => {
    for (const note of notes) writer.add('note', crypto.randomUUID(), note);
    for (const [{ id, version, data }, inspections] of looked) {
      const fresh = inspections.filter((one) => !isThere(data, one));
      pieces += fresh.length;
      if (fresh.length > 0) writer.put('batch', id, withInspectionsTakenIn(data, fresh), version);
    }
  });
  const there = lines.length - notes.length - pieces;
  return {
    id: null,
    touched,
    note: `Took in ${count(notes.length, 'note')} and ${count(pieces, 'piece')} looked over.${there > 0 ? ` ${count(there, 'line')} ${there === 1 ? 'was' : 'were'} in the log already.` : ''}`,
  };
}

/** What lines name, each of it asked for once. */
interface Names {
  set: (line: { line: number; set: string }) => string;
  /** The batch, with the design that the tag of a piece names. */
  piece: (line: LookedLine) => { batch: BatchRow; designId: string; copy: number };
}

/** The only one of some things; told with its line where there is none, or more than one. */
function only<T>(found: readonly T[], line: number, what: string): T {
  if (found.length !== 1)
    throw new FieldProblem(
      ['lines', line],
      `Line ${line}: there is ${found.length === 0 ? 'no' : 'more than one'} ${what}. Nothing was taken in.`,
    );
  return found[0]!;
}

function namesOf(db: Database): Names {
  const sets = listDocuments(db, 'set').records;
  const known = new Map<string, { batches: BatchRow[]; designs: Stored<{ tag: string }>[] }>();
  const inSet = (setId: string) => {
    const there = known.get(setId) ?? {
      batches: listBatches(db, setId, MOST_BATCHES),
      designs: listDocuments(db, 'design', setId).records,
    };
    known.set(setId, there);
    return there;
  };
  const set: Names['set'] = ({ line, set: name }) =>
    only(
      sets.filter(({ data }) => data.name === name),
      line,
      `set ${name}`,
    ).id;
  return {
    set,
    piece: (one) => {
      const { line, piece } = one;
      const { batches, designs } = inSet(set(one));
      const batch = only(
        batches.filter(({ data }) => data.name === one.batch),
        line,
        `batch ${one.batch} in ${one.set}`,
      );
      const [, tag = piece, number] = /^(.*?)(?:\s*#(\d+))?$/.exec(piece) ?? [];
      const design = only(
        designs.filter(({ data }) => data.tag === tag.trim()),
        line,
        `piece ${tag.trim()} in ${one.set}`,
      );
      const item = batch.data.items.find(({ designId }) => designId === design.id);
      const held = item ? numbersOf(item) : [];
      if (number === undefined && held.length > 1)
        throw new FieldProblem(
          ['lines', line],
          `Line ${line}: say which copy of ${piece} it is, for example ${piece} #${held[1]!}. Nothing was taken in.`,
        );
      const copy = Number(number ?? held[0]);
      if (!held.includes(copy))
        throw new FieldProblem(
          ['lines', line],
          `Line ${line}: ${one.batch} does not hold ${piece}. Nothing was taken in.`,
        );
      if (!batch.poured)
        throw new FieldProblem(['lines', line], `Line ${line}: ${one.batch} is not poured yet. Nothing was taken in.`);
      return { batch, designId: design.id, copy };
    },
  };
}

function newNotes(db: Database, lines: readonly NoteLine[], names: Names) {
  const keyOf = (note: { at: string; text: string; setId: string | null }): string =>
    JSON.stringify([note.at, note.text, note.setId]);
  const there = new Set(listDocuments(db, 'note').records.map(({ data }) => keyOf(data)));
  return lines.flatMap(({ line, at, text, set }) => {
    const note = { at, text, setId: set === null ? null : names.set({ line, set }) };
    if (there.has(keyOf(note))) return [];
    there.add(keyOf(note));
    return [note];
  });
}

/** What was found on pieces, by the batches that hold them. */
function lookedPieces(lines: readonly LookedLine[], names: Names): Map<BatchRow, NewInspection[]> {
  const byBatch = new Map<BatchRow, NewInspection[]>();
  for (const line of lines) {
    const { at, findings, outcome, note } = line;
    const { batch, designId, copy } = names.piece(line);
    byBatch.set(batch, [...(byBatch.get(batch) ?? []), { designId, copy, at, findings, outcome, note }]);
  }
  return byBatch;
}

const isThere = (
  { inspections = [] }: Batch,
  { designId, copy, at, findings, outcome, note }: NewInspection,
): boolean =>
  inspections.some(
    (one) =>
      one.designId === designId &&
      one.copy === copy &&
      one.at === at &&
      one.outcome === outcome &&
      one.note === note &&
      JSON.stringify(one.findings) === JSON.stringify(findings),
  );
