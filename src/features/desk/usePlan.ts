'use client';

import { useEffect, useRef, useState } from 'react';
import type { Plan, PlanRequest } from '@/core/plan';
import { planInWorker } from '@/workers/planner';

/**
 * The plan of a request on the full grid, worked out in a worker. `initial` is shown first (the server's own);
 * while a newer one is on its way the last one stays, unless it was of another `subject`.
 */
export function usePlan(
  request: PlanRequest | null,
  initial: Plan | null,
  subject = '',
): { plan: Plan | null; planning: boolean } {
  const key = request ? JSON.stringify(request) : null;
  const first = useRef(initial ? key : null);
  const [lane] = useState(() => Symbol('plan'));
  const [done, setDone] = useState<{ key: string; subject: string; plan: Plan } | null>(
    initial && key ? { key, subject, plan: initial } : null,
  );
  useEffect(() => {
    if (key === null || key === first.current) return;
    first.current = null;
    let current = true;
    planInWorker(lane, JSON.parse(key) as PlanRequest).then(
      (plan) => current && plan && setDone({ key, subject, plan }),
      (error: unknown) => reportError(error),
    );
    return () => {
      current = false;
    };
  }, [key, subject, lane]);
  return {
    plan: key !== null && done?.subject === subject ? done.plan : null,
    planning: key !== null && done?.key !== key,
  };
}
