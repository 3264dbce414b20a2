'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { lazy, Suspense, useMemo, useState } from 'react';
import { shortTime } from '@/core/time/dayNames';
import type { CalendarView } from '@/core/records/views';
import { eveningsOf } from '@/core/schedule/evenings';
import { explainBench, explainReady } from '@/core/schedule/explain';
import { stepKey } from '@/core/schedule/replan';
import { minutesText } from '@/core/units/formatMeasure';
import { NotRead } from '@/ui/held/NotRead';
import { Held } from '@/ui/held/Held';
import { Tick } from '@/ui/controls/Tick';
import { Toggles } from '@/ui/controls/Toggles';
import { Problems } from '@/ui/mark/Problems';
import { Reading, Readings } from '@/ui/reading/Reading';
import { useDesk } from '../../desk/DeskContext';
import type { CureView } from '@/features/cure/cureViews';
import { batchColours } from './batchColours';
import { CalendarActions } from './CalendarActions';
import { EveningsView } from './EveningsView';
import { ZOOMS, type Zoom } from './eveningLayout';
import { NextSession } from './NextSession';
import { StepPanel } from './StepPanel';
import { useCalendar, type Calendar } from './useCalendar';
import styles from './CalendarPart.module.css';

const TrueTime = lazy(async () => ({ default: (await import('./TrueTime')).TrueTime }));
const RouteEditor = lazy(async () => ({ default: (await import('./RouteEditor')).RouteEditor }));
const PromiseView = lazy(async () => ({ default: (await import('./PromiseView')).PromiseView }));
const SteadyView = lazy(async () => ({ default: (await import('./SteadyView')).SteadyView }));

/** The calendar in one of its views. What would be if goes along from view to view. */
export function CalendarPart({ view, served }: { view: CureView; served: CalendarView }) {
  const calendar = useCalendar(served);
  const { desk } = useDesk();
  const { request, plan } = calendar;
  if (view === 'route')
    return (
      <Suspense fallback={null}>
        <RouteEditor batches={calendar.batches} />
      </Suspense>
    );
  const again = calendar.readAgain;
  if (!calendar.known && again) return <NotRead what="What is being made could not be read." again={again} />;
  if (!calendar.known || (request && !plan)) return <Held label="Working out the calendar" />;
  if (!request || !plan) return <NothingPlanned />;
  if (plan.steps.length === 0)
    return (
      <div className={styles.blocked}>
        <Problems problems={plan.problems} />
        <p className={styles.ways}>
          <Link className={styles.link} href={`/sets/${desk.set.id}/pour`}>
            Pieces of the batch
          </Link>
          <Link className={styles.link} href={`/shelf?from=${desk.set.id}#workshop`}>
            Bench windows, dam kits, level place
          </Link>
          <Link className={styles.link} href={`/sets/${desk.set.id}/cure?show=route`}>
            Steps of the route
          </Link>
        </p>
      </div>
    );
  if (view === 'promise')
    return (
      <Suspense fallback={null}>
        <PromiseView request={request} plan={plan} batches={calendar.batches} workshop={calendar.workshop} />
      </Suspense>
    );
  if (view === 'steady')
    return (
      <Suspense fallback={null}>
        <SteadyView request={request} />
      </Suspense>
    );
  return (
    <>
      {again && <NotRead what="The calendar could not be read again: it may be from before." again={again} />}
      {view === 'time' ? (
        <Suspense fallback={null}>
          <TrueTime request={request} plan={plan} batches={calendar.batches} />
        </Suspense>
      ) : (
        <Weeks {...calendar} />
      )}
    </>
  );
}

/** Nothing is being made: what the calendar is for, and the press that begins. */
function NothingPlanned() {
  const { desk, edits } = useDesk();
  return (
    <div className={styles.blocked}>
      <p className={styles.teach}>
        {desk.designs.length === 0
          ? 'Draw pieces on the Shape stage first; once a batch of them is planned, its evenings stand here.'
          : 'Here stand your evenings at the bench, once a batch is planned: from its steps, your bench windows and the room it is worked out what to do when, and what flows overnight.'}
      </p>
      {desk.designs.length === 0 ? (
        <Link className={styles.link} href={`/sets/${desk.set.id}/shape`}>
          Draw a piece
        </Link>
      ) : (
        <Button
          variant="contained"
          onClick={() => void edits.run(() => ({ do: 'plan', setId: desk.set.id }), 'Batch planned')}
        >
          Plan a batch
        </Button>
      )}
    </div>
  );
}

/** Evenings with the readings beside them, and under them what is to be done next. */
function Weeks(calendar: Calendar) {
  const { request, plan, batches, whatIf } = calendar;
  const { desk } = useDesk();
  const [zoom, setZoom] = useState<Zoom>(ZOOMS[1]);
  const [showCritical, setShowCritical] = useState(false);
  const [chosen, setChosen] = useState<string | null>(null);
  const [mine, setMine] = useState(false);
  const colours = useMemo(() => batchColours(batches), [batches]);
  const sets = new Set(batches.map(({ setId }) => setId));
  const shown = useMemo(
    () => (mine ? batches.filter(({ setId }) => setId === desk.set.id) : batches),
    [mine, batches, desk.set.id],
  );
  const evenings = useMemo(() => {
    if (!request || !plan) return { evenings: [], streams: [] };
    if (!mine) return eveningsOf(request, plan);
    const ids = new Set(shown.map(({ id }) => id));
    return eveningsOf(
      { ...request, batches: request.batches.filter(({ id }) => ids.has(id)) },
      { ...plan, steps: plan.steps.filter(({ batchId }) => ids.has(batchId)) },
    );
  }, [request, plan, mine, shown]);
  if (!request || !plan) return null;
  const step = plan.steps.find((one) => stepKey(one.batchId, one.stepId) === chosen) ?? null;
  return (
    <div className={styles.part}>
      <div className={styles.main}>
        <div className={styles.bar}>
          <h2 className={styles.title}>The bench</h2>
          <p className={styles.names}>
            {batches.map(({ id, name, set }) => (
              <span key={id}>
                <i style={{ background: colours.get(id) }} /> {sets.size > 1 ? `${name}, ${set}` : name}
              </span>
            ))}
          </p>
          <Toggles
            label="How near"
            value={zoom.value}
            choices={ZOOMS.map(({ value }) => ({ value, label: value }))}
            onChoose={(value) => setZoom(ZOOMS.find((one) => one.value === value)!)}
          />
        </div>
        <CalendarActions {...calendar} />
        {request.makers[0]!.windows.length === 0 && (
          <p className={styles.soft}>
            You have no bench windows yet: any hour counts, nights too.{' '}
            <Link className={styles.link} href={`/shelf?from=${desk.set.id}#workshop`}>
              Say when you are at the bench
            </Link>
          </p>
        )}
        <EveningsView
          evenings={evenings}
          batches={batches}
          problems={plan.problems}
          now={request.now}
          zoom={zoom}
          showCritical={showCritical}
          chosen={chosen}
          onChoose={setChosen}
          onMove={(block, at) =>
            void calendar.hold(
              block.step.batchId,
              block.step.stepId,
              at,
              `${block.name}, ${block.batch}, on ${shortTime(at)}`,
            )
          }
        />
        <div className={styles.ticks}>
          <Tick label="Underline what decides the end" checked={showCritical} onChange={setShowCritical} />
          {sets.size > 1 && <Tick label="This set only" checked={mine} onChange={setMine} />}
        </div>
        <NextSession
          request={request}
          plan={plan}
          evenings={evenings}
          setOf={(id) => batches.find((batch) => batch.id === id)?.setId ?? desk.set.id}
        />
      </div>
      <aside className={styles.numbers} aria-label={step ? 'Step' : 'Numbers'}>
        {step ? (
          <StepPanel
            key={chosen}
            calendar={calendar}
            request={request}
            plan={plan}
            step={step}
            evenings={evenings}
            onClose={() => setChosen(null)}
          />
        ) : (
          <>
            <h2 className={styles.heading}>What follows</h2>
            <Readings>
              <Reading
                label="All ready"
                digits={plan.readyAt ? shortTime(plan.readyAt).split(',')[0]! : 'not yet'}
                unit={plan.readyAt?.slice(11) ?? ''}
                strong
                explain={() => explainReady(request, plan)}
                note={boundWords(calendar)}
              />
              <Reading
                label="At the bench"
                {...minutesText(plan.handsOnMinutes)}
                explain={() => explainBench(request, plan)}
                note={`on ${plan.benchDays} ${plan.benchDays === 1 ? 'day' : 'days'}`}
              />
              {plan.batches.map(({ batchId, readyAt, lateDays }) => {
                const batch = batches.find(({ id }) => id === batchId);
                return (
                  <Reading
                    key={batchId}
                    label={batch?.name ?? batchId}
                    digits={shortTime(readyAt).split(',')[0]!}
                    unit={readyAt.slice(11)}
                    explain={() => explainReady(request, plan)}
                    note={dueWords(batch?.due ?? null, lateDays)}
                  />
                );
              })}
            </Readings>
            <Problems
              problems={plan.problems}
              empty={
                whatIf
                  ? 'Nothing breaks.'
                  : 'Every step falls into bench time, every next layer into its recoat window.'
              }
            />
          </>
        )}
      </aside>
    </div>
  );
}

function dueWords(due: string | null, lateDays: number): string | undefined {
  if (due === null) return undefined;
  const day = shortTime(`${due}T00:00`).split(',')[0];
  return lateDays > 0 ? `${lateDays} ${lateDays === 1 ? 'day' : 'days'} late: due ${day}` : `due ${day}`;
}

function boundWords({ plan, kept }: Calendar): string {
  const { proved, readyAt, off } = plan!.bound;
  if (kept) return 'as kept';
  if (proved) return 'none can be sooner';
  return readyAt === null
    ? ''
    : `none before ${shortTime(readyAt).split(',')[0]}; ${Math.round(off * 100)}\u00a0% off at most`;
}
