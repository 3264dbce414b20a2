import { z } from 'zod';
import { boxSchema } from '../body/schema';
import { pieceDesignSchema } from '../bed/schema';
import { benchWindowSchema } from '../cure/benchWindows';
import { wallTimeSchema } from '../cure/wallTime';
import { productSchema } from '../mixing/product';
import { colourantSchema } from '../tint/schema';

const number = z.number({ error: 'Type a number' });

/** The room during pour and cure. */
export const roomSchema = z.object({
  temperatureC: number
    .min(5, 'Between 5 and 40 °C: outside that, resin does not cure as on its label')
    .max(40, 'Between 5 and 40 °C: outside that, resin does not cure as on its label'),
  humidity: number.min(0, 'Between 0 and 95 %').max(0.95, 'Between 0 and 95 %'),
});

const fall = number.min(-100, 'At most 100 mm per m').max(100, 'At most 100 mm per m');
/** How the bench is out of level: by how many mm it falls for each metre towards the east and the north of a piece; negative the other way. */
export const tiltSchema = z.object({ eastMmPerM: fall, northMmPerM: fall });
export type Tilt = z.infer<typeof tiltSchema>;
export const LEVEL_BENCH: Tilt = { eastMmPerM: 0, northMmPerM: 0 };

/** What stands on the bench. */
export const benchSchema = z.object({
  windows: z.array(benchWindowSchema).max(28, 'At most four windows a day'),
  /** What one cup may hold, grams of mix. */
  cupGrams: number.min(10, 'At least 10 g').max(5000, 'At most 5000 g'),
  /** Smallest step the scale shows. */
  scaleStepGrams: number.gt(0, 'Must be more than 0').max(10, 'At most 10 g'),
  pricePerCup: number.min(0, 'Cannot be negative').max(1000),
  tilt: tiltSchema.default(LEVEL_BENCH),
  /** The box that finished pieces are stored in. */
  box: boxSchema.optional(),
});
export type Bench = z.infer<typeof benchSchema>;

export const levelMmSchema = number.gt(0, 'The level must be above the underside').max(300, 'At most 300 mm');
export const setNameSchema = z.string().trim().min(1, 'Give it a name').max(60, 'At most 60 characters');
export const FIGURE_SCALES_MM = [6, 10, 15, 20, 28, 32] as const;
export const figureScaleSchema = z.union(
  FIGURE_SCALES_MM.map((mm) => z.literal(mm)),
  { error: `One of ${FIGURE_SCALES_MM.join(', ')} mm` },
);

/** The most pieces in one plan. */
export const MOST_PIECES = 2000;

/** Everything that a plan is worked out from: one file, the same for the app and the command. */
export const planRequestSchema = z
  .object({
    format: z.literal('aguada.plan-request', { error: 'Must be "aguada.plan-request"' }),
    version: z.literal(1, { error: 'This program reads version 1' }),
    set: z.object({ name: setNameSchema, figureScaleMm: figureScaleSchema, levelMm: levelMmSchema }),
    pieces: z.array(pieceDesignSchema).min(1, 'Name at least one piece design').max(80, 'At most 80 designs'),
    product: productSchema,
    recipe: z.object({
      name: z.string().max(60),
      doses: z
        .array(
          z.object({
            colourant: colourantSchema,
            gramsPer100: number.min(0, 'Cannot be negative').max(20, 'At most 20 g per 100 g'),
          }),
        )
        .max(5),
    }),
    room: roomSchema,
    bench: benchSchema,
    pourAt: wallTimeSchema,
    /** Layers that have been poured already, and when. */
    poured: z
      .array(z.object({ layer: z.number().int().min(1), at: wallTimeSchema }))
      .max(100)
      .default([]),
  })
  .superRefine((request, context) => {
    const seen = new Set<string>();
    request.pieces.forEach(({ tag }, index) => {
      if (seen.has(tag))
        context.addIssue({ code: 'custom', path: ['pieces', index, 'tag'], message: `Two designs are tagged ${tag}` });
      seen.add(tag);
    });
    const pieces = request.pieces.reduce((sum, { copies }) => sum + copies, 0);
    if (pieces > MOST_PIECES)
      context.addIssue({
        code: 'custom',
        path: ['pieces'],
        message: `${pieces} pieces are too many for one plan; at most ${MOST_PIECES}`,
      });
  });
export type PlanRequest = z.infer<typeof planRequestSchema>;
