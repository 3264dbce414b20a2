'use client';

import Button from '@mui/material/Button';
import { LEARNT_KIND_FACTS, type LearntFigure } from '@/core/learn/learntFigure';
import type { LearntAnswerWanted, LearntEffect, LearntView } from '@/core/records/learnt';
import { formatMinutes, formatMoney } from '@/core/units/formatMeasure';
import { Fold } from '@/ui/controls/Fold';
import { Held } from '@/ui/held/Held';
import { NotRead } from '@/ui/held/NotRead';
import { useOwnWords, useUnits } from '@/ui/measure/UnitsContext';
import { useFetched } from '@/ui/useFetched';
import { DotStrip } from './DotStrip';
import { useFigureWords } from './figureWords';
import styles from './LearntScreen.module.css';

interface LearntCardProps {
  figure: LearntFigure;
  batches: LearntView['batches'];
  /** Another one after each edit. */
  state: string;
  /** The record is being read anew. */
  busy: boolean;
  onSay: (said: LearntAnswerWanted) => void;
}

/** One figure: its dots, what it is and would be, what that changes, and what the maker says to it. */
export function LearntCard({ figure, batches, state, busy, onSay }: LearntCardProps) {
  const words = useFigureWords();
  const { fields, counted, observed, kind, standing } = figure;
  const { one, many, how } = LEARNT_KIND_FACTS[kind];
  const was = fields.map((field) => words.field(field, 'was'));
  const now = fields.map((field) => words.field(field, 'now'));
  const left = observed - counted;
  const learnt = `${counted} ${counted === 1 ? one : many}${figure.batches > 1 ? ` in ${figure.batches} batches` : ''}`;
  return (
    <article className={styles.card} aria-label={figure.name}>
      <header>
        <h3>{figure.name}</h3>
        <p className={styles.figures}>
          {standing === 'offered' || standing === 'refused' ? (
            <>
              <b>{now.join(' + ')}</b>
              <span>{` instead of ${was.join(' + ')}`}</span>
            </>
          ) : (
            <b>{was.join(' + ')}</b>
          )}
        </p>
        <p className={styles.from}>{`Learnt from ${learnt}${left > 0 ? `; ${left} far off or left out` : ''}.`}</p>
        {standing === 'offered' && (
          <p className={styles.press}>
            <Button
              variant="contained"
              disabled={busy}
              onClick={() => onSay({ answer: 'take', shown: fields.map((field) => field.now) })}
            >
              Take it over
            </Button>
            <Button variant="text" disabled={busy} onClick={() => onSay({ answer: 'refuse' })}>
              Leave it as it is
            </Button>
          </p>
        )}
        {standing === 'refused' && (
          <p className={styles.press}>
            <Button
              variant="text"
              disabled={busy}
              onClick={() => onSay({ answer: 'take', shown: fields.map((field) => field.now) })}
            >
              Take it over after all
            </Button>
          </p>
        )}
        {standing === 'taken' && (
          <p className={styles.press}>
            <Button variant="text" disabled={busy} onClick={() => onSay({ answer: 'forget' })}>
              {`Back to ${figure.before.map((value, i) => words.field({ ...fields[i]!, was: value }, 'was')).join(' + ')}`}
            </Button>
          </p>
        )}
      </header>
      <div>
        <DotStrip figure={figure} batches={batches} busy={busy} onTurn={(dot) => onSay({ answer: 'turn', dot })} />
        <div className={styles.folds}>
          {(standing === 'offered' || standing === 'refused') && (
            <Fold summary="What it changes">
              <Effects figure={figure} state={state} />
            </Fold>
          )}
          <Fold summary="How it comes about">
            <p className={styles.how}>{how}</p>
          </Fold>
        </div>
      </div>
    </article>
  );
}

/** The batches that are still to be poured, as they are planned and as they would be. */
function Effects({ figure, state }: Pick<LearntCardProps, 'figure' | 'state'>) {
  const own = useOwnWords();
  const units = useUnits();
  const { data, failed, again } = useFetched<{ effects: LearntEffect[] }>(
    `/api/learnt/effect?figure=${encodeURIComponent(figure.id)}`,
    `${state} ${figure.counted}`,
  );
  if (failed) return <NotRead what="What it changes could not be worked out." again={again} />;
  if (!data) return <Held label="Planning the open batches with both figures" rows={2} height={28} />;
  if (data.effects.length === 0)
    return <p className={styles.how}>No batch that is still to be poured changes by it.</p>;
  const grams = (value: number): string => own(`${value.toFixed(1)} g`);
  return (
    <ul className={styles.effects}>
      {data.effects.map(({ batchId, name, set, mixGrams, cups, minutes, money }) => (
        <li key={batchId}>
          <b>{`${set}, ${name}`}</b>
          {[
            moved(mixGrams, 0.05) && `${grams(mixGrams.was)} mixed become ${grams(mixGrams.now)}`,
            moved(cups, 0.5) && `${cups.was} cups become ${cups.now}`,
            moved(money, 0.005) && `${formatMoney(money.was, units)} become ${formatMoney(money.now, units)}`,
            moved(minutes, 0.5) &&
              (minutes.was > 0
                ? `${formatMinutes(minutes.was)} become ${formatMinutes(minutes.now)}`
                : `${formatMinutes(Math.abs(minutes.now))} ${minutes.now > 0 ? 'more' : 'less'} at the bench`),
          ]
            .filter((line) => line !== false)
            .map((line) => (
              <span key={line}>{line}</span>
            ))}
        </li>
      ))}
    </ul>
  );
}

const moved = ({ was, now }: { was: number; now: number }, least: number): boolean => Math.abs(now - was) >= least;
