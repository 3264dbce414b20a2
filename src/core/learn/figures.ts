import { STEP_KIND_KEYS } from '../schedule/stepKinds';
import { farOff } from './estimate';
import { NOTHING_LEARNT, type Learning } from './learningSchema';
import {
  LEARNT_KIND_FACTS,
  priorOf,
  type FigurePlan,
  type LearntDot,
  type LearntFigure,
  type LearntKind,
  type Seen,
  type Standing,
} from './learntFigure';
import { hardening, pace, potLife, price, shrinkage, stirring } from './ofProducts';
import { drops, losses, steps, strays } from './ofWorkshop';
import type { RecordedWork } from './recordedWork';

/** Fewer observations than this offer nothing. */
const LEAST = 3;

/**
 * What the record says of every figure that it says anything of, the workshop’s losses first, then product by product, colourants, beds, then steps. An
 * answer of the maker’s stands until more is known: taken over, the prior is what was there before; refused, it is offered again with
 * half as many observations more.
 */
export function learntFigures(work: RecordedWork, standing: Standing): LearntFigure[] {
  const learning = standing.learning ?? NOTHING_LEARNT;
  const turned = new Set(learning.turned);
  const [cups, levels, packs] = [ofProducts(work.cups), ofProducts(work.levels), ofProducts(work.packs)];
  const hardened = ofProducts(work.hardened);
  const plans = [
    ...losses(work, standing),
    ...standing.products.flatMap((product) => [
      ...pace(cups.get(product.id) ?? [], product),
      ...potLife(cups.get(product.id) ?? [], product),
      ...stirring(cups.get(product.id) ?? [], product),
      ...hardening(hardened.get(product.id) ?? [], product),
      ...shrinkage(levels.get(product.id) ?? [], product),
      ...price(packs.get(product.id) ?? [], product),
    ]),
    ...drops(work.cups, standing.colourants),
    ...strays(work.beds, standing.strays),
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

function figureOf(plan: FigurePlan, learning: Learning, turned: ReadonlySet<string>): LearntFigure {
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
