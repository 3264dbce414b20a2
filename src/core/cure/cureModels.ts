import type { Product } from '../mixing/product';
import { temperatureFactor } from './temperature';

/** The room while the water cures. */
export interface Room {
  temperatureC: number;
  /** Relative humidity, 0 to 1. */
  humidity: number;
}

/** What a product needs to say for its cure to be told. */
export type Curing = Pick<Product, 'cureModel' | 'referenceC' | 'greatestLayerMm'>;

/** How a kind of product sets, and what follows from it. */
interface CureModel {
  /** How much longer than on the label a layer of `wetMm` takes. An estimate. */
  factor: (product: Curing, room: Room, wetMm: number) => number;
  /** Two parts that set once they are mixed: a pot life that a large cup shortens, and heat. */
  setsInTheCup: boolean;
  /** What shrinks goes off into the air: the rest weighs less. */
  givesOff: boolean;
  /** Water that an open body takes up. */
  wet: boolean;
  /** What to take care of, beside label, safety data sheet and local rules. */
  cautions: readonly string[];
}

/** Room humidity that a water-borne product's label assumes. */
export const REFERENCE_HUMIDITY = 0.5;

const warmth = ({ referenceC }: Curing, { temperatureC }: Room): number => temperatureFactor(temperatureC, referenceC);
const DRYING = ['Air the room while it dries. Gloves when the label asks for them. Children: with an adult.'];
export const LEFTOVERS =
  'Let what is left in the cup cure before it is thrown away, then by local rules. Never add leftovers to a pour: they have begun to set.';

/** Every way of curing; one that is left out does not compile. */
export const CURE_MODELS: Record<Product['cureModel'], CureModel> = {
  /** Arrhenius. */
  'two-part': {
    factor: warmth,
    setsInTheCup: true,
    givesOff: false,
    wet: false,
    cautions: [
      'Gloves and eye protection; no skin contact. Air the room. A full cup can get hot: set it on something that does not burn.',
      'Flame or hot air against bubbles only when nothing near can burn or melt. Do not lean over it and breathe the fumes.',
      'Sand cured resin wet, with a dust mask. Children: with an adult.',
      LEFTOVERS,
    ],
  },
  /** (h/h_ref)²·(1 − RH_ref)/(1 − RH) times the temperature term, h_ref the product's greatest layer. */
  'water-borne': {
    factor: (product, room, wetMm) =>
      warmth(product, room) * (wetMm / product.greatestLayerMm) ** 2 * ((1 - REFERENCE_HUMIDITY) / (1 - room.humidity)),
    setsInTheCup: false,
    givesOff: true,
    wet: true,
    cautions: DRYING,
  },
  /** The lamp decides, the room does not. */
  lamp: {
    factor: () => 1,
    setsInTheCup: false,
    givesOff: false,
    wet: false,
    cautions: [
      'Do not look into the lamp; keep its light off the skin. Gloves; no skin contact with liquid resin. Air the room.',
      'Children: with an adult.',
      LEFTOVERS,
    ],
  },
  /** Sealants follow the temperature term. */
  'open-air': { factor: warmth, setsInTheCup: false, givesOff: true, wet: false, cautions: DRYING },
};
