import type { WallTime } from '../time/wallTime';
import { pourStep, type Course } from './routes';
import { ABRADING, abradeId } from './buildNetwork';
import type { SchedulePlan, ScheduleRequest, ScheduleStep } from './scheduleRequest';
import type { CalendarBatch } from './workplace';

/**
 * The request with every step held where the kept plan has it: its plan is the kept one, and what that breaks by now is said. Null
 * while there are steps that no kept plan has.
 */
export function keptRequest(request: ScheduleRequest, batches: readonly CalendarBatch[]): ScheduleRequest | null {
  const held = request.batches.map((batch) => {
    const kept = batches.find(({ id }) => id === batch.id)?.course.kept;
    if (!kept) return null;
    const at = new Map(kept.steps.map((step) => [step.step, step.from]));
    const open = batch.steps.filter(({ done, handsOnMinutes }) => !done && handsOnMinutes > 0);
    if (!open.every(({ id }) => at.has(id))) return null;
    return {
      ...batch,
      steps: batch.steps.flatMap((step): ScheduleStep[] => {
        if (step.done || step.handsOnMinutes === 0) return [step];
        const pinned = at.get(step.id)!;
        const abradeAt = at.get(abradeId(step.id));
        const missed = step.after.find(({ abradeMinutes }) => abradeMinutes !== undefined);
        const held: ScheduleStep = { ...step, pinned, ...(step.pinned === undefined && { kept: true }) };
        if (abradeAt === undefined || !missed) return [held];
        // Its recoat window was missed in the kept plan: what makes that good is a step like any other now.
        const { most: _, abradeMinutes = 0, again, ...link } = missed;
        const others = step.after.filter((one) => one !== missed);
        return [
          {
            id: abradeId(step.id),
            ...(again ?? ABRADING),
            mayPause: again === undefined,
            handsOnMinutes: abradeMinutes,
            after: [link],
            pinned: abradeAt,
            kept: true,
          },
          { ...held, after: [...others, link, { step: abradeId(step.id) }] },
        ];
      }),
    };
  });
  return held.every((batch) => batch !== null) ? { ...request, batches: held } : null;
}

/** The course of a batch with a plan kept. Repairs of missed recoat windows are kept as steps of their own. */
export function withKept(course: Course, batchId: string, plan: SchedulePlan, now: string): Course {
  const readyAt = plan.batches.find((batch) => batch.batchId === batchId)?.readyAt;
  return {
    ...course,
    kept: {
      at: now,
      ...(readyAt !== undefined && { readyAt }),
      steps: plan.steps
        .filter((step) => step.batchId === batchId && !step.done)
        .map(({ stepId, from, to }) => ({ step: stepId, from, to })),
    },
  };
}

/**
 * A batch that is poured at another time. Where its calendar was kept it is held at that time, and the rest is to be planned anew: a
 * plan that has the pour elsewhere is no plan of it any more.
 */
export function withPourAt<B extends { pourAt: WallTime; course?: Course | undefined }>(batch: B, pourAt: WallTime): B {
  if (!batch.course?.kept) return { ...batch, pourAt };
  const { kept: _, ...course } = batch.course;
  return { ...batch, pourAt, course: withMark(course, pourStep(1), { pinned: pourAt }) };
}

/** A course with what is said of one step changed; a mark that says nothing more is dropped. */
export function withMark(course: Course, step: string, change: Partial<Omit<Course['marks'][number], 'step'>>): Course {
  const before = course.marks.find((mark) => mark.step === step) ?? { step };
  const mark = { ...before, ...change };
  for (const key of Object.keys(mark) as (keyof typeof mark)[]) if (mark[key] === undefined) delete mark[key];
  const others = course.marks.filter((one) => one.step !== step);
  return { ...course, marks: Object.keys(mark).length > 1 ? [...others, mark] : others };
}
