import { z } from 'zod';
import { problemSchema } from '../model/problem';
import { benchExceptionSchema, benchWindowSchema } from '../time/benchWindows';
import { clockChangeSchema } from '../time/clockChanges';
import { wallTimeSchema } from '../time/wallTime';
import { conditionsSchema, curingSchema } from '../cure/conditions';
import { stepKindSchema } from './stepKinds';

const number = z.number({ error: 'Type a number' });
const id = z.string().min(1).max(60);
const minutes = number.min(0, 'Cannot be negative').max(525_600, 'At most a year');

/** How long a wait is: by the clock, or by the label of something that cures, which a room then stretches or shortens. */
export const waitSchema = z.object({
  minutes,
  curing: curingSchema.optional(),
  /** It counts from so long before the end of the step that is waited for: a recoat window closes from the first piece. */
  beforeEndMinutes: minutes.optional(),
  /** It has to hold until so long after the beginning of the step that waits: until its first piece is poured. */
  afterStartMinutes: minutes.optional(),
});
export type ScheduleWait = z.infer<typeof waitSchema>;

/** What a step comes after: no sooner and no later than so long after the end of another. */
export const afterSchema = z.object({
  step: id,
  least: waitSchema.optional(),
  most: waitSchema.optional(),
  /** Minutes at the bench that make good a missed `most`: a recoat window that has closed is abraded. Without it `most` is never missed. */
  abradeMinutes: minutes.optional(),
  /** What makes it good, where that is not abrading: a bench that was levelled days ago is levelled again. */
  again: z.object({ kind: stepKindSchema, name: z.string().min(1).max(80) }).optional(),
});
export type After = z.infer<typeof afterSchema>;

/** How a step stands at the bench. */
export const STEP_STATES = ['done', 'failed'] as const;

/** One step of a batch's route, with all its pieces. */
export const scheduleStepSchema = z.object({
  id,
  kind: stepKindSchema,
  name: z.string().min(1).max(120),
  /** At the bench; 0: nobody needs to be there. */
  handsOnMinutes: minutes,
  /** It may be left at the end of a bench window and gone on with in the next. A pour may not. */
  mayPause: z.boolean().optional(),
  /** Only where and when fumes do no harm. */
  outdoors: z.boolean().optional(),
  /** Not in quiet hours. */
  noisy: z.boolean().optional(),
  hands: z.union([z.literal(1), z.literal(2)]).optional(),
  after: z.array(afterSchema).max(40).default([]),
  /** Where the maker wants it. */
  pinned: wallTimeSchema.optional(),
  /** It stands there because the whole plan is kept, not because the maker holds it. */
  kept: z.literal(true).optional(),
  /** When it really was done. */
  done: z.object({ from: wallTimeSchema, to: wallTimeSchema }).optional(),
  /** Parts of it that set: none may begin later than the rest of its window allows. Minutes of the shortest pot life. */
  potLifeMinutes: minutes.optional(),
  /** The temperature of the room that its cups were sized for, and the coldest in which its product sets. */
  plannedC: number.optional(),
  leastC: number.optional(),
});
export type ScheduleStep = z.infer<typeof scheduleStepSchema>;

/** A place or thing that there is so much of: level place in cm², dam kits, moulds, room in the dry box. */
export const placeSchema = z.object({
  id,
  name: z.string().min(1).max(60),
  capacity: number.min(0, 'Cannot be negative').max(1e7),
  unit: z.string().max(20).default(''),
});
export type Place = z.infer<typeof placeSchema>;

export const MOST_STEPS = 600;
export const scheduleBatchSchema = z.object({
  id,
  name: z.string().min(1).max(120),
  set: z.string().max(60).default(''),
  pieces: z.number().int().min(1).max(2000).default(1),
  due: z.iso.date('A date such as 2026-12-12').nullable().default(null),
  /** Bench windows of its own, inside the makers’; null: all of those. */
  windows: z.array(benchWindowSchema).max(28, 'At most four windows a day').nullable().default(null),
  steps: z.array(scheduleStepSchema).min(1, 'Name at least one step').max(200, 'At most 200 steps'),
  /** Taken from the start of one step to the end of another. */
  holds: z
    .array(z.object({ place: id, amount: number.gt(0, 'Must be more than 0').max(1e7), from: id, to: id }))
    .max(40)
    .default([]),
});
export type ScheduleBatch = z.infer<typeof scheduleBatchSchema>;

const spanSchema = z.object({
  fromMinute: z.number().int().min(0).max(1440),
  toMinute: z.number().int().min(0).max(1440),
});

export const makerSchema = z.object({
  name: z.string().trim().min(1, 'Give a name').max(40),
  /** Empty: at any time. */
  windows: z.array(benchWindowSchema).max(28, 'At most four windows a day'),
  exceptions: z.array(benchExceptionSchema).max(120, 'At most 120 days').default([]),
});

/** What counts after due dates: ready soon, or few evenings at the bench. */
export const wishSchema = z.enum(['soonest', 'fewest evenings']);
export type ScheduleGoal = z.infer<typeof wishSchema>;

/** Several batches, who makes them, where, in what room: what the solver and the `schedule` command read. */
export const scheduleRequestSchema = z
  .object({
    format: z.literal('aguada.schedule-request', { error: 'Must be "aguada.schedule-request"' }),
    version: z.literal(1, { error: 'This program reads version 1' }),
    /** Nothing is planned before it. */
    now: wallTimeSchema,
    makers: z.array(makerSchema).min(1, 'Name at least one maker').max(3, 'At most three makers'),
    /** When outdoor steps can be done, beside the windows; empty: whenever the bench is. */
    outdoors: z.array(benchWindowSchema).max(28).default([]),
    /** Daily hours in which nothing noisy is done. May run over midnight. */
    quiet: spanSchema.nullable().default(null),
    places: z.array(placeSchema).max(20).default([]),
    conditions: conditionsSchema,
    batches: z.array(scheduleBatchSchema).min(1, 'Name at least one batch').max(60, 'At most 60 batches'),
    goal: wishSchema.default('soonest'),
    clockChanges: z.array(clockChangeSchema).max(20).default([]),
    seed: z.number().int().default(1),
    /** Partial plans that may be looked at. */
    effort: z.number().int().min(1).max(1_000_000).default(6000),
  })
  .superRefine(({ batches, places }, context) => {
    const complain = (path: (string | number)[], message: string): void =>
      context.addIssue({ code: 'custom', path: ['batches', ...path], message });
    const ids = new Set<string>();
    let count = 0;
    batches.forEach(({ id: batch, steps, holds }, b) => {
      if (ids.has(batch)) complain([b, 'id'], `Two batches are called ${batch}`);
      ids.add(batch);
      count += steps.length;
      const known = new Set<string>();
      steps.forEach((step, s) => {
        if (known.has(step.id)) complain([b, 'steps', s, 'id'], `Two steps are called ${step.id}`);
        known.add(step.id);
      });
      steps.forEach(({ after, name }, s) =>
        after.forEach(({ step, least, most }, a) => {
          if (!known.has(step)) complain([b, 'steps', s, 'after', a, 'step'], `There is no step ${step} in this batch`);
          if (least && most && !least.curing && !most.curing && most.minutes < least.minutes)
            complain(
              [b, 'steps', s, 'after', a, 'most'],
              `${name}: at least ${least.minutes} min after ${step} and at most ${most.minutes} min after it cannot both be. Make the greatest lag longer than the least.`,
            );
        }),
      );
      const circle = circleIn(steps);
      if (circle.length > 0)
        complain(
          [b, 'steps', steps.findIndex((step) => step.id === circle[0]), 'after'],
          `${circle.map((step) => steps.find((one) => one.id === step)!.name).join(' waits for ')} waits for itself. Take one of these lags out.`,
        );
      holds.forEach(({ place, from, to }, h) => {
        if (!places.some((one) => one.id === place)) complain([b, 'holds', h, 'place'], `There is no place ${place}`);
        for (const [end, step] of [
          ['from', from],
          ['to', to],
        ] as const)
          if (!known.has(step)) complain([b, 'holds', h, end], `There is no step ${step} in this batch`);
      });
    });
    if (count > MOST_STEPS)
      context.addIssue({
        code: 'custom',
        path: ['batches'],
        message: `${count} steps are too many; at most ${MOST_STEPS}`,
      });
  });
export type ScheduleRequest = z.infer<typeof scheduleRequestSchema>;
export type ScheduleRequestInput = z.input<typeof scheduleRequestSchema>;

/** Steps that wait for each other in a circle, in its order; none where there is no such circle. */
function circleIn(steps: readonly { id: string; after: readonly { step: string }[] }[]): string[] {
  const state = new Map<string, 'under way' | 'done'>();
  const way: string[] = [];
  const visit = (id: string): string[] => {
    if (state.get(id) === 'done') return [];
    if (state.get(id) === 'under way') return way.slice(way.indexOf(id));
    state.set(id, 'under way');
    way.push(id);
    for (const { step } of steps.find((one) => one.id === id)?.after ?? []) {
      const circle = visit(step);
      if (circle.length > 0) return circle;
    }
    way.pop();
    state.set(id, 'done');
    return [];
  };
  for (const { id } of steps) {
    const circle = visit(id);
    if (circle.length > 0) return circle;
  }
  return [];
}

const n = z.number();
export const plannedStepSchema = z.object({
  batchId: id,
  stepId: id,
  from: wallTimeSchema,
  to: wallTimeSchema,
  /** The stretches at the bench of a step that is paused. */
  parts: z.array(z.object({ from: wallTimeSchema, to: wallTimeSchema })).optional(),
  /** What it waits for is over then, at the earliest; and when it is too late. */
  opensAt: wallTimeSchema.optional(),
  closesAt: wallTimeSchema.optional(),
  /** Who does it, by number; null: nobody needs to. */
  maker: n.int().nullable(),
  done: z.boolean(),
  pinned: z.boolean(),
  /** It is on the chain that decides when the last batch is ready. */
  critical: z.boolean(),
  /** The step whose recoat window is missed, so that this one is done before the next layer. */
  repairs: id.optional(),
  handsOnMinutes: n,
});
export type PlannedStep = z.infer<typeof plannedStepSchema>;

export const schedulePlanSchema = z.object({
  format: z.literal('aguada.schedule'),
  version: z.literal(1),
  steps: z.array(plannedStepSchema),
  batches: z.array(z.object({ batchId: id, readyAt: wallTimeSchema, lateMinutes: n, lateDays: n.int() })),
  readyAt: wallTimeSchema.nullable(),
  /** Bench days and minutes that it takes. */
  benchDays: n.int(),
  handsOnMinutes: n,
  /** No plan is ready before; how far this one is from it, as a share of the time from now; why that may be far. */
  bound: z.object({
    readyAt: wallTimeSchema.nullable(),
    off: n,
    proved: z.boolean(),
    weakBecause: z.string().nullable(),
  }),
  problems: z.array(problemSchema.extend({ batchId: id.optional(), stepId: id.optional() })),
});
export type SchedulePlan = z.infer<typeof schedulePlanSchema>;
export type ScheduleProblem = SchedulePlan['problems'][number];
