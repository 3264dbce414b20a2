import { TYPICAL_LOSSES, type Losses } from '../mixing/losses';
import { PER_PIECE_MINUTES, potLifeMinutes } from '../mixing/potLife';
import { setsInTheCup, type Product } from '../model/productSchema';
import type { Stored } from '../model/stored';
import { factsOfStep, STEP_KIND_KEYS, type StepKind } from '../schedule/stepKinds';
import type { StepMinutes } from '../schedule/routes';
import type { WallTime } from '../time/wallTime';
import { farOff, learnLinear, learnMean, type Estimate, type Prior } from './estimate';
import { NOTHING_LEARNT, type Learning } from './learningSchema';
import type { RecordedCup, RecordedLevel, RecordedPack, RecordedWork } from './recordedWork';

/** The figures that the record may correct, as they stand. */
export interface Standing {
  losses: Losses;
  products: readonly Stored<Product>[];
  stepMinutes: StepMinutes;
  learning?: Learning | undefined;
}

export const LEARNT_KINDS = ['losses', 'pace', 'pot life', 'shrinkage', 'price', 'step'] as const;
export type LearntKind = (typeof LEARNT_KINDS)[number];

/** Fewer observations than this offer nothing. */
const LEAST = 3;

/** What is the same for all figures of a kind. */
interface KindFacts {
  /** The prior counts as so many observations, which spread by such a share of it. */
  n0: number;
  spread: number;
  /** They spread by no less than this: what a gauge or a scale is off by. */
  leastSpread: number;
  /** How many times too much is as far off as how many times too little: always more than nothing. */
  byRatio: boolean;
  /** One observation is one of these. */
  one: string;
  many: string;
  /** How it comes about, in words. */
  how: string;
}

export const LEARNT_KIND_FACTS: Record<LearntKind, KindFacts> = {
  losses: {
    n0: 4,
    spread: 0.4,
    leastSpread: 1e-6,
    byRatio: false,
    one: 'cup',
    many: 'cups',
    how: 'What was mixed in a cup less what reached its pieces is g a cup + a share of the mix + g a piece, by least squares over the cups that were read; the figures before count as four cups of usual size each. A dot is a cup brought to the usual size.',
  },
  pace: {
    n0: 3,
    spread: 0.5,
    leastSpread: 1e-6,
    byRatio: true,
    one: 'piece',
    many: 'pieces',
    how: `A piece takes ${PER_PIECE_MINUTES} min to reach, and its grams at the pace. Minutes a gram are averaged, a large piece counting for more by its grams; the figure before counts as three pieces of the usual size.`,
  },
  'pot life': {
    n0: 2,
    spread: 0.25,
    leastSpread: 1e-6,
    byRatio: true,
    one: 'cup',
    many: 'cups',
    how: 'From when the parts met until “draws threads” was pressed, brought to the label’s cup and temperature by the same law that plans use; the figure before counts as two cups.',
  },
  shrinkage: {
    n0: 3,
    spread: 0.5,
    // Two tenths of a millimetre over a centimetre.
    leastSpread: 0.02,
    byRatio: false,
    one: 'piece',
    many: 'pieces',
    how: 'A level found low or high after curing, over the mean depth of the piece, says how much of the volume went. Pieces found right count as level. A batch counts once; the figure before counts as three. Assumes that what was planned went in and nothing leaked.',
  },
  price: {
    n0: 1,
    spread: 0.3,
    leastSpread: 1e-6,
    byRatio: true,
    one: 'pack',
    many: 'packs',
    how: 'What was paid, brought to the size of the pack; one bought half a year before the last counts half. The figure before counts as one pack.',
  },
  step: {
    n0: 2,
    spread: 0.6,
    leastSpread: 1e-6,
    byRatio: true,
    one: 'time',
    many: 'times',
    how: 'Minutes as they were marked against minutes as they were reckoned, for a batch and for each piece alike; the minutes before count as two times.',
  },
};

/** One observation as it is drawn: brought to the unit of its figure. */
export interface LearntDot {
  key: string;
  at: WallTime;
  batchId: string | null;
  value: number;
  /** Far off the others: a clock that was wrong, a pause. Not counted, unless the maker says so. */
  far: boolean;
  counted: boolean;
}

/** A figure of which the record says something. */
export interface LearntFigure {
  id: string;
  kind: LearntKind;
  /** The product or kind of step it is of; null for the workshop. */
  of: string | null;
  name: string;
  /** Unit of the dots: `g`, `g/min`, `min`, `%`, `×`, or money. */
  unit: 'g' | 'g/min' | 'min' | '%' | '×' | 'money';
  /** The figures themselves, as they stand and as they are learnt; rounded to what they are known to. */
  fields: { name: string; unit: 'g' | 'g/min' | 'min' | '%' | 'money'; was: number; now: number }[];
  /** The oldest first. */
  dots: LearntDot[];
  /** How many there are, drawn or not. */
  observed: number;
  /** The line as the figure stands, and the one of the record with its standard error, in the dots’ unit. */
  was: number;
  now: Estimate;
  /** The figures before anything was learnt: the next time they are the prior again. */
  before: number[];
  counted: number;
  /** In how many batches those were made; none where they were bought. */
  batches: number;
  /** Offered; taken over and still right; refused until more is known; too little on record; nothing would change. */
  standing: 'offered' | 'taken' | 'refused' | 'too few' | 'the same';
}

const to = (value: number, step: number): number => Math.round(Math.round(value / step) * step * 1e6) / 1e6;
const sum = (values: readonly number[]): number => values.reduce((all, value) => all + value, 0);

/** A dot before it is known which are far off, with what it weighs. */
interface Seen {
  key: string;
  at: WallTime;
  batchId: string | null;
  value: number;
  weight: number;
}

interface Plan {
  id: string;
  kind: LearntKind;
  of: string | null;
  name: string;
  unit: LearntFigure['unit'];
  fields: readonly Omit<LearntFigure['fields'][number], 'now'>[];
  seen: readonly Seen[];
  /** The dots’ value of figures. */
  lineOf: (figures: readonly number[]) => number;
  /** Figures, from the prior ones and the observations that count; not rounded. */
  learn: (before: readonly number[], counted: readonly Seen[]) => { figures: number[]; line: Estimate };
  round: (figures: readonly number[]) => number[];
}

/** A figure before the record speaks, as its kind has it. */
function priorOf(kind: LearntKind, value: number): Prior {
  const { n0, spread, leastSpread } = LEARNT_KIND_FACTS[kind];
  return { value, n0, spread: Math.max(value * spread, leastSpread) };
}

/** How the observations of a mean become its figure: the mean itself is the line, and `figuresOf` what it makes of the figures. */
const byMean =
  (kind: LearntKind, figuresOf: (before: readonly number[], line: number) => number[], lineOf: Plan['lineOf']) =>
  (before: readonly number[], counted: readonly Seen[]): { figures: number[]; line: Estimate } => {
    const prior = lineOf(before);
    const line = learnMean(priorOf(kind, prior), counted);
    return { figures: figuresOf(before, line.value), line };
  };

/**
 * What the record says of every figure that it says anything of, the workshop’s losses first, then product by product, then steps. An
 * answer of the maker’s stands until more is known: taken over, the prior is what was there before; refused, it is offered again with
 * half as many observations more.
 */
export function learntFigures(work: RecordedWork, standing: Standing): LearntFigure[] {
  const learning = standing.learning ?? NOTHING_LEARNT;
  const turned = new Set(learning.turned);
  const [cups, levels, packs] = [ofProducts(work.cups), ofProducts(work.levels), ofProducts(work.packs)];
  const plans = [
    ...losses(work, standing),
    ...standing.products.flatMap((product) => [
      ...pace(cups.get(product.id) ?? [], product),
      ...potLife(cups.get(product.id) ?? [], product),
      ...shrinkage(levels.get(product.id) ?? [], product),
      ...price(packs.get(product.id) ?? [], product),
    ]),
    ...STEP_KIND_KEYS.flatMap((kind) => steps(work, kind, standing.stepMinutes)),
  ];
  return plans.flatMap((plan) => (plan.seen.length > 0 ? [figureOf(plan, learning, turned)] : []));
}

/** What is on record of each product. */
function ofProducts<T extends { productId: string }>(rows: readonly T[]): Map<string, T[]> {
  const of = new Map<string, T[]>();
  for (const row of rows) {
    const own = of.get(row.productId);
    if (own) own.push(row);
    else of.set(row.productId, [row]);
  }
  return of;
}

function figureOf(plan: Plan, learning: Learning, turned: ReadonlySet<string>): LearntFigure {
  const { id, kind, of, name, unit, fields, seen, lineOf } = plan;
  const stands = fields.map(({ was }) => was);
  const answer = learning.answers[id];
  const taken = answer?.after?.every((value, i) => value === stands[i]) ?? false;
  const before = taken ? answer!.before : stands;
  const prior = lineOf(before);
  const far = LEARNT_KIND_FACTS[kind].byRatio
    ? farByRatio(kind, prior, seen)
    : farOff(priorOf(kind, prior), values(seen));
  const dots = seen.map(({ key, at, batchId, value }, i): LearntDot => ({
    key,
    at,
    batchId,
    value,
    far: far[i]!,
    counted: far[i]! === (turned.size > 0 && turned.has(`${id} ${key}`)),
  }));
  const counted = seen.filter((_, i) => dots[i]!.counted);
  const { figures, line } = plan.learn(before, counted);
  const now = plan.round(figures);
  const changes = now.some((value, i) => value !== stands[i]);
  const refusedAt = answer?.after === null ? answer.seen : null;
  return {
    id,
    kind,
    of,
    name,
    unit,
    fields: fields.map((field, i) => ({ ...field, now: now[i]! })),
    dots,
    observed: dots.length,
    was: lineOf(stands),
    now: line,
    before: [...before],
    counted: counted.length,
    batches: new Set(counted.flatMap(({ batchId }) => batchId ?? [])).size,
    standing:
      counted.length < LEAST
        ? 'too few'
        : !changes
          ? taken
            ? 'taken'
            : 'the same'
          : refusedAt !== null && counted.length < refusedAt * 1.5
            ? 'refused'
            : 'offered',
  };
}

const values = (seen: readonly Seen[]): number[] => seen.map(({ value }) => value);

/** What is far off as a ratio. Nothing is where there is nothing to measure from: a price that was never entered. */
function farByRatio(kind: LearntKind, prior: number, seen: readonly Seen[]): boolean[] {
  if (prior <= 0) return seen.map(() => false);
  const { spread } = LEARNT_KIND_FACTS[kind];
  return farOff({ value: Math.log(prior), spread }, values(seen).map(Math.log));
}

const asGrams = ({ perCupGrams, share, perPieceGrams }: Losses): number[] => [perCupGrams, share, perPieceGrams];

function losses({ cups }: RecordedWork, { losses: stand }: Standing): Plan[] {
  if (cups.length === 0) return [];
  const usual = [
    1,
    sum(cups.map(({ mixGrams }) => mixGrams)) / cups.length,
    sum(cups.map((cup) => cup.pieces)) / cups.length,
  ];
  const lineOf = (figures: readonly number[]): number => sum(figures.map((figure, k) => figure * usual[k]!));
  const ofCup = new Map(
    cups.map((cup) => [cup.key, { x: [1, cup.mixGrams, cup.pieces], y: cup.mixGrams - cup.pouredGrams }]),
  );
  const typical = asGrams(TYPICAL_LOSSES);
  // Brought to the usual cup by what a larger one loses more, as supposed for everybody: no dot moves by what is learnt.
  const brought = ({ x, y }: { x: number[]; y: number }): number =>
    y - sum(typical.map((figure, k) => figure * (x[k]! - usual[k]!)));
  return [
    {
      id: 'losses',
      kind: 'losses',
      of: null,
      name: 'What stays in a cup',
      unit: 'g',
      fields: [
        { name: 'a cup', unit: 'g', was: stand.perCupGrams },
        { name: 'of the mix', unit: '%', was: stand.share },
        { name: 'a piece', unit: 'g', was: stand.perPieceGrams },
      ],
      seen: cups.map(({ key, at, batchId }) => ({ key, at, batchId, value: brought(ofCup.get(key)!), weight: 1 })),
      lineOf,
      learn: (before, counted) => {
        const figures = learnLinear(
          before,
          LEARNT_KIND_FACTS.losses.n0,
          counted.map(({ key }) => ofCup.get(key)!),
        );
        const prior = lineOf(before);
        const { plusMinus } = learnMean(priorOf('losses', prior), counted);
        return { figures, line: { value: lineOf(figures), plusMinus } };
      },
      round: ([cup, share, piece]) => [to(cup!, 0.1), to(share!, 0.001), to(piece!, 0.05)],
    },
  ];
}

function pace(cups: readonly RecordedCup[], { id, data }: Stored<Product>): Plan[] {
  // Quicker than reaching for a piece is read as a tenth of what it took.
  const perGram = ({ grams, minutes }: { grams: number; minutes: number }): number =>
    Math.max(minutes - PER_PIECE_MINUTES, minutes / 10) / grams;
  // Twenty-eight thousand pieces in two thousand runs: a plain loop takes a third of the time.
  const seen: Seen[] = [];
  let grams = 0;
  for (const { key, at, batchId, pours } of cups)
    for (let i = 0; i < pours.length; i++) {
      const pour = pours[i]!;
      if (pour.grams <= 0 || pour.minutes <= 0) continue;
      grams += pour.grams;
      seen.push({ key: `${key}.${i + 1}`, at, batchId, value: 1 / perGram(pour), weight: pour.grams });
    }
  for (const one of seen) one.weight *= seen.length / grams;
  const { n0, spread } = LEARNT_KIND_FACTS.pace;
  return [
    {
      id: `pace ${id}`,
      kind: 'pace',
      of: id,
      name: `Pouring pace, ${data.name}`,
      unit: 'g/min',
      fields: [{ name: 'pace', unit: 'g/min', was: data.pourGramsPerMinute }],
      seen,
      lineOf: ([gramsPerMinute]) => gramsPerMinute!,
      learn: ([before], counted) => {
        const slow = learnMean(
          { value: 1 / before!, n0, spread: spread / before! },
          counted.map(({ value, weight }) => ({ value: 1 / value, weight })),
        );
        const value = 1 / slow.value;
        return { figures: [value], line: { value, plusMinus: slow.plusMinus * value ** 2 } };
      },
      round: ([value]) => [value! < 20 ? to(value!, 0.5) : to(value!, 1)],
    },
  ];
}

function potLife(cups: readonly RecordedCup[], { id, data }: Stored<Product>): Plan[] {
  if (!setsInTheCup(data.cureModel)) return [];
  const timed = cups.filter((cup) => cup.thickMinutes !== null && cup.thickMinutes > 0);
  const lineOf = ([minutes]: readonly number[]): number => minutes!;
  return [
    {
      id: `pot life ${id}`,
      kind: 'pot life',
      of: id,
      name: `Pot life, ${data.name}`,
      unit: 'min',
      fields: [{ name: 'pot life', unit: 'min', was: data.potLifeMinutes }],
      seen: timed.map((cup) => ({
        ...cup,
        value:
          (cup.thickMinutes! * data.potLifeMinutes) / potLifeMinutes(data, cup.temperatureC, Math.max(1, cup.mixGrams)),
        weight: 1,
      })),
      lineOf,
      learn: byMean('pot life', (_, line) => [line], lineOf),
      round: ([value]) => [to(value!, value! < 10 ? 0.5 : 1)],
    },
  ];
}

function shrinkage(levels: readonly RecordedLevel[], { id, data }: Stored<Product>): Plan[] {
  const lineOf = ([share]: readonly number[]): number => share!;
  return [
    {
      id: `shrinkage ${id}`,
      kind: 'shrinkage',
      of: id,
      name: `Shrinkage, ${data.name}`,
      unit: '%',
      fields: [{ name: 'shrinkage', unit: '%', was: data.shrinkage }],
      seen: levels.map(({ key, at, batchId, shrinkage: planned, lowMm, depthMm, of }) => ({
        key,
        at,
        batchId,
        value: 1 - (1 - planned) * (1 - lowMm / depthMm),
        weight: 1 / of,
      })),
      lineOf,
      learn: byMean('shrinkage', (_, line) => [Math.max(0, line)], lineOf),
      round: ([value]) => [Math.min(0.8, to(value!, 0.001))],
    },
  ];
}

const HALF_YEAR_DAYS = 182;
const DAY_MS = 86_400_000;
const dayNumber = (at: WallTime): number => Date.parse(`${at.slice(0, 10)}T00:00:00Z`) / DAY_MS;

function price(bought: readonly RecordedPack[], { id, data }: Stored<Product>): Plan[] {
  const last = Math.max(...bought.map(({ at }) => dayNumber(at)));
  const lineOf = ([money]: readonly number[]): number => money!;
  return [
    {
      id: `price ${id}`,
      kind: 'price',
      of: id,
      name: `Price of a pack, ${data.name}`,
      unit: 'money',
      fields: [{ name: 'a pack', unit: 'money', was: data.packPrice }],
      seen: bought.map((pack) => ({
        ...pack,
        value: (pack.price * data.packGrams) / pack.grams,
        weight: 0.5 ** ((last - dayNumber(pack.at)) / HALF_YEAR_DAYS),
      })),
      lineOf,
      learn: byMean('price', (_, line) => [line], lineOf),
      round: ([value]) => [to(value!, value! < 10 ? 0.01 : 0.1)],
    },
  ];
}

function steps({ steps: done }: RecordedWork, kind: StepKind, own: StepMinutes): Plan[] {
  const usual = factsOfStep(kind);
  const { perBatchMinutes, perPieceMinutes } = own[kind] ?? usual;
  // Against the usual minutes of its kind, so that no dot moves by what is learnt.
  const reckoned = (pieces: number): number => usual.perBatchMinutes + pieces * usual.perPieceMinutes;
  const whole = usual.perBatchMinutes + usual.perPieceMinutes;
  const lineOf = ([batch, piece]: readonly number[]): number => (whole > 0 ? (batch! + piece!) / whole : 1);
  return [
    {
      id: `step ${kind}`,
      kind: 'step',
      of: kind,
      name: `Minutes: ${usual.name.toLowerCase()}`,
      unit: '×',
      fields: [
        { name: 'a batch', unit: 'min', was: perBatchMinutes },
        { name: 'a piece', unit: 'min', was: perPieceMinutes },
      ],
      seen: done
        .filter((step) => step.kind === kind && reckoned(step.pieces) > 0)
        .map((step) => ({ ...step, value: step.minutes / reckoned(step.pieces), weight: 1 })),
      lineOf,
      learn: byMean('step', (before, line) => before.map((minutes) => (minutes * line) / lineOf(before)), lineOf),
      round: ([batch, piece]) => [to(batch!, 1), to(piece!, 0.1)],
    },
  ];
}
