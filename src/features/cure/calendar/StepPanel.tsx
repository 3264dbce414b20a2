'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { useState } from 'react';
import { toWallTime, wallMinutes } from '@/core/time/wallTime';
import { shortTime } from '@/core/time/dayNames';
import type { Evenings } from '@/core/schedule/evenings';
import { explainStep, findStep } from '@/core/schedule/explain';
import type { PlannedStep, SchedulePlan, ScheduleRequest } from '@/core/schedule/scheduleRequest';
import { factsOfStep } from '@/core/schedule/stepKinds';
import { formatMinutes, minutesText } from '@/core/units/formatMeasure';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { DateTimeField } from '@/ui/controls/MomentField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { Problems } from '@/ui/mark/Problems';
import { Reading, Readings } from '@/ui/reading/Reading';
import { isAgain } from './eveningLayout';
import type { Calendar } from './useCalendar';
import styles from './CalendarPart.module.css';

interface StepPanelProps {
  calendar: Calendar;
  request: ScheduleRequest;
  plan: SchedulePlan;
  step: PlannedStep;
  evenings: Evenings;
  onClose: () => void;
}

const FAILURES = ['too low', 'sticky or soft', 'cloudy', 'full of bubbles', 'leaked'] as const;

/** One step: when and why then, what happened to it, where it is held. */
export function StepPanel({ calendar, request, plan, step, evenings, onClose }: StepPanelProps) {
  const found = findStep(request, step.batchId, step.stepId);
  const batch = calendar.batches.find(({ id }) => id === step.batchId);
  const [why, setWhy] = useState<(typeof FAILURES)[number]>(FAILURES[0]);
  const name = found?.step.name ?? step.stepId;
  const mark = batch?.course.marks.find((one) => one.step === step.stepId);
  const layer = /^pour (\d+)$/.exec(step.stepId)?.[1];
  const { hold, say } = calendar;
  const where = `${name}, ${batch?.name ?? ''}`;
  const problems = plan.problems.filter(({ batchId, stepId }) => batchId === step.batchId && stepId === step.stepId);
  const others = evenings.evenings.filter(({ to }) => to > request.now);
  const caution = found ? factsOfStep(found.step.kind).caution : undefined;
  const markDone = (): void => {
    const to = step.to < request.now ? step.to : request.now;
    const from = step.from < to ? step.from : toWallTime(wallMinutes(to) - Math.max(1, step.handsOnMinutes));
    void say(step.batchId, step.stepId, { done: { from, to }, pinned: undefined }, `Done: ${where}`);
  };
  return (
    <>
      <h2 className={styles.heading}>
        {name}
        <Button size="small" variant="text" onClick={onClose}>
          close
        </Button>
      </h2>
      <p className={styles.soft}>
        {batch?.name}
        {batch && `, ${batch.set}`}
      </p>
      <Readings>
        <Reading
          label={step.done ? 'Done' : 'Begins'}
          digits={shortTime(step.from).split(',')[0]!}
          unit={step.from.slice(11)}
          explain={() => explainStep(request, plan, step)}
          note={
            step.closesAt
              ? `not after ${shortTime(step.closesAt)}`
              : step.opensAt
                ? `not before ${shortTime(step.opensAt)}`
                : undefined
          }
        />
        <Reading
          label="At the bench"
          {...minutesText(step.handsOnMinutes)}
          note={step.parts ? `in ${step.parts.length} goes` : undefined}
        />
      </Readings>
      <Problems problems={problems} />
      {caution && <p className={styles.caution}>{caution}</p>}
      {!step.done && found && !isAgain(step) && (
        <div className={styles.fields}>
          <ChoiceField
            label="Move to the evening of"
            value={others.find(({ blocks }) => blocks.some((block) => block.step === step))?.from ?? ''}
            choices={others.map(({ from }) => ({ value: from, label: shortTime(from) }))}
            onCommit={(from) =>
              void hold(
                step.batchId,
                step.stepId,
                from > request.now ? from : request.now,
                `${where}, on ${shortTime(from)}`,
              )
            }
          />
          <DateTimeField
            label={step.pinned ? 'Held at' : 'Hold it at'}
            value={step.from}
            onCommit={(at) => at !== '' && void hold(step.batchId, step.stepId, at, `${where}, on ${shortTime(at)}`)}
          />
          <MeasureField
            label="Takes at the bench"
            quantity="duration"
            step={5}
            value={step.handsOnMinutes}
            validate={(minutes) => (minutes >= 0 && minutes <= 10_080 ? null : 'Between nothing and a week')}
            onCommit={(minutes) =>
              void say(step.batchId, step.stepId, { minutes }, `${where} takes ${formatMinutes(minutes)}`)
            }
          />
        </div>
      )}
      <div className={styles.buttons}>
        {step.pinned && mark?.pinned && (
          <Button size="small" onClick={() => void hold(step.batchId, step.stepId, null, `${where} let go`)}>
            Let go of its time
          </Button>
        )}
        {!step.done && layer === undefined && !isAgain(step) && (
          <Button size="small" variant="outlined" onClick={markDone}>
            Done
          </Button>
        )}
        {layer !== undefined && batch && !step.done && (
          <Link className={styles.link} href={`/sets/${batch.setId}/log?batch=${batch.id}&layer=${layer}`}>
            Enter it in the log
          </Link>
        )}
        {mark?.done && (
          <Button
            size="small"
            onClick={() =>
              void say(
                step.batchId,
                step.stepId,
                { done: undefined, madeNoDifference: undefined },
                `Not done after all: ${where}`,
              )
            }
          >
            Not done after all
          </Button>
        )}
        {mark?.done && layer === undefined && (
          <Button
            size="small"
            aria-pressed={mark.madeNoDifference ?? false}
            onClick={() =>
              void say(
                step.batchId,
                step.stepId,
                { madeNoDifference: mark.madeNoDifference ? undefined : true },
                mark.madeNoDifference ? `It made a difference: ${where}` : `It made no difference: ${where}`,
              )
            }
          >
            {mark.madeNoDifference ? 'It made a difference after all' : 'It made no difference'}
          </Button>
        )}
        {layer !== undefined && mark?.failed && (
          <Button
            size="small"
            onClick={() =>
              void say(step.batchId, step.stepId, { failed: undefined }, `It came out after all: ${where}`)
            }
          >
            It came out after all
          </Button>
        )}
      </div>
      {layer !== undefined && step.done && !mark?.failed && (
        <div className={styles.failed}>
          <ChoiceField
            label="If it did not come out"
            value={why}
            choices={FAILURES.map((value) => ({ value, label: value }))}
            onCommit={setWhy}
          />
          <Button
            size="small"
            variant="outlined"
            onClick={() =>
              void say(step.batchId, step.stepId, { failed: { at: request.now, why } }, `Failed, ${why}: ${where}`)
            }
          >
            Plan its repair
          </Button>
        </div>
      )}
      {mark?.failed && (
        <p className={styles.soft}>
          Failed {shortTime(mark.failed.at)}: {mark.failed.why}. Its repair is in the plan.
        </p>
      )}
    </>
  );
}
