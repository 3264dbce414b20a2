import type { RecordData, RecordKind } from '@/core/records/schema';
import { batchesWith, getBatch, listBatches } from './batches';
import { getDocument, listDocuments } from './documents';
import type { Connection } from './images';
import type { EditWriter } from './journal';
import type { StockItem } from '@/core/stock/schema';
import { STORAGE } from './records';
import { lotsOf } from './stock';

/** Takes along what cannot stand without a record that is about to go: the parts of a set, the copies of a design. */
export function takeAlong(writer: EditWriter, db: Connection, kind: RecordKind, id: string): void {
  if (kind === 'set') {
    for (const { id: batch } of listBatches(db, id, 100_000)) writer.remove('batch', batch, null);
    for (const part of ['piece', 'design'] as const)
      for (const record of listDocuments(db, part, id).records) writer.remove(part, record.id, null);
  }
  if (kind === 'design') {
    dropFromBatches(writer, db, id);
    dropPieces(writer, db, id);
  }
}

/** A design leaves the batches that take it; poured ones keep their own plan. */
function dropFromBatches(writer: EditWriter, db: Connection, designId: string): void {
  for (const id of batchesWith(db, designId)) {
    const batch = getBatch(db, id)!.data;
    writer.put('batch', id, { ...batch, items: batch.items.filter((item) => item.designId !== designId) }, null);
  }
}

/** The measured copies of a design go with it. */
function dropPieces(writer: EditWriter, db: Connection, designId: string): void {
  const setId = STORAGE.design.image(db, designId)?.setId;
  for (const piece of setId ? listDocuments(db, 'piece', setId).records : [])
    if (piece.data.designId === designId) writer.remove('piece', piece.id, null);
}

/** Names of what uses a record of the shelf: it cannot go while they do. */
export function usersOf(db: Connection, kind: RecordKind, id: string): string[] {
  if (kind === 'colourant') return [...lotsNamed(db, { kind, id }), ...recipesWith(db, id)];
  if (kind === 'consumable') return lotsNamed(db, { kind, id });
  if (kind !== 'product' && kind !== 'recipe') return [];
  const key = kind === 'product' ? 'productId' : 'recipeId';
  const sets = listDocuments(db, 'set')
    .records.filter(({ data }) => data[key] === id || (kind === 'product' && productsOfBuild(data).includes(id)))
    .map(({ data }) => data.name);
  return kind === 'product' ? [...lotsNamed(db, { kind, id }), ...sets] : sets;
}

/** The products that the build of a set names beside the one that fills it. */
export const productsOfBuild = ({ build }: RecordData<'set'>): string[] => [
  ...(build?.coats.map(({ productId }) => productId) ?? []),
  ...(build?.finish ? [build.finish.productId] : []),
];

const recipesWith = (db: Connection, colourantId: string): string[] =>
  listDocuments(db, 'recipe')
    .records.filter(({ data }) => data.doses.some((dose) => dose.colourantId === colourantId))
    .map(({ data }) => data.name);

/** Lots of a thing, by name: it cannot go while some of it stands on the shelf. */
const lotsNamed = (db: Connection, item: StockItem): string[] =>
  lotsOf(db, item).map(({ lot }) => `the lot ${lot.name}`);

/** A record of the shelf that another one names and that is not there, by the field that names it. */
export interface Missing {
  path: (string | number)[];
  kind: 'product' | 'recipe' | 'colourant' | 'design' | 'consumable';
}

/** What a record names and is not there; the keys in columns are guarded by the database as well. */
export function missingFor(db: Connection, kind: RecordKind, data: unknown): Missing[] {
  const lacks = (what: Missing['kind'], id: string, path: Missing['path']): Missing[] =>
    getDocument(db, what, id) ? [] : [{ path, kind: what }];
  if (kind === 'recipe')
    return (data as RecordData<'recipe'>).doses.flatMap(({ colourantId }, i) =>
      lacks('colourant', colourantId, ['doses', i, 'colourantId']),
    );
  if (kind === 'lot') {
    const { of } = data as RecordData<'lot'>;
    return lacks(of.kind, of.id, ['of', 'id']);
  }
  if (kind === 'piece') return lacks('design', (data as RecordData<'piece'>).designId, ['designId']);
  if (kind === 'batch')
    return (data as RecordData<'batch'>).items.flatMap(({ designId }, i) =>
      lacks('design', designId, ['items', i, 'designId']),
    );
  if (kind !== 'set') return [];
  const { productId, recipeId, build } = data as RecordData<'set'>;
  return [
    ...lacks('product', productId, ['productId']),
    ...lacks('recipe', recipeId, ['recipeId']),
    ...(build?.coats ?? []).flatMap((coat, i) => lacks('product', coat.productId, ['build', 'coats', i, 'productId'])),
    ...(build?.finish ? lacks('product', build.finish.productId, ['build', 'finish', 'productId']) : []),
  ];
}
