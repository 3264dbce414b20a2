import { checkReadings } from '@/core/bed/measured';
import { NOTHING } from '@/core/stock/lots';
import { setScope, type Command, type Scope } from '@/core/records/command';
import type { RecordData, RecordKind, WaterSet } from '@/core/records/recordSchemas';
import { missingFor, takeAlong, usersOf } from '@/db/dependents';
import { getDocument } from '@/db/documents';
import { getLot } from '@/db/stock';
import { KIND_WORDS, type Database } from '@/db/storage';
import { edit, EditRefusedError } from '@/db/journal';
import { STORAGE } from '@/db/records';
import { type Done } from '../changes';
import { FieldProblem } from '../fieldProblem';
import type { Stored } from '@/core/model/stored';

const nameOf = (data: unknown): string =>
  typeof data === 'object' && data !== null && 'name' in data ? String(data.name) : '';

/** Changes a record, of whatever kind; what it names must be there. */
export function putRecord(
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
export function scopeOf(db: Database, kind: RecordKind, id: string): Scope {
  if (kind === 'set') return setScope(id);
  if (kind === 'note') return 'log';
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

/** The set; refused when it is no longer there. */
export function mustBeThere(db: Database, setId: string): Stored<WaterSet> {
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

/** Adds a record under a new id, at the end of those of its kind. */
export function addRecord(db: Database, command: Extract<Command, { do: 'add' }>, now: string): Done {
  const id = crypto.randomUUID();
  if (command.kind === 'movement') checkMovement(db, command.data);
  const setId = 'setId' in command ? command.setId : undefined;
  if (setId !== undefined) mustBeThere(db, setId);
  checkReferences(db, command.kind, command.data);
  const scope: Scope = command.kind === 'set' ? 'sets' : setId ? setScope(setId) : scopeOf(db, command.kind, id);
  const touched = edit(
    db,
    scope,
    command.label ?? `Add ${nameOf(command.data) || KIND_WORDS[command.kind]}`,
    now,
    (writer) => writer.add(command.kind, id, command.data as RecordData<typeof command.kind>, setId),
  );
  return { id, touched };
}

/** Removes a record with what belongs to it; refused while others use it. */
export function removeRecord(
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
