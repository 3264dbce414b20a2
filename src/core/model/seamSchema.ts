import { z } from 'zod';
import { wallTimeSchema } from '../time/wallTime';
import { pieceRefSchema } from './pieceRef';
import { mm } from './edgeStandardSchema';
import { edgeNameSchema, finite } from './outlineSchema';

/** Up to where a seam closes, and up to where it passes at arm's length; beyond, it shows. */
export const seamLimitsSchema = z
  .object({
    stepMm: z.tuple([mm(0, 20), mm(0, 20)]),
    gapMm: z.tuple([mm(0, 50), mm(0, 50)]),
    deltaE: z.tuple([finite.min(0).max(100), finite.min(0).max(100)]),
  })
  .refine(
    ({ stepMm, gapMm, deltaE }) => stepMm[0] <= stepMm[1] && gapMm[0] <= gapMm[1] && deltaE[0] <= deltaE[1],
    'What passes must be at least what closes',
  );
export type SeamLimits = z.infer<typeof seamLimitsSchema>;
export const SEAM_LIMITS: SeamLimits = { stepMm: [0.5, 1.6], gapMm: [1, 3], deltaE: [2, 5] };

/** What a row of boards must keep to: who stands at which place from the left, who is not beside whom. */
export const rowWishSchema = z.object({
  pins: z
    .array(z.object({ piece: pieceRefSchema, place: z.number().int().min(0).max(199) }))
    .max(40)
    .default([]),
  apart: z
    .array(z.tuple([pieceRefSchema, pieceRefSchema]))
    .max(40)
    .default([]),
});
export type RowWish = z.infer<typeof rowWishSchema>;
export const NO_WISH: RowWish = { pins: [], apart: [] };

/** What was measured along one edge of a piece: heights above the underside, places from its west or south end. */
export const measuredEdgeSchema = z.object({
  bed: z.array(z.object({ atMm: mm(0, 3000), heightMm: mm(0, 300) })).max(60, 'At most 60 readings of one edge'),
  /** The water's level at both ends and the middle of the edge, or null before the pour. */
  levels: z.tuple([mm(0, 300), mm(0, 300), mm(0, 300)]).nullable(),
  /** Which of those were not measured but taken over from the others: 0 start, 1 middle, 2 end. */
  takenOver: z.array(z.number().int().min(0).max(2)).max(2).optional(),
  /** When any of it was measured last. */
  at: wallTimeSchema.optional(),
});
export type MeasuredEdge = z.infer<typeof measuredEdgeSchema>;
/**
 * Strips under the corners of a piece, mm: south-west, south-east, north-east, north-west as drawn. A stiff piece
 * stands on them in one plane.
 */
export const cornerShimsSchema = z.tuple([mm(0, 40), mm(0, 40), mm(0, 40), mm(0, 40)]);
export type CornerHeights = z.infer<typeof cornerShimsSchema>;
export const measuredEdgesSchema = z.partialRecord(edgeNameSchema, measuredEdgeSchema);
export type MeasuredEdges = z.infer<typeof measuredEdgesSchema>;

/** What closes, what passes at arm's length, what shows. */
export const GRADES = ['closes', 'passes', 'shows'] as const;
export type Grade = (typeof GRADES)[number];
