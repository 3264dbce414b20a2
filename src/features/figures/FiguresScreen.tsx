'use client';

import Link from 'next/link';
import { useMemo, useState } from 'react';
import { gramsByMonth, OVER_TIME, overTime, type OverTimeView } from '@/core/records/overTime';
import { CalendarProvider } from '@/ui/controls/CalendarContext';
import { useShortcuts, type Shortcut } from '@/ui/keys/useShortcuts';
import { UnitsProvider } from '@/ui/measure/UnitsContext';
import { EditNotices } from '../edits/EditNotices';
import { pageWith } from '../edits/applyChanges';
import { UnreadableNotice } from '../edits/UnreadableNotice';
import { useEdits } from '../edits/useEdits';
import { Finder } from '../find/Finder';
import { HelpDialog } from '../help/HelpDialog';
import { TopBar } from '../TopBar';
import { MonthsChart } from './MonthsChart';
import { PointsChart } from './PointsChart';
import styles from './FiguresScreen.module.css';

/** Figures over time: each chart says one thing, in the sentence above it. */
export function FiguresScreen({ initial }: { initial: OverTimeView }) {
  const edits = useEdits(initial, { view: 'log' }, pageWith);
  const { view } = edits;
  const [opened, setOpened] = useState<'find' | 'keys' | null>(null);
  const charts = useMemo(() => OVER_TIME.flatMap((kind) => overTime(kind, view.batches) ?? []), [view.batches]);
  const months = useMemo(() => gramsByMonth(view.batches), [view.batches]);
  const shortcuts: Shortcut[] = [
    { key: '/', does: 'Find anything', run: () => setOpened('find') },
    { key: '?', does: 'What this page says, and its keys', run: () => setOpened('keys') },
  ];
  useShortcuts(shortcuts);
  return (
    <UnitsProvider units={view.settings.data.units}>
      <CalendarProvider calendar={view.settings.data.calendar}>
        <div className={styles.page}>
          <TopBar edits={edits} onFind={() => setOpened('find')} onKeys={() => setOpened('keys')}>
            <h1 className={styles.title}>Figures over time</h1>
            <Link href="/log" className={styles.back}>
              Log of the workshop
            </Link>
            <Link href="/learnt" className={styles.back}>
              Learnt
            </Link>
          </TopBar>
          <main>
            <UnreadableNotice unreadable={view.unreadable} />
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
          </main>
          <EditNotices edits={edits} />
          <HelpDialog page="figures" open={opened === 'keys'} shortcuts={shortcuts} onClose={() => setOpened(null)} />
          {opened === 'find' && <Finder onClose={() => setOpened(null)} />}
        </div>
      </CalendarProvider>
    </UnitsProvider>
  );
}
