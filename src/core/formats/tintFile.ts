import { z } from 'zod';
import { productSchema } from '../model/productSchema';
import { hexFromLinear, linearFromHex } from '../tint/colour';
import { cupSizes } from '../tint/cupSizes';
import { cupDoses, type RecipeDose } from '../tint/doses';
import { findRecipes } from '../tint/finder';
import { solvePours } from '../tint/gradient';
import { hexColour } from '../model/hexColour';
import { dropsDeltaE, rescueCup } from '../tint/rescue';
import { colourantSchema } from '../model/recipeSchema';
import { layerPortions } from '../pouring/portions';
import { tintings } from '../pouring/stockTint';
import { colourByDepth } from '../tint/waterLook';
import { type WaterTint } from '../tint/waterTint';
import { detailsSeenTo } from '../tint/visibility';
import { commandFailed, readJson, roundedJson, type CommandResult } from './planFile';
import { CLARITIES, MOST_POURS, tintPoursSchema } from '../model/tintSchema';

const grams = z.number({ error: 'Type a number' }).gt(0, 'Must be more than 0').max(100_000);
const depth = z.number({ error: 'Type a number' }).gt(0, 'Must be more than 0').max(60, 'At most 60 mm');
const dosesSchema = z.array(z.object({ colourant: z.string(), gramsPer100: z.number().min(0).max(20) })).max(5);

/** Colourants, a bed and a recipe, and what is asked of them: what the `tint` command reads. Colourants are named by their id. */
export const tintRequestSchema = z
  .object({
    format: z.literal('aguada.tint-request', { error: 'Must be "aguada.tint-request"' }),
    version: z.literal(1, { error: 'This program reads version 1' }),
    clarity: z.enum(CLARITIES).default('water-clear'),
    bedColour: hexColour,
    colourants: z.array(colourantSchema.and(z.object({ id: z.string().min(1).max(40) }))).max(40),
    recipe: dosesSchema.default([]),
    /** How the recipe is poured, from the surface down; the same all through when nothing is said. */
    pours: tintPoursSchema.optional(),
    /** The colours of the recipe at these depths, mm. */
    predict: z.object({ depthsMm: z.array(depth).min(1).max(200) }).optional(),
    /** A recipe for a colour at a depth. */
    find: z.object({ colour: hexColour, depthMm: depth }).optional(),
    /** The pours of the recipe's colourants that darken from the shore to a colour at the deepest. */
    gradient: z
      .object({
        deepestMm: depth,
        deepColour: hexColour,
        halfwayMm: depth,
        pours: z.number().int().min(2).max(MOST_POURS).default(3),
        by: z.enum(['strength', 'colourant']).default('strength'),
      })
      .optional(),
    /** The recipe in cups of these sizes. */
    dose: z
      .object({
        cupsGrams: z.array(grams).min(1).max(40),
        scaleStepGrams: grams.default(0.1),
        /** The resin part's share of the mix; 1 for a one-part product. */
        resinShare: z.number().gt(0).max(1).default(1),
        depthMm: depth.default(6),
      })
      .optional(),
    /** A cup that went wrong: its mix, what went in, and the product. */
    rescue: z
      .object({
        mixGrams: grams,
        added: z.array(z.object({ colourant: z.string(), drops: z.number().min(0).max(10_000) })).max(5),
        product: productSchema,
        roomC: z.number().min(0).max(45).default(20),
        minutesGone: z.number().min(0).max(10_000).default(0),
        cupHoldsGrams: grams.default(200),
        depthMm: depth.default(6),
      })
      .optional(),
  })
  .superRefine(({ colourants, recipe, rescue }, context) => {
    const known = (id: string): boolean => colourants.some((colourant) => colourant.id === id);
    const complain = (path: (string | number)[], id: string): void =>
      context.addIssue({ code: 'custom', path, message: `There is no colourant “${id}” in this file` });
    recipe.forEach(({ colourant }, i) => known(colourant) || complain(['recipe', i, 'colourant'], colourant));
    rescue?.added.forEach(
      ({ colourant }, i) => known(colourant) || complain(['rescue', 'added', i, 'colourant'], colourant),
    );
  });
export type TintFile = z.infer<typeof tintRequestSchema>;

const dosesOut = (doses: readonly RecipeDose[]): object[] =>
  doses.map(({ colourant, gramsPer100 }) => ({ colourant: colourant.id, gramsPer100 }));

/** What was asked, answered: colours by depth, recipes found, doses by cup, a rescue. */
export function tintReport(file: TintFile): object {
  const { clarity, bedColour, colourants, pours, predict, find, gradient, dose, rescue } = file;
  const bed = linearFromHex(bedColour);
  const of = (id: string): TintFile['colourants'][number] => colourants.find((colourant) => colourant.id === id)!;
  const doses: RecipeDose[] = file.recipe.map(({ colourant, gramsPer100 }) => ({
    colourant: of(colourant),
    gramsPer100,
  }));
  const tint: WaterTint = { clarity, doses, ...(pours && { pours }) };
  const colourAt = colourByDepth(bedColour, tint);
  // The cups asked for are taken as those of one layer.
  const made = dose && layerPortions(dose.cupsGrams, { ...dose, recipe: tintings(doses) });
  return {
    format: 'aguada.tint',
    version: 1,
    ...(predict && {
      colours: predict.depthsMm.map((depthMm) => ({ depthMm, colour: colourAt(depthMm) })),
      seenToMm: detailsSeenTo(bedColour, tint, 'at arm’s length'),
    }),
    ...(find && { found: foundOut(file, find) }),
    ...(gradient && {
      gradient: solvePours({
        paint: { bedColour },
        clarity,
        doses,
        hideLineMm: null,
        deepestMm: gradient.deepestMm,
        halfwayMm: gradient.halfwayMm,
        by: gradient.by,
        deep: linearFromHex(gradient.deepColour),
        thicknessesMm: Array.from({ length: gradient.pours }, () => gradient.deepestMm / gradient.pours),
      }),
    }),
    ...(dose && {
      doses: dose.cupsGrams.map((mixGrams, i) => ({
        mixGrams,
        deltaE: dropsDeltaE(doses, mixGrams, { bed, depthMm: dose.depthMm, clarity }),
        colourants: cupDoses(doses, mixGrams),
        portions: made!.cups[i],
      })),
      cupSizes: cupSizes(doses),
      stock: made!.stock,
      tintLeft: made!.tintLeft,
    }),
    ...(rescue && {
      rescue: rescueCup({
        ...rescue,
        cup: {
          mixGrams: rescue.mixGrams,
          colourants: rescue.added.map(({ colourant, drops }) => ({
            colourant: of(colourant),
            grams: drops * of(colourant).dropGrams,
          })),
        },
        recipe: doses,
        bed,
      }),
    }),
  };
}

function foundOut({ bedColour, clarity, colourants }: TintFile, find: NonNullable<TintFile['find']>): object {
  const { answers, clear, brighterThanBed } = findRecipes({
    target: linearFromHex(find.colour),
    bed: linearFromHex(bedColour),
    depthMm: find.depthMm,
    clarity,
    colourants,
  });
  return {
    brighterThanBed,
    clearDeltaE: clear.deltaE,
    answers: answers.map(({ kinds, recipe }) => ({
      kinds,
      recipe: dosesOut(recipe.doses),
      colour: hexFromLinear(recipe.light),
      deltaE: recipe.deltaE,
      paleDetailSeenToMm: recipe.seenToMm,
    })),
  };
}

/** The `tint` command: a request in, the report out. */
export function tintCommand(text: string): CommandResult {
  const read = readJson(text, tintRequestSchema);
  if (!read.ok) return commandFailed(read.errors);
  return { output: roundedJson(tintReport(read.request)), errors: '', exitCode: 0 };
}
