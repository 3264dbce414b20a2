import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { setFileSchema, type SetFile } from '@/core/formats/setFile';
import { planAmounts } from '@/core/plan';
import { testRequest } from '@/core/plan/testRequest';
import { RECORD_SCHEMAS, type RecordData, type RecordKind } from '@/core/records/recordSchemas';
import { filledRecord } from '@/core/records/testRecords';
import { getBatch } from '@/db/batches';
import { currentPours } from '@/db/pours';
import { openDataFile } from '@/db/dataFile';
import { getDocument } from '@/db/documents';
import { edit } from '@/db/journal';
import { STORAGE } from '@/db/records';
import { putInSet, setFileOf } from '@/db/setFile';
import { stockShelf } from '@/db/defaults';
import { temporaryFolder } from '@/db/testDataFile';
import { makeSetArchive, openArchive } from './archive';
import { closeData, withData } from './data';
import { closePool } from './threads/pool';
import { deskView, shelfView } from './views';
import type { Database } from '@/db/storage';

/*
 * Every field of every schema, filled with a value of its own, goes through an edit into the database, onto a page, into an archive and
 * in again, and comes out as it went in. A field that one of these forgets is found here.
 */

const folder = temporaryFolder();
process.env['AGUADA_DATA'] = join(folder, 'every.db');
const NOW = '2026-12-01T10:00';
const [SET, DESIGN, BATCH] = ['every-set', 'every-design', 'every-batch'];

/** The filled record, naming what is really there. */
function record<K extends RecordKind>(kind: K): RecordData<K> {
  const data = filledRecord(kind) as Record<string, unknown>;
  const named: Record<string, unknown> = {
    set: { productId: 'every-product', recipeId: 'every-recipe' },
    recipe: { doses: [{ colourantId: 'every-colourant', gramsPer100: 0.17 }] },
    piece: { designId: DESIGN },
    batch: { items: [{ designId: DESIGN, copies: 3, first: 2 }] },
  };
  const whole = { ...data, ...(named[kind] as object | undefined) };
  if (kind === 'recipe') delete (whole as Partial<RecordData<'recipe'>>).pours;
  // Drawn from the standards of the set whenever it is asked for.
  if (kind === 'design') delete (whole as Partial<RecordData<'design'>>).joints;
  if (kind === 'set') {
    const build = (whole as RecordData<'set'>).build!;
    for (const coat of build.coats) coat.productId = 'every-product';
    build.finish!.productId = 'every-product';
  }
  return RECORD_SCHEMAS[kind].parse(whole) as RecordData<K>;
}

const POUR: RecordData<'pour'> = { ...filledRecord('pour'), batchId: BATCH, layer: 1 };

function fillAll(db: Database): void {
  stockShelf(db, NOW);
  edit(db, 'shelf', 'Fill', NOW, (writer) => {
    const settings = getDocument(db, 'settings', 'workshop');
    if (settings) writer.put('settings', 'workshop', record('settings'), null);
    for (const kind of ['product', 'colourant', 'recipe', 'consumable'] as const)
      writer.add(kind, `every-${kind}`, record(kind));
  });
  edit(db, 'sets', 'Fill', NOW, (writer) => {
    writer.add('set', SET, record('set'));
    writer.add('design', DESIGN, record('design'), SET);
    writer.add('piece', 'every-piece', record('piece'), SET);
    writer.add('batch', BATCH, record('batch'), SET);
    writer.add('note', 'every-note', { ...record('note'), setId: SET });
  });
}

let db: Database;
beforeAll(() => {
  shelfView();
  withData((open) => {
    db = open;
    fillAll(open);
  });
});
afterAll(async () => {
  closeData();
  await closePool();
});

test.each(['product', 'colourant', 'recipe', 'consumable', 'set', 'design', 'piece'] as const)(
  'every field of a %s is in the database and on the page',
  (kind) => {
    const id = kind === 'set' ? SET : kind === 'design' ? DESIGN : `every-${kind}`;
    expect(getDocument(db, kind, id)!.data).toEqual(record(kind));
    const { set, designs, pieces, shelf } = deskView(SET)!;
    const shown: Partial<Record<RecordKind, readonly { id: string; data: unknown }[]>> = {
      set: [set],
      design: designs,
      piece: pieces,
      product: shelf.products,
      colourant: shelf.colourants,
      recipe: shelf.recipes,
      consumable: shelf.consumables,
    };
    expect(shown[kind]!.find((one) => one.id === id)!.data).toEqual(record(kind));
  },
);
test('every field of the settings', () => {
  const [id] = db.$client.prepare('select id from settings').pluck().all() as string[];
  edit(db, 'shelf', 'Fill', NOW, (writer) => writer.put('settings', id!, record('settings'), null));
  expect(deskView(SET)!.shelf.settings.data).toEqual(record('settings'));
});
test('every field of a batch', () => {
  expect(getBatch(db, BATCH)!.data).toEqual(record('batch'));
  expect(deskView(SET)!.batches.find(({ id }) => id === BATCH)!.data).toEqual(record('batch'));
});
test('every field of a lot, and of a movement out of it', () => {
  const lot: RecordData<'lot'> = { ...record('lot'), of: { kind: 'product', id: 'every-product' } };
  const movement: RecordData<'movement'> = { ...record('movement'), lotId: 'every-lot' };
  edit(db, 'shelf', 'Buy', NOW, (writer) => writer.add('lot', 'every-lot', lot));
  edit(db, 'shelf', 'Weigh', NOW, (writer) => writer.add('movement', 'every-movement', movement));
  expect(STORAGE.lot.image(db, 'every-lot')!.data).toEqual(lot);
  expect(STORAGE.movement.image(db, 'every-movement')!.data).toEqual(movement);
});
test('every field of a pour, of its cups and of what was poured into each piece', () => {
  const request = testRequest();
  const file = setFileOf(db, SET);
  const kept = { request, amounts: planAmounts(request) };
  const { batchId: _, ...pour } = POUR;
  const entries = [{ ...pour, struck: false, enteredAt: NOW }];
  const [batch] = file.batches;
  const poured: SetFile = { ...file, batches: [{ ...batch!, bench: { kept, entries } }] };
  const other = openDataFile(join(folder, 'poured.db')).db;
  stockShelf(other, NOW);
  putInSet(other, setFileSchema.parse(JSON.parse(JSON.stringify(poured))), NOW);
  expect(currentPours(other, BATCH)).toEqual([pour]);
  expect(setFileOf(other, SET)).toEqual(poured);
  other.$client.close();
});
test('a set leaves as an archive and comes in again, every field of it', async () => {
  const file = setFileOf(db, SET);
  expect(file.designs[0]!.data).toEqual(record('design'));
  const archive = join(folder, 'every.zip');
  await pipeline(makeSetArchive(file, NOW), createWriteStream(archive));
  const opened = await openArchive(archive, join(folder, 'unpacked'));
  const other = openDataFile(join(folder, 'archive.db')).db;
  stockShelf(other, NOW);
  if (opened.holds !== 'set') throw new Error('No set in the archive');
  putInSet(other, opened.file, NOW);
  expect(file.notes).toHaveLength(1);
  expect(setFileOf(other, SET)).toEqual(file);
  other.$client.close();
});
