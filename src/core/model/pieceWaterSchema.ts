import { reference } from './reference';
import { z } from 'zod';
import { MOST_COATS } from './waterBuildSchema';
import { colourantSchema } from './recipeSchema';
import { CLARITIES, MOST_POURS, tintPourSchema } from './tintSchema';

/** Where coats and pours end apart from each other there is a stretch for each. */
const MOST_STRETCHES = MOST_POURS + MOST_COATS;

/** The water that a piece really has, where it is not the set's recipe: kept whole, so that no later change of the shelf moves it. */
export const pieceWaterSchema = z.object({
  /** Where it comes from, as the batch that it was poured in. */
  name: z.string().trim().min(1).max(80),
  clarity: z.enum(CLARITIES),
  doses: z
    .array(
      z.object({
        colourant: colourantSchema.omit({ swatches: true }).extend({ id: reference('colourant') }),
        gramsPer100: z.number().min(0).max(20),
      }),
    )
    .max(5),
  pours: z
    .array(tintPourSchema.extend({ clarity: z.enum(CLARITIES).optional() }))
    .max(MOST_STRETCHES)
    .optional(),
});
export type PieceWater = z.infer<typeof pieceWaterSchema>;
