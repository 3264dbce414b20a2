import { z } from 'zod';
import { diagnose, neighboursSchema, weightsSchema } from '../findings/diagnose';
import { copyFactsSchema } from '../findings/facts';
import { FINDINGS } from '../findings/findingKinds';
import { MENDS } from '../findings/mends';
import { cureModelSchema } from '../model/productSchema';
import { commandFailed, readJson, roundedJson, type CommandResult } from './planFile';

const NOBODY = { looked: 0, with: 0 };
const UNKNOWN = Object.fromEntries(
  Object.keys(copyFactsSchema.shape)
    .filter((fact) => fact !== 'labelC')
    .map((fact) => [fact, null]),
);

/** What was found on a piece and what is known of how it got its water: what the `diagnose` command reads. A fact that is left out is not known. */
export const diagnoseRequestSchema = z.object({
  format: z.literal('aguada.diagnose-request', { error: 'Must be "aguada.diagnose-request"' }),
  version: z.literal(1, { error: 'This program reads version 1' }),
  finding: z.enum(FINDINGS),
  cureModel: cureModelSchema,
  facts: z.preprocess(
    (facts) => (typeof facts === 'object' && facts !== null ? { ...UNKNOWN, labelC: 20, ...facts } : facts),
    copyFactsSchema.strict(),
  ),
  neighbours: neighboursSchema.default({ sameCup: NOBODY, otherCups: NOBODY }),
  /** Typical ones where none are given. */
  weights: weightsSchema.optional(),
});

/** The `diagnose` command: the causes that fit, the likeliest first, what speaks for and against each, what is not known, the mends. */
export function diagnoseCommand(text: string): CommandResult {
  const read = readJson(text, diagnoseRequestSchema);
  if (!read.ok) return commandFailed(read.errors);
  const { finding, cureModel, facts, neighbours, weights } = read.request;
  const { enough, ...found } = diagnose(finding, cureModel, facts, neighbours, weights);
  const output = roundedJson({
    format: 'aguada.diagnosis',
    version: 1,
    says: enough
      ? `Most likely: ${found.causes[0]!.words}`
      : 'Not enough recorded: the causes stand as they did before',
    ...found,
    mends: MENDS[finding].map(({ words, care }) => ({ words, care })),
  });
  return { output, errors: '', exitCode: 0 };
}
