'use client';

import { useCallback, useEffect, useState } from 'react';
import { heldGrams, onScale } from '@/core/run/say';
import type { RunStep } from '@/core/run/steps';
import type { RunState } from '@/core/run/runState';
import type { Press, RunLink } from './runLink';
import type { ScaleSource, ScaleWatch } from './useScale';

/** A press waits so long for the scale to be still, then it takes what is shown. */
const MOST_HOLD_MS = 4000;

/** What a reading means for a step: grams more in the cup, or less, or on the piece; null where nothing is weighed. */
export function gramsOfReading(state: RunState, step: RunStep, reading: number, onPiece: boolean): number | null {
  const scale = onScale(state, step, onPiece);
  if (!scale) return null;
  const tenths = (grams: number): number => Math.max(0, Math.round(grams * 1000) / 1000);
  if (step.kind === 'left') return tenths(reading);
  return tenths(scale.falls ? scale.startGrams - reading : reading - scale.startGrams);
}

export interface HeldPress {
  press: () => void;
  typed: (reading: number) => void;
  /** Waiting for the scale to be still. */
  holding: boolean;
  said: string | null;
}

/** The large press: with a scale that reads for us it waits until nothing moves and takes that; without, the plan counts. */
export function useHeldPress(
  link: RunLink,
  watch: ScaleWatch,
  source: ScaleSource,
  onPiece: boolean,
  send: (press: Press) => boolean,
): HeldPress {
  const [held, setHeld] = useState<{ step: string; at: number } | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const done = useCallback(
    (step: RunStep, reading: number | null): void => {
      const grams = reading === null ? null : gramsOfReading(link.stateNow(), step, reading, onPiece);
      setHeld(null);
      setSaid(null);
      send({
        type: 'done',
        step: step.id,
        ...(grams !== null && { grams }),
        ...(grams !== null && step.kind === 'pour' && onPiece && { onPiece: true }),
      });
    },
    [link, onPiece, send],
  );
  /** Drops are counted; what the scale rose by meanwhile says what a drop weighs. */
  const dropped = useCallback(
    (step: RunStep, rose: number): void => {
      setSaid(null);
      send({ type: 'done', step: step.id, roseGrams: Math.max(0, Math.round(rose * 1000) / 1000) });
    },
    [send],
  );
  const press = useCallback((): void => {
    const step = link.stateNow().current;
    if (!step) return;
    const state = link.stateNow();
    const { now } = watch;
    const reads = source !== 'none' && state.plan.by !== 'volume';
    if (step.kind === 'dose' && step.portion.way === 'drops' && reads && now?.still)
      return dropped(step, now.grams - (heldGrams(state, step) ?? 0));
    if (onScale(state, step, onPiece) === null || !reads) return done(step, null);
    if (!now) {
      if (watch.trouble === null)
        return setSaid('The scale is not heard. Type what it shows, or choose “by eye” under More.');
      return done(step, null);
    }
    if (now.still) return done(step, now.grams);
    setHeld({ step: step.id, at: performance.now() });
  }, [link, watch, source, onPiece, done, dropped]);
  useEffect(() => {
    if (!held) return;
    const look = (): void => {
      const step = link.stateNow().current;
      const { now } = watch;
      if (!step || step.id !== held.step) return setHeld(null);
      if (!now) return;
      if (now.still || performance.now() - held.at > MOST_HOLD_MS) done(step, now.grams);
    };
    return watch.subscribe(look);
  }, [held, link, watch, done]);
  const typed = useCallback(
    (reading: number): void => {
      const step = link.stateNow().current;
      if (step) done(step, reading);
    },
    [link, done],
  );
  return { press, typed, holding: held !== null, said };
}
