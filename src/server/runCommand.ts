import { outlineEdges } from '@/core/bed/outline';
import { checkReadings } from '@/core/bed/measured';
import { PRODUCT_KINDS } from '@/core/mixing/productKinds';
import { fingerprint } from '@/core/plan';
import { NOTHING } from '@/core/stock/lots';
import { batchNeeds } from '@/core/stock/needs';
import { itemOf, firstNumbers, numbersOf, remainingItems } from '@/core/records/copies';
import { withFate, withInspection } from '@/core/records/inspections';
import { setOfScope, setScope, type Command, type Scope } from '@/core/records/command';
import { pourStep } from '@/core/schedule/routes';
import { isOfBench, wholePours } from '@/core/records/rest';
import { isKnown, withMeasures } from '@/core/records/pieceMeasures';
import {
  pourId,
  type PourRecord,
  type RecordData,
  type RecordKind,
  type WaterSet,
  type Batch,
} from '@/core/records/recordSchemas';
import type { EditAnswer, KeptPlan } from '@/core/records/views';
import { countBatches, getBatch, keepPlan, lastCopyTaken, setOfBatch } from '@/db/batches';
import { HERON_SLACK_ID, heronSlackRequests, writeHeronSlack } from '@/db/demo/heronSlack';
import { missingFor, takeAlong, usersOf } from '@/db/dependents';
import { getDocument, listDocuments } from '@/db/documents';
import { getLot, release, reserve } from '@/db/stock';
import { KIND_WORDS, type Database } from '@/db/storage';
import { edit, EditRefusedError, redo, StaleEditError, undo } from '@/db/journal';
import { STORAGE } from '@/db/records';
import { putInSet, setFileOf } from '@/db/setFile';
import { runOfBatch } from '@/db/runs';
import { answeredEdit, keepAnswered } from '@/db/answered';
import { editAnswer, type Done } from './changes';
import { wallClockNow } from './clock';
import { copiesNow } from './copies';
import { whenFree, withData } from './data';
import { amountsOf } from './figures';
import { FieldProblem } from './fieldProblem';
import { planToPour } from './planToPour';
import { logRunsOf } from './runs';
import { shelfView } from './views';
import type { Stored } from '@/core/model/stored';

const nameOf = (data: unknown): string =>
  typeof data === 'object' && data !== null && 'name' in data ? String(data.name) : '';

/**
 * Carries out one edit for a screen. All is checked before anything is written, and the edit and its answer are one transaction:
 * what is refused is not written. An edit whose key was seen before is not made again, its answer is given again. Throws what the
 * edit route answers to.
 */
export async function runCommand(command: Command, scope: Scope, key: string | null = null): Promise<EditAnswer> {
  const now = wallClockNow();
  const of = fingerprint(JSON.stringify(command));
  const again = key === null ? null : withData((db) => answeredEdit(db, key));
  // What has to be worked out is worked out first: writing is one short transaction.
  const work = again ? null : await prepared(command, scope, now);
  return whenFree((db) =>
    db.transaction(
      () => {
        checkWanted(db, scope, command);
        const known = key === null ? null : answeredEdit(db, key);
        if (known?.of !== undefined && known.of !== of)
          throw new EditRefusedError('in use', 'This key was used for another edit. Nothing was written.');
        const done = known ?? withRuns(db, command, work!(db), now);
        if (key !== null && !known)
          keepAnswered(db, key, { of, id: done.id, touched: done.touched, note: done.note ?? null });
        return editAnswer(db, scope, done);
      },
      { behavior: 'immediate' },
    ),
  );
}

/** A batch that comes back is told what was poured of it meanwhile; of one that goes it is said that a run is on. */
function withRuns(db: Database, command: Command, done: Done, now: string): Done {
  const batches = done.touched.filter(({ kind }) => kind === 'batch').map(({ id }) => id);
  const names = batches.flatMap((id) => (getBatch(db, id) ? [] : (runOfBatch(db, id)?.name ?? [])));
  if (command.do === 'undo' || command.do === 'redo')
    for (const id of batches) if (getBatch(db, id)) logRunsOf(db, id, now);
  if (names.length === 0) return done;
  const words = `A run of ${names.join(', ')} is on. It goes on, and what it takes still leaves the bottles.`;
  return { ...done, note: [done.note, words].filter(Boolean).join(' ') };
}

/** The screen that asks must be there, and for undo the set whose journal is meant. */
function checkWanted(db: Database, scope: Scope, command: Command): void {
  for (const one of command.do === 'undo' || command.do === 'redo' ? [scope, command.scope] : [scope]) {
    const setId = setOfScope(one);
    if (setId !== null) mustBeThere(db, setId);
  }
}

type Work = (db: Database) => Done;

async function prepared(command: Command, scope: Scope, now: string): Promise<Work> {
  switch (command.do) {
    case 'undo':
    case 'redo':
      return (db) => ({ id: null, ...(command.do === 'undo' ? undo : redo)(db, command.scope, now, command.edit) });
    case 'sample':
      return loadSample(now);
    case 'put':
      return (db) => putRecord(db, command, now);
    case 'add':
      return (db) => addRecord(db, command, now);
    case 'take in':
      return (db) => takeInLots(db, command.lots, now);
    case 'reserve':
      return reserveForBatch(command, now);
    case 'plan':
      return (db) => planBatch(db, command, now);
    case 'course':
      return (db) => writeCourses(db, command, scope, now);
    case 'fate':
      return (db) => writeFates(db, command, now);
    case 'inspect':
      return (db) => writeInspections(db, command, now);
    case 'duplicate':
      return (db) => duplicateSet(db, command, now);
    case 'stock':
      return (db) => stockKinds(db, command.productIds, now);
    case 'remove':
      return (db) => removeRecord(db, command.kind, command.id, command.version, now);
    case 'measure':
      return (db) => measurePieces(db, command, now);
    case 'give':
      return (db) => giveStandards(db, command, now);
    case 'pour':
      return recordPour(command, now);
  }
}

/** The sample is planned in threads before it is written. */
async function loadSample(now: string): Promise<Work> {
  const requests = withData((db) => {
    if (getDocument(db, 'set', HERON_SLACK_ID))
      throw new EditRefusedError('in use', 'The sample Heron Slack is already here.');
    return heronSlackRequests(shelfView(), now);
  });
  const plans = new Map(
    await Promise.all(
      [...requests].map(async ([id, request]) => [id, { request, amounts: await amountsOf(request) }] as const),
    ),
  );
  return (db) => ({
    id: HERON_SLACK_ID,
    touched: edit(db, 'sets', 'Load the sample Heron Slack', now, (writer) => writeHeronSlack(writer, now, plans)),
  });
}

function putRecord(
  db: Database,
  { kind, id, version, data, label }: Extract<Command, { do: 'put' }>,
  now: string,
): Done {
  checkReferences(db, kind, data);
  const words = label ?? `Change ${nameOf(data) || KIND_WORDS[kind]}`;
  const touched = edit(db, scopeOf(db, kind, id), words, now, (writer) =>
    writer.put(kind, id, data as RecordData<typeof kind>, version),
  );
  return { id, touched };
}

/** Which journal an edit belongs to. */
function scopeOf(db: Database, kind: RecordKind, id: string): Scope {
  if (kind === 'set') return setScope(id);
  if (kind !== 'design' && kind !== 'piece' && kind !== 'batch') return 'shelf';
  const setId = STORAGE[kind].image(db, id)?.setId;
  if (!setId)
    throw new EditRefusedError(
      'missing',
      `This ${KIND_WORDS[kind]} is no longer there; it may have been removed in another window.`,
    );
  return setScope(setId);
}

/** Names inside a record that must exist; the keys in columns are guarded by the database as well. */
function checkReferences(db: Database, kind: RecordKind, data: unknown): void {
  const [missing] = missingFor(db, kind, data);
  if (missing)
    throw new FieldProblem(
      missing.path,
      `This ${KIND_WORDS[missing.kind]} is no longer ${missing.kind === 'design' ? 'there' : 'on the shelf'}.`,
    );
  if (kind === 'recipe') checkOwnDoses(data as RecordData<'recipe'>);
  if (kind !== 'piece') return;
  const { designId, measured } = data as RecordData<'piece'>;
  const wrong = checkReadings(measured.readings, getDocument(db, 'design', designId)!.data.outline)[0];
  if (wrong) throw new FieldProblem(['measured', 'readings', wrong.index], wrong.message);
}

/** A pour may have more or less of a colourant than the recipe, not one that the recipe does not hold. */
function checkOwnDoses({ doses, pours = [] }: RecordData<'recipe'>): void {
  const held = new Set(doses.map(({ colourantId }) => colourantId));
  pours.forEach(({ own = {} }, i) => {
    const other = Object.keys(own).find((id) => !held.has(id));
    if (other !== undefined) throw new FieldProblem(['pours', i, 'own', other], 'The recipe holds no such colourant.');
  });
}

function mustBeThere(db: Database, setId: string): Stored<WaterSet> {
  const set = getDocument(db, 'set', setId);
  if (!set)
    throw new EditRefusedError('missing', 'This set is no longer there; it may have been removed in another window.');
  return set;
}

/** A lot cannot give more than it holds. */
function checkMovement(db: Database, { lotId, part, amount }: RecordData<'movement'>): void {
  const lot = getLot(db, lotId);
  if (!lot) throw new FieldProblem(['lotId'], 'This lot is no longer there.');
  const held = lot.left.find((one) => one.part === part);
  if (!held) throw new FieldProblem(['part'], `${lot.data.name} has no such part.`);
  if (held.amount + amount < -NOTHING)
    throw new FieldProblem(
      ['amount'],
      `${lot.data.name} holds ${held.amount.toFixed(1)}; ${(-amount).toFixed(1)} cannot leave it. Say first what is really left.`,
    );
}

function addRecord(db: Database, command: Extract<Command, { do: 'add' }>, now: string): Done {
  const id = crypto.randomUUID();
  if (command.kind === 'movement') checkMovement(db, command.data);
  const setId = 'setId' in command ? command.setId : undefined;
  if (setId !== undefined) mustBeThere(db, setId);
  checkReferences(db, command.kind, command.data);
  const scope: Scope = command.kind === 'set' ? 'sets' : setId ? setScope(setId) : 'shelf';
  const touched = edit(db, scope, command.label ?? `Add ${nameOf(command.data)}`, now, (writer) =>
    writer.add(command.kind, id, command.data as RecordData<typeof command.kind>, setId),
  );
  return { id, touched };
}

/** Courses of batches, of several sets maybe: one edit of the screen that asks, taken back together. */
function writeCourses(
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

function duplicateSet(db: Database, { setId, measured }: Extract<Command, { do: 'duplicate' }>, now: string): Done {
  const file = setFileOf(db, setId);
  const { putAway: _, ...data } = file.set.data;
  const name = `${data.name.slice(0, 54)} copy`;
  const set = { ...file.set, data: { ...data, name, job: null } };
  const label = `Duplicate ${data.name}`.slice(0, 80);
  return putInSet(db, { ...file, set, pieces: measured ? file.pieces : [], batches: [] }, now, { label });
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

const writeFates = (db: Database, command: Extract<Command, { do: 'fate' }>, now: string): Done =>
  writeOfCopies(db, command, 'Say what became of copies', now, (data, own) => withFate(data, own, command.fate));

const writeInspections = (db: Database, command: Extract<Command, { do: 'inspect' }>, now: string): Done =>
  writeOfCopies(db, command, 'Look copies over', now, (data, own) => withInspection(data, own, command.inspection));

/** A new batch of what no batch has taken yet, or like one that is there, to be poured in the next hour. */
function planBatch(db: Database, { setId, like }: Extract<Command, { do: 'plan' }>, now: string): Done {
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
  const { moves: _, course: __, fates: ___, inspections: ____, ...data } = batch;
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

/** Lots out of a file; what was left in them by then is a movement. */
function takeInLots(db: Database, lots: Extract<Command, { do: 'take in' }>['lots'], now: string): Done {
  lots.forEach(({ lot }, i) => {
    const [missing] = missingFor(db, 'lot', lot);
    if (missing) throw new FieldProblem(['lots', i, 'lot', ...missing.path], 'This is no longer on the shelf.');
  });
  const touched = edit(db, 'shelf', `Take in ${lots.length} lots`, now, (writer) => {
    for (const { lot, left } of lots) {
      const id = crypto.randomUUID();
      writer.add('lot', id, lot);
      for (const { part, amount } of left) {
        const held = lot.bought.find((one) => one.part === part)?.amount ?? 0;
        const data = {
          lotId: id,
          part,
          amount: amount - held,
          kind: 'corrected' as const,
          at: now,
          note: 'as taken in',
        };
        if (amount !== held) writer.add('movement', crypto.randomUUID(), data);
      }
    }
  });
  return { id: null, touched };
}

/** Reserves what a batch needs as it is planned now, or gives it back. */
async function reserveForBatch({ batchId, wanted }: Extract<Command, { do: 'reserve' }>, now: string): Promise<Work> {
  const { setId, row, amounts } = await planToPour(batchId);
  const consumables = withData((db) => listDocuments(db, 'consumable').records);
  const needs = batchNeeds(amounts.request, amounts.amounts, consumables);
  return (db) => {
    const { name } = row.data;
    if (wanted)
      reserve(
        db,
        batchId,
        needs.map(({ item, part, likely }) => ({ item, part, amount: likely })),
        name,
        now,
      );
    else release(db, batchId, name, now);
    return { id: batchId, touched: [{ kind: 'batch', id: batchId, setId }] };
  };
}

/** Puts kinds that ship and are not there on the shelf, under their own ids. */
function stockKinds(db: Database, ids: readonly string[], now: string): Done {
  const kinds = PRODUCT_KINDS.filter(({ id }) => ids.includes(id) && !getDocument(db, 'product', id));
  if (kinds.length === 0) throw new EditRefusedError('nothing', 'These are on the shelf already.');
  const touched = edit(
    db,
    'shelf',
    `Put ${kinds.map(({ name }) => name).join(', ')} on the shelf`.slice(0, 80),
    now,
    (writer) => {
      for (const { id, ...product } of kinds) writer.add('product', id, product);
    },
  );
  return { id: kinds[0]!.id, touched };
}

function removeRecord(
  db: Database,
  kind: Extract<Command, { do: 'remove' }>['kind'],
  id: string,
  version: number,
  now: string,
): Done {
  const users = usersOf(db, kind, id);
  if (users.length > 0)
    throw new EditRefusedError('in use', `Still used by ${users.join(', ')}. Choose another there first.`);
  const scope: Scope = kind === 'set' ? 'sets' : scopeOf(db, kind, id);
  const name = nameOf(STORAGE[kind].image(db, id)?.data);
  const touched = edit(db, scope, `Remove ${name || KIND_WORDS[kind]}`, now, (writer) => {
    takeAlong(writer, db, kind, id);
    writer.remove(kind, id, version);
  });
  return { id: null, touched };
}

/** Enters what was measured on copies of a set, all or nothing; a copy of which nothing is known any more is dropped. */
function measurePieces(db: Database, { setId, pieces, label }: Extract<Command, { do: 'measure' }>, now: string): Done {
  const set = mustBeThere(db, setId);
  const designs = listDocuments(db, 'design', setId).records;
  const known = listDocuments(db, 'piece', setId).records;
  const touched = edit(db, setScope(setId), label ?? 'Measure pieces', now, (writer) => {
    pieces.forEach(({ designId, copy, version, edges, shimsMm }, i) => {
      const design = designs.find(({ id }) => id === designId);
      if (!design) throw new FieldProblem(['pieces', i, 'designId'], 'This design is no longer there.');
      if (copy > design.data.copies)
        throw new FieldProblem(
          ['pieces', i, 'copy'],
          `${design.data.tag} has ${design.data.copies} copies; there is no #${copy}.`,
        );
      const wrong = Object.keys(edges ?? {}).find(
        (edge) => !(outlineEdges(design.data.outline) as readonly string[]).includes(edge),
      );
      if (wrong) throw new FieldProblem(['pieces', i, 'edges', wrong], `${design.data.tag} has no ${wrong} edge.`);
      const old = known.find((piece) => piece.data.designId === designId && piece.data.copy === copy);
      const next = withMeasures(
        old?.data ?? { designId, copy, measured: { atLevelMm: set.data.levelMm, readings: [], fillMl: null } },
        edges,
        shimsMm,
      );
      if ((old?.version ?? null) !== version && old)
        throw new StaleEditError(
          'piece',
          old.id,
          `${design.data.tag} #${copy} was measured in another window since you opened it. Nothing was overwritten.`,
        );
      if (!old) writer.add('piece', crypto.randomUUID(), next, setId);
      else if (isKnown(next)) writer.put('piece', old.id, next, version);
      else writer.remove('piece', old.id, version);
    });
  });
  return { id: setId, touched };
}

/** Gives edges of a set's designs a standard, or takes it from them. */
function giveStandards(db: Database, { setId, edges, label }: Extract<Command, { do: 'give' }>, now: string): Done {
  const standards = mustBeThere(db, setId).data.standards ?? [];
  edges.forEach(({ standardId }, i) => {
    if (standardId !== null && !standards.some(({ id }) => id === standardId))
      throw new FieldProblem(['edges', i, 'standardId'], 'This edge standard is no longer there.');
  });
  const designs = listDocuments(db, 'design', setId).records;
  const touched = edit(db, setScope(setId), label ?? 'Give edges a standard', now, (writer) => {
    for (const designId of new Set(edges.map((edge) => edge.designId))) {
      const design = designs.find(({ id }) => id === designId)?.data;
      if (!design) throw new FieldProblem(['edges'], 'One of these designs is no longer there.');
      const own = edges.filter((edge) => edge.designId === designId);
      const [{ version }] = own as [(typeof own)[0]];
      const kept = Object.entries(design.edgeStandards ?? {}).filter(
        ([name]) => !own.some(({ edge }) => edge === name),
      );
      const given = own.flatMap(({ edge, standardId }) => (standardId === null ? [] : [[edge, standardId] as const]));
      writer.put('design', designId, { ...design, edgeStandards: Object.fromEntries([...kept, ...given]) }, version);
    }
  });
  return { id: setId, touched };
}

/**
 * Enters a layer as it was really poured; with the first one the plan is kept as it stands. A layer entered again is a further
 * entry, and so is saying that it was not poured after all.
 */
async function recordPour(
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
