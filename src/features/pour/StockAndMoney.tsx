'use client';

import { useState } from 'react';
import type { StockLevel } from '@/core/stock/haveAndNeed';
import type { PlannedBatch } from '../desk/BatchPlan';
import { useDesk } from '../desk/DeskContext';
import { useFetched } from '@/ui/useFetched';
import { NotRead } from '@/ui/held/NotRead';
import { HaveAndNeed } from './HaveAndNeed';
import { Money } from './Money';

/** What a batch takes off the shelf and what it costs: both by what stands there now, read once for the two. */
export function StockAndMoney(planned: PlannedBatch) {
  const { desk } = useDesk();
  const { id, version } = planned.batch;
  // What is kept for a batch changes nothing of the batch itself.
  const [kept, setKept] = useState(0);
  const {
    data: levels,
    failed,
    again,
  } = useFetched<StockLevel[]>(
    `/api/batches/${encodeURIComponent(id)}/stock`,
    `${version} ${desk.history.undo?.edit ?? ''} ${desk.now} ${kept}`,
  );
  if (failed && levels === null)
    return (
      <NotRead what="What stands on the shelf could not be read: nothing is said of what is missing." again={again} />
    );
  return (
    <>
      {failed && <NotRead what="The shelf could not be read again: these figures are from before." again={again} />}
      <HaveAndNeed {...planned} levels={levels} onKept={() => setKept((times) => times + 1)} />
      <Money {...planned} levels={levels ?? []} />
    </>
  );
}
