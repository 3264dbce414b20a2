// Nothing is drawn with it: it remembers within one request.
// eslint-disable-next-line no-restricted-imports
import { cache } from 'react';
import { PRODUCT_KINDS } from '@/core/mixing/productKinds';
import { packStrip } from '@/core/picture/packedStrip';
import { setScope, type Scope } from '@/core/records/command';
import { curingNow, nextWork } from '@/core/records/work';
import type {
  BatchDetail,
  BatchRow,
  DeskView,
  OtherSet,
  SetCard,
  SetDocuments,
  SetsView,
  Shelf,
  ShelfView,
  Unreadable,
  ViewState,
} from '@/core/records/views';
import type { Database } from '@/db/dataFile';
import { batchDetail, countBatches, getBatch, listBatches } from '@/db/batches';
import { DEFAULT_SETTINGS, SETTINGS_ID } from '@/db/defaults';
import { getDocument, listDocuments } from '@/db/documents';
import { guestsOf } from '@/db/guests';
import { history } from '@/db/journal';
import { otherSets } from '@/db/otherSets';
import { listLots } from '@/db/stock';
import { batchCounts, plannedWork, pouredWork } from '@/db/work';
import { clockChangesNow, wallClockNow } from './clock';
import { withData } from './data';
import { stripOf } from './figures';

const stateOf = (db: Database, scope: Scope, unreadable: Unreadable[]): ViewState => ({
  history: history(db, scope),
  now: wallClockNow(),
  clockChanges: clockChangesNow(),
  unreadable,
});

/** Products, colourants, recipes and the workshop's settings; what cannot be read is noted. */
function shelfOf(db: Database, unreadable: Unreadable[]): Shelf {
  const noted = <T>({ records, unreadable: bad }: { records: T[]; unreadable: Unreadable[] }): T[] => {
    unreadable.push(...bad);
    return records;
  };
  const [settings] = noted(listDocuments(db, 'settings'));
  return {
    settings: settings ?? { id: SETTINGS_ID, version: 1, data: DEFAULT_SETTINGS },
    products: noted(listDocuments(db, 'product')),
    colourants: noted(listDocuments(db, 'colourant')),
    recipes: noted(listDocuments(db, 'recipe')),
    consumables: noted(listDocuments(db, 'consumable')),
  };
}

export const shelfView = (): ShelfView =>
  withData((db) => {
    const unreadable: Unreadable[] = [];
    const shelf = shelfOf(db, unreadable);
    const missingKinds = PRODUCT_KINDS.filter(({ id }) => !getDocument(db, 'product', id)).map(({ id, name }) => ({
      id,
      name,
    }));
    return { ...shelf, missingKinds, lots: listLots(db), ...stateOf(db, 'shelf', unreadable) };
  });

/** The other sets of the workshop, for comparing their water. */
export const setsBeside = (setId: string): OtherSet[] => withData((db) => otherSets(db, setId));

/** Batches that a desk lists at first, and how many more at a time. */
export const BATCHES_AT_ONCE = 8;

function documentsOf(db: Database, setId: string, unreadable: Unreadable[]): SetDocuments | null {
  const set = getDocument(db, 'set', setId);
  if (!set) return null;
  const [designs, pieces] = [listDocuments(db, 'design', setId), listDocuments(db, 'piece', setId)];
  unreadable.push(...designs.unreadable, ...pieces.unreadable);
  return { set, designs: designs.records, pieces: pieces.records, shelf: shelfOf(db, unreadable) };
}

/**
 * One set with its pieces and its newest batches; null when there is none of this id. The frame of a page and its stage ask alike:
 * within one request it is read once.
 */
export const deskView = cache((setId: string): DeskView | null =>
  withData((db) => {
    const unreadable: Unreadable[] = [];
    const documents = documentsOf(db, setId, unreadable);
    const guests = guestsOf(db, setId);
    return (
      documents && {
        ...documents,
        batches: listBatches(db, setId, BATCHES_AT_ONCE),
        ...(guests.length > 0 && { guests }),
        batchCount: countBatches(db, setId),
        opened: null,
        ...stateOf(db, setScope(setId), unreadable),
      }
    );
  }),
);

/** More batches of a set, after so many. */
export const moreBatches = (setId: string, after: number): BatchRow[] =>
  withData((db) => listBatches(db, setId, BATCHES_AT_ONCE, after));

/** A batch of a set, opened; without an id the first that is still to be poured, else the newest. Null when there is none. */
export const openBatch = (setId: string, batchId: string | null): { row: BatchRow; detail: BatchDetail } | null =>
  withData((db) => {
    const asked = batchId ? getBatch(db, batchId) : null;
    const rows = asked ? [] : listBatches(db, setId, BATCHES_AT_ONCE);
    const row = asked ?? [...rows].reverse().find(({ poured }) => poured === null) ?? rows[0];
    return row ? { row, detail: batchDetail(db, row.id) } : null;
  });

/** Samples and colours of a strip that is drawn small. */
const SMALL = { samples: 41, colours: 5 };
/** More pieces than this do not fit a small strip. */
const MOST_SMALL = 14;

/** Sets as the list of all shows them, those of the ids given or every one. */
export async function setCards(ids?: readonly string[]): Promise<SetCard[]> {
  const found = withData((db) => {
    const now = wallClockNow();
    const shelf = shelfOf(db, []);
    const [poured, planned, counts] = [pouredWork(db, now), plannedWork(db), batchCounts(db)];
    return listDocuments(db, 'set')
      .records.filter(({ id }) => ids === undefined || ids.includes(id))
      .map((set) => {
        const designs = listDocuments(db, 'design', set.id).records;
        const work = {
          designs: designs.length,
          poured: poured.get(set.id) ?? [],
          planned: planned.get(set.id) ?? [],
          batches: counts.get(set.id) ?? 0,
          now,
        };
        const card = {
          set,
          pieces: designs.map(({ id, data: { kind, tag, name, copies } }) => ({
            id,
            data: { kind, tag, name, copies },
          })),
          batches: work.batches,
          next: nextWork(work),
          curing: curingNow(work.poured, now),
        };
        return { card, documents: { set, designs: designs.slice(0, MOST_SMALL), pieces: [], shelf } };
      });
  });
  return Promise.all(
    found.map(async ({ card, documents }) => ({ ...card, strip: packStrip(await stripOf(documents, SMALL)) })),
  );
}

/** Every set, each with its strip and what comes next. */
export async function setsView(): Promise<SetsView> {
  const sets = await setCards();
  return withData((db) => {
    const unreadable: Unreadable[] = [...listDocuments(db, 'set').unreadable];
    return { sets, shelf: shelfOf(db, unreadable), ...stateOf(db, 'sets', unreadable) };
  });
}
