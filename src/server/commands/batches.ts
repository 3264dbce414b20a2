import { itemOf, firstNumbers, numbersOf, remainingItems } from '@/core/records/copies';
import { withFate, withInspection } from '@/core/records/inspections';
import { withPhoto } from '@/core/records/photos';
import { setOfScope, setScope, type Command, type Scope } from '@/core/records/command';
import { pourStep } from '@/core/schedule/routes';
import { isOfBench, wholePours } from '@/core/records/rest';
import { pourId, type PourRecord, type Batch } from '@/core/records/recordSchemas';
import type { KeptPlan } from '@/core/records/views';
import { countBatches, getBatch, lastCopyTaken, setOfBatch } from '@/db/batches';
import { keepPlan } from '@/db/keptPlans';
import { hasPhoto } from '@/db/photos';
import { listDocuments } from '@/db/documents';
import { type Database } from '@/db/storage';
import { edit, EditRefusedError, StaleEditError } from '@/db/journal';
import { type Done, type Work } from '../changes';
import { copiesNow } from '../copies';
import { FieldProblem } from '../fieldProblem';
import { planToPour } from '../planToPour';
import { scopeOf, mustBeThere } from './records';

/** Courses of batches, of several sets maybe: one edit of the screen that asks, taken back together. */
export function writeCourses(
  db: Database,
  { batches, label }: Extract<Command, { do: 'course' }>,
  scope: Scope,
  now: string,
): Done {
  // From a desk: that of its set, so that it is taken back there; from elsewhere that of the first batch.
  const firstPour = pourStep(1);
  const home = setOfScope(scope) === null ? scopeOf(db, 'batch', batches[0]!.id) : scope;
  const touched = edit(db, home, label ?? 'Change the calendar', now, (writer) => {
    for (const { id, version, course } of batches) {
      const row = getBatch(db, id);
      if (!row)
        throw new EditRefusedError('missing', 'One of these batches is no longer there. Open the calendar anew.');
      // Cards, the log and the list of sets go by the first pour: with the calendar that is kept it is known.
      const pour = row.poured ? undefined : course.kept?.steps.find(({ step }) => step === firstPour);
      writer.put('batch', id, { ...row.data, ...(pour && { pourAt: pour.from }), course }, version);
    }
  });
  return { id: null, touched };
}

interface OfCopies {
  setId: string;
  label?: string | undefined;
  copies: readonly { designId: string; copy: number; batchId: string }[];
}

/** What is said of copies is kept in the batches that hold them, in the newest of their rows; a word on one copy touches no other. */
function writeOfCopies(
  db: Database,
  { setId, copies, label }: OfCopies,
  words: string,
  now: string,
  said: (data: Batch, own: { designId: string; copy: number }[]) => Batch,
): Done {
  const touched = edit(db, setScope(setId), label ?? words, now, (writer) => {
    for (const batchId of new Set(copies.map((copy) => copy.batchId))) {
      const row = getBatch(db, batchId);
      if (!row) throw new EditRefusedError('missing', 'The batch of this copy is no longer there.');
      const own = copies.filter((copy) => copy.batchId === batchId).map(({ designId, copy }) => ({ designId, copy }));
      own.forEach((piece, i) => {
        const item = row.data.items.find(({ designId }) => designId === piece.designId);
        if (!item || !numbersOf(item).includes(piece.copy))
          throw new FieldProblem(['copies', i], `${row.data.name} does not hold this copy.`);
      });
      if (!row.poured) throw new FieldProblem(['copies'], `${row.data.name} is not poured yet.`);
      writer.put('batch', batchId, said(row.data, own), row.version);
    }
  });
  return { id: setId, touched };
}

/** Says what became of copies: handed over, or spoilt. */
export const writeFates = (db: Database, command: Extract<Command, { do: 'fate' }>, now: string): Done =>
  writeOfCopies(db, command, 'Say what became of copies', now, (data, own) => withFate(data, own, command.fate));

/** Keeps what was seen when copies were looked over. */
export const writeInspections = (db: Database, command: Extract<Command, { do: 'inspect' }>, now: string): Done =>
  writeOfCopies(db, command, 'Look copies over', now, (data, own) => withInspection(data, own, command.inspection));

/** A photo of copies: its bytes came before. */
export function writePhoto(db: Database, command: Extract<Command, { do: 'photo' }>, now: string): Done {
  if (command.wanted && !hasPhoto(db, command.photo.photo))
    throw new FieldProblem(['photo', 'photo'], 'This photo did not arrive. Take it in once more.');
  return writeOfCopies(db, command, command.wanted ? 'Put a photo in' : 'Take a photo away', now, (data, own) =>
    withPhoto(data, own, command.photo, command.wanted),
  );
}

/** A new batch of what no batch has taken yet, or like one that is there, to be poured in the next hour. */
export function planBatch(db: Database, { setId, like }: Extract<Command, { do: 'plan' }>, now: string): Done {
  mustBeThere(db, setId);
  const id = crypto.randomUUID();
  const before = like === undefined ? null : batchOfSet(db, setId, like);
  const batch: Batch = before
    ? { ...before, name: nextName(before.name), items: before.items.map((item) => numberedOn(db, item)), pourAt: now }
    : {
        name: `Batch ${countBatches(db, setId) + 1}`,
        items: remainingItems(listDocuments(db, 'design', setId).records, copiesNow(db, setId)),
        pourAt: now,
        benchWindows: null,
      };
  const { moves: _, course: __, fates: ___, inspections: ____, photos: _____, ...data } = batch;
  const label = before ? `Plan another like ${before.name}`.slice(0, 80) : 'Plan a batch';
  const touched = edit(db, setScope(setId), label, now, (writer) => writer.add('batch', id, data, setId));
  return { id, touched };
}

function batchOfSet(db: Database, setId: string, batchId: string): Batch {
  const row = setOfBatch(db, batchId) === setId ? getBatch(db, batchId) : null;
  if (!row) throw new EditRefusedError('missing', 'This batch is no longer there.');
  return row.data;
}

const numberedOn = (db: Database, { designId, copies }: Batch['items'][number]): Batch['items'][number] =>
  itemOf(designId, firstNumbers(copies, lastCopyTaken(db, designId) + 1));

/** `Creek tiles` is followed by `Creek tiles 2`, that by `Creek tiles 3`. */
function nextName(name: string): string {
  const [, words = name, number] = /^(.*?)(?: (\d+))?$/.exec(name) ?? [];
  return `${words.slice(0, 54)} ${number ? Number(number) + 1 : 2}`;
}

/**
 * Enters a layer as it was really poured; with the first one the plan is kept as it stands. A layer entered again is a further
 * entry, and so is saying that it was not poured after all.
 */
export async function recordPour(
  { batchId, version, layer, pour }: Extract<Command, { do: 'pour' }>,
  now: string,
): Promise<Work> {
  const { setId, row, kept, amounts, poured } = await planToPour(batchId);
  const id = pourId(batchId, layer);
  const was = poured.some((other) => other.layer === layer);
  if (pour) checkPour(pour, layer, amounts, wholePours(amounts.amounts, poured), kept === null);
  else if (poured.some((other) => other.layer > layer))
    throw new FieldProblem(['layer'], `Layer ${layer + 1} was poured on it. Take that one back first.`);
  const label = pour
    ? `${was ? 'Correct' : 'Pour'} layer ${layer} of ${row.data.name}`
    : `Strike layer ${layer} of ${row.data.name}`;
  return (db) => {
    const touched = edit(db, setScope(setId), label, now, (writer) => {
      if (getBatch(db, batchId)?.version !== version)
        throw new StaleEditError(
          'batch',
          batchId,
          'This batch was changed in another window since you opened it. Nothing was overwritten.',
        );
      if (!pour) return writer.remove('pour', id, null);
      if (kept === null) keepPlan(db, batchId, amounts, now);
      if (was) writer.put('pour', id, { ...pour, batchId }, null);
      else writer.add('pour', id, { ...pour, batchId }, setId);
    });
    return { id: batchId, touched };
  };
}

function checkPour(
  pour: PourRecord,
  layer: number,
  { request, amounts }: KeptPlan,
  whole: readonly PourRecord[],
  first: boolean,
): void {
  const planned = amounts.layers[layer - 1];
  if (!planned || pour.layer !== layer)
    throw new FieldProblem(['layer'], `The plan has ${amounts.layers.length} layers; there is no layer ${layer}.`);
  const stop = amounts.problems.find(({ severity }) => severity === 'stop');
  if (stop && first) throw new FieldProblem(['layer'], stop.message);
  const inRecipe = new Set([
    ...request.recipe.doses.map((dose) => dose.colourant.id),
    ...Object.keys(planned.own ?? {}),
  ]);
  pour.cups.forEach(({ doses = [] }, i) => {
    const at = doses.findIndex((dose) => !inRecipe.has(dose.id));
    if (at >= 0)
      throw new FieldProblem(
        ['pour', 'cups', i, 'doses', at, 'id'],
        'The recipe of this layer holds no such colourant.',
      );
  });
  // A run at the bench says itself which mixes there were.
  if (
    !isOfBench(pour) &&
    pour.cups.map(({ number }) => number).join() !== planned.cups.map(({ number }) => number).join()
  )
    throw new FieldProblem(
      ['cups'],
      `Layer ${layer} has ${planned.cups.length} cups; enter what was weighed for each.`,
    );
  const next = amounts.layers.find(({ number }) => !whole.some((other) => other.layer === number));
  if (next && layer > next.number) throw new FieldProblem(['layer'], `Pour layer ${next.number} first.`);
}
