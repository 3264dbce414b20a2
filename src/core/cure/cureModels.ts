import type { Product } from '../model/productSchema';
import type { Room } from '../model/roomSchema';
import { ACTIVATION_ENERGY_J, temperatureFactor } from './temperature';

/** What a product needs to say for its cure to be told. */
export type Curing = Pick<Product, 'cureModel' | 'referenceC' | 'greatestLayerMm'>;

/** How a kind of product sets, and what follows from it. */
interface CureModel {
  /** How much longer than on the label a layer of `wetMm` takes. An estimate. */
  factor: (product: Curing, room: Room, wetMm: number) => number;
  /** The same in words. */
  factorWords: string;
  /** How stiff it is when it is cured, and the share of its shrinkage that comes after it has gelled and pulls. */
  stiffness: { modulusGPa: number; pulls: number };
  /** Nothing sets before the lamp is on it; tint that stops its light leaves it soft beneath. */
  byLamp: boolean;
  /** Air rises out of it while it is liquid, and is looked for. */
  bubblesRise: boolean;
  /** It stays liquid long enough to run out under a dam. */
  runsOut: boolean;
  /** How long a stock tint of it stays good in a covered cup, hours. An estimate. */
  tintKeepsHours: number;
  /** What it throws back while it is wet, per mm: white until it is dry. */
  milk: number;
  /** Up to which wet thickness it is brushed or spread, not poured, mm, and in what words; null: it is poured. */
  spread: { upToMm: number; verb: string; under: string; press: string } | null;
  /** It dries where the air is dry. */
  wantsDryAir: boolean;
  /** What is done once it is poured. */
  after: { title: string; under: string; press: string };
  /** What the next layer waits for, where that is seen and not told by the clock. */
  waitsFor: { title: string; under: string; press: string } | null;
  /** What has to be ready beside what every pour wants. */
  ready: readonly { id: string; must: boolean; text: string; why: string }[];
  /** What may be done with what is left in a cup. */
  leftovers: readonly string[];
  /** What shrinks goes off into the air: the rest weighs less. */
  givesOff: boolean;
  /** Water that an open body takes up. */
  wet: boolean;
  /** What to take care of, beside label, safety data sheet and local rules. */
  cautions: readonly string[];
}

/** Room humidity that a water-borne product's label assumes. */
export const REFERENCE_HUMIDITY = 0.5;

/** The fine bubbles of anything that was just stirred throw back so much, per mm. Typical, as is the milk of what dries. */
const STIRRED = 0.02;
const MILKY = 0.35;

const COVERED = { title: 'Cover against dust', under: 'A lid that does not touch the water.', press: 'Covered' };
const LEFT_OPEN = { title: 'Leave it open to dry', under: 'A cover stands off, air goes round.', press: 'It dries' };
const CLOSE_THE_BOTTLE = ['Close the bottle at once. What was thinned or tinted does not go back into it.'];

const warmth = ({ referenceC }: Curing, { temperatureC }: Room): number => temperatureFactor(temperatureC, referenceC);
const DRYING = ['Air the room while it dries. Gloves when the label asks for them. Children: with an adult.'];
export const LEFTOVERS =
  'Let what is left in the cup cure before it is thrown away, then by local rules. Never add leftovers to a pour: they have begun to set.';

/** How many times longer a cure takes in a room 10 °C colder than the label’s. */
export const PER_TEN_DEGREES = Number(temperatureFactor(13, 23).toFixed(1));

/** Every way of curing; one that is left out does not compile. */
export const CURE_MODELS: Record<Product['cureModel'], CureModel> = {
  /** Arrhenius. */
  'two-part': {
    factor: warmth,
    factorWords: `The label’s times are stretched by the temperature of the room (Arrhenius, ${ACTIVATION_ENERGY_J / 1000} kJ/mol: about ${PER_TEN_DEGREES} times as long for every 10 °C less).`,
    stiffness: { modulusGPa: 2.5, pulls: 0.3 },
    givesOff: false,
    wet: false,
    byLamp: false,
    bubblesRise: true,
    runsOut: true,
    tintKeepsHours: 24,
    milk: STIRRED,
    spread: null,
    wantsDryAir: false,
    after: COVERED,
    waitsFor: null,
    ready: [
      {
        id: 'gloves',
        must: true,
        text: 'Gloves on, eyes covered, room aired',
        why: 'Resin on the skin sensitises, for good.',
      },
    ],
    leftovers: [
      'Pour what is left into a base or a test cup while the pour-by time lasts, no thicker than a layer.',
      'Never keep a mix, and never leave it deep in a warm cup: it heats up. Spread it thin and let it harden outside.',
      'Hardened scraps go to household waste, liquid parts to the collection that your local rules name.',
    ],
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
    factorWords:
      'The label’s times are stretched by the square of the layer’s thickness, by the dampness of the air, and by the temperature.',
    stiffness: { modulusGPa: 0.05, pulls: 0.2 },
    givesOff: true,
    wet: true,
    byLamp: false,
    bubblesRise: false,
    runsOut: true,
    tintKeepsHours: 3,
    milk: MILKY,
    spread: { upToMm: 2.5, verb: 'Brush onto', under: 'one thin even coat, no puddles', press: 'Brushed' },
    wantsDryAir: true,
    after: LEFT_OPEN,
    waitsFor: {
      title: 'Wait until it is clear',
      under: 'Never a new layer on a white one: it stays white.',
      press: 'It is clear',
    },
    ready: [{ id: 'card', must: false, text: 'Tried on a card: it dries clear', why: 'Some lots dry white.' }],
    leftovers: CLOSE_THE_BOTTLE,
    cautions: DRYING,
  },
  /** The lamp decides, the room does not. */
  lamp: {
    factor: () => 1,
    factorWords: 'The lamp decides; the room does not.',
    stiffness: { modulusGPa: 1.5, pulls: 0.4 },
    givesOff: false,
    wet: false,
    byLamp: true,
    bubblesRise: false,
    runsOut: false,
    tintKeepsHours: 24,
    milk: STIRRED,
    spread: null,
    wantsDryAir: false,
    after: { title: 'Look for bubbles', under: 'Prick them now: under the lamp they set.', press: 'None left' },
    waitsFor: null,
    ready: [
      {
        id: 'lamp',
        must: true,
        text: 'Lamp shaded, eye protection on, gloves on, daylight out',
        why: 'The lamp hurts eyes and skin; daylight sets what is in the cup.',
      },
    ],
    leftovers: [
      'What has not seen light goes back into a dark, closed bottle, if nothing was stirred into it.',
      'Tinted leftovers are hardened in thin layers under the lamp before they are thrown away.',
    ],
    cautions: [
      'Do not look into the lamp; keep its light off the skin. Gloves; no skin contact with liquid resin. Air the room.',
      'Children: with an adult.',
      LEFTOVERS,
    ],
  },
  /** Sealants follow the temperature term. */
  'open-air': {
    factor: warmth,
    factorWords: 'The label’s times are stretched by the temperature of the room.',
    stiffness: { modulusGPa: 0.005, pulls: 0.3 },
    givesOff: true,
    wet: false,
    byLamp: false,
    bubblesRise: false,
    runsOut: true,
    tintKeepsHours: 1,
    milk: STIRRED,
    spread: { upToMm: Infinity, verb: 'Spread into', under: 'pressed into the corners, smoothed', press: 'Spread' },
    wantsDryAir: false,
    after: LEFT_OPEN,
    waitsFor: null,
    ready: [],
    leftovers: CLOSE_THE_BOTTLE,
    cautions: DRYING,
  },
};
