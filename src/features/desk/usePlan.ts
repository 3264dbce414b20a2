'use client';

import { useEffect, useRef, useState } from 'react';
import type { Plan, PlanRequest } from '@/core/plan';
import { planInWorker } from '@/workers/planner';

/**
 * The plan of a request on the full grid, worked out in a worker. `initial` is shown first (the server's own);
 * while a newer one is on its way the last one stays.
 */
export function usePlan(request: PlanRequest | null, initial: Plan | null): { plan: Plan | null; planning: boolean } {
  const key = request ? JSON.stringify(request) : null;
  const first = useRef(initial ? key : null);
  const [done, setDone] = useState<{ key: string; plan: Plan } | null>(initial && key ? { key, plan: initial } : null);
  useEffect(() => {
    if (key === null || key === first.current) return;
    first.current = null;
    let current = true;
    planInWorker(JSON.parse(key) as PlanRequest).then(
      (plan) => current && plan && setDone({ key, plan }),
      (error: unknown) => reportError(error),
    );
    return () => {
      current = false;
    };
  }, [key]);
  return { plan: key === null ? null : (done?.plan ?? null), planning: key !== null && done?.key !== key };
}
