import { z } from 'zod';
import { wallTimeSchema, type WallTime } from '../time/wallTime';
import { looksAfter, type Looks } from '../pouring/looks';
import type { BatchFacts, ProductFacts } from './facts';
import { factsOfStep, STEP_KIND_KEYS, stepKindSchema, type StepKind } from './stepKinds';

const number = z.number({ error: 'Type a number' });
const minutes = number.min(0, 'Cannot be negative').max(10_080, 'At most a week');

/** One step of a set's route: whether it is done, how long it takes, how long it dries. Pours take what their plan says. */
export const routeStepSchema = z.object({
  id: z.string().min(1).max(40),
  kind: stepKindSchema,
  name: z.string().trim().min(1, 'Give it a name').max(60, 'At most 60 characters'),
  on: z.boolean(),
  perBatchMinutes: minutes,
  perPieceMinutes: minutes,
  dryMinutes: minutes,
  mayPause: z.boolean().optional(),
  outdoors: z.boolean().optional(),
  noisy: z.boolean().optional(),
  hands: z.union([z.literal(1), z.literal(2)]).optional(),
});
export type RouteStep = z.infer<typeof routeStepSchema>;

/** Minutes that kinds of step take in a workshop, where they are not the usual ones. */
export const stepMinutesSchema = z.partialRecord(
  stepKindSchema,
  routeStepSchema.pick({ perBatchMinutes: true, perPieceMinutes: true }),
);
export type StepMinutes = z.infer<typeof stepMinutesSchema>;

/** The route of a set: its steps in their order, the pours as one of them. */
export const routeSchema = z.array(routeStepSchema).min(1).max(60, 'At most 60 steps');
export type Route = z.infer<typeof routeSchema>;

export type LayerFacts = BatchFacts['layers'][number];

export const looksOf = ({ curing: { cureModel }, potLifeMinutes }: ProductFacts, { dammed }: BatchFacts): Looks =>
  looksAfter({ cureModel, potLifeMinutes }, dammed > 0);
const looksFor = (facts: BatchFacts, what: keyof Looks): boolean =>
  facts.layers.some(({ product }) => looksOf(product, facts)[what].length > 0);

/** How a kind of step stands in routes. */
interface InRoutes {
  /** Whether the water of a batch asks for it, for every school. */
  needed: (facts: BatchFacts) => boolean;
  /** On how many pieces it is done. */
  pieces: (facts: BatchFacts) => number;
  /** At its own place in the route, beside each pour, or made by the calendar itself. */
  place: 'own' | 'beside each pour' | 'made by the calendar';
}
const held = ({ dammed, moulds }: BatchFacts): number => dammed + moulds;
const own = (needed: InRoutes['needed'], pieces: InRoutes['pieces'] = (facts) => facts.pieces): InRoutes => ({
  needed,
  pieces,
  place: 'own',
});
const wished = own(() => false);
const made: InRoutes = { ...wished, place: 'made by the calendar' };

/** Every kind of step; one that is left out does not compile. */
export const IN_ROUTES: Record<StepKind, InRoutes> = {
  cut: own(() => true),
  seal: own(() => true),
  paint: own(() => true),
  rocks: own(
    ({ rocks }) => rocks > 0,
    ({ rocks, pieces }) => rocks || pieces,
  ),
  'plants before': own(({ plantsFirst }) => plantsFirst),
  dam: own(
    ({ dammed }) => dammed > 0,
    ({ dammed }) => dammed,
  ),
  mould: own(
    ({ moulds }) => moulds > 0,
    ({ moulds }) => moulds,
  ),
  'leak test': own(
    ({ dammed }) => dammed > 0,
    ({ dammed }) => dammed,
  ),
  level: own(({ layers }) => layers.length > 0),
  pour: own(({ layers }) => layers.length > 0),
  bubbles: { ...own((facts) => looksFor(facts, 'bubbles')), place: 'beside each pour' },
  'leak look': { ...own((facts) => looksFor(facts, 'leaks')), place: 'beside each pour' },
  abrade: made,
  demould: own(
    (facts) => held(facts) > 0,
    (facts) => held(facts) || facts.pieces,
  ),
  trim: own(
    (facts) => held(facts) > 0,
    (facts) => held(facts) || facts.pieces,
  ),
  sand: own(({ moulds }) => moulds > 0),
  gloss: own(({ moulds }) => moulds > 0),
  finish: own(({ finish }) => finish !== null),
  ripples: wished,
  white: wished,
  'plants after': wished,
  varnish: wished,
  inspect: own(() => true),
  cured: made,
  ready: made,
  other: made,
};

/** The route that the water of a batch asks for: every kind of step in the usual order, those it needs switched on, in the workshop's own minutes. */
export const usualRoute = (facts: BatchFacts, own: StepMinutes = {}): Route =>
  STEP_KIND_KEYS.filter((kind) => IN_ROUTES[kind].place !== 'made by the calendar').map((kind) => {
    const {
      name,
      perBatchMinutes,
      perPieceMinutes,
      dryMinutes = 0,
      mayPause,
      outdoors,
      noisy,
    } = { ...factsOfStep(kind), ...own[kind] };
    return {
      id: kind,
      kind,
      name: kind === 'demould' && facts.moulds > 0 ? 'Turn out of the moulds' : name,
      on: IN_ROUTES[kind].needed(facts),
      perBatchMinutes,
      perPieceMinutes,
      dryMinutes,
      ...(mayPause && { mayPause }),
      ...(outdoors && { outdoors }),
      ...(noisy && { noisy }),
    };
  });

/** What has happened to a step, or is wanted of it; steps are named as the route of the batch names them. */
export const stepMarkSchema = z.object({
  step: z.string().min(1).max(60),
  /** When it was done. */
  done: z.object({ from: wallTimeSchema, to: wallTimeSchema }).optional(),
  /** A layer that did not come out: its repair is planned. */
  failed: z.object({ at: wallTimeSchema, why: z.string().trim().max(200, 'At most 200 characters') }).optional(),
  /** Where the maker wants it. */
  pinned: wallTimeSchema.optional(),
  /** How long it still takes, when that is not what the route says. */
  minutes: minutes.optional(),
  /** By the maker’s own word it might as well have been left out. */
  madeNoDifference: z.literal(true).optional(),
});
export type StepMark = z.infer<typeof stepMarkSchema>;

/** The course of a batch: what happened to its steps, and the plan that the maker keeps. */
export const courseSchema = z.object({
  marks: z.array(stepMarkSchema).max(300),
  kept: z
    .object({
      at: wallTimeSchema,
      readyAt: wallTimeSchema.optional(),
      steps: z.array(z.object({ step: z.string().min(1).max(60), from: wallTimeSchema, to: wallTimeSchema })).max(300),
    })
    .optional(),
});
export type Course = z.infer<typeof courseSchema>;

/** A step of a route that by the maker’s own word made no difference in so many of the batches in which it was done. */
export interface IdleStep {
  step: string;
  idle: number;
  done: number;
}
/** In fewer batches than this it is no habit yet. */
const LEAST_IDLE = 2;

/** Steps that made no difference in at least two batches, and in more than half of those in which they were done: what may be left out. */
export function idleSteps(courses: readonly Pick<Course, 'marks'>[]): IdleStep[] {
  const steps = new Map<string, IdleStep>();
  for (const { marks } of courses)
    for (const { step, done, madeNoDifference } of marks) {
      if (!done) continue;
      const known = steps.get(step) ?? { step, idle: 0, done: 0 };
      steps.set(step, { step, idle: known.idle + (madeNoDifference ? 1 : 0), done: known.done + 1 });
    }
  return [...steps.values()].filter(({ idle, done }) => idle >= LEAST_IDLE && 2 * idle > done);
}

/** The step in which a layer is poured. */
export const pourStep = (layer: number): string => `pour ${layer}`;

/** When layers are begun by the calendar that is kept of a batch. */
export const keptPours = (course: Course | undefined): { layer: number; at: WallTime }[] =>
  (course?.kept?.steps ?? []).flatMap(({ step, from }) => {
    const layer = Number(/^pour (\d+)$/.exec(step)?.[1]);
    return layer >= 1 ? [{ layer, at: from }] : [];
  });
