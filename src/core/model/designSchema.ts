import { reference } from './reference';
import { z } from 'zod';
import { hexColour } from './hexColour';
import { MADE_BY } from './madeBy';
import { bodySchema, mouldSchema } from './bodySchema';
import { damMethodSchema } from './damMethods';
import { edgeStandardSchema } from './edgeStandardSchema';
import { featureSchema } from './featureSchema';
import { measuredSchema } from './measuredSchema';
import { edgeNameSchema, finite, outlineSchema, pointSchema } from './outlineSchema';

export { MADE_BY, type MadeBy } from './madeBy';
export * from './featureSchema';
export * from './outlineSchema';

/** The most features of one design. */
export const MOST_FEATURES = 40;

/** A level other than the set's, for the pool round a point. */
const poolLevelSchema = pointSchema.extend({
  levelMm: finite.gt(0, 'Must be above the underside').max(300, 'At most 300 mm'),
});
export type PoolLevel = z.infer<typeof poolLevelSchema>;

/** The shape of one kind of piece, and how many of it are made. */
export const pieceDesignSchema = z.object({
  tag: z.string().trim().min(1, 'Give it a tag, for example HS-1').max(16, 'At most 16 characters'),
  name: z.string().trim().min(1, 'Give it a name').max(60, 'At most 60 characters'),
  kind: z.enum(['tile', 'board', 'base']),
  copies: z
    .number({ error: 'Type a whole number' })
    .int('Type a whole number')
    .min(1, 'At least 1')
    .max(500, 'At most 500 copies; split the work into several sets'),
  outline: outlineSchema,
  landMm: finite.gt(0, 'Must be more than 0').max(300, 'At most 300 mm'),
  drawnLevelMm: finite.gt(0, 'Must be more than 0').max(300, 'At most 300 mm'),
  features: z
    .array(featureSchema)
    .max(MOST_FEATURES, `At most ${MOST_FEATURES} features on one design; several designs share a table better`),
  /** Size of the grains of a sand or gravel bed; none: a smooth bed. */
  grainMm: finite.min(0, 'Cannot be negative').max(20, 'At most 20 mm').optional(),
  /** How the bed is made: it says how far it may stray from the drawing. */
  madeBy: z.enum(MADE_BY).optional(),
  /** Which of the set's edge standards each edge keeps to, by its id. */
  edgeStandards: z.partialRecord(edgeNameSchema, reference('standard')).optional(),
  /** Water that reads one way only, with rocks that break it: the edge at which it comes in. None: it reads from both ends. */
  flowsFrom: edgeNameSchema.optional(),
  /** Edges at which the bed is drawn to a standard. Only in requests and files: a set's own designs take them from its standards. */
  joints: z
    .array(z.object({ edge: edgeNameSchema, standard: edgeStandardSchema }))
    .max(12, 'At most 12 edges')
    .optional(),
  /** Pools that stand at a level of their own, each by a point in it. */
  poolLevels: z.array(poolLevelSchema).max(8, 'At most 8 pools with a level of their own').optional(),
  /** What it is made of, and the mould it is cast in, where the maker has said. */
  body: bodySchema.optional(),
  mould: mouldSchema.nullable().optional(),
  /** A straight cut that the maker has laid through it, for pictures. */
  sectionLine: z.object({ from: pointSchema, to: pointSchema }).optional(),
  bedColour: hexColour,
  /** Painted lighter at the waterline, darker at the deepest; the bed colour lies half way. */
  shoreColour: hexColour.optional(),
  deepColour: hexColour.optional(),
  /** What rocks and other solids are painted in; none: as the bed under water, as the land above it. */
  rockColour: hexColour.optional(),
  landColour: hexColour,
  /** How each open edge is closed; an edge that is not named gets a plastic strip. */
  dams: z.partialRecord(z.enum([...edgeNameSchema.options, 'rim']), damMethodSchema).default({}),
  /** Other sets may begin a piece with it. */
  isStart: z.boolean().optional(),
  /** What was measured on this very piece; null for a bed as drawn. */
  measured: measuredSchema.nullable().default(null),
  /** Which copies these are, when some are planned apart; null: the first ones. */
  copyNumbers: z.array(z.number().int().min(1).max(500)).max(500).nullable().default(null),
});
export type PieceDesign = z.infer<typeof pieceDesignSchema>;
