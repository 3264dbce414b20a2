'use client';

import { CLOCK_KINDS } from '@/core/run/clocks';
import { clockDigits, wallWords } from '@/ui/alarm/clockWords';
import type { BenchClock } from './useRun';
import styles from './RunScreen.module.css';

const MOST = 4;
interface ClockStripProps {
  clocks: readonly BenchClock[];
  now: number;
  real: (moment: number) => number;
  /** Clocks that the step itself shows large. */
  skip: string | null;
}

/** What waits, the next due first; far ones with their time on the wall. */
export function ClockStrip({ clocks, now, real, skip }: ClockStripProps) {
  const shown = clocks.filter(
    ({ kind, id, run }) =>
      run !== null || !(CLOCK_KINDS[kind].ofStep || (skip && id.startsWith(skip) && CLOCK_KINDS[kind].potLife)),
  );
  if (shown.length === 0) return null;
  return (
    <ul className={styles.clocks} aria-label="Clocks">
      {shown.slice(0, MOST).map((clock) => {
        const due = clock.snoozedTo ?? clock.due;
        const left = due - now;
        return (
          <li key={clock.key} data-due={left <= 0}>
            <b>{left < 3_600_000 ? clockDigits(left) : wallWords(real(due), real(now))}</b>
            <span>
              {CLOCK_KINDS[clock.kind].name} {clock.kind === 'timer' ? clock.name : clock.name.replace('the water', '')}
              {clock.run && `, ${clock.run}`}
            </span>
          </li>
        );
      })}
      {shown.length > MOST && <li className={styles.moreClocks}>{shown.length - MOST} more</li>}
    </ul>
  );
}
