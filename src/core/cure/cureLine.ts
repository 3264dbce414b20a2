import type { Product } from '../model/productSchema';
import { CURE_MODELS, type Curing } from './cureModels';
import type { Room } from '../model/roomSchema';

/** Minutes after the pour at which each thing becomes true. */
export interface CureTimes {
  recoatOpens: number;
  recoatCloses: number | null;
  demould: number;
  fullCure: number;
  /** What the label's times were multiplied by. */
  factor: number;
}

/** How much longer than on the label a layer takes, by the way its product cures (`CURE_MODELS`). An estimate. */
export const cureFactor = (product: Curing, room: Room, wetMm: number): number =>
  CURE_MODELS[product.cureModel].factor(product, room, wetMm);

/** When a layer of `wetMm` can be recoated, demoulded, and is fully cured, in minutes after its pour. */
export function cureTimes(product: Product, room: Room, wetMm: number): CureTimes {
  const factor = cureFactor(product, room, wetMm);
  return {
    recoatOpens: product.recoatOpensMinutes * factor,
    recoatCloses: product.recoatClosesMinutes === null ? null : product.recoatClosesMinutes * factor,
    demould: product.demouldMinutes * factor,
    fullCure: product.fullCureMinutes * factor,
    factor,
  };
}
