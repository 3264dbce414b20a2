import { z } from 'zod';

/** What can hold the water in at an open edge. `none` leaves it to surface tension. */
export const DAM_METHODS = ['plastic strip', 'tape', 'faced board', 'raised rim', 'mould', 'none'] as const;
export const damMethodSchema = z.enum(DAM_METHODS);
export type DamMethod = z.infer<typeof damMethodSchema>;

/** How a method behaves: how liquid resin meets it, how long an edge it closes well, what to mind. Typical figures. */
export interface DamFacts {
  contactDegrees: number;
  /** Beyond this a dam of the kind bows or lets go. */
  longestMm: number;
  advice: string;
}

export const DAM_FACTS: Record<DamMethod, DamFacts> = {
  'plastic strip': {
    contactDegrees: 75,
    longestMm: 250,
    advice: 'Seal its foot and both ends with hot glue or foam-safe glue.',
  },
  tape: { contactDegrees: 60, longestMm: 120, advice: 'Rub it down well; back it with a second strip.' },
  'faced board': { contactDegrees: 60, longestMm: 1500, advice: 'Face it with slick tape and seal the joint.' },
  'raised rim': { contactDegrees: 35, longestMm: 1500, advice: 'It stays on the piece: seal its joint under water.' },
  mould: { contactDegrees: 75, longestMm: 1500, advice: 'Turn out at demould time; trim the lip.' },
  none: { contactDegrees: 90, longestMm: 1500, advice: 'Only surface tension holds: a sharp, dry, level edge.' },
};
