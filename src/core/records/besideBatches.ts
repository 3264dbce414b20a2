import type { CopyFacts } from '../findings/facts';
import { FINDING_KINDS } from '../findings/findingKinds';
import { pieceKey } from '../model/pieceRef';
import { layerProduct } from '../plan/request';
import { copyFacts, type BatchRecord } from './copyFacts';
import { numbersOf } from './copies';
import type { BatchOverTime } from './overTime';
import type { Batch } from './recordSchemas';
import type { Shelf, ViewState } from './views';

/** What is on record of one of two batches that stand beside each other. */
export interface BatchBeside {
  went: BatchOverTime;
  record: BatchRecord;
  batch: Batch;
}

/** One thing in which two batches are compared, in words: `null` where it was not recorded. */
export interface BesideRow {
  what: string;
  a: string | null;
  b: string | null;
  /** How far apart they are, in steps that a maker would notice; 0: the same. */
  apart: number;
  /** How it is found. */
  how: string;
}

type Facts = Omit<BatchBeside, 'batch'> & { worst: Partial<CopyFacts>; found: string };

interface Measured {
  what: string;
  of: (facts: Facts) => number | null;
  say: (value: number) => string;
  /** So much apart is noticed. */
  step: number;
  how: string;
}

const signed = (value: number, digits: number): string => value.toFixed(digits).replace('-', '−');
const percent = (share: number): string => `${signed(100 * share, 1)} %`;
const measured: readonly Measured[] = [
  {
    what: 'Room at the pour',
    how: 'The temperature that was entered or read at each layer’s pour; of several the coldest.',
    of: ({ worst }) => worst.pouredC ?? null,
    say: (c) => `${c.toFixed(1)} °C`,
    step: 1,
  },
  {
    what: 'Coldest while it hardened',
    how: 'The coldest that a sensor read on the day of a pour and the two days after.',
    of: ({ worst }) => worst.coldestC ?? null,
    say: (c) => `${c.toFixed(1)} °C`,
    step: 1,
  },
  {
    what: 'Dampest while it hardened',
    how: 'The dampest that a sensor read on the day of a pour and the two days after.',
    of: ({ worst }) => worst.humidity ?? null,
    say: (h) => `${Math.round(100 * h)} %`,
    step: 0.05,
  },
  {
    what: 'Part A to part B, off the label',
    how: 'Weighed A over weighed B against the label’s ratio by weight; the cup that is furthest off.',
    of: ({ worst }) => worst.ratioOff ?? null,
    say: percent,
    step: 0.01,
  },
  {
    what: 'Stirred, of what is asked for',
    how: 'Minutes between the presses before and after stirring, over those that the step asks for; the cup that was stirred least.',
    of: ({ worst }) => worst.stirredShare ?? null,
    say: percent,
    step: 0.2,
  },
  {
    what: 'Colour, off the recipe',
    how: 'Colourants as they went into a cup, in 100 g of mix, against the recipe; the cup that is furthest off.',
    of: ({ worst }) => worst.tintOff ?? null,
    say: percent,
    step: 0.05,
  },
  {
    what: 'Colour, of the most it bears',
    how: 'All colourants of a cup by weight, over the most that water products bear; the fullest cup.',
    of: ({ worst }) => worst.tintShare ?? null,
    say: percent,
    step: 0.1,
  },
  {
    what: 'Oldest bottle past its date',
    how: 'From the date up to which a bottle was good, opened or not, to the first pour; the oldest of those that it took. Below 0: good for so long.',
    of: ({ worst }) => worst.monthsPast ?? null,
    say: (m) => `${signed(m, 0)} months`,
    step: 2,
  },
  {
    what: 'Thickest layer, of the most',
    how: 'Wet thickness of a layer over the thickest that its product bears; the thickest one.',
    of: ({ worst }) => worst.thickShare ?? null,
    say: percent,
    step: 0.1,
  },
  {
    what: 'Poured against planned',
    how: 'What the cups say a piece got, against what was planned for it; the piece that is furthest off.',
    of: ({ worst }) => worst.gramsOff ?? null,
    say: percent,
    step: 0.02,
  },
  {
    what: 'Level wanted',
    how: 'The level of the set when the batch was planned.',
    of: ({ record }) => record.request.set.levelMm,
    say: (mm) => `${mm.toFixed(1)} mm`,
    step: 0.5,
  },
  {
    what: 'Layers',
    how: 'Layers of the plan that was kept.',
    of: ({ record }) => record.amounts.layers.length,
    say: String,
    step: 0.5,
  },
  {
    what: 'Cups',
    how: 'Cups that were weighed, those that were thrown away among them.',
    of: ({ record }) => record.pours.reduce((sum, { cups }) => sum + cups.length, 0),
    say: String,
    step: 1,
  },
  { what: 'Pieces', how: 'Copies that the batch takes.', of: ({ went }) => went.pieces, say: String, step: 2 },
  {
    what: 'Mixed',
    how: 'All that was weighed into cups, with what was left of stock tint and premixes.',
    of: ({ went }) => went.mixedGrams,
    say: (g) => `${g.toFixed(0)} g`,
    step: 40,
  },
  {
    what: 'Lost of that',
    how: 'What reached no piece, over what was mixed; where the bench did not read it, the share that was planned.',
    of: ({ went }) => (went.mixedGrams > 0 ? went.lostGrams / went.mixedGrams : null),
    say: percent,
    step: 0.01,
  },
  {
    what: 'Minutes against what was reckoned',
    how: 'Minutes of the steps that were marked, over those that are reckoned for them now.',
    of: ({ went }) => went.timesReckoned,
    say: (x) => `× ${x.toFixed(2)}`,
    step: 0.15,
  },
  {
    what: 'Passed at the first look',
    how: 'Pieces that passed when they were first looked over, of those that were.',
    of: ({ went }) => (went.looked > 0 ? went.passed / went.looked : null),
    say: percent,
    step: 0.05,
  },
  {
    what: 'Levels off',
    how: 'How far pieces were found low or high, up or down alike, on the average.',
    of: ({ went }) => went.offMm,
    say: (mm) => `${mm.toFixed(2)} mm`,
    step: 0.2,
  },
];

/** Whether something was done: no where any cup or piece says so. */
const yesNo: readonly { what: string; of: keyof CopyFacts }[] = [
  { what: 'Beds sealed', of: 'sealed' },
  { what: 'Tested with water', of: 'leakTested' },
  { what: 'Bench levelled', of: 'levelled' },
  { what: 'Scraped and cup changed', of: 'scraped' },
  { what: 'Looked at for bubbles', of: 'looked' },
];

const YES_NO_HOW =
  'As the steps of the runs were pressed or left out; “no” where it was left out for any piece, nothing where no run says it.';

/** Of each fact the copy of the batch that is worst off: the furthest from nothing; the coldest; not done where any was not. */
function worstOf(record: BatchRecord, { items }: Batch): Partial<CopyFacts> {
  const copies = items.flatMap((item) => numbersOf(item).map((copy) => copyFacts(record, { ...item, copy })));
  const worst: Record<string, unknown> = {};
  for (const facts of copies)
    for (const [fact, value] of Object.entries(facts)) {
      const known = worst[fact];
      if (value === null) continue;
      if (known === undefined) worst[fact] = value;
      else if (typeof value === 'boolean') worst[fact] = known === true && value;
      else if (fact.endsWith('C') || fact === 'stirredShare') worst[fact] = Math.min(Number(known), value);
      else if (Math.abs(value) > Math.abs(Number(known))) worst[fact] = value;
    }
  return worst;
}

/** What was found on a batch at any look, each with on how many pieces. */
function foundOn({ inspections = [] }: Batch): string {
  const pieces = new Map<string, Set<string>>();
  for (const one of inspections)
    for (const { kind } of one.findings) pieces.set(kind, (pieces.get(kind) ?? new Set()).add(pieceKey(one)));
  return [...pieces]
    .map(([kind, on]) => `${FINDING_KINDS[kind as keyof typeof FINDING_KINDS].short} on ${on.size}`)
    .join(', ');
}

const productsOf = ({ request, amounts }: BatchRecord): string =>
  [...new Set(amounts.layers.map((layer) => layerProduct(request, layer).name))].join(', ');

/** Two batches beside each other: what was most different first, what is the same last. Facts of copies are those of the worst off. */
export function besideBatches(a: BatchBeside, b: BatchBeside): BesideRow[] {
  const [one, other] = [a, b].map(({ batch, ...rest }) => ({
    ...rest,
    worst: worstOf(rest.record, batch),
    found: foundOn(batch),
  })) as [Facts, Facts];
  const words = (what: string, how: string, of: (facts: Facts) => string | null, apart: number): BesideRow => {
    const [left, right] = [of(one), of(other)];
    return { what, how, a: left, b: right, apart: left === right ? 0 : apart };
  };
  const rows = [
    words('Product', 'Of the layers of the plan that was kept.', ({ record }) => productsOf(record), 20),
    words('Recipe', 'As it stood when the batch was planned.', ({ record }) => record.request.recipe.name, 10),
    words('Found', 'Findings at any look, each with on how many pieces.', ({ found }) => found || 'nothing', 15),
    ...yesNo.map(({ what, of }) =>
      words(what, YES_NO_HOW, ({ worst }) => (worst[of] === undefined ? null : worst[of] ? 'yes' : 'no'), 5),
    ),
    ...measured.map(({ what, how, of, say, step }): BesideRow => {
      const [left, right] = [of(one), of(other)];
      return {
        what,
        how,
        a: left === null ? null : say(left),
        b: right === null ? null : say(right),
        apart: left === null || right === null ? 0 : Math.abs(left - right) / step,
      };
    }),
  ];
  return rows
    .filter((row) => row.a !== null || row.b !== null)
    .map((row) => ({ ...row, apart: row.apart < 1 ? 0 : row.apart }))
    .toSorted((left, right) => right.apart - left.apart);
}

/** Two batches beside each other as their page begins; null where fewer than two are poured. */
export interface BesideView extends Shelf, ViewState {
  /** All that are poured, the newest first. */
  batches: Pick<BatchOverTime, 'batchId' | 'name' | 'set' | 'at'>[];
  a: BatchOverTime | null;
  b: BatchOverTime | null;
  rows: BesideRow[];
}
