import { join } from 'node:path';
import fc from 'fast-check';
import type { Product } from '@/core/model/productSchema';
import { PRODUCT_KINDS } from '@/core/mixing/productKinds';
import { openDataFile } from './dataFile';
import { stockShelf } from './defaults';
import { loadHeronSlack, HERON_SLACK_ID } from './demo/heronSlack';
import { edit, EditRefusedError, history as steps, redo, StaleEditError, undo } from './journal';
import { getBatch, listBatches } from './batches';
import { batchDetail } from './pours';
import { getDocument, listDocuments } from './documents';
import { temporaryFolder } from './testDataFile';
import type { Database } from './storage';

const folder = temporaryFolder();
const NOW = '2026-11-24T20:00';
let count = 0;
let db: Database;
const product = (name: string): Product => ({ ...PRODUCT_KINDS[0]!, name });
/** What undo and redo would do next, by name. */
const history = (open: Database, scope: string): { undo: string | null; redo: string | null } => {
  const { undo: back, redo: forth } = steps(open, scope);
  return { undo: back?.label ?? null, redo: forth?.label ?? null };
};
const names = (): string[] => listDocuments(db, 'product').records.map(({ data }) => data.name);
const rename = (id: string, name: string, version: number | null = null): unknown =>
  edit(db, 'shelf', `Rename to ${name}`, NOW, (writer) => writer.put('product', id, product(name), version));
const addProduct = (id: string): unknown =>
  edit(db, 'shelf', `Add ${id}`, NOW, (writer) => writer.add('product', id, product(id)));

beforeEach(() => {
  db = openDataFile(join(folder, `${count++}.db`)).db;
});

describe('undo and redo', () => {
  test('take back and make again, in order, with their names', () => {
    addProduct('a');
    rename('a', 'b');
    rename('a', 'c');
    expect(history(db, 'shelf')).toEqual({ undo: 'Rename to c', redo: null });
    undo(db, 'shelf', NOW);
    undo(db, 'shelf', NOW);
    expect(names()).toEqual(['a']);
    expect(history(db, 'shelf')).toEqual({ undo: 'Add a', redo: 'Rename to b' });
    redo(db, 'shelf', NOW);
    redo(db, 'shelf', NOW);
    expect(names()).toEqual(['c']);
    expect(() => redo(db, 'shelf', NOW)).toThrow('nothing to redo');
  });
  test('survive a restart', () => {
    const path = join(folder, 'restart.db');
    const opened = openDataFile(path);
    db = opened.db;
    addProduct('a');
    rename('a', 'b');
    opened.close();
    db = openDataFile(path).db;
    undo(db, 'shelf', NOW);
    expect(names()).toEqual(['a']);
  });
  test('bring back what was removed, with its place and a newer version', () => {
    addProduct('a');
    addProduct('b');
    edit(db, 'shelf', 'Remove a', NOW, (writer) => writer.remove('product', 'a', 1));
    undo(db, 'shelf', NOW);
    expect(names()).toEqual(['a', 'b']);
    expect(getDocument(db, 'product', 'a')!.version).toBe(2);
  });
  test('a new edit drops what could be redone', () => {
    addProduct('a');
    rename('a', 'b');
    undo(db, 'shelf', NOW);
    rename('a', 'c');
    expect(history(db, 'shelf').redo).toBeNull();
  });
  test('scopes do not reach into each other', () => {
    addProduct('a');
    expect(history(db, 'sets').undo).toBeNull();
    expect(() => undo(db, 'sets', NOW)).toThrow(EditRefusedError);
    expect(names()).toEqual(['a']);
  });
  test('on a set’s desk the shelf’s newer edits come first, and the shelf never reaches into a set', () => {
    addProduct('a');
    edit(db, 'set:1', 'On the desk', NOW, (writer) => writer.add('product', 'b', product('b')));
    rename('a', 'c');
    expect(history(db, 'set:1').undo).toBe('Rename to c');
    undo(db, 'set:1', NOW);
    undo(db, 'set:1', NOW);
    expect(names()).toEqual(['a']);
    expect(history(db, 'shelf')).toEqual({ undo: 'Add a', redo: 'Rename to c' });
    redo(db, 'set:1', NOW);
    redo(db, 'set:1', NOW);
    expect(names()).toEqual(['c', 'b']);
  });
  test('hit the edit that is named, whatever another window did since; each only once', () => {
    edit(db, 'set:1', 'On the desk', NOW, (writer) => writer.add('product', 'b', product('b')));
    const named = steps(db, 'set:1').undo!.edit;
    addProduct('a');
    undo(db, 'set:1', NOW, named);
    expect(names()).toEqual(['a']);
    expect(history(db, 'set:1')).toEqual({ undo: 'Add a', redo: 'On the desk' });
    expect(() => undo(db, 'set:1', NOW, named)).toThrow('taken back already');
    expect(() => undo(db, 'shelf', NOW, steps(db, 'set:1').redo!.edit)).toThrow(EditRefusedError);
    redo(db, 'set:1', NOW, named);
    expect(names().toSorted()).toEqual(['a', 'b']);
    // What was named and could be made again is dropped by another edit in the scope.
    undo(db, 'set:1', NOW, named);
    edit(db, 'set:1', 'Another', NOW, (writer) => writer.add('product', 'c', product('c')));
    expect(() => redo(db, 'set:1', NOW, named)).toThrow('no longer be made again');
    expect(names()).toEqual(['a', 'c']);
  });
  test('do not overwrite a row that changed in some other way', () => {
    addProduct('a');
    rename('a', 'b');
    edit(db, 'sets', 'Elsewhere', NOW, (writer) => writer.put('product', 'a', product('else'), null));
    expect(() => undo(db, 'shelf', NOW)).toThrow(StaleEditError);
    expect(names()).toEqual(['else']);
  });
  test('any run of edits can be walked back to the start and forward to the end', () => {
    const step = fc.oneof(
      fc.record({
        kind: fc.constant('put' as const),
        id: fc.constantFrom('a', 'b', 'c'),
        name: fc.string({ minLength: 1, maxLength: 5 }).filter((text) => text.trim() !== ''),
      }),
      fc.record({ kind: fc.constant('remove' as const), id: fc.constantFrom('a', 'b', 'c') }),
    );
    fc.assert(
      fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
        db = openDataFile(':memory:').db;
        const seen = [names()];
        for (const item of steps) {
          const there = getDocument(db, 'product', item.id);
          if (item.kind === 'remove' ? !there : there?.data.name === item.name.trim()) continue;
          if (item.kind === 'remove')
            edit(db, 'shelf', 'Remove', NOW, (writer) => writer.remove('product', item.id, null));
          else if (there) rename(item.id, item.name.trim());
          else edit(db, 'shelf', 'Add', NOW, (writer) => writer.add('product', item.id, product(item.name.trim())));
          seen.push(names());
        }
        for (let i = seen.length - 2; i >= 0; i--) {
          undo(db, 'shelf', NOW);
          expect(names()).toEqual(seen[i]);
        }
        for (let i = 1; i < seen.length; i++) {
          redo(db, 'shelf', NOW);
          expect(names()).toEqual(seen[i]);
        }
      }),
      { numRuns: 40 },
    );
  });
});

describe('row versions', () => {
  test('a stale edit is told, and writes nothing', () => {
    addProduct('a');
    rename('a', 'b', 1);
    expect(() => rename('a', 'c', 1)).toThrow(StaleEditError);
    expect(names()).toEqual(['b']);
    expect(history(db, 'shelf').undo).toBe('Rename to b');
  });
  test('an edit that changes nothing is no edit', () => {
    addProduct('a');
    rename('a', 'a', 1);
    expect(getDocument(db, 'product', 'a')!.version).toBe(1);
    expect(history(db, 'shelf').undo).toBe('Add a');
  });
});

describe('transactions', () => {
  test('an edit that fails half way leaves nothing behind', () => {
    addProduct('a');
    expect(() =>
      edit(db, 'shelf', 'Two things', NOW, (writer) => {
        writer.put('product', 'a', product('b'), null);
        writer.put('product', 'missing', product('c'), null);
      }),
    ).toThrow('no longer there');
    expect(names()).toEqual(['a']);
  });
  test('data that its schema refuses is not written', () => {
    expect(() =>
      edit(db, 'shelf', 'Bad', NOW, (writer) => writer.add('product', 'bad', { ...product('x'), density: 0 })),
    ).toThrow();
    expect(names()).toEqual([]);
  });
  test('a product in use cannot be deleted behind the set’s back', () => {
    stockShelf(db, NOW);
    edit(db, 'sets', 'Add a set', NOW, (writer) =>
      writer.add('set', 's', {
        name: 'S',
        figureScaleMm: 28,
        levelMm: 15,
        productId: 'coating-epoxy',
        recipeId: 'clear',
        benchWindows: null,
        job: null,
      }),
    );
    expect(() => edit(db, 'shelf', 'Remove', NOW, (writer) => writer.remove('product', 'coating-epoxy', null))).toThrow(
      /FOREIGN KEY/,
    );
  });
});

describe('the sample', () => {
  let sample: Database;
  beforeAll(() => {
    sample = openDataFile(':memory:').db;
    stockShelf(sample, NOW);
    loadHeronSlack(sample, NOW);
  });
  beforeEach(() => {
    db = sample;
  });
  test('has eleven tiles of six designs, four boards and two dozen bases', () => {
    const designs = listDocuments(db, 'design', HERON_SLACK_ID).records.map(({ data }) => data);
    const copies = (kind: string): number =>
      designs.filter((design) => design.kind === kind).reduce((sum, design) => sum + design.copies, 0);
    expect([copies('tile'), copies('board'), copies('base')]).toEqual([11, 4, 24]);
    expect(designs.filter(({ kind }) => kind === 'tile')).toHaveLength(6);
  });
  test('has a finished, a half done and a planned batch, dated around the day it is loaded', () => {
    // Newest first: planned, half done, finished.
    const batches = listBatches(db, HERON_SLACK_ID, 10);
    expect(batches.map(({ poured }) => poured && [poured.layers, poured.of])).toEqual([null, [1, 2], [2, 2]]);
    for (const { poured } of batches) if (poured) expect(poured.lastAt < NOW).toBe(true);
    expect(batches[0]!.data.pourAt > NOW).toBe(true);
    const finished = batchDetail(db, batches[2]!.id);
    expect(finished.kept!.amounts.layers).toHaveLength(2);
    expect(finished.pours.map(({ layer }) => layer)).toEqual([1, 2]);
    // What the short row sums in SQL is what was weighed.
    const weighed = finished.pours.flatMap(({ cups }) => cups.map((cup) => cup.partAGrams + (cup.partBGrams ?? 0)));
    expect(batches[2]!.poured!.mixGrams).toBeCloseTo(
      weighed.reduce((a, b) => a + b, 0),
      6,
    );
  });
  test('can be taken back whole and brought back', () => {
    undo(db, 'sets', NOW);
    expect([listDocuments(db, 'set').records, listDocuments(db, 'design').records]).toEqual([[], []]);
    expect(getBatch(db, 'hs-batch-1')).toBeNull();
    redo(db, 'sets', NOW);
    expect(listDocuments(db, 'design', HERON_SLACK_ID).records).toHaveLength(11);
    expect(listBatches(db, HERON_SLACK_ID, 10)).toHaveLength(3);
  });
});
