import { packStrip, type PackedStrip } from '@/core/picture/packedStrip';
import { amountsKey, fingerprint, isExtract, slimAmounts, type Amounts, type PlanRequest } from '@/core/plan';
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

/** From this share of a set's designs on, batches are quicker worked out on the beds that their set has just been. */
const MUCH_OF_THE_SET = 1 / 3;

/**
 * The amounts of some batches of a set, in their order. The frame of its page asks for those of the whole set at the same time: where
 * the batches take much of it, they wait for them and come one after another, as their thread then has the beds. On two threads at
 * once each bed would be built twice.
 */
export async function amountsTogether(desk: DeskView, requests: readonly PlanRequest[]): Promise<Amounts[]> {
  const whole = wholeSetRequest(desk);
  const taken = new Set(requests.flatMap(({ pieces }) => pieces.map(({ designId }) => designId)));
  if (whole && taken.size / Math.max(1, desk.designs.length) >= MUCH_OF_THE_SET)
    await amountsOf(whole).catch(() => undefined);
  const all: Amounts[] = [];
  for (const request of requests) all.push(await amountsOf(request));
  return all;
}

/** The amounts of one batch. */
export const batchAmounts = async (desk: DeskView, request: PlanRequest): Promise<Amounts> =>
  (await amountsTogether(desk, [request]))[0]!;

/** The batch that a stage shows; null when the set has none. */
export async function stageBatch(setId: string, batchId: string | null): Promise<StageBatch | null> {
  const desk = deskView(setId);
  const opened = desk && openBatch(setId, batchId);
  if (!desk || !opened) return null;
  const request = opened.detail.kept ? null : batchRequest(desk, opened.row.data, opened.detail);
  const amounts = request && {
    from: fingerprint(amountsKey(request)),
    figures: await inTime(batchAmounts(desk, request)),
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
