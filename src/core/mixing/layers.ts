import type { TintPour } from '../tint/waterTint';
import type { Product } from './product';

/** One pour of the water build: from the bed or the layer below up to `toMm`, heights above the underside. */
export interface LayerLevels {
  number: number;
  fromMm: number;
  toMm: number;
  /** Cured thickness where the layer is whole, and the wet thickness that is poured for it. */
  thicknessMm: number;
  wetMm: number;
  /** What every dose of the recipe is multiplied by in this layer. */
  strength: number;
}

/** Thickness that a full layer keeps after curing. */
export const curedLayerMm = ({ greatestLayerMm, shrinkage }: Pick<Product, 'greatestLayerMm' | 'shrinkage'>): number =>
  greatestLayerMm * (1 - shrinkage);

/** A stretch of water of one strength, between two heights. */
interface Stretch {
  fromMm: number;
  toMm: number;
  strength: number;
}

/** Stretches of water from the bottom up, as pours are counted from the surface down; what lies under the deepest bed is left out. */
function stretchesOf(deepestBedMm: number, levelMm: number, pours: readonly TintPour[]): Stretch[] {
  const stretches: Stretch[] = [];
  let topMm = levelMm;
  pours.forEach(({ thicknessMm, strength }, i) => {
    const last = i === pours.length - 1 || thicknessMm === null;
    const fromMm = last ? deepestBedMm : Math.max(deepestBedMm, topMm - thicknessMm);
    if (topMm - fromMm > 1e-9) stretches.unshift({ fromMm, toMm: topMm, strength });
    topMm = fromMm;
  });
  return stretches;
}

/**
 * Splits the water between the deepest bed and the level into equal layers, as few as the product's greatest
 * layer allows (that limit holds for the wet layer; what cures is thinner by the shrinkage). A recipe that is poured lighter
 * towards the top is split where its strength changes, each stretch by itself.
 * The levels hold for the whole batch, so that joined pieces meet layer by layer. Empty when there is no water.
 */
export function splitLayers(
  deepestBedMm: number,
  levelMm: number,
  product: Pick<Product, 'greatestLayerMm' | 'shrinkage'>,
  pours: readonly TintPour[] = [{ thicknessMm: null, strength: 1 }],
): LayerLevels[] {
  if (!(levelMm > deepestBedMm)) return [];
  return stretchesOf(deepestBedMm, levelMm, pours)
    .flatMap(({ fromMm, toMm, strength }) => {
      const depth = toMm - fromMm;
      const count = Math.max(1, Math.ceil(depth / curedLayerMm(product) - 1e-9));
      const thicknessMm = depth / count;
      return Array.from({ length: count }, (_, i) => ({
        fromMm: fromMm + i * thicknessMm,
        toMm: i === count - 1 ? toMm : fromMm + (i + 1) * thicknessMm,
        thicknessMm,
        wetMm: thicknessMm / (1 - product.shrinkage),
        strength,
      }));
    })
    .map((layer, i) => ({ number: i + 1, ...layer }));
}
