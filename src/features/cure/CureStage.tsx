'use client';

import { useSearchParams } from 'next/navigation';
import { Suspense, use, useState } from 'react';
import type { CalendarView } from '@/core/records/views';
import { Held } from '@/ui/held/Held';
import { TabRow } from '@/ui/controls/TabRow';
import { useDesk } from '../desk/DeskContext';
import type { ServedBatch } from '../desk/useBatch';
import { CalendarPart } from './calendar/CalendarPart';
import { OneBatch } from './OneBatch';
import styles from './CureStage.module.css';
import { type CureView, CURE_VIEWS } from './cureViews';

const WORDS: Record<CureView, string> = {
  evenings: 'Evenings',
  time: 'True time and places',
  route: 'Steps of the route',
  promise: 'What may be promised',
  steady: 'Steady work',
  batch: 'One batch',
};

export interface ServedCure {
  /** Of the batch that is asked for, when it is. */
  batch: ServedBatch | null;
  calendar: CalendarView | { later: Promise<CalendarView> } | null;
}

/** Cure: the calendar of all that is being made, from glue to last varnish. */
export function CureStage({ served }: { served: ServedCure }) {
  const { desk } = useDesk();
  const asked = useSearchParams().get('show');
  const view = CURE_VIEWS.find((one) => one === asked) ?? 'evenings';
  return (
    <div className={styles.whole}>
      <TabRow
        label="Cure"
        value={view}
        tabs={CURE_VIEWS.map((value) => ({
          value,
          label: WORDS[value],
          href: `/sets/${desk.set.id}/cure${value === 'evenings' ? '' : `?show=${value}`}`,
        }))}
      />
      {view === 'batch' ? <OneBatch served={served.batch} /> : <Calendar view={view} calendar={served.calendar} />}
    </div>
  );
}

/** A calendar that comes in after the page's head stands in its HTML as soon as it is there. */
function Calendar({ view, calendar }: { view: CureView; calendar: ServedCure['calendar'] }) {
  // What was open stays open while one goes from view to view.
  const [first] = useState(calendar);
  const shown = calendar ?? first;
  if (!shown) return <Held label="Working out the calendar" />;
  if (!('later' in shown)) return <CalendarPart view={view} served={shown} />;
  return (
    <Suspense fallback={<Held label="Working out the calendar" />}>
      <Late view={view} calendar={shown.later} />
    </Suspense>
  );
}

const Late = ({ view, calendar }: { view: CureView; calendar: Promise<CalendarView> }) => (
  <CalendarPart view={view} served={use(calendar)} />
);
