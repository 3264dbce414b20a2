// Nothing is drawn with it: it remembers within one request.
// eslint-disable-next-line no-restricted-imports
import { cache } from 'react';
import { PRODUCT_KINDS } from '@/core/mixing/productKinds';
import { packStrip } from '@/core/picture/packedStrip';
import { copiesOfDesigns, countCopies } from '@/core/records/copies';
import { setScope, type Scope } from '@/core/records/command';
import { curingNow, nextWork, pouredWork, sortedSets } from '@/core/records/work';
import type {
  ClockAndRoom,
  BatchDetail,
  BatchRow,
  DeskView,
  OtherSet,
  SetCard,
  SetLook,
  SetDocuments,
  SetsView,
  Shelf,
  ShelfView,
  Unreadable,
  ViewState,
} from '@/core/records/views';
import type { Database } from '@/db/storage';
import { countBatches, getBatch, listBatches } from '@/db/batches';
import { batchDetail } from '@/db/pours';
import { DEFAULT_SETTINGS, SETTINGS_ID } from '@/db/defaults';
import { getDocument, listDocuments } from '@/db/documents';
import { guestsOf } from '@/db/guests';
import { history } from '@/db/journal';
import { otherSets } from '@/db/otherSets';
import { lotsInUse } from '@/db/stock';
import { batchCounts, pieceCounts, plannedWork, pouredBatches } from '@/db/work';
import { copiesNow } from './copies';
import { clockChangesNow, wallClockNow } from './clock';
import { withData } from './data';
import { inTime, stripOf } from './figures';
import { measuredDays } from './measuredRoom';
import { answer } from './respond';

const stateOf = (db: Database, scope: Scope, unreadable: Unreadable[]): ViewState => ({
  history: history(db, scope),
  now: wallClockNow(),
  clockChanges: clockChangesNow(),
  measuredDays: measuredDays(wallClockNow()),
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

/** What every page that is no desk begins with. */
export function shelfAndState(db: Database, scope: Scope): Shelf & ViewState {
  const unreadable: Unreadable[] = [];
  return { ...shelfOf(db, unreadable), ...stateOf(db, scope, unreadable) };
}

export const shelfView = (): ShelfView =>
  withData((db) => {
    const unreadable: Unreadable[] = [];
    const shelf = shelfOf(db, unreadable);
    const missingKinds = PRODUCT_KINDS.filter(({ id }) => !getDocument(db, 'product', id)).map(({ id, name }) => ({
      id,
      name,
    }));
    return { ...shelf, missingKinds, ...lotsInUse(db), ...stateOf(db, 'shelf', unreadable) };
  });

/** Batches that a desk lists at first, and how many more at a time. */
export const BATCHES_AT_ONCE = 8;

function documentsOf(
  db: Database,
  setId: string,
  unreadable: Unreadable[],
  shelf?: Shelf,
): Omit<SetDocuments, 'guests'> | null {
  const set = getDocument(db, 'set', setId);
  if (!set) return null;
  const [designs, pieces] = [listDocuments(db, 'design', setId), listDocuments(db, 'piece', setId)];
  unreadable.push(...designs.unreadable, ...pieces.unreadable);
  return { set, designs: designs.records, pieces: pieces.records, shelf: shelf ?? shelfOf(db, unreadable) };
}

/** What batches of some sets are planned from, by set; the shelf is read once for all. */
export const setsToPlan = (setIds: readonly string[]): Map<string, SetDocuments & ClockAndRoom> =>
  withData((db) => {
    const shelf = shelfOf(db, []);
    const known = { clockChanges: clockChangesNow(), measuredDays: measuredDays(wallClockNow()) };
    return new Map(
      setIds.flatMap((setId) => {
        const documents = documentsOf(db, setId, [], shelf);
        return documents ? [[setId, { ...documents, guests: guestsOf(db, setId), ...known }] as const] : [];
      }),
    );
  });

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

/** Sets as the list of all shows them, those of the ids given or every one, without their looks. */
export const setCards = (ids?: readonly string[]): SetCard[] =>
  withData((db) => {
    const now = wallClockNow();
    const [poured, planned, counts] = [pouredBatches(db, now), plannedWork(db), batchCounts(db)];
    const known = { clockChanges: clockChangesNow(), measuredDays: measuredDays(now) };
    const { settings } = shelfOf(db, []);
    const pieces = pieceCounts(db);
    return listDocuments(db, 'set')
      .records.filter(({ id }) => ids === undefined || ids.includes(id))
      .map(({ id, version, data: { name, figureScaleMm, levelMm, job, putAway } }) => {
        const own = pieces.get(id) ?? [];
        const work = {
          designs: own.length,
          poured: (poured.get(id) ?? []).map((batch) => pouredWork(batch, settings.data, known)),
          planned: planned.get(id) ?? [],
          batches: counts.get(id) ?? 0,
          now,
        };
        return {
          set: { id, version, data: { name, figureScaleMm, levelMm, job, ...(putAway && { putAway }) } },
          pieces: own,
          look: null,
          batches: work.batches,
          next: nextWork(work),
          curing: curingNow(work.poured, now),
        };
      });
  });

/** How a set looks; null when there is none of this id. */
export async function setLook(id: string): Promise<SetLook | null> {
  const known = withData((db) => {
    const documents = documentsOf(db, id, []);
    return documents && { documents, taken: copiesNow(db, id) };
  });
  if (!known) return null;
  const { documents, taken } = known;
  const drawn = { ...documents, designs: documents.designs.slice(0, MOST_SMALL), pieces: [] };
  return {
    pieces: drawn.designs.map(({ id: designId, data: { tag, name, copies } }) => ({
      id: designId,
      data: { tag, name, copies },
    })),
    strip: packStrip(await stripOf(drawn, SMALL)),
    copies: countCopies(copiesOfDesigns(documents.designs, taken, wallClockNow())),
  };
}

/** Cards with their looks as far as they are there in time; the others are drawn meanwhile, for when they are asked for. */
export const withLooks = (cards: readonly SetCard[]): Promise<SetCard[]> =>
  Promise.all(
    cards.map(async (card) => {
      const look = await inTime(setLook(card.set.id));
      return { ...card, look: look && 'later' in look ? null : look };
    }),
  );

/** Cards that come with the page, and how many of them with their strips: more than a screen shows. */
const FIRST_CARDS = 24;
const FIRST_LOOKS = 6;

/** The sets whose work comes next, the first of them with their strips. */
export async function setsView(): Promise<SetsView> {
  const all = sortedSets(setCards(), 'next');
  const first = all.slice(0, FIRST_CARDS);
  const sets = [...(await withLooks(first.slice(0, FIRST_LOOKS))), ...first.slice(FIRST_LOOKS)];
  return withData((db) => {
    const unreadable: Unreadable[] = [...listDocuments(db, 'set').unreadable];
    return { sets, setCount: all.length, shelf: shelfOf(db, unreadable), ...stateOf(db, 'sets', unreadable) };
  });
}

/** Looks that are asked for at once. */
const MOST_LOOKS = 24;

export const setLooksAnswer = (request: Request): Promise<Response> =>
  answer(async () => {
    const ids = (new URL(request.url).searchParams.get('ids') ?? '').split(',').slice(0, MOST_LOOKS);
    const looks = await Promise.all(ids.map(async (id) => [id, await setLook(id)] as const));
    return { looks: Object.fromEntries(looks) };
  });

/** The other sets of the workshop, for comparing their water. */
export const setsBesideAnswer = (setId: string): Promise<Response> =>
  answer(() => withData((db): OtherSet[] => otherSets(db, setId)));

export const setCardsAnswer = (): Promise<Response> => answer(() => ({ sets: setCards() }));
