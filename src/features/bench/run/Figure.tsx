'use client';

import { fromBottle } from '@/core/pouring/portions';
import { Suspense, useState, type ReactNode } from 'react';
import Button from '@mui/material/Button';
import { clocksOf } from '@/core/run/clocks';
import { cupEnds, partMl } from '@/core/run/cupState';
import { layerOf, type RunState } from '@/core/run/runState';
import { cupOf, onScale, type StepWords } from '@/core/run/say';
import { weighVerdict } from '@/core/run/overPoured';
import type { RunStep } from '@/core/run/steps';
import type { RunView } from '@/core/run/views';
import { measureText, formatMeasure } from '@/core/units/formatMeasure';
import { parseMeasure } from '@/core/units/parseMeasure';
import { preferredUnit } from '@/core/units/formatMeasure';
import { LineForm } from './askedFor';
import { clockDigits, wallWords } from '@/ui/alarm/clockWords';
import { Pouring } from './Pouring';
import { StepPicture } from './StepPicture';
import { useScaleNow, useScaleTrouble, type ScaleSource, type ScaleWatch } from './useScale';
import styles from './RunScreen.module.css';

interface FigureProps {
  state: RunState;
  view: RunView;
  step: RunStep;
  words: StepWords;
  watch: ScaleWatch;
  source: ScaleSource;
  onPiece: boolean;
  setOnPiece: (onPiece: boolean) => void;
  now: number;
  typed: (grams: number) => void;
  /** Out of which bottle it is taken. */
  bottle: ReactNode;
}

/** The figure of a step, its clock, and its picture. */
export function Figure({
  state,
  view,
  step,
  words,
  watch,
  source,
  onPiece,
  setOnPiece,
  now,
  typed,
  bottle,
}: FigureProps) {
  const reading = useScaleNow(watch);
  const trouble = useScaleTrouble(watch);
  const scale = onScale(state, step, onPiece);
  const volume = state.plan.by === 'volume';
  const live = source !== 'none' && !volume && scale !== null ? (reading?.grams ?? null) : null;
  // While it is decided about what was typed, that is what the cup holds.
  const typedIn = state.pending && step.kind === 'weigh' && scale ? scale.startGrams + state.pending.grams : null;
  const shown = live ?? (volume ? null : typedIn);
  const bigClock = clockOf(state, step, now);
  const { units } = view;
  const counts = countdownOf(state, step);
  const target = scale ? formatMeasure(scale.stopGrams, 'mass', units) : '';
  const cup = cupOf(state, step);
  return (
    <>
      <div className={styles.top}>
        <div className={styles.title}>
          <h1>{words.title}</h1>
          <p>{words.under}</p>
          {bottle}
          {words.caution && <p className={styles.caution}>{words.caution}</p>}
        </div>
        {bigClock && (
          <div className={styles.clock} data-late={bigClock.late}>
            <b role="timer">{bigClock.digits}</b>
            <span>{bigClock.words}</span>
          </div>
        )}
      </div>
      {counts && <BigFigure digits={clockDigits(counts.due - now)} unit="" under={counts.under(now)} />}
      {step.kind === 'dose' && step.portion.way === 'drops' && (
        <BigFigure
          digits={`${state.drops}`}
          unit={`of ${step.portion.drops}`}
          under={state.drops < step.portion.drops ? 'one press, one drop' : 'that is all of it'}
        />
      )}
      {scale && !volume && step.kind !== 'left' && (
        <BigFigure
          {...figureOf(shown ?? scale.stopGrams, units)}
          moving={live !== null && reading !== null && !reading.still}
          under={underFigure(state, step, shown, scale, units)}
          verdict={shown === null || step.kind !== 'weigh' ? null : weighWord(step, shown - scale.startGrams)}
        />
      )}
      {scale && volume && step.kind === 'weigh' && cup && (
        <BigFigure
          {...mlFigure(partMl(step.targetGrams, layerOf(state, step.layer), step.part), units)}
          under="to the mark"
        />
      )}
      {step.kind === 'left' && cup && (
        <BigFigure
          {...figureOf(live ?? scale!.startGrams, units)}
          under={live !== null ? 'still in the cup, on the scale' : 'should be left in the cup'}
        />
      )}
      {scale && <StepPicture state={state} step={step} scale={scale} grams={shown} target={target} />}
      {trouble && source !== 'none' && (
        <p role="alert" className={styles.said}>
          {trouble}
        </p>
      )}
      {scale && (
        <div className={styles.tools}>
          {/* While it is decided the simulated bottle still drips, as a real one would. */}
          {source === 'simulated' && !volume && <Pouring {...{ state, step, watch, onPiece }} />}
          {step.kind === 'pour' && cup && !fromBottle(layerOf(state, cup.layer), cup.plan) && !volume && (
            <Button className={styles.tool ?? ''} aria-pressed={onPiece} onClick={() => setOnPiece(!onPiece)}>
              {onPiece ? 'Piece is on the scale' : 'Cup is on the scale'}
            </Button>
          )}
          {!state.pending && (
            <TypeReading
              key={step.id}
              units={units}
              typed={typed}
              falls={scale.falls}
              volume={volume ? volumeOf(state, step, scale.startGrams) : null}
            />
          )}
        </div>
      )}
    </>
  );
}

const figureOf = (grams: number, units: RunView['units']): { digits: string; unit: string } =>
  measureText(grams, 'mass', units);
const mlFigure = (ml: number, units: RunView['units']): { digits: string; unit: string } =>
  measureText(ml, 'volume', units);

function BigFigure({
  digits,
  unit,
  under,
  moving = false,
  verdict = null,
}: {
  digits: string;
  unit: string;
  under: string;
  moving?: boolean;
  verdict?: string | null;
}) {
  return (
    <div className={styles.figure} data-verdict={verdict ?? ''}>
      <p className={styles.digits} data-moving={moving}>
        {digits}
        <i>{unit}</i>
      </p>
      <p className={styles.under}>
        {verdict && <b>{verdict} · </b>}
        {under}
      </p>
    </div>
  );
}

const WORDS = { under: 'pour on', slow: 'slowly now', right: 'stop: right', over: 'over' } as const;
const weighWord = (step: Extract<RunStep, { kind: 'weigh' }>, grams: number): string =>
  WORDS[weighVerdict(grams, step.targetGrams, step.toleranceGrams)];

function underFigure(
  state: RunState,
  step: RunStep,
  live: number | null,
  scale: NonNullable<ReturnType<typeof onScale>>,
  units: RunView['units'],
): string {
  const grams = (value: number): string => formatMeasure(value, 'mass', units);
  if (live === null)
    return scale.falls ? 'the cup falls to this' : scale.startGrams > 0 ? 'in the cup altogether' : 'stop here';
  const left = scale.falls ? live - scale.stopGrams : scale.stopGrams - live;
  const way = left >= 0 ? `${grams(left)} to go` : `${grams(-left)} over`;
  return `${scale.falls ? 'cup falls to' : 'stop at'} ${grams(scale.stopGrams)} · ${way}`;
}

/** What a step itself waits for: its stir, its lamp, a window that opens. */
function countdownOf(state: RunState, step: RunStep): { due: number; under: (now: number) => string } | null {
  if (step.kind === 'stir' || step.kind === 'lamp') {
    const due = state.since + step.minutes * 60_000;
    const on = step.kind === 'stir' ? 'stir on' : 'under the lamp';
    return { due, under: (now) => (now < due ? on : 'long enough') };
  }
  if (step.kind !== 'wait') return null;
  const kind = { recoat: 'recoat opens', firm: 'firm', cured: 'cured' }[step.until];
  const clock = clocksOf(state).find((one) => one.kind === kind);
  return clock
    ? { due: clock.due, under: (now) => (now < clock.due ? `until ${wallWords(clock.due, now)}` : 'it is time') }
    : null;
}

/** The clock that a step stands under: the pot life of its cup. */
function clockOf(state: RunState, step: RunStep, now: number): { digits: string; words: string; late: boolean } | null {
  const cup = cupOf(state, step);
  const ends = cup && cupEnds(cup, layerOf(state, cup.layer), state.room);
  if (!ends) return null;
  const by = ends.by - now;
  if (by > 0) return { digits: clockDigits(by), words: 'until it should be poured', late: by < 120_000 };
  return { digits: clockDigits(ends.sets - now), words: 'until this cup sets up', late: true };
}

/** Who measures by volume reads marks: ml of the part that goes in, or ml of the mix that is left in the cup. */
interface ByVolume {
  label: string;
  /** What a scale would show for so many ml. */
  gramsShown: (ml: number) => number;
}

function volumeOf(state: RunState, step: RunStep, startGrams: number): ByVolume {
  const layer = layerOf(state, step.layer);
  if (step.kind === 'weigh') {
    const mlPerGram = partMl(1, layer, step.part);
    return { label: 'It went in up to', gramsShown: (ml) => startGrams + ml / mlPerGram };
  }
  const mlPerGram = partMl(1, layer, 'all');
  return { label: 'The cup is down to the mark of', gramsShown: (ml) => ml / mlPerGram };
}

/** What the scale shows, or the mark of the cup, typed in by who reads it. */
function TypeReading({
  units,
  typed,
  falls,
  volume,
}: {
  units: RunView['units'];
  typed: (grams: number) => void;
  falls: boolean;
  volume: ByVolume | null;
}) {
  const [open, setOpen] = useState(false);
  const quantity = volume ? 'volume' : 'mass';
  const unit = preferredUnit(quantity, units);
  if (!open)
    return (
      <Button className={styles.tool ?? ''} onClick={() => setOpen(true)}>
        {volume ? 'Type the mark' : 'Type what it shows'}
      </Button>
    );
  const enter = (text: string): string | void => {
    const read = parseMeasure(text, quantity, unit);
    if (!read.ok) return read.message;
    if (read.value < 0 || read.value > 100_000) return 'No cup holds that much';
    typed(volume ? volume.gramsShown(read.value) : read.value);
  };
  return (
    <Suspense fallback={null}>
      <LineForm
        label={`${volume?.label ?? `The scale ${falls ? 'falls to' : 'shows'}`}, ${unit.symbol}`}
        press="Take it"
        variant="contained"
        className={styles.typing}
        buttonClass={styles.tool}
        field={{
          autoFocus: true,
          onKeyDown: (event) => event.key === 'Escape' && setOpen(false),
          slotProps: { htmlInput: { inputMode: 'decimal', className: styles.bigInput } },
        }}
        send={enter}
      />
    </Suspense>
  );
}
