import { temperatureFactor } from '../cure/temperature';
import { isQuick, potLifeMinutes } from './potLife';
import { type Product, setsInTheCup } from '../model/productSchema';

/** More alcohol than this leaves a five-minute glue soft for good. */
export const MOST_THINNER = 0.2;
/** Each tenth of alcohol makes it set slower by about this much. Typical: glues differ, try a spoonful. */
const SLOWER_PER_TENTH = 1.3;
/** From this on it is said that it stays softer. */
const SOFT_FROM = 0.1;

/** A glue thinned with alcohol. */
export interface Thinned {
  potLifeMinutes: number;
  /** The alcohol goes as it sets: what is lost of the volume, the glue's own shrinkage included. */
  shrinkage: number;
  /** Grams of alcohol to stir in. */
  alcoholGrams: number;
  soft: boolean;
}

/** Alcohol weighs about this much, g/ml. */
const ALCOHOL_DENSITY = 0.79;

/** Products that are thinned with alcohol at all: two-part glues that set within minutes. */
export const mayBeThinned = ({ parts, potLifeMinutes: life }: Pick<Product, 'parts' | 'potLifeMinutes'>): boolean =>
  parts !== null && isQuick(life);

/**
 * A five-minute glue with so much alcohol for each gram of glue (`share`, 0 to 0.2): each tenth sets slower and softer, and the
 * alcohol's share of the volume goes as it dries. Null beyond a fifth: it would stay soft. Estimates; never near a flame.
 */
export function thinned(product: Product & { density: number }, glueGrams: number, share: number): Thinned | null {
  if (!(share >= 0) || share > MOST_THINNER + 1e-9) return null;
  const alcoholGrams = glueGrams * share;
  const [glueMl, alcoholMl] = [glueGrams / product.density, alcoholGrams / ALCOHOL_DENSITY];
  return {
    potLifeMinutes: product.potLifeMinutes * SLOWER_PER_TENTH ** (share * 10),
    shrinkage: glueMl > 0 ? (alcoholMl + product.shrinkage * glueMl) / (glueMl + alcoholMl) : product.shrinkage,
    alcoholGrams,
    soft: share >= SOFT_FROM - 1e-9,
  };
}

/** Bottles stand in warm water no hotter than this; more spoils some hardeners. */
export const MOST_WARM_C = 40;
/** Below this a resin is stiff: it holds its bubbles, and the label's ratio by volume is hard to pour. */
export const STIFF_BELOW_C = 18;

/** Bottles warmed before they are mixed. */
export interface Warmed {
  /** Pot life of the cup at that temperature, and how it compares with the room's. */
  potLifeMinutes: number;
  roomPotLifeMinutes: number;
  /** How much sooner it sets: 2 is half the time. */
  sooner: number;
}

/**
 * What warm bottles do to a cup: it runs better and sets sooner, by the same law as a warm room. Null for what does not set in the
 * cup, and beyond `MOST_WARM_C`. Assumes that the mix keeps the bottles' warmth until it is poured; it cools on a cold bed.
 */
export function warmed(product: Product, roomC: number, bottleC: number, mixGrams: number): Warmed | null {
  if (!setsInTheCup(product.cureModel) || bottleC > MOST_WARM_C) return null;
  const [warm, cold] = [bottleC, roomC].map((celsius) => potLifeMinutes(product, celsius, mixGrams));
  return {
    potLifeMinutes: warm!,
    roomPotLifeMinutes: cold!,
    sooner: temperatureFactor(roomC, product.referenceC) / temperatureFactor(bottleC, product.referenceC),
  };
}
