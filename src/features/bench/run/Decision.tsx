'use client';

import Button from '@mui/material/Button';
import { useEffect } from 'react';
import { broughtGrams } from '@/core/pouring/portions';
import { colourToCome, partMl, resinIn, type Part } from '@/core/run/cupState';
import { mendedCup, stockLeft } from '@/core/run/remake';
import { portionWords, readerOf } from '@/core/pouring/portionWords';
import { layerOf, type RunState } from '@/core/run/runState';
import { cupOf } from '@/core/run/say';
import type { RunStep } from '@/core/run/steps';
import type { RunView } from '@/core/run/views';
import { afterOverPour } from '@/core/run/overPoured';
import { formatMeasure, formatMinutes, formatMoney, formatOnScale } from '@/core/units/formatMeasure';
import type { Press } from './runLink';
import styles from './RunScreen.module.css';

interface DecisionProps {
  state: RunState;
  view: RunView;
  step: RunStep;
  send: (press: Press) => boolean;
}

/** A weighing that is off: what mends it, what that does to the cup, and what it costs to begin again. Space bar takes the mend. */
export function Decision({ state, view, step, send }: DecisionProps) {
  const { units } = view;
  const pending = state.pending!;
  const decide = (choice: 'accept' | 'mend' | 'discard' | 'more'): void =>
    void send({ type: 'decide', step: step.id, choice });
  const under = pending.verdict !== 'over';
  const cup = cupOf(state, step);
  const mends = !under && step.kind === 'weigh' && cup !== null && layerOf(state, cup.layer).product.parts !== null;
  const first = under ? 'more' : mends ? 'mend' : 'accept';
  useEffect(() => {
    const down = (event: KeyboardEvent): void => {
      if (event.key !== ' ' || event.repeat || event.target instanceof HTMLInputElement) return;
      if (document.querySelector('[role="dialog"]')) return;
      event.preventDefault();
      send({ type: 'decide', step: step.id, choice: first });
    };
    document.addEventListener('keydown', down);
    return () => document.removeEventListener('keydown', down);
  }, [send, step.id, first]);
  if (step.kind !== 'weigh' || !cup) return null;
  const layer = layerOf(state, cup.layer);
  const amount = (value: number, part: Part): string =>
    state.plan.by === 'volume'
      ? formatMeasure(partMl(value, layer, part), 'volume', units)
      : formatOnScale(value, state.plan.scaleStepGrams, units);
  const off = pending.grams - step.targetGrams;
  const head = (words: string) => (
    <div className={styles.decisionHead}>
      <h2>{`${amount(Math.abs(off), step.part)} ${words} ${amount(step.targetGrams, step.part)}`}</h2>
      <Button className={styles.again ?? ''} onClick={() => void send({ type: 'back', step: step.id })}>
        {state.plan.by === 'volume' ? 'Read it again' : 'Weigh it again'}
      </Button>
    </div>
  );
  if (under)
    return (
      <section className={styles.decision} aria-label="Too little">
        {head('short of')}
        <div className={styles.decide}>
          <Big main onClick={() => decide('more')} words="Pour more" under="up to what is asked for" />
          <Big onClick={() => decide('accept')} words="Leave it so" under="the ratio is off by that" />
        </div>
      </section>
    );
  const own = { ...cup, weighed: { ...cup.weighed, [step.part]: cup.weighed[step.part] + pending.grams } };
  // As the run itself would make it up anew.
  const { plan: next } = mendedCup(own, step.part, step.mend, layer, state.plan, stockLeft(state, layer, cup));
  const mend = afterOverPour({
    product: layer.product,
    part: step.part,
    aGrams: resinIn({ ...own, plan: next }),
    bGrams: own.weighed.B,
    inCupGrams: own.weighed.A + own.weighed.B + own.weighed.all + broughtGrams(own.putIn),
    pourGrams: cup.plan.pours.reduce((sum, pour) => sum + pour.grams, 0),
    cupGrams: state.plan.cupGrams,
    roomC: state.room.at(-1)!.temperatureC,
    colourShare: layer.recipe.reduce((sum, { gramsPer100 }) => sum + gramsPer100 / 100, 0),
    colourCost: own.putIn
      .flatMap(({ colours }) => colours)
      .reduce((sum, { id, grams }) => sum + grams * (layer.recipe.find((one) => one.id === id)?.pricePerGram ?? 0), 0),
  });
  const { scaleStepGrams, by } = state.plan;
  const reader = readerOf(layer.product, { units, scaleStepGrams, by });
  const effects = [
    `${amount(mend.newTotalGrams, 'all')} in all`,
    ...colourToCome({ ...own, plan: next }).map(
      (portion) => `${portion.name.toLowerCase()}: ${portionWords(portion, reader).act}`,
    ),
    mend.fitsCup ? 'fits the cup' : `more than the cup takes, ${amount(state.plan.cupGrams, 'all')}`,
    layer.product.parts
      ? `pot life ${formatMinutes(mend.potLifeMinutes)}${mend.fitsPotLife ? '' : ': too short for all of it'}`
      : '',
  ].filter(Boolean);
  return (
    <section className={styles.decision} aria-label="Over-poured">
      {head('over')}
      <div className={styles.decide}>
        {mends && (
          <Big
            main
            onClick={() => decide('mend')}
            words={
              step.part === 'A' && !step.mend
                ? `Mend: part B becomes ${amount(mend.addGrams, 'B')}`
                : `Mend: add ${amount(mend.addGrams, mend.addPart ?? 'all')} of part ${mend.addPart}`
            }
            under={effects.join(' · ')}
          />
        )}
        <Big
          main={!mends}
          onClick={() => decide('accept')}
          words="Leave it so"
          under={mends ? `ratio off by ${ratioOff(off, step.targetGrams)}` : effects[0]!}
        />
        <Big
          onClick={() => decide('discard')}
          words="Throw the cup away"
          under={`costs ${formatMoney(mend.discardCost, units)}`}
        />
      </div>
    </section>
  );
}

const ratioOff = (off: number, target: number): string => `${((100 * off) / target).toFixed(1)} %`;

function Big({
  words,
  under,
  onClick,
  main = false,
}: {
  words: string;
  under: string;
  onClick: () => void;
  main?: boolean;
}) {
  return (
    <Button variant={main ? 'contained' : 'outlined'} className={styles.bigChoice ?? ''} onClick={onClick}>
      <b>{words}</b>
      <span>{under}</span>
    </Button>
  );
}
