'use client';

import Button from '@mui/material/Button';
import { bottleNow, takenIn, type FromShelf } from '@/core/run/bottles';
import type { RunState } from '@/core/run/runState';
import type { RunStep } from '@/core/run/steps';
import type { RunView } from '@/core/run/views';
import { formatMeasure } from '@/core/units/formatMeasure';
import styles from './RunScreen.module.css';

export interface BottleProps {
  state: RunState;
  view: RunView;
  step: RunStep;
}

/** What the step takes out of a bottle, where any bottle of it is known. */
export function bottleThing(state: RunState, step: RunStep): FromShelf | null {
  const thing = takenIn(state, step);
  return thing && state.plan.bottles.some(({ kind, of }) => kind === thing.kind && of === thing.of) ? thing : null;
}

/** Out of which bottle the step is taken, and the press for another one. */
export function Bottle({ state, view, step, onOther }: BottleProps & { onOther: () => void }) {
  const thing = bottleThing(state, step);
  const now = thing && bottleNow(state, thing);
  if (!thing) return null;
  return (
    <p className={styles.bottle}>
      {now ? (
        <span>
          Out of <b>{now.bottle.name}</b>, {formatMeasure(now.leftGrams, 'mass', view.units)} left
          {now.bottle.past && <b>, past its date</b>}
        </span>
      ) : (
        <span>No good bottle of it holds any, by the books.</span>
      )}
      <Button className={styles.otherBottle ?? ''} variant="text" onClick={onOther}>
        Another bottle
      </Button>
    </p>
  );
}
