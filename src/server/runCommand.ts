import { checkReadings } from '@/core/bed/measured';
import { setScope, type Command, type Scope } from '@/core/records/command';
import { outlineEdges } from '@/core/bed/outline';
import { batchRequest } from '@/core/records/buildRequest';
import { isKnown, withMeasures } from '@/core/records/pieceMeasures';
import type { Batch, RecordData, RecordKind } from '@/core/records/schema';
import type { DeskView } from '@/core/records/views';
import { HERON_SLACK_ID, writeHeronSlack } from '@/db/demo/heronSlack';
import type { Database } from '@/db/dataFile';
import { edit, EditRefusedError, redo, undo, type EditWriter } from '@/db/journal';
import { getRecord, getRow, listRecords } from '@/db/records';
import { wallClockNow } from './clock';
import { withData } from './data';
import { serverPlan } from './plans';
import { deskView } from './views';

/** Input that is well formed but cannot be: the field it concerns and what to do. */
export class FieldProblem extends Error {
  constructor(
    readonly path: readonly (string | number)[],
    message: string,
  ) {
    super(message);
    this.name = 'FieldProblem';
  }
}

const NAMES: Record<RecordKind, string> = {
  settings: 'the workshop',
  product: 'product',
  colourant: 'colourant',
  recipe: 'recipe',
  set: 'set',
  design: 'design',
  piece: 'piece',
  batch: 'batch',
};
const nameOf = (data: unknown): string =>
  typeof data === 'object' && data !== null && 'name' in data ? String(data.name) : '';

/** Carries out one edit. Returns the id of what was added, if anything was. Throws what the edit door answers to. */
export function runCommand(command: Command): { id: string | null } {
  const now = wallClockNow();
  return withData((db) => {
    switch (command.do) {
      case 'undo':
        undo(db, command.scope, now);
        return { id: null };
      case 'redo':
        redo(db, command.scope, now);
        return { id: null };
      case 'sample':
        if (getRow(db, 'set', HERON_SLACK_ID))
          throw new EditRefusedError('in use', 'The sample Heron Slack is already here.');
        edit(db, 'sets', 'Load the sample Heron Slack', now, (writer) => writeHeronSlack(writer, now));
        return { id: HERON_SLACK_ID };
      case 'put':
        checkReferences(db, command.kind, command.data);
        edit(
          db,
          scopeOf(db, command.kind, command.id),
          command.label ?? `Change ${nameOf(command.data) || NAMES[command.kind]}`,
          now,
          (writer) =>
            writer.put(command.kind, command.id, command.data as RecordData<typeof command.kind>, command.version),
        );
        return { id: command.id };
      case 'add':
        return { id: addRecord(db, command, now) };
      case 'remove':
        removeRecord(db, command.kind, command.id, command.version, now);
        return { id: null };
      case 'measure':
        measurePieces(db, command, now);
        return { id: command.setId };
      case 'pour':
        recordPour(db, command, now);
        return { id: command.batchId };
    }
  });
}

/** Which journal an edit belongs to. */
function scopeOf(db: Database, kind: RecordKind, id: string): Scope {
  if (kind === 'set') return setScope(id);
  if (kind !== 'design' && kind !== 'piece' && kind !== 'batch') return 'shelf';
  const setId = getRow(db, kind, id)?.setId;
  if (!setId)
    throw new EditRefusedError(
      'missing',
      `This ${NAMES[kind]} is no longer there; it may have been removed in another window.`,
    );
  return setScope(setId);
}

/** Names inside a record that must exist; the keys in columns are guarded by the database as well. */
function checkReferences(db: Database, kind: RecordKind, data: unknown): void {
  if (kind === 'recipe') {
    (data as RecordData<'recipe'>).doses.forEach(({ colourantId }, i) => {
      if (!getRow(db, 'colourant', colourantId))
        throw new FieldProblem(['doses', i, 'colourantId'], 'This colourant is no longer on the shelf.');
    });
  }
  if (kind === 'piece') {
    const { designId, measured } = data as RecordData<'piece'>;
    const design = getRecord(db, 'design', designId);
    if (!design) throw new FieldProblem(['designId'], 'This design is no longer there.');
    const wrong = checkReadings(measured.readings, design.data.outline)[0];
    if (wrong) throw new FieldProblem(['measured', 'readings', wrong.index], wrong.message);
  }
  if (kind === 'set') {
    const { productId, recipeId } = data as RecordData<'set'>;
    if (!getRow(db, 'product', productId))
      throw new FieldProblem(['productId'], 'This product is no longer on the shelf.');
    if (!getRow(db, 'recipe', recipeId)) throw new FieldProblem(['recipeId'], 'This recipe is no longer on the shelf.');
  }
}

function addRecord(db: Database, command: Extract<Command, { do: 'add' }>, now: string): string {
  const id = crypto.randomUUID();
  const setId = 'setId' in command ? command.setId : undefined;
  if (setId !== undefined && !getRow(db, 'set', setId))
    throw new EditRefusedError('missing', 'This set is no longer there; it may have been removed in another window.');
  checkReferences(db, command.kind, command.data);
  const scope: Scope = command.kind === 'set' ? 'sets' : setId ? setScope(setId) : 'shelf';
  edit(db, scope, command.label ?? `Add ${nameOf(command.data)}`, now, (writer) =>
    writer.add(command.kind, id, command.data as RecordData<typeof command.kind>, setId),
  );
  return id;
}

function removeRecord(
  db: Database,
  kind: Exclude<RecordKind, 'settings'>,
  id: string,
  version: number,
  now: string,
): void {
  const users = usersOf(db, kind, id);
  if (users.length > 0)
    throw new EditRefusedError('in use', `Still used by ${users.join(', ')}. Choose another there first.`);
  const scope: Scope = kind === 'set' ? 'sets' : scopeOf(db, kind, id);
  const name = nameOf(getRow(db, kind, id)?.data);
  edit(db, scope, `Remove ${name || NAMES[kind]}`, now, (writer) => {
    if (kind === 'set')
      for (const part of ['batch', 'piece', 'design'] as const)
        for (const record of listRecords(writer.db, part, id)) writer.remove(part, record.id, null);
    if (kind === 'design') {
      dropFromBatches(writer, id);
      dropPieces(writer, id);
    }
    writer.remove(kind, id, version);
  });
}

/** A design leaves the batches that are still to be poured; poured ones keep their own copy of the plan. */
function dropFromBatches(writer: EditWriter, designId: string): void {
  const setId = getRow(writer.db, 'design', designId)?.setId;
  for (const batch of setId ? listRecords(writer.db, 'batch', setId) : []) {
    if (batch.data.planned || !batch.data.items.some((item) => item.designId === designId)) continue;
    writer.put(
      'batch',
      batch.id,
      { ...batch.data, items: batch.data.items.filter((item) => item.designId !== designId) },
      null,
    );
  }
}

/** The measured copies of a design go with it. */
function dropPieces(writer: EditWriter, designId: string): void {
  const setId = getRow(writer.db, 'design', designId)?.setId;
  for (const piece of setId ? listRecords(writer.db, 'piece', setId) : [])
    if (piece.data.designId === designId) writer.remove('piece', piece.id, null);
}

function usersOf(db: Database, kind: RecordKind, id: string): string[] {
  if (kind === 'colourant')
    return listRecords(db, 'recipe')
      .filter(({ data }) => data.doses.some(({ colourantId }) => colourantId === id))
      .map(({ data }) => data.name);
  if (kind !== 'product' && kind !== 'recipe') return [];
  const key = kind === 'product' ? 'productId' : 'recipeId';
  return listRecords(db, 'set')
    .filter(({ data }) => data[key] === id)
    .map(({ data }) => data.name);
}

/** Enters what was measured on copies of a set, all or nothing; a copy of which nothing is known any more is dropped. */
function measurePieces(db: Database, { setId, pieces, label }: Extract<Command, { do: 'measure' }>, now: string): void {
  const set = getRecord(db, 'set', setId);
  if (!set)
    throw new EditRefusedError('missing', 'This set is no longer there; it may have been removed in another window.');
  const [designs, known] = [listRecords(db, 'design', setId), listRecords(db, 'piece', setId)];
  edit(db, setScope(setId), label ?? 'Measure pieces', now, (writer) => {
    pieces.forEach(({ designId, copy, edges, shimsMm }, i) => {
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
      if (!old) writer.add('piece', crypto.randomUUID(), next, setId);
      else if (isKnown(next)) writer.put('piece', old.id, next, null);
      else writer.remove('piece', old.id, null);
    });
  });
}

/** Enters a layer as it was really poured; the first one keeps the plan's request as it stood. */
function recordPour(db: Database, { batchId, version, pour }: Extract<Command, { do: 'pour' }>, now: string): void {
  const batch = getRecord(db, 'batch', batchId);
  const desk = batch && deskView(getRow(db, 'batch', batchId)?.setId ?? '');
  if (!batch || !desk)
    throw new EditRefusedError('missing', 'This batch is no longer there; it may have been removed in another window.');
  const data = withPour(desk, batch.data, pour);
  edit(db, setScope(desk.set.id), `Pour layer ${pour.layer} of ${batch.data.name}`, now, (writer) =>
    writer.put('batch', batchId, data, version),
  );
}

function withPour(desk: DeskView, batch: Batch, pour: Batch['pours'][number]): Batch {
  const request = batchRequest(desk, batch);
  const plan = request && serverPlan(request);
  if (!request || !plan) throw new FieldProblem(['layer'], 'There is nothing to pour in this batch yet.');
  const layer = plan.layers[pour.layer - 1];
  if (!layer)
    throw new FieldProblem(['layer'], `The plan has ${plan.layers.length} layers; there is no layer ${pour.layer}.`);
  const stop = plan.problems.find(({ severity }) => severity === 'stop');
  if (stop && !batch.planned) throw new FieldProblem(['layer'], stop.message);
  const expected = layer.cups.map(({ number }) => number).join();
  if (pour.cups.map(({ number }) => number).join() !== expected)
    throw new FieldProblem(
      ['cups'],
      `Layer ${pour.layer} has ${layer.cups.length} cups; enter what was weighed for each.`,
    );
  if (pour.layer > batch.pours.length + 1)
    throw new FieldProblem(['layer'], `Pour layer ${batch.pours.length + 1} first.`);
  const pours = [...batch.pours.filter((other) => other.layer !== pour.layer), pour].sort((a, b) => a.layer - b.layer);
  return { ...batch, pours, planned: batch.planned ?? { ...request, poured: [] } };
}
