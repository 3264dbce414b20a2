import { z } from 'zod';

/** What a step is, and what is usual for it. Minutes are estimates until the bench knows better. */
export interface StepKindFacts {
  /** What it is called at the bench. */
  name: string;
  perBatchMinutes: number;
  perPieceMinutes: number;
  /** Drying or setting before the next step may begin, minutes. */
  dryMinutes?: number;
  mayPause?: true;
  outdoors?: true;
  noisy?: true;
  /** What it must come before, and why: an order that the work needs, not a habit. */
  before?: readonly { kind: string; why: string }[];
  caution?: string;
}

const UNDER_WATER = 'what is under water is fixed and dry before it is poured';

/** Every kind of step, in the usual order of the work. */
export const STEP_KINDS = {
  cut: {
    name: 'Cut and carve',
    perBatchMinutes: 15,
    perPieceMinutes: 10,
    mayPause: true,
    noisy: true,
    before: [{ kind: 'seal', why: 'a cut opens the body again' }],
    caution: 'Blades. Hot tools on foam give off fumes: outdoors or extraction, respirator.',
  },
  seal: {
    name: 'Seal joints, pinholes',
    perBatchMinutes: 10,
    perPieceMinutes: 3,
    dryMinutes: 180,
    mayPause: true,
    before: [
      { kind: 'pour', why: 'an unsealed pinhole leaks overnight' },
      { kind: 'paint', why: 'paint does not close a joint' },
    ],
  },
  paint: {
    name: 'Paint the bed',
    perBatchMinutes: 15,
    perPieceMinutes: 6,
    dryMinutes: 120,
    mayPause: true,
    before: [{ kind: 'pour', why: UNDER_WATER }],
  },
  rocks: {
    name: 'Fix rocks and debris',
    perBatchMinutes: 5,
    perPieceMinutes: 4,
    dryMinutes: 120,
    mayPause: true,
    before: [{ kind: 'pour', why: 'things that are not fixed float' }],
  },
  'plants before': {
    name: 'Plants into the bed',
    perBatchMinutes: 5,
    perPieceMinutes: 2,
    dryMinutes: 60,
    mayPause: true,
    before: [{ kind: 'pour', why: 'the water anchors them' }],
  },
  dam: {
    name: 'Dams on',
    perBatchMinutes: 5,
    perPieceMinutes: 4,
    dryMinutes: 15,
    mayPause: true,
    before: [
      { kind: 'level', why: 'dams shift the pieces' },
      { kind: 'pour', why: 'open edges run out' },
    ],
  },
  mould: { name: 'Clean and ready the moulds', perBatchMinutes: 5, perPieceMinutes: 2 },
  'leak test': {
    name: 'Leak test, dry again',
    perBatchMinutes: 5,
    perPieceMinutes: 1.5,
    dryMinutes: 120,
    mayPause: true,
    before: [{ kind: 'pour', why: 'a leak shows in water first' }],
  },
  level: {
    name: 'Level the bench',
    perBatchMinutes: 10,
    perPieceMinutes: 0.5,
    before: [{ kind: 'pour', why: 'the water finds the low side' }],
  },
  pour: { name: 'Pour', perBatchMinutes: 15, perPieceMinutes: 1 },
  bubbles: {
    name: 'Look for bubbles',
    perBatchMinutes: 3,
    perPieceMinutes: 0.3,
    caution: 'Heat only where nothing near burns or melts. Do not lean over it.',
  },
  'leak look': { name: 'Look for leaks, cover', perBatchMinutes: 4, perPieceMinutes: 0.2 },
  abrade: { name: 'Abrade and wipe', perBatchMinutes: 5, perPieceMinutes: 3, caution: 'Sand wet, with a dust mask.' },
  demould: { name: 'Dams off', perBatchMinutes: 5, perPieceMinutes: 2, mayPause: true },
  trim: { name: 'Trim the lip', perBatchMinutes: 5, perPieceMinutes: 2, mayPause: true },
  sand: {
    name: 'Sand, grit by grit',
    perBatchMinutes: 5,
    perPieceMinutes: 8,
    mayPause: true,
    before: [{ kind: 'gloss', why: 'gloss comes back over the finest grit' }],
    caution: 'Sand wet, with a dust mask.',
  },
  gloss: { name: 'Restore the gloss', perBatchMinutes: 5, perPieceMinutes: 2, dryMinutes: 240, mayPause: true },
  finish: { name: 'Surface finish', perBatchMinutes: 10, perPieceMinutes: 2 },
  ripples: {
    name: 'Ripples',
    perBatchMinutes: 5,
    perPieceMinutes: 5,
    dryMinutes: 240,
    mayPause: true,
    before: [{ kind: 'white', why: 'white goes on the very tips' }],
  },
  white: { name: 'White on the tips', perBatchMinutes: 5, perPieceMinutes: 3, dryMinutes: 60, mayPause: true },
  'plants after': {
    name: 'Plants and flock',
    perBatchMinutes: 10,
    perPieceMinutes: 4,
    dryMinutes: 120,
    mayPause: true,
  },
  varnish: {
    name: 'Varnish the land',
    perBatchMinutes: 10,
    perPieceMinutes: 1,
    dryMinutes: 120,
    outdoors: true,
    caution: 'Spray outdoors, mask on. Cover the water: always gloss, never matt, over it.',
  },
  inspect: { name: 'Look the pieces over', perBatchMinutes: 10, perPieceMinutes: 1 },
  cured: { name: 'Full cure', perBatchMinutes: 0, perPieceMinutes: 0 },
  ready: { name: 'Ready', perBatchMinutes: 0, perPieceMinutes: 0 },
  other: { name: 'Another step', perBatchMinutes: 10, perPieceMinutes: 0 },
} as const satisfies Record<string, StepKindFacts>;

export type StepKind = keyof typeof STEP_KINDS;
export const STEP_KIND_KEYS = Object.keys(STEP_KINDS) as [StepKind, ...StepKind[]];
export const stepKindSchema = z.enum(STEP_KIND_KEYS);
export const factsOfStep = (kind: StepKind): StepKindFacts => STEP_KINDS[kind];
/** What must never be before the pour: fibres draw wet resin up. */
export const AFTER_THE_POUR: readonly { kind: StepKind; why: string }[] = [
  { kind: 'plants after', why: 'plants that wick go on once the water has set' },
  { kind: 'varnish', why: 'nothing matt gets under or over the water' },
];
