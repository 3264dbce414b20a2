'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { CLOCK_KINDS } from '@/core/run/clocks';
import { Suspense, useCallback, useEffect, useRef, useState } from 'react';
import { z } from 'zod';
import type { RunState } from '@/core/run/runState';
import { cupOf, onScale, REFUSAL_WORDS, stepWords } from '@/core/run/say';
import type { RunStep } from '@/core/run/steps';
import type { LiveMessage, RunView } from '@/core/run/views';
import { formatMeasure } from '@/core/units/formatMeasure';
import { whenIdle } from '@/ui/whenIdle';
import { useKept } from '@/ui/keptDraft';
import { UnitsProvider } from '@/ui/measure/UnitsContext';
import { LampSwitch } from './BenchLamp';
import { Alarm } from './Alarm';
import { readySound, click } from '@/ui/alarm/alarm';
import { MoreSheet, OtherBottle, readAhead } from './askedFor';
import { Bottle } from './Bottle';
import { ClockStrip } from './ClockStrip';
import { Decision } from './Decision';
import { Figure } from './Figure';
import { PressBar } from './PressBar';
import { RunOver } from './RunOver';
import { SlipNotice, useSlips } from './Slips';
import { StepAside } from './StepAside';
import { useHeldPress } from './useHeldPress';
import { useAlarm, useAwakeScreen } from '@/ui/alarm/useAlarm';
import { benchClocks, ringingNow, useMoment, useRun, windowName } from './useRun';
import { hearScale, SCALE_SOURCES, useScaleSource, useWatch, type ScaleSource } from './useScale';
import styles from './RunScreen.module.css';

const sourceSchema = z.enum(SCALE_SOURCES);
const onPieceSchema = z.boolean();
/** A knuckle that bounces presses once; drops are counted more quickly. */
const BOUNCE_MS = 350;
const DROP_BOUNCE_MS = 90;

/** One step of a run, a metre away: its figure, its clock, what comes next, and one large press. */
export function RunScreen({ view, onlyBench }: { view: RunView; onlyBench: boolean }) {
  const practice = view.run.practiceSpeed !== null;
  const watch = useWatch(view.plan.scaleStepGrams, view.run.seed + 11);
  const [source, setSource] = useKept<ScaleSource>(
    practice ? 'aguada.practice-scale' : 'aguada.scale',
    practice ? 'simulated' : 'none',
    sourceSchema,
  );
  const [onPiece, setOnPiece] = useKept('aguada.on-piece', false, onPieceSchema);
  const [lamp, setLamp] = useKept('aguada.bench-lamp', true, onPieceSchema);
  const sourceNow = useRef(source);
  useEffect(() => {
    sourceNow.current = source;
  }, [source]);
  const hear = useCallback(
    (message: LiveMessage) => hearScale(watch, sourceNow.current, windowName(), message),
    [watch],
  );
  const link = useRun(view, hear);
  const now = useMoment(link, view);
  const { state } = link;
  const { current } = state;
  const [more, setMore] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  /** At which step another bottle is being chosen. */
  const [otherBottle, setOtherBottle] = useState<string | null>(null);
  useScaleSource(watch, source, view.run.practiceSpeed ?? 1, typeof window === 'undefined' ? '' : windowName());
  useAwakeScreen();
  useEffect(() => whenIdle(readAhead), []);
  const clocks = benchClocks(link, view);
  // A minute's stir that is over only wants to be pressed: it rings with the step, not over it.
  const ringing = ringingNow(clocks, now).filter(({ kind, run }) => run !== null || !CLOCK_KINDS[kind].ofStep);
  useAlarm(ringing[0] ?? null, `${state.current ? stepWords(state, state.current).title : 'Over'} · Aguada`);
  useStepSound(state, now);
  useContact(link, watch, source);
  const send = useCallback(
    (press: Parameters<typeof link.press>[0]): boolean => {
      const id = link.press(press);
      const refused = link.stateNow().refused.find((one) => one.id === id);
      setSaid(refused ? REFUSAL_WORDS[refused.why] : null);
      return refused === undefined;
    },
    [link],
  );
  const slip = useSlips(link, view, watch, source === 'simulated', now);
  const held = useHeldPress(link, watch, source, onPiece, send);
  const last = useRef(0);
  const press = (): void => {
    readySound();
    const step = link.stateNow().current;
    if (!step) return;
    const at = performance.now();
    const dropping = step.kind === 'dose' && step.portion.way === 'drops' && link.stateNow().drops < step.portion.drops;
    if (at - last.current < (dropping ? DROP_BOUNCE_MS : BOUNCE_MS)) return;
    last.current = at;
    click();
    if (dropping) return void send({ type: 'drop', step: step.id, count: 1 });
    held.press();
  };
  const back = (): void => {
    readySound();
    const step = link.stateNow().current;
    if (step) send({ type: 'back', step: step.id });
  };
  const words = current ? stepWords(state, current, view.units) : null;
  const cup = current && cupOf(state, current);
  const room = state.room.at(-1)!;
  const units = view.units;
  const decides = state.pending !== null;
  useBenchKeys({
    press: decides || more || ringing.length > 0 || otherBottle === current?.id ? null : press,
    back,
    more: () => setMore(true),
  });
  return (
    <UnitsProvider units={units}>
      <main className={styles.bench} data-theme={lamp ? 'dark' : 'light'} data-step={current?.kind ?? 'over'}>
        <header className={styles.head}>
          <Link href={`/sets/${view.run.setId}/bench`} className={styles.away} aria-label="Leave the run; it goes on">
            {view.plan.setName}
          </Link>
          <span className={styles.where}>
            {practice && <b className={styles.practice}>practice</b>}{' '}
            {[view.run.name, words?.where].filter(Boolean).join(' · ')}
          </span>
          <span className={styles.room}>{formatMeasure(room.temperatureC, 'temperature', units)}</span>
          <LampSwitch lamp={lamp} onTurn={setLamp} />
          <Button className={styles.more ?? ''} onClick={() => setMore(true)}>
            More
          </Button>
        </header>
        <ClockStrip
          // While one waits the step itself lists those of this run.
          clocks={current?.kind === 'wait' ? clocks.filter(({ run }) => run !== null) : clocks}
          now={now}
          real={link.real}
          skip={cup ? `${cup.key}.` : null}
        />
        <Trouble link={link} notice={view.notice} />
        {current && words ? (
          <>
            <section className={styles.step} aria-live="polite" aria-label="Step">
              <Figure
                {...{ state, view, watch, source, onPiece, now, words }}
                step={current}
                setOnPiece={setOnPiece}
                typed={(grams) => held.typed(grams)}
                bottle={<Bottle {...{ state, view }} step={current} onOther={() => setOtherBottle(current.id)} />}
              />
              <StepAside {...{ state, view, now, send }} step={current} />
              <SlipNotice slip={slip} />
              {(said ?? held.said) && (
                <p role="alert" className={styles.said}>
                  {said ?? held.said}
                </p>
              )}
            </section>
            {state.pending ? (
              <Decision {...{ state, view, send }} step={current} />
            ) : otherBottle === current.id ? (
              <Suspense fallback={null}>
                <OtherBottle {...{ state, view, send }} step={current} onClose={() => setOtherBottle(null)} />
              </Suspense>
            ) : (
              <PressBar
                state={state}
                step={current}
                words={words}
                holding={held.holding}
                next={nextTitle(state, current, view)}
                press={press}
                back={back}
                send={send}
              />
            )}
          </>
        ) : (
          <RunOver {...{ state, view, now, onlyBench }} />
        )}
        {ringing[0] && <Alarm {...{ link, view, now }} clock={ringing[0]} waiting={ringing.length - 1} />}
        {more && (
          <Suspense fallback={null}>
            <MoreSheet
              open
              onClose={() => setMore(false)}
              {...{ link, view, send, source, setSource, clocks, now, watch }}
            />
          </Suspense>
        )}
      </main>
    </UnitsProvider>
  );
}

/** What comes after this step, in short. */
function nextTitle(state: RunState, step: RunStep, view: RunView): string | null {
  const at = state.steps.findIndex(({ id }) => id === step.id);
  const next = state.steps.slice(at + 1).find(({ id }) => !state.done.has(id));
  return next ? stepWords(state, next, view.units).title : null;
}

/** Why presses are not sent, or were not taken; how many wait here. */
function Trouble({ link, notice }: { link: ReturnType<typeof useRun>; notice: string | null }) {
  const { trouble, waiting } = link;
  const words =
    trouble?.kind === 'away'
      ? `${trouble.message} ${waiting} ${waiting === 1 ? 'press is' : 'presses are'} kept here and sent when it is back. Go on.`
      : (trouble?.message ?? notice);
  return words ? (
    <p role="status" className={styles.trouble}>
      {words}
    </p>
  ) : null;
}

/** A stir or a lamp that is over is heard once. */
function useStepSound(state: RunState, now: number): void {
  const { current, since } = state;
  const over =
    current && (current.kind === 'stir' || current.kind === 'lamp') && now >= since + current.minutes * 60_000;
  const key = over ? `${current.id} ${since}` : null;
  useEffect(() => {
    if (key !== null) void import('@/ui/alarm/alarm').then(({ beep }) => beep());
  }, [key]);
}

/** More of part B than a scale wanders by: the parts have met. */
const MET_GRAMS = 0.6;

/** The pot life runs from the first drop of part B that the scale sees, not from the press after it. */
function useContact(link: ReturnType<typeof useRun>, watch: ReturnType<typeof useWatch>, source: ScaleSource): void {
  useEffect(() => {
    if (source === 'none') return;
    return watch.subscribe(() => {
      const state = link.stateNow();
      const step = state.current;
      const { now } = watch;
      if (!now || step?.kind !== 'weigh' || step.part !== 'B' || step.mend) return;
      const cup = cupOf(state, step);
      const scale = onScale(state, step);
      if (!cup || !scale || cup.contactAt !== null || now.grams < scale.startGrams + MET_GRAMS) return;
      link.press({ type: 'contact', cup: cup.key });
    });
  }, [link, watch, source]);
}

interface BenchKeys {
  press: (() => void) | null;
  back: () => void;
  more: () => void;
}

/** What takes keys for itself: a field, and whatever stands in a dialog. */
const typedIn = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) || target.closest('[role="dialog"]') !== null);

/** The space bar presses, whatever has the focus: a knuckle does not look where that is. */
function useBenchKeys(keys: BenchKeys): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    // Any touch at all lets sound out from then on.
    document.addEventListener('pointerdown', readySound);
    document.addEventListener('keydown', readySound);
    return () => {
      document.removeEventListener('pointerdown', readySound);
      document.removeEventListener('keydown', readySound);
    };
  }, []);
  useEffect(() => {
    const down = (event: KeyboardEvent): void => {
      if (event.repeat && event.key === ' ') return event.preventDefault();
      if (typedIn(event.target)) return;
      const { press, back, more } = latest.current;
      if (event.key === ' ' && press) {
        event.preventDefault();
        press();
      } else if (event.key === 'Backspace') {
        event.preventDefault();
        back();
      } else if (event.key === 'm') more();
    };
    // A button with the focus would be pressed by the same key once it comes up.
    const up = (event: KeyboardEvent): void => {
      if (event.key === ' ' && !typedIn(event.target)) event.preventDefault();
    };
    document.addEventListener('keydown', down);
    document.addEventListener('keyup', up);
    return () => {
      document.removeEventListener('keydown', down);
      document.removeEventListener('keyup', up);
    };
  }, []);
}
