'use client';

import { Suspense, use, useMemo, useState, type ReactNode } from 'react';
import { planTimes, withTimes, type Plan, type PlanRequest } from '@/core/plan';
import type { BatchRow } from '@/core/records/views';
import type { OpenBatch } from './useBatch';

/** A batch of which everything is known that its stages show. */
export interface PlannedBatch {
  batch: BatchRow;
  request: PlanRequest;
  plan: Plan;
}

interface BatchPlanProps {
  open: OpenBatch;
  held: ReactNode;
  children: (planned: PlannedBatch) => ReactNode;
}

/**
 * What is shown of a planned batch. Figures that come in after the page's head stand in its HTML as soon as they are there, before
 * the page is awake; until then the held shape does.
 */
export function BatchPlan(props: BatchPlanProps) {
  // Figures that are there go without a boundary: a long one would be held back for the head of the page.
  const [waits] = useState(props.open.later !== null);
  if (!waits) return <Planned {...props} />;
  return (
    <Suspense fallback={props.held}>
      <Planned {...props} />
    </Suspense>
  );
}

function Planned({ open: { batch, request, plan: known, later }, held, children }: BatchPlanProps) {
  const amounts = later ? use(later) : null;
  const plan = useMemo(
    () => known ?? (amounts && request ? withTimes(amounts, planTimes(amounts, request)) : null),
    [known, amounts, request],
  );
  return batch && request && plan ? children({ batch, request, plan }) : held;
}
