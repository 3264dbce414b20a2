import { copyName } from '../model/pieceRef';
import { CURE_MODELS, LEFTOVERS } from '../cure/cureModels';
import { portionWords, stockWords } from '../pouring/portionWords';
import { WAYS, type PortionWay } from '../pouring/portions';
import { formatMeasure, formatOnScale, METRIC, type UnitPreferences } from '../units/formatMeasure';
import { fromBottle, inCupGrams, isQuickLayer, partMl, restOf, type CupState } from './cupState';
import { layerOf, type Refusal, type RunState } from './runState';
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

/** What the scale shows in a step that is weighed; null for one that is not. `onPiece`: the piece stands on it. */
export function onScale(state: RunState, step: RunStep, onPiece = false): OnScale | null {
  const cup = cupOf(state, step);
  if (!cup) return null;
  const layer = layerOf(state, cup.layer);
  const bottle = fromBottle(layer, cup.plan);
  const held = bottle ? 0 : inCupGrams(cup, layer);
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

/** A step in words. By volume amounts are ml, by weight grams. */
export function stepWords(state: RunState, step: RunStep, units: UnitPreferences = METRIC): StepWords {
  const { plan } = state;
  const layer = layerOf(state, step.layer);
  const cup = cupOf(state, step);
  const cups = state.cups.filter((one) => one.layer === step.layer);
  const chemistry = CURE_MODELS[layer.product.cureModel];
  const reader = { units, scaleStepGrams: plan.scaleStepGrams, twoPart: layer.product.parts !== null };
  const grams = (value: number): string => formatOnScale(value, plan.scaleStepGrams, units);
  const ml = (value: number): string => formatMeasure(value, 'volume', units);
  const where = [
    plan.layers.length > 1 ? `layer ${step.layer} of ${plan.layers.at(-1)!.number}` : '',
    cup ? `cup ${cups.indexOf(cup) + 1} of ${cups.length}` : '',
    cup && cup.attempt > 1 ? 'mixed again' : '',
  ]
    .filter(Boolean)
    .join(' · ');
  const say = (title: string, under: string, press: string, caution: string | null = null): StepWords => ({
    where,
    title,
    under,
    press,
    caution,
  });
  switch (step.kind) {
    case 'ready':
      return say(step.item.text, step.item.why, 'Ready');
    case 'plants':
      return say('Set the plants', 'Seal dry stems: air rises from them while the layer is liquid.', 'Plants are set');
    case 'stock':
      return say('Make the stock tint', `${stockWords(layer.stock!, reader)}. Stir until even.`, 'Stock is made');
    case 'weigh': {
      const part = PART_WORDS[step.part];
      const amount = plan.by === 'volume' ? ml(partMl(step.targetGrams, layer, step.part)) : grams(step.targetGrams);
      const other = plan.by === 'volume' ? grams(step.targetGrams) : ml(partMl(step.targetGrams, layer, step.part));
      if (step.mend) return say(`Add ${amount} of ${part}`, `${other}. It brings the ratio back.`, 'Added');
      return say(
        `${step.part === 'all' ? 'Weigh' : plan.by === 'volume' ? 'Fill in' : 'Weigh in'} ${part}`,
        step.part === 'B' ? `${amount} (${other}). From here the parts meet: the clock runs.` : `${amount} (${other})`,
        step.part === 'all' ? 'In the cup' : `${step.part === 'A' ? 'Part A' : 'Part B'} is in`,
      );
    }
    case 'dose': {
      const { act, note } = portionWords(step.portion, reader);
      const press: Partial<Record<PortionWay, string>> = { drops: 'One drop', 'too little': 'Leave it out' };
      const under = step.portion.way === 'drops' ? `${act}, one press each` : `${act}; ${note}`;
      return say(step.portion.name, under, press[step.portion.way] ?? 'In the cup');
    }
    case 'stir':
      return step.quick
        ? say('Stir, half a minute', 'Not longer: it sets in minutes.', 'Stirred')
        : say(
            layer.product.parts ? 'Stir slowly' : 'Stir the tint in',
            'Fold it, do not whip: air stays in.',
            'Stirred',
          );
    case 'scrape':
      return say('Scrape, change the cup', 'Wall, bottom and stick; then into a clean cup.', 'Scraped, changed');
    case 'clear':
      return say('Stir until it is clear', 'No streaks against the light.', 'It is clear');
    case 'pour': {
      const { pour } = step;
      const name = copyName(pour.tag, pour.copy || null);
      const held = cup ? inCupGrams(cup, layer) : 0;
      const under =
        plan.by === 'volume' && cup && !fromBottle(layer, cup.plan)
          ? `${ml(partMl(pour.grams, layer, 'all'))}: the cup falls to the mark of ${ml(partMl(Math.max(0, held - pour.grams - plan.losses.perPieceGrams), layer, 'all'))}`
          : `${grams(pour.grams)}, ${isQuickLayer(layer) ? 'then do not touch it' : 'thin stream, into the corners, up to the level'}`;
      const verb = layer.wetMm < chemistry.spreadUpToMm ? 'Spread into' : 'Pour into';
      return say(`${verb} ${name}`, under, 'Poured');
    }
    case 'left':
      return say('Set the cup aside', 'What is left sets in it; never back to the bottle.', 'Set aside', LEFTOVERS);
    case 'lamp':
      return say(
        `${step.minutes} min under the lamp`,
        'Every part of the water in its light. Shade it from your eyes.',
        'Lamp is off',
        'Do not look into the lamp; keep its light off the skin.',
      );
    case 'cover':
      return say(chemistry.after.title, chemistry.after.under, chemistry.after.press);
    case 'wait':
      if (step.until === 'recoat') {
        const next = plan.layers.find(({ number }) => number > step.layer);
        if (chemistry.waitsFor)
          return say(chemistry.waitsFor.title, chemistry.waitsFor.under, chemistry.waitsFor.press);
        return say(
          `Wait for layer ${next?.number ?? step.layer + 1}`,
          'The clocks below ring; leave and come back.',
          'Go on with it',
        );
      }
      return step.until === 'firm'
        ? say(
            'Wait until it is firm',
            'The clock rings; leave and come back.',
            plan.moulded ? 'Turn out' : 'Take dams off',
          )
        : say('Full cure', 'Not stacked, not pressed until then.', 'It is cured');
    case 'dams off':
      return plan.moulded
        ? say('Turn out of the moulds', 'Bend the mould, not the piece.', 'Turned out')
        : say(
            'Dams off',
            'Cut along the wall first, pull low and slowly.',
            'Dams are off',
            'Blades: cut away from you.',
          );
    case 'end':
      return say('Everything is done', 'It is all in the log.', 'Close the run');
  }
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
