import { isWaterBased, type Colourant } from '../model/recipeSchema';

/** The most colourant in a mix, as a share of the product, all together and the water-based ones alone: more spoils the cure. */
export const MOST_COLOURANT_SHARE = 0.03;
export const MOST_WATER_BASED_SHARE = 0.01;

/** The most of one colourant in 100 g of product. */
export const mostGramsPer100 = ({ kind }: Pick<Colourant, 'kind'>): number =>
  100 * (isWaterBased(kind) ? MOST_WATER_BASED_SHARE : MOST_COLOURANT_SHARE);
