'use client';

import { useEffect, useState } from 'react';
import { shortTime } from '@/core/time/dayNames';
import { explainSteady } from '@/core/schedule/explain';
import { waysToBeSooner } from '@/core/schedule/soonerBy';
import type { ScheduleRequest } from '@/core/schedule/scheduleRequest';
import type { Bottleneck, Steady } from '@/core/schedule/steady';
import { minutesText } from '@/core/units/formatMeasure';
import { Held } from '@/ui/held/Held';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { Reading, Readings } from '@/ui/reading/Reading';
import { steadyInWorker } from '@/workers/scheduler';
import styles from './CalendarPart.module.css';

const DIGITS = (value: number): string => (value < 10 ? value.toFixed(1) : String(Math.round(value)));

/** A batch made again and again: pieces a week, and what holds it back. */
export function SteadyView({ request }: { request: ScheduleRequest }) {
  const choices = request.batches.flatMap((batch) =>
    batch.holds.map(({ place }) => ({ value: `${batch.id}\n${place}`, label: `${batch.name}, in turn on: ${place}` })),
  );
  const [chosen, setChosen] = useState(choices[0]?.value ?? '');
  const [result, setResult] = useState<{ of: string; steady: Steady | null; more: Bottleneck[] } | null>(null);
  useEffect(() => {
    const [batchId, place] = chosen.split('\n');
    if (!batchId || !place) return;
    let stale = false;
    const wish = { request, batchId, place };
    const run = steadyInWorker(
      wish,
      waysToBeSooner({ ...request, batches: request.batches.filter(({ id }) => id === batchId) }).map((way) => ({
        words: way.words,
        request: { ...way.request },
      })),
    );
    void run.result.then((found) => !stale && setResult({ of: chosen, ...found }), reportError);
    return () => {
      stale = true;
      run.end();
    };
  }, [chosen, request]);
  if (choices.length === 0)
    return (
      <p className={styles.teach}>
        Steady work turns round on what is scarce. Say on the shelf, under the workshop, how many dam kits or moulds you
        have, or how much level place.
      </p>
    );
  const shown = result?.of === chosen ? result : null;
  const steady = shown?.steady;
  const idle = steady ? (shown?.more ?? []).filter((one) => one.piecesPerWeek > steady.piecesPerWeek + 0.05) : [];
  const explain = steady ? () => explainSteady(steady) : undefined;
  return (
    <div className={styles.promise}>
      <section aria-label="Steady work">
        <h2 className={styles.heading}>Steady work</h2>
        <ChoiceField label="Again and again" value={chosen} choices={choices} onCommit={setChosen} />
        {!shown && <Held label="Playing eight weeks through" rows={4} />}
        {shown && !steady && <p className={styles.teach}>One batch needs more of it than there is.</p>}
        {steady && (
          <Readings>
            <Reading
              label="Pieces a week"
              digits={DIGITS(steady.piecesPerWeek)}
              strong
              note="weeks 3 to 8, each turn begun as soon as it can be"
              explain={explain}
            />
            <Reading
              label="A turn takes"
              {...minutesText(steady.turnMinutes)}
              note={`${steady.sideBySide} side by side`}
              explain={explain}
            />
            <Reading label="At the bench, a week" {...minutesText(steady.handsOnMinutesPerWeek)} explain={explain} />
          </Readings>
        )}
      </section>
      {steady && (
        <section aria-label="What holds it back">
          <h2 className={styles.heading}>What holds it back</h2>
          {idle.length === 0 ? (
            <p className={styles.soft}>None of these alone would bring more: the waits themselves hold it back.</p>
          ) : (
            <ul className={styles.ways}>
              {idle.map(({ words, piecesPerWeek }, i) => (
                <li key={words}>
                  <b>{words}</b>
                  <span>
                    {DIGITS(piecesPerWeek)} pieces a week{i === 0 ? ', the most: that is the bottleneck' : ''}
                  </span>
                </li>
              ))}
            </ul>
          )}
          <h3 className={styles.sub}>Turns</h3>
          <ol className={styles.turns}>
            {steady.turns.slice(0, 12).map((turn) => (
              <li key={turn.from}>
                {shortTime(turn.from)} to {shortTime(turn.freeAt)}, {turn.pieces} pieces
              </li>
            ))}
          </ol>
        </section>
      )}
    </div>
  );
}
