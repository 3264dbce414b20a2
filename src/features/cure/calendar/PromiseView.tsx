'use client';

import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useRef, useState } from 'react';
import { shortTime } from '@/core/time/dayNames';
import { explainPromise } from '@/core/schedule/explain';
import { waysToBeSooner, quickerProducts, type SoonerBy } from '@/core/schedule/soonerBy';
import type { PromiseFigures, Promised } from '@/core/schedule/promise';
import type { SchedulePlan, ScheduleRequest } from '@/core/schedule/scheduleRequest';
import type { CalendarBatch, CalendarWorkshop } from '@/core/schedule/workplace';
import { formatMinutes } from '@/core/units/formatMeasure';
import { Reading, Readings } from '@/ui/reading/Reading';
import { useDesk } from '../../desk/DeskContext';
import { waysInWorker, promiseInWorker, type Underway } from '@/workers/scheduler';
import styles from './CalendarPart.module.css';

interface PromiseViewProps {
  request: ScheduleRequest;
  plan: SchedulePlan;
  batches: readonly CalendarBatch[];
  workshop: CalendarWorkshop;
}

const TRIES = 60;

/** Earliest, likely and safe end, and what would bring it forward: worked out when the view is opened. */
export function PromiseView({ request, plan, batches, workshop }: PromiseViewProps) {
  const { desk } = useDesk();
  const [count, setCount] = useState(1);
  const [tries, setTries] = useState(0);
  const [promised, setPromised] = useState<Promised | null>(null);
  const [tried, setTried] = useState<SoonerBy[]>([]);
  const [trying, setTrying] = useState<'not asked' | 'under way' | 'done'>('not asked');
  const ways = useRef<Underway<SoonerBy[]> | null>(null);
  useEffect(() => {
    let stale = false;
    const run = promiseInWorker(request, plan, (done) => !stale && setTries(done));
    void run.result.then((result) => !stale && setPromised(result), reportError);
    return () => {
      stale = true;
      run.end();
    };
  }, [request, plan]);
  useEffect(() => () => ways.current?.end(), []);
  const ask = (): void => {
    setTried([]);
    setTrying('under way');
    const all = [...waysToBeSooner(request), ...quickerProducts(batches, workshop, desk.shelf.products)];
    setCount(all.length);
    const run = waysInWorker(plan, all, (one) => setTried((all) => [...all, one]));
    ways.current = run;
    void run.result.then(() => setTrying('done'), reportError);
  };
  const best = [...tried].sort((a, b) => b.lessLateMinutes - a.lessLateMinutes || b.soonerMinutes - a.soonerMinutes);
  return (
    <div className={styles.promise}>
      <section aria-label="What may be promised">
        <h2 className={styles.heading}>What may be promised</h2>
        {!promised && (
          <div className={styles.waiting} role="status">
            <p className={styles.soft}>
              Weeks as weeks go: {tries} of {TRIES} tries
            </p>
            <LinearProgress variant="determinate" value={(100 * tries) / TRIES} aria-label="Tries" />
          </div>
        )}
        {promised && (
          <div className={styles.promises}>
            <Figures title="All of it" figures={promised.all} due={null} />
            {promised.batches.length > 1 &&
              promised.batches.map(({ batchId, ...figures }) => {
                const batch = batches.find(({ id }) => id === batchId);
                return (
                  <Figures key={batchId} title={batch?.name ?? batchId} figures={figures} due={batch?.due ?? null} />
                );
              })}
          </div>
        )}
      </section>
      <section aria-label="What would bring it forward">
        <h2 className={styles.heading}>What would bring it forward</h2>
        {trying === 'not asked' ? (
          <div className={styles.waiting}>
            <p className={styles.soft}>
              Each is planned through anew: more dam kits or level place, an evening more, a second pair of hands,
              warmer nights. It takes some seconds.
            </p>
            <Button variant="outlined" onClick={ask}>
              Work it out
            </Button>
          </div>
        ) : (
          <>
            {trying === 'under way' && (
              <LinearProgress
                variant="determinate"
                value={(100 * tried.length) / Math.max(1, count)}
                aria-label="Ways to bring it forward"
              />
            )}
            <ul className={styles.ways} aria-busy={trying === 'under way'}>
              {best.map(({ id, words, readyAt, soonerMinutes, lessLateMinutes, benchDays }) => (
                <li key={id} data-idle={(soonerMinutes === 0 && lessLateMinutes === 0) || undefined}>
                  <b>{words}</b>
                  <span>
                    {soonerMinutes > 0
                      ? `${formatMinutes(soonerMinutes)} sooner, ${readyAt ? shortTime(readyAt) : ''}, ${benchDays} bench days`
                      : 'no sooner'}
                    {lessLateMinutes > 0 && `; ${formatMinutes(lessLateMinutes)} less late`}
                  </span>
                </li>
              ))}
            </ul>
          </>
        )}
      </section>
    </div>
  );
}

function Figures({ title, figures, due }: { title: string; figures: PromiseFigures; due: string | null }) {
  const { earliest, likely, safe, tries, inTime } = figures;
  const reading = (label: string, at: string, note?: string, strong = false) => (
    <Reading
      label={label}
      digits={shortTime(at).split(',')[0]!}
      unit={at.slice(11)}
      strong={strong}
      note={note}
      explain={() => explainPromise(tries)}
    />
  );
  return (
    <section aria-label={title}>
      <h3 className={styles.sub}>{title}</h3>
      <Readings>
        {reading('Earliest', earliest, 'if all goes as planned')}
        {reading('Likely', likely, 'half of the tries are ready by then')}
        {reading('Safe', safe, 'nine in ten are', true)}
        {due !== null && inTime !== null && (
          <Reading
            label="In time"
            digits={String(inTime)}
            unit={`of ${tries}`}
            note={`due ${shortTime(`${due}T00:00`).split(',')[0]}`}
            explain={() => explainPromise(tries)}
          />
        )}
      </Readings>
    </section>
  );
}
