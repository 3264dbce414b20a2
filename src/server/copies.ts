import type { CopyInBatch } from '@/core/records/copies';
import { copiesInBatches } from '@/db/copies';
import { getDocument } from '@/db/documents';
import type { Connection } from '@/db/storage';
import { DEFAULT_SETTINGS, SETTINGS_ID } from '@/db/defaults';
import { clockChangesNow, wallClockNow } from './clock';
import { withData } from './data';
import { measuredDays } from './measuredRoom';
import { answer, RequestError } from './respond';

/** The copies of a set that batches have taken, as they stand now. */
export function copiesNow(db: Connection, setId: string): CopyInBatch[] {
  const now = wallClockNow();
  const settings = getDocument(db, 'settings', SETTINGS_ID)?.data ?? DEFAULT_SETTINGS;
  const known = { clockChanges: clockChangesNow(), measuredDays: measuredDays(now) };
  return copiesInBatches(db, setId, { now, settings, known });
}

export const copiesAnswer = (setId: string): Promise<Response> =>
  answer(() =>
    withData((db) => {
      if (!getDocument(db, 'set', setId)) throw new RequestError(404, 'This set is no longer there.');
      return copiesNow(db, setId);
    }),
  );
