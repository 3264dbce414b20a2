'use client';

import Link from 'next/link';
import type { JobWorkedOut } from '@/core/records/job';
import { formatMoney } from '@/core/units/formatMeasure';
import { useUnits } from '@/ui/measure/UnitsContext';
import { useAwake } from '@/ui/useAwake';
import { useFetched } from '@/ui/useFetched';
import { useDesk } from './DeskContext';
import styles from './DeskFrame.module.css';

/** The way to the job of the set; where it is likely to run over its limits that is said on every stage. */
export function JobWords() {
  const { desk } = useDesk();
  const { job } = desk.set.data;
  const limited = useAwake() && job !== null && (job.budget !== null || Boolean(job.hours));
  return (
    <Link href={`/job/${desk.set.id}`} className={styles.job}>
      Job{limited && <Over />}
    </Link>
  );
}

function Over() {
  const { desk } = useDesk();
  const units = useUnits();
  const { data } = useFetched<JobWorkedOut>(
    `/api/sets/${encodeURIComponent(desk.set.id)}/job`,
    `${desk.set.version} ${desk.shelf.settings.version} ${desk.batches.map(({ version }) => version).join(' ')}`,
  );
  if (!data) return null;
  const { hours, money } = data.figures;
  const over = [
    hours.over > 0 && `${hours.over.toFixed(1)} h`,
    money.over > 0 && formatMoney(money.over, units),
  ].filter(Boolean);
  return over.length > 0 ? <b>{`: ${over.join(' and ')} over`}</b> : null;
}
