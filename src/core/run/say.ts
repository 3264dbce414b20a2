import { copyName } from '../model/pieceRef';
import { CURE_MODELS, LEFTOVERS } from '../cure/cureModels';
import { portionWords, readerOf, stockWords, type Reader } from '../pouring/portionWords';
import { fromBottle, WAYS, type PortionWay } from '../pouring/portions';
import { shortTime } from '../time/dayNames';
import { formatMeasure, formatOnScale, METRIC, type UnitPreferences } from '../units/formatMeasure';
import { stockGoodUntil } from './keptStock';
import { inCupGrams, isQuickLayer, partMl, restOf, type CupState } from './cupState';
import { layerOf, type Refusal, type RunState } from './runState';
import type { RunLayer, RunPlan } from './runSchema';
import type { RunStep } from './steps';

/** What a step says at a metre's distance: where it is, what to do, the one press. */
export interface StepWords {
  /** `layer 1 · cup 2 of 3`. */
  where: string;
  title: string;
  /** One line beneath it. */
  under: string;
  /** What the large button says. */
  press: string;
  caution: string | null;
}

/** What the scale under the cup (or the piece) shows before and after a step. */
export interface OnScale {
  /** What it showed before; the cup was tared while empty. */
  startGrams: number;
  stopGrams: number;
  /** Pouring out of the cup it falls. */
  falls: boolean;
}

export const cupOf = (state: RunState, step: RunStep): CupState | null =>
  'cup' in step ? (state.cups.find(({ key }) => key === step.cup) ?? null) : null;

/** What the cup of a step holds, as far as it was read; null where the step has none. Out of the bottle nothing is. */
export function heldGrams(state: RunState, step: RunStep): number | null {
  const cup = cupOf(state, step);
  if (!cup) return null;
  const layer = layerOf(state, cup.layer);
  return fromBottle(layer, cup.plan) ? 0 : inCupGrams(cup, layer);
}

/** What the scale shows in a step that is weighed; null for one that is not. `onPiece`: the piece stands on it. */
export function onScale(state: RunState, step: RunStep, onPiece = false): OnScale | null {
  const cup = cupOf(state, step);
  if (!cup) return null;
  const layer = layerOf(state, cup.layer);
  const bottle = fromBottle(layer, cup.plan);
  const held = heldGrams(state, step) ?? 0;
  if (step.kind === 'weigh') return { startGrams: held, stopGrams: held + step.targetGrams, falls: false };
  if (step.kind === 'dose' && WAYS[step.portion.way].weighed)
    return { startGrams: held, stopGrams: held + step.portion.grams, falls: false };
  if (step.kind === 'left') return { startGrams: held, stopGrams: held, falls: true };
  if (step.kind !== 'pour') return null;
  const out = step.pour.grams + state.plan.losses.perPieceGrams;
  return onPiece || bottle
    ? { startGrams: 0, stopGrams: step.pour.grams, falls: false }
    : { startGrams: held, stopGrams: Math.max(0, held - out), falls: true };
}

const PART_WORDS = { A: 'part A', B: 'part B', all: 'the product' } as const;

type Said = Omit<StepWords, 'where' | 'caution'> & { caution?: string };
const said = (title: string, under: string, press: string, caution?: string): Said => ({
  title,
  under,
  press,
  ...(caution !== undefined && { caution }),
});

/** What the words of a step are made from: the run, the step's layer and cup, and how its maker measures. */
interface Told {
  plan: RunPlan;
  layer: RunLayer;
  cup: CupState | null;
  reader: Reader;
  grams: (value: number) => string;
  /** Of a part, or of the mix, in ml. */
  ml: (grams: number, part: 'A' | 'B' | 'all') => string;
}

const DOSE_PRESS: Partial<Record<PortionWay, string>> = { drops: 'One drop', 'too little': 'Leave it out' };

const after = ({ product }: RunLayer): Said => {
  const { title, under, press } = CURE_MODELS[product.cureModel].after;
  return said(title, under, press);
};

type Of<K extends RunStep['kind']> = Extract<RunStep, { kind: K }>;
/** Every kind of step in words; one that is left out does not compile. */
const TOLD: { [K in RunStep['kind']]: (step: Of<K>, told: Told) => Said } = {
  ready: ({ item }) => said(item.text, item.why, 'Ready'),
  plants: () =>
    said('Set the plants', 'Seal dry stems: air rises from them while the layer is liquid.', 'Plants are set'),
  stock: (_, { layer, reader, grams }) =>
    layer.stockKept
      ? said(
          'Stir up the stock tint',
          `${grams(layer.stockKept.leftGrams)} are left of ${shortTime(layer.stockKept.madeAt)}, good until ${shortTime(stockGoodUntil(layer, layer.stockKept.madeAt))}.`,
          'It is even',
        )
      : said('Make the stock tint', `${stockWords(layer.stock!, reader)}. Stir until even.`, 'Stock is made'),
  weigh(step, { plan, grams, ml }) {
    const byVolume = plan.by === 'volume';
    const [weight, volume] = [grams(step.targetGrams), ml(step.targetGrams, step.part)];
    const [amount, other] = byVolume ? [volume, weight] : [weight, volume];
    const part = PART_WORDS[step.part];
    if (step.mend) return said(`Add ${amount} of ${part}`, `${other}. It brings the ratio back.`, 'Added');
    return said(
      `${step.part === 'all' ? 'Weigh' : byVolume ? 'Fill in' : 'Weigh in'} ${part}`,
      step.part === 'B' ? `${amount} (${other}). From here the parts meet: the clock runs.` : `${amount} (${other})`,
      step.part === 'all' ? 'In the cup' : `${step.part === 'A' ? 'Part A' : 'Part B'} is in`,
    );
  },
  dose({ portion }, { reader }) {
    const { act, note } = portionWords(portion, reader);
    const under = portion.way === 'drops' ? `${act}, one press each` : `${act}; ${note}`;
    return said(portion.name, under, DOSE_PRESS[portion.way] ?? 'In the cup');
  },
  stir: ({ quick }, { layer }) =>
    quick
      ? said('Stir, half a minute', 'Not longer: it sets in minutes.', 'Stirred')
      : said(
          layer.product.parts ? 'Stir slowly' : 'Stir the tint in',
          'Fold it, do not whip: air stays in.',
          'Stirred',
        ),
  scrape: () => said('Scrape, change the cup', 'Wall, bottom and stick; then into a clean cup.', 'Scraped, changed'),
  clear: () => said('Stir until it is clear', 'No streaks against the light.', 'It is clear'),
  pour({ pour }, { plan, layer, cup, grams, ml }) {
    const held = cup ? inCupGrams(cup, layer) : 0;
    const { spread } = CURE_MODELS[layer.product.cureModel];
    const brushed = spread && layer.wetMm < spread.upToMm ? spread : null;
    const bottle = cup !== null && fromBottle(layer, cup.plan);
    const how =
      brushed?.under ??
      (isQuickLayer(layer) ? 'then do not touch it' : 'thin stream, into the corners, up to the level');
    const under =
      plan.by === 'weight'
        ? `${grams(pour.grams)}, ${how}`
        : bottle || !cup
          ? `${ml(pour.grams, 'all')}, ${how}`
          : `${ml(pour.grams, 'all')}: the cup falls to the mark of ${ml(Math.max(0, held - pour.grams - plan.losses.perPieceGrams), 'all')}`;
    const name = copyName(pour.tag, pour.copy || null);
    return said(`${brushed?.verb ?? 'Pour into'} ${name}`, under, brushed?.press ?? 'Poured');
  },
  left: () => said('Set the cup aside', 'What is left sets in it; never back to the bottle.', 'Set aside', LEFTOVERS),
  lamp: ({ minutes }) =>
    said(
      `${minutes} min under the lamp`,
      'Every part of the water in its light. Shade it from your eyes.',
      'Lamp is off',
      'Do not look into the lamp; keep its light off the skin.',
    ),
  cover: (_, { layer }) => after(layer),
  look: (_, { layer }) => after(layer),
  wait({ until, layer: number }, { plan, layer }) {
    if (until === 'firm')
      return said(
        'Wait until it is firm',
        'The clock rings; leave and come back.',
        plan.moulded ? 'Turn out' : 'Take dams off',
      );
    if (until !== 'recoat') return said('Full cure', 'Not stacked, not pressed until then.', 'It is cured');
    const { waitsFor } = CURE_MODELS[layer.product.cureModel];
    if (waitsFor) return said(waitsFor.title, waitsFor.under, waitsFor.press);
    const next = plan.layers.find((one) => one.number > number)?.number ?? number + 1;
    return said(`Wait for layer ${next}`, 'The clocks below ring; leave and come back.', 'Go on with it');
  },
  'dams off': (_, { plan }) =>
    plan.moulded
      ? said('Turn out of the moulds', 'Bend the mould, not the piece.', 'Turned out')
      : said(
          'Dams off',
          'Cut along the wall first, pull low and slowly.',
          'Dams are off',
          'Blades: cut away from you.',
        ),
  end: () => said('Everything is done', 'It is all in the log.', 'Close the run'),
};

/** A step in words. By volume amounts are ml, by weight grams. */
export function stepWords(state: RunState, step: RunStep, units: UnitPreferences = METRIC): StepWords {
  const { plan } = state;
  const layer = layerOf(state, step.layer);
  const cup = cupOf(state, step);
  const cups = state.cups.filter((one) => one.layer === step.layer);
  const where = [
    plan.layers.length > 1 ? `layer ${step.layer} of ${plan.layers.at(-1)!.number}` : '',
    cup ? `cup ${cups.indexOf(cup) + 1} of ${cups.length}` : '',
    cup && cup.attempt > 1 ? 'mixed again' : '',
  ];
  const told: Told = {
    plan,
    layer,
    cup,
    reader: readerOf(layer.product, { ...plan, units }),
    grams: (value) => formatOnScale(value, plan.scaleStepGrams, units),
    ml: (value, part) => formatMeasure(partMl(value, layer, part), 'volume', units),
  };
  const say = TOLD[step.kind] as (step: RunStep, told: Told) => Said;
  const words = say(step, told);
  // A caution is read once, where it first counts.
  const wasRead = [...state.done.values()].some((done) => done.step.kind === step.kind && done.step.id !== step.id);
  return { where: where.filter(Boolean).join(' · '), ...words, caution: (!wasRead && words.caution) || null };
}

/** Why a press was not taken, and what to do. */
export const REFUSAL_WORDS: Record<Refusal, string> = {
  'not this step now': 'That step was pressed already, here or in another window.',
  'the run is over': 'This run is over.',
  'a reason is asked for': 'Say why, then it is left out.',
  'begun to set':
    'This cup has begun to set: nothing more of it goes into a piece. Put it aside, the rest comes from a new mix.',
  'more than the cup holds': 'The cup holds less than that. Look at the scale: was it knocked, or not tared?',
  'nothing on the scale': 'The scale shows nothing that was added. Is the cup on it?',
  'nothing was poured': 'By the scale nothing has been poured into it. Is the cup on it? Or say why all the same.',
  'nothing of the kind': 'That cannot be done any more.',
  'too late to pour leftovers': 'Too late: leftovers have begun to set. Let them harden in the cup.',
  'nothing to go back to': 'This is the first step.',
};

/** Pieces of a cup that are still to pour, in words: `HS-1 #2, HS-2 #1`. */
export const restWords = (cup: CupState): string =>
  restOf(cup)
    .map(({ tag, copy }) => copyName(tag, copy || null))
    .join(', ');
