import { z } from 'zod';
import { edgeNameSchema, finite, pointSchema, positionMm, sizeMm } from './outlineSchema';

const depthMm = finite.gt(0, 'The depth must be more than 0').max(200, 'At most 200 mm deep');
const heightMm = finite.gt(0, 'Must be more than 0').max(300, 'At most 300 mm');
const id = z.string().min(1).max(40);
/** Horizontal run per 1 of rise; 0 is an upright wall. */
const slope = finite
  .min(
    0,
    'An undercut bank cannot be drawn: from above the bed beneath it is hidden, and neither dam nor mould would come off. The steepest is upright, 0',
  )
  .max(200, 'At most 1 in 200');
const degrees = finite.min(-360, 'Between -360 and 360°').max(360, 'Between -360 and 360°');
/** Which of the irregular shapes it is: another number gives another shape, the same one the same again. */
const seed = finite.int('Type a whole number').min(0, 'At least 0').max(9999, 'At most 9999');
/** How far an irregular outline strays from its ellipse, as a share of its size. */
const wildness = finite.min(0, 'At least 0').max(0.6, 'At most 0.6');
/** What makes an irregular form: which one, how wild, and how it has been turned or mirrored since. */
const irregular = {
  seed: seed.optional(),
  wildness: wildness.optional(),
  turnDegrees: degrees.optional(),
  mirrored: z.boolean().optional(),
};
const place = { xMm: positionMm, yMm: positionMm };
const across = { ...place, widthMm: sizeMm, lengthMm: sizeMm };

/** Where water meets an edge: the port's centre, measured along the edge from its west or south end. */
export const portSchema = z.object({
  edge: edgeNameSchema,
  positionMm: finite.min(0, 'Must lie on the edge').max(3000, 'Must lie on the edge'),
});
export type Port = z.infer<typeof portSchema>;

export const sectionSchema = z.enum(['trapezoid', 'bowl', 'v']);
export type Section = z.infer<typeof sectionSchema>;

/** The most points of a channel, waterline or pool outline. */
export const MOST_POINTS = 24;
const tooMany = `At most ${MOST_POINTS} points`;

/** A point that a channel runs through; width and depth there, or null to go on as its neighbours do. */
export const viaSchema = z.object({ ...place, widthMm: sizeMm.nullable(), depthMm: depthMm.nullable() });
export type Via = z.infer<typeof viaSchema>;

export const POOL_FORMS = ['ellipse', 'polygon', 'irregular'] as const;
export const ROCK_FORMS = ['dome', 'cone', 'block', 'irregular'] as const;
export const SHORE_PROFILES = ['straight', 'concave', 'plunging'] as const;

/** The most samples of a scanned bed: 0.6 mm apart on a 240 mm tile. */
export const MOST_SCAN_SAMPLES = 160_000;

/**
 * What shapes the bed, applied in order. Widths and depths hold at the design's `drawnLevelMm`,
 * so a later change of the set's level fills the same bed higher or lower.
 */
export const featureSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('channel'),
    id,
    from: portSchema,
    to: portSchema,
    widthMm: sizeMm,
    depthMm,
    section: sectionSchema,
    bankSlope: slope,
    via: z.array(viaSchema).max(MOST_POINTS, tooMany).optional(),
    /** Width and depth at the far port, where they differ from those at the first. */
    toWidthMm: sizeMm.nullable().optional(),
    toDepthMm: depthMm.nullable().optional(),
    /** True: it ends at its last point inside the piece, and `to` is not reached. */
    endsInside: z.boolean().optional(),
  }),
  z.object({
    kind: z.literal('fork'),
    id,
    stem: portSchema,
    left: portSchema,
    right: portSchema,
    ...place,
    widthMm: sizeMm,
    armWidthMm: sizeMm,
    depthMm,
    section: sectionSchema,
    bankSlope: slope,
  }),
  z.object({
    kind: z.literal('shore'),
    id,
    landSide: edgeNameSchema,
    waterlineMm: finite.min(0, 'Cannot be negative').max(3000),
    slope: slope.refine((v) => v > 0, 'A shore needs a slope: try 8'),
    depthMm,
    /** Points that a free waterline runs through: how far along the land side, and how far from it. */
    line: z
      .array(z.object({ alongMm: positionMm, offMm: positionMm }))
      .max(MOST_POINTS, tooMany)
      .optional(),
    profile: z.enum(SHORE_PROFILES).optional(),
    /** How far from the waterline the bed drops to its deepest at once; null: it does not. */
    dropOffMm: finite.min(0, 'Cannot be negative').max(3000).nullable().optional(),
  }),
  z.object({
    kind: z.literal('pool'),
    id,
    ...across,
    depthMm,
    section: sectionSchema,
    bankSlope: slope,
    /** The level for which it is drawn, where that is not the design's. */
    atLevelMm: heightMm.nullable().optional(),
    form: z.enum(POOL_FORMS).optional(),
    ...irregular,
    /** Corners of a polygon pool, relative to its centre, and how far they are rounded. */
    corners: z.array(pointSchema).max(MOST_POINTS, tooMany).optional(),
    cornerMm: finite.min(0, 'Cannot be negative').max(500, 'At most 500 mm').optional(),
  }),
  z.object({ kind: z.literal('ring'), id, ...across, ringMm: sizeMm, depthMm, bankSlope: slope }),
  z.object({
    kind: z.literal('basin'),
    id,
    rimMm: finite.min(0, 'Cannot be negative').max(500, 'At most 500 mm'),
    depthMm,
  }),
  z.object({
    kind: z.literal('terrace'),
    id,
    landSide: edgeNameSchema,
    fromMm: finite.min(0, 'Cannot be negative').max(3000),
    toMm: finite.min(0, 'Cannot be negative').max(3000),
    depthMm: finite.min(-200, 'At most 200 mm above the level').max(200, 'At most 200 mm deep'),
  }),
  z.object({ kind: z.literal('hill'), id, ...across, heightMm }),
  z.object({ kind: z.literal('plateau'), id, ...across, heightMm, bankSlope: slope }),
  z.object({
    kind: z.literal('rock'),
    id,
    ...place,
    diameterMm: sizeMm,
    heightMm,
    form: z.enum(ROCK_FORMS),
    ...irregular,
  }),
  z.object({ kind: z.literal('post'), id, ...place, diameterMm: sizeMm, heightMm }),
  z.object({
    kind: z.literal('stone'),
    id,
    ...place,
    diameterMm: sizeMm,
    topMm: finite.min(-50, 'At most 50 mm under water').max(50, 'At most 50 mm above the water'),
  }),
  z.object({
    kind: z.literal('log'),
    id,
    ...place,
    lengthMm: sizeMm,
    diameterMm: sizeMm,
    turnDegrees: degrees,
    sunkMm: finite.min(0, 'Cannot be negative').max(100, 'At most 100 mm'),
  }),
  z.object({ kind: z.literal('wreck'), id, ...across, heightMm, turnDegrees: degrees }),
  z.object({
    kind: z.literal('debris'),
    id,
    volumeMl: finite.gt(0, 'Must be more than 0').max(10_000, 'At most 10 l'),
  }),
  /** A bed as scanned: `heights` is base64 of deflated 16-bit heights, 1/100 mm above the underside, row by row from the south-west. */
  z
    .object({
      kind: z.literal('scan'),
      id,
      columns: finite.int().min(2).max(2000),
      rows: finite.int().min(2).max(2000),
      stepMm: sizeMm,
      heights: z.string().min(4).max(1_500_000, 'Too large; take fewer samples'),
      /** A floor laid under the whole of it. */
      baseMm: finite.min(0, 'Cannot be negative').max(100, 'At most 100 mm').optional(),
    })
    .refine(({ columns, rows }) => columns * rows <= MOST_SCAN_SAMPLES, {
      path: ['columns'],
      message: `At most ${MOST_SCAN_SAMPLES} samples`,
    }),
]);
export type Feature = z.infer<typeof featureSchema>;
export type FeatureKind = Feature['kind'];
export type FeatureOf<K extends FeatureKind> = Extract<Feature, { kind: K }>;

/** Names of features as the maker reads them. */
export const FEATURE_NAMES: Record<FeatureKind, string> = {
  channel: 'Channel',
  fork: 'Fork',
  shore: 'Shore',
  pool: 'Pool',
  ring: 'Ring of water',
  basin: 'Basin inside a rim',
  terrace: 'Terrace',
  hill: 'Hill',
  plateau: 'Plateau',
  rock: 'Rock',
  post: 'Post',
  stone: 'Stepping stone',
  log: 'Log',
  wreck: 'Wreck, block',
  debris: 'Loose debris',
  scan: 'Scanned bed',
};

/** Features that hold water; the others are land or stand in it. */
export const WATER_KINDS: ReadonlySet<FeatureKind> = new Set([
  'channel',
  'fork',
  'shore',
  'pool',
  'ring',
  'basin',
  'scan',
]);

/** Features that stand in the water or on the land and take up room of their own. */
export const SOLID_KINDS: ReadonlySet<FeatureKind> = new Set(['rock', 'post', 'stone', 'log', 'wreck', 'debris']);
