'use client';

import Button from '@mui/material/Button';
import { shortTime } from '@/core/cure/dayNames';
import { batchStatus } from '@/core/records/buildRequest';
import type { Batch, Stored } from '@/core/records/schema';
import { useDesk } from '../desk/DeskContext';
import styles from './BatchList.module.css';

interface BatchListProps {
  chosen: Stored<Batch> | null;
  /** Layers in the chosen batch's plan, to tell half done from finished. */
  layers: number | null;
  choose: (id: string) => void;
}

/** The batches of a set, each with where it stands. */
export function BatchList({ chosen, layers, choose }: BatchListProps) {
  const { desk, door } = useDesk();
  const plan = async (): Promise<void> => {
    const outcome = await door.run(
      ({ designs, batches, now }) => ({
        do: 'add',
        kind: 'batch',
        setId: desk.set.id,
        label: 'Plan a batch',
        data: {
          name: `Batch ${batches.length + 1}`,
          items: designs.map(({ id, data }) => ({ designId: id, copies: data.copies })),
          pourAt: now,
          pours: [],
          planned: null,
        },
      }),
      'Batch planned',
    );
    if (outcome.ok && outcome.id) choose(outcome.id);
  };
  return (
    <section aria-label="Batches" className={styles.batches}>
      <h2 className={styles.heading}>Batches</h2>
      <ul>
        {desk.batches.map(({ id, data }) => (
          <li key={id}>
            <button type="button" className={styles.batch} aria-pressed={id === chosen?.id} onClick={() => choose(id)}>
              <span className={styles.name}>{data.name}</span>
              <span className={styles.state}>{statusWords(data, id === chosen?.id ? layers : null)}</span>
            </button>
          </li>
        ))}
      </ul>
      <Button
        variant={desk.batches.length === 0 ? 'contained' : 'outlined'}
        disabled={desk.designs.length === 0}
        onClick={() => void plan()}
      >
        Plan a batch
      </Button>
    </section>
  );
}

/** Where a batch stands, in words; the number of layers tells finished from half done. */
export function statusWords(batch: Batch, layers: number | null): string {
  const last = batch.pours.at(-1);
  if (!last) return `planned, ${shortTime(batch.pourAt)}`;
  const status = layers === null ? null : batchStatus(batch, layers);
  return status === 'finished'
    ? `poured, last ${shortTime(last.pouredAt)}`
    : `layer ${last.layer}${layers ? ` of ${layers}` : ''} poured, ${shortTime(last.pouredAt)}`;
}
