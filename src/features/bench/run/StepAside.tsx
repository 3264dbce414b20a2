'use client';

import Button from '@mui/material/Button';
import { pieceKey } from '@/core/model/pieceRef';
import { pouredDensity } from '@/core/mixing/ratio';
import { fromBottle, broughtGrams } from '@/core/pouring/portions';
import { cupEnds, inCupGrams, restOf, surfaceOf, type CupState } from '@/core/run/cupState';
import { clocksOf } from '@/core/run/clocks';
import { howLines } from '@/core/run/how';
import { forecast } from '@/core/run/pace';
import { layerOf, type RunState } from '@/core/run/runState';
import { cupOf, restWords } from '@/core/run/say';
import { LEAST_SHORT_GRAMS, shortfall } from '@/core/run/shortfall';
import type { RunStep } from '@/core/run/steps';
import type { RunView } from '@/core/run/views';
import { formatMeasure, formatOnScale } from '@/core/units/formatMeasure';
import { clockDigits } from '@/ui/alarm/clockWords';
import type { Press } from './runLink';
import styles from './RunScreen.module.css';

interface StepAsideProps {
  state: RunState;
  view: RunView;
  step: RunStep;
  now: number;
  send: (press: Press) => boolean;
}

/** What goes with a step beside its figure: what is ready, what was poured and what is not, and what to do while it can still be done. */
export function StepAside({ state, view, step, now, send }: StepAsideProps) {
  const cup = cupOf(state, step);
  if (step.kind === 'wait') return <Waiting {...{ state, view, step, now }} />;
  if (step.kind === 'ready') return <ReadyList state={state} current={step.id} />;
  if (cup && step.kind === 'pour')
    return (
      <>
        <PourWarnings {...{ state, view, cup, now, send }} />
        <PourList {...{ state, view, cup }} current={pieceKey(step.pour)} />
      </>
    );
  if (cup && ['stir', 'scrape', 'clear'].includes(step.kind)) return <InTheCup {...{ state, view, cup }} />;
  if (cup && step.kind === 'left') return <Leftover {...{ state, view, cup, now, send }} />;
  if (
    step.kind === 'weigh' &&
    step.layer === state.plan.layers[0]?.number &&
    step.part === 'A' &&
    state.done.size <= state.plan.ready.length
  )
    return (
      <ul className={styles.cautions}>
        {state.plan.cautions.map((text) => (
          <li key={text}>{text}</li>
        ))}
      </ul>
    );
  return null;
}

function ReadyList({ state, current }: { state: RunState; current: string }) {
  return (
    <ol className={styles.list}>
      {state.plan.ready.map(({ id, text }) => {
        const done = state.done.get(`ready.${id}`);
        return (
          <li key={id} data-here={`ready.${id}` === current} data-done={done !== undefined}>
            <span aria-hidden>{done ? (done.skipped ? '–' : '✓') : '○'}</span>
            <span>
              {text}
              {done?.skipped && <i> left out{done.why ? `: ${done.why}` : ''}</i>}
            </span>
          </li>
        );
      })}
    </ol>
  );
}

/** What rings while one waits, and how the waits came about. */
function Waiting({ state, view, step, now }: Omit<StepAsideProps, 'send'>) {
  return (
    <>
      <ul className={styles.list} aria-label="What rings next">
        {clocksOf(state).map((clock) => (
          <li key={clock.id}>
            <span>{clock.words.split('. ')[0]}</span>
            <span className={styles.amount}>{clockDigits((clock.snoozedTo ?? clock.due) - now)}</span>
          </li>
        ))}
      </ul>
      {howLines(state, step, view.units).map((line) => (
        <p key={line} className={styles.soft}>
          {line}
        </p>
      ))}
    </>
  );
}

/** What has gone into a cup. */
function InTheCup({ state, view, cup }: { state: RunState; view: RunView; cup: CupState }) {
  const layer = layerOf(state, cup.layer);
  const grams = (value: number): string => formatOnScale(value, state.plan.scaleStepGrams, view.units);
  const { A, B, all } = cup.weighed;
  const lines = [
    ...(layer.product.parts
      ? [['Part A', grams(A + broughtGrams(cup.putIn))] as const, ['Part B', grams(B)] as const]
      : []),
    ...(all > 0 ? [[layer.product.name, grams(all)] as const] : []),
    ...cup.putIn.map(
      ({ name, way, drops, grams: own }) => [name, way === 'drops' ? `${drops} drops` : grams(own)] as const,
    ),
    ['For', restWords(cup)] as const,
  ];
  return (
    <ul className={styles.list} aria-label="In the cup">
      {lines.map(([what, amount]) => (
        <li key={what}>
          <span>{what}</span>
          <span className={styles.amount}>{amount}</span>
        </li>
      ))}
    </ul>
  );
}

const MOST_LINES = 6;

function PourList({ state, view, cup, current }: { state: RunState; view: RunView; cup: CupState; current: string }) {
  const grams = (value: number): string => formatMeasure(value, 'mass', view.units);
  const poured = cup.poured.filter(({ filler }) => !filler);
  const rest = restOf(cup);
  const lines = [
    ...poured.map(({ key, tag, copy, grams: real, plannedGrams, assumed }) => ({
      key,
      tag,
      copy,
      planned: plannedGrams,
      real: assumed ? null : real,
      done: true,
    })),
    ...rest.map((pour) => ({
      key: pieceKey(pour),
      tag: pour.tag,
      copy: pour.copy,
      planned: pour.grams,
      real: null,
      done: false,
    })),
  ];
  const at = lines.findIndex(({ key }) => key === current);
  const from = Math.max(0, Math.min(at - 1, lines.length - MOST_LINES));
  return (
    <ol
      className={styles.list}
      start={from + 1}
      aria-label={`Pieces of cup ${state.cups.filter(({ layer }) => layer === cup.layer).indexOf(cup) + 1}`}
    >
      {lines.slice(from, from + MOST_LINES).map(({ key, tag, copy, planned, real, done }) => (
        <li key={key} data-here={key === current} data-done={done}>
          <span>
            {tag}
            {copy > 0 ? ` #${copy}` : ''}
          </span>
          <span className={styles.amount}>
            {grams(planned)}
            {real !== null && <b> {grams(real)}</b>}
          </span>
        </li>
      ))}
      {lines.length > from + MOST_LINES && <li>{lines.length - from - MOST_LINES} more</li>}
    </ol>
  );
}

interface PourProps {
  state: RunState;
  view: RunView;
  cup: CupState;
  now: number;
  send: (press: Press) => boolean;
}

/** What the pace means for the rest, and what to do when the cup is short: while it can still be mended. */
function PourWarnings({ state, view, cup, now, send }: PourProps) {
  const { plan } = state;
  const layer = layerOf(state, cup.layer);
  const grams = (value: number): string => formatMeasure(value, 'mass', view.units);
  const rest = restOf(cup);
  const poured = cup.poured.filter(({ filler }) => !filler);
  const ends = cupEnds(cup, layer, state.room);
  const left = ends ? (ends.by - now) / 60_000 : Infinity;
  const ahead = forecast(
    rest,
    poured.map((one) => ({ grams: one.grams, minutes: one.minutes })),
    layer.product.pourGramsPerMinute,
    left,
    plan.pairs,
    new Set(poured.map(({ key }) => key)),
  );
  const nameOf = (key: string): string => {
    const pour = [...rest, ...poured].find((one) => pieceKey(one) === key);
    return pour ? `${pour.tag}${pour.copy > 0 ? ` #${pour.copy}` : ''}` : key;
  };
  const short = shortfall(
    inCupGrams(cup, layer),
    rest,
    surfaceOf(plan),
    { density: pouredDensity(layer.product), shrinkage: layer.product.shrinkage },
    plan.losses,
  );
  const isShort = !fromBottle(layer, cup.plan) && !cup.assumed && short.shortGrams >= LEAST_SHORT_GRAMS;
  return (
    <>
      {!ahead.inTime && ahead.leave.length > 0 && (
        <div role="alert" className={styles.warn}>
          <p>
            At this pace the rest takes <b>{ahead.restMinutes.toFixed(1)} min</b>,{' '}
            {left > 0 ? `${left.toFixed(1)} min are left` : 'and the time is over'}. Leave{' '}
            <b>{ahead.leave.map(nameOf).join(', ')}</b> for the next mix
            {ahead.parts.length > 0 &&
              `; that parts ${ahead.parts.map(([a, b]) => `${nameOf(a)} from ${nameOf(b)}`).join(', ')}: their tint may differ`}
            .
          </p>
          <Button
            className={styles.tool ?? ''}
            onClick={() => send({ type: 'leave', cup: cup.key, pieces: ahead.leave })}
          >
            Leave {ahead.leave.length === 1 ? 'it' : 'them'}
          </Button>
        </div>
      )}
      {isShort && (
        <div role="alert" className={styles.warn}>
          <p>
            The cup is <b>{grams(short.shortGrams)}</b> short for what is left.
          </p>
          <Button
            className={styles.tool ?? ''}
            onClick={() => send({ type: 'lower', cup: cup.key, mm: Math.max(0.001, short.lowerMm) })}
          >
            Fill the rest {formatMeasure(short.lowerMm, 'length', view.units, short.lowerMm < 0.1 ? 2 : 1)} lower
          </Button>
          <Button className={styles.tool ?? ''} onClick={() => send({ type: 'fresh', cup: cup.key })}>
            Fresh mix of {grams(short.freshMixGrams)}
          </Button>
        </div>
      )}
    </>
  );
}

/** What is over: into the filler while it may be poured, else it hardens in the cup. */
function Leftover({ state, view, cup, now, send }: PourProps) {
  const layer = layerOf(state, cup.layer);
  const { filler } = state.plan;
  const held = inCupGrams(cup, layer);
  const ends = cupEnds(cup, layer, state.room);
  const late = ends !== null && now > ends.by;
  const grams = (value: number): string => formatMeasure(value, 'mass', view.units);
  if (!filler || held < filler.grams) return null;
  return (
    <div className={styles.warn}>
      <p>
        {late ? (
          <>It has begun to set: none of it goes into {filler.tag} any more.</>
        ) : (
          <>
            <b>{grams(held)}</b> are over: {filler.tag} takes {grams(filler.grams)}.
          </>
        )}
      </p>
      {!late && (
        <Button
          className={styles.tool ?? ''}
          onClick={() => send({ type: 'filler', cup: cup.key, grams: filler.grams })}
        >
          {filler.tag} is filled
        </Button>
      )}
    </div>
  );
}
