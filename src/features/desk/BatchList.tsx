'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { shortTime } from '@/core/time/dayNames';
import type { BatchRow } from '@/core/records/views';
import { piecesDry } from '@/core/records/work';
import { PickList } from '@/ui/controls/PickList';
import { useDesk } from './DeskContext';
import styles from './BatchList.module.css';

interface BatchListProps {
  chosen: BatchRow | null;
  choose: (id: string) => void;
}

/** The batches of a set, newest first, each with where it stands. */
export function BatchList({ chosen, choose }: BatchListProps) {
  const { desk, edits } = useDesk();
  const { batches, batchCount } = desk;
  const plan = async (): Promise<void> => {
    const outcome = await edits.run(() => ({ do: 'plan', setId: desk.set.id }), 'Batch planned');
    if (outcome.ok && outcome.id) choose(outcome.id);
  };
  const more = async (): Promise<void> => {
    const response = await fetch(`/api/sets/${encodeURIComponent(desk.set.id)}/batches?after=${batches.length}`);
    if (!response.ok) return;
    const rows = (await response.json()) as BatchRow[];
    edits.show((view) => ({
      ...view,
      batches: [...view.batches, ...rows.filter((row) => !view.batches.some(({ id }) => id === row.id))],
    }));
  };
  const listed = chosen && !batches.some(({ id }) => id === chosen.id) ? [chosen, ...batches] : batches;
  return (
    <section aria-label="Batches" className={styles.batches}>
      <h2 className={styles.heading}>Batches</h2>
      <div className={styles.list}>
        <PickList
          label="Batches, newest first"
          chosenId={chosen?.id ?? null}
          onChoose={choose}
          items={listed.map((row) => ({
            id: row.id,
            content: (
              <span className={styles.batch}>
                <span className={styles.name}>{row.data.name}</span>
                <span className={styles.state}>{statusWords(row)}</span>
              </span>
            ),
          }))}
        />
      </div>
      {batches.length < batchCount && (
        <Button variant="text" size="small" onClick={() => void more()}>
          {`Older ones, ${batchCount - batches.length}`}
        </Button>
      )}
      {desk.designs.length === 0 ? (
        <Button component={Link} href={`/sets/${desk.set.id}/shape`} variant="contained">
          Add a piece first
        </Button>
      ) : (
        <Button variant={batches.length === 0 ? 'contained' : 'outlined'} onClick={() => void plan()}>
          Plan a batch
        </Button>
      )}
    </section>
  );
}

/** Where a batch stands, in words. */
export function statusWords({ data, poured }: BatchRow): string {
  if (!poured) return `planned, ${shortTime(data.pourAt)}`;
  if (poured.dry > 0) return `layer ${poured.layers + 1} of ${poured.of} begun, ${piecesDry(poured.dry)}`;
  return poured.layers >= poured.of
    ? `poured, last ${shortTime(poured.lastAt)}`
    : `${poured.layers} of ${poured.of} layers poured, ${shortTime(poured.lastAt)}`;
}
