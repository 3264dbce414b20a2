import { CURE_MODELS } from './cureModels';
import type { Product } from '../model/productSchema';

/** What to mind before and while pouring, by how the product hardens. The label and the safety data sheet come first. */
export function pourCautions(product: Pick<Product, 'cureModel'>): string[] {
  return [
    'The product’s own label and safety data sheet and local rules come first; these figures are planning aids, not safety limits.',
    ...CURE_MODELS[product.cureModel].cautions,
  ];
}
