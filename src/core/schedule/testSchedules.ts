import { scheduleRequestSchema, type ScheduleRequest, type ScheduleRequestInput } from './scheduleRequest';

/** Evenings of the week from 19:00 to 21:30, Saturday from 9:00 to 18:00. */
export const EVENINGS = [
  ...[1, 3].map((weekday) => ({ weekday, fromMinute: 19 * 60, toMinute: 21 * 60 + 30 })),
  { weekday: 5, fromMinute: 9 * 60, toMinute: 18 * 60 },
];
export const STEADY = { usual: { dayC: 23, nightC: 23, humidity: 0.5 } };
/** A slow epoxy of which the label's times hold at 23 °C. */
export const EPOXY = { cureModel: 'two-part', referenceC: 23, greatestLayerMm: 5, wetMm: 3 } as const;

/** A request of tests; Monday 23 November 2026, noon, a maker who is always there. */
export const requestOf = (input: Omit<Partial<ScheduleRequestInput>, 'format' | 'version'>): ScheduleRequest =>
  scheduleRequestSchema.parse({
    format: 'aguada.schedule-request',
    version: 1,
    now: '2026-11-23T12:00',
    makers: [{ name: 'Maker', windows: [], exceptions: [] }],
    conditions: STEADY,
    batches: [],
    ...input,
  });

type StepInput = ScheduleRequestInput['batches'][number]['steps'][number];

/** Steps that follow each other, each after the one before it. */
export const inTurn = (...steps: Omit<StepInput, 'kind' | 'name'>[]): StepInput[] =>
  steps.map((step, i) => ({
    kind: 'other',
    name: step.id,
    ...step,
    after: [...(i > 0 && !step.after ? [{ step: steps[i - 1]!.id }] : []), ...(step.after ?? [])],
  }));
