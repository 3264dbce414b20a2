import { mapReferences, namesIn, referencesIn } from '@/core/model/reference';
import { RECORD_SCHEMAS, type RecordData, type RecordKind } from '@/core/records/recordSchemas';
import type { StockItem } from '@/core/model/stockSchema';
import { batchesWith, getBatch, listBatches } from './batches';
import { getDocument, listDocuments } from './documents';
import type { Connection, EditWriter } from './storage';
import { STORAGE } from './records';
import { lotsOf } from './stock';

/*
 * Who depends on whom follows from the schemas: each field that names a thing says there what becomes of its record when that goes.
 */

/** Takes along what cannot stand without a record that is about to go: the parts of a set, what goes with a design. */
export function takeAlong(writer: EditWriter, db: Connection, kind: RecordKind, id: string): void {
  if (kind === 'set') {
    for (const { id: batch } of listBatches(db, id, 100_000)) writer.remove('batch', batch, null);
    for (const part of ['piece', 'design'] as const)
      for (const record of listDocuments(db, part, id).records) writer.remove(part, record.id, null);
  }
  if (kind !== 'design') return;
  for (const batch of batchesWith(db, id)) {
    const data = getBatch(db, batch)!.data;
    writer.put(
      'batch',
      batch,
      mapReferences(RECORD_SCHEMAS.batch, data, (named, { to, whenGone }) =>
        to === kind && named === id && whenGone === 'dropped' ? null : named,
      ),
      null,
    );
  }
  const setId = STORAGE.design.image(db, id)?.setId;
  for (const piece of setId ? listDocuments(db, 'piece', setId).records : []) {
    const names = referencesIn(RECORD_SCHEMAS.piece, piece.data);
    if (names.some((one) => one.to === kind && one.id === id && one.whenGone === 'goes along'))
      writer.remove('piece', piece.id, null);
  }
}

/** Kinds of record whose field for a thing refuses that it goes. */
const REFUSERS = (['set', 'recipe'] as const).map((kind) => ({ kind, names: namesIn(RECORD_SCHEMAS[kind]) }));

/** Names of what uses a record of the shelf: it cannot go while they do. */
export function usersOf(db: Connection, kind: RecordKind, id: string): string[] {
  const lots = kind === 'product' || kind === 'colourant' || kind === 'consumable' ? lotsNamed(db, { kind, id }) : [];
  const users = REFUSERS.filter(({ names }) => names.some(({ to, whenGone }) => to === kind && whenGone === 'refused'))
    .flatMap((user) =>
      listDocuments(db, user.kind).records.map(({ data }) => ({ data, schema: RECORD_SCHEMAS[user.kind] })),
    )
    .filter(({ data, schema }) =>
      referencesIn(schema, data).some((one) => one.to === kind && one.id === id && one.whenGone === 'refused'),
    );
  return [...lots, ...users.map(({ data }) => data.name)];
}

/** Lots of a thing, by name: it cannot go while some of it stands on the shelf. */
const lotsNamed = (db: Connection, item: StockItem): string[] =>
  lotsOf(db, item).map(({ lot }) => `the lot ${lot.name}`);

/** Kinds of thing that another record may name and that stand in tables of their own. */
const NAMED_KINDS = ['product', 'recipe', 'colourant', 'design', 'consumable'] as const;

/** A record that another one names and that is not there, by the field that names it. */
export interface Missing {
  path: (string | number)[];
  kind: (typeof NAMED_KINDS)[number];
}

/** What a record names and is not there; the keys in columns are guarded by the database as well. */
export function missingFor(db: Connection, kind: RecordKind, data: unknown): Missing[] {
  const lacks = (what: Missing['kind'], id: string, path: Missing['path']): Missing[] =>
    getDocument(db, what, id) ? [] : [{ path, kind: what }];
  if (kind === 'lot') {
    const { of } = data as RecordData<'lot'>;
    return lacks(of.kind, of.id, ['of', 'id']);
  }
  return referencesIn(RECORD_SCHEMAS[kind], data).flatMap(({ to, id, path, whenGone }) => {
    const known = NAMED_KINDS.find((one) => one === to);
    return known && whenGone !== 'stays' ? lacks(known, id, path) : [];
  });
}
