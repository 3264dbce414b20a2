import { z } from 'zod';
import { FINDINGS } from '@/core/findings/findingKinds';
import type { BatchRecord } from '@/core/records/copyFacts';
import type { BatchRow } from '@/core/records/views';
import { whyOf, type Why } from '@/core/records/why';
import { goodUntil } from '@/core/stock/lots';
import { wallMinutes } from '@/core/time/wallTime';
import { getBatch, setOfBatch } from '@/db/batches';
import { batchDetail } from '@/db/pours';
import { SETTINGS_ID } from '@/db/defaults';
import { getDocument, listDocuments } from '@/db/documents';
import { shelfLifeOf } from '@/db/bookPour';
import { bottlesTakenBy } from '@/db/stock';
import type { Database } from '@/db/storage';
import { wallClockNow } from './clock';
import { copiesNow } from './copies';
import { withData } from './data';
import { measuredDays } from './measuredRoom';
import { answer, RequestError } from './respond';
import { statesOfRuns } from './runs';

const askedSchema = z.object({
  batch: z.string().min(1).max(40),
  design: z.string().min(1).max(40),
  copy: z.coerce.number().int().min(1).max(100_000),
  finding: z.enum(FINDINGS),
});

const MINUTES_PER_MONTH = 43_800;

/** Months by which the lots that a batch took were past their dates when it was first poured; less than 0: good for so long. */
function monthsPast(db: Database, batchId: string, pouredAt: string): number[] {
  return bottlesTakenBy(db, batchId).flatMap(({ lot }) => {
    const until = goodUntil(lot, shelfLifeOf(db, lot.of));
    return until ? [(wallMinutes(pouredAt) - wallMinutes(`${until}T00:00`)) / MINUTES_PER_MONTH] : [];
  });
}

/** What is on record of a batch, with the batch itself; throws where nothing of it is poured. */
export function recordOfBatch(db: Database, batchId: string): { setId: string; row: BatchRow; record: BatchRecord } {
  const row = getBatch(db, batchId);
  const setId = setOfBatch(db, batchId);
  const { kept, pours } = batchDetail(db, batchId);
  const first = pours[0];
  if (!row || !setId || !kept || !first) throw new RequestError(404, 'Nothing is poured of this batch.');
  const record = {
    ...kept,
    pours,
    runs: statesOfRuns(db, batchId),
    days: measuredDays(wallClockNow()),
    monthsPast: monthsPast(db, batchId, first.pouredAt),
  };
  return { setId, row, record };
}

/** Why a copy has a finding. */
function why(asked: z.infer<typeof askedSchema>): Why {
  const { batch: batchId, design: designId, copy, finding } = asked;
  return withData((db) => {
    const { setId, row, record } = recordOfBatch(db, batchId);
    const now = wallClockNow();
    const held = copiesNow(db, setId).find(
      (one) => one.batchId === batchId && one.designId === designId && one.copy === copy,
    );
    const settings = getDocument(db, 'settings', SETTINGS_ID)?.data;
    return whyOf(record, row.data, { designId, copy }, finding, {
      now,
      curedAt: held?.curedAt ?? null,
      weights: settings?.causeWeights,
      products: listDocuments(db, 'product').records.map(({ data }) => data),
      stepMinutes: settings?.stepMinutes,
      route: getDocument(db, 'set', setId)?.data.route,
    });
  });
}

export const whyAnswer = (request: Request): Promise<Response> =>
  answer(() => why(askedSchema.parse(Object.fromEntries(new URL(request.url).searchParams))));
