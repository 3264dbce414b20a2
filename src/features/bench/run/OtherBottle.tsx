'use client';

import Button from '@mui/material/Button';
import { useState } from 'react';
import { bottleCalled, bottleNow } from '@/core/run/bottles';
import type { RunBottle } from '@/core/run/runSchema';
import { dayWithYear } from '@/core/time/dayNames';
import { formatMeasure } from '@/core/units/formatMeasure';
import { LineForm } from '@/ui/controls/LineForm';
import { bottleThing, type BottleProps } from './Bottle';
import { Reasons } from './Reasons';
import type { Press } from './runLink';
import styles from './RunScreen.module.css';

interface OtherProps extends BottleProps {
  send: (press: Press) => boolean;
  onClose: () => void;
}

/** Another bottle: picked, typed or scanned; one past its date with a reason. It stands where the large press does. */
export function OtherBottle({ state, view, step, send, onClose }: OtherProps) {
  const [past, setPast] = useState<RunBottle | null>(null);
  const thing = bottleThing(state, step);
  const now = thing && bottleNow(state, thing)?.bottle;
  if (!thing) return null;
  const own = state.plan.bottles.filter(({ kind, of }) => kind === thing.kind && of === thing.of);
  const take = (bottle: RunBottle, anyway?: string): void => {
    if (bottle.past && anyway === undefined) return setPast(bottle);
    send({ type: 'bottle', lot: bottle.id, ...(anyway !== undefined && { anyway }) });
    onClose();
  };
  if (past)
    return (
      <Reasons
        question={`${past.name} was good until ${past.goodUntil ? dayWithYear(past.goodUntil) : 'an earlier day'}. Why take it?`}
        reasons={['tried, it still sets', 'nothing else is there']}
        give={(why) => take(past, why)}
        onClose={onClose}
      />
    );
  return (
    <section className={styles.reasons} aria-label="Another bottle">
      <h2>Out of which bottle?</h2>
      <div className={styles.choices}>
        {own
          .filter(({ id }) => id !== now?.id)
          .map((bottle) => (
            <Button key={bottle.id} className={styles.tool ?? ''} onClick={() => take(bottle)}>
              {bottle.name},{' '}
              {formatMeasure(bottle.left.find(({ part }) => part === thing.part)?.grams ?? 0, 'mass', view.units)}
              {bottle.past && ', past its date'}
            </Button>
          ))}
        <LineForm
          label="Scan or type its name"
          press="Take it"
          most={60}
          className={styles.typing}
          buttonClass={styles.tool}
          field={{ autoFocus: true }}
          send={(line) => {
            const found = bottleCalled(own, line);
            if (!found) return `No bottle of this is called that: ${own.map(({ name }) => name).join(', ')}.`;
            take(found);
          }}
        />
        <Button className={styles.tool ?? ''} onClick={onClose}>
          Not after all
        </Button>
      </div>
    </section>
  );
}
