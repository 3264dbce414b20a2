import type { FindingKind } from './findingKinds';

/** A way to mend a finding. */
export interface Mend {
  words: string;
  /** What it takes, or what to take care of. */
  care: string;
  /** A film so thick over all of the water, mm; `as found`: as much as is missing. */
  filmMm?: number | 'as found';
  /** The calendar plans it as the repair of the layer: abrade, then a thin layer over it. */
  inCalendar?: true;
}

const WAIT: Mend = {
  words: 'Wait, warmer',
  care: 'A day at 24 °C: what was cold goes on hardening. Nothing goes on top while it is tacky.',
};
const RECOAT: Mend = {
  words: 'Abrade, wipe, a thin layer over it',
  care: 'Only on what is hard: nothing bonds to tacky. The level rises by the layer.',
  filmMm: 1,
  inCalendar: true,
};
const WASH: Mend = {
  words: 'Wash off what is not cured, start again',
  care: 'With the solvent that the label names, gloves on, no flame, air.',
};
const CUT: Mend = { words: 'Cut it out and refill', care: 'Blade away from fingers; seal the cut before the refill.' };
const TOP_UP: Mend = {
  words: 'Top up to the level',
  care: 'Abrade first where the recoat window is over.',
  filmMm: 'as found',
  inCalendar: true,
};
const GLOSS: Mend = { words: 'Gloss over it', care: 'A thin coat of clear gloss; matt spoils water.' };
const HIDE: Mend = { words: 'Hide it', care: 'Reeds, foam or ripples over the place.' };
const SHIM: Mend = { words: 'Shim the piece', care: 'Match says how much at which corner.' };
const PRICK: Mend = { words: 'Prick, fill the holes', care: 'A pin, then a drop of the same mix, wiped level.' };
const TRIM: Mend = { words: 'Trim the lip', care: 'A sharp blade flat on the water, away from fingers.' };

/** What may be done about each finding, what costs least first. */
export const MENDS: Record<FindingKind, readonly Mend[]> = {
  low: [SHIM, TOP_UP],
  high: [TRIM, SHIM],
  leaked: [
    {
      words: 'Close it from outside',
      care: 'Tape or putty on the dry side; let what is left set before anything goes on top.',
    },
    TOP_UP,
    HIDE,
  ],
  cloudy: [WAIT, RECOAT, HIDE],
  bubbles: [PRICK, RECOAT, HIDE],
  'darker side': [HIDE],
  'off colour': [{ ...RECOAT, words: 'Abrade, a thin tinted layer over it' }, HIDE],
  'detail lost': [{ words: 'Set it again on the surface', care: 'Leaves, foam, lights that lie on the water.' }, HIDE],
  'white line': [GLOSS, CUT],
  yellow: [RECOAT, HIDE],
  tacky: [WAIT, WASH, RECOAT],
  'tacky spots': [WAIT, CUT, RECOAT],
  'soft beneath': [WAIT, CUT],
  wrinkles: [RECOAT],
  rings: [TRIM, TOP_UP],
  'dull side': [GLOSS],
  'wall gap': [TOP_UP, HIDE],
  crack: [TOP_UP, CUT],
  warp: [{ words: 'Weight it, warm', care: 'A night under a flat weight, 30 °C at most.' }, SHIM],
  floated: [CUT, HIDE],
  'dark flock': [HIDE],
  eaten: [CUT, HIDE],
};
