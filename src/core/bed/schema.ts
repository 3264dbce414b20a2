import { z } from 'zod';
import { damMethodSchema } from './damMethods';
import { measuredSchema } from './measuredSchema';

const finite = z.number({ error: 'Type a number' }).refine(Number.isFinite, 'Type a number');
/** A length that something is made to: above nothing, below what fits on a table. */
const sizeMm = finite.gt(0, 'Must be more than 0').max(3000, 'At most 3000 mm');
const depthMm = finite.gt(0, 'The depth must be more than 0').max(200, 'At most 200 mm deep');
const positionMm = finite.min(-3000, 'Too far outside the piece').max(3000, 'Too far outside the piece');

export const edgeNameSchema = z.enum(['north', 'east', 'south', 'west']);
export type EdgeName = z.infer<typeof edgeNameSchema>;
export const EDGE_NAMES = edgeNameSchema.options;

/** The piece seen from above, its lowest x and y at 0: x runs from the west edge, y from the south edge. */
export const outlineSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('rectangle'), widthMm: sizeMm, lengthMm: sizeMm }),
  z.object({ kind: z.literal('oval'), widthMm: sizeMm, lengthMm: sizeMm }),
]);
export type Outline = z.infer<typeof outlineSchema>;

/** Where water meets an edge: the port's centre, measured along the edge from its west or south end. */
export const portSchema = z.object({ edge: edgeNameSchema, positionMm: finite.min(0, 'Must lie on the edge').max(3000, 'Must lie on the edge') });
export type Port = z.infer<typeof portSchema>;

export const sectionSchema = z.enum(['trapezoid', 'bowl', 'v']);
export type Section = z.infer<typeof sectionSchema>;

const id = z.string().min(1).max(40);
/** Horizontal run per 1 of rise; 0 is an upright wall. */
const slope = finite.min(0, 'A slope cannot be negative').max(200, 'At most 1 in 200');

/**
 * What shapes the bed, applied in order. Widths and depths hold at the design's `drawnLevelMm`,
 * so a later change of the set's level fills the same bed higher or lower.
 */
export const featureSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('channel'), id, from: portSchema, to: portSchema, widthMm: sizeMm, depthMm, section: sectionSchema, bankSlope: slope }),
  z.object({ kind: z.literal('shore'), id, landSide: edgeNameSchema, waterlineMm: finite.min(0, 'Cannot be negative').max(3000), slope: slope.refine((v) => v > 0, 'A shore needs a slope: try 8'), depthMm }),
  z.object({ kind: z.literal('pool'), id, xMm: positionMm, yMm: positionMm, widthMm: sizeMm, lengthMm: sizeMm, depthMm, section: sectionSchema, bankSlope: slope }),
  z.object({ kind: z.literal('ring'), id, xMm: positionMm, yMm: positionMm, widthMm: sizeMm, lengthMm: sizeMm, ringMm: sizeMm, depthMm, bankSlope: slope }),
  z.object({ kind: z.literal('basin'), id, rimMm: finite.min(0, 'Cannot be negative').max(500, 'At most 500 mm'), depthMm }),
  z.object({ kind: z.literal('rock'), id, xMm: positionMm, yMm: positionMm, diameterMm: sizeMm, heightMm: sizeMm.max(300, 'At most 300 mm'), form: z.enum(['dome', 'cone', 'block']) }),
]);
export type Feature = z.infer<typeof featureSchema>;
export type FeatureKind = Feature['kind'];
export type FeatureOf<K extends FeatureKind> = Extract<Feature, { kind: K }>;

const hexColour = z.string().regex(/^#[0-9a-f]{6}$/i, 'A colour such as #b8a888');

/** The shape of one kind of piece, and how many of it are made. */
export const pieceDesignSchema = z.object({
  tag: z.string().trim().min(1, 'Give it a tag, for example HS-1').max(16, 'At most 16 characters'),
  name: z.string().trim().min(1, 'Give it a name').max(60, 'At most 60 characters'),
  kind: z.enum(['tile', 'board', 'base']),
  copies: z.number({ error: 'Type a whole number' }).int('Type a whole number').min(1, 'At least 1').max(500, 'At most 500 copies; split the work into several sets'),
  outline: outlineSchema,
  landMm: finite.gt(0, 'Must be more than 0').max(300, 'At most 300 mm'),
  drawnLevelMm: finite.gt(0, 'Must be more than 0').max(300, 'At most 300 mm'),
  features: z.array(featureSchema).max(40, 'At most 40 features on one design'),
  bedColour: hexColour,
  landColour: hexColour,
  /** How each open edge is closed; an edge that is not named gets a plastic strip. */
  dams: z.partialRecord(z.enum([...EDGE_NAMES, 'rim']), damMethodSchema).default({}),
  /** What was measured on this very piece; null for a bed as drawn. */
  measured: measuredSchema.nullable().default(null),
  /** Which copies these are, when some are planned apart; null: the first ones. */
  copyNumbers: z.array(z.number().int().min(1).max(500)).max(500).nullable().default(null),
});
export type PieceDesign = z.infer<typeof pieceDesignSchema>;

/** Names of features as the maker reads them. */
export const FEATURE_NAMES: Record<FeatureKind, string> = {
  channel: 'Channel',
  shore: 'Shore',
  pool: 'Pool',
  ring: 'Ring of water',
  basin: 'Basin inside a rim',
  rock: 'Rock',
};
