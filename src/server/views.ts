import { setScope, type ViewWanted } from '@/core/records/command';
import type { DeskView, SetsView, ShelfView } from '@/core/records/views';
import type { Database } from '@/db/dataFile';
import { SETTINGS_ID } from '@/db/defaults';
import { EditRefusedError, history } from '@/db/journal';
import { getRecord, listRecords } from '@/db/records';
import { wallClockNow } from './clock';
import { withData } from './data';

export type AnyView = SetsView | ShelfView | DeskView;

/** Products, colourants, recipes and the workshop's settings. */
export const shelfView = (): ShelfView => withData((db) => ({ ...shelfOf(db), history: history(db, 'shelf') }));

/** One set with its pieces and batches; null when there is none of this id. */
export const deskView = (setId: string): DeskView | null => withData((db) => deskOf(db, setId));

/** Every set, each with what its strip needs. */
export const setsView = (): SetsView =>
  withData((db) => ({
    sets: listRecords(db, 'set').flatMap(({ id }) => deskOf(db, id) ?? []),
    shelf: shelfOf(db),
    history: history(db, 'sets'),
    now: wallClockNow(),
  }));

/** The view that a screen asked for. */
export function viewOf(wanted: ViewWanted): AnyView {
  if (wanted.view === 'shelf') return shelfView();
  if (wanted.view === 'sets') return setsView();
  const desk = deskView(wanted.setId);
  if (!desk)
    throw new EditRefusedError('missing', 'This set is no longer there; it may have been removed in another window.');
  return desk;
}

function shelfOf(db: Database): Omit<ShelfView, 'history'> {
  const settings = getRecord(db, 'settings', SETTINGS_ID);
  if (!settings) throw new Error('The workshop has no settings');
  return {
    settings,
    products: listRecords(db, 'product'),
    colourants: listRecords(db, 'colourant'),
    recipes: listRecords(db, 'recipe'),
  };
}

function deskOf(db: Database, setId: string): DeskView | null {
  const set = getRecord(db, 'set', setId);
  if (!set) return null;
  return {
    set,
    designs: listRecords(db, 'design', setId),
    pieces: listRecords(db, 'piece', setId),
    batches: listRecords(db, 'batch', setId),
    shelf: shelfOf(db),
    history: history(db, setScope(setId)),
    now: wallClockNow(),
  };
}
