'use client';

import { useFetched } from '@/ui/useFetched';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import type { RunSummary } from '@/core/run/views';
import { isRinging } from '@/core/run/clocks';
import { readySound } from '@/ui/alarm/alarm';
import { clockDigits } from '@/ui/alarm/clockWords';
import { useAlarm } from '@/ui/alarm/useAlarm';
import styles from './BenchBell.module.css';

/** Runs are asked for so often: each listener would take one of the browser's few connections. */
const ASK_MS = 20_000;
const TICK_MS = 1000;
/** Clocks that are further off are not yet the desk's business. */
const NEAR_MS = 3_600_000;

/** What rings at the bench while one sits at the desk, and what will within the hour; leads to its run. */
export function BenchBell() {
  const { data, readAt } = useFetched<{ runs: RunSummary[]; serverNow: number }>('/api/runs', '', ASK_MS);
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (!data) return undefined;
    const ahead = data.serverNow - readAt;
    const ticking = setInterval(() => setNow(Date.now() + ahead), TICK_MS);
    return () => clearInterval(ticking);
  }, [data, readAt]);
  const runs = now === 0 ? [] : (data?.runs ?? []);
  const clocks = runs
    .flatMap((run) => run.clocks.map((clock) => ({ ...clock, run, key: `${run.id}/${clock.id}` })))
    .sort((a, b) => (a.snoozedTo ?? a.due) - (b.snoozedTo ?? b.due));
  const awaited = clocks.length > 0;
  useEffect(() => {
    // To open the sound takes the browser a tenth of a second of the first press: only where something may ring.
    if (!awaited) return undefined;
    document.addEventListener('pointerdown', readySound);
    return () => document.removeEventListener('pointerdown', readySound);
  }, [awaited]);
  const ringing = clocks.find((clock) => isRinging(clock, now)) ?? null;
  useAlarm(ringing, null);
  const next = clocks[0];
  if (!next) return null;
  const left = (next.snoozedTo ?? next.due) - now;
  if (!ringing && left > NEAR_MS) return null;
  return (
    <Link
      href={`/run/${next.run.id}`}
      className={styles.bell}
      data-rings={ringing !== null}
      role={ringing ? 'alert' : undefined}
    >
      <b>{clockDigits(left)}</b> {`${next.run.set}, ${next.run.name}: ${ringing ? ringing.words : next.name}`}
    </Link>
  );
}
