import { packStrip, type PackedStrip } from '@/core/picture/packedStrip';
import { amountsKey, fingerprint, isExtract, slimAmounts, type Amounts } from '@/core/plan';
import { batchRequest, setMatchRequest, wholeSetRequest } from '@/core/records/buildRequest';
import type { BatchDetail, BatchRow, DeskView } from '@/core/records/views';
import { slimMatch } from '@/core/seams/matchSet';
import { packMatch, type PackedMatch } from '@/core/seams/packedMatch';
import { amountsOf, inTime, matchOf, stripOf } from './figures';
import { deskView, openBatch } from './views';

/** Figures for a first paint: what they were worked out from, by its fingerprint; there in time, or still to come. */
interface Served<T> {
  from: string;
  figures: T | { later: Promise<T> };
  partial: boolean;
}

/** What every stage of a set shows: the amounts of all its pieces, and its strip. */
export async function deskFigures(
  view: DeskView,
): Promise<{ plan: Served<Amounts> | null; strip: PackedStrip | null }> {
  const request = wholeSetRequest(view);
  const slim = request && amountsOf(request).then((amounts) => slimAmounts(amounts).amounts);
  const [figures, strip] = await Promise.all([slim && inTime(slim), inTime(stripOf(view, {}))]);
  return {
    plan: request &&
      figures && { from: fingerprint(amountsKey(request)), figures, partial: isExtract(request.pieces.length) },
    strip: 'later' in strip ? null : packStrip(strip),
  };
}

/** A batch as its stages get it: what is known of it, and its amounts when they were not kept. */
export interface StageBatch {
  row: BatchRow;
  detail: BatchDetail;
  amounts: Served<Amounts> | null;
}

/** The batch that a stage shows; null when the set has none. */
export async function stageBatch(setId: string, batchId: string | null): Promise<StageBatch | null> {
  const desk = deskView(setId);
  const opened = desk && openBatch(setId, batchId);
  if (!desk || !opened) return null;
  const request = opened.detail.kept ? null : batchRequest(desk, opened.row.data, opened.detail);
  const amounts = request && {
    from: fingerprint(amountsKey(request)),
    figures: await inTime(amountsOf(request)),
    partial: false,
  };
  return { ...opened, amounts };
}

/** The seams of a set for its first paint: the worst of those that matter, and the row. */
export async function stageMatch(setId: string): Promise<Served<PackedMatch> | null> {
  const desk = deskView(setId);
  if (!desk || desk.designs.length === 0) return null;
  const request = setMatchRequest(desk);
  const figures = await inTime(matchOf(request).then((match) => packMatch(slimMatch(match))));
  return { from: fingerprint(JSON.stringify(request)), figures, partial: true };
}
