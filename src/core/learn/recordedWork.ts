import { z } from 'zod';
import { hardenedSchema } from '../cure/hardened';
import { MADE_BY } from '../model/madeBy';
import { MOST_READINGS } from '../model/measuredSchema';
import { stepKindSchema } from '../schedule/stepKinds';
import { wallTimeSchema } from '../time/wallTime';

const n = z.number();
/** Where an observation comes from: its own key, its day, and the batch it was made in. */
const place = { key: z.string().min(1).max(120), at: wallTimeSchema, batchId: z.string().nullable().default(null) };

/** A cup that was read at the bench: what was mixed in it, what of that reached how many pieces. */
export const recordedCupSchema = z.object({
  ...place,
  productId: z.string(),
  temperatureC: n,
  mixGrams: n.min(0),
  pouredGrams: n.min(0),
  pieces: n.int().min(1),
  /** From when the parts met until it drew threads; null: nobody said. */
  thickMinutes: n.nullable().default(null),
  /** How long it was stirred, and stirred on until it was clear; null: nobody said. */
  stirMinutes: n.nullable().default(null),
  clearMinutes: n.nullable().default(null),
  /** Drops that were counted while the scale was read. */
  drops: z.array(z.object({ id: z.string(), count: n.int().min(1), grams: n.min(0) })).default([]),
  /** Each piece as it was poured, where its minutes were taken. */
  pours: z.array(z.object({ grams: n.min(0), minutes: n.min(0) })).default([]),
});
export type RecordedCup = z.infer<typeof recordedCupSchema>;

/** A pack that was bought. */
export const recordedPackSchema = z.object({ ...place, productId: z.string(), grams: n.gt(0), price: n.min(0) });
export type RecordedPack = z.infer<typeof recordedPackSchema>;

/** A piece that was looked over: how far its cured level lay under the wanted one, over what mean depth it was poured. */
export const recordedLevelSchema = z.object({
  ...place,
  productId: z.string(),
  lowMm: n,
  depthMm: n.gt(0),
  /** With which shrinkage its grams were planned. */
  shrinkage: n.min(0).max(0.9),
  /** How many pieces of its batch were looked over: together they count as one. */
  of: n.int().min(1),
});
export type RecordedLevel = z.infer<typeof recordedLevelSchema>;

/** A step of a route that was done, and how long it took. */
export const recordedStepSchema = z.object({
  ...place,
  kind: stepKindSchema,
  minutes: n.gt(0),
  pieces: n.int().min(1),
});
export type RecordedStep = z.infer<typeof recordedStepSchema>;

/** A layer that was touched while it hardened. */
export const recordedHardeningSchema = hardenedSchema.extend({ ...place, productId: z.string() });
export type RecordedHardening = z.infer<typeof recordedHardeningSchema>;

/** A bed in which depths were felt: by how much each reading stands above the drawing. */
export const recordedBedSchema = z.object({
  ...place,
  madeBy: z.enum(MADE_BY),
  offMm: z.array(n).min(1).max(MOST_READINGS),
});
export type RecordedBed = z.infer<typeof recordedBedSchema>;

/** What is on record that figures are learnt from. */
export const recordedWorkSchema = z.object({
  cups: z.array(recordedCupSchema).default([]),
  packs: z.array(recordedPackSchema).default([]),
  levels: z.array(recordedLevelSchema).default([]),
  steps: z.array(recordedStepSchema).default([]),
  hardened: z.array(recordedHardeningSchema).default([]),
  beds: z.array(recordedBedSchema).default([]),
});
export type RecordedWork = z.infer<typeof recordedWorkSchema>;
