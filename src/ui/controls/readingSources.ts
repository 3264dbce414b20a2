import { z } from 'zod';

/** Where readings of an instrument come from: who reads it, a stand-in, or lines of what is on the bench. */
export const READING_SOURCES = ['by hand', 'simulated', 'bench'] as const;
export type ReadingSource = (typeof READING_SOURCES)[number];
export const readingSourceSchema = z.enum(READING_SOURCES);
export const READING_SOURCE_CHOICES: readonly { value: ReadingSource; label: string }[] = [
  { value: 'by hand', label: 'typed' },
  { value: 'simulated', label: 'simulated' },
  { value: 'bench', label: 'what is on the bench' },
];
