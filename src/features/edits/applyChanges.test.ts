import { testDesign } from '@/core/bed/testShapes';
import type { BatchRow, DeskView, RowChange, SetCard, SetsView, ShelfView } from '@/core/records/views';
import { deskWith, setsWith, shelfWith } from './applyChanges';

const stored = <T>(id: string, data: T, version = 1): { id: string; version: number; data: T } => ({
  id,
  version,
  data,
});
const batch = (id: string, version = 1): BatchRow =>
  ({ id, version, data: { name: id, items: [], pourAt: '', benchWindows: null }, poured: null }) as BatchRow;
const desk = {
  set: stored('s', { name: 'Set' }),
  designs: [stored('a', testDesign()), stored('b', testDesign())],
  pieces: [],
  batches: [batch('new'), batch('old')],
  batchCount: 40,
  opened: { batchId: 'new', kept: null, pours: [] },
  shelf: { settings: stored('w', {}), products: [stored('p', {})], colourants: [], recipes: [] },
  history: { undo: null, redo: null },
} as unknown as DeskView;
const after = (...changes: unknown[]): DeskView => deskWith(desk, { changes: changes as RowChange[] });

describe('rows that an edit changed', () => {
  test('take the place of what they were; all others stay the very same', () => {
    const row = stored('a', testDesign([], { name: 'Renamed' }), 2);
    const next = after({ kind: 'design', id: 'a', setId: 's', row });
    expect(next.designs).toEqual([row, desk.designs[1]]);
    expect(next.designs[1]).toBe(desk.designs[1]);
    expect([next.set, next.pieces, next.batches, next.shelf]).toEqual([
      desk.set,
      desk.pieces,
      desk.batches,
      desk.shelf,
    ]);
    expect(next.shelf).toBe(desk.shelf);
  });
  test('a new one stands last, a new batch first; both are counted', () => {
    const next = after(
      { kind: 'design', id: 'c', setId: 's', row: stored('c', testDesign()) },
      { kind: 'batch', id: 'newest', setId: 's', row: batch('newest') },
    );
    expect(next.designs.map(({ id }) => id)).toEqual(['a', 'b', 'c']);
    expect(next.batches.map(({ id }) => id)).toEqual(['newest', 'new', 'old']);
    expect(next.batchCount).toBe(41);
  });
  test('one that is gone is gone', () => {
    const next = after(
      { kind: 'design', id: 'a', setId: 's', row: null },
      { kind: 'batch', id: 'old', setId: 's', row: null },
    );
    expect([next.designs.map(({ id }) => id), next.batchCount]).toEqual([['b'], 39]);
  });
  test('those of another set are nothing to this desk', () =>
    expect(after({ kind: 'design', id: 'x', setId: 'other', row: stored('x', testDesign()) }).designs).toBe(
      desk.designs,
    ));
  test('a poured layer is put on the open batch, in its order; struck, it is gone', () => {
    const pour = (layer: number): object => ({
      kind: 'pour',
      id: `new.${layer}`,
      setId: 's',
      batchId: 'new',
      layer,
      row: { layer },
    });
    const two = after(pour(2), pour(1));
    expect(two.opened!.pours.map(({ layer }) => layer)).toEqual([1, 2]);
    const struck = deskWith(two, { changes: [{ ...pour(2), row: null } as RowChange] });
    expect(struck.opened!.pours.map(({ layer }) => layer)).toEqual([1]);
    expect(after({ ...pour(1), batchId: 'old' }).opened).toBe(desk.opened);
  });
  test('the shelf changes on the desk as on its own screen', () => {
    const change = { kind: 'product', id: 'q', setId: null, row: stored('q', {}) } as unknown as RowChange;
    expect(after(change).shelf.products.map(({ id }) => id)).toEqual(['p', 'q']);
    const shelf = {
      ...desk.shelf,
      missingKinds: [{ id: 'q', name: 'Q' }],
      history: desk.history,
    } as unknown as ShelfView;
    const next = shelfWith(shelf, { changes: [change], history: { undo: { edit: 7, label: 'Add Q' }, redo: null } });
    expect(next.products).toHaveLength(2);
    expect(next.missingKinds).toEqual([]);
    expect(next.history.undo).toEqual({ edit: 7, label: 'Add Q' });
  });
  test('cards of the list of sets come, change and go', () => {
    const card = (id: string, name: string): SetCard => ({ set: stored(id, { name }) }) as unknown as SetCard;
    const view = { sets: [card('a', 'A'), card('b', 'B')], history: desk.history } as unknown as SetsView;
    const cards = [
      { id: 'a', card: null },
      { id: 'b', card: card('b', 'B2') },
      { id: 'c', card: card('c', 'C') },
    ];
    expect(setsWith(view, { changes: [], cards }).sets.map(({ set }) => set.data.name)).toEqual(['B2', 'C']);
  });
  test('the list of sets knows of settings that were changed on it', () => {
    const change = { kind: 'settings', id: 'w', setId: null, row: stored('w', { a: 1 }) } as unknown as RowChange;
    const view = { sets: [], shelf: desk.shelf, history: desk.history } as unknown as SetsView;
    expect(setsWith(view, { changes: [change] }).shelf.settings).toEqual(change.row);
  });
});
