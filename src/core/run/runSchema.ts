import { z } from 'zod';
import { clockChangeSchema } from '../time/clockChanges';
import { conditionsSchema } from '../cure/conditions';
import { wallTimeSchema } from '../time/wallTime';
import { STOCK_PARTS } from '../model/stockSchema';
import { planProductSchema } from '../plan/request';
import { lossesSchema } from '../mixing/losses';
import { portionSchema } from '../pouring/portions';
import { upgradedRunPlan } from './olderPlans';
import { stockTintSchema, tintingSchema } from '../pouring/stockTint';

const n = z.number();
const id = z.string().min(1).max(80);
const grams = n.min(0).max(100_000);

export const runPourSchema = z.object({ designId: z.string(), copy: n.int(), tag: z.string(), grams: n });
export type RunPour = z.infer<typeof runPourSchema>;

export const runCupSchema = z.object({
  number: n.int().min(1),
  mixGrams: n,
  pours: z.array(runPourSchema),
  /** What goes into it, in the order in which it is weighed and counted. */
  portions: z.array(portionSchema),
});
export type RunCup = z.infer<typeof runCupSchema>;

export const runLayerSchema = z.object({
  number: n.int().min(1),
  product: planProductSchema,
  wetMm: n,
  fromMm: n,
  toMm: n,
  plantsBefore: z.boolean(),
  /** Its colourants, g in 100 g, and what a gram of them costs: a cup that is mixed anew is tinted by them. */
  recipe: z.array(tintingSchema.extend({ pricePerGram: n })),
  /** A stock tint for its cups, made once before them. */
  stock: stockTintSchema.nullable(),
  /** An earlier run made that stock: what is left of it, and when it was made. */
  stockKept: z.object({ leftGrams: n, madeAt: wallTimeSchema }).optional(),
  cups: z.array(runCupSchema),
});
export type RunLayer = z.infer<typeof runLayerSchema>;

export const readyItemSchema = z.object({
  id,
  text: z.string(),
  /** What it is for: said when it is skipped. */
  why: z.string(),
  /** Not skipped silently: a reason is asked for. */
  must: z.boolean(),
});
export type ReadyItem = z.infer<typeof readyItemSchema>;

/** A lot of something that a run takes, as it stood when the run began. */
export const runBottleSchema = z.object({
  id,
  name: z.string(),
  kind: z.enum(['product', 'colourant']),
  /** What it is of. */
  of: z.string(),
  goodUntil: z.string().nullable(),
  /** Past its date: taken only when it is named. */
  past: z.boolean(),
  left: z.array(z.object({ part: z.enum(STOCK_PARTS), grams: n })),
});
export type RunBottle = z.infer<typeof runBottleSchema>;

/** What a run carries out: all of a batch that was still to pour when it began, kept with the run as it was then. */
const runPlanShape = z.object({
  format: z.literal('aguada.run-plan'),
  version: z.literal(1),
  name: z.string(),
  setName: z.string(),
  levelMm: n,
  /** By which school parts are measured. */
  by: z.enum(['weight', 'volume']),
  scaleStepGrams: n,
  cupGrams: n,
  roomC: n,
  humidity: n,
  losses: lossesSchema,
  ready: z.array(readyItemSchema),
  cautions: z.array(z.string()),
  /** In the order in which they are used up. */
  bottles: z.array(runBottleSchema).default([]),
  layers: z.array(runLayerSchema),
  /** Layers that were poured before it began: they cure beneath, their last piece `minutesBefore` the beginning. */
  below: z.array(z.object({ product: planProductSchema, wetMm: n, minutesBefore: n })).default([]),
  /** How the room goes on by day and night from the beginning, a time on the wall; `null`: as it was read last. */
  climate: z
    .object({
      conditions: conditionsSchema,
      clockChanges: z.array(clockChangeSchema),
      begunAt: wallTimeSchema,
      /** `roomC` was read just before; else it is what the workshop supposes. */
      read: z.boolean(),
    })
    .nullable()
    .default(null),
  dammed: z.boolean(),
  moulded: z.boolean(),
  /** The piece that is poured with what is left over: so much takes one. */
  filler: z.object({ designId: z.string(), tag: z.string(), grams: n }).nullable(),
  pieces: z.array(
    z.object({
      designId: z.string(),
      tag: z.string(),
      surfaceCm2: n,
      colour: z.string(),
      /** Its bed cut open across the deepest place, for the picture. */
      cut: z.object({ lengthMm: n, heightMm: z.array(n) }).nullable(),
    }),
  ),
  /** Pieces that stand together, by their keys: not parted between mixes without a word. */
  pairs: z.array(z.tuple([z.string(), z.string()])),
});
export const runPlanSchema = z.preprocess(upgradedRunPlan, runPlanShape);
export type RunPlan = z.infer<typeof runPlanShape>;

export const NOTE_WORDS = ['bubbles', 'leak', 'short', 'too dark', 'draws threads'] as const;
/** The one that says that a cup has begun to set. */
export const THREADS = NOTE_WORDS[4];

const at = n.int().min(0);
const base = { id: z.string().min(8).max(64), at, by: z.string().max(40) };
const event = <T extends string, S extends z.ZodRawShape>(type: T, shape: S) =>
  z.object({ ...base, type: z.literal(type), ...shape });

const why = z.string().trim().min(1, 'Say why').max(200, 'At most 200 characters');
const cup = z.string().min(1).max(40);

/** What happens at the bench: a run is nothing but these in their order. `at` is a moment, ms since 1970, not a time on a wall. */
export const runEventSchema = z.discriminatedUnion('type', [
  /** The step is done. `grams`: of a weighing what went in, of a pour what left the cup, of the last step of a cup what stayed in it. */
  event('done', {
    step: id,
    grams: grams.optional(),
    /** By what the scale rose while drops were counted into the cup on it. */
    roseGrams: grams.optional(),
    /** The piece stood on the scale: the grams are in it, with nothing dripped. */
    onPiece: z.boolean().optional(),
    /** Done all the same, though it should not have been. */
    anyway: why.optional(),
  }),
  event('skip', { step: id, why: why.optional() }),
  /** A weighing over or under its tolerance: what becomes of it. */
  event('decide', { step: id, choice: z.enum(['accept', 'mend', 'discard', 'more']) }),
  event('drop', { step: id, count: n.int().min(-1).max(1) }),
  event('back', {
    /** The step that is gone back from: two presses at once go back once. */
    step: id,
  }),
  /** The parts have met: the pot life runs. */
  event('contact', { cup }),
  event('discard', { cup, why }),
  /** What is unmixed in a cup goes back into its bottle. */
  event('return', { cup }),
  /** Pieces of a cup that go into a mix of their own after it. */
  event('leave', { cup, pieces: z.array(z.string().min(1).max(60)).min(1).max(2000) }),
  /** Short of product: the pieces that are left are filled so much lower. */
  event('lower', { cup, mm: n.gt(0).max(50) }),
  /** Short of product: what is missing comes from a small mix of its own. */
  event('fresh', { cup }),
  /** Product over: into the filler piece. */
  event('filler', { cup, grams }),
  event('answer', { clock: id, did: z.string().trim().min(1).max(200) }),
  event('snooze', { clock: id, minutes: n.gt(0).max(240) }),
  /** From here on it is taken out of this bottle. */
  event('bottle', { lot: id, anyway: why.optional() }),
  event('timer', { minutes: n.gt(0).max(20_160), name: z.string().trim().min(1).max(60) }),
  event('room', { temperatureC: n.min(-20).max(60), humidity: n.min(0).max(1).nullable() }),
  event('note', { text: z.string().trim().min(1).max(500) }),
  event('slip', { slip: z.string().min(1).max(40), seconds: n.min(0).max(3600).optional() }),
  event('give up', { why: why }),
  event('finish', {}),
]);
export type RunEvent = z.infer<typeof runEventSchema>;
export type RunEventOf<T extends RunEvent['type']> = Extract<RunEvent, { type: T }>;

/** An event on its way in: from which window, not yet in order. */
export const runEventsSchema = z.array(runEventSchema).min(1).max(2000);
