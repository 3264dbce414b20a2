import { reference } from '../model/reference';
import { z } from 'zod';
import { hardenedSchema } from '../cure/hardened';
import { learningSchema } from '../learn/learningSchema';
import { weightsSchema } from '../findings/diagnose';
import { FINDINGS } from '../findings/findingKinds';
import { straysSchema } from '../bed/measured';
import { measuredSchema } from '../model/measuredSchema';
import { hexColour } from '../model/hexColour';
import { pieceKey } from '../model/pieceRef';
import { edgeStandardSchema } from '../model/edgeStandardSchema';
import { cornerShimsSchema, measuredEdgesSchema, rowWishSchema, seamLimitsSchema } from '../model/seamSchema';
import { keptTableSchema } from '../model/tableSchema';
import { pieceDesignSchema } from '../model/designSchema';
import { wallTimeSchema } from '../time/wallTime';
import { productSchema } from '../model/productSchema';
import { waterBuildSchema } from '../model/waterBuildSchema';
import {
  benchSchema,
  cupMovesSchema,
  figureScaleSchema,
  levelMmSchema,
  MOST_DESIGNS,
  planRequestSchema,
  setNameSchema,
} from '../plan/request';
import { experienceSchema, MOST_EXPERIENCES } from '../dress/checks';
import { builtWithSchema, ownMaterialSchema } from '../dress/materials';
import { courseSchema, routeSchema, stepMinutesSchema } from '../schedule/routes';
import { roomSchema } from '../model/roomSchema';
import { workplaceSchema } from '../schedule/workplace';
import { workSchema } from '../money/quote';
import { pieceWaterSchema } from '../model/pieceWaterSchema';
import { consumableSchema, lotSchema, movementSchema } from '../model/stockSchema';
import { colourantSchema, recipeSchema } from '../model/recipeSchema';
import { unitPreferencesSchema } from '../units/formatMeasure';

const number = z.number({ error: 'Type a number' });
const noteSchema = z.string().trim().max(2000, 'At most 2000 characters');

/** How dates and times are written and typed. */
export const calendarSchema = z.object({
  dateOrder: z.enum(['day first', 'month first', 'year first']),
  clock: z.enum(['24 h', '12 h']),
  /** 0 for Monday to 6 for Sunday. */
  firstDay: z.number().int().min(0).max(6),
});
export type Calendar = z.infer<typeof calendarSchema>;
export const DEFAULT_CALENDAR: Calendar = { dateOrder: 'day first', clock: '24 h', firstDay: 0 };

/** What holds for the whole workshop: units, the room, cups and scale. */
export const settingsSchema = z.object({
  units: unitPreferencesSchema,
  room: roomSchema,
  cupGrams: benchSchema.shape.cupGrams,
  scaleStepGrams: benchSchema.shape.scaleStepGrams,
  pricePerCup: benchSchema.shape.pricePerCup,
  tilt: benchSchema.shape.tilt,
  box: benchSchema.shape.box,
  /** When the maker is at the bench; a set or a batch may narrow it. */
  benchWindows: benchSchema.shape.windows.default([]),
  benchExceptions: benchSchema.shape.exceptions,
  /** Places, helper, quiet and outdoor hours, nights and days; the workshop of which nothing is said has room enough. */
  workplace: workplaceSchema.optional(),
  /** By which school parts are measured: for screens and cards. */
  measureBy: z.enum(['weight', 'volume']).default('weight'),
  calendar: calendarSchema.default(DEFAULT_CALENDAR),
  losses: planRequestSchema.shape.losses,
  /** How far beds stray from their drawings here, by the way they are made; typical figures where nothing is said. */
  strays: straysSchema.optional(),
  /** How work is counted in quotes; typical figures until the maker has said. */
  work: workSchema.optional(),
  /** How facts weigh on causes of findings; typical figures until the maker has said. */
  causeWeights: weightsSchema.optional(),
  /** Minutes that steps take here, where they are not the usual ones. */
  stepMinutes: stepMinutesSchema.optional(),
  /** Materials beside those that are known, and what was tried of what is said to fight. */
  materials: z.array(ownMaterialSchema).max(60, 'At most 60 materials of your own').optional(),
  experience: z.array(experienceSchema).max(MOST_EXPERIENCES).optional(),
  /** What is to be done otherwise: said before each run, until it is taken off. One a cause. */
  nextTime: z
    .array(
      z.object({
        cause: z.string().min(1).max(40),
        words: z.string().trim().min(1).max(200, 'At most 200 characters'),
        why: z.string().trim().max(200, 'At most 200 characters'),
      }),
    )
    .max(12, 'At most 12')
    .optional(),
  /** What was learnt from the record, and what the maker said to it. */
  learning: learningSchema.optional(),
});
export type Settings = z.infer<typeof settingsSchema>;
/** What is to be done otherwise in later runs, and what it was that showed it. */
export type NextTime = NonNullable<Settings['nextTime']>[number];

/** The parts that hours and money of a job are told by. */
export const JOB_STAGES = ['bodies', 'bed', 'dams', 'pour', 'opened up', 'surface', 'looked over', 'beside'] as const;
export const jobStageSchema = z.enum(JOB_STAGES);
export type JobStage = z.infer<typeof jobStageSchema>;

const casesSchema = z.object({ low: number.min(0), likely: number.min(0), high: number.min(0) });

/** What a batch is for. */
export const jobSchema = z.object({
  customer: z.string().trim().max(80, 'At most 80 characters'),
  due: z.iso.date('A date such as 2026-12-12').nullable(),
  budget: number.min(0, 'Cannot be negative').max(1_000_000).nullable(),
  /** Hours that it may take. */
  hours: number.min(0, 'Cannot be negative').max(10_000).nullable().optional(),
  /** What the customer has to agree to, and when that was. */
  approvals: z
    .array(
      z.object({
        what: z.string().trim().min(1, 'Say what').max(80, 'At most 80 characters'),
        given: z.iso.date('A date such as 2026-12-12').nullable(),
      }),
    )
    .max(20, 'At most 20')
    .optional(),
  /** What was reckoned and asked when it was agreed. */
  quoted: z.object({ at: wallTimeSchema, hours: casesSchema, money: casesSchema, price: casesSchema }).optional(),
  /** Hours beside runs and marked steps, by the stop-watch. */
  timed: z
    .array(
      z.object({
        at: wallTimeSchema,
        stage: jobStageSchema,
        minutes: number.gt(0, 'Must be more than 0').max(1440, 'At most a day'),
        note: z.string().trim().max(120, 'At most 120 characters'),
      }),
    )
    .max(2000)
    .optional(),
  /** A stop-watch that is running. */
  watch: z.object({ since: wallTimeSchema, stage: jobStageSchema }).optional(),
});
export type Job = z.infer<typeof jobSchema>;

/** Pieces meant to stand together: one level, one water build. */
export const waterSetSchema = z.object({
  name: setNameSchema,
  figureScaleMm: figureScaleSchema,
  levelMm: levelMmSchema,
  productId: reference('product', 'refused'),
  recipeId: reference('recipe', 'refused'),
  /** What lies over that product, plants, the surface finish; nothing of the kind when it is not said. */
  build: waterBuildSchema.optional(),
  /** Bench windows of its own, inside the workshop's; null: all of those. */
  benchWindows: benchSchema.shape.windows.nullable().default(null),
  job: jobSchema.nullable(),
  /** What it is made of and with, beside its water; nothing is checked of what is not said. */
  builtWith: builtWithSchema.optional(),
  /** The steps that its pieces go through; what their water asks for when it is not said. */
  route: routeSchema.optional(),
  /** The agreed profiles of edges, and up to where a seam closes or passes. */
  standards: z.array(edgeStandardSchema).max(12, 'At most 12 edge standards').optional(),
  seamLimits: seamLimitsSchema.optional(),
  /** Shim strips at hand, and how long the table is. */
  shimsMm: z
    .array(number.gt(0, 'Must be more than 0').max(20, 'At most 20 mm'))
    .max(8, 'At most 8 thicknesses')
    .optional(),
  /** What the row of boards keeps to, and the tables that tiles are laid on. */
  row: rowWishSchema.optional(),
  tables: z.array(keptTableSchema).max(12, 'At most 12 tables').optional(),
  tableMm: number.gt(0, 'Must be more than 0').max(20_000, 'At most 20 m').optional(),
  /** Out of sight: in no list and on no calendar until it is taken out again. */
  putAway: z.boolean().optional(),
});
export type WaterSet = z.infer<typeof waterSetSchema>;

const weighedSchema = number.min(0, 'Cannot be negative').max(10_000, 'At most 10 kg');

const timedSchema = number.min(0, 'Cannot be negative').max(525_600, 'At most a year');

const colourGramsSchema = z.array(z.object({ id: reference('colourant'), grams: weighedSchema })).max(20);

/** What was really weighed into one cup. `partBGrams` is null for one-part products. */
export const weighedCupSchema = z.object({
  number: z.number().int().min(1),
  partAGrams: weighedSchema,
  partBGrams: weighedSchema.nullable(),
  note: noteSchema,
  /** What a run at the bench knows beside the parts: what reached the pieces, and which; colourants as they were dosed. */
  pouredGrams: weighedSchema.optional(),
  /** It was thrown away before it was empty. */
  discarded: z.boolean().optional(),
  doses: colourGramsSchema.optional(),
  /** Lots that were named for it: what it took is booked out of those first. */
  lots: z.array(reference('lot')).max(40).optional(),
  pieces: z
    .array(
      z.object({
        designId: reference('design'),
        copy: z.number().int().min(0).max(100_000),
        tag: z.string().max(60),
        grams: weighedSchema,
      }),
    )
    .max(2000)
    .optional(),
  /** What was read and timed of it at the bench: figures are learnt from it. */
  bench: z
    .object({
      /** What went in and what went out was read, none of it taken as planned. */
      read: z.boolean(),
      stirMinutes: timedSchema.nullable(),
      /** What it was stirred further until it was clear. */
      clearMinutes: timedSchema.nullable().optional(),
      /** Drops that were counted while the scale was read: how many, and what they weighed. */
      drops: z
        .array(
          z.object({ id: reference('colourant'), count: z.number().int().min(1).max(10_000), grams: weighedSchema }),
        )
        .max(20)
        .optional(),
      /** From when its parts met until it drew threads. */
      thickMinutes: timedSchema.nullable(),
      /** Of each of its pieces, in their order. */
      pieceMinutes: z.array(timedSchema.nullable()).max(2000),
    })
    .optional(),
});
export type WeighedCup = z.infer<typeof weighedCupSchema>;

/** One layer as it was really poured. */
export const pourRecordSchema = z.object({
  layer: z.number().int().min(1),
  /** Its first piece, and its last; where that was not read, as long after as was planned. */
  pouredAt: wallTimeSchema,
  pouredUntil: wallTimeSchema.optional(),
  temperatureC: number.min(-20, 'Between −20 and 50 °C').max(50, 'Between −20 and 50 °C'),
  cups: z
    .array(weighedCupSchema)
    .max(500)
    .refine((cups) => new Set(cups.map(({ number }) => number)).size === cups.length, {
      error: 'A cup stands once in a layer',
    }),
  /** Lots past their date that the maker named and took all the same. */
  expiredLots: z.array(reference('lot')).max(50).optional(),
  /** What of its stock tint and premixes was made and went into no cup; as planned where nothing is said. */
  tintLeft: z.object({ resinGrams: weighedSchema, colours: colourGramsSchema }).optional(),
  /** How it was found while it hardened, by touch. */
  hardened: z.array(hardenedSchema).max(3).optional(),
  note: noteSchema,
});
export type PourRecord = z.infer<typeof pourRecordSchema>;

const copiesSchema = z
  .number({ error: 'Type a whole number' })
  .int('Type a whole number')
  .min(1, 'At least 1')
  .max(500, 'At most 500 copies');

/** What became of a copy after its pour: it was handed over, or did not come out and is to be made anew. */
export const FATES = ['delivered', 'spoilt'] as const;
export const copyFateSchema = z.object({
  designId: reference('design', 'dropped'),
  copy: z.number().int().min(1).max(100_000),
  fate: z.enum(FATES),
  at: wallTimeSchema,
  why: z.string().trim().max(200, 'At most 200 characters'),
});
export type CopyFate = z.infer<typeof copyFateSchema>;

/** What comes of a piece that was looked over. */
export const OUTCOMES = ['pass', 'mend', 'remake'] as const;
export const findingSchema = z.object({
  kind: z.enum(FINDINGS),
  /** How far off, for what has a size. */
  mm: number.min(0, 'Cannot be negative').max(100, 'At most 100 mm').optional(),
});
export type Finding = z.infer<typeof findingSchema>;
export const inspectionSchema = z.object({
  at: wallTimeSchema,
  findings: z
    .array(findingSchema)
    .max(FINDINGS.length)
    .refine((found) => new Set(found.map(({ kind }) => kind)).size === found.length, {
      error: 'Each finding stands once',
    }),
  outcome: z.enum(OUTCOMES),
  note: z.string().trim().max(200, 'At most 200 characters').default(''),
  /** The colour of its water in a photo, and how far that is from the recipe’s, ΔE. */
  colour: z.object({ seen: hexColour, apart: number.min(0).max(300) }).optional(),
});
export type Inspection = z.infer<typeof inspectionSchema>;
/** A copy that was looked over. Looked over again it stands twice: the last counts. */
export const copyInspectionSchema = inspectionSchema.extend({
  designId: reference('design', 'dropped'),
  copy: z.number().int().min(1).max(100_000),
});
export type CopyInspection = z.infer<typeof copyInspectionSchema>;

/** A photo as it is kept: known by the sum of its bytes (SHA-256), which lie apart. */
export const photoSchema = z.object({
  photo: z.string().regex(/^[0-9a-f]{64}$/, 'This is no photo'),
  at: wallTimeSchema,
  width: z.number().int().min(1).max(65_535),
  height: z.number().int().min(1).max(65_535),
});
export type Photo = z.infer<typeof photoSchema>;
export const copyPhotoSchema = photoSchema.extend({
  designId: reference('design', 'dropped'),
  copy: z.number().int().min(1).max(100_000),
});
export type CopyPhoto = z.infer<typeof copyPhotoSchema>;

/** What a batch has of its own: the room on that day, the cups, who pours, and which piece leftovers are kept for. */
export const batchOwnSchema = z.object({
  roomC: roomSchema.shape.temperatureC.optional(),
  cupGrams: benchSchema.shape.cupGrams.optional(),
  hands: planRequestSchema.shape.hands,
  fillerId: reference('design').optional(),
});
export type BatchOwn = z.infer<typeof batchOwnSchema>;

/**
 * Pieces that are to be poured together, and when. Until its first layer is poured a batch is planned from its set as that
 * stands; then the plan is kept beside it as it was.
 */
export const batchSchema = z.object({
  name: setNameSchema,
  items: z
    .array(
      z.object({
        designId: reference('design', 'dropped'),
        copies: copiesSchema,
        /** The number of the first of them; those before it are in other batches. 1 when nothing is said. */
        first: z.number().int().min(1).max(100_000).optional(),
        /** All their numbers, where these do not follow one on the other: some are made anew. */
        numbers: z.array(z.number().int().min(1).max(100_000)).max(500).optional(),
      }),
    )
    .max(MOST_DESIGNS)
    .refine((items) => new Set(items.map(({ designId }) => designId)).size === items.length, {
      error: 'A design stands once in a batch, with all its copies',
    }),
  pourAt: wallTimeSchema,
  /** Bench windows of its own, inside its set's; null: all of those. */
  benchWindows: benchSchema.shape.windows.nullable().default(null),
  /** Pieces moved to other cups by hand. */
  moves: cupMovesSchema.optional(),
  /** In what it departs from the workshop. */
  own: batchOwnSchema.optional(),
  /** Its copies as they were looked over, the oldest first. */
  inspections: z.array(copyInspectionSchema).max(5000).optional(),
  /** Photos of its copies, the oldest first. */
  photos: z.array(copyPhotoSchema).max(2000, 'A batch keeps at most 2000 photos').optional(),
  /** What became of its copies. */
  fates: z
    .array(copyFateSchema)
    .max(2000)
    .refine((fates) => new Set(fates.map(pieceKey)).size === fates.length, { error: 'A copy has one fate' })
    .optional(),
  /** What happened to its steps, and the calendar that is kept. Layers that were poured are in the log. */
  course: courseSchema.optional(),
});
export type Batch = z.infer<typeof batchSchema>;

/** A layer of a batch as it was poured; known by `pourId`. */
export const batchPourSchema = pourRecordSchema.extend({ batchId: reference('batch', 'goes along') });
export type BatchPour = z.infer<typeof batchPourSchema>;
export const pourId = (batchId: string, layer: number): string => `${batchId}.${layer}`;

/** One physical copy of a design that has measurements of its own. */
export const pieceSchema = z.object({
  designId: reference('design', 'goes along'),
  copy: z.number().int().min(1).max(500),
  measured: measuredSchema,
  edges: measuredEdgesSchema.optional(),
  shimsMm: cornerShimsSchema.optional(),
  /** The water that it has, where that is another than the set's recipe: an old piece among new ones. */
  water: pieceWaterSchema.optional(),
});
export type PieceRecord = z.infer<typeof pieceSchema>;

/** What the maker writes into the log of the workshop, or of one set. */
export const logNoteSchema = z.object({
  at: wallTimeSchema,
  text: noteSchema.min(1, 'Write something'),
  setId: reference('set').nullable(),
});
export type LogNote = z.infer<typeof logNoteSchema>;

/** Everything that is kept, by kind. The database, the screens and the edit route all read this table. */
export const RECORD_SCHEMAS = {
  settings: settingsSchema,
  product: productSchema,
  colourant: colourantSchema,
  recipe: recipeSchema,
  set: waterSetSchema,
  design: pieceDesignSchema,
  piece: pieceSchema,
  batch: batchSchema,
  pour: batchPourSchema,
  consumable: consumableSchema,
  lot: lotSchema,
  movement: movementSchema,
  note: logNoteSchema,
} as const;
export type RecordKind = keyof typeof RECORD_SCHEMAS;
export type RecordData<K extends RecordKind> = z.infer<(typeof RECORD_SCHEMAS)[K]>;
