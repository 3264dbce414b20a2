import { z } from 'zod';
import { pieceRefSchema, type PieceRef } from './pieceRef';
import { PROBLEM_CODES } from './problemCodes';

/** A value to put in place of another, so that a warning can mend itself with one press. */
export const mendSchema = z.object({
  /** What the press does, in a maker's words: "Narrow the channel to 60 mm". */
  label: z.string(),
  target: z.enum(['design', 'set', 'batch', 'none']),
  path: z.array(z.union([z.string(), z.number()])),
  value: z.union([z.number(), z.string(), z.null()]),
});
export type Mend = z.infer<typeof mendSchema>;

/**
 * Something that stands in the way (`stop`), that will show or waste (`warn`), or that is good to know (`hint`).
 * `path` names the field inside the design, set or batch.
 */
export const problemSchema = z.object({
  severity: z.enum(['stop', 'warn', 'hint']),
  code: z.enum(PROBLEM_CODES),
  /** The piece that it is about, if it is about one. */
  piece: pieceRefSchema.optional(),
  path: z.array(z.union([z.string(), z.number()])).default([]),
  message: z.string(),
  mend: mendSchema.optional(),
});
export type Problem = z.infer<typeof problemSchema>;

/** A mend that only advises, with nothing to press. */
export const advise = (label: string): Mend => ({ label, target: 'none', path: [], value: null });

/** Problems of one piece, each knowing which. */
export const aboutPiece = ({ designId, copy }: PieceRef, problems: readonly Problem[]): Problem[] =>
  problems.map((problem) => ({ ...problem, piece: { designId, copy } }));
