import type {
  BatchDetail,
  DeskView,
  RowChange,
  SetCard,
  SetsView,
  Shelf,
  ShelfView,
  ViewState,
} from '@/core/records/views';
import type { Stored } from '@/core/model/stored';
import type { Changed } from './editQueue';

/** A list with one row replaced, added at its end, or taken out. */
function withRow<T extends { id: string }>(list: readonly T[], id: string, row: T | null, first = false): T[] {
  if (!row) return list.filter((other) => other.id !== id);
  if (list.some((other) => other.id === id)) return list.map((other) => (other.id === id ? row : other));
  return first ? [row, ...list] : [...list, row];
}

function onShelf<S extends Shelf>(shelf: S, { kind, id, row }: RowChange): S {
  const list = <T>(rows: readonly Stored<T>[]): Stored<T>[] => withRow(rows, id, row as unknown as Stored<T> | null);
  if (kind === 'settings') return row ? { ...shelf, settings: row } : shelf;
  if (kind === 'product') return { ...shelf, products: list(shelf.products) };
  if (kind === 'colourant') return { ...shelf, colourants: list(shelf.colourants) };
  if (kind === 'recipe') return { ...shelf, recipes: list(shelf.recipes) };
  if (kind === 'consumable') return { ...shelf, consumables: list(shelf.consumables) };
  return shelf;
}

const withState = <V extends ViewState>(view: V, { history, now }: Changed): V => ({
  ...view,
  ...(history && { history }),
  ...(now && { now }),
});

/** The shelf after some rows have changed. */
export function shelfWith(view: ShelfView, changed: Changed): ShelfView {
  const next = changed.changes.reduce(
    (now, change) =>
      change.kind === 'lot' ? { ...now, lots: withRow(now.lots, change.id, change.row) } : onShelf(now, change),
    view,
  );
  const missingKinds = next.missingKinds.filter(({ id }) => !next.products.some((product) => product.id === id));
  return withState({ ...next, missingKinds }, changed);
}

/** What a page that is no desk begins with, after some rows have changed; what it shows beside that it reads anew. */
export const pageWith = <V extends Shelf & ViewState>(view: V, changed: Changed): V =>
  withState(changed.changes.reduce(onShelf, view), changed);

/** A poured layer on the open batch. */
function onOpened(opened: BatchDetail | null, change: Extract<RowChange, { kind: 'pour' }>): BatchDetail | null {
  if (opened?.batchId !== change.batchId) return opened;
  const others = opened.pours.filter(({ layer }) => layer !== change.layer);
  const pours = change.row ? [...others, change.row].sort((a, b) => a.layer - b.layer) : others;
  return { ...opened, pours, kept: pours.length > 0 ? opened.kept : null };
}

function onDesk(view: DeskView, change: RowChange): DeskView {
  const { kind, id } = change;
  // Undo on a desk reaches the shelf, and rows of other sets may come with it.
  if (change.setId !== null && change.setId !== view.set.id) return view;
  if (kind === 'set') return change.row && id === view.set.id ? { ...view, set: change.row } : view;
  if (kind === 'design') return { ...view, designs: withRow(view.designs, id, change.row) };
  if (kind === 'piece') return { ...view, pieces: withRow(view.pieces, id, change.row) };
  if (kind === 'pour') return { ...view, opened: onOpened(view.opened, change) };
  if (kind === 'batch') {
    const known = view.batches.some((batch) => batch.id === id);
    const batchCount = view.batchCount + (change.row && !known ? 1 : !change.row && known ? -1 : 0);
    return { ...view, batches: withRow(view.batches, id, change.row, true), batchCount };
  }
  const shelf = onShelf(view.shelf, change);
  return shelf === view.shelf ? view : { ...view, shelf };
}

/** A desk after some rows have changed. */
export const deskWith = (view: DeskView, changed: Changed): DeskView =>
  withState(changed.changes.reduce(onDesk, view), changed);

/** How many sets more there are: of those that the list does not know yet it cannot be said. */
const countedBy = ({ sets }: SetsView, { cards = [] }: Changed): number =>
  cards.reduce((sum, { id, card }) => {
    const known = sets.some(({ set }) => set.id === id);
    return sum + (card && !known ? 1 : !card && known ? -1 : 0);
  }, 0);

/** The list of sets with all of them; what was there keeps its look. */
export const withAllSets = (view: SetsView, all: readonly SetCard[]): SetsView => {
  const looks = new Map(view.sets.map(({ set, look }) => [set.id, look]));
  return {
    ...view,
    setCount: all.length,
    sets: all.map((card) => ({ ...card, look: looks.get(card.set.id) ?? null })),
  };
};

/** The list of sets after some cards have changed. */
export const setsWith = (view: SetsView, changed: Changed): SetsView =>
  withState(
    {
      ...view,
      shelf: changed.changes.reduce(onShelf, view.shelf),
      setCount: view.setCount + countedBy(view, changed),
      sets: (changed.cards ?? []).reduce<SetsView['sets']>((sets, { id, card }) => {
        if (!card) return sets.filter(({ set }) => set.id !== id);
        return sets.some(({ set }) => set.id === id)
          ? sets.map((other) => (other.set.id === id ? card : other))
          : [...sets, card];
      }, view.sets),
    },
    changed,
  );
