'use client';

import { useEffect, useMemo, useState } from 'react';
import { shortTime } from '@/core/time/dayNames';
import { toWallTime, wallMinutes } from '@/core/time/wallTime';
import type { WeekSheetView } from '@/core/records/views';
import { eveningsOf } from '@/core/schedule/evenings';
import type { SchedulePlan, ScheduleRequest } from '@/core/schedule/scheduleRequest';
import { formatMinutes } from '@/core/units/formatMeasure';
import { Toggles } from '@/ui/controls/Toggles';
import { PrintFrame } from '@/ui/print/PrintFrame';
import { planInWorker } from '@/workers/scheduler';
import styles from './WeekSheet.module.css';

/** A plan that is only proposed is the one that the screen comes to: it is looked for in the same way. */
function useBest(
  request: ScheduleRequest,
  first: SchedulePlan | null,
  kept: boolean,
): { plan: SchedulePlan | null; looking: boolean } {
  const [best, setBest] = useState<{ plan: SchedulePlan | null; looking: boolean }>({ plan: first, looking: !kept });
  useEffect(() => {
    if (kept) return;
    const run = planInWorker(request, (plan) => setBest({ plan, looking: true }));
    void run.result.then((plan) => setBest({ plan, looking: false }), reportError);
    return () => run.end();
  }, [request, kept]);
  return best;
}

const WEEKS = [
  { value: '1', label: 'one week' },
  { value: '2', label: 'two' },
  { value: '52', label: 'all' },
] as const;

/** The coming week at the bench, to hang over it: each evening with its steps to tick off, and what flows overnight. */
export function WeekSheet({ setId, request, plan: first, kept }: WeekSheetView) {
  const { plan, looking } = useBest(request, first, kept);
  const [weeks, setWeeks] = useState<(typeof WEEKS)[number]['value']>('1');
  const evenings = useMemo(() => {
    const until = toWallTime(wallMinutes(request.now) + Number(weeks) * 7 * 1440);
    if (!plan) return [];
    return eveningsOf(request, plan).evenings.filter(
      ({ from, to, blocks }) => to > request.now && from < until && blocks.some(({ step }) => !step.done),
    );
  }, [request, plan, weeks]);
  const stops = (plan?.problems ?? []).filter(({ severity }) => severity !== 'hint');
  return (
    <PrintFrame
      label="The week at the bench"
      back={`/sets/${setId}/cure`}
      backTo="Back to Cure"
      tools={<Toggles label="How much of it" value={weeks} choices={WEEKS} onChoose={setWeeks} />}
    >
      {() => (
        <article className={styles.sheet}>
          <h1>The week at the bench</h1>
          <p className={styles.from}>
            From {shortTime(request.now)}.{' '}
            {looking && <b role="status">Looking for a better plan, wait with printing. </b>}
            {kept ? 'As kept.' : 'A proposal: nothing of it is kept yet.'}{' '}
            {plan?.readyAt && `All ready ${shortTime(plan.readyAt)}.`}
          </p>
          {plan && evenings.length === 0 && <p>Nothing is to be done in this time.</p>}
          {evenings.map(({ from, to, blocks, workedMinutes }) => (
            <section key={from}>
              <h2>
                {shortTime(from).split(',')[0]}
                <span>
                  {from.slice(11)} to {to.slice(11)}, {formatMinutes(workedMinutes)} of work
                </span>
              </h2>
              <ol>
                {blocks
                  .filter(({ step }) => !step.done)
                  .map(({ step, part, parts, name, batch, from: at, minutes }) => (
                    <li key={`${step.batchId} ${step.stepId} ${part}`}>
                      <i aria-hidden="true" />
                      <b>{at.slice(11)}</b>
                      <span>
                        {name}
                        {parts > 1 && `, part ${part + 1} of ${parts}`}, {batch}
                        {step.closesAt && <em> not after {shortTime(step.closesAt)}</em>}
                      </span>
                      <span className={styles.minutes}>{formatMinutes(minutes)}</span>
                    </li>
                  ))}
              </ol>
            </section>
          ))}
          {stops.length > 0 && (
            <ul className={styles.care}>
              {stops.map(({ message }) => (
                <li key={message}>{message}</li>
              ))}
            </ul>
          )}
          <p className={styles.foot}>
            Labels, safety data sheets and local rules come first. Gloves, eye protection and air while anything is wet;
            mask for sanding; no flame near solvents. Times are planning aids, not safety limits.
          </p>
        </article>
      )}
    </PrintFrame>
  );
}
