import type { SetFile } from '@/core/formats/setFile';
import { isPlainId, withNewIds } from '@/core/formats/setFile';
import { referencesIn, type Thing } from '@/core/model/reference';
import { RECORD_SCHEMAS, type RecordKind } from '@/core/records/recordSchemas';
import { listBatches } from './batches';
import { keepPlan } from './keptPlans';
import { appendEntry, benchWorkOf } from './pours';
import { BackupError } from './backupError';
import type { Database, EditWriter } from './storage';
import { getDocument, listDocuments } from './documents';
import { edit, EditRefusedError, type Touched } from './journal';
import { STORAGE } from './records';

const MOST_BATCHES = 100_000;
const bare = <T>({ id, data }: { id: string; data: T }): { id: string; data: T } => ({ id, data });

/** A set as its file: all that is in it, and what it and its recipe use of the shelf. Throws when there is none of this id. */
export function setFileOf(db: Database, setId: string): SetFile {
  const set = getDocument(db, 'set', setId);
  if (!set) throw new EditRefusedError('missing', 'This set is no longer there.');
  const recipe = getDocument(db, 'recipe', set.data.recipeId);
  const own = new Set(listDocuments(db, 'design', setId).records.map(({ id }) => id));
  const named = (to: Thing): Set<string> =>
    new Set(
      [
        ...referencesIn(RECORD_SCHEMAS.set, set.data),
        ...(recipe ? referencesIn(RECORD_SCHEMAS.recipe, recipe.data) : []),
      ].flatMap((one) => (one.to === to ? [one.id] : [])),
    );
  const colourantIds = named('colourant');
  return {
    format: 'aguada.set',
    version: 1,
    set: bare(set),
    designs: listDocuments(db, 'design', setId).records.map(bare),
    pieces: listDocuments(db, 'piece', setId).records.map(bare),
    notes: listDocuments(db, 'note')
      .records.filter(({ data }) => data.setId === setId)
      .map(bare),
    // Oldest first: in this order they are put in again.
    batches: listBatches(db, setId, MOST_BATCHES)
      .toReversed()
      // Pieces of other sets do not go along: what was poured of them stands in the plan that was kept.
      .map(({ id, data }) => ({
        id,
        data: { ...data, items: data.items.filter(({ designId }) => own.has(designId)) },
        bench: benchWorkOf(db, id) ?? null,
      })),
    shelf: {
      products: [...named('product')].flatMap((id) => {
        const product = getDocument(db, 'product', id);
        return product ? [bare(product)] : [];
      }),
      recipes: recipe ? [bare(recipe)] : [],
      colourants: listDocuments(db, 'colourant')
        .records.filter(({ id }) => colourantIds.has(id))
        .map(bare),
    },
  };
}

const SHELF = [
  ['product', 'products'],
  ['colourant', 'colourants'],
  ['recipe', 'recipes'],
] as const;

/**
 * Puts a handed-on set in beside what is there, as one edit. Ids that are taken are renewed; what lies on the shelf already, and is
 * the same, is used; what is there under the same id and is another gets an id of its own. Returns the id of the set.
 */
export function putInSet(
  db: Database,
  file: SetFile,
  now: string,
  {
    newId = () => crypto.randomUUID(),
    label = `Take in ${file.set.data.name}`.slice(0, 80),
  }: { newId?: () => string; label?: string } = {},
): { id: string; touched: Touched[] } {
  refuseTwins(file);
  const { renew, onShelf } = idsFor(db, file, newId);
  const renewed = withNewIds({ ...file, notes: file.notes.map((note) => ({ ...note, id: renew(note.id) })) }, renew);
  const touched = edit(db, 'sets', label, now, (writer) => {
    for (const [kind, part] of SHELF)
      renewed.shelf[part].forEach(({ id, data }, i) => {
        if (!onShelf.has(`${kind} ${file.shelf[part][i]!.id}`)) writer.add(kind, id, data);
      });
    writer.add('set', renewed.set.id, renewed.set.data);
    addAll(writer, renewed, now);
  });
  return { id: renewed.set.id, touched };
}

function addAll(writer: EditWriter, { set, designs, pieces, notes, batches }: SetFile, now: string): void {
  for (const { id, data } of designs) writer.add('design', id, data, set.id);
  for (const { id, data } of pieces) writer.add('piece', id, data, set.id);
  for (const { id, data } of notes) writer.add('note', id, data);
  for (const { id, data, bench } of batches) {
    writer.add('batch', id, data, set.id);
    if (bench?.kept) keepPlan(writer.db, id, bench.kept, now);
    for (const entry of bench?.kept ? bench.entries : []) appendEntry(writer.db, id, entry, entry);
  }
}

/** Two records of one id would become one. */
function refuseTwins({ designs, pieces, notes, batches, shelf }: SetFile): void {
  for (const [kind, records] of Object.entries({ designs, pieces, notes, batches, ...shelf })) {
    const twin = records.find(({ id }, i) => records.findIndex((other) => other.id === id) < i);
    if (twin) throw new BackupError(`This set cannot be taken in: two of its ${kind} are both called ${twin.id}.`);
  }
}

/** New ids for those that are taken or cannot stand in an address, and which things of the shelf are there already, as they are. */
function idsFor(
  db: Database,
  file: SetFile,
  newId: () => string,
): { renew: (id: string) => string; onShelf: ReadonlySet<string> } {
  const renewed = new Map<string, string>();
  const onShelf = new Set<string>();
  const imageOf = (kind: RecordKind, id: string): unknown => STORAGE[kind].image(db, id)?.data;
  const renewTaken = (kind: RecordKind, records: readonly { id: string }[]): void => {
    for (const { id } of records) if (!isPlainId(id) || imageOf(kind, id) !== undefined) renewed.set(id, newId());
  };
  renewTaken('set', [file.set]);
  renewTaken('design', file.designs);
  renewTaken('piece', file.pieces);
  renewTaken('batch', file.batches);
  renewTaken('note', file.notes);
  // Standards and tables have pages of their own.
  const { standards = [], tables = [] } = file.set.data;
  for (const { id } of [...standards, ...tables]) if (!isPlainId(id)) renewed.set(id, newId());
  // A recipe is only the same if what it names is: colourants come before recipes.
  for (const [kind, part] of SHELF)
    for (const { id, data } of file.shelf[part]) {
      const there = imageOf(kind, id);
      if (there === undefined) {
        if (!isPlainId(id)) renewed.set(id, newId());
        continue;
      }
      const mine = kind === 'recipe' ? withNewIdsIn(data, renewed) : data;
      if (sameData(there, mine)) onShelf.add(`${kind} ${id}`);
      else renewed.set(id, newId());
    }
  return { renew: (id) => renewed.get(id) ?? id, onShelf };
}

const withNewIdsIn = (data: unknown, renewed: ReadonlyMap<string, string>): unknown =>
  JSON.parse(
    JSON.stringify(data, (key, value: unknown) =>
      key === 'colourantId' && typeof value === 'string' ? (renewed.get(value) ?? value) : value,
    ),
  );

/** Whether two records say the same, in whatever order their fields stand. */
const sameData = (a: unknown, b: unknown): boolean => sortedText(a) === sortedText(b);
const sortedText = (value: unknown): string =>
  JSON.stringify(value, (_key, part: unknown) =>
    typeof part === 'object' && part !== null && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
      : part,
  );
