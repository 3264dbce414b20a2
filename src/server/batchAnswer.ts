import { getBatch } from '@/db/batches';
import { batchDetail } from '@/db/pours';
import { possibleGuests } from '@/db/guests';
import { withData } from './data';
import { answer, RequestError } from './respond';
import { moreBatches } from './views';

/** A batch with the plan that was kept and its layers as they were poured. */
export const batchAnswer = (batchId: string): Promise<Response> =>
  answer(() =>
    withData((db) => {
      if (!getBatch(db, batchId)) throw new RequestError(404, 'This batch is no longer there.');
      return batchDetail(db, batchId);
    }),
  );

/** More batches of a set, after so many. */
export const moreBatchesAnswer = (setId: string, after: string | null): Promise<Response> =>
  answer(() => {
    const skip = Number(after ?? 0);
    if (!Number.isInteger(skip) || skip < 0 || skip > 1_000_000) throw new RequestError(400, 'After how many batches?');
    return moreBatches(setId, skip);
  });

/** Designs of other sets that a batch of this one may take along. */
export const guestsAnswer = (setId: string): Promise<Response> =>
  answer(() => withData((db) => possibleGuests(db, setId)));
