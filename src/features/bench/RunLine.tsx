'use client';

import Link from 'next/link';
import { useEffect, useState } from 'react';
import type { RunSummary } from '@/core/run/views';
import { clockDigits, wallWords } from '@/ui/alarm/clockWords';
import styles from './BenchStage.module.css';

const TICK_MS = 1000;

/** A run in a list: what is next in it, and the clock that waits. */
export function RunLine({
  run,
  serverNow,
  withSet = false,
}: {
  run: RunSummary;
  serverNow: number;
  /** Runs of several sets stand beside each other. */
  withSet?: boolean;
}) {
  const [now, setNow] = useState(serverNow);
  const live = run.overAt === null && run.clocks.length > 0;
  useEffect(() => {
    if (!live) return;
    const ahead = serverNow - performance.now();
    const timer = setInterval(() => setNow(performance.now() + ahead), TICK_MS);
    return () => clearInterval(timer);
  }, [live, serverNow]);
  const [clock] = run.clocks;
  const due = clock ? (clock.snoozedTo ?? clock.due) : null;
  return (
    <li>
      <Link href={`/run/${run.id}`} className={styles.run}>
        <b>{run.name}</b>
        {withSet && ` ${run.set}`}
        {run.practiceSpeed !== null && <i>practice</i>}
      </Link>
      <span>{run.next}</span>
      <span className={styles.when} suppressHydrationWarning>
        {due !== null && run.overAt === null
          ? `${clock!.kind} ${due - now < 3_600_000 ? clockDigits(due - now) : wallWords(due, now)}`
          : run.overAt === null
            ? `begun ${wallWords(run.begunAt, now)}`
            : wallWords(run.overAt, now)}
      </span>
    </li>
  );
}
