import type { Product } from '../mixing/product';
import { temperatureFactor } from './temperature';

/** The room while the water cures. */
export interface Room {
  temperatureC: number;
  /** Relative humidity, 0 to 1. */
  humidity: number;
}

/** Minutes after the pour at which each thing becomes true. */
export interface CureTimes {
  recoatOpens: number;
  recoatCloses: number | null;
  demould: number;
  fullCure: number;
  /** What the label's times were multiplied by. */
  factor: number;
}

/** Room humidity that a water-borne product's label assumes. */
export const REFERENCE_HUMIDITY = 0.5;

/**
 * How much longer than on the label a layer takes. Two-part: Arrhenius. Water-borne: (h/h_ref)²·(1 − RH_ref)/(1 − RH)
 * times the same temperature term, h_ref the product's greatest layer. Lamp: the lamp decides, the room does not.
 * Open-air products (sealants) follow the temperature term. All are estimates.
 */
export function cureFactor(
  product: Pick<Product, 'cureModel' | 'referenceC' | 'greatestLayerMm'>,
  room: Room,
  wetMm: number,
): number {
  if (product.cureModel === 'lamp') return 1;
  const warmth = temperatureFactor(room.temperatureC, product.referenceC);
  if (product.cureModel !== 'water-borne') return warmth;
  return warmth * (wetMm / product.greatestLayerMm) ** 2 * ((1 - REFERENCE_HUMIDITY) / (1 - room.humidity));
}

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
