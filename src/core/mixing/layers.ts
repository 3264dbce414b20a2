import type { Product } from './product';

/** One pour of the water build: from the bed or the layer below up to `toMm`, heights above the underside. */
export interface LayerLevels {
  number: number;
  fromMm: number;
  toMm: number;
  /** Cured thickness where the layer is whole, and the wet thickness that is poured for it. */
  thicknessMm: number;
  wetMm: number;
}

/** Thickness that a full layer keeps after curing. */
export const curedLayerMm = ({ greatestLayerMm, shrinkage }: Pick<Product, 'greatestLayerMm' | 'shrinkage'>): number =>
  greatestLayerMm * (1 - shrinkage);

/**
 * Splits the water between the deepest bed and the level into equal layers, as few as the product's greatest
 * layer allows (that limit holds for the wet layer; what cures is thinner by the shrinkage).
 * The levels hold for the whole batch, so that joined pieces meet layer by layer. Empty when there is no water.
 */
export function splitLayers(
  deepestBedMm: number,
  levelMm: number,
  product: Pick<Product, 'greatestLayerMm' | 'shrinkage'>,
): LayerLevels[] {
  const depth = levelMm - deepestBedMm;
  if (!(depth > 0)) return [];
  const count = Math.max(1, Math.ceil(depth / curedLayerMm(product) - 1e-9));
  const thickness = depth / count;
  return Array.from({ length: count }, (_, i) => ({
    number: i + 1,
    fromMm: deepestBedMm + i * thickness,
    toMm: i === count - 1 ? levelMm : deepestBedMm + (i + 1) * thickness,
    thicknessMm: thickness,
    wetMm: thickness / (1 - product.shrinkage),
  }));
}
