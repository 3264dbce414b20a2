'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { amountsKey, type Amounts, type PlanRequest } from '@/core/plan';
import { planInWorker } from '@/workers/planner';

/** Figures that came with the page, or are still to come; null when there are none to come. */
export type Arriving<T> = T | { later: Promise<T> } | null;

export const arrived = <T extends object>(figures: Arriving<T>): T | null =>
  figures !== null && !('later' in figures) ? figures : null;

/**
 * The amounts of a request. What the server worked out is shown first; from then on a worker does it, on the full grid. While newer
 * ones are on their way the last stay, unless they were of another `subject`. Another time of pouring is no other request.
 */
export function useAmounts(
  request: PlanRequest | null,
  served: Arriving<Amounts>,
  subject = '',
): { amounts: Amounts | null; planning: boolean } {
  const key = useMemo(() => request && amountsKey(request), [request]);
  const [lane] = useState(() => Symbol('plan'));
  const [done, setDone] = useState<{ key: string; subject: string; amounts: Amounts } | null>(() => {
    const first = arrived(served);
    return first && key ? { key, subject, amounts: first } : null;
  });
  /** What the server's figures are of: the first request of each subject that they came for. */
  const servedFor = useRef<{ served: Arriving<Amounts>; key: string | null }>({ served, key });
  const newest = useRef(request);
  useEffect(() => {
    newest.current = request;
  });
  useEffect(() => {
    if (servedFor.current.served !== served) servedFor.current = { served, key };
    if (key === null) return;
    let current = true;
    const show = (amounts: Amounts | null): void => {
      if (current && amounts) setDone({ key, subject, amounts });
    };
    const fromServer = servedFor.current.key === key ? served : null;
    if (fromServer && 'later' in fromServer) fromServer.later.then(show, reportError);
    else if (fromServer) show(fromServer);
    else if (newest.current) planInWorker(lane, newest.current).then(show, reportError);
    return () => {
      current = false;
    };
  }, [key, subject, lane, served]);
  return {
    amounts: key !== null && done?.subject === subject ? done.amounts : null,
    planning: key !== null && done?.key !== key,
  };
}
