'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { amountsKey, fingerprint, type Amounts, type PlanRequest } from '@/core/plan';
import { planInWorker } from '@/workers/planner';

/** Figures that came with the page, or are still to come; null when there are none to come. */
export type Arriving<T> = T | { later: Promise<T> } | null;

export const arrived = <T extends object>(figures: Arriving<T>): T | null =>
  figures !== null && !('later' in figures) ? figures : null;

/**
 * Figures that were still to come when the page was made and are there by now: what a page brings tells at once once it has arrived.
 * Not for a first picture, which is the server's.
 */
export function arrivedSince<T extends object>(figures: Arriving<T>): T | null {
  const there = arrived(figures);
  if (there || figures === null) return there;
  let now: T | null = null;
  (figures as { later: Promise<T> }).later.then((value) => (now = value), reportError);
  return now;
}

/** Figures from the server: what they were worked out from, by its fingerprint, and whether they are only a first look. */
export interface Served<T> {
  from: string;
  figures: Arriving<T>;
  partial: boolean;
}

/**
 * The amounts of a request. What the server worked out of it is shown first; from then on a worker does it, on the full grid. While
 * newer ones are on their way the last stay, unless they were of another `subject`. Another time of pouring is no other request.
 * `later` are figures that still come in with the page: a part that reads them with `use` stands in its HTML as soon as they are there.
 */
export function useAmounts(
  request: PlanRequest | null,
  served: Served<Amounts> | null,
  subject = '',
): { amounts: Amounts | null; planning: boolean; later: Promise<Amounts> | null } {
  const key = useMemo(() => request && amountsKey(request), [request]);
  const ours = useMemo(() => (served && key && served.from === fingerprint(key) ? served : null), [served, key]);
  const [lane] = useState(() => Symbol('plan'));
  const [done, setDone] = useState<{ key: string; subject: string; amounts: Amounts } | null>(null);
  const newest = useRef(request);
  useEffect(() => {
    newest.current = request;
  });
  const first = ours && arrived(ours.figures);
  // What was shown stays after an edit, until the next figures are there; what never held here is not shown at all.
  const [held, setHeld] = useState<{ subject: string; amounts: Amounts } | null>(null);
  if (first && (held?.amounts !== first || held.subject !== subject)) setHeld({ subject, amounts: first });
  const last = held?.subject === subject ? held.amounts : null;
  const whole = first !== null && ours !== null && !ours.partial;
  useEffect(() => {
    if (key === null || whole) return;
    let current = true;
    const show = (amounts: Amounts | null): void => {
      if (current && amounts) setDone({ key, subject, amounts });
    };
    const later = ours?.figures && 'later' in ours.figures ? ours.figures.later : null;
    if (later && !ours!.partial) later.then(show, reportError);
    else {
      later?.then((amounts) => current && setDone((now) => now ?? { key, subject, amounts }), reportError);
      if (newest.current) planInWorker(lane, newest.current).then(show, reportError);
    }
    return () => {
      current = false;
    };
  }, [key, subject, lane, ours, whole]);
  const known = done?.subject === subject ? done : null;
  const shown = known?.key === key ? known.amounts : (first ?? known?.amounts ?? last);
  return {
    amounts: key === null ? null : shown,
    later: ours?.figures && 'later' in ours.figures ? ours.figures.later : null,
    planning: key !== null && !whole && done?.key !== key,
  };
}
