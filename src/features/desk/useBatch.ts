'use client';

import { useRouter, useSearchParams } from 'next/navigation';
import { useMemo } from 'react';
import type { Plan, PlanRequest } from '@/core/plan';
import { batchRequest } from '@/core/records/buildRequest';
import type { Batch, Stored } from '@/core/records/schema';
import { useDesk } from './DeskContext';
import { usePlan } from './usePlan';

/** The batch on the screen, its request and its plan; which one it is stands in the address. */
export function useBatch(): {
  batch: Stored<Batch> | null;
  request: PlanRequest | null;
  plan: Plan | null;
  planning: boolean;
  choose: (id: string) => void;
} {
  const { desk } = useDesk();
  const router = useRouter();
  const wanted = useSearchParams().get('batch');
  const batch =
    desk.batches.find(({ id }) => id === wanted) ??
    desk.batches.find(({ data }) => data.pours.length === 0) ??
    desk.batches[0] ??
    null;
  const request = useMemo(() => batch && batchRequest(desk, batch.data), [desk, batch]);
  const { plan, planning } = usePlan(request, null, batch?.id);
  return { batch, request, plan, planning, choose: (id) => router.replace(`?batch=${id}`, { scroll: false }) };
}
