import { isPast } from '@/core/stock/lots';
import type { StockLevel } from '@/core/stock/haveAndNeed';
import { shelfLifeOf } from '@/db/bookPour';
import { getBatch } from '@/db/batches';
import type { Database } from '@/db/storage';
import { spentOnSet } from '@/db/spent';
import { listLots, lotHistory, stockLevels } from '@/db/stock';
import { wallClockNow } from './clock';
import { withData } from './data';
import { answer, RequestError } from './respond';

/** Every lot, the emptied ones too. */
export const lotsAnswer = (): Promise<Response> => answer(() => ({ lots: withData(listLots) }));

/** Every movement of a lot, the latest first. */
export const lotHistoryAnswer = (lotId: string): Promise<Response> =>
  answer(() => withData((db) => lotHistory(db, lotId)));

/** What stands on the shelf, seen from a batch: what others have reserved is not for it. */
export function levelsFor(db: Database, batchId: string): StockLevel[] {
  const today = wallClockNow().slice(0, 10);
  return stockLevels(db, batchId, ({ lot }) => isPast(lot, shelfLifeOf(db, lot.of), today));
}

export const batchStockAnswer = (batchId: string): Promise<Response> =>
  answer(() =>
    withData((db) => {
      if (!getBatch(db, batchId)) throw new RequestError(404, 'This batch is no longer there.');
      return levelsFor(db, batchId);
    }),
  );

/** What the batches of a set have taken out of the bottles in money. */
export const spentAnswer = (setId: string): Promise<Response> => answer(() => withData((db) => spentOnSet(db, setId)));
