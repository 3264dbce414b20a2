'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { ComposedChart, Line, ResponsiveContainer, Scatter, Tooltip, XAxis, YAxis } from 'recharts';
import type { BatchOverTime, OverTime, OverTimeKind } from '@/core/records/overTime';
import { dayAndMonth, dayWithYear } from '@/core/time/dayNames';
import { formatMeasure, formatMoney, type UnitPreferences } from '@/core/units/formatMeasure';
import { explainOverTime } from '@/core/records/explainOverTime';
import { Fold } from '@/ui/controls/Fold';
import { useUnits } from '@/ui/measure/UnitsContext';
import { HowPress } from '@/ui/reading/HowPress';
import { AXIS, HEIGHT, TIP } from './chartLook';
import styles from './FiguresScreen.module.css';

const share = (value: number): string => `${Number((100 * value).toFixed(1))} %`;

/** How a chart is told. */
const TOLD: Record<
  OverTimeKind,
  { name: string; say: (value: number, units: UnitPreferences) => string; sentence: (value: string) => string }
> = {
  waste: { name: 'Lost of what was mixed', say: share, sentence: (value) => `${value} of the mix reached no piece` },
  cost: {
    name: 'Material a piece',
    say: (value, units) => formatMoney(value, units),
    sentence: (value) => `a piece took ${value} out of the bottles`,
  },
  hours: {
    name: 'Minutes against what was reckoned',
    say: (value) => `× ${value.toFixed(2)}`,
    sentence: (value) => `marked steps took ${value} of what was reckoned`,
  },
  passed: {
    name: 'Passed at the first look',
    say: share,
    sentence: (value) => `${value} of the pieces passed at the first look`,
  },
  level: {
    name: 'Levels off',
    say: (value, units) => formatMeasure(value, 'length', units, 2),
    sentence: (value) => `levels were off by ${value} on the average`,
  },
  step: {
    name: 'Step between pieces',
    say: (value, units) => formatMeasure(value, 'length', units, 2),
    sentence: (value) => `the water of any two pieces differed by ${value} at their edges`,
  },
  cured: {
    name: 'Hardening against what was reckoned',
    say: (value) => `× ${value.toFixed(2)}`,
    sentence: (value) => `layers hardened in ${value} of the time that was reckoned`,
  },
  colour: {
    name: 'Colour off the recipe',
    say: (value) => `ΔE ${value.toFixed(1)}`,
    sentence: (value) => `the water was off its recipe by ${value} in photos`,
  },
};

const DAY_MS = 86_400_000;
const dayOf = (at: string): number => Date.parse(`${at.slice(0, 10)}T00:00:00Z`) / DAY_MS;
const dateOf = (day: number): string => new Date(day * DAY_MS).toISOString().slice(0, 10);
const hrefOf = ({ setId, batchId }: BatchOverTime): string => `/sets/${setId}/log?batch=${batchId}`;

/** One figure over time: each batch a point that opens it, the mean of the last five as a line; the same as a list. */
export function PointsChart({ chart }: { chart: OverTime }) {
  const { kind, points, before, lately, latelyOf } = chart;
  const units = useUnits();
  const router = useRouter();
  const { name, say, sentence } = TOLD[kind];
  const words = (value: number): string => say(value, units);
  const said = sentence(words(lately));
  const data = points.map(({ batch, value, mean }) => ({ day: dayOf(batch.at), value, mean, batch }));
  return (
    <figure className={styles.chart} aria-label={name}>
      <figcaption>
        {before === null
          ? `${said.charAt(0).toUpperCase()}${said.slice(1)}.`
          : `Of the last ${latelyOf} batches ${said}; of those before ${words(before)}.`}{' '}
        <HowPress label="How so" figure={words(lately)} explain={() => explainOverTime(chart, name, words)} />
      </figcaption>
      <ResponsiveContainer width="100%" height={HEIGHT} initialDimension={{ width: 560, height: HEIGHT }}>
        <ComposedChart data={data} margin={{ top: 8, right: 12, bottom: 0, left: 0 }}>
          <XAxis
            dataKey="day"
            type="number"
            domain={['dataMin - 6', 'dataMax + 6']}
            tickFormatter={(day: number) => dayAndMonth(dateOf(day))}
            tickCount={5}
            {...AXIS}
          />
          <YAxis
            tickFormatter={words}
            width={64}
            domain={kind === 'hours' || kind === 'cured' ? [0, 'auto'] : undefined}
            {...AXIS}
          />
          <Tooltip
            {...TIP}
            labelFormatter={(_, shown) => {
              const batch = (shown[0]?.payload as (typeof data)[number] | undefined)?.batch;
              return batch ? `${batch.set}, ${batch.name}, ${dayWithYear(batch.at.slice(0, 10))}` : '';
            }}
            formatter={(value, what) => [words(Number(value)), what]}
          />
          <Line
            dataKey="mean"
            name="mean of the last five"
            stroke="var(--ink)"
            strokeWidth={1.5}
            dot={false}
            isAnimationActive={false}
          />
          <Scatter
            dataKey="value"
            name={name.toLowerCase()}
            fill="var(--water)"
            cursor="pointer"
            isAnimationActive={false}
            onClick={(point: { payload?: (typeof data)[number] }) =>
              point.payload && router.push(hrefOf(point.payload.batch))
            }
          />
        </ComposedChart>
      </ResponsiveContainer>
      <Fold summary="As a list">
        <ol className={styles.list}>
          {points.toReversed().map(({ batch, value }) => (
            <li key={batch.batchId}>
              <Link href={hrefOf(batch)}>{`${batch.set}, ${batch.name}`}</Link>
              <span>{`${dayAndMonth(batch.at.slice(0, 10))}: ${words(value)}`}</span>
            </li>
          ))}
        </ol>
      </Fold>
    </figure>
  );
}
