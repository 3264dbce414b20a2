import type { TintPour } from '../model/tintSchema';
import type { Coat } from '../model/waterBuildSchema';

/** A stretch of water of one product and one tint, from the surface down; the last goes on to the bed. */
export interface WaterStretch<P> extends TintPour {
  product: P;
  /** Which coat it is of, from the surface down. */
  coat: number;
  /** Plants are set before the lowest layer of that coat is poured. */
  plantsBefore?: boolean;
}

/** Ends that lie closer than this are one. */
const SAME_MM = 1e-9;

/**
 * The stretches of water from the surface down where coats of other products lie over one that fills the rest, and the recipe is
 * poured pour by pour: each ends where a coat or a pour does. Depths only; where the bed is higher the lower ones are left out.
 */
export function waterStretches<P>(
  fill: P,
  coats: readonly { product: P; thicknessMm: number; tint: Coat['tint']; plantsBefore?: boolean | undefined }[],
  pours: readonly TintPour[],
): WaterStretch<P>[] {
  const stretches: WaterStretch<P>[] = [];
  let at = 0;
  let [coat, pour] = [0, 0];
  let coatEnds = coats[0]?.thicknessMm ?? Infinity;
  const lengthOf = (i: number): number => (i >= pours.length - 1 ? Infinity : (pours[i]!.thicknessMm ?? Infinity));
  let pourEnds = lengthOf(0);
  for (;;) {
    const own = coats[coat];
    const to = Math.min(coatEnds, pourEnds);
    const { strength, own: doses } = pours[pour] ?? { strength: 1 };
    const clear = own?.tint === 'clear';
    stretches.push({
      thicknessMm: Number.isFinite(to) ? to - at : null,
      strength: clear ? 0 : strength,
      ...(!clear && doses && { own: doses }),
      product: own?.product ?? fill,
      coat,
      ...(own?.plantsBefore && { plantsBefore: true }),
    });
    if (!Number.isFinite(to)) return stretches;
    at = to;
    if (coatEnds - to < SAME_MM) {
      coat++;
      coatEnds = coat < coats.length ? to + coats[coat]!.thicknessMm : Infinity;
    }
    if (pourEnds - to < SAME_MM) {
      pour++;
      pourEnds = to + lengthOf(pour);
    }
  }
}
