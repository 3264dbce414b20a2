import ical, { ICalAlarmType, ICalCalendarMethod } from 'ical-generator';
import { formatMinutes } from '../units/formatMeasure';
import { findStep } from '../schedule/explain';
import type { SchedulePlan, ScheduleRequest } from '../schedule/scheduleRequest';
import { factsOfStep } from '../schedule/stepKinds';

/** How long before a step at the bench, and before a window closes, the calendar rings. */
const STEP_ALARM_MINUTES = 15;
const CLOSING_ALARM_MINUTES = 60;

/** A wall time as the calendar library takes a floating one: by its UTC digits. */
const floating = (wall: string): Date => new Date(`${wall}:00Z`);

/**
 * A plan as an iCalendar file: every stretch at the bench that is not done, with an alarm before it, and every recoat window that closes
 * on the way, with one before it does. Times are floating: they are those of the clock on the wall, wherever they are read.
 */
export function icsOf(request: ScheduleRequest, plan: SchedulePlan, now: string): string {
  const calendar = ical({ name: 'Bench', prodId: { company: 'aguada', product: 'bench', language: 'EN' } });
  calendar.method(ICalCalendarMethod.PUBLISH);
  const stamp = floating(now);
  for (const step of plan.steps) {
    if (step.done || step.handsOnMinutes === 0) continue;
    const found = findStep(request, step.batchId, step.stepId);
    if (!found) continue;
    const summary = `${found.step.name}, ${found.batch.name}`;
    const stretches = step.parts ?? [{ from: step.from, to: step.to }];
    stretches.forEach(({ from, to }, part) => {
      const caution = factsOfStep(found.step.kind).caution;
      calendar
        .createEvent({
          id: `${step.batchId}.${step.stepId}.${part}@aguada`,
          start: floating(from),
          end: floating(to),
          stamp,
          floating: true,
          summary,
          description: [
            `${formatMinutes(step.handsOnMinutes)} at the bench${stretches.length > 1 ? `, part ${part + 1} of ${stretches.length}` : ''}.`,
            ...(caution ? [caution] : []),
            'Labels, safety data sheets and local rules come first.',
          ].join(' '),
        })
        .createAlarm({ type: ICalAlarmType.display, triggerBefore: STEP_ALARM_MINUTES * 60, description: summary });
    });
    if (step.closesAt === undefined) continue;
    const closing = `Too late after this: ${summary}`;
    calendar
      .createEvent({
        id: `${step.batchId}.${step.stepId}.closes@aguada`,
        start: floating(step.closesAt),
        end: floating(step.closesAt),
        stamp,
        floating: true,
        summary: closing,
      })
      .createAlarm({ type: ICalAlarmType.display, triggerBefore: CLOSING_ALARM_MINUTES * 60, description: closing });
  }
  return calendar.toString();
}
