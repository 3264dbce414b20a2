'use client';

import Button from '@mui/material/Button';
import { Suspense, useState } from 'react';
import type { RunState } from '@/core/run/runState';
import type { StepWords } from '@/core/run/say';
import { LIVE_STEPS, type RunStep } from '@/core/run/steps';
import { Reasons } from './askedFor';
import type { Press } from './runLink';
import styles from './RunScreen.module.css';

interface PressBarProps {
  state: RunState;
  step: RunStep;
  words: StepWords;
  /** The press waits for the scale. */
  holding: boolean;
  next: string | null;
  press: () => void;
  back: () => void;
  send: (press: Press) => boolean;
}

/** The lower third: one large press, one step back; what is left out asks why. */
export function PressBar({ state, step, words, holding, next, press, back, send }: PressBarProps) {
  const [asks, setAsks] = useState<{ step: string; what: 'skip' | 'anyway' } | null>(null);
  const refused = state.refused.at(-1);
  const { skipReasons: skips, anywayReasons: anyway } = LIVE_STEPS[step.kind];
  const asking = asks?.step === step.id ? asks.what : null;
  if (asking)
    return (
      <Suspense fallback={null}>
        <Reasons
          question={asking === 'skip' ? 'Why is it left out?' : 'Why all the same?'}
          reasons={asking === 'skip' ? skips : anyway}
          give={(why) => {
            setAsks(null);
            send(
              asking === 'skip' ? { type: 'skip', step: step.id, why } : { type: 'done', step: step.id, anyway: why },
            );
          }}
          onClose={() => setAsks(null)}
        />
      </Suspense>
    );
  const silently = step.kind === 'ready' && !step.item.must;
  const mayAnyway =
    anyway.length > 0 &&
    refused !== undefined &&
    ['a reason is asked for', 'begun to set', 'nothing was poured'].includes(refused.why);
  const dosing = step.kind === 'dose' && step.portion.way === 'drops' && state.drops >= step.portion.drops;
  return (
    <footer className={styles.presses}>
      <div className={styles.sides}>
        <Button className={styles.back ?? ''} onClick={back} disabled={state.done.size === 0 && state.pending === null}>
          Back
        </Button>
        {skips.length > 0 && (
          <Button
            className={styles.side ?? ''}
            onClick={() =>
              silently ? send({ type: 'skip', step: step.id }) : setAsks({ step: step.id, what: 'skip' })
            }
          >
            Leave out
          </Button>
        )}
        {step.kind === 'dose' && step.portion.way === 'drops' && state.drops > 0 && (
          <Button className={styles.side ?? ''} onClick={() => send({ type: 'drop', step: step.id, count: -1 })}>
            One less
          </Button>
        )}
        {mayAnyway && (
          <Button className={styles.side ?? ''} onClick={() => setAsks({ step: step.id, what: 'anyway' })}>
            All the same
          </Button>
        )}
      </div>
      <Button variant="contained" className={styles.press ?? ''} onClick={press} data-main>
        <span className={styles.pressWords}>
          {holding ? 'Until it is still …' : dosing ? 'All drops are in' : words.press}
        </span>
        <span className={styles.pressNext}>
          <span className="by-key">space bar{next ? ' · ' : ''}</span>
          {next && `then: ${next}`}
        </span>
      </Button>
    </footer>
  );
}
