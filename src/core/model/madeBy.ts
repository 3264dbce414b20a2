/** How a bed is made: it says how far it may stray from its drawing. */
export const MADE_BY = ['by hand', 'to a template', 'printed', 'scanned'] as const;
export type MadeBy = (typeof MADE_BY)[number];
