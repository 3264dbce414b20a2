import { CURE_MODELS } from '../cure/cureModels';
import type { Product } from '../model/productSchema';
import type { LinearRgb } from './colour';
import { layerRgb, throughRgb } from './waterLook';
import { tintOptics, type WaterTint } from './waterTint';

/** A paper cup: white inside, this wide. */
const CUP_DIAMETER_MM = 65;
const PAPER: LinearRgb = { red: 0.8, green: 0.8, blue: 0.78 };

/** How deep a mix stands in the cup, mm. */
export const cupDepthMm = (mixGrams: number, density: number): number =>
  ((mixGrams / density) * 1000) / ((Math.PI * CUP_DIAMETER_MM ** 2) / 4);

/**
 * What a mix looks like in a white paper cup, just stirred: deeper than on any bed, over white, and milky where the product is
 * water-borne; it clears as it cures. That is why a cup tells so little of the water. An estimate.
 */
export function inTheCup(
  tint: WaterTint,
  product: Pick<Product, 'cureModel'>,
  { mixGrams, density }: { mixGrams: number; density: number },
): LinearRgb {
  const { absorption, scattering } = tintOptics(tint);
  const { milk } = CURE_MODELS[product.cureModel];
  const wet = { red: scattering.red + milk, green: scattering.green + milk, blue: scattering.blue + milk };
  return throughRgb(layerRgb({ absorption, scattering: wet }, cupDepthMm(mixGrams, density)), PAPER);
}
