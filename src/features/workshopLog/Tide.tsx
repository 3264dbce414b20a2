'use client';

import { useRef, type KeyboardEvent } from 'react';
import { daysAfter, tideFigures, weeksInRow, type LogWeek } from '@/core/records/workshopLog';
import { dayAndMonth } from '@/core/time/dayNames';
import { formatMeasure, formatMoney } from '@/core/units/formatMeasure';
import { explainTide } from '@/core/records/explainOverTime';
import { HowPress } from '@/ui/reading/HowPress';
import { useUnits } from '@/ui/measure/UnitsContext';
import styles from './Tide.module.css';

/** A year and the week that is running. */
const WEEKS = 53;
const WEEK = 20;
const HIGH = 108;
const DEEP = 30;

interface TideProps {
  weeks: readonly LogWeek[];
  today: string;
  /** The Monday of the week that is open; null: the newest. */
  open: string | null;
  onOpen: (monday: string) => void;
}

/** The year as a tide: what was mixed week by week stands over the line, what of it reached no piece lies under it as silt. */
export function Tide({ weeks, today, open, onOpen }: TideProps) {
  const units = useUnits();
  const row = useRef<HTMLDivElement>(null);
  const year = weeksInRow(weeks, today, WEEKS);
  const { mixedGrams, lostGrams, money, fullest } = tideFigures(year);
  const grams = (value: number): string => formatMeasure(value, 'mass', units, 0);
  const most = Math.max(fullest?.mixedGrams ?? 0, 1);
  // The fullest week fills the height; silt is drawn to the same scale.
  const up = (value: number): number => (HIGH * value) / most;
  const inSight = open ?? year.at(-1)!.monday;
  const step = (event: KeyboardEvent, at: number): void => {
    const by = { ArrowLeft: -1, ArrowRight: 1, Home: -WEEKS, End: WEEKS }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    const next = Math.min(WEEKS - 1, Math.max(0, at + by));
    (row.current?.children[next] as HTMLElement | undefined)?.focus();
  };
  return (
    <section aria-label="The year as a tide" className={styles.tide}>
      <p className={styles.said}>
        {fullest
          ? `${grams(mixedGrams)} were mixed in a year; ${grams(lostGrams)} of it, ${Math.round((100 * lostGrams) / mixedGrams)} %, reached no piece. ${money > 0 ? `That took ${formatMoney(money, units)} from the shelf. ` : ''}The fullest week was that of ${dayAndMonth(fullest.monday)}, with ${grams(fullest.mixedGrams)}.`
          : 'Nothing was poured in this year. What is poured at the bench or put into the log of a set rises here.'}{' '}
        {fullest && (
          <HowPress
            label="How so"
            figure={grams(mixedGrams)}
            explain={() => explainTide(year, grams, (amount) => formatMoney(amount, units))}
          />
        )}
      </p>
      <div className={styles.water}>
        <svg viewBox={`0 0 ${WEEKS * WEEK} ${HIGH + DEEP + 8}`} preserveAspectRatio="none" aria-hidden>
          {year.map(({ monday, mixedGrams: mixed, lostGrams: lost }, i) => (
            <g key={monday} transform={`translate(${i * WEEK} 0)`}>
              {mixed > 0 && <path className={styles.swell} d={swell(up(mixed))} />}
              {lost > 0 && <path className={styles.silt} d={silt(Math.max(2, Math.min(DEEP, up(lost))))} />}
            </g>
          ))}
          <line className={styles.line} x1={0} x2={WEEKS * WEEK} y1={HIGH + 6} y2={HIGH + 6} />
        </svg>
        <div className={styles.weeks} ref={row}>
          {year.map(({ monday, mixedGrams: mixed, lostGrams: lost }, i) => (
            <button
              key={monday}
              type="button"
              tabIndex={monday === inSight ? 0 : -1}
              aria-pressed={monday === open}
              aria-label={`Week of ${dayAndMonth(monday)}: ${mixed > 0 ? `${grams(mixed)} mixed, ${grams(lost)} lost` : 'nothing poured'}`}
              title={`Week of ${dayAndMonth(monday)}${mixed > 0 ? `: ${grams(mixed)}` : ''}`}
              onClick={() => onOpen(monday)}
              onKeyDown={(event) => step(event, i)}
            />
          ))}
        </div>
      </div>
      <div className={styles.months} aria-hidden>
        {year.map(({ monday }, i) => (
          <span key={monday}>
            {startsMonth(monday, i) ? dayAndMonth(daysAfter(monday, 6)).split(' ')[1]!.slice(0, 3) : ''}
          </span>
        ))}
      </div>
    </section>
  );
}

const startsMonth = (monday: string, i: number): boolean =>
  i > 0 && Number(daysAfter(monday, 6).slice(8, 10)) <= 7 && i < WEEKS - 1;

/** A rounded swell of a height, a week wide and a little over its neighbours. */
const swell = (height: number): string => {
  const base = HIGH + 6;
  return `M-5 ${base}C4 ${base} 3 ${base - height} ${WEEK / 2} ${base - height}S${WEEK - 4} ${base} ${WEEK + 5} ${base}Z`;
};
const silt = (depth: number): string => {
  const top = HIGH + 7;
  return `M0 ${top}C3 ${top} 4 ${top + depth} ${WEEK / 2} ${top + depth}S${WEEK - 3} ${top} ${WEEK} ${top}Z`;
};
