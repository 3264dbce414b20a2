import { z } from 'zod';
import type { Product } from '../model/productSchema';

/** How far water has hardened: it may be poured on, opened up, handled; and which time of the label that is. */
export const HARDENED = {
  recoat: 'recoatOpensMinutes',
  firm: 'demouldMinutes',
  cured: 'fullCureMinutes',
} as const satisfies Record<string, keyof Product>;
export type Hardened = keyof typeof HARDENED;

/** A layer that was touched while it hardened: when it was not yet so far, and when it was. */
export const hardenedSchema = z.object({
  what: z.enum(Object.keys(HARDENED) as [Hardened, ...Hardened[]]),
  /** The label’s time at its own temperature, and what was reckoned of it for the room as it was. */
  labelMinutes: z.number().gt(0).max(525_600),
  reckonedMinutes: z.number().gt(0).max(5_256_000),
  /** Since its last piece: when it was last found soft, and first found so far; null: never. */
  softMinutes: z.number().min(0).max(5_256_000).nullable(),
  firmMinutes: z.number().min(0).max(5_256_000).nullable(),
});
export type HardenedLook = z.infer<typeof hardenedSchema>;

/** Looks further apart than this say no more than that it hardened between them. */
const CLOSE_LOOKS = 2;

/**
 * How long hardening took against what was reckoned, 1 for just as long. Between two looks it is their geometric mean; found firm before
 * it was reckoned it is that; soft after that, so long at the least. Null where the looks say nothing: firm long after nobody looked.
 */
export function hardeningShare({ reckonedMinutes, softMinutes, firmMinutes }: HardenedLook): number | null {
  const share = (minutes: number): number => minutes / reckonedMinutes;
  if (firmMinutes === null) return softMinutes !== null && share(softMinutes) > 1 ? share(softMinutes) : null;
  if (softMinutes !== null && softMinutes > 0 && firmMinutes <= softMinutes * CLOSE_LOOKS)
    return Math.sqrt(share(softMinutes) * share(firmMinutes));
  return share(firmMinutes) <= 1 && firmMinutes > 0 ? share(firmMinutes) : null;
}
