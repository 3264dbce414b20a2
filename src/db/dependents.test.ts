import { newFeature } from '@/core/bed/starters';
import { testDesign } from '@/core/bed/testShapes';
import { PRODUCT_KINDS } from '@/core/mixing/productKinds';
import type { RecordData } from '@/core/records/recordSchemas';
import { getBatch } from './batches';
import { missingFor, usersOf } from './dependents';
import { openDataFile } from './dataFile';
import { stockShelf } from './defaults';
import { getDocument, listDocuments } from './documents';
import { edit, EditRefusedError, redo, undo } from './journal';
import { temporaryFolder } from './testDataFile';
import type { Database, EditWriter } from './storage';

const NOW = '2026-11-26T10:00';
const { id: _, ...product } = PRODUCT_KINDS[0]!;
const set = (change: Partial<RecordData<'set'>> = {}): RecordData<'set'> => ({
  name: 'Otter Reach',
  figureScaleMm: 28,
  levelMm: 15,
  productId: 'coating-epoxy',
  recipeId: 'clear',
  benchWindows: null,
  job: null,
  ...change,
});
const design = testDesign([newFeature('channel', testDesign())]);

let db: Database;
let count = 0;
const folder = temporaryFolder();
const make = (scope: string, label: string, work: (writer: EditWriter) => void) => edit(db, scope, label, NOW, work);
const addSet = (change?: Partial<RecordData<'set'>>) =>
  make('sets', 'Add Otter Reach', (writer) => writer.add('set', 's', set(change)));
const fillSet = (): void => {
  make('set:s', 'Add a tile', (writer) => writer.add('design', 'd', design, 's'));
  make('set:s', 'Plan', (writer) =>
    writer.add(
      'batch',
      'b',
      { name: 'B', items: [{ designId: 'd', copies: 2 }], pourAt: NOW, benchWindows: null },
      's',
    ),
  );
  const measured = { atLevelMm: 15, readings: [], fillMl: 40 };
  make('set:s', 'Measure', (writer) => writer.add('piece', 'p', { designId: 'd', copy: 1, measured }, 's'));
};
const whole = (): unknown => [
  ...(['set', 'design', 'piece'] as const).map((kind) => listDocuments(db, kind).records.map(({ data }) => data)),
  getBatch(db, 'b')?.data,
];

beforeEach(() => {
  ({ db } = openDataFile(`${folder}/${count++}.db`));
  stockShelf(db, NOW);
});
afterEach(() => db.$client.close());

describe('undo of what something else hangs on', () => {
  test('a set is taken back with all that was made in it, says so, and all comes back with it', () => {
    addSet();
    fillSet();
    const before = whole();
    const { note, touched } = undo(db, 'sets', NOW);
    expect(note).toBe('Took back “Add Otter Reach”; a batch, a piece, a design went along.');
    expect(new Set(touched.map(({ kind }) => kind))).toEqual(new Set(['set', 'design', 'piece', 'batch']));
    expect(whole()).toEqual([[], [], [], undefined]);
    expect(redo(db, 'sets', NOW).note).toBeNull();
    expect(whole()).toEqual(before);
    // And once more: nothing of it was used up.
    undo(db, 'sets', NOW);
    redo(db, 'sets', NOW);
    expect(whole()).toEqual(before);
  });
  test('a design leaves the batch that takes it, and stands in it again', () => {
    addSet();
    fillSet();
    const before = whole();
    make('set:s', 'Rename', (writer) => writer.put('set', 's', set({ name: 'Otter Run' }), null));
    // Back to before the tile, with the batch and the copy that were added after it still there.
    undo(db, 'set:s', NOW);
    db.$client.prepare("update edits set undone = 1 where label in ('Plan', 'Measure')").run();
    expect(undo(db, 'set:s', NOW).note).toContain('a batch, a piece went along');
    expect(getBatch(db, 'b')!.data.items).toEqual([]);
    expect(redo(db, 'set:s', NOW).note).toBeNull();
    expect(whole()).toEqual(before);
  });
  test('a product that a set uses stays, and it is said which set', () => {
    make('shelf', 'Add Quick resin', (writer) => writer.add('product', 'quick', product));
    addSet({ productId: 'quick' });
    const tried = (): unknown => undo(db, 'shelf', NOW);
    expect(tried).toThrow(EditRefusedError);
    expect(tried).toThrow('“Add Quick resin” cannot be taken back: Otter Reach uses it. Choose another there first.');
    make('set:s', 'Choose another', (writer) => writer.put('set', 's', set(), null));
    undo(db, 'shelf', NOW);
    expect(getDocument(db, 'product', 'quick')).toBeNull();
  });
  test('a product that only a coat or a finish names is used too, and one that is not there is not taken', () => {
    make('shelf', 'Add Quick resin', (writer) => writer.add('product', 'quick', product));
    const coats = [{ productId: 'quick', thicknessMm: 1, tint: 'clear' as const }];
    addSet({ build: { coats } });
    expect(() => undo(db, 'shelf', NOW)).toThrow('Otter Reach uses it');
    expect(usersOf(db, 'product', 'quick')).toEqual(['Otter Reach']);
    const finish = { productId: 'nowhere', filmMm: 0.1, coats: 1 };
    expect(missingFor(db, 'set', set({ build: { coats, finish } }))).toEqual([
      { kind: 'product', path: ['build', 'finish', 'productId'] },
    ]);
  });
  test('a set whose product is gone does not come back without it', () => {
    make('shelf', 'Add Quick resin', (writer) => writer.add('product', 'quick', product));
    addSet({ productId: 'quick' });
    make('sets', 'Remove Otter Reach', (writer) => writer.remove('set', 's', null));
    make('shelf', 'Remove Quick resin', (writer) => writer.remove('product', 'quick', null));
    expect(() => undo(db, 'sets', NOW)).toThrow(
      '“Remove Otter Reach” cannot be taken back: a product that it uses is no longer there. Put that back first.',
    );
    undo(db, 'shelf', NOW);
    undo(db, 'sets', NOW);
    expect(getDocument(db, 'set', 's')!.data.productId).toBe('quick');
  });
  test('removing made again takes along what was added meanwhile', () => {
    addSet();
    make('sets', 'Remove Otter Reach', (writer) => writer.remove('set', 's', null));
    undo(db, 'sets', NOW);
    fillSet();
    const before = whole();
    expect(redo(db, 'sets', NOW).note).toContain('went along');
    undo(db, 'sets', NOW);
    expect(whole()).toEqual(before);
  });
});
