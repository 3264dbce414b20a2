import { EVEN_POUR, type PourTint, type TintPour } from '../model/tintSchema';
import type { Product } from '../model/productSchema';

/** One pour of the water build: from the bed or the layer below up to `toMm`, heights above the underside. */
export interface LayerLevels extends PourTint {
  /** Of what it is poured; that of the request where nothing is said. */
  productId?: string;
  /** Plants are set before it is poured. */
  plantsBefore?: boolean;
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

type LayerProduct = Pick<Product, 'greatestLayerMm' | 'shrinkage'> & { id?: string };

/** A pour from the surface down, of a product of its own where one is named. */
type LayerPour = TintPour & { product?: LayerProduct; coat?: number; plantsBefore?: boolean };

/** A stretch of water of one tint, between two heights. */
interface Stretch extends Omit<LayerPour, 'thicknessMm'> {
  fromMm: number;
  toMm: number;
}

/** Stretches of water from the bottom up, as pours are counted from the surface down; what lies under the deepest bed is left out. */
function stretchesOf(deepestBedMm: number, levelMm: number, pours: readonly LayerPour[]): Stretch[] {
  const stretches: Stretch[] = [];
  let topMm = levelMm;
  pours.forEach(({ thicknessMm, ...pour }, i) => {
    const last = i === pours.length - 1 || thicknessMm === null;
    const fromMm = last ? deepestBedMm : Math.max(deepestBedMm, topMm - thicknessMm);
    if (topMm - fromMm > 1e-9) stretches.unshift({ fromMm, toMm: topMm, ...pour });
    topMm = fromMm;
  });
  return stretches;
}

/**
 * Splits the water between the deepest bed and the level into equal layers, as few as the product's greatest
 * layer allows (that limit holds for the wet layer; what cures is thinner by the shrinkage). A recipe that is poured pour
 * by pour, or a build of several products, is split where its tint or product changes, each stretch by itself.
 * The levels hold for the whole batch, so that joined pieces meet layer by layer. Empty when there is no water.
 */
export function splitLayers(
  deepestBedMm: number,
  levelMm: number,
  product: LayerProduct,
  pours: readonly LayerPour[] = [EVEN_POUR],
): LayerLevels[] {
  if (!(levelMm > deepestBedMm)) return [];
  return stretchesOf(deepestBedMm, levelMm, pours)
    .flatMap(({ fromMm, toMm, product: own = product, coat, plantsBefore, ...tint }, at, all) => {
      const lowest = at === 0 || all[at - 1]!.coat !== coat;
      const depth = toMm - fromMm;
      const count = Math.max(1, Math.ceil(depth / curedLayerMm(own) - 1e-9));
      const thicknessMm = depth / count;
      return Array.from({ length: count }, (_, i) => ({
        fromMm: fromMm + i * thicknessMm,
        toMm: i === count - 1 ? toMm : fromMm + (i + 1) * thicknessMm,
        thicknessMm,
        wetMm: thicknessMm / (1 - own.shrinkage),
        ...tint,
        ...(own.id !== undefined && own.id !== product.id && { productId: own.id }),
        ...(plantsBefore && lowest && i === 0 && { plantsBefore }),
      }));
    })
    .map((layer, i) => ({ number: i + 1, ...layer }));
}
