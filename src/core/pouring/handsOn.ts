import { PER_PIECE_MINUTES, STIR_MINUTES, TRANSFER_MINUTES } from '../mixing/potLife';

/** Setting up, levelling and looking for bubbles, on top of mixing and pouring. */
export const SETUP_MINUTES = 15;
/** Setting plants into one piece, reeds and weed from prepared bunches. An estimate. */
export const PLANT_MINUTES = 2;
/** From the beginning of a layer to its first piece: setting up, stirring, changing cup. */
export const FIRST_PIECE_MINUTES = SETUP_MINUTES + STIR_MINUTES + TRANSFER_MINUTES;

/** What there is to do for a layer. */
export interface LayerWork {
  cups: number;
  /** Pours, a piece that is larger than a cup counted for each. */
  pours: number;
  mixGrams: number;
  pourGramsPerMinute: number;
  /** How long its product is stirred, where the maker has said. */
  stirMinutes?: number | undefined;
  /** Pairs of hands; the speed is that of all of them. */
  hands?: 1 | 2 | undefined;
}

/**
 * Whole minutes at the bench for one layer: setting up, then for each cup stirring, changing cup and pouring, for each piece reaching and
 * waiting. An estimate.
 */
export const layerHandsOnMinutes = ({
  cups,
  pours,
  mixGrams,
  pourGramsPerMinute,
  stirMinutes = STIR_MINUTES,
  hands = 1,
}: LayerWork): number =>
  Math.ceil(
    SETUP_MINUTES +
      cups * (stirMinutes + TRANSFER_MINUTES) +
      mixGrams / pourGramsPerMinute +
      (pours * PER_PIECE_MINUTES) / hands -
      1e-9,
  );
