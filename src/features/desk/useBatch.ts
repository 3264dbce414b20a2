'use client';

import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useMemo } from 'react';
import { planTimes, withTimes, type Amounts, type Plan, type PlanRequest } from '@/core/plan';
import { batchRequest } from '@/core/records/buildRequest';
import type { BatchDetail, BatchRow } from '@/core/records/views';
import { useDesk } from './DeskContext';
import { useAmounts, type Served } from './useAmounts';

/** What a stage gets from the server of the batch that it shows. */
export interface ServedBatch {
  row: BatchRow;
  detail: BatchDetail;
  /** Null when the plan was kept (it is in the detail), or when there is nothing to plan. */
  amounts: Served<Amounts> | null;
}

/** The batch on the screen, its request and its plan; which one it is stands in the address. */
export interface OpenBatch {
  batch: BatchRow | null;
  detail: BatchDetail | null;
  request: PlanRequest | null;
  plan: Plan | null;
  planning: boolean;
  /** Amounts that still come in with the page. */
  later: Promise<Amounts> | null;
  choose: (id: string) => void;
}

export function useBatch(served: ServedBatch | null): OpenBatch {
  const { desk, edits } = useDesk();
  const router = useRouter();
  const params = useSearchParams();
  const wanted = params.get('batch');
  const { show } = edits;
  const batch =
    desk.batches.find(({ id }) => id === wanted) ??
    desk.batches.find(({ id }) => id === served?.row.id) ??
    (served && wanted === served.row.id ? served.row : null) ??
    desk.batches[0] ??
    null;
  const ours = served !== null && batch?.id === served.row.id ? served : null;
  // What is open on the desk is newer than what came with the page, once it is of the same batch.
  const detail = desk.opened?.batchId === batch?.id ? desk.opened : (ours?.detail ?? null);
  useEffect(() => {
    if (ours) show((view) => (view.opened?.batchId === ours.row.id ? view : { ...view, opened: ours.detail }));
  }, [ours, show]);
  // A plan that has just been kept is read once, and so is a batch that was fetched ahead and has been poured since.
  const behind =
    batch !== null &&
    detail !== null &&
    ((detail.pours.length > 0 && detail.kept === null) || detail.pours.length !== (batch.poured?.begun ?? 0));
  const batchId = batch?.id;
  useEffect(() => {
    if (!behind || !batchId) return;
    void readDetail(batchId).then(
      (read) => read && show((view) => (view.opened?.batchId === batchId ? { ...view, opened: read } : view)),
    );
  }, [behind, batchId, show]);
  const request = useMemo(() => batch && batchRequest(desk, batch.data, detail), [desk, batch, detail]);
  const kept = detail?.kept?.amounts ?? null;
  const { amounts, planning, later } = useAmounts(kept ? null : request, ours?.amounts ?? null, batch?.id);
  const figures = kept ?? amounts;
  const plan = useMemo(
    () => (request && figures ? withTimes(figures, planTimes(figures, request)) : null),
    [request, figures],
  );
  // The part of the stage that is open stays open.
  const choose = (id: string): void => {
    const next = new URLSearchParams(params);
    next.set('batch', id);
    router.replace(`?${next.toString()}`, { scroll: false });
  };
  return { batch, detail, request, plan, planning: kept === null && planning, later: kept ? null : later, choose };
}

/** What is kept of a batch; null when it is gone. */
export async function readDetail(batchId: string): Promise<BatchDetail | null> {
  const response = await fetch(`/api/batches/${encodeURIComponent(batchId)}`);
  return response.ok ? ((await response.json()) as BatchDetail) : null;
}
