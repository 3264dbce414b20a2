import { z } from 'zod';

const number = z.number({ error: 'Type a number' });
const place = number.min(0, 'Outside the piece').max(3000, 'Outside the piece');

/** One depth, felt with a pin or rule: where, and how far below the level; negative where the bed stands above it. */
export const readingSchema = z.object({
  xMm: place,
  yMm: place,
  depthMm: number.min(-100, 'At most 100 mm above the level').max(200, 'At most 200 mm deep'),
});
export type DepthReading = z.infer<typeof readingSchema>;

/** The most readings of one piece. */
export const MOST_READINGS = 60;

/** What was measured on one piece: depths at points, and how much water or dry sand fills it to the level. */
export const measuredSchema = z.object({
  atLevelMm: number.gt(0, 'Must be more than 0').max(300, 'At most 300 mm'),
  readings: z.array(readingSchema).max(MOST_READINGS, `At most ${MOST_READINGS} readings of one piece`),
  fillMl: number.gt(0, 'Must be more than 0').max(100_000, 'At most 100 l').nullable(),
});
export type Measured = z.infer<typeof measuredSchema>;
