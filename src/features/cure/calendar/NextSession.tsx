'use client';

import Link from 'next/link';
import { shortTime } from '@/core/time/dayNames';
import { sessionOf } from '@/core/schedule/session';
import type { Evenings } from '@/core/schedule/evenings';
import type { SchedulePlan, ScheduleRequest } from '@/core/schedule/scheduleRequest';
import { formatMinutes } from '@/core/units/formatMeasure';
import styles from './CalendarPart.module.css';

/** The next time at the bench as a list: what to get ready, what to do in which order, what it waits for. */
export function NextSession({
  request,
  plan,
  evenings,
  setOf,
}: {
  request: ScheduleRequest;
  plan: SchedulePlan;
  evenings: Evenings;
  /** To which set a batch belongs. */
  setOf: (batchId: string) => string;
}) {
  const session = sessionOf(request, plan, evenings);
  if (!session) return null;
  return (
    <section aria-label="Next at the bench" className={styles.session}>
      <h2 className={styles.heading}>
        Next at the bench: {shortTime(session.from).split(',')[0]}, {session.from.slice(11)} to{' '}
        {session.until.slice(11)}
      </h2>
      {session.ready.length > 0 && (
        <p>
          <b>Get ready:</b> {session.ready.join(', ')}.
        </p>
      )}
      <ol>
        {session.steps.map(({ key, batchId, pours, at, name, batch, minutes, waitsFor, caution }) => (
          <li key={key}>
            <span className={styles.at}>{at.slice(11)}</span>
            <span>
              <b>{name}</b>, {batch}, {formatMinutes(minutes)}
              {pours && (
                <Link className={styles.begin} href={`/sets/${setOf(batchId)}/bench?batch=${batchId}`}>
                  At the bench
                </Link>
              )}
              {waitsFor && <span className={styles.soft}> · {waitsFor}</span>}
              {caution && <span className={styles.caution}>{caution}</span>}
            </span>
          </li>
        ))}
      </ol>
      {session.cautions.map((caution) => (
        <p key={caution} className={styles.soft}>
          {caution}
        </p>
      ))}
    </section>
  );
}
