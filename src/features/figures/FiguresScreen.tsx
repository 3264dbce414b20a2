'use client';

import { useMemo } from 'react';
import { gramsByMonth, OVER_TIME, overTime, type OverTimeView } from '@/core/records/overTime';
import { pageWith } from '../edits/applyChanges';
import { useEdits } from '../edits/useEdits';
import { PageFrame } from '../PageFrame';
import { MonthsChart } from './MonthsChart';
import { PointsChart } from './PointsChart';
import styles from './FiguresScreen.module.css';

/** Figures over time: each chart says one thing, in the sentence above it. */
export function FiguresScreen({ initial }: { initial: OverTimeView }) {
  const edits = useEdits(initial, { view: 'log' }, pageWith);
  const { view } = edits;
  const charts = useMemo(() => OVER_TIME.flatMap((kind) => overTime(kind, view.batches) ?? []), [view.batches]);
  const months = useMemo(() => gramsByMonth(view.batches), [view.batches]);
  return (
    <PageFrame
      edits={edits}
      title="Figures over time"
      page="figures"
      ways={[
        { href: '/log', words: 'Log of the workshop' },
        { href: '/learnt', words: 'Learnt' },
      ]}
      widthPx={1320}
    >
      {view.batches.length === 0 ? (
        <p className={styles.none}>
          Nothing is poured yet. Each batch that is poured, looked over and timed becomes a point here.
        </p>
      ) : (
        <div className={styles.charts}>
          <MonthsChart months={months} />
          {charts.map((chart) => (
            <PointsChart key={chart.kind} chart={chart} />
          ))}
        </div>
      )}
    </PageFrame>
  );
}
