import { z } from 'zod';

export const finite = z.number({ error: 'Type a number' }).refine(Number.isFinite, 'Type a number');
/** A length that something is made to: above nothing, below what fits on a table. */
export const sizeMm = finite.gt(0, 'Must be more than 0').max(3000, 'At most 3000 mm');
export const positionMm = finite.min(-3000, 'Too far outside the piece').max(3000, 'Too far outside the piece');
export const pointSchema = z.object({ xMm: positionMm, yMm: positionMm });

/** The most straight sides of a free outline that can be named. */
export const MOST_SIDES = 24;
const NUMBERED = Array.from({ length: MOST_SIDES }, (_, i) => `side ${i + 1}` as const);

/**
 * The straight sides of a piece, by the way they face; sides of a free outline that cannot be told apart by that are
 * numbered anticlockwise.
 */
export const edgeNameSchema = z.enum([
  'north',
  'north-east',
  'east',
  'south-east',
  'south',
  'south-west',
  'west',
  'north-west',
  ...NUMBERED,
]);
export type EdgeName = z.infer<typeof edgeNameSchema>;
export const EDGE_NAMES: readonly EdgeName[] = edgeNameSchema.options;

const cornerMm = finite.min(0, 'Cannot be negative').max(1000, 'At most 1000 mm');
const outlinePoint = finite.min(0, 'Must lie north and east of the sheet’s corner').max(3000, 'At most 3000 mm');
/** The most points of a free outline. */
export const MOST_OUTLINE_POINTS = 400;
/** Below this nothing is left to pour on. */
const LEAST_AREA_MM2 = 4;

/** Twice the signed area of a closed polygon; positive when it runs anticlockwise. */
export function doubledArea(points: readonly { xMm: number; yMm: number }[]): number {
  return points.reduce((sum, { xMm, yMm }, i) => {
    const next = points[(i + 1) % points.length]!;
    return sum + xMm * next.yMm - next.xMm * yMm;
  }, 0);
}

/** The piece seen from above, its lowest x and y at 0: x runs from the west edge, y from the south edge. */
export const outlineSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('rectangle'), widthMm: sizeMm, lengthMm: sizeMm, cornerMm: cornerMm.optional() }),
  z.object({ kind: z.literal('oval'), widthMm: sizeMm, lengthMm: sizeMm }),
  /** All sides alike, one of them facing south; `acrossMm` is measured across flats (for odd sides: across the inscribed circle). */
  z.object({
    kind: z.literal('regular'),
    sides: finite.int('Type a whole number').min(3, 'At least 3 sides').max(12, 'At most 12 sides; use an oval'),
    acrossMm: sizeMm,
  }),
  z
    .object({
      kind: z.literal('free'),
      points: z
        .array(z.object({ xMm: outlinePoint, yMm: outlinePoint }))
        .min(3, 'An outline needs at least three points')
        .max(MOST_OUTLINE_POINTS, `At most ${MOST_OUTLINE_POINTS} points`),
    })
    .refine(({ points }) => Math.abs(doubledArea(points)) / 2 >= LEAST_AREA_MM2, {
      path: ['points'],
      message: 'These points enclose nothing: an outline needs some area',
    }),
]);
export type Outline = z.infer<typeof outlineSchema>;
