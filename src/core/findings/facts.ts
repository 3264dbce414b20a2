import { z } from 'zod';
import { RATIO_GOOD, RATIO_WRONG } from '../mixing/ratio';

const share = z.number().min(-1000).max(1000).nullable();
const minutesOff = z.number().min(-10_000_000).max(10_000_000).nullable();
const celsius = z.number().min(-40).max(80);
const whether = z.boolean().nullable();

/** What is on record of how a copy got its water, of its layers the worst; null: it was not recorded, or has no such thing. */
export const copyFactsSchema = z.object({
  /** Part A to part B as weighed, off the label's ratio, as a share. */
  ratioOff: share,
  /** How long it was stirred, as a share of what is asked for. */
  stirredShare: share,
  /** Whether its cup was scraped and changed. */
  scraped: whether,
  /** The room at the pour, the coldest hour until it was cured, and what the label assumes, °C. */
  pouredC: celsius.nullable(),
  coldestC: celsius.nullable(),
  labelC: celsius,
  /** The dampest hour in which it hardened, 0 to 1. */
  humidity: z.number().min(0).max(1).nullable(),
  /** Months by which the oldest bottle was past its date; less than 0: it was good. */
  monthsPast: z.number().min(-1200).max(1200).nullable(),
  /** Colourant in the mix as a share of the most that it bears, altogether and of the water-based. */
  tintShare: share,
  waterTintShare: share,
  /** Thickest layer as a share of the thickest that the product bears. */
  thickShare: share,
  /** Minutes by which a layer went on after its window had closed with nothing abraded; less than 0: in time. */
  recoatLate: minutesOff,
  /** Minutes by which it went on before that had opened. */
  recoatEarly: minutesOff,
  /** Whether it was looked at for bubbles; leaks that were seen; beds sealed; dams tested with water; the bench levelled. */
  looked: whether,
  leaked: whether,
  sealed: whether,
  leakTested: whether,
  levelled: whether,
  /** What it got against what was planned, as a share. */
  gramsOff: share,
  /** Colour in its cup against the recipe, the worst colourant, as a share. */
  tintOff: share,
  /** Poured after its pot life, minutes; less than 0: in time. */
  potLate: minutesOff,
});
export type CopyFacts = z.infer<typeof copyFactsSchema>;

/** How strongly a fact speaks: 2 strongly for, 1 for, 0 neither way, −1 against. */
export type Speaks = 2 | 1 | 0 | -1;
export interface Reading {
  speaks: Speaks;
  words: string;
}

const percent = (share: number): string => `${Math.abs(100 * share).toFixed(Math.abs(share) < 0.1 ? 1 : 0)} %`;
const graded = (value: number, against: number, speaks: number, strongly: number): Speaks =>
  value >= strongly ? 2 : value >= speaks ? 1 : value <= against ? -1 : 0;
const minutes = (value: number): string => (value < 120 ? `${Math.round(value)} min` : `${Math.round(value / 60)} h`);

interface Sign {
  /** How a fact speaks for a cause that it bears on; null when nothing is recorded. */
  read: (facts: CopyFacts) => Reading | null;
  /** What is not known then, and how to find out. */
  missing: string;
  findOut: string;
}

/** A sign that reads one fact, when that is recorded. */
const sign = <K extends keyof CopyFacts>(
  fact: K,
  missing: string,
  findOut: string,
  read: (value: NonNullable<CopyFacts[K]>, facts: CopyFacts) => Reading,
): Sign => ({
  missing,
  findOut,
  read: (facts) => {
    const value = facts[fact];
    return value === null ? null : read(value as NonNullable<CopyFacts[K]>, facts);
  },
});
const yesNo = (value: boolean, yes: Reading, no: Reading): Reading => (value ? yes : no);
const forIt = (words: string, speaks: Speaks = 2): Reading => ({ speaks, words });
const againstIt = (words: string): Reading => ({ speaks: -1, words });

const RATIO_UNKNOWN = 'What went into its cup';
const TINT_LIMIT = 'Colourant in the mix';

/** What speaks for a cause, each from one fact of the record. */
export const SIGNS = {
  ratio: sign('ratioOff', RATIO_UNKNOWN, 'Weigh the parts into each cup: the run writes them down.', (off) => ({
    speaks: graded(Math.abs(off), RATIO_GOOD / 2, RATIO_GOOD, RATIO_WRONG),
    words: `A to B ${percent(off)} off${Math.abs(off) > RATIO_GOOD ? `, too much ${off > 0 ? 'A' : 'B'}` : ''}`,
  })),
  stir: sign(
    'stirredShare',
    'How long its cup was stirred',
    'A test drop that is soft right through speaks for stirring.',
    (share) => ({
      speaks: graded(1 - share, 0.05, 0.2, 0.4),
      words: share >= 0.95 ? 'stirred as long as asked for' : `stirred ${percent(share)} of what is asked for`,
    }),
  ),
  scrape: sign(
    'scraped',
    'Whether its cup was scraped and changed',
    'Spots at the end of a pour speak for the wall of the cup.',
    (scraped) => yesNo(scraped, againstIt('cup scraped and changed'), forIt('cup not scraped and changed')),
  ),
  cold: sign(
    'coldestC',
    'How cold it got while it hardened',
    'Warm it to 24 °C for a day: what was cold goes on hardening.',
    (coldest, { labelC }) => ({
      speaks: graded(labelC - coldest, 2, 4, 8),
      words: `${coldest.toFixed(1)} °C at the coldest, the label wants ${labelC.toFixed(0)}`,
    }),
  ),
  coldParts: sign('pouredC', 'How warm it was at the pour', 'Write the room down at the pour.', (room, { labelC }) => ({
    speaks: graded(labelC - room, 1, 3, 6),
    words: `poured at ${room.toFixed(1)} °C`,
  })),
  damp: sign('humidity', 'How damp the air was', 'Read the room over a night.', (humidity) => ({
    speaks: graded(humidity, 0.55, 0.65, 0.75),
    words: `air ${percent(humidity)} damp at most`,
  })),
  old: sign('monthsPast', 'How old its bottle is', 'Enter the bottle with its date on the shelf.', (past) => ({
    speaks: graded(past, -1, 0, 6),
    words: past > 0 ? `bottle ${Math.round(past)} months past its date` : 'bottle within its date',
  })),
  tint: sign('tintShare', TINT_LIMIT, 'Weigh what drops come to.', (share) => ({
    speaks: graded(share, 0.7, 1, 1.5),
    words: `${percent(share)} of the most colourant that it bears`,
  })),
  waterTint: sign('waterTintShare', TINT_LIMIT, 'Weigh what drops come to.', (share) => ({
    speaks: graded(share, 0.5, 0.8, 1.2),
    words: share === 0 ? 'no water-based colour in it' : `${percent(share)} of the most water-based colour`,
  })),
  thick: sign('thickShare', 'How thick its layers are', 'Measure the bed.', (share) => ({
    speaks: graded(share, 0.8, 1.02, 1.3),
    words: `thickest layer ${percent(share)} of what it bears`,
  })),
  late: sign('recoatLate', 'When its layers went on', 'Enter the time of each pour in the log.', (late) => ({
    speaks: graded(late, 0, 1, 360),
    words: late > 0 ? `next layer ${minutes(late)} after its window, not abraded` : 'next layer within its window',
  })),
  early: sign('recoatEarly', 'When its layers went on', 'Enter the time of each pour in the log.', (early) => ({
    speaks: graded(early, 0, 1, 120),
    words: early > 0 ? `next layer ${minutes(early)} before the one below was ready` : 'the layer below was ready',
  })),
  noLook: sign('looked', 'Whether it was looked at for bubbles', 'The run rings at 10 and 15 min.', (looked) =>
    yesNo(looked, againstIt('looked at for bubbles in time'), forIt('not looked at for bubbles')),
  ),
  unsealed: sign(
    'sealed',
    'Whether the bed was sealed',
    'Drip water on a bare place of the bed: does it sink in?',
    (sealed) => yesNo(sealed, againstIt('bed sealed'), forIt('bed not sealed')),
  ),
  leak: sign('leaked', 'Whether it leaked', 'Look under it and at the dams for a tongue of resin.', (leaked) =>
    yesNo(leaked, forIt('a leak was seen'), againstIt('no leak was seen')),
  ),
  untested: sign(
    'leakTested',
    'Whether its dams were tested',
    'Fill it with water for ten minutes before the pour.',
    (tested) => yesNo(tested, againstIt('dams tested with water'), forIt('dams not tested with water', 1)),
  ),
  tilt: sign('levelled', 'Whether the bench was level', 'Lay a level on the bench, both ways.', (levelled) =>
    yesNo(levelled, againstIt('bench levelled'), forIt('bench not levelled')),
  ),
  short: sign('gramsOff', 'What it got', 'Pour on the scale: the run writes down what each piece got.', (off) => ({
    speaks: graded(-off, 0.01, 0.03, 0.08),
    words: off < -0.01 ? `got ${percent(off)} less than planned` : 'got what was planned',
  })),
  over: sign('gramsOff', 'What it got', 'Pour on the scale: the run writes down what each piece got.', (off) => ({
    speaks: graded(off, 0.01, 0.03, 0.08),
    words: off > 0.01 ? `got ${percent(off)} more than planned` : 'got what was planned',
  })),
  dose: sign('tintOff', 'What colour went into its cup', 'Weigh the cup before and after the drops.', (off) => ({
    speaks: graded(Math.abs(off), 0.05, 0.1, 0.25),
    words: `colour in its cup ${percent(off)} off the recipe`,
  })),
  potLife: sign('potLate', 'When its cup was poured', 'Pour with the run: it keeps the clock.', (late) => ({
    speaks: graded(late, -5, 0, 10),
    words: late > 0 ? `poured ${minutes(late)} after its pour-by` : 'poured within its pot life',
  })),
} as const satisfies Record<string, Sign>;
export type SignId = keyof typeof SIGNS;
