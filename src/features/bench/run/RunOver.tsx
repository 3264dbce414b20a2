'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { CURE_MODELS } from '@/core/cure/cureModels';
import { leftOfStock } from '@/core/run/keptStock';
import { balanceOf } from '@/core/run/record';
import type { RunState } from '@/core/run/runState';
import { verdictOf } from '@/core/run/verdict';
import type { RunView } from '@/core/run/views';
import { formatMeasure, formatMinutes } from '@/core/units/formatMeasure';
import styles from './RunScreen.module.css';

interface RunOverProps {
  state: RunState;
  view: RunView;
  now: number;
  /** On a device for the bench only there is no log to see. */
  onlyBench: boolean;
}

/** A run that is over: where the grams went, and of a practice what would have gone wrong. */
export function RunOver({ state, view, now, onlyBench }: RunOverProps) {
  const grams = (value: number): string => formatMeasure(value, 'mass', view.units);
  const balance = balanceOf(state);
  const practice = view.run.practiceSpeed !== null;
  const verdict = verdictOf(state, now);
  return (
    <section className={styles.over} aria-label="The run is over">
      <h1>
        {practice ? 'Practice is over' : state.over?.how === 'given up' ? 'The run was given up' : 'The run is done'}
      </h1>
      {state.over?.why && <p>{state.over.why}</p>}
      <dl>
        <Line name="Mixed" value={grams(balance.mixedGrams - balance.colourGrams - balance.tintLeftGrams)} />
        {balance.colourGrams > 0.05 && <Line name="Colourants in it" value={grams(balance.colourGrams)} />}
        <Line name="In the pieces" value={grams(balance.inPiecesGrams)} />
        <Line name="Left in cups, dripped" value={grams(balance.lostGrams + balance.inUseGrams)} />
        {balance.tintLeftGrams > 0.05 && <Line name="Left of the stock tint" value={grams(balance.tintLeftGrams)} />}
        {balance.thrownAwayGrams > 0 && <Line name="Thrown away" value={grams(balance.thrownAwayGrams)} />}
        <Line name="Time" value={formatMinutes(verdict.minutes)} />
        {practice && (
          <Line
            name="Over-poured"
            value={verdict.overshoots === 0 ? 'never' : `${verdict.overshoots} times, ${grams(verdict.overGrams)}`}
          />
        )}
        {practice && verdict.meanPourErrorGrams !== null && (
          <Line name="Off per piece, on average" value={grams(verdict.meanPourErrorGrams)} />
        )}
      </dl>
      {!practice &&
        state.over?.how === 'given up' &&
        state.plan.layers
          .filter((layer) => leftOfStock(state, layer) > 0)
          .map((layer) => (
            <p key={layer.number}>
              {`Cover the stock tint of layer ${layer.number}: ${grams(leftOfStock(state, layer))} are left, good for the rest of it up to ${CURE_MODELS[layer.product.cureModel].tintKeepsHours} h after they were stirred, about.`}
            </p>
          ))}
      {practice && (
        <>
          <h2>{verdict.findings.length === 0 ? 'Nothing would have gone wrong' : 'What would have gone wrong'}</h2>
          <ul>
            {verdict.findings.map(({ what, why }) => (
              <li key={`${what}${why}`}>
                <b>{what}</b>: {why}
              </li>
            ))}
          </ul>
          <p className={styles.soft}>Practice takes nothing from the shelf and leaves nothing in the log.</p>
        </>
      )}
      <div className={styles.choices}>
        <Button
          className={styles.tool ?? ''}
          variant="contained"
          component={Link}
          href={`/sets/${view.run.setId}/bench`}
        >
          Back to the bench
        </Button>
        {!practice && !onlyBench && (
          <Button
            className={styles.tool ?? ''}
            component={Link}
            href={`/sets/${view.run.setId}/log?batch=${view.run.batchId}`}
          >
            See it in the log
          </Button>
        )}
      </div>
    </section>
  );
}

const Line = ({ name, value }: { name: string; value: string }) => (
  <div>
    <dt>{name}</dt>
    <dd>{value}</dd>
  </div>
);
