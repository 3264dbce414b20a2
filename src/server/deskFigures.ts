import type { StripPiece } from '@/core/picture/strip';
import type { Amounts } from '@/core/plan';
import { batchRequest, setMatchRequest, wholeSetRequest } from '@/core/records/buildRequest';
import type { BatchDetail, BatchRow, DeskView } from '@/core/records/views';
import { slimMatch, type MatchSet } from '@/core/seams/matchSet';
import { amountsOf, inTime, matchOf, stripOf } from './figures';
import { deskView, openBatch } from './views';

type Arriving<T> = T | { later: Promise<T> } | null;

/** A whole set is not poured in one go: its cups are nobody's. */
const withoutCups = (amounts: Amounts): Amounts => ({
  ...amounts,
  layers: amounts.layers.map((layer) => ({ ...layer, cups: [] })),
});

/** What every stage of a set shows: the amounts of all its pieces, and its strip. */
export async function deskFigures(view: DeskView): Promise<{ plan: Arriving<Amounts>; strip: StripPiece[] | null }> {
  const request = wholeSetRequest(view);
  const plan = request && inTime(amountsOf(request).then(withoutCups));
  const strip = await inTime(stripOf(view, {}));
  return { plan: await plan, strip: 'later' in strip ? null : strip };
}

/** A batch as its stages get it: what is known of it, and its amounts when they were not kept. */
export interface StageBatch {
  row: BatchRow;
  detail: BatchDetail;
  amounts: Arriving<Amounts>;
}

/** The batch that a stage shows; null when the set has none. */
export async function stageBatch(setId: string, batchId: string | null): Promise<StageBatch | null> {
  const desk = deskView(setId);
  const opened = desk && openBatch(setId, batchId);
  if (!desk || !opened) return null;
  const request = opened.detail.kept ? null : batchRequest(desk, opened.row.data, opened.detail);
  return { ...opened, amounts: request && (await inTime(amountsOf(request))) };
}

/** The seams of a set for its first paint: the worst of those that matter, and the row. */
export async function stageMatch(setId: string): Promise<Arriving<MatchSet>> {
  const desk = deskView(setId);
  return desk && desk.designs.length > 0 ? inTime<MatchSet>(matchOf(setMatchRequest(desk)).then(slimMatch)) : null;
}
