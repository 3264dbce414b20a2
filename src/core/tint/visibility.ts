import { linearFromHex, type LinearRgb } from './colour';
import { deltaE } from './difference';
import { lightByDepth } from './waterLook';
import type { WaterTint } from './waterTint';

/** From where it is looked at, and the difference from the bed at which a detail is still seen there. */
export const SEEN_FROM = { 'at arm’s length': 3, 'across the table': 6 } as const;
export type SeenFrom = keyof typeof SEEN_FROM;

/** Details of three lightnesses: bark, a brown stone, a shell. */
export const DETAILS = { dark: '#2f2a22', mid: '#7d6d50', light: '#e4dcc8' } as const;
export type Detail = keyof typeof DETAILS;

const STEP_MM = 0.25;
/** Deeper water than anybody pours over a table piece. */
const DEEPEST_MM = 60;

/**
 * The greatest depth, mm, at which a detail on the bed still differs from it by `least` (CIEDE2000), looked at from above. 0 where
 * it is not told from the bed even dry; null where it is seen however deep (to 60 mm).
 */
export function seenToMm(bed: LinearRgb, detail: LinearRgb, tint: WaterTint, least: number): number | null {
  const [over, beside] = [lightByDepth(detail, tint), lightByDepth(bed, tint)];
  const seen = (mm: number): boolean => deltaE(over(mm), beside(mm)) >= least;
  if (seen(DEEPEST_MM)) return null;
  let deep = DEEPEST_MM - STEP_MM;
  while (deep >= 0 && !seen(deep)) deep -= STEP_MM;
  if (deep < 0) return 0;
  let lost = deep + STEP_MM;
  for (let i = 0; i < 12; i++) {
    const middle = (deep + lost) / 2;
    if (seen(middle)) deep = middle;
    else lost = middle;
  }
  return deep;
}

/** How deep each detail stays visible over a bed. */
export const detailsSeenTo = (bedColour: string, tint: WaterTint, from: SeenFrom): Record<Detail, number | null> => {
  const bed = linearFromHex(bedColour);
  const to = (detail: Detail): number | null => seenToMm(bed, linearFromHex(DETAILS[detail]), tint, SEEN_FROM[from]);
  return { dark: to('dark'), mid: to('mid'), light: to('light') };
};
