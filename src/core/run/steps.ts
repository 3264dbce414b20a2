import { fromBottle } from '../pouring/portions';
import { pieceKey } from '../model/pieceRef';
import { CURE_MODELS } from '../cure/cureModels';
import { stirMinutesOf } from '../mixing/potLife';
import { attemptKey, isQuickLayer, targetGrams, type CupState, type Part } from './cupState';
import { toleranceGrams } from './overPoured';
import type { Portion } from '../pouring/portions';
import type { ReadyItem, RunLayer, RunPlan, RunPour } from './runSchema';

interface Step {
  id: string;
  layer: number;
}
interface CupStep extends Step {
  /** The cup by its key. */
  cup: string;
}

/** One step at the bench. */
export type RunStep =
  | (Step & { kind: 'ready'; item: ReadyItem })
  | (Step & { kind: 'plants' | 'stock' | 'look' | 'cover' | 'dams off' | 'end' })
  | (CupStep & { kind: 'weigh'; part: Part; targetGrams: number; toleranceGrams: number; mend: boolean })
  | (CupStep & { kind: 'dose'; portion: Portion })
  | (CupStep & { kind: 'stir'; minutes: number; quick: boolean })
  | (CupStep & { kind: 'scrape' | 'clear' | 'left' })
  | (CupStep & { kind: 'pour'; pour: RunPour })
  | (Step & { kind: 'lamp'; minutes: number })
  | (Step & { kind: 'wait'; until: 'recoat' | 'firm' | 'cured' });
/** A reason for not waiting any longer that says something of the product: it hardened sooner than was reckoned. */
export const FIRM_ALREADY = 'it is firm already';

export type StepKindAtBench = RunStep['kind'];

/** What is asked of every kind of live step; one that is left out does not compile. */
export const LIVE_STEPS: Record<
  StepKindAtBench,
  {
    /** Whether it may be left out, and whether that wants a reason: some of what has to be ready does. */
    skip: 'never' | 'with a reason' | 'as its item says';
    /** Reasons that are offered for leaving it out, and for doing it all the same when it should not be. */
    skipReasons: readonly string[];
    anywayReasons: readonly string[];
    /** What stands large: the scale, drops that are counted, a clock, or words alone. */
    figure: 'scale' | 'portion' | 'clock' | 'words';
    /** The run may be closed at it: what is left is waiting. */
    mayEnd: boolean;
  }
> = {
  ready: step('words', 'as its item says', ['not needed here', 'was done before', 'tried, it still sets', 'no time']),
  plants: step('words', 'with a reason', ['not needed here', 'were set before']),
  stock: step('words', 'with a reason', ['no small cup at hand', 'it is no longer there', 'it has thickened']),
  weigh: step('scale', 'never'),
  dose: {
    ...step('portion', 'with a reason', ['left clear on purpose', 'none left']),
    anywayReasons: ['it went in before', 'the scale does not show so little'],
  },
  stir: step('clock', 'with a reason', ['stirred by machine']),
  scrape: step('words', 'with a reason', ['no second cup at hand']),
  clear: step('words', 'with a reason', ['it stays milky by nature']),
  pour: { ...step('scale', 'never'), anywayReasons: ['it was poured before', 'still as thin as water'] },
  left: step('scale', 'never'),
  look: step('words', 'with a reason', ['too deep to see']),
  lamp: step('clock', 'with a reason', ['daylight does it']),
  cover: step('words', 'with a reason', ['no dust here']),
  wait: {
    ...step('clock', 'with a reason'),
    anywayReasons: ['abraded and wiped', FIRM_ALREADY, 'next day is too late'],
    mayEnd: true,
  },
  'dams off': { ...step('words', 'with a reason', ['there are none']), mayEnd: true },
  end: { ...step('words', 'with a reason'), mayEnd: true },
};

function step(
  figure: 'scale' | 'portion' | 'clock' | 'words',
  skip: 'never' | 'with a reason' | 'as its item says',
  skipReasons: readonly string[] = [],
): (typeof LIVE_STEPS)[StepKindAtBench] {
  return { figure, skip, skipReasons, anywayReasons: [], mayEnd: false };
}

/** Tint is stirred in with its own clock where nothing sets: half a minute. */
const ONE_PART_STIR_MINUTES = 0.5;

/** The steps of a cup: two parts, one part that is tinted, or straight out of the bottle. Each school has its own. */
export function cupSteps(cup: CupState, layer: RunLayer, scaleStepGrams: number): RunStep[] {
  const own = attemptKey(cup);
  const at = { layer: layer.number, cup: cup.key };
  const { parts } = layer.product;
  const quick = isQuickLayer(layer);
  const pours = cup.plan.pours.map((pour): RunStep => ({
    ...at,
    id: `${own}.pour.${pieceKey(pour)}`,
    kind: 'pour',
    pour,
  }));
  if (fromBottle(layer, cup.plan)) return pours;
  const weigh = (part: Part): RunStep => {
    const target = targetGrams(cup, layer, part);
    return {
      ...at,
      id: `${own}.${part}`,
      kind: 'weigh',
      part,
      targetGrams: target,
      mend: false,
      toleranceGrams: toleranceGrams(target, scaleStepGrams, part === 'B'),
    };
  };
  const mends = cup.mends.map(({ part, grams }, i): RunStep => ({
    ...at,
    id: `${own}.mend${i + 1}`,
    kind: 'weigh',
    part,
    targetGrams: grams,
    mend: true,
    toleranceGrams: toleranceGrams(cup.weighed[part] + grams, scaleStepGrams, true),
  }));
  const stir = (minutes: number): RunStep => ({ ...at, id: `${own}.stir`, kind: 'stir', minutes, quick });
  const plain = (kind: 'scrape' | 'clear' | 'left'): RunStep => ({ ...at, id: `${own}.${kind}`, kind });
  // In the order of its portions; what is added to mend it follows the parts.
  const filled = cup.plan.portions.flatMap((portion): RunStep[] => {
    const { way, key } = portion;
    if (way === 'part A') return [weigh('A')];
    if (way === 'part B') return [weigh('B'), ...mends];
    if (way === 'product') return [weigh('all')];
    return [{ ...at, id: `${own}.dose.${key}`, kind: 'dose', portion }];
  });
  if (!parts) return [...filled, stir(ONE_PART_STIR_MINUTES), ...pours, plain('left')];
  return [
    ...filled,
    stir(stirMinutesOf(layer.product)),
    // Five minutes leave no time for a second cup.
    ...(quick ? [] : [plain('scrape'), plain('clear')]),
    ...pours,
    plain('left'),
  ];
}

/** All steps of a run, in their order, as its cups stand. */
export function runSteps(plan: RunPlan, cups: readonly CupState[]): RunStep[] {
  const steps: RunStep[] = [];
  plan.layers.forEach((layer, i) => {
    const own = `L${layer.number}`;
    const plain = (kind: 'plants' | 'stock' | 'look' | 'cover'): RunStep => ({
      id: `${own}.${kind}`,
      layer: layer.number,
      kind,
    });
    if (i === 0)
      for (const item of plan.ready) steps.push({ id: `ready.${item.id}`, layer: layer.number, kind: 'ready', item });
    if (layer.plantsBefore) steps.push(plain('plants'));
    if (layer.stock) steps.push(plain('stock'));
    for (const cup of cups) if (cup.layer === layer.number) steps.push(...cupSteps(cup, layer, plan.scaleStepGrams));
    const { cureModel, demouldMinutes } = layer.product;
    if (CURE_MODELS[cureModel].byLamp)
      steps.push(plain('look'), { id: `${own}.lamp`, layer: layer.number, kind: 'lamp', minutes: demouldMinutes });
    else steps.push(plain('cover'));
    if (i < plan.layers.length - 1)
      steps.push({ id: `${own}.recoat`, layer: layer.number, kind: 'wait', until: 'recoat' });
  });
  const last = plan.layers.at(-1)?.number ?? 1;
  if (plan.dammed || plan.moulded)
    steps.push(
      { id: 'firm', layer: last, kind: 'wait', until: 'firm' },
      { id: 'dams off', layer: last, kind: 'dams off' },
    );
  steps.push({ id: 'cured', layer: last, kind: 'wait', until: 'cured' }, { id: 'end', layer: last, kind: 'end' });
  return steps;
}
