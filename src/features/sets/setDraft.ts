import { z } from 'zod';
import { METRIC, type UnitPreferences } from '@/core/units/formatMeasure';
import { roundLength } from '@/core/units/steps';
import type { waterSetSchema, WaterSet } from '@/core/records/recordSchemas';

/** A set as its form holds it. */
export type SetInput = z.input<typeof waterSetSchema>;

const window = z.object({ weekday: z.number(), fromMinute: z.number(), toMinute: z.number() });

/** What a kept draft of a set must have to be taken up again. Its fields may still be wrong, and it may be of an older shape. */
export const setDraftSchema = z.looseObject({
  name: z.string(),
  figureScaleMm: z.number(),
  levelMm: z.number(),
  productId: z.string(),
  recipeId: z.string(),
  benchWindows: z.array(window).nullable().default(null),
  job: z
    .object({ customer: z.string(), due: z.string().nullable(), budget: z.number().nullable() })
    .nullable()
    .default(null),
}) as unknown as z.ZodType<SetInput>;

/** A new set, with what lies first on the shelf. */
export const firstSet = (
  productId: string,
  recipeId: string,
  units: Pick<UnitPreferences, 'length'> = METRIC,
): WaterSet => ({
  name: '',
  figureScaleMm: 28,
  levelMm: roundLength(15, units),
  productId,
  recipeId,
  benchWindows: null,
  job: null,
});
