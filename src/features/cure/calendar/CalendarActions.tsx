'use client';

import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Link from 'next/link';
import { shortTime } from '@/core/time/dayNames';
import { saveFile } from '@/ui/saveFile';
import { useDesk } from '../../desk/DeskContext';
import type { Calendar } from './useCalendar';
import styles from './CalendarPart.module.css';

/** What stands between the plan and its being kept: what would be if, the search for a better one, files and paper. */
export function CalendarActions({
  request,
  plan,
  kept,
  whatIf,
  looking,
  stop,
  planAnew,
  keep,
  letBe,
  batches,
}: Calendar) {
  const { desk } = useDesk();
  const ics = async (): Promise<void> => {
    if (!request || !plan) return;
    const { icsOf } = await import('@/core/formats/icsFile');
    saveFile('bench.ics', icsOf(request, plan, request.now), 'text/calendar');
  };
  const overdue = plan?.problems.some(({ code }) => code === 'step-overdue') ?? false;
  const breaks = plan?.problems.filter(({ severity }) => severity === 'stop').length ?? 0;
  return (
    <div className={styles.actions} data-if={whatIf !== null || undefined}>
      {whatIf ? (
        <>
          <p role="status">
            <b>What if:</b> {whatIf.words}.{' '}
            {whatIf.moved === 0
              ? 'Nothing else moves.'
              : `${whatIf.moved} ${whatIf.moved === 1 ? 'step moves' : 'steps move'}.`}{' '}
            {whatIf.plan.readyAt && `All ready ${shortTime(whatIf.plan.readyAt)}.`}
            {breaks > 0 && (
              <strong> {breaks === 1 ? 'One thing breaks' : `${breaks} things break`}: see at the right.</strong>
            )}
          </p>
          <Button variant="contained" size="small" onClick={keep}>
            Keep it
          </Button>
          <Button size="small" onClick={letBe}>
            Let it be
          </Button>
        </>
      ) : (
        <>
          <p role="status">
            {looking !== null
              ? 'Looking for a better plan'
              : kept
                ? `Kept ${keptWords(batches)}. ${overdue ? 'Something that was planned has not been marked.' : ''}`
                : 'A proposal: nothing of it is kept yet.'}
          </p>
          {!kept && plan && plan.steps.length > 0 && (
            <Button variant="contained" size="small" onClick={keep} disabled={looking !== null}>
              Keep this calendar
            </Button>
          )}
          {kept && (
            <Button size="small" variant={overdue ? 'contained' : 'text'} onClick={planAnew}>
              Plan anew from now
            </Button>
          )}
          <Button size="small" variant="text" onClick={() => void ics()}>
            Calendar file
          </Button>
          <Link className={styles.link} href={`/week/${desk.set.id}`}>
            Print the week
          </Link>
        </>
      )}
      {looking !== null && (
        <>
          <LinearProgress
            className={styles.progress}
            variant="determinate"
            value={Math.min(100, looking * 100)}
            aria-label="Search for a better plan"
          />
          <Button size="small" onClick={stop}>
            Stop there
          </Button>
        </>
      )}
    </div>
  );
}

function keptWords(batches: Calendar['batches']): string {
  const at = batches.reduce<string>(
    (last, { course }) => ((course.kept?.at ?? '') > last ? course.kept!.at : last),
    '',
  );
  return at === '' ? '' : shortTime(at);
}
