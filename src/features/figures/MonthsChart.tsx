'use client';

import { Bar, BarChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import type { MonthOfGrams } from '@/core/records/overTime';
import { dayAndMonth } from '@/core/time/dayNames';
import { formatMeasure } from '@/core/units/formatMeasure';
import { explainMonths } from '@/core/records/explainOverTime';
import { HowPress } from '@/ui/reading/HowPress';
import { useUnits } from '@/ui/measure/UnitsContext';
import { AXIS, HEIGHT, TIP } from './chartLook';
import styles from './FiguresScreen.module.css';

const nameOf = (month: string): string => dayAndMonth(`${month}-15`).split(' ')[1]!.slice(0, 3);

/** What was mixed, month by month, and what of that reached no piece. */
export function MonthsChart({ months }: { months: readonly MonthOfGrams[] }) {
  const units = useUnits();
  const grams = (value: number): string => formatMeasure(value, 'mass', units, 0);
  const [inPieces, lost] = [
    months.reduce((sum, one) => sum + one.inPieces, 0),
    months.reduce((sum, one) => sum + one.lost, 0),
  ];
  const fullest = months.reduce<MonthOfGrams | null>(
    (most, one) => (most && most.inPieces + most.lost >= one.inPieces + one.lost ? most : one),
    null,
  );
  return (
    <figure className={styles.chart} aria-label="Mixed and lost, month by month">
      <figcaption>
        {`${grams(inPieces + lost)} were mixed in ${months.length === 1 ? 'a month' : `${months.length} months`}, ${grams(lost)} of it for nothing${
          fullest && months.length > 1
            ? `; most in ${nameOf(fullest.month)}, ${grams(fullest.inPieces + fullest.lost)}`
            : ''
        }.`}{' '}
        <HowPress label="How so" figure={grams(inPieces + lost)} explain={() => explainMonths(months, grams)} />
      </figcaption>
      <ResponsiveContainer width="100%" height={HEIGHT} initialDimension={{ width: 560, height: HEIGHT }}>
        <BarChart data={[...months]} margin={{ top: 8, right: 8, bottom: 0, left: 0 }}>
          <XAxis dataKey="month" tickFormatter={nameOf} {...AXIS} />
          <YAxis tickFormatter={grams} width={64} {...AXIS} />
          <Tooltip
            {...TIP}
            labelFormatter={(month) => String(month)}
            formatter={(value, name) => [grams(Number(value)), name]}
          />
          <Bar dataKey="inPieces" name="in pieces" stackId="grams" fill="var(--water)" isAnimationActive={false} />
          <Bar dataKey="lost" name="lost" stackId="grams" fill="var(--body-edge)" isAnimationActive={false} />
        </BarChart>
      </ResponsiveContainer>
      <p className={styles.key}>
        <i data-key="in" /> in pieces <i data-key="lost" /> lost
      </p>
    </figure>
  );
}
