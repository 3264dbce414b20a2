import { z } from 'zod';
import { learntFigures } from '../learn/figures';
import { STRAYS, straysSchema } from '../bed/measured';
import { learningSchema } from '../learn/learningSchema';
import { recordedWorkSchema } from '../learn/recordedWork';
import { lossesSchema, TYPICAL_LOSSES } from '../mixing/losses';
import { productSchema } from '../model/productSchema';
import { colourantSchema } from '../model/recipeSchema';
import { stepMinutesSchema } from '../schedule/routes';
import { commandFailed, readJson, roundedJson, type CommandResult } from './planFile';

const id = z.string().min(1).max(40);

/** What is on record and the figures as they stand: what the `learn` command reads, and what the page of what was learnt hands out. */
export const learnRequestSchema = recordedWorkSchema.extend({
  format: z.literal('aguada.learn-request', { error: 'Must be "aguada.learn-request"' }),
  version: z.literal(1, { error: 'This program reads version 1' }),
  /** Typical ones where none are given. */
  losses: lossesSchema.default(TYPICAL_LOSSES),
  products: z.array(z.object({ id, data: productSchema })).default([]),
  colourants: z.array(z.object({ id, data: colourantSchema })).default([]),
  strays: straysSchema.default(STRAYS),
  stepMinutes: stepMinutesSchema.default({}),
  learning: learningSchema.optional(),
});
export type LearnRequest = z.input<typeof learnRequestSchema>;

/** The `learn` command: every figure that the record says anything of, as it stands and as it comes out, and how many observations count. */
export function learnCommand(text: string): CommandResult {
  const read = readJson(text, learnRequestSchema);
  if (!read.ok) return commandFailed(read.errors);
  const { losses, products, colourants, strays, stepMinutes, learning, format: _, version, ...work } = read.request;
  const figures = learntFigures(work, {
    losses,
    products: products.map((one) => ({ ...one, version })),
    colourants: colourants.map((one) => ({ ...one, version })),
    strays,
    stepMinutes,
    learning,
  });
  const output = roundedJson({
    format: 'aguada.learnt',
    version: 1,
    figures: figures.map(({ id, name, standing, fields, was, now, unit, counted, batches, dots }) => ({
      id,
      name,
      standing,
      fields,
      line: { unit, was, ...now },
      counted,
      batches,
      leftOut: dots.flatMap((dot) => (dot.counted ? [] : [dot.key])),
    })),
  });
  return { output, errors: '', exitCode: 0 };
}
