import { z } from 'zod';

/** A colour of the screen, `#b8a888`. */
export const hexColour = z.string().regex(/^#[0-9a-f]{6}$/i, 'A colour such as #b8a888');
