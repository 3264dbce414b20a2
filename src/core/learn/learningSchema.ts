import { z } from 'zod';

const figure = z.number().min(0).max(1e6);

/** What a maker has said to a figure that was learnt. */
export const answerSchema = z.object({
  /** The figures as they stood before anything was learnt: what is learnt later starts from them again. */
  before: z.array(figure).min(1).max(3),
  /** As they were taken over; null: refused. */
  after: z.array(figure).min(1).max(3).nullable(),
  /** On how many observations it stood. */
  seen: z.number().int().min(0),
});
export type LearntAnswer = z.infer<typeof answerSchema>;

/** What the workshop has learnt from its own record, by figure; and observations that the maker counts, or leaves out, against the rule. */
export const learningSchema = z.object({
  answers: z.record(z.string().min(1).max(120), answerSchema),
  turned: z.array(z.string().min(1).max(120)).max(2000),
});
export type Learning = z.infer<typeof learningSchema>;
export const NOTHING_LEARNT: Learning = { answers: {}, turned: [] };
