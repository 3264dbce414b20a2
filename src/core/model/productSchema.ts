import { z } from 'zod';
import { CLARITIES } from './tintSchema';

const number = z.number({ error: 'Type a number' });
const positive = number.gt(0, 'Must be more than 0');
const minutes = positive.max(525_600, 'At most a year');
const density = positive
  .min(0.3, 'Densities are between 0.3 and 5 g/ml')
  .max(5, 'Densities are between 0.3 and 5 g/ml');

/** How the parts of a two-part product go together: the label's ratio, by weight or by volume, and each part's density. */
export const partsSchema = z.object({
  ratioA: positive.max(100, 'At most 100'),
  ratioB: positive.max(100, 'At most 100'),
  ratioBy: z.enum(['weight', 'volume']),
  densityA: density,
  densityB: density,
});
export type Parts = z.infer<typeof partsSchema>;

/** How a product hardens. The times are the label's, at `referenceC`; the room then stretches or shortens them. */
const IN_TWO_PARTS = { 'two-part': true, 'water-borne': false, lamp: false, 'open-air': false };
export type CureModelName = keyof typeof IN_TWO_PARTS;
export const cureModelSchema = z.enum(Object.keys(IN_TWO_PARTS) as [CureModelName, ...CureModelName[]]);

/** Two parts that set once they are mixed: a pot life that a large cup shortens, and heat; too cold they never set. */
export const setsInTheCup = (cureModel: CureModelName): boolean => IN_TWO_PARTS[cureModel];

export const MOST_OTHER_PACKS = 4;

/** Where a figure of a product comes from, when it is not the typical one of its kind. */
export const FIGURE_MARKS = ['label', 'measured'] as const;
export type FigureMark = (typeof FIGURE_MARKS)[number];

/** A water product on the shelf. Every figure is typical for its kind until the label or the bench says better. */
export const productSchema = z
  .object({
    name: z.string().trim().min(1, 'Give it a name').max(60, 'At most 60 characters'),
    cureModel: cureModelSchema,
    /** Present for two-part products only. */
    parts: partsSchema.nullable(),
    /** Density of a one-part product; a two-part one's follows from its parts. */
    density: density,
    potLifeMinutes: minutes,
    /** How long its parts are stirred, until the mix is clear; the usual time where nothing is said. */
    stirMinutes: minutes.max(60, 'At most an hour').optional(),
    greatestLayerMm: positive.max(200, 'At most 200 mm'),
    /** The most layers that stay clear, if the product has such a limit. */
    mostLayers: number.int('Type a whole number').min(1, 'At least 1').max(100).nullable(),
    recoatOpensMinutes: minutes,
    /** `null`: may be recoated at any later time. */
    recoatClosesMinutes: minutes.nullable(),
    demouldMinutes: minutes,
    fullCureMinutes: minutes,
    referenceC: number.min(5).max(40),
    shrinkage: number.min(0, 'Cannot be negative').max(0.8, 'At most 80 %'),
    pourGramsPerMinute: positive.max(5000),
    shelfLifeMonths: positive.max(240),
    packGrams: positive.max(1_000_000),
    packPrice: number.min(0, 'Cannot be negative').max(1_000_000),
    /** Other sizes that it is sold in, beside the pack above. */
    otherPacks: z
      .array(z.object({ amount: positive.max(1_000_000), price: number.min(0, 'Cannot be negative').max(1_000_000) }))
      .max(MOST_OTHER_PACKS, `At most ${MOST_OTHER_PACKS} other sizes`)
      .optional(),
    /** Where a figure comes from, by its field; typical for the kind where nothing is said. */
    marks: z.record(z.string().max(40), z.enum(FIGURE_MARKS)).optional(),
    /** How clear it cures by itself; water-clear when nothing is said. */
    clarity: z.enum(CLARITIES).optional(),
  })
  .superRefine((product, context) => {
    const complain = (path: string, message: string): void =>
      context.addIssue({ code: 'custom', path: [path], message });
    if (setsInTheCup(product.cureModel) !== (product.parts !== null))
      complain('parts', 'Only a two-part product has parts A and B');
    if (product.recoatClosesMinutes !== null && product.recoatClosesMinutes <= product.recoatOpensMinutes)
      complain('recoatClosesMinutes', 'The recoat window must close after it opens');
    if (product.fullCureMinutes < product.demouldMinutes)
      complain('fullCureMinutes', 'Full cure cannot come before demould');
  });
export type Product = z.infer<typeof productSchema>;
