import type { CureModelName } from '../model/productSchema';
import { FINDINGS, type FindingKind } from './findingKinds';
import type { SignId } from './facts';

/** What a cause reaches: all of one cup, all of a batch, or a piece by itself. */
export type Reach = 'cup' | 'batch' | 'piece';

interface Cause {
  words: string;
  reach: Reach;
  /** How often it is behind a finding before anything is known, against the others. Typical. */
  fits: Partial<Record<FindingKind, number>>;
  /** What the record says of it. */
  signs: readonly SignId[];
  /** Only products that harden so have it. */
  only?: readonly CureModelName[];
  /** What to do otherwise next time. */
  next: string;
}

const SET_IN_CUP = ['two-part'] as const;

/** What nobody thought of is behind one in ten. */
const ANYTHING = Object.fromEntries(FINDINGS.map((finding) => [finding, 10])) as Record<FindingKind, number>;

/** What may be behind findings, and what on record bears on it. */
export const CAUSES = {
  ratio: {
    words: 'ratio off',
    reach: 'cup',
    fits: { tacky: 25, 'soft beneath': 10, cloudy: 3 },
    signs: ['ratio'],
    only: SET_IN_CUP,
    next: 'Weigh part B to the gram that the run shows; mend what is over.',
  },
  stirring: {
    words: 'stirred too short',
    reach: 'cup',
    fits: { tacky: 20, 'tacky spots': 25, cloudy: 15 },
    signs: ['stir'],
    only: SET_IN_CUP,
    next: 'Stir for as long as the clock of the run asks, slowly.',
  },
  scraping: {
    words: 'cup not scraped',
    reach: 'cup',
    fits: { 'tacky spots': 40, tacky: 6 },
    signs: ['scrape'],
    only: SET_IN_CUP,
    next: 'Scrape wall, bottom and stick, and pour from a second cup.',
  },
  cold: {
    words: 'too cold',
    reach: 'batch',
    fits: { tacky: 20, cloudy: 12, 'soft beneath': 8 },
    signs: ['cold'],
    next: 'Keep the room at the label’s warmth through the night, or pour in a warmer week.',
  },
  tint: {
    words: 'too much colour',
    reach: 'batch',
    fits: { tacky: 10, 'soft beneath': 18, cloudy: 5, 'detail lost': 30 },
    signs: ['tint'],
    next: 'Tint weaker, or over more layers.',
  },
  'water-based colour': {
    words: 'water-based colour',
    reach: 'batch',
    fits: { cloudy: 20, tacky: 8 },
    signs: ['waterTint'],
    only: SET_IN_CUP,
    next: 'Take an ink or pigment made for resin.',
  },
  'old bottle': {
    words: 'old bottle',
    reach: 'batch',
    fits: { tacky: 10, yellow: 60, cloudy: 4 },
    signs: ['old'],
    next: 'Use up open bottles first, and test a drop of one past its date.',
  },
  thick: {
    words: 'layer too thick',
    reach: 'batch',
    fits: { 'soft beneath': 30, crack: 30, warp: 15, 'wall gap': 15 },
    signs: ['thick'],
    next: 'Pour it in one layer more.',
  },
  damp: {
    words: 'damp air',
    reach: 'batch',
    fits: { cloudy: 20, 'tacky spots': 10, tacky: 4 },
    signs: ['damp'],
    next: 'Close the lid, keep the air under 60 %.',
  },
  'recoat early': {
    words: 'poured on before the layer was ready',
    reach: 'batch',
    fits: { cloudy: 12, 'soft beneath': 20, wrinkles: 25 },
    signs: ['early'],
    next: 'Wait for the layer’s window: Cure rings when it opens.',
  },
  'recoat late': {
    words: 'poured on too late',
    reach: 'batch',
    fits: { 'white line': 60, wrinkles: 10 },
    signs: ['late'],
    next: 'Stay within the recoat window, or abrade and wipe first.',
  },
  'no look': {
    words: 'bubbles not looked for',
    reach: 'cup',
    fits: { bubbles: 30 },
    signs: ['noLook'],
    next: 'Look at 10 and 15 min; the run rings.',
  },
  'cold parts': {
    words: 'poured cold and stiff',
    reach: 'batch',
    fits: { bubbles: 25, wrinkles: 5 },
    signs: ['coldParts'],
    only: SET_IN_CUP,
    next: 'Warm the bottles in water before mixing.',
  },
  'bed not sealed': {
    words: 'bed not sealed',
    reach: 'batch',
    fits: { bubbles: 25, low: 15, leaked: 25, 'dark flock': 40 },
    signs: ['unsealed'],
    next: 'Seal the bed twice, and drip water on it to see.',
  },
  leak: {
    words: 'leak',
    reach: 'piece',
    fits: { low: 35, leaked: 45 },
    signs: ['leak', 'untested'],
    next: 'Test the dams with water for ten minutes before the pour.',
  },
  'poured short': {
    words: 'got too little',
    reach: 'piece',
    fits: { low: 25 },
    signs: ['short'],
    next: 'Pour on the scale to the gram that the run shows.',
  },
  'poured over': {
    words: 'got too much',
    reach: 'piece',
    fits: { high: 50 },
    signs: ['over'],
    next: 'Stop at the mark: trickle the last three grams.',
  },
  'bench tilted': {
    words: 'bench out of level',
    reach: 'batch',
    fits: { low: 12, high: 15, 'darker side': 45 },
    signs: ['tilt'],
    next: 'Level the bench both ways before the pour, on the day of the pour.',
  },
  dose: {
    words: 'colour dosed off',
    reach: 'cup',
    fits: { 'off colour': 45, 'detail lost': 20 },
    signs: ['dose'],
    next: 'Mix one stock tint for all cups, weighed.',
  },
  'past pot life': {
    words: 'poured too late from its cup',
    reach: 'piece',
    fits: { bubbles: 10, wrinkles: 20, rings: 15, 'wall gap': 5 },
    signs: ['potLife'],
    only: SET_IN_CUP,
    next: 'Smaller cups, or one piece fewer in each.',
  },
  'surface tension': {
    words: 'water creeps up its wall: to be expected',
    reach: 'batch',
    fits: { rings: 60 },
    signs: [],
    next: 'Trim the lip, or pour a second thin fill.',
  },
  'tape or sanding': {
    words: 'side as the tape or paper left it',
    reach: 'piece',
    fits: { 'dull side': 80 },
    signs: [],
    next: 'Gloss the side.',
  },
  'drying shrinkage': {
    words: 'it shrinks as it dries',
    reach: 'batch',
    fits: { low: 10, 'wall gap': 45, crack: 25 },
    signs: [],
    only: ['water-borne', 'open-air'],
    next: 'More, thinner coats.',
  },
  'one-sided coat': {
    words: 'coat on one side only',
    reach: 'piece',
    fits: { warp: 40 },
    signs: [],
    next: 'Coat both sides of thin boards, weight the middle.',
  },
  'not fixed': {
    words: 'not fixed before the pour',
    reach: 'piece',
    fits: { floated: 80 },
    signs: [],
    next: 'Glue it, and leave it a night, before the water.',
  },
  'flock first': {
    words: 'flock on before the water',
    reach: 'batch',
    fits: { 'dark flock': 40 },
    signs: [],
    next: 'Flock after the water.',
  },
  solvent: {
    words: 'solvent, spray or superglue on the foam',
    reach: 'batch',
    fits: { eaten: 80 },
    signs: [],
    next: 'Seal foam before anything with solvent comes near.',
  },
  grease: {
    words: 'silicone or finger fat on it',
    reach: 'piece',
    fits: { wrinkles: 30 },
    signs: [],
    next: 'Wipe with the solvent of the label before the pour, gloves on.',
  },
  sun: {
    words: 'sun or heat',
    reach: 'piece',
    fits: { yellow: 30 },
    signs: [],
    next: 'Out of the sun, away from the heater.',
  },
  'deeper bed': {
    words: 'the bed is deeper there',
    reach: 'piece',
    fits: { 'darker side': 25 },
    signs: [],
    next: 'Measure the bed at that side.',
  },
  other: {
    words: 'something else',
    reach: 'piece',
    fits: ANYTHING,
    signs: [],
    next: 'Note down what you saw: it is found again.',
  },
} as const satisfies Record<string, Cause>;
export type CauseId = keyof typeof CAUSES;
export const causeOf = (id: CauseId): Cause => CAUSES[id];
